"""The app of copies of a whole business."""

from django.apps import AppConfig


class CopiesConfig(AppConfig):
    """Name of the app."""

    name = "intavo.copies"
