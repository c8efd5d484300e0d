"""Jobs on talks: mailed to those who have left, told where we are late, sent out through gateways."""

from procrastinate import JobContext
from procrastinate.contrib.django import app

from intavo.jobs import AGAIN, tried

from . import leaving
from .gateways import deliver, give_up


@app.task(name="mail_talk", queue="mail", retry=AGAIN)
def mail_talk(talk_id: int) -> None:
    """Mail what a visitor who has left has not seen."""
    leaving.mail_if_gone(talk_id)


@app.periodic(cron="* * * * *")
@app.task(name="tell_late", queueing_lock="tell_late")
def tell_late(timestamp: int) -> None:
    """Tell visitors, once, where we have not answered in time."""
    leaving.tell_late()


@app.task(name="send_out", queue="gateway", retry=AGAIN, pass_context=True)
def send_out(context: JobContext, delivery_id: int) -> None:
    """Hand one message to its gateway; the last try says so to whoever waits for it."""
    tried(context, lambda: deliver(delivery_id), lambda: give_up(delivery_id))
