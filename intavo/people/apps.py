"""The people app."""

from django.apps import AppConfig


class PeopleConfig(AppConfig):
    """Name of the app."""

    name = "intavo.people"
