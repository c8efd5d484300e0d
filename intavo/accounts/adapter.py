"""How allauth's mails are written and sent: through the mail app's jobs, in our words."""

from typing import Any

from allauth.account.adapter import DefaultAccountAdapter
from django.conf import settings
from django.core.mail import EmailMessage
from django.http import HttpRequest

from .clients import client_address, neighbourhood
from .mails import queue_mail


class AccountAdapter(DefaultAccountAdapter):  # type: ignore[misc]  # allauth ships no types
    """Account mails go through a job, so that signing up never waits for a mail server."""

    def get_client_ip(self, request: HttpRequest) -> str:
        """The address that limits are counted by: the client's, not that of a proxy before us."""
        return client_address(request)

    def _get_login_attempts_cache_key(self, request: HttpRequest, **credentials: Any) -> str:
        # Wrong passwords are counted for an account and an address together: whoever guesses is held up where they are,
        # and never keeps out who knows the password.
        return (
            f"{super()._get_login_attempts_cache_key(request, **credentials)}:{neighbourhood(client_address(request))}"
        )

    def send_mail(self, template_prefix: str, email: str, context: dict[str, Any]) -> None:
        """Render the mail as allauth would and hand it to a job."""
        context = context | {"email": email, "reset_url": f"{settings.BASE_URL}/reset"}
        message: EmailMessage = self.render_mail(template_prefix, email, context)
        queue_mail(to=email, subject=str(message.subject), text=str(message.body))
