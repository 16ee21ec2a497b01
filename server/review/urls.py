"""Addresses of the class and the desk."""

from django.urls import path

from . import api

urlpatterns = [
    path("assignments/<int:assignment>/class", api.ClassView.as_view()),
    path("submissions/<int:submission>", api.SubmissionView.as_view()),
    path("submissions/<int:submission>/marks/<str:criterion>", api.MarkView.as_view()),
    path("submissions/<int:submission>/remarks", api.RemarksView.as_view()),
    path("submissions/<int:submission>/reviewed", api.ReviewedView.as_view()),
    path("remarks/<int:remark>", api.RemarkView.as_view()),
]
