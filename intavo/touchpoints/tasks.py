"""Jobs on touchpoints: what was thrown away long ago is erased."""

from procrastinate.contrib.django import app

from . import actions


@app.periodic(cron="41 3 * * *")
@app.task(name="clear_away", queueing_lock="clear_away")
def clear_away(timestamp: int) -> None:
    """Erase touchpoints thrown away more than 30 days ago."""
    actions.clear_away()
