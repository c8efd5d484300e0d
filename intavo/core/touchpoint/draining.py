"""When codes are taken faster than ever before, so that somebody may be taking them who should not."""

from collections import Counter
from collections.abc import Iterable
from datetime import datetime, timedelta
from typing import NamedTuple

# So many within an hour, and so many times the most of any hour of the weeks before.
LEAST, TIMES = 20, 5
BEFORE = timedelta(weeks=4)
_HOUR = timedelta(hours=1)


class Drain(NamedTuple):
    """How many codes went within the last hour, and the most within any hour of the four weeks before it."""

    now: int
    before: int

    @property
    def words(self) -> str:
        """What the owner is told."""
        before = (
            f"the most in an hour before was {self.before}"
            if self.before
            else "none went in the weeks before"
        )
        return f"{self.now} codes went within the last hour; {before}."


def drains_oddly(given: Iterable[datetime], at: datetime) -> Drain | None:
    """The drain, where codes went oddly fast by an instant; `given` are the instants (aware) at which codes
    went.
    """
    hours = Counter((at - when) // _HOUR for when in given if timedelta(0) <= at - when < BEFORE + _HOUR)
    found = Drain(hours.pop(0, 0), max(hours.values(), default=0))
    return found if found.now >= LEAST and found.now > TIMES * found.before else None
