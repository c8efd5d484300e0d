"""The hours app."""

from django.apps import AppConfig


class HoursConfig(AppConfig):
    """Name of the app."""

    name = "intavo.hours"
