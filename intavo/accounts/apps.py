"""The accounts app."""

from django.apps import AppConfig


class AccountsConfig(AppConfig):
    """Name of the app."""

    name = "intavo.accounts"

    def ready(self) -> None:
        """Listen for sign-ins, and hold their second step."""
        from . import second_step, signing_in  # noqa: F401  # they read models, which are there only now

        second_step.hold()
