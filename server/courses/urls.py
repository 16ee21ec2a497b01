"""Addresses of login, courses and class lists."""

from django.urls import path

from . import api

urlpatterns = [
    path("session", api.SessionView.as_view()),
    path("courses", api.CoursesView.as_view()),
    path("courses/<int:course>/roster", api.RosterView.as_view()),
    path("courses/<int:course>/members", api.MembersView.as_view()),
    path("courses/<int:course>/members/<str:user>", api.MemberView.as_view()),
]
