"""Jobs on people."""

from procrastinate.contrib.django import app

from intavo.jobs import AGAIN

from .erasing import erase_now, erase_the_rest


@app.task(name="erase_person", retry=AGAIN)
def erase_person(person_id: int) -> None:
    """Erase somebody, everywhere."""
    erase_now(person_id)


@app.periodic(cron="13 * * * *")
@app.task(name="erase_the_rest", queueing_lock="erase_the_rest")
def erase_rest(timestamp: int) -> None:
    """Erase those whose own job came to nothing."""
    erase_the_rest()
