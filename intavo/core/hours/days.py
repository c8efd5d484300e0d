"""Days with open time, counted from an instant on and back;
a stretch belongs to the local day it begins on.
"""

from collections.abc import Iterator
from datetime import datetime, timedelta
from itertools import islice

from .arithmetic import HORIZON
from .stretches import AnyHours, stretches_from
from .wall import start_instant


def open_days_on(hours: AnyHours, at: datetime, days: int) -> datetime | None:
    """The opening of the `days`-th local day after that of `at` which opens;
    None if it is over 400 days off.
    """
    today = at.astimezone(hours.zone).date()
    first = start_instant(hours.zone, today + timedelta(days=1), 0)
    found = _openings(hours, first, first + HORIZON)
    return next(islice(found, max(1, days) - 1, None), None)


def open_days_back(hours: AnyHours, at: datetime, days: int) -> datetime | None:
    """The opening of the `days`-th local day before that of `at` which opened; None if it is over 400 days
    ago.
    """
    today = at.astimezone(hours.zone).date()
    last = start_instant(hours.zone, today, 0)
    reach = timedelta(days=2 * max(1, days) + 7)
    while True:
        found = list(_openings(hours, last - min(reach, HORIZON), last))
        if len(found) >= days:
            return found[-max(1, days)]
        if reach >= HORIZON:
            return None
        reach *= 4


def _openings(hours: AnyHours, first: datetime, last: datetime) -> Iterator[datetime]:
    day = None
    for stretch in stretches_from(hours, first, last):
        local = stretch.start.astimezone(hours.zone)
        if first <= stretch.start < last and local.date() != day:
            day = local.date()
            yield local
