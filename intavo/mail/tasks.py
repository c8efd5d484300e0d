"""Jobs that send mail; tried again with growing pauses when the mail server is away."""

from procrastinate import JobContext, RetryStrategy
from procrastinate.contrib.django import app

from . import actions, enclosing

# Pauses of 4 s, 8 s, 16 s and so on: about nine hours of tries.
MOST_TRIES = 14
AGAIN = RetryStrategy(max_attempts=MOST_TRIES, exponential_wait=2)


@app.task(name="send_mail", queue="mail", retry=AGAIN, pass_context=True)
def send_mail(context: JobContext, mail_id: int) -> None:
    """Send one queued mail; the last try says so to whoever waits for it."""
    actions.send(mail_id=mail_id, last=context.job.attempts >= MOST_TRIES)


@app.periodic(cron="53 * * * *")
@app.task(name="clear_enclosures", queueing_lock="clear_enclosures")
def clear_enclosures(timestamp: int) -> None:
    """Forget files that went with nothing."""
    enclosing.clear_away()


@app.task(name="account_mail", queue="mail", retry=AGAIN)
def account_mail(mail_id: int) -> None:
    """Send one mail of Intavo itself."""
    actions.send_account_mail(mail_id=mail_id)
