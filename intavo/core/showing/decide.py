"""Whether a touchpoint shows on a page view, check by check, with the reasons in words."""

from datetime import datetime
from typing import NamedTuple

from ..touchpoint.rules import Moment, Sentence
from .compiled import Case, Compiled, PageView, TouchpointState, page_view
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
    case: Case

    @property
    def sentence(self) -> str:
        """The reason in a sentence for the owner."""
        return WORDS[self.name](self.case)


_NAMES = ("state", "site", "where", "who", "during", "how often", "until", "moment", "turn")


class Verdict(NamedTuple):
    """Whether it shows, the moments at which it may come, and which checks passed; reasons and times on
    demand.
    """

    shows: bool
    moments: tuple[tuple[Moment, ...], ...]
    passed: tuple[bool, ...]
    case: Case

    @property
    def checks(self) -> tuple[Check, ...]:
        """Every check, with when time will change it."""
        case = self.case
        whens = {"during": turns(case.touchpoint, case.told, case.view), "how often": case.free}
        return tuple(
            Check(name, passed, whens.get(name), case)
            for name, passed in zip(_NAMES, self.passed, strict=True)
        )

    @property
    def failed(self) -> tuple[str, ...]:
        """The names of the checks that did not pass."""
        return tuple(name for name, passed in zip(_NAMES, self.passed, strict=True) if not passed)

    @property
    def stopped_by(self) -> Check | None:
        """The first check that did not pass."""
        return None if self.shows else next(check for check in self.checks if not check.passed)


def decide(touchpoint: Compiled, visit: Visit, at: datetime) -> Verdict:
    """The verdict for one page view at an instant, with every check."""
    view = page_view(visit, at)
    sentences = touchpoint.show.sentences
    holding = [sentence for sentence in sentences if holds(touchpoint, sentence, view)]
    held = bool(holding)
    told = holding[0] if held else nearest(touchpoint, view)
    memory = memory_of(touchpoint, view)
    free = free_again(touchpoint, memory, view)
    passed = (
        touchpoint.state is TouchpointState.LIVE,
        view.host in touchpoint.hosts and (held or on_site(touchpoint, told, view)),
        held or on_page(told, view),
        held or (visit.device in told.devices and who_holds(touchpoint.around, told, view)),
        held or within(touchpoint, told, view),
        free is None and not shown_enough(touchpoint, memory),
        not has_answered(touchpoint, view, memory),
        True,
        has_its_turn(touchpoint, view),
    )
    moments = _moments(holding) if visit.storage or not touchpoint.interrupts else ()
    return Verdict(all(passed), moments, passed, Case(touchpoint, view, told, memory, free))


def shows(touchpoint: Compiled, view: PageView) -> bool:
    """The verdict alone, without the reasons: the same predicates as in the checks, the cheapest first."""
    if touchpoint.state is not TouchpointState.LIVE or view.host not in touchpoint.hosts:
        return False
    for sentence in touchpoint.show.sentences:
        if holds(touchpoint, sentence, view):
            break
    else:
        return False
    return (
        free_again(touchpoint, memory := memory_of(touchpoint, view), view) is None
        and not shown_enough(touchpoint, memory)
        and not has_answered(touchpoint, view, memory)
        and has_its_turn(touchpoint, view)
    )


def moments_of(touchpoint: Compiled, view: PageView) -> tuple[tuple[Moment, ...], ...]:
    """The moments of every sentence that holds."""
    return _moments([sentence for sentence in touchpoint.show.sentences if holds(touchpoint, sentence, view)])


def _moments(holding: list[Sentence]) -> tuple[tuple[Moment, ...], ...]:
    return (
        holding[0].moments
        if len(holding) == 1
        else tuple(m for sentence in holding for m in sentence.moments)
    )


def holds_until(touchpoint: Compiled, view: PageView) -> datetime | None:
    """When time next changes which of its sentences hold; None: not by itself."""
    if touchpoint.plain:
        return None
    found = (turns(touchpoint, sentence, view) for sentence in touchpoint.show.sentences)
    return min((turn for turn in found if turn is not None), default=None)
