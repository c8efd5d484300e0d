"""Jobs on results: a partition for each month, made long before its first beat comes."""

from procrastinate.contrib.django import app

from intavo import clock

from . import actions


@app.periodic(cron="17 3 * * *")
@app.task(name="make_month", queueing_lock="make_month")
def make_month(timestamp: int) -> None:
    """Make the partitions of the months to come."""
    actions.make_months(clock.now())


@app.periodic(cron="*/5 * * * *")
@app.task(name="fold_beats", queueing_lock="fold_beats")
def fold_beats(timestamp: int) -> None:
    """Fold the latest beats into hourly tallies."""
    actions.fold_beats(clock.now())
