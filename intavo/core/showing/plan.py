"""The plan for one page view: what may show, at which moments, and for how long that holds."""

from collections.abc import Collection, Iterable, Iterator
from datetime import datetime
from typing import NamedTuple

from ..touchpoint.rules import Moment
from .compiled import Compiled, PageView, TouchpointState, page_view
from .decide import holds_until, moments_of, shows
from .visit import Visit


class PlannedEntry(NamedTuple):
    """A touchpoint that stands in the plan; without moments it never comes by itself.

    `until` is when time may change that, if it will.
    """

    touchpoint: Compiled
    moments: tuple[tuple[Moment, ...], ...]
    until: datetime | None = None


def plan(
    touchpoints: Iterable[Compiled],
    visit: Visit,
    at: datetime,
    opened: str | None = None,
    placed: Collection[str] = (),
) -> list[PlannedEntry]:
    """What may show on this page view, in the owner's order.

    Where the browser refuses to remember, one that interrupts never comes by itself. `opened` is the id of a
    touchpoint that the visitor clicked on, `placed` are those that the page has a place for: they stand in
    the plan whatever their sentences, if they are on.
    """
    view = page_view(visit, at)
    return sorted(_entries(touchpoints, view, {opened, *placed}), key=lambda entry: entry.touchpoint.order)


def _entries(
    touchpoints: Iterable[Compiled], view: PageView, wanted: Collection[str | None]
) -> Iterator[PlannedEntry]:
    for touchpoint in touchpoints:
        if shows(touchpoint, view):
            yield PlannedEntry(touchpoint, _moments(touchpoint, view), holds_until(touchpoint, view))
        elif touchpoint.id in wanted and touchpoint.state is TouchpointState.LIVE:
            yield PlannedEntry(touchpoint, ())


def _moments(touchpoint: Compiled, view: PageView) -> tuple[tuple[Moment, ...], ...]:
    return moments_of(touchpoint, view) if view.visit.storage or not touchpoint.interrupts else ()
