"""The channels app."""

from django.apps import AppConfig


class ChannelsConfig(AppConfig):
    """Name of the app."""

    name = "intavo.channels"
