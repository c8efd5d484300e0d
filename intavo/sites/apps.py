"""The sites app."""

from django.apps import AppConfig


class SitesConfig(AppConfig):
    """Name of the app."""

    name = "intavo.sites"
