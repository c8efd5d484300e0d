"""Prices, codes and countdowns."""

from collections.abc import Iterator
from datetime import datetime
from typing import Annotated, ClassVar, Literal, Self

from pydantic import Field, StringConstraints, model_validator

from ...times import Moment
from ..after import After
from ..finding import Known
from .part import Lacks, Offered, Part_
from .writing import Align

Money = Annotated[str, StringConstraints(pattern=r"^\d{1,9}(\.\d{1,2})?$")]


class Price(Part_):
    """A price with the old one beside it; the saving is worked out. Amounts in units of the currency."""

    CALLED: ClassVar = "Price"
    ON_CARD: ClassVar = "Price"
    VALUES: ClassVar = {
        "now": "now", "old": "before", "currency": "currency", "unit": "for what",
        "show_saving": "says what is saved", "align": "where in the line",
    }  # fmt: skip
    OFFERED: ClassVar = (Offered("To show", "Price", {"kind": "price", "now": "20", "old": "25"}),)

    kind: Literal["price"]
    now: Money = "0"
    old: Money | None = None
    currency: str = Field("GBP", pattern=r"^[A-Z]{3}$")
    unit: str = Field("", max_length=60)
    show_saving: bool = True
    align: Align = "start"

    def lacks(self, known: Known, after: After) -> Iterator[Lacks]:
        if self.old is not None and float(self.old) <= float(self.now):
            yield "look", "The price before is not higher than the price now."


class Code(Part_):
    """Where the code stands that the visitor has been given, with a way to copy it."""

    CALLED: ClassVar = "Code"
    ON_CARD: ClassVar = "Code"
    OFFERED: ClassVar = (Offered("To show", "Code", {"kind": "code"}),)

    kind: Literal["code"]
    label: str = Field("Your code", max_length=200)

    def lacks(self, known: Known, after: After) -> Iterator[Lacks]:
        if after.code.kind == "none":
            yield "look", "A code stands here, but none is given."


class Countdown(Part_):
    """Time left: to a moment, or so many minutes for each visitor, begun again so many after its end (0: at
    once).

    `at_end`: the words stand there, the part goes, or the whole touchpoint is closed.
    """

    CALLED: ClassVar = "Countdown"
    ON_CARD: ClassVar = "Countdown"
    TELLS: ClassVar = True
    VALUES: ClassVar = {
        "to": "ends", "minutes": "how long", "again_after": "again, after its end",
        "at_end": "when it has ended", "ended": "words when it has ended", "align": "where in the line",
    }  # fmt: skip
    OFFERED: ClassVar = (
        Offered("To show", "Countdown", {"kind": "countdown", "minutes": 1440, "label": "Still"}),
    )

    kind: Literal["countdown"]
    to: Moment | None = None
    minutes: int | None = Field(None, ge=1, le=60 * 24 * 60)
    again_after: int | None = Field(None, ge=0, le=60 * 24 * 365)
    at_end: Literal["words", "hide", "close"] = "words"
    label: str = Field("", max_length=200)
    ended: str = Field("This has ended.", max_length=200)
    align: Align = "start"

    @model_validator(mode="after")
    def _one_end(self) -> Self:
        if (self.to is None) == (self.minutes is None):
            raise ValueError("a countdown runs to a moment, or for so many minutes for each visitor")
        return self

    def over(self, at: datetime) -> bool:
        """Whether the moment is past."""
        return self.to is not None and self.to <= at

    def lacks(self, known: Known, after: After) -> Iterator[Lacks]:
        if known.at is not None and self.over(known.at):
            yield "look", "A countdown has ended: its moment is past."
