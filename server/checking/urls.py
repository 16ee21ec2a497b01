"""Addresses of checks."""

from django.urls import path

from . import api

urlpatterns = [path("assignments/<int:assignment>/again", api.AgainView.as_view())]
