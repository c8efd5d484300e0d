"""Times for a call: a grid of whole slots in open time."""

from collections.abc import Mapping
from datetime import UTC, datetime, timedelta
from typing import NamedTuple

from .hours import AnyHours, open_stretches

DAYS_AHEAD = 14


class Slot(NamedTuple):
    """One time for a call, aware, in the hours' zone."""

    start: datetime
    end: datetime


def call_slots(
    hours: AnyHours,
    at: datetime,
    length: timedelta,
    notice: timedelta,
    taken: Mapping[datetime, int],
    capacity: int,
) -> list[Slot]:
    """Free slots from `at` for 14 days of 24 hours, on a grid from each stretch's start, whole ones only.

    `notice` is clock time from `at` to the first slot's start. `taken` counts what is booked by start (any
    zone); a slot with `capacity` bookings is full. A naive `at` or a length of nothing is a ValueError.
    """
    if length <= timedelta(0):
        raise ValueError("a slot has some length")
    booked = {start.astimezone(UTC): count for start, count in taken.items()}
    earliest = at.astimezone(UTC) + notice
    slots: list[Slot] = []
    for stretch in open_stretches(hours, at - timedelta(days=3), at + timedelta(days=DAYS_AHEAD)):
        # A stretch that is clipped at the span's end still holds only whole slots.
        start, end = stretch.start.astimezone(UTC), stretch.end.astimezone(UTC)
        while start + length <= end:
            if start >= earliest and booked.get(start, 0) < capacity:
                zone = stretch.start.tzinfo
                slots.append(Slot(start.astimezone(zone), (start + length).astimezone(zone)))
            start += length
    return slots
