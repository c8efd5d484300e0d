"""The talks app."""

from django.apps import AppConfig


class TalksConfig(AppConfig):
    """Name of the app; how somebody is answered in a talk is known from the start."""

    name = "intavo.talks"

    def ready(self) -> None:
        """Join the ways to reach somebody."""
        from . import erasing, finding, way  # noqa: F401  # they register themselves
