"""Addresses of the visitor's side."""

from django.urls import path

from . import hosted, views

urlpatterns = [
    path("e/<str:key>.js", views.loader),
    path("e/<str:key>/plan", views.plan_view),
    path("e/<str:key>/intake", views.intake),
    path("e/<str:key>/beats", views.beats),
    path("t/<slug:site>/<slug:slug>", hosted.page, name="hosted"),
]
