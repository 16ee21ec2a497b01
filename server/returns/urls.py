"""Addresses of the return."""

from django.urls import path

from . import api

urlpatterns = [
    path("assignments/<int:assignment>/return", api.ReturnView.as_view()),
    path("assignments/<int:assignment>/pack", api.PackView.as_view()),
    path("assignments/<int:assignment>/gradebook", api.GradebookView.as_view()),
    path("submissions/<int:submission>/return", api.HandbackView.as_view()),
]
