"""Mail from Intavo itself: about accounts, invitations, and what members are told."""

from django.db import transaction
from procrastinate.contrib.django import app

from intavo import clock
from intavo.core.texts import one_line

from .models import AccountMail


def queue_mail(*, to: str, subject: str, text: str, unsubscribe: str = "") -> None:
    """Queue it. The job knows its number alone, and the row is gone once it is sent.

    `unsubscribe` is the address that ends mail of its kind by a POST, for what nobody has just asked for.
    """
    with transaction.atomic():
        row = AccountMail.objects.create(
            to=to, subject=one_line(subject)[:300], text=text, unsubscribe=unsubscribe, queued_at=clock.now()
        )
        app.configure_task("account_mail", queue="mail").defer(mail_id=row.pk)
