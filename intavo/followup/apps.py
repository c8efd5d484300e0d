"""The followup app."""

from django.apps import AppConfig


class FollowupConfig(AppConfig):
    """Name of the app."""

    name = "intavo.followup"

    def ready(self) -> None:
        """Join what happens to people and hours."""
        from . import joining, moving  # noqa: F401  # they register themselves
