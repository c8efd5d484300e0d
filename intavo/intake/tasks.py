"""Jobs on what visitors sent: addresses that never confirmed are erased, the day's answers are mailed, and
that codes go oddly fast.
"""

from procrastinate.contrib.django import app

from . import actions


@app.periodic(cron="23 * * * *")
@app.task(name="erase_unconfirmed", queueing_lock="erase_unconfirmed")
def erase_unconfirmed(timestamp: int) -> None:
    """Erase addresses that were not confirmed within 14 days."""
    actions.erase_unconfirmed()


@app.periodic(cron="5 6 * * *")
@app.task(name="daily_csv", queueing_lock="daily_csv")
def daily_csv(timestamp: int) -> None:
    """Mail the day's answers to those who asked for them."""
    actions.daily_csv()


@app.periodic(cron="*/15 * * * *")
@app.task(name="tell_of_drains", queueing_lock="tell_of_drains")
def tell_of_drains(timestamp: int) -> None:
    """Tell members of touchpoints whose codes go oddly fast."""
    actions.tell_of_drains()
