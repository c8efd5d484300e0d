"""Jobs that send mail; tried again with growing pauses when the mail server is away."""

from procrastinate import RetryStrategy
from procrastinate.contrib.django import app

from . import actions, enclosing

# Pauses of 4 s, 8 s, 16 s and so on: about nine hours of tries.
AGAIN = RetryStrategy(max_attempts=14, exponential_wait=2)


@app.task(name="send_mail", queue="mail", retry=AGAIN)
def send_mail(mail_id: int) -> None:
    """Send one queued mail."""
    actions.send(mail_id=mail_id)


@app.periodic(cron="53 * * * *")
@app.task(name="clear_enclosures", queueing_lock="clear_enclosures")
def clear_enclosures(timestamp: int) -> None:
    """Forget files that went with nothing."""
    enclosing.clear_away()


@app.task(name="account_mail", queue="mail", retry=AGAIN)
def account_mail(to: str, subject: str, text: str, key: str = "") -> None:
    """Send one mail about an account."""
    actions.send_account_mail(to=to, subject=subject, text=text)
