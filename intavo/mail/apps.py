"""The mail app."""

from django.apps import AppConfig


class MailConfig(AppConfig):
    """Name of the app; mail is one of the ways to reach somebody from the start."""

    name = "intavo.mail"

    def ready(self) -> None:
        """Join the ways to reach somebody."""
        from . import erasing, way  # noqa: F401  # they register themselves
