"""Jobs of bringing people in."""

from procrastinate.contrib.django import app

from intavo.jobs import AGAIN

from . import actions
from .taking import take_now
from .undoing import undo_now


@app.task(name="take_import", retry=AGAIN)
def take_import(import_id: int) -> None:
    """Take a file in."""
    take_now(import_id)


@app.task(name="undo_import", retry=AGAIN)
def undo_import(import_id: int) -> None:
    """Undo an import."""
    undo_now(import_id)


@app.periodic(cron="41 * * * *")
@app.task(name="clear_imports", queueing_lock="clear_imports")
def clear_imports(timestamp: int) -> None:
    """Forget files that nobody took."""
    actions.clear_away()
