"""Whether a touchpoint shows on a page view, check by check, with the reasons in words."""

from collections.abc import Callable, Iterator
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

    @cached_property
    def pause(self) -> timedelta | None:
        """How long it stays away after being shown; a day is 24 hours."""
        days = self.show.how_often.once_in_days
        return None if days is None else timedelta(days=days)


class Check(NamedTuple):
    """One check: its name, whether it passed, when time will change it (if it will), and why."""

    name: str
    passed: bool
    when: datetime | None
    words: Callable[[], str]

    @property
    def sentence(self) -> str:
        """The reason in a sentence for the owner."""
        return self.words()


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


@dataclass
class PageView:
    """A visit with what several touchpoints ask of it worked out once."""

    visit: Visit
    at: datetime

    @cached_property
    def host(self) -> str | None:
        """The page's host, normalised."""
        return host_of(self.visit.page.url)

    @cached_property
    def path(self) -> str:
        """The page's path as it is compared."""
        return normal_path(self.visit.page.url)


def decide(touchpoint: Compiled, visit: Visit, at: datetime) -> Verdict:
    """The verdict for one page view at an instant, with every check."""
    view = PageView(visit, at)
    checks = tuple(_checks(touchpoint, view))
    return Verdict(all(check.passed for check in checks), checks, moments_of(touchpoint, view))


def shows(touchpoint: Compiled, view: PageView) -> bool:
    """The verdict alone, stopping at the first check that fails."""
    return all(check.passed for check in _checks(touchpoint, view))


def moments_of(touchpoint: Compiled, view: PageView) -> tuple[tuple[Moment, ...], ...]:
    """The moments of every sentence that holds."""
    return tuple(moment for s in touchpoint.show.sentences if _holds(s, view) for moment in s.moments)


def _checks(touchpoint: Compiled, view: PageView) -> Iterator[Check]:
    yield _state(touchpoint)
    yield _site(touchpoint, view)
    sentence = next((s for s in touchpoint.show.sentences if _holds(s, view)), None)
    told = sentence or _nearest(touchpoint.show.sentences, view)
    yield _where(told, view)
    yield _who(told, view)
    memory = view.visit.memory.get(touchpoint.id)
    if memory is not None and memory.generation < touchpoint.generation:
        memory = None
    yield _how_often(touchpoint, memory, view.at)
    yield _until(touchpoint, memory)


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


def _state(touchpoint: Compiled) -> Check:
    return Check("state", touchpoint.state is State.LIVE, None, lambda: _STATES[touchpoint.state])


def _site(touchpoint: Compiled, view: PageView) -> Check:
    def words() -> str:
        hosts = ", ".join(sorted(touchpoint.hosts)) or "no site"
        return f"The page is on {view.host or 'no known host'}; it stands on {hosts}."

    return Check("site", view.host in touchpoint.hosts, None, words)


def _where(sentence: Sentence, view: PageView) -> Check:
    def words() -> str:
        refusing = next((p for p in sentence.not_pages if p.matches(view.path)), None)
        if refusing is not None:
            return f"{view.path} is left out by “{refusing.say()}”."
        if not sentence.pages:
            return "Any page will do."
        matching = next((p for p in sentence.pages if p.matches(view.path)), None)
        if matching is not None:
            return f"{view.path} matches “{matching.say()}”."
        return f"{view.path} is not among {', '.join(p.say() for p in sentence.pages)}."

    return Check("where", _on_page(sentence, view.path), None, words)


def _who(sentence: Sentence, view: PageView) -> Check:
    def words() -> str:
        if sentence.devices == DEVICES:
            return "Any device will do."
        return f"They are on a {view.visit.device}; it shows on {' and '.join(sentence.devices)}."

    return Check("who", view.visit.device in sentence.devices, None, words)


def _how_often(touchpoint: Compiled, memory: Memory | None, at: datetime) -> Check:
    shown = memory.last_shown if memory else None
    free = shown + touchpoint.pause if shown is not None and touchpoint.pause is not None else None
    passed = free is None or free <= at

    def words() -> str:
        if touchpoint.pause is None:
            return "It may show on every page."
        rule = f"At most once in {touchpoint.pause.days} day{'s' if touchpoint.pause.days != 1 else ''}"
        if shown is None:
            return f"{rule}; not shown yet."
        told = f"{rule}; shown {stamp(shown, touchpoint.zone)}"
        return (
            f"{told}, long enough ago."
            if passed or free is None
            else f"{told}; free again {stamp(free, touchpoint.zone)}."
        )

    return Check("how often", passed, None if passed else free, words)


def _until(touchpoint: Compiled, memory: Memory | None) -> Check:
    answered = memory.answered if memory else None
    stops = touchpoint.show.until.answered and answered is not None

    def words() -> str:
        if not touchpoint.show.until.answered:
            return "It goes on after an answer."
        return "They have answered already." if stops else "They have not answered yet."

    return Check("until", not stops, None, words)
