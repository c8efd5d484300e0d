"""The follow-up list: what opens a piece of work, when it is due, where it stands and how it ends."""

from dataclasses import dataclass, replace
from datetime import datetime, timedelta
from enum import StrEnum

from .hours import AnyHours, is_open, next_closing, next_opening, open_time

REOPENS_WITHIN = timedelta(days=30)


class Kind(StrEnum):
    """What the person did."""

    SIGN_UP = "sign-up"
    INQUIRY = "inquiry"
    CALL_BACK = "call-back"
    FEEDBACK = "feedback"
    MESSAGE = "message"


class State(StrEnum):
    """Whose turn it is."""

    US = "for-us"
    THEM = "for-them"
    PUT_OFF = "put-off"
    FINISHED = "finished"


class Outcome(StrEnum):
    """How it ended."""

    WON = "won"
    ANSWERED = "answered"
    NOT_A_FIT = "not-a-fit"
    NO_ANSWER = "no-answer"
    SPAM = "spam"
    CANCELLED = "cancelled"


class Lane(StrEnum):
    """Where on the ruler of open time a follow-up stands."""

    LATE = "late"
    BEFORE_CLOSING = "before-closing"
    NEXT_OPENING = "next-opening"
    LATER = "later"
    ANY_TIME = "any-time"


@dataclass(frozen=True, slots=True)
class FollowUp:
    """One open piece of work for one person. Times are aware; `due` None has no set time.

    `late_from` is when it begins to be late, where that is after it is due: a call-back's slot has an end.
    """

    kind: Kind
    state: State
    opened_at: datetime
    due: datetime | None = None
    back_at: datetime | None = None
    finished_at: datetime | None = None
    outcome: Outcome | None = None
    thread: str = ""
    late_from: datetime | None = None

    @property
    def latest(self) -> datetime | None:
        """The last instant at which it is not late yet."""
        return self.due if self.due is None or self.late_from is None else max(self.due, self.late_from)


@dataclass(frozen=True, slots=True)
class Kept:
    """A promise that has been counted: when it was due, and whether it was kept."""

    due: datetime
    kept: bool


def receive(
    existing: FollowUp | None,
    kind: Kind,
    at: datetime,
    due: datetime | None,
    thread: str = "",
    late_from: datetime | None = None,
) -> tuple[FollowUp, bool]:
    """What the person's new act makes of their follow-up of that kind: the follow-up, and whether it is new.

    An open one for us takes it in and keeps the earliest due time; one that waits for them, or is put
    off, comes back with the new due time; a finished one reopens within 30 days on the same thread. A
    call-back is always one of its own.
    """
    fresh = FollowUp(kind=kind, state=State.US, opened_at=at, due=due, thread=thread, late_from=late_from)
    if existing is None or kind is Kind.CALL_BACK:
        return fresh, True
    if existing.state is State.US:
        return replace(existing, due=_earliest(existing.due, due)), False
    if existing.state is not State.FINISHED:
        return replace(existing, state=State.US, due=due, back_at=None), False
    if may_reopen(existing, at, thread):
        return replace(existing, state=State.US, due=due, finished_at=None, outcome=None), False
    return fresh, True


def may_reopen(finished: FollowUp, at: datetime, thread: str) -> bool:
    """Whether a finished one is taken up again: the same thread, at most 30 days after."""
    same = bool(thread) and thread == finished.thread
    return same and finished.finished_at is not None and at - finished.finished_at <= REOPENS_WITHIN


def _earliest(first: datetime | None, other: datetime | None) -> datetime | None:
    return min((due for due in (first, other) if due is not None), default=None)


def returned(followup: FollowUp, at: datetime) -> FollowUp:
    """One put off, or left to them, until a time that has come is for us again, due then unless it was due
    before.
    """
    if followup.state not in {State.PUT_OFF, State.THEM} or followup.back_at is None or followup.back_at > at:
        return followup
    return replace(followup, state=State.US, due=_earliest(followup.due, followup.back_at), back_at=None)


