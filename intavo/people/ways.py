"""How somebody is reached: a registry of ways, which the follow-up list asks and does not know by name."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any, Protocol


@dataclass(frozen=True, slots=True)
class To:
    """Whom an answer goes to, and about what."""

    business_id: int
    person_id: int
    followup_id: int
    member_id: int | None
    subject: str
    thread: str
    # What they wrote last, and the id of the mail it came by, if it came by one.
    theirs: str = ""
    their_mail: str = ""
    # Ids of files that go with it, in ways that take some.
    files: tuple[int, ...] = ()
    # A calendar entry that goes with it by mail: its name and text; and to whom, if not to their own address.
    entry: tuple[str, str] = ("", "")
    mail_to: str = ""


@dataclass(frozen=True, slots=True)
class Gone:
    """An answer that is on its way: what the timeline keeps of it, and the thread it belongs to."""

    data: dict[str, Any]
    thread: str = ""


class Way(Protocol):
    """One way to reach somebody.

    `words` says how, as after "Answer"; `reach` whether they can be reached by it; `send` sends in the
    caller's transaction; `sent` whether this very answer (by its key) has gone already; `receipt` what became
    of one, in words.
    """

    key: str
    words: str
    order: int

    def reach(self, to: To) -> bool:
        """Whether they can be reached by it."""
        ...

    def takes_files(self, to: To) -> bool:
        """Whether files can go with it."""
        ...

    def send(self, to: To, text: str, key: str) -> Gone:
        """Send an answer; the same key again sends nothing more."""
        ...

    def sent(self, to: To, key: str) -> bool:
        """Whether the answer with this key has gone already."""
        ...

    def take_back(self, to: To, key: str) -> bool:
        """Stop an answer that has not gone out yet; says whether that was still possible."""
        ...

    def receipt(self, business_id: int, data: dict[str, Any]) -> str:
        """What became of an answer, from what the timeline keeps of it; "" where nothing is known."""
        ...


_ways: dict[str, Way] = {}
_notes: list[Callable[[int, str, str], str]] = []


def notes_on(note: Callable[[int, str, str], str]) -> Callable[[int, str, str], str]:
    """Join what is said of an address (business, kind, key): "" for nothing."""
    _notes.append(note)
    return note


def note_on(business_id: int, kind: str, key: str) -> str:
    """What has to be known of an address before one writes there; "" for nothing."""
    return next((said for note in _notes if (said := note(business_id, kind, key))), "")


def register(way: Way) -> Way:
    """Add a way; one of the same key takes the place of the other."""
    _ways[way.key] = way
    return way


def ways_to(to: To) -> list[Way]:
    """The ways by which somebody can be reached, the nearest first."""
    return [one for one in sorted(_ways.values(), key=lambda one: one.order) if one.reach(to)]


def way_called(key: str) -> Way | None:
    """A way by its key."""
    return _ways.get(key)
