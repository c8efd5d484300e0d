"""The app of mail that comes in."""

from django.apps import AppConfig


class MailInConfig(AppConfig):
    """Name of the app."""

    name = "intavo.mailin"
