"""What an authenticator shares with us is kept sealed with the server's own secret."""

import base64
import hashlib

from allauth.mfa.adapter import DefaultMFAAdapter
from cryptography.fernet import Fernet, MultiFernet
from django.conf import settings


def _seal() -> MultiFernet:
    """The newest secret seals; the ones before it still open."""
    secrets = [settings.SECRET_KEY, *settings.SECRET_KEY_FALLBACKS]
    keys = (hashlib.sha256(f"authenticators {secret}".encode()).digest() for secret in secrets)
    return MultiFernet([Fernet(base64.urlsafe_b64encode(key)) for key in keys])


class SealedAdapter(DefaultMFAAdapter):  # type: ignore[misc]  # allauth ships no types
    """A copy of the database alone lets nobody make codes."""

    def encrypt(self, text: str) -> str:
        """Sealed, as text."""
        return _seal().encrypt(text.encode()).decode()

    def decrypt(self, encrypted_text: str) -> str:
        """Opened again."""
        return _seal().decrypt(encrypted_text.encode()).decode()


def sealed(text: str) -> str:
    """A secret as it is kept: sealed with the server's own."""
    return _seal().encrypt(text.encode()).decode()


def unsealed(text: str) -> str:
    """A kept secret, opened again."""
    return _seal().decrypt(text.encode()).decode()
