"""When a member is told of a follow-up: before it is due, counted in open time, and once it is late."""

from dataclasses import dataclass
from datetime import datetime, timedelta
from enum import StrEnum

from .hours import AnyHours, add_open_time, is_open


class About(StrEnum):
    """What a reminder is about."""

    BEFORE = "before"
    LATE = "late"


@dataclass(frozen=True, slots=True)
class Wish:
    """What a member wants to be told: so much open time before something is due (None: not), and when it is
    late.
    """

    before: timedelta | None
    late: bool


def reach(hours: AnyHours, at: datetime, wish: Wish) -> datetime:
    """The last due time that a member is told of at an instant."""
    ahead = add_open_time(hours, at, wish.before) if wish.before else None
    return max(at, ahead) if ahead else at


def about(hours: AnyHours, at: datetime, due: datetime, latest: datetime, wish: Wish) -> About | None:
    """What to tell a member at an instant about what is due then; nothing outside of open hours.

    `latest` is the last instant at which it is not late. Whoever is told that it is late is not told before
    too.
    """
    if not is_open(hours, at):
        return None
    if latest < at:
        return About.LATE if wish.late else None
    return About.BEFORE if wish.before and at <= due <= reach(hours, at, wish) else None
