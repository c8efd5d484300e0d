"""The mail app."""

from django.apps import AppConfig


class MailConfig(AppConfig):
    """Name of the app."""

    name = "intavo.mail"
