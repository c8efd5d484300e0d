"""Jobs that send mail; tried again with growing pauses when the mail server is away."""

from procrastinate import RetryStrategy
from procrastinate.contrib.django import app

from . import actions

# Pauses of 4 s, 8 s, 16 s and so on: about nine hours of tries.
AGAIN = RetryStrategy(max_attempts=14, exponential_wait=2)


@app.task(name="send_mail", queue="mail", retry=AGAIN)
def send_mail(mail_id: int) -> None:
    """Send one queued mail."""
    actions.send(mail_id=mail_id)


@app.task(name="account_mail", queue="mail", retry=AGAIN)
def account_mail(to: str, subject: str, text: str, key: str = "") -> None:
    """Send one mail about an account."""
    actions.send_account_mail(to=to, subject=subject, text=text)
