"""Whether a touchpoint shows on a page view, check by check, with the reasons in words."""

from collections.abc import Callable
from dataclasses import dataclass
from datetime import datetime, timedelta
from enum import StrEnum
from functools import cached_property
from typing import NamedTuple
from zoneinfo import ZoneInfo

from ..hosts import host_of
from ..say import stamp
from ..touchpoint.rules import DEVICES, Moment, Sentence, Show, normal_path
from .visit import Memory, Visit


class State(StrEnum):
    """Whether a touchpoint is on; a draft was never on."""

    DRAFT = "draft"
    LIVE = "live"
    OFF = "off"


@dataclass(frozen=True)
class Compiled:
    """What deciding needs of one touchpoint; made once for a revision and kept."""

    id: str
    state: State
    hosts: frozenset[str]
    show: Show
    zone: ZoneInfo
    generation: int = 1
    order: int = 0
    interrupts: bool = True

    @cached_property
    def pause(self) -> timedelta | None:
        """How long it stays away after being shown; a day is 24 hours."""
        days = self.show.how_often.once_in_days
        return None if days is None else timedelta(days=days)


class Check(NamedTuple):
    """One check: its name, whether it passed, when time will change it (if it will), and why on demand."""

    name: str
    passed: bool
    when: datetime | None
    case: "_Case"

    @property
    def sentence(self) -> str:
        """The reason in a sentence for the owner."""
        return _WORDS[self.name](self.case)


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


class PageView(NamedTuple):
    """A visit with what every touchpoint asks of it worked out once: the host and path as they are compared."""

    visit: Visit
    at: datetime
    host: str | None
    path: str


def page_view(visit: Visit, at: datetime) -> PageView:
    """A visit at an instant."""
    return PageView(visit, at, host_of(visit.page.url), normal_path(visit.page.url))


class _Case(NamedTuple):
    """What the checks of one verdict speak of; `told` is the sentence that is explained."""

    touchpoint: Compiled
    view: PageView
    told: Sentence
    memory: Memory | None
    free: datetime | None


def decide(touchpoint: Compiled, visit: Visit, at: datetime) -> Verdict:
    """The verdict for one page view at an instant, with every check."""
    view = page_view(visit, at)
    sentences = touchpoint.show.sentences
    holding = [sentence for sentence in sentences if _holds(sentence, view)]
    told = holding[0] if holding else _nearest(sentences, view)
    memory = _memory(touchpoint, view)
    free = _free_again(touchpoint, memory, at)
    case = _Case(touchpoint, view, told, memory, free)
    on_page = bool(holding) or _on_page(told, view.path)
    checks = (
        Check("state", touchpoint.state is State.LIVE, None, case),
        Check("site", view.host in touchpoint.hosts, None, case),
        Check("where", on_page, None, case),
        Check("who", visit.device in told.devices, None, case),
        Check("how often", free is None, free, case),
        Check("until", not _answered(touchpoint, memory), None, case),
    )
    moments = tuple(moment for sentence in holding for moment in sentence.moments)
    return Verdict(all(check.passed for check in checks), checks, moments)


def shows(touchpoint: Compiled, view: PageView) -> bool:
    """The verdict alone, without the reasons: the same predicates as in the checks, the cheapest first."""
    return (
        touchpoint.state is State.LIVE
        and view.host in touchpoint.hosts
        and any(_holds(sentence, view) for sentence in touchpoint.show.sentences)
        and _free_again(touchpoint, memory := _memory(touchpoint, view), view.at) is None
        and not _answered(touchpoint, memory)
    )


def moments_of(touchpoint: Compiled, view: PageView) -> tuple[tuple[Moment, ...], ...]:
    """The moments of every sentence that holds."""
    return tuple(moment for s in touchpoint.show.sentences if _holds(s, view) for moment in s.moments)


def _memory(touchpoint: Compiled, view: PageView) -> Memory | None:
    """What is remembered, unless past showings have been forgotten since."""
    memory = view.visit.memory.get(touchpoint.id)
    return None if memory is None or memory.generation < touchpoint.generation else memory


def _free_again(touchpoint: Compiled, memory: Memory | None, at: datetime) -> datetime | None:
    """When it may show again, if it may not yet."""
    if memory is None or memory.last_shown is None or touchpoint.pause is None:
        return None
    free = memory.last_shown + touchpoint.pause
    return free if free > at else None


def _answered(touchpoint: Compiled, memory: Memory | None) -> bool:
    return touchpoint.show.until.answered and memory is not None and memory.answered is not None


def _holds(sentence: Sentence, view: PageView) -> bool:
    return _on_page(sentence, view.path) and view.visit.device in sentence.devices


def _nearest(sentences: tuple[Sentence, ...], view: PageView) -> Sentence:
    """The sentence to explain where none holds: one for this page, if there is one."""
    return next((s for s in sentences if _on_page(s, view.path)), sentences[0])


def _on_page(sentence: Sentence, path: str) -> bool:
    wanted = not sentence.pages or any(pattern.matches(path) for pattern in sentence.pages)
    return wanted and not any(pattern.matches(path) for pattern in sentence.not_pages)


_STATES = {
    State.LIVE: "It is on.",
    State.OFF: "It is turned off.",
    State.DRAFT: "It has been made, but is not on yet.",
}


def _site_words(case: _Case) -> str:
    hosts = ", ".join(sorted(case.touchpoint.hosts)) or "no site"
    return f"The page is on {case.view.host or 'no known host'}; it stands on {hosts}."


def _where_words(case: _Case) -> str:
    sentence, path = case.told, case.view.path
    refusing = next((p for p in sentence.not_pages if p.matches(path)), None)
    if refusing is not None:
        return f"{path} is left out by “{refusing.say()}”."
    if not sentence.pages:
        return "Any page will do."
    matching = next((p for p in sentence.pages if p.matches(path)), None)
    if matching is not None:
        return f"{path} matches “{matching.say()}”."
    return f"{path} is not among {', '.join(p.say() for p in sentence.pages)}."


def _who_words(case: _Case) -> str:
    if case.told.devices == DEVICES:
        return "Any device will do."
    return f"They are on a {case.view.visit.device}; it shows on {' and '.join(case.told.devices)}."


def _how_often_words(case: _Case) -> str:
    pause, zone = case.touchpoint.pause, case.touchpoint.zone
    if pause is None:
        return "It may show on every page."
    rule = f"At most once in {pause.days} day{'s' if pause.days != 1 else ''}"
    shown = case.memory.last_shown if case.memory else None
    if shown is None:
        return f"{rule}; not shown yet."
    told = f"{rule}; shown {stamp(shown, zone)}"
    return f"{told}, long enough ago." if case.free is None else f"{told}; free again {stamp(case.free, zone)}."


def _until_words(case: _Case) -> str:
    if not case.touchpoint.show.until.answered:
        return "It goes on after an answer."
    answered = _answered(case.touchpoint, case.memory)
    return "They have answered already." if answered else "They have not answered yet."


_WORDS: dict[str, Callable[[_Case], str]] = {
    "state": lambda case: _STATES[case.touchpoint.state],
    "site": _site_words,
    "where": _where_words,
    "who": _who_words,
    "how often": _how_often_words,
    "until": _until_words,
}
