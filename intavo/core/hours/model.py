"""What a set of opening hours is: a zone, a week of stretches, and exceptions by date."""

import itertools
import re
from bisect import bisect_right
from datetime import date
from functools import cache, cached_property
from typing import Literal
from zoneinfo import ZoneInfo, available_timezones

from pydantic import BaseModel, ConfigDict, Field, ValidationInfo, field_validator

Day = Literal["mon", "tue", "wed", "thu", "fri", "sat", "sun"]
DAYS: tuple[Day, ...] = ("mon", "tue", "wed", "thu", "fri", "sat", "sun")
# Their names on the owner's side and in JSON-LD, in the order of DAYS.
WEEKDAYS = ("Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday")
TIME = re.compile(r"([01][0-9]|2[0-3]):[0-5][0-9]", re.ASCII)
MIDNIGHT_AT_END = "24:00"


@cache
def known_zones() -> frozenset[str]:
    """Names of the IANA time zones; read once, since finding them walks a folder."""
    return frozenset(available_timezones())


def minutes_of(text: str) -> int:
    """Minutes after midnight of a time like "17:30"."""
    return int(text[:2]) * 60 + int(text[3:])


class _Frozen(BaseModel):
    model_config = ConfigDict(frozen=True, extra="forbid", populate_by_name=True)


class Stretch(_Frozen):
    """From one wall-clock time to another; at or before the first, it runs into the next day."""

    from_: str = Field(alias="from")
    to: str

    @field_validator("from_")
    @classmethod
    def _start_is_a_time(cls, value: str) -> str:
        if not TIME.fullmatch(value):
            raise ValueError("must be a time from 00:00 to 23:59, like 09:00")
        return value

    @field_validator("to")
    @classmethod
    def _end_is_a_time_after_the_start(cls, value: str, info: ValidationInfo) -> str:
        if value != MIDNIGHT_AT_END and not TIME.fullmatch(value):
            raise ValueError("must be a time from 00:00 to 24:00, like 17:30")
        if value == info.data.get("from_"):
            raise ValueError("must differ from the start; a whole day is 00:00 to 24:00")
        return value

    @cached_property
    def start_minute(self) -> int:
        """Wall-clock minutes after midnight of the day on which it starts."""
        return minutes_of(self.from_)

    @cached_property
    def end_minute(self) -> int:
        """Wall-clock minutes after midnight of the day on which it starts; over 1440 is the next day."""
        end = minutes_of(self.to)
        return end if end > self.start_minute else end + 24 * 60


class WeeklyStretch(Stretch):
    """A stretch that starts on this day of every week."""

    day: Day


class HoursException(_Frozen):
    """Dates on which other stretches start than in the week; no stretch at all is closed."""

    first: date
    last: date
    label: str = ""
    holiday: bool = False
    stretches: tuple[Stretch, ...] = ()

    @field_validator("last")
    @classmethod
    def _last_is_not_before_first(cls, value: date, info: ValidationInfo) -> date:
        first = info.data.get("first")
        if first is not None and value < first:
            raise ValueError("must not be before the first day")
        return value


class OpeningHours(_Frozen):
    """A named zone, weekly stretches and exceptions; immutable, so that answers can be remembered.

    `model_validate` raises pydantic's ValidationError, which names the field.
    """

    timezone: str
    week: tuple[WeeklyStretch, ...] = ()
    exceptions: tuple[HoursException, ...] = ()

    @field_validator("timezone")
    @classmethod
    def _zone_is_known(cls, value: str) -> str:
        if value not in known_zones():
            raise ValueError("is not a known time zone; use a name like Europe/London")
        return value

    @field_validator("exceptions")
    @classmethod
    def _one_exception_a_date(cls, value: tuple[HoursException, ...]) -> tuple[HoursException, ...]:
        ordered = sorted(value, key=lambda one: one.first)
        for one, following in itertools.pairwise(ordered):
            if following.first <= one.last:
                raise ValueError(f"two exceptions fall on {following.first.isoformat()}; a date can have one")
        return value

    @cached_property
    def zone(self) -> ZoneInfo:
        """The zone that wall-clock times are in."""
        return ZoneInfo(self.timezone)

    @cached_property
    def _by_day(self) -> tuple[tuple[WeeklyStretch, ...], ...]:
        return tuple(
            tuple(sorted((s for s in self.week if s.day == day), key=lambda s: s.start_minute))
            for day in DAYS
        )

    @cached_property
    def _ordered_exceptions(self) -> tuple[tuple[date, ...], tuple[HoursException, ...]]:
        ordered = tuple(sorted(self.exceptions, key=lambda one: one.first))
        return tuple(one.first for one in ordered), ordered

    def exception_on(self, day: date) -> HoursException | None:
        """The exception that covers this date, if any."""
        firsts, ordered = self._ordered_exceptions
        at = bisect_right(firsts, day) - 1
        return ordered[at] if at >= 0 and day <= ordered[at].last else None

    def stretches_starting_on(self, day: date) -> tuple[tuple[Stretch, ...], HoursException | None]:
        """The stretches that start on a date, and the exception they come from (None: the week)."""
        exception = self.exception_on(day)
        if exception is None:
            return self._by_day[day.weekday()], None
        return tuple(sorted(exception.stretches, key=lambda s: s.start_minute)), exception
