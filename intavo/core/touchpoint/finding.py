"""What the ready check finds, and what it is told of the surroundings."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date, datetime
from typing import Literal

from ..legibility import Reading
from .draining import Drain

Level = Literal["stops", "look", "fine"]


@dataclass(frozen=True, slots=True)
class Finding:
    """One finding: whether it stops, is to be looked at or is only to be known; in words, and the place to
    fix it.
    """

    level: Level
    message: str
    place: str


@dataclass(frozen=True, slots=True)
class Known:
    """What is known around a document.

    `at` is now, and `today` the business's date. Of `pages` that the script has seen, `matching` are those it
    may show on; `shares` names others of its queue that are on, with how many of these pages they are on as
    well; `corner` other buttons that are on in the same corner. `paths` are those of all pages seen on
    `hosts`, none where that is not known. `waits`: made but not on, or changed since it went live.
    `said_closed`: whether those who send it while it is closed are told something. `region` reads numbers;
    `empty_lists` are "search" and "social" where a site of its lists none. `questions` are the groups of
    questions & answers that the business has, "" among them where one has no group; None where that is not
    known. `channels` holds what is to be looked at in each of the business's channels by its id, "" for
    nothing; None where that is not known.

    `boxed` and `missing` are ids of pictures; `codes_left` of `codes_all` is the touchpoint's own list;
    `drain` is how they went within the last hour, where that is odd. `over` are paths of pages that a bar
    could not move aside. `original` is what this is a copy of in another language: its name, its language and
    its texts.
    """

    region: str = "GB"
    hosts: frozenset[str] = frozenset()
    paths: frozenset[str] = frozenset()
    corner: Sequence[str] = ()
    empty_lists: frozenset[str] = frozenset()
    has_site: bool = True
    snippet_seen: bool = True
    mail_sender: bool = True
    slugs: frozenset[str] = frozenset()
    boxed: frozenset[str] = frozenset()
    missing: frozenset[str] = frozenset()
    codes_left: int = 0
    codes_all: int = 0
    drain: Drain | None = None
    over: Sequence[str] = ()
    has_logo: bool = True
    questions: frozenset[str] | None = None
    channels: Mapping[str, str] | None = None
    today: date | None = None
    at: datetime | None = None
    pages: int = 0
    matching: int = 0
    shares: Sequence[tuple[str, int]] = ()
    waits: Literal["not on", "changed"] | None = None
    said_closed: bool = True
    readings: Sequence[Reading] = ()
    original: tuple[str, str, frozenset[str]] | None = None
