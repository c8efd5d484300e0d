"""Jobs on the list: members told of what is due."""

from procrastinate.contrib.django import app

from intavo.project import clock

from . import reminding


@app.periodic(cron="* * * * *")
@app.task(name="remind", queueing_lock="remind")
def remind(timestamp: int) -> None:
    """Tell members what is due, what is late, and each morning the day's work."""
    reminding.remind_all(clock.now())
