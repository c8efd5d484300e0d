"""How allauth's mails are written and sent: through the mail app's jobs, in our words."""

import hashlib
from typing import Any

from allauth.account.adapter import DefaultAccountAdapter
from allauth.usersessions.models import UserSession
from django.conf import settings
from django.core.cache import cache
from django.core.mail import EmailMessage
from django.http import HttpRequest

from .clients import client_address, neighbourhood
from .mails import queue_mail

# So many wrong passwords an hour for one account, from all the addresses together where nobody is signed in
# to it: from there on it takes a link by mail to sign in at a new place, and whoever is at home is held up by
# nothing.
STRANGERS_AN_HOUR, _HOUR_SECONDS = 200, 60 * 60


def _strangers_of(email: str) -> str:
    return f"strangers-{hashlib.sha256(email.strip().casefold().encode('utf-8', 'replace')).hexdigest()}"


class AccountAdapter(DefaultAccountAdapter):  # type: ignore[misc]  # allauth ships no types
    """Account mails go through a job, so that signing up never waits for a mail server."""

    def get_client_ip(self, request: HttpRequest) -> str:
        """The address that limits are counted by: the client's, not that of a proxy before us."""
        return client_address(request)

    def _get_login_attempts_cache_key(self, request: HttpRequest, **credentials: Any) -> str:
        # Wrong passwords are counted for an account and an address together: whoever guesses is held up where
        # they are, and never keeps out who knows the password.
        account = super()._get_login_attempts_cache_key(request, **credentials)
        return f"{account}:{neighbourhood(client_address(request))}"

    def pre_authenticate(self, request: HttpRequest, **credentials: Any) -> None:
        """Refuse where too many wrong passwords came, from here or for this account from wherever it is not
        at home.
        """
        super().pre_authenticate(request, **credentials)
        email = str(credentials.get("email", ""))
        if cache.get(_strangers_of(email), 0) >= STRANGERS_AN_HOUR and not self._is_at_home(request, email):
            raise self.validation_error("too_many_login_attempts")

    def authentication_failed(self, request: HttpRequest, **credentials: Any) -> None:
        """Count it for the account, unless it came from where somebody is signed in to it."""
        super().authentication_failed(request, **credentials)
        email = str(credentials.get("email", ""))
        if email and not self._is_at_home(request, email):
            cache.add(_strangers_of(email), 0, _HOUR_SECONDS)
            cache.incr(_strangers_of(email))

    @staticmethod
    def _is_at_home(request: HttpRequest, email: str) -> bool:
        here = neighbourhood(client_address(request))
        known = UserSession.objects.filter(user__email__iexact=email).values_list("ip", flat=True)[:50]
        return any(neighbourhood(one) == here for one in known)

    def send_mail(self, template_prefix: str, email: str, context: dict[str, Any]) -> None:
        """Render the mail as allauth would and hand it to a job."""
        context = context | {"email": email, "reset_url": f"{settings.BASE_URL}/reset"}
        message: EmailMessage = self.render_mail(template_prefix, email, context)
        queue_mail(to=email, subject=str(message.subject), text=str(message.body))
