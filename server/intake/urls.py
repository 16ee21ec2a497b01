"""Addresses of batches."""

from django.urls import path

from . import api

urlpatterns = [
    path("assignments/<int:assignment>/batches", api.BatchesView.as_view()),
    path("batches/<int:batch>", api.BatchView.as_view()),
    path("submissions/<int:submission>/student", api.MatchView.as_view()),
]
