"""The project: what puts the apps together."""

from django.apps import AppConfig


class ProjectConfig(AppConfig):
    """Name of the app."""

    name = "intavo.project"
