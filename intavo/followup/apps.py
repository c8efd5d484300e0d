"""The followup app."""

from django.apps import AppConfig


class FollowupConfig(AppConfig):
    """Name of the app."""

    name = "intavo.followup"
