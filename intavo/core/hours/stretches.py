"""Open stretches as instants, day by day, merged where they overlap or touch."""

from collections.abc import Iterable, Iterator
from datetime import UTC, date, datetime, timedelta
from functools import lru_cache
from heapq import merge as merge_sorted
from typing import TYPE_CHECKING, Literal, NamedTuple, Union
from zoneinfo import ZoneInfo

from .model import OpeningHours
from .wall import end_instant, start_instant

if TYPE_CHECKING:
    from .combine import EitherHours

AnyHours = Union[OpeningHours, "EitherHours"]
Reason = Literal["week", "exception"]

# A stretch is shorter than two days, and a gap that skips a whole date can push its end by one more.
LOOK_BACK = timedelta(days=3)


class OpenStretch(NamedTuple):
    """One span of open time, `start` included and `end` not, and why it is open.

    `reason` is "week" or "exception" (that of the part that starts it, where several merged);
    `label` is the exception's.
    """

    start: datetime
    end: datetime
    reason: Reason
    label: str = ""

    @property
    def length(self) -> timedelta:
        """Elapsed time, also across a change of the clocks."""
        return self.end.astimezone(UTC) - self.start.astimezone(UTC)


def in_zone(stretch: OpenStretch, zone: ZoneInfo) -> OpenStretch:
    """The same stretch, told in a zone."""
    return OpenStretch(
        stretch.start.astimezone(zone), stretch.end.astimezone(zone), stretch.reason, stretch.label
    )


@lru_cache(maxsize=256)
def _memory(hours: OpeningHours) -> dict[date, tuple[OpenStretch, ...]]:
    return {}


def _day(
    hours: OpeningHours, memory: dict[date, tuple[OpenStretch, ...]], day: date
) -> tuple[OpenStretch, ...]:
    known = memory.get(day)
    if known is not None:
        return known
    stretches, exception = hours.stretches_starting_on(day)
    reason: Reason = "exception" if exception else "week"
    label = exception.label if exception else ""
    spans = (
        (start_instant(hours.zone, day, s.start_minute), end_instant(hours.zone, day, s.end_minute))
        for s in stretches
    )
    joined = tuple(OpenStretch(start, end, reason, label) for start, end in spans if start < end)
    if len(memory) > 5000:
        memory.clear()
    memory[day] = joined
    return joined


def _single(hours: OpeningHours, start: datetime, until: datetime) -> Iterator[OpenStretch]:
    memory = _memory(hours)
    day = shift(start, -LOOK_BACK).astimezone(hours.zone).date()
    while True:
        for stretch in _day(hours, memory, day):
            if stretch.start > until:
                return
            if stretch.end > start:
                yield stretch
        if day >= LAST_DAY:
            return
        day += _ONE_DAY
        if day > until.date() + _ONE_DAY:
            return


_ONE_DAY = timedelta(days=1)
LAST_DAY = date.max - timedelta(days=4)


def shift(at: datetime, by: timedelta) -> datetime:
    """`at` moved, held inside what a datetime can say with a day to spare for zones."""
    floor, ceiling = datetime(1, 1, 5, tzinfo=UTC), datetime(9999, 12, 27, tzinfo=UTC)
    if by < timedelta(0):
        return floor if at - floor < -by else at + by
    return ceiling if ceiling - at < by else at + by


def stretches_from(hours: AnyHours, start: datetime, until: datetime) -> Iterator[OpenStretch]:
    """Merged stretches (UTC) that end after `start`, in order, as far as they start by `until` (both UTC).

    The last one is followed to its end, at most a day beyond what lies within `until`.
    """
    parts: Iterable[OpenStretch]
    if isinstance(hours, OpeningHours):
        parts = _single(hours, start, until)
    else:
        parts = merge_sorted(*(_single(one, start, until) for one in hours.members), key=lambda s: s.start)
    current: OpenStretch | None = None
    for part in parts:
        if current is None:
            current = part
        elif part.start > current.end:
            yield current
            current = part
        elif part.end > current.end:
            current = OpenStretch(current.start, part.end, current.reason, current.label)
    if current is not None:
        yield current
