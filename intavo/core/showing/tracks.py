"""What each touchpoint did during a rehearsed visit, from one moment to the next."""

from collections.abc import Iterable
from dataclasses import dataclass, replace
from datetime import datetime
from typing import Literal

TICK = 1e-6  # seconds; what is nearer than that is the same moment

Doing = Literal["on screen", "waits", "waits its turn", "kept back"]


@dataclass(frozen=True, slots=True)
class Reason:
    """One check as it was then: its name, whether it passed, in words, and when time changes it."""

    name: str
    passed: bool
    words: str
    when: datetime | None


@dataclass(frozen=True, slots=True)
class Spell:
    """What a touchpoint did from one moment to another, in seconds from the beginning."""

    start: float
    end: float
    doing: Doing
    words: str
    reasons: tuple[Reason, ...]


@dataclass(frozen=True, slots=True)
class Event:
    """Something came on screen, or went."""

    at: float
    what: Literal["shown", "gone"]
    touchpoint: str


@dataclass(frozen=True, slots=True)
class PageTrack:
    """A page that was opened."""

    start: float
    path: str
    visit: int


@dataclass(frozen=True, slots=True)
class Rehearsal:
    """A visit as it went: a track for each touchpoint, the pages, and every coming and going."""

    length: float
    pages: tuple[PageTrack, ...]
    tracks: dict[str, tuple[Spell, ...]]
    events: tuple[Event, ...]


class Tracks:
    """A track for each touchpoint, as it is written down."""

    def __init__(self, touchpoints: Iterable[str]) -> None:
        self._of: dict[str, list[Spell]] = {one: [] for one in touchpoints}

    def mark(
        self, touchpoint: str, now: float, doing: Doing, words: str, reasons: tuple[Reason, ...] | None = None
    ) -> None:
        """From now on it does this; without reasons those of before hold."""
        track = self._of[touchpoint]
        if reasons is None:
            reasons = track[-1].reasons if track else ()
        if track:
            track[-1] = replace(track[-1], end=now)
        track.append(Spell(now, now, doing, words, reasons))

    def ended(self, now: float) -> dict[str, tuple[Spell, ...]]:
        """The tracks up to now, without what lasted no time, and alike stretches joined."""
        return {touchpoint: tuple(_joined(track, now)) for touchpoint, track in self._of.items()}


def _joined(track: list[Spell], now: float) -> list[Spell]:
    kept: list[Spell] = []
    for one in [*track[:-1], *(replace(last, end=now) for last in track[-1:])]:
        if one.end - one.start < TICK and one.doing != "on screen":
            continue
        if kept and (kept[-1].doing, kept[-1].words) == (one.doing, one.words) and one.doing == "kept back":
            kept[-1] = replace(kept[-1], end=one.end)
        else:
            kept.append(one)
    return kept
