"""The touchpoints app."""

from django.apps import AppConfig


class TouchpointsConfig(AppConfig):
    """Name of the app."""

    name = "intavo.touchpoints"
