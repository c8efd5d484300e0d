"""The accounts app."""

from django.apps import AppConfig


class AccountsConfig(AppConfig):
    """Name of the app."""

    name = "intavo.accounts"
