"""Mail from Intavo itself: about accounts, invitations, and what members are told."""

from django.db import transaction
from procrastinate.contrib.django import app

from intavo.core.texts import one_line
from intavo.project import clock

from .models import AccountMail


def queue_mail(*, to: str, subject: str, text: str) -> None:
    """Queue it. The job knows its number alone, and the row is gone once it is sent."""
    with transaction.atomic():
        row = AccountMail.objects.create(to=to, subject=one_line(subject)[:300], text=text, queued_at=clock.now())
        app.configure_task("account_mail", queue="mail").defer(mail_id=row.pk)
