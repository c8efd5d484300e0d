"""The rules of a touchpoint as data: show sentences, how often, until."""

from datetime import date, datetime, timedelta, tzinfo
from typing import Annotated, Any, Literal, Self, cast

from pydantic import Field, StringConstraints, field_validator, model_validator
from typing_extensions import TypedDict

from .base import Model
from .css import check_selector
from .during import During
from .patterns import PagePattern, normal_path
from .who import DEVICES, VisitorDevice, Who, Word

__all__ = [
    "DEVICES", "HowOften", "Moment", "PagePattern", "Sentence", "Show", "Span", "Until", "VisitorDevice",
    "normal_path"
]  # fmt: skip
Selector = Annotated[str, StringConstraints(min_length=1, max_length=300, strip_whitespace=True)]


class Watched(TypedDict, total=False):
    """A moment as the visitor's script watches for it: one of what `Moment` may be."""

    after: int
    read: int
    up: int
    view: str
    clicks: int
    idle: int
    leave: bool
    click: str


class Moment(Model):
    """When, on a page. Exactly one is given.

    `after`: seconds on it; `read`: percent of the way down that was scrolled; `up`: percent, coming back up
    to it; `view`: an element in view; `clicks`: so many, anywhere; `idle`: seconds without doing anything;
    `leave`: about to leave; `click`: a click on an element. Elements are named by a selector.
    """

    after: Annotated[int, Field(ge=0, le=3600)] | None = None
    read: Annotated[int, Field(ge=1, le=100)] | None = None
    up: Annotated[int, Field(ge=0, le=99)] | None = None
    view: Selector | None = None
    clicks: Annotated[int, Field(ge=1, le=100)] | None = None
    idle: Annotated[int, Field(ge=1, le=3600)] | None = None
    leave: Literal[True] | None = None
    click: Selector | None = None

    @field_validator("view", "click")
    @classmethod
    def _parses(cls, value: str | None) -> str | None:
        return None if value is None else check_selector(value)

    @model_validator(mode="after")
    def _one_of_them(self) -> Self:
        if len(self.given()) != 1:
            raise ValueError("a moment is one thing: seconds, how far down, an element, clicks, or leaving")
        return self

    def given(self) -> Watched:
        """What it is, as the visitor's script takes it."""
        found = {name: value for name in _MOMENTS if (value := getattr(self, name)) is not None}
        return cast("Watched", found)

    def say(self) -> str:
        """The moment in words."""
        [(name, value)] = self.given().items()
        return "after 1 click" if self.clicks == 1 else _MOMENTS[name].format(value)


_MOMENTS: dict[str, str] = {
    "after": "after {} s", "read": "at {} % down", "up": "back up at {} %", "view": "when “{}” is in view",
    "clicks": "after {} clicks", "idle": "after {} s of doing nothing",
    "leave": "when they are about to leave", "click": "at a click on “{}”",
}  # fmt: skip


class Sentence(Model):
    """Where, to whom, at which moment and during which times; one of several joined by "or".

    `sites` are short names of sites, none: all it stands on. Pages, landing pages and kinds of page are
    any of these, less the ones left out. All of `who` must hold. Moments are alternatives, of which all
    parts must come; none: never by itself.
    """

    sites: tuple[Word, ...] = Field((), max_length=50)
    pages: tuple[PagePattern, ...] = Field((), max_length=100)
    not_pages: tuple[PagePattern, ...] = Field((), max_length=100)
    landing: tuple[PagePattern, ...] = Field((), max_length=100)
    not_landing: tuple[PagePattern, ...] = Field((), max_length=100)
    kinds: tuple[Word, ...] = Field((), max_length=40)
    not_kinds: tuple[Word, ...] = Field((), max_length=40)
    devices: tuple[VisitorDevice, ...] = DEVICES
    who: tuple[Who, ...] = Field((), max_length=20)
    moments: tuple[tuple[Moment, ...], ...] = Field(((Moment(after=12),), (Moment(read=40),)), max_length=10)
    during: During = During()

    @field_validator("devices")
    @classmethod
    def _some_device(cls, value: tuple[VisitorDevice, ...]) -> tuple[VisitorDevice, ...]:
        if not value:
            raise ValueError("choose at least one of desktop, tablet and phone")
        return tuple(device for device in DEVICES if device in value)

    @field_validator("kinds", "not_kinds")
    @classmethod
    def _folded(cls, value: tuple[str, ...]) -> tuple[str, ...]:
        return tuple(dict.fromkeys(one.casefold() for one in value))


Unit = Literal["minutes", "hours", "days"]


class Span(Model):
    """A length of time as the owner says it; a day is 24 hours."""

    n: int = Field(7, ge=1, le=3650)
    unit: Unit = "days"

    @property
    def length(self) -> timedelta:
        """The time itself."""
        return timedelta(**{self.unit: self.n})

    def say(self) -> str:
        """Like "7 days" or "a minute"."""
        one = {"minutes": "a minute", "hours": "an hour", "days": "a day"}
        return f"{self.n} {self.unit}" if self.n != 1 else one[self.unit]


class HowOften(Model):
    """On every page, once a visit, or once in a span; at most so many times ever; how long it stays away once
    closed.

    Counted from the moment it is on screen. `moment`: each time its moment comes anew after it was closed, on
    the same page too: seconds and clicks begin again, and what was scrolled or seen must be scrolled or seen
    again.
    """

    every: Literal["moment", "page", "visit", "span"] = "span"
    span: Span = Span()
    most: Annotated[int, Field(ge=1, le=10_000)] | None = None
    after_closed: Span | None = None

    @model_validator(mode="before")
    @classmethod
    def _as_it_was(cls, data: Any) -> Any:
        # Documents of the first shape said days, or null for every page.
        if isinstance(data, dict) and "once_in_days" in data:
            rest = {name: value for name, value in data.items() if name != "once_in_days"}
            days = data["once_in_days"]
            return rest | (
                {"every": "page"} if days is None else {"every": "span", "span": {"n": days, "unit": "days"}}
            )
        return data


class Until(Model):
    """Not any more after they answered: this one, or any touchpoint of its group."""

    answered: bool = True
    group: bool = False


class Show(Model):
    """All rules: any of the sentences shows it, within how often and until.

    `group` is a name that several touchpoints share; `alone`: only if nothing else has interrupted the visit.
    """

    sentences: tuple[Sentence, ...] = Field((Sentence(),), min_length=1, max_length=20)
    how_often: HowOften = HowOften()
    until: Until = Until()
    group: Annotated[str, StringConstraints(max_length=60, strip_whitespace=True)] = ""
    alone: bool = False

    def over(self, today: date) -> bool:
        """Whether the dates of every sentence are past, on the business's date."""
        return all(one.during.last is not None and one.during.last < today for one in self.sentences)

    def begins(self, at: datetime, zone: tzinfo) -> datetime | None:
        """When the dates and times of any sentence first hold, if none of them does yet; None if never, or
        already.

        Hours that are open or closed are left out of it.
        """
        durings = [one.during.model_copy(update={"only": None}) for one in self.sentences]
        if any(one.holds(at, zone, None) for one in durings):
            return None
        return min(
            (turn for one in durings if (turn := one.changes(at, zone, None)) is not None), default=None
        )
