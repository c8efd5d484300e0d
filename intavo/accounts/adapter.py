"""How allauth's mails are written and sent: through the mail app's jobs, in our words."""

from typing import Any

from allauth.account.adapter import DefaultAccountAdapter
from django.conf import settings
from django.core.mail import EmailMessage
from procrastinate.contrib.django import app


class AccountAdapter(DefaultAccountAdapter):  # type: ignore[misc]  # allauth ships no types
    """Account mails go through a job, so that signing up never waits for a mail server."""

    def send_mail(self, template_prefix: str, email: str, context: dict[str, Any]) -> None:
        """Render the mail as allauth would and hand it to a job."""
        context = context | {"email": email, "reset_url": f"{settings.BASE_URL}/reset"}
        message: EmailMessage = self.render_mail(template_prefix, email, context)
        app.configure_task("account_mail").defer(
            to=email, subject=str(message.subject), text=str(message.body), key=context.get("key", "")
        )
