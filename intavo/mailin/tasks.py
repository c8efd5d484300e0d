"""Jobs of mail that comes in: mailboxes are read every minute, what lies aside is forgotten in time."""

from procrastinate.contrib.django import app
from procrastinate.exceptions import AlreadyEnqueued

from . import aside, mailbox
from .models import Mailbox


@app.periodic(cron="* * * * *")
@app.task(name="read_mailboxes", queueing_lock="read_mailboxes")
def read_mailboxes(timestamp: int) -> None:
    """Have every mailbox read, each by a job of its own,
    so that one that does not answer holds up no other.
    """
    for one in Mailbox.objects.values_list("pk", flat=True):
        try:
            read_mailbox.configure(lock=f"mailbox {one}", queueing_lock=f"mailbox {one}").defer(
                mailbox_id=one
            )
        except AlreadyEnqueued:
            continue


@app.periodic(cron="41 4 * * *")
@app.task(name="clear_mail_aside", queueing_lock="clear_mail_aside")
def clear_mail_aside(timestamp: int) -> None:
    """Forget what nobody has taken up for ninety days."""
    aside.clear_away()


@app.task(name="read_mailbox", queue="mailbox")
def read_mailbox(mailbox_id: int) -> None:
    """Read one mailbox."""
    mailbox.read_mailbox(mailbox_id)
