"""Jobs of copies."""

from procrastinate import JobContext
from procrastinate.contrib.django import app

from intavo.jobs import AGAIN, tried

from . import actions


@app.task(name="write_copy", retry=AGAIN, pass_context=True)
def write_copy(context: JobContext, copy_id: int) -> None:
    """Make a copy."""
    tried(context, lambda: actions.write_now(copy_id), lambda: actions.give_up(copy_id))


@app.task(name="read_copy", retry=AGAIN, pass_context=True)
def read_copy(context: JobContext, copy_id: int) -> None:
    """Make a business anew."""
    tried(context, lambda: actions.read_now(copy_id), lambda: actions.give_up(copy_id))


@app.periodic(cron="47 * * * *")
@app.task(name="clear_copies", queueing_lock="clear_copies")
def clear_copies(timestamp: int) -> None:
    """Throw old copies away."""
    actions.clear_away()
