"""The intake app."""

from django.apps import AppConfig


class IntakeConfig(AppConfig):
    """Name of the app."""

    name = "intavo.intake"
