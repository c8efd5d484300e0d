"""Jobs of mail that comes in: mailboxes are read every minute."""

from procrastinate.contrib.django import app
from procrastinate.exceptions import AlreadyEnqueued

from . import mailbox
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


@app.task(name="read_mailbox", queue="mailbox")
def read_mailbox(mailbox_id: int) -> None:
    """Read one mailbox."""
    mailbox.read_mailbox(mailbox_id)
