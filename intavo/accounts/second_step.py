"""The second step of signing in, held apart by account and place.

Whoever has the password alone tries codes, but does not keep the owner from theirs: tries are counted for
each place, and where the account is not signed in, for the account as well. The codes that were kept for a
lost authenticator are no part of that count. allauth counts by the account alone.
"""

import json
from collections.abc import Callable

from allauth.account.adapter import get_adapter
from allauth.core import context, ratelimit
from allauth.mfa import app_settings
from allauth.mfa.base import forms
from allauth.mfa.totp.internal.auth import TOTP
from allauth.usersessions.models import UserSession
from django.core.cache import cache
from django.http import HttpRequest

from .clients import client_address, neighbourhood
from .models import User

_valid, _activated = TOTP.validate_code, TOTP.activate


def _place(request: HttpRequest) -> str:
    return neighbourhood(client_address(request))


def _limited(user: User, error_key: str | None = None) -> Callable[[], None]:
    """Counts a try of this account from this place; gives back how to forget those before it.

    Raises allauth's error where there were too many.
    """
    key = f"second-step-{user.pk}-{_place(context.request)}"
    if not ratelimit.consume(context.request, action="login_failed", key=key):
        raise get_adapter().validation_error(error_key or "too_many_login_attempts")
    return lambda: ratelimit.clear(context.request, action="login_failed", key=key)


def _is_theirs(user_id: int, place: str) -> bool:
    """Whether the account is signed in at this place."""
    rows = UserSession.objects.filter(user_id=user_id).values_list("ip", flat=True)
    return any(neighbourhood(address) == place for address in rows[:200])


def _validate(self: TOTP, code: str) -> bool:
    """Whether a code of an authenticator is right, unless too many were tried from elsewhere."""
    request, user_id = context.request, self.instance.user_id
    return bool(
        (
            _is_theirs(user_id, _place(request))
            or ratelimit.consume(request, action="second_step", key=f"second-step-{user_id}")
        )
        and _valid(self, code)
    )


def _mark(self: TOTP, code: str) -> bool:
    steps = 2 * app_settings.TOTP_TOLERANCE + 1
    return cache.add(self._get_used_cache_key(code), "y", timeout=steps * app_settings.TOTP_PERIOD)


def _activate(user: User, secret: str) -> TOTP:
    """Switched on; the code that was said for it is used."""
    authenticator = _activated(user, secret)
    authenticator._mark_code_used(str(json.loads(context.request.body).get("code")))
    return authenticator


def hold() -> None:
    """Put these in the places of allauth's own.

    A code that was used counts as used for as long as it would be taken; allauth remembers it for one step.
    """
    forms.check_rate_limit = _limited
    TOTP.validate_code = _validate
    TOTP._mark_code_used = _mark
    TOTP.activate = _activate
