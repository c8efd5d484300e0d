"""What every part has, and what a part says of itself: its name, what it lacks, where it leads, its texts."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any, ClassVar, Literal

from pydantic import Field

from ...legibility import TEXT
from ...tongues import Phrase
from ..after import After
from ..base import AssetId, Device, Id, Model
from ..finding import Known, Level
from ..look import FullValues
from .does import Does

Lacks = tuple[Level, str]
Group = Literal["Words and pictures", "To fill in", "To click", "To show", "To reach you"]


@dataclass(frozen=True, slots=True)
class Offered:
    """How a part is offered where parts are added: its group, its name there, and its first values."""

    group: Group
    name: str
    values: dict[str, Any]


@dataclass(frozen=True, slots=True)
class TextOn:
    """A text of a part: the role of its colour, and on what it stands: the step's card, a field, or a button.

    `what` says "{on}" for what it stands on; `needed` is the contrast that it needs.
    """

    what: str
    role: str
    colour: str
    on: Literal["card", "field", "button"] = "card"
    needed: float = TEXT


class Part_(Model):  # noqa: N801  # "Part" is the union of all kinds
    """Consecutive parts with the same `row` stand side by side, each with its `share` of the width in
    percent.

    A kind says `CALLED` (its name for the owner), `VALUES` (what its values are called where changes are
    listed), `OFFERED` (how it is added), `ON_CARD` (its name as a text on the card, none where it has no such
    text), `TALL` (it does not fit into a bar), `TELLS` (being seen is its whole point), and `LIGHT` (the
    loader draws it alone).
    """

    CALLED: ClassVar[str]
    VALUES: ClassVar[dict[str, str]] = {}
    OFFERED: ClassVar[tuple[Offered, ...]] = ()
    ON_CARD: ClassVar[str] = ""
    TALL: ClassVar[bool] = False
    TELLS: ClassVar[bool] = False
    LIGHT: ClassVar[bool] = False

    id: Id
    on: tuple[Device, ...] = ("desktop", "phone")
    hidden: bool = False
    row: Id | None = None
    share: int = Field(100, ge=10, le=100)

    def clicks(self) -> Iterator[Does]:
        """Everything that a click in it does."""
        return iter(())

    def leads_to(self) -> Iterator[str]:
        """The ids of the steps that it can lead to."""
        return (does.next for does in self.clicks() if does.next)

    def assets(self) -> Iterator[AssetId]:
        """The pictures and videos that it shows."""
        return iter(())

    def offers(self) -> Iterator[str]:
        """The ids of the channels that it offers; "all" for every one."""
        return (does.channel for does in self.clicks() if does.action == "channel" and does.channel)

    def lacks(self, known: Known, after: After) -> Iterator[Lacks]:
        """What stops it or is to be looked at, in words."""
        return iter(())

    def texts(self, look: FullValues) -> Iterator[TextOn]:
        """Its texts, and what each stands on."""
        if self.ON_CARD:
            yield TextOn(f"{self.ON_CARD} on {{on}}", "text", look.colours.text)

    def loads_alone(self) -> bool:
        """Whether the loader draws it without its second file."""
        return self.LIGHT and getattr(self, "align", "start") == "start"

    def fits_a_bar(self) -> bool:
        """Whether it fits into one line."""
        return not self.TALL


class Asked(Part_):
    """A part that is answered: under its `name`, with a value that it holds against what it takes."""

    name: Id

    @property
    def asked(self) -> str:
        """What was asked, as people read it."""
        raise NotImplementedError

    def checked(self, given: str, region: str) -> str:
        """The value to keep, trimmed; empty where nothing was given. Raises ValueError with words for the
        visitor.
        """
        raise NotImplementedError

    def chosen(self, given: str) -> str | None:
        """The id of the step that an answer leads to."""
        return None

    def as_read(self, value: str) -> str:
        """A kept value as people read it."""
        return value


def one_of(value: str, known: list[str]) -> str:
    """The value, if it is one that is offered."""
    if value not in known:
        raise ValueError(Phrase("Please choose one of what is offered."))
    return value
