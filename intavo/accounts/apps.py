"""The accounts app."""

from django.apps import AppConfig


class AccountsConfig(AppConfig):
    """Name of the app."""

    name = "intavo.accounts"

    def ready(self) -> None:
        """Listen for sign-ins, and let no code be used twice."""
        from . import secrets, signing_in  # noqa: F401  # they read models, which are there only now

        secrets.let_no_code_be_used_twice()
