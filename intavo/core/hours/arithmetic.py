"""Questions about open time, answered in elapsed time.

Everything is computed in UTC: Python compares and subtracts two datetimes of one zone by wall clock,
which is wrong by an hour across a change of the clocks.
"""

from datetime import UTC, datetime, timedelta

from .stretches import AnyHours, OpenStretch, in_zone, shift, stretches_from

HORIZON = timedelta(days=400)
_ZERO = timedelta(0)


def _utc(at: datetime) -> datetime:
    if at.utcoffset() is None:
        raise ValueError("a time without a zone is not accepted; pass an aware datetime")
    return at.astimezone(UTC)


def _horizon(at: datetime) -> datetime:
    return shift(at, HORIZON)


def is_open(hours: AnyHours, at: datetime) -> bool:
    """Whether the hours are open at an instant: at a start yes, at an end no."""
    now = _utc(at)
    return any(s.start <= now < s.end for s in stretches_from(hours, now, now))


def next_opening(hours: AnyHours, at: datetime) -> datetime | None:
    """`at` itself if open then, else the next start; None if there is none within 400 days."""
    now = _utc(at)
    if is_open(hours, at):
        return at.astimezone(hours.zone)
    for stretch in stretches_from(hours, now, _horizon(now)):
        return max(stretch.start, now).astimezone(hours.zone)
    return None


def next_closing(hours: AnyHours, at: datetime) -> datetime | None:
    """The end of the stretch open at `at`, or of the next one; None if that is over 400 days off."""
    now = _utc(at)
    limit = _horizon(now)
    for stretch in stretches_from(hours, now, limit):
        return stretch.end.astimezone(hours.zone) if stretch.end <= limit else None
    return None


def open_time(hours: AnyHours, start: datetime, end: datetime) -> timedelta:
    """Open time between two instants; zero if `end` is not after `start`."""
    first, last = _utc(start), _utc(end)
    if last <= first:
        return _ZERO
    spans = (min(s.end, last) - max(s.start, first) for s in stretches_from(hours, first, last))
    return sum((span for span in spans if span > _ZERO), _ZERO)


def add_open_time(hours: AnyHours, at: datetime, amount: timedelta) -> datetime | None:
    """The first instant by which `amount` of open time has passed since `at`.

    Exactly the rest of a stretch gives its closing; zero gives the next opening. None if that is more
    than 400 days off. A negative amount is a ValueError.
    """
    if amount < _ZERO:
        raise ValueError("an amount of open time must not be negative")
    if amount == _ZERO:
        return next_opening(hours, at)
    now = _utc(at)
    limit = _horizon(now)
    left = amount
    for stretch in stretches_from(hours, now, limit):
        start = max(stretch.start, now)
        if stretch.end - start >= left:
            due = start + left
            return due.astimezone(hours.zone) if due <= limit else None
        left -= stretch.end - start
    return None


def open_stretches(hours: AnyHours, start: datetime, end: datetime) -> list[OpenStretch]:
    """The open stretches between two instants, clipped to them, in order, in the hours' zone."""
    first, last = _utc(start), _utc(end)
    if last <= first:
        return []
    stretches = []
    for stretch in stretches_from(hours, first, last):
        begins, ends = max(stretch.start, first), min(stretch.end, last)
        if begins < ends:
            clipped = OpenStretch(begins, ends, stretch.reason, stretch.label)
            stretches.append(in_zone(clipped, hours.zone))
    return stretches
