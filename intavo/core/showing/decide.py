"""Whether a touchpoint shows on a page view, check by check, with the reasons in words."""

from dataclasses import dataclass
from datetime import datetime
from typing import NamedTuple

from ..touchpoint.rules import Moment
from .compiled import Case, Compiled, PageView, State, page_view
from .predicates import (
    free_again,
    has_answered,
    has_its_turn,
    holds,
    memory_of,
    nearest,
    on_page,
    on_site,
    shown_enough,
    turns,
    within,
)
from .visit import Visit
from .who import who_holds
from .words import WORDS


class Check(NamedTuple):
    """One check: its name, whether it passed, when time will change it (if it will), and why on demand."""

    name: str
    passed: bool
    when: datetime | None
    case: "Case"

    @property
    def sentence(self) -> str:
        """The reason in a sentence for the owner."""
        return WORDS[self.name](self.case)


@dataclass(frozen=True, slots=True)
class Verdict:
    """Whether it shows, every check, and the moments at which it may come."""

    shows: bool
    checks: tuple[Check, ...]
    moments: tuple[tuple[Moment, ...], ...]

    @property
    def stopped_by(self) -> Check | None:
        """The first check that did not pass."""
        return next((check for check in self.checks if not check.passed), None)


def decide(touchpoint: Compiled, visit: Visit, at: datetime) -> Verdict:
    """The verdict for one page view at an instant, with every check."""
    view = page_view(visit, at)
    sentences = touchpoint.show.sentences
    holding = [sentence for sentence in sentences if holds(touchpoint, sentence, view)]
    told = holding[0] if holding else nearest(touchpoint, view)
    memory = memory_of(touchpoint, view)
    free = free_again(touchpoint, memory, view)
    case = Case(touchpoint, view, told, memory, free)
    held = bool(holding)
    moments = tuple(moment for sentence in holding for moment in sentence.moments)
    by_itself = visit.storage or not touchpoint.interrupts
    checks = (
        Check("state", touchpoint.state is State.LIVE, None, case),
        Check("site", view.host in touchpoint.hosts and (held or on_site(touchpoint, told, view)), None, case),
        Check("where", held or on_page(told, view), None, case),
        Check("who", held or (visit.device in told.devices and who_holds(touchpoint.around, told, view)), None, case),
        Check("during", held or within(touchpoint, told, view), turns(touchpoint, told, view), case),
        Check("how often", free is None and not shown_enough(touchpoint, memory), free, case),
        Check("until", not has_answered(touchpoint, view, memory), None, case),
        Check("moment", True, None, case),
        Check("turn", has_its_turn(touchpoint, view), None, case),
    )
    return Verdict(all(check.passed for check in checks), checks, moments if by_itself else ())


def shows(touchpoint: Compiled, view: PageView) -> bool:
    """The verdict alone, without the reasons: the same predicates as in the checks, the cheapest first."""
    return (
        touchpoint.state is State.LIVE
        and view.host in touchpoint.hosts
        and any(holds(touchpoint, sentence, view) for sentence in touchpoint.show.sentences)
        and free_again(touchpoint, memory := memory_of(touchpoint, view), view) is None
        and not shown_enough(touchpoint, memory)
        and not has_answered(touchpoint, view, memory)
        and has_its_turn(touchpoint, view)
    )


def moments_of(touchpoint: Compiled, view: PageView) -> tuple[tuple[Moment, ...], ...]:
    """The moments of every sentence that holds."""
    holding = [sentence for sentence in touchpoint.show.sentences if holds(touchpoint, sentence, view)]
    return holding[0].moments if len(holding) == 1 else tuple(m for sentence in holding for m in sentence.moments)


def holds_until(touchpoint: Compiled, view: PageView) -> datetime | None:
    """When time next changes which of its sentences hold; None: not by itself."""
    if touchpoint.plain:
        return None
    found = (turns(touchpoint, sentence, view) for sentence in touchpoint.show.sentences)
    return min((turn for turn in found if turn is not None), default=None)