def taken_up(followup: FollowUp, counted: datetime | None) -> FollowUp:
    """Undo of waiting, putting off and finishing: for us again, with the due time that it had.

    `counted`: the due time that was counted last as kept or not, where no answer of ours has met it.
    """
    due = counted if followup.due is None else followup.due
    return replace(followup, state=State.US, due=due, back_at=None, finished_at=None, outcome=None)


def wait_for_them(
    followup: FollowUp, at: datetime, answered: bool, back_at: datetime | None = None
) -> tuple[FollowUp, Kept | None]:
    """It is their turn, until `back_at` where they say nothing by then;
    an answer given meets the due time.
    """
    kept = _count(followup, at) if answered else None
    return replace(followup, state=State.THEM, due=None if answered else followup.due, back_at=back_at), kept


def put_off(
    followup: FollowUp, at: datetime, until: datetime, answered: bool
) -> tuple[FollowUp, Kept | None]:
    """Set aside until a time, which must lie ahead (ValueError)."""
    if until <= at:
        raise ValueError("The time to be reminded must lie ahead.")
    kept = _count(followup, at) if answered else None
    return replace(followup, state=State.PUT_OFF, back_at=until, due=None if answered else followup.due), kept


def keep(followup: FollowUp, at: datetime) -> tuple[FollowUp, Kept | None]:
    """Answered, but still for us: the due time is met and there is no other."""
    return replace(followup, due=None), _count(followup, at)


def finish(followup: FollowUp, at: datetime, outcome: Outcome) -> tuple[FollowUp, Kept | None]:
    """Close it. What was due counts as a promise, but not for spam."""
    kept = None if outcome is Outcome.SPAM else _count(followup, at)
    done = replace(followup, state=State.FINISHED, due=None, back_at=None, finished_at=at, outcome=outcome)
    return done, kept


def _count(followup: FollowUp, at: datetime) -> Kept | None:
    if followup.due is None or followup.latest is None:
        return None
    return Kept(followup.due, at <= followup.latest)


@dataclass(frozen=True, slots=True)
class Ruler:
    """The bounds of the lanes at an instant.

    `closes` is the end of the stretch open now (None while closed); `opens` and `then_closes` are the
    stretch after it (None where none comes in 400 days).
    """

    at: datetime
    closes: datetime | None
    opens: datetime | None
    then_closes: datetime | None

    def lane(self, due: datetime | None, latest: datetime | None = None) -> Lane:
        """The lane of a due time; it is late when that, or `latest` where it is given, is past."""
        if due is None:
            return Lane.ANY_TIME
        if (latest or due) < self.at:
            return Lane.LATE
        if self.closes is not None and due <= self.closes:
            return Lane.BEFORE_CLOSING
        if self.then_closes is not None and due <= self.then_closes:
            return Lane.NEXT_OPENING
        return Lane.LATER


def ruler(hours: AnyHours, at: datetime) -> Ruler:
    """The ruler of open time as it stands at an instant.

    Hours that never close take the end of the local day for their closing.
    """
    closes = (next_closing(hours, at) or _end_of_day(hours, at)) if is_open(hours, at) else None
    opens = next_opening(hours, closes or at)
    if opens is None:
        return Ruler(at, closes, None, None)
    return Ruler(at, closes, opens, next_closing(hours, opens) or _end_of_day(hours, opens))


def _end_of_day(hours: AnyHours, at: datetime) -> datetime:
    return at.astimezone(hours.zone).replace(hour=23, minute=59, second=59, microsecond=999999)


def how_late(hours: AnyHours, due: datetime, at: datetime) -> timedelta:
    """How late something is, in open time; zero if it is not late."""
    return open_time(hours, due, at)


def open_time_left(hours: AnyHours, due: datetime, at: datetime) -> timedelta:
    """How much open time is left until something is due; zero if none."""
    return open_time(hours, at, due)
