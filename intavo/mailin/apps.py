"""The app of mail that comes in."""

from django.apps import AppConfig


class MailInConfig(AppConfig):
    """Name of the app."""

    name = "intavo.mailin"

    def ready(self) -> None:
        """Hear of mail that could not be sent."""
        from . import actions  # noqa: F401  # registers itself
