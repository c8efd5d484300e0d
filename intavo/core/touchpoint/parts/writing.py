"""Parts that are words, and what stands between parts."""

from collections.abc import Iterator
from typing import ClassVar, Literal

from pydantic import Field, field_validator

from ...legibility import LARGE, TEXT
from ..after import After
from ..base import Colour, Words, sanitised
from ..finding import Known
from ..look import FullValues
from .part import Lacks, Offered, Part_, TextOn

Align = Literal["start", "middle", "end"]
LARGE_FROM = 18.66  # bold; WCAG 2.2 calls 14 pt bold large
LARGE_ANYWAY = 24  # px; 18 pt


class Headline(Part_):
    """A line of large words; `known` is its wording where the visitor's first name is known."""

    CALLED: ClassVar = "Headline"
    LIGHT: ClassVar = True
    VALUES: ClassVar = {
        "known": "words where the name is known", "size": "size", "colour": "own colour",
        "align": "where in the line",
    }  # fmt: skip
    OFFERED: ClassVar = (
        Offered("Words and pictures", "Headline", {"kind": "headline", "text": "A few large words"}),
    )

    kind: Literal["headline"]
    text: str = Field("", max_length=300)
    known: Words = ()
    size: Literal["small", "medium", "large"] = "large"
    colour: Colour | None = None
    align: Align = "start"

    def lacks(self, known: Known, after: After) -> Iterator[Lacks]:
        if not self.text.strip():
            yield "look", "The headline is empty."

    def texts(self, look: FullValues) -> Iterator[TextOn]:
        big = look.head_size >= LARGE_FROM and look.head_weight >= 700
        needed = LARGE if big or look.head_size >= LARGE_ANYWAY else TEXT
        role, colour = ("part", self.colour) if self.colour else ("headline", look.colours.headline)
        yield TextOn("Headline on {on}", role, colour, needed=needed)


class Text(Part_):
    """Rich text, sanitised when it is read; `known` is its wording where the first name is known."""

    CALLED: ClassVar = "Text"
    LIGHT: ClassVar = True
    VALUES: ClassVar = {
        "html": "words", "known": "words where the name is known", "size": "size", "colour": "own colour",
        "align": "where in the line",
    }  # fmt: skip
    OFFERED: ClassVar = (
        Offered("Words and pictures", "Text", {"kind": "text", "html": "<p>What you want to say.</p>"}),
    )

    kind: Literal["text"]
    html: str = Field("", max_length=10_000)
    known: str = Field("", max_length=10_000)
    size: Literal["small", "medium", "large"] = "medium"
    colour: Colour | None = None
    align: Align = "start"

    @field_validator("html", "known")
    @classmethod
    def _sanitised(cls, value: str) -> str:
        return sanitised(value)

    def texts(self, look: FullValues) -> Iterator[TextOn]:
        role, colour = ("part", self.colour) if self.colour else ("text", look.colours.text)
        yield TextOn("Text on {on}", role, colour)


class Markup(Part_):
    """Foreign markup, only ever in a sandboxed frame, which is as high as its content; `height` until that is
    known.

    `windows`: a window that it opens is a real one, outside of the sandbox.
    """

    CALLED: ClassVar = "Foreign markup"
    TALL: ClassVar = True
    VALUES: ClassVar = {
        "html": "words", "windows": "real windows", "height": "height", "description": "description",
    }  # fmt: skip
    OFFERED: ClassVar = (Offered("To show", "Foreign markup", {"kind": "markup"}),)

    kind: Literal["markup"]
    html: str = Field("", max_length=20_000)
    windows: bool = False
    height: int = Field(200, ge=20, le=2000)
    description: str = Field("", max_length=200)


class Line(Part_):
    """A line between parts."""

    CALLED: ClassVar = "Line"
    OFFERED: ClassVar = (Offered("Words and pictures", "Line", {"kind": "line"}),)

    kind: Literal["line"]


class Space(Part_):
    """Room between parts, in CSS pixels."""

    CALLED: ClassVar = "Space"
    VALUES: ClassVar = {"height": "height"}
    OFFERED: ClassVar = (Offered("Words and pictures", "Space", {"kind": "space"}),)

    kind: Literal["space"]
    height: int = Field(16, ge=4, le=200)
