"""Jobs of copies."""

from procrastinate.contrib.django import app

from intavo.jobs import AGAIN

from . import actions


@app.task(name="write_copy", retry=AGAIN)
def write_copy(copy_id: int) -> None:
    """Make a copy."""
    actions.write_now(copy_id)


@app.task(name="read_copy", retry=AGAIN)
def read_copy(copy_id: int) -> None:
    """Make a business anew."""
    actions.read_now(copy_id)


@app.periodic(cron="47 * * * *")
@app.task(name="clear_copies", queueing_lock="clear_copies")
def clear_copies(timestamp: int) -> None:
    """Throw old copies away."""
    actions.clear_away()
