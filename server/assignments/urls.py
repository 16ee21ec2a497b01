"""Addresses of assignments."""

from django.urls import path

from . import api

urlpatterns = [
    path("courses/<int:course>/assignments", api.AssignmentsView.as_view()),
    path("assignments/<int:assignment>", api.AssignmentView.as_view()),
    path("assignments/<int:assignment>/file", api.AssignmentFileView.as_view()),
    path("sample", api.SampleView.as_view()),
    path("measures", api.MeasuresView.as_view()),
    path("languages", api.LanguagesView.as_view()),
    path("default-assignment", api.DefaultSpecView.as_view()),
]
