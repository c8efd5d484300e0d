"""Who of a business is at the counter: away until somebody says so, or until a time."""

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import datetime, timedelta
from enum import StrEnum

from .hours import AnyHours, is_open, next_closing, next_opening


class Until(StrEnum):
    """Until when somebody goes away."""

    QUARTER = "15-minutes"
    HOUR = "1-hour"
    TIME = "time"
    OPENING = "next-opening"
    SAID = "until-said"


@dataclass(frozen=True, slots=True)
class Away:
    """When somebody is back, as far as that is known, and when being away ends by itself (None: when they say
    so).
    """

    back_at: datetime | None
    ends_at: datetime | None


@dataclass(frozen=True, slots=True)
class Presence:
    """One member: away or not, and the hours in which they are usually there (None: always)."""

    member: int
    away: Away | None = None
    usual: AnyHours | None = None

    def is_away(self, at: datetime) -> bool:
        """Whether they are away from the counter at an instant."""
        if self.usual is not None and not is_open(self.usual, at):
            return True
        return self.away is not None and (self.away.ends_at is None or at < self.away.ends_at)

    def changes_at(self, at: datetime) -> datetime | None:
        """When that changes next by itself; None if it does not."""
        found = (
            []
            if self.away is None or self.away.ends_at is None or self.away.ends_at <= at
            else [self.away.ends_at]
        )
        if self.usual is not None:
            found += [one for one in (next_turn(self.usual, at),) if one is not None]
        return min(found, default=None)


def next_turn(hours: AnyHours, at: datetime) -> datetime | None:
    """When hours open or close next; None if never."""
    return next_closing(hours, at) if is_open(hours, at) else next_opening(hours, at)


def going_away(until: Until, at: datetime, hours: AnyHours, time: datetime | None = None) -> Away:
    """What going away at an instant comes to. It ends at "back at", or at the next opening if that is sooner.

    `time` is for Until.TIME, aware, ahead and at most 14 days off: else ValueError in words.
    """
    opens = _next_start(hours, at)
    if until is Until.SAID:
        return Away(None, None)
    if until is Until.OPENING:
        return Away(opens, opens)
    if until is Until.TIME:
        if time is None or time <= at or time - at > _FURTHEST:
            raise ValueError("Back at a time that lies ahead, within 14 days.")
        back = time
    else:
        # On the whole minute, as everything that visitors are told.
        whole = at.replace(second=0, microsecond=0) + timedelta(
            minutes=1 if at.second or at.microsecond else 0
        )
        back = whole + (timedelta(minutes=15) if until is Until.QUARTER else timedelta(hours=1))
    # A time that somebody names themselves holds, also where it lies beyond the next opening.
    return Away(back, back if until is Until.TIME or opens is None else min(back, opens))


_FURTHEST = timedelta(days=14)


def _next_start(hours: AnyHours, at: datetime) -> datetime | None:
    """The start of the next stretch that has not begun yet."""
    closes = next_closing(hours, at) if is_open(hours, at) else at
    return None if closes is None else next_opening(hours, closes)


def somebody_free(members: Iterable[Presence], at: datetime) -> bool:
    """Whether anybody is at the counter."""
    return any(not one.is_away(at) for one in members)


def back_at(members: Iterable[Presence], at: datetime, hours: AnyHours) -> datetime | None:
    """The earliest "back at" of those who are away, and only if it lies in open hours."""
    times = (one.away.back_at for one in members if one.away is not None and one.is_away(at))
    earliest = min((time for time in times if time is not None and time > at), default=None)
    return earliest if earliest is not None and is_open(hours, earliest) else None


def changes_at(members: Iterable[Presence], at: datetime) -> datetime | None:
    """When anybody comes or goes by themselves next."""
    return min((time for one in members if (time := one.changes_at(at)) is not None), default=None)
