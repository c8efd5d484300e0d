"""Addresses that mail is handed in at."""

from django.urls import path

from .views import hand_in

urlpatterns = [path("in/mail/<str:secret>", hand_in)]
