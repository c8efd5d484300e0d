"""The results app."""

from django.apps import AppConfig


class ResultsConfig(AppConfig):
    """Name of the app."""

    name = "intavo.results"
