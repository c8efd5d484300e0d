"""Jobs on people."""

from procrastinate.contrib.django import app

from intavo.jobs import AGAIN

from .erasing import erase_now


@app.task(name="erase_person", retry=AGAIN)
def erase_person(person_id: int) -> None:
    """Erase somebody, everywhere."""
    erase_now(person_id)
