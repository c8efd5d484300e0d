"""What deciding works on: a touchpoint's rules made ready, and a page view with what is asked of it worked
out once.
"""

from dataclasses import dataclass
from datetime import datetime, timedelta
from enum import StrEnum
from functools import cached_property
from typing import NamedTuple
from zoneinfo import ZoneInfo

from ..hosts import host_of
from ..touchpoint.patterns import Groups, expanded, normal_address, normal_path
from ..touchpoint.rules import Sentence, Show
from ..touchpoint.who import Language
from .around import NOTHING_AROUND, Around
from .hiding import Hides
from .visit import Memory, Visit

VISIT_ENDS = timedelta(minutes=30)


class TouchpointState(StrEnum):
    """Whether a touchpoint is on; a draft was never on."""

    DRAFT = "draft"
    LIVE = "live"
    OFF = "off"


@dataclass(frozen=True)
class Compiled:
    """What deciding needs of one touchpoint; made once for a revision and kept.

    `mates` are the ids of all touchpoints of its group. `goes_after` is the seconds after which it goes by
    itself. An answer `joins` the list, and `gives` tags. `hides`: what is asked where its column of the table
    hides it.
    """

    id: str
    state: TouchpointState
    hosts: frozenset[str]
    show: Show
    zone: ZoneInfo
    generation: int = 1
    order: int = 0
    interrupts: bool = True
    queue: str = "interrupting"
    around: Around = NOTHING_AROUND
    mates: frozenset[str] = frozenset()
    goes_after: int | None = None
    joins: bool = False
    gives: tuple[str, ...] = ()
    hides: Hides | None = None

    @cached_property
    def pause(self) -> timedelta | None:
        """How long it stays away after being shown; a day is 24 hours."""
        often = self.show.how_often
        return often.span.length if often.every == "span" else None

    @cached_property
    def plain(self) -> bool:
        """Whether every sentence asks for nothing but pages and devices, which most do."""
        return self.hides is None and not any(
            s.sites or s.landing or s.not_landing or s.kinds or s.not_kinds or s.who or not s.during.always
            for s in self.show.sentences
        )


_PAGES = ("pages", "not_pages", "landing", "not_landing")


def with_groups(show: Show, groups: Groups) -> Show:
    """The rules with the owner's groups of pages written out."""
    return show.model_copy(update={"sentences": tuple(sentence_with(one, groups) for one in show.sentences)})


def without_languages(show: Show, languages: tuple[str, ...]) -> Show:
    """The rules of one that others are copies of in these languages: who reads one of them is for the copy.

    A sentence that asks for languages itself stays as it is.
    """
    if not languages:
        return show
    others = Language(kind="language", languages=languages, unless=True)

    def less(sentence: Sentence) -> Sentence:
        asks = any(piece.kind == "language" for piece in sentence.who)
        return sentence if asks else sentence.model_copy(update={"who": (*sentence.who, others)})

    return show.model_copy(update={"sentences": tuple(less(one) for one in show.sentences)})


def in_language(show: Show, language: str) -> Show:
    """The rules of a copy in another language: for who reads it, instead of what was asked of languages
    before.

    ValidationError where a sentence asks for as much as it may already.
    """
    reads = Language(kind="language", languages=(language,))
    data = show.model_dump()
    for one in data["sentences"]:
        one["who"] = [*(piece for piece in one["who"] if piece["kind"] != "language"), reads.model_dump()]
    return Show.model_validate(data)


def sentence_with(sentence: Sentence, groups: Groups) -> Sentence:
    """A sentence with the groups of pages written out."""
    return sentence.model_copy(update={name: expanded(getattr(sentence, name), groups) for name in _PAGES})


class PageView(NamedTuple):
    """A visit with what every touchpoint asks of it worked out once:
    the host and path as they are compared.
    """

    visit: Visit
    at: datetime
    host: str | None
    path: str
    address: str


def page_view(visit: Visit, at: datetime) -> PageView:
    """A visit at an instant."""
    url = visit.page.url
    return PageView(visit, at, host_of(url), normal_path(url), normal_address(url))


class Case(NamedTuple):
    """What the checks of one verdict speak of; `told` is the sentence that is explained."""

    touchpoint: Compiled
    view: PageView
    told: Sentence
    memory: Memory | None
    free: datetime | None
