"""Jobs on the list: members told of what is due."""

from procrastinate.contrib.django import app

from intavo import clock

from . import desk, reminding, several


@app.periodic(cron="* * * * *")
@app.task(name="remind", queueing_lock="remind")
def remind(timestamp: int) -> None:
    """Tell members what is due, what is late, and each morning the day's work."""
    reminding.remind_all(clock.now())


@app.periodic(cron="59 3 * * *")
@app.task(name="clear_done_once", queueing_lock="clear_done_once")
def clear_done_once(timestamp: int) -> None:
    """Forget what devices did long ago, and what was done to several before yesterday."""
    desk.clear_away()
    several.clear_away()
