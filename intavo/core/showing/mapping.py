"""Which touchpoint shows on which pages: the map of a site, for one visitor at one time."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import datetime
from typing import Literal

from ..say import from_words
from .compiled import Compiled
from .decide import decide
from .visit import Visit

_QUEUES = ("interrupting", "bar")


@dataclass(frozen=True, slots=True)
class OnPages:
    """A touchpoint on pages under one head: whether it shows, in a word or two, on which of them, and whether
    it comes by itself on one.
    """

    shows: Literal["yes", "some", "later", "turn", "asked", "no"]
    words: str
    on: tuple[str, ...]
    by_itself: bool


def on_pages(compiled: Compiled, visits: Sequence[tuple[str, Visit]], at: datetime) -> OnPages:
    """How a touchpoint does on some pages, each with its path and the visit to it, at an instant."""
    verdicts = [(path, decide(compiled, visit, at)) for path, visit in visits]
    on = tuple(path for path, verdict in verdicts if verdict.shows)
    by_itself = any(verdict.shows and verdict.moments for _, verdict in verdicts)
    if on and not by_itself:
        return OnPages("asked", "if opened", on, by_itself)
    if len(on) == len(verdicts):
        return OnPages("yes", "", on, by_itself)
    if on:
        return OnPages("some", f"{len(on)} of {len(verdicts)}", on, by_itself)
    # Held back by nothing but the times of its sentence.
    timed = [
        stop for _, one in verdicts if one.failed == ("during",) and (stop := one.stopped_by) is not None
    ]
    later = [stop.when for stop in timed if stop.when]
    if later:
        return OnPages("later", from_words(min(later), at, compiled.zone), on, by_itself)
    return OnPages("no", "", on, by_itself)


def taking_turns(rows: Sequence[tuple[Compiled, OnPages]]) -> tuple[list[OnPages], int]:
    """The same, in the owner's order: where several would come at once, the later ones wait their turn.

    And how many share the pages.
    """
    count, found = dict.fromkeys(_QUEUES, 0), []
    for compiled, cell in rows:
        if compiled.queue in count and cell.shows in {"yes", "some"} and cell.by_itself:
            count[compiled.queue] += 1
            if count[compiled.queue] > 1:
                words = f"{cell.words}, in turn" if cell.words else "in turn"
                cell = replace(cell, shows="turn", words=words)
        found.append(cell)
    return found, max(count.values())
