"""Jobs of bringing people in."""

from procrastinate import JobContext
from procrastinate.contrib.django import app

from intavo.jobs import AGAIN, tried

from . import actions
from .taking import take_now
from .undoing import undo_now


@app.task(name="take_import", retry=AGAIN, pass_context=True)
def take_import(context: JobContext, import_id: int) -> None:
    """Take a file in."""
    tried(context, lambda: take_now(import_id), lambda: actions.give_up(import_id))


@app.task(name="undo_import", retry=AGAIN, pass_context=True)
def undo_import(context: JobContext, import_id: int) -> None:
    """Undo an import."""
    tried(context, lambda: undo_now(import_id), lambda: actions.give_up(import_id))


@app.periodic(cron="41 * * * *")
@app.task(name="clear_imports", queueing_lock="clear_imports")
def clear_imports(timestamp: int) -> None:
    """Forget files that nobody took."""
    actions.clear_away()
