"""The app of people who are brought in."""

from django.apps import AppConfig


class ImportsConfig(AppConfig):
    """Name of the app."""

    name = "intavo.imports"

    def ready(self) -> None:
        """Join what happens when somebody is erased."""
        from . import erasing  # noqa: F401  # registers itself
