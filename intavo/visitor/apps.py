"""The visitor app."""

from django.apps import AppConfig


class VisitorConfig(AppConfig):
    """Name of the app."""

    name = "intavo.visitor"
