"""Jobs that send mail; tried again with growing pauses when the mail server is away."""

from procrastinate import JobContext
from procrastinate.contrib.django import app

from intavo.jobs import AGAIN, tried

from . import actions, enclosing


@app.task(name="send_mail", queue="mail", retry=AGAIN, pass_context=True)
def send_mail(context: JobContext, mail_id: int) -> None:
    """Send one queued mail."""
    tried(context, lambda: actions.send(mail_id=mail_id), lambda: actions.give_up(mail_id=mail_id))


@app.periodic(cron="53 * * * *")
@app.task(name="clear_enclosures", queueing_lock="clear_enclosures")
def clear_enclosures(timestamp: int) -> None:
    """Forget files that went with nothing."""
    enclosing.clear_away()


@app.task(name="account_mail", queue="mail", retry=AGAIN)
def account_mail(mail_id: int) -> None:
    """Send one mail of Intavo itself."""
    actions.send_account_mail(mail_id=mail_id)
