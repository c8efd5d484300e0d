"""The followup app."""

from django.apps import AppConfig


class FollowupConfig(AppConfig):
    """Name of the app."""

    name = "intavo.followup"

    def ready(self) -> None:
        """Join what happens to people."""
        from . import joining  # noqa: F401  # registers itself
