"""Jobs on people."""

from procrastinate.contrib.django import app

from .erasing import erase_now


@app.task(name="erase_person", queueing_lock=None)
def erase_person(person_id: int) -> None:
    """Erase somebody, everywhere."""
    erase_now(person_id)
