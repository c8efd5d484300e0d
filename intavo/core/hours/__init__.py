"""Opening hours: weekly stretches with exceptions, and the arithmetic of open time.

All results are aware datetimes in the hours' zone; lengths are elapsed time. A naive datetime is a
ValueError everywhere.
"""

from .arithmetic import (
    HORIZON,
    add_open_time,
    is_open,
    next_closing,
    next_opening,
    open_stretches,
    open_time,
)
from .combine import EitherHours, any_of, either
from .days import open_days_back, open_days_on
from .edits import hours_together
from .holidays import parts_of, public_holidays
from .ical import MOST_BYTES, read_exceptions, usual_entries, write_calendar
from .model import DAYS, WEEKDAYS, Day, HoursException, OpeningHours, Stretch, WeeklyStretch, minutes_of
from .schema_org import opening_hours_specification
from .stretches import AnyHours, OpenStretch
from .taking_in import Coming, said_stretches, taken_in
from .typed import read_clock
from .wall import instant_on
from .written import read_hours, read_what_can_be

__all__ = [
    "DAYS",
    "HORIZON",
    "MOST_BYTES",
    "WEEKDAYS",
    "AnyHours",
    "Coming",
    "Day",
    "EitherHours",
    "HoursException",
    "OpenStretch",
    "OpeningHours",
    "Stretch",
    "WeeklyStretch",
    "add_open_time",
    "any_of",
    "either",
    "hours_together",
    "instant_on",
    "is_open",
    "minutes_of",
    "next_closing",
    "next_opening",
    "open_days_back",
    "open_days_on",
    "open_stretches",
    "open_time",
    "opening_hours_specification",
    "parts_of",
    "public_holidays",
    "read_clock",
    "read_exceptions",
    "read_hours",
    "read_what_can_be",
    "said_stretches",
    "taken_in",
    "usual_entries",
    "write_calendar",
]
