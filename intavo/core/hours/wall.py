"""Wall-clock times as instants: what to do where the clocks go forward or back."""

from datetime import UTC, date, datetime, timedelta
from functools import lru_cache
from zoneinfo import ZoneInfo

_SECOND = timedelta(seconds=1)
_ONE_DAY = timedelta(days=1)


def start_instant(zone: ZoneInfo, day: date, minutes: int) -> datetime:
    """The instant (UTC) of a stretch's start: the first of a repeated time, the end of a gap."""
    return _instant(zone, day, minutes, fold=0)


def instant_on(zone: ZoneInfo, day: date, minutes: int) -> datetime:
    """What a clock of the zone shows so many minutes after a date's midnight, as an aware time of that zone.

    Of a repeated time it is the first; a time that is skipped is the end of the gap.
    """
    return start_instant(zone, day, minutes).astimezone(zone)


def end_instant(zone: ZoneInfo, day: date, minutes: int) -> datetime:
    """The instant (UTC) of a stretch's end: the second of a repeated time, the end of a gap."""
    return _instant(zone, day, minutes, fold=1)


@lru_cache(maxsize=8192)
def _midnight_offset(zone: ZoneInfo, day: date) -> timedelta | None:
    """The offset at the start of a date; None where the clocks change just then."""
    at = datetime(day.year, day.month, day.day, tzinfo=zone)
    offset = at.utcoffset()
    return offset if offset == at.replace(fold=1).utcoffset() else None


def _steady_offset(zone: ZoneInfo, day: date) -> timedelta | None:
    """The offset of a date and the next where no clock changes in them (nearly always), else None.

    Three midnights tell: no zone has changed its clocks forth and back between two of them.
    """
    first = _midnight_offset(zone, day)
    if first is None or first != _midnight_offset(zone, day + _ONE_DAY):
        return None
    return first if first == _midnight_offset(zone, day + _ONE_DAY + _ONE_DAY) else None


def _instant(zone: ZoneInfo, day: date, minutes: int, fold: int) -> datetime:
    midnight = datetime(day.year, day.month, day.day, tzinfo=UTC)
    steady = _steady_offset(zone, day)
    if steady is not None:
        return midnight + (timedelta(minutes=minutes) - steady)
    wall = midnight + timedelta(minutes=minutes)
    local = wall.replace(tzinfo=zone)
    before, after = local.utcoffset(), local.replace(fold=1).utcoffset()
    assert before is not None
    assert after is not None
    if after > before:
        return _gap_end(zone, wall - after, wall - before)
    return wall - (after if fold else before)


def _gap_end(zone: ZoneInfo, before: datetime, after: datetime) -> datetime:
    """The instant at which the offset changes, which lies after `before` and not after `after`."""
    old = before.astimezone(zone).utcoffset()
    while after - before > _SECOND:
        middle = before + timedelta(seconds=(after - before) // _SECOND // 2)
        if middle.astimezone(zone).utcoffset() == old:
            before = middle
        else:
            after = middle
    return after
