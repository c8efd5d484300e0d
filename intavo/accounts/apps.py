"""The accounts app."""

from django.apps import AppConfig


class AccountsConfig(AppConfig):
    """Name of the app."""

    name = "intavo.accounts"

    def ready(self) -> None:
        """Listen for sign-ins."""
        from . import signing_in  # noqa: F401  # it reads models, which are there only now
