"""What an authenticator shares with us is kept sealed with the server's own secret."""

import base64
import hashlib

from allauth.mfa import app_settings
from allauth.mfa.adapter import DefaultMFAAdapter
from allauth.mfa.totp.internal.auth import TOTP
from cryptography.fernet import Fernet, MultiFernet
from django.conf import settings
from django.core.cache import cache


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


def let_no_code_be_used_twice() -> None:
    """A code that was used counts as used for as long as it would be taken. allauth remembers it for one step
    only.
    """
    steps = 2 * app_settings.TOTP_TOLERANCE + 1

    def mark(self: TOTP, code: str) -> bool:
        return cache.add(self._get_used_cache_key(code), "y", timeout=steps * app_settings.TOTP_PERIOD)

    TOTP._mark_code_used = mark


def sealed(text: str) -> str:
    """A secret as it is kept: sealed with the server's own."""
    return _seal().encrypt(text.encode()).decode()


def unsealed(text: str) -> str:
    """A kept secret, opened again."""
    return _seal().decrypt(text.encode()).decode()
