"""The parts of a step: each one piece of content with an id that never changes."""

from datetime import datetime
from typing import Annotated, Literal, Self

from pydantic import AwareDatetime, Field, StringConstraints, field_validator, model_validator

from ..addresses import refuse_scripts
from .base import AssetId, Colour, Id, Model, Words, sanitised
from .fields import Consent, FieldPart, Option
from .part import Part_ as _Part

Money = Annotated[str, StringConstraints(pattern=r"^\d{1,9}(\.\d{1,2})?$")]
Align = Literal["start", "middle", "end"]
BAND_MOST = 1000


class Headline(_Part):
    """A line of large words; `known` is its wording where the visitor's first name is known."""

    kind: Literal["headline"]
    text: str = Field("", max_length=300)
    known: Words = ()
    size: Literal["small", "medium", "large"] = "large"
    colour: Colour | None = None
    align: Align = "start"


class Text(_Part):
    """Rich text, sanitised when it is read; `known` is its wording where the first name is known."""

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


class Picture(_Part):
    """A picture: focus point in percent, brightness -80..80, a wash of colour over it in percent.

    `description` is read out to those who do not see it; empty says nothing at all. `follows` makes a
    click on it do what the step's first button does. `whole` shows all of it where its box is set, instead
    of filling the box. The asset `house-logo` is the site's logo; where there is none, nothing stands there.
    """

    kind: Literal["picture"]
    asset: AssetId | None = None
    description: str = Field("", max_length=500)
    place: Literal["inline", "above", "beside", "behind"] = "inline"
    focus_x: int = Field(50, ge=0, le=100)
    focus_y: int = Field(50, ge=0, le=100)
    bright: int = Field(0, ge=-80, le=80)
    wash: int = Field(0, ge=0, le=95)
    wash_colour: Colour = "#000000"
    height: int | None = Field(None, ge=24, le=1200)
    whole: bool = False
    follows: bool = False


class Video(_Part):
    """A video, muted until it is clicked."""

    kind: Literal["video"]
    asset: AssetId | None = None
    poster: AssetId | None = None
    description: str = Field("", max_length=500)


Action = Literal["send", "step", "back", "page", "mail", "phone", "file", "touchpoint", "spot", "close"]


class Does(Model):
    """What a click does. `href` is filled only in what visitors get.

    send and step go on to `next`; page, mail and phone use `address`; file uses `asset`; touchpoint its
    short name; spot goes to "top", "bottom" or the id of an element of the page. `goal`: reaches the goal.
    """

    action: Action
    next: Id | None = None
    address: str = Field("", max_length=2000)
    asset: AssetId | None = None
    touchpoint: str = Field("", max_length=60)
    spot: str = Field("", max_length=100)
    tab: Literal["same", "new"] = "same"
    goal: bool = False
    href: str = Field("", max_length=2000)

    @field_validator("address")
    @classmethod
    def _no_scripts(cls, value: str) -> str:
        return refuse_scripts(value)


class Button(_Part):
    """A button."""

    kind: Literal["button"]
    label: str = Field("", max_length=200)
    does: Does
    style: Literal["main", "plain"] = "main"


class Price(_Part):
    """A price with the old one beside it; the saving is worked out. Amounts in units of the currency."""

    kind: Literal["price"]
    now: Money = "0"
    old: Money | None = None
    currency: str = Field("GBP", pattern=r"^[A-Z]{3}$")
    unit: str = Field("", max_length=60)
    show_saving: bool = True
    align: Align = "start"


class Code(_Part):
    """Where the code stands that the visitor has been given, with a way to copy it."""

    kind: Literal["code"]
    label: str = Field("Your code", max_length=200)


class Countdown(_Part):
    """Time left: to a moment, or so many minutes for each visitor, begun again so many after its end (0: at once).

    `at_end`: the words stand there, the part goes, or the whole touchpoint is closed.
    """

    kind: Literal["countdown"]
    to: AwareDatetime | None = None
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


class Question(_Part):
    """A question with choices; each may go to a step of its own."""

    kind: Literal["question"]
    name: Id
    text: str = Field("", max_length=300)
    options: tuple[Option, ...] = Field((), max_length=20)


class Band(Model):
    """The step that scores from `least` to `most` go to."""

    least: int = Field(ge=0, le=BAND_MOST)
    most: int = Field(ge=0, le=BAND_MOST)
    next: Id


class Score(_Part):
    """A score to give; `bands` choose the next step, `low` and below opens a follow-up."""

    kind: Literal["score"]
    name: Id
    text: str = Field("", max_length=300)
    least: int = Field(0, ge=0, le=1)
    most: int = Field(10, ge=3, le=10)
    least_label: str = Field("", max_length=60)
    most_label: str = Field("", max_length=60)
    low: int = Field(6, ge=0, le=10)
    bands: tuple[Band, ...] = Field((), max_length=11)

    def next_for(self, given: int) -> str | None:
        """The step that a score leads to."""
        return next((band.next for band in self.bands if band.least <= given <= band.most), None)


class LinkItem(Model):
    """One line of a links menu."""

    label: str = Field("", max_length=120)
    does: Does


class Links(_Part):
    """A menu of links."""

    kind: Literal["links"]
    items: tuple[LinkItem, ...] = Field((), max_length=20)
    columns: Literal[1, 2] = 1


class Share(_Part):
    """The browser's own share sheet, and copying the link; no address means this page's own."""

    kind: Literal["share"]
    label: str = Field("Share this", max_length=120)
    address: str = Field("", max_length=2000)
    words: str = Field("", max_length=300)

    @field_validator("address")
    @classmethod
    def _no_scripts(cls, value: str) -> str:
        return refuse_scripts(value)


class HoursPart(_Part):
    """Whether it is open now, and the week."""

    kind: Literal["hours"]
    now: bool = True
    week: bool = True


class Questions(_Part):
    """The business's questions & answers, all or one group of them."""

    kind: Literal["questions"]
    group: str = Field("", max_length=120)
    search: bool = True
    helped: bool = True


class Markup(_Part):
    """Foreign markup, only ever in a sandboxed frame, which is as high as its content; `height` until that is known.

    `windows`: a window that it opens is a real one, outside of the sandbox.
    """

    kind: Literal["markup"]
    html: str = Field("", max_length=20_000)
    windows: bool = False
    height: int = Field(200, ge=20, le=2000)
    description: str = Field("", max_length=200)


class Line(_Part):
    """A line between parts."""

    kind: Literal["line"]


class Space(_Part):
    """Room between parts, in CSS pixels."""

    kind: Literal["space"]
    height: int = Field(16, ge=4, le=200)


class ReplyPart(_Part):
    """Where the visitor is told when somebody answers."""

    kind: Literal["reply"]


Part = Annotated[
    Headline | Text | Picture | Video | FieldPart | Consent | Button | Price | Code | Countdown | Question | Score
    | Links | Share | HoursPart | Questions | Markup | Line | Space | ReplyPart,
    Field(discriminator="kind"),
]  # fmt: skip
