"""During which times: dates, weekdays and times of day, and while named hours are open or closed."""

from collections.abc import Callable, Mapping
from datetime import UTC, date, datetime, time, timedelta, timezone, tzinfo
from types import MappingProxyType
from typing import Literal, Self

from pydantic import Field, model_validator

from ..hours import DAYS, Day, OpeningHours, is_open, next_closing, next_opening
from ..say import full_date, joined, short_date, time_words
from .base import Model

_AHEAD = 9  # days in which every weekday and time of day comes round


class During(Model):
    """From a date to a date, on weekdays, between times of day, while open or while closed.

    Both dates are whole days, or from and until a time of theirs.
    Dates and times are the business's wall clock, or with `clock` "visitor" the visitor's. A `start` at or
    after `end` runs into the next day, and belongs to the day on which it starts. `hours` names the opening
    hours by their id; None: the main ones.
    """

    first: date | None = None
    first_time: time | None = None
    last: date | None = None
    last_time: time | None = None
    days: tuple[Day, ...] = Field((), max_length=7)
    start: time | None = None
    end: time | None = None
    clock: Literal["business", "visitor"] = "business"
    only: Literal["open", "closed"] | None = None
    hours: int | None = None

    @model_validator(mode="after")
    def _in_order(self) -> Self:
        if self.first is not None and self.last is not None and self.first > self.last:
            raise ValueError(
                f"it would end on {short_date(self.last)}, before it starts on {short_date(self.first)}"
            )
        if (self.first is None and self.first_time) or (self.last is None and self.last_time):
            raise ValueError("a time belongs to a date")
        if (
            self.first == self.last
            and self.first_time
            and self.last_time
            and self.first_time >= self.last_time
        ):
            raise ValueError("it would end before it begins, on the same day")
        if (self.start is None) != (self.end is None):
            raise ValueError("times of day need a beginning and an end")
        if self.start is not None and self.start == self.end:
            raise ValueError("the times of day begin and end at the same time")
        return self

    @property
    def always(self) -> bool:
        """Whether it leaves out nothing."""
        return not (self.first or self.last or self.days or self.start or self.only)

    def zone_for(self, zone: tzinfo, utc_offset: int) -> tzinfo:
        """The zone in which it is read; `utc_offset` is the visitor's, in minutes, east positive."""
        return zone if self.clock == "business" else timezone(timedelta(minutes=utc_offset))

    def holds(self, at: datetime, zone: tzinfo, hours: OpeningHours | None) -> bool:
        """Whether an instant lies within, on the wall clock of `zone`."""
        local = at.astimezone(zone)
        return self._dates(local) and self._times(local) and self._hours(at, hours)

    def _dates(self, local: datetime) -> bool:
        now = (local.date(), local.time().replace(tzinfo=None))
        begun = self.first is None or now >= (self.first, self.first_time or time.min)
        if self.last is None or not begun:
            return begun
        return now < (self.last, self.last_time) if self.last_time else now[0] <= self.last

    def _times(self, local: datetime) -> bool:
        now, today = local.time().replace(tzinfo=None), DAYS[local.weekday()]
        if self.start is None or self.end is None:
            return not self.days or today in self.days
        if self.start < self.end:
            return self.start <= now < self.end and (not self.days or today in self.days)
        started = today if now >= self.start else DAYS[local.weekday() - 1]
        return (now >= self.start or now < self.end) and (not self.days or started in self.days)

    def _hours(self, at: datetime, hours: OpeningHours | None) -> bool:
        return self.only is None or hours is None or is_open(hours, at) is (self.only == "open")

    def changes(self, at: datetime, zone: tzinfo, hours: OpeningHours | None) -> datetime | None:
        """The next instant at which it begins or ends; None if that is not within 400 days."""
        # In UTC: two times of one zone would be compared by the wall clock.
        at = at.astimezone(UTC)
        now, seen = self.holds(at, zone, hours), at
        for _ in range(60):
            later = min((one for one in self._marks(seen, zone, hours) if one > seen), default=None)
            if later is None or later - at > timedelta(days=400):
                return None
            if self.holds(later, zone, hours) is not now:
                return later
            seen = later
        return None

    def _marks(self, at: datetime, zone: tzinfo, hours: OpeningHours | None) -> list[datetime]:
        """Instants at which something may change."""

        def on(day: date, clock: time = time.min) -> datetime:
            return datetime.combine(day, clock, zone).astimezone(UTC)

        today = at.astimezone(zone).date()
        marks = [on(self.first, self.first_time or time.min)] if self.first else []
        if self.last is not None:
            marks.append(
                on(self.last, self.last_time) if self.last_time else on(self.last + timedelta(days=1))
            )
        if self.days or self.start:
            clocks = [one for one in (self.start, self.end) if one is not None] or [time.min]
            soon = max(today, self.first - timedelta(days=1)) if self.first else today
            marks += [on(soon + timedelta(days=ahead), one) for ahead in range(-1, _AHEAD) for one in clocks]
        if self.only is not None and hours is not None:
            step: Callable[[OpeningHours, datetime], datetime | None] = (
                next_closing if is_open(hours, at) else next_opening
            )
            turn = step(hours, at)
            marks += [turn] if turn is not None else []
        return marks

    def say(self, hours: Mapping[int, str] = MappingProxyType({})) -> str:
        """The times in words, on the reader's clock; `hours`: the names of sets of opening hours by their
        ids.
        """
        words = []
        if self.first is not None and self.first == self.last and not (self.first_time or self.last_time):
            words.append(f"on {full_date(self.first)}")
        else:
            dates = [f"from {_at(self.first, self.first_time)}"] if self.first else []
            dates += [f"to {_at(self.last, self.last_time)}"] if self.last else []
            words += [" ".join(dates)] if dates else []
        if self.days:
            words.append(f"on {joined(day.capitalize() for day in self.days)}")
        if self.start is not None and self.end is not None:
            words.append(f"between {time_words(self.start)} and {time_words(self.end)}")
        if self.only:
            named = hours.get(self.hours or 0)
            words.append(f"while {f'{named} is' if named else 'you are'} {self.only}")
        if self.clock == "visitor" and (self.days or self.start or self.first or self.last):
            words.append("by their own clock")
        return ", ".join(words) or "at any time"


def _at(day: date, clock: time | None) -> str:
    return f"{full_date(day)}, {time_words(clock)}" if clock else full_date(day)
