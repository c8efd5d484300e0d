"""The rules of a touchpoint as data: show sentences, how often, until."""

from functools import lru_cache
from typing import Annotated, Literal, Self
from urllib.parse import unquote, urlsplit

from pydantic import Field, field_validator, model_validator

from .base import Model

VisitorDevice = Literal["desktop", "tablet", "phone"]
DEVICES: tuple[VisitorDevice, ...] = ("desktop", "tablet", "phone")


@lru_cache(maxsize=4096)
def normal_path(address: str) -> str:
    """A page's path as it is compared: decoded, case-folded, without query, fragment and last slash.

    Takes a whole address, a path, or a path without its first slash.
    """
    try:
        path = urlsplit(address if "://" in address else f"//x/{address.lstrip('/')}").path
    except ValueError:
        path = "/"
    return f"/{unquote(path).strip('/')}".casefold()


class PagePattern(Model):
    """Which pages: one exactly, or one and everything below it."""

    kind: Literal["exact", "below"]
    path: str = Field(min_length=1, max_length=500)

    @field_validator("path")
    @classmethod
    def _normalised(cls, value: str) -> str:
        if any(mark.isspace() for mark in value.strip()):
            raise ValueError("a page's path has no spaces; write it like /trips")
        return normal_path(value.strip())

    def matches(self, path: str) -> bool:
        """Whether a path from `normal_path` is one of these pages."""
        if path == self.path:
            return True
        return self.kind == "below" and (self.path == "/" or path.startswith(f"{self.path}/"))

    def say(self) -> str:
        """The pattern as it is written for people."""
        return self.path if self.kind == "exact" else f"{self.path} and below"


class Moment(Model):
    """When, on a page: after so many seconds, when so much of it is read, or about to leave. Exactly one is given."""

    after: Annotated[int, Field(ge=0, le=3600)] | None = None
    read: Annotated[int, Field(ge=1, le=100)] | None = None
    leave: Literal[True] | None = None

    @model_validator(mode="after")
    def _one_of_them(self) -> Self:
        if sum(one is not None for one in (self.after, self.read, self.leave)) != 1:
            raise ValueError("a moment is either seconds on the page, the share of it that is read, or leaving it")
        return self

    def say(self) -> str:
        """The moment in words."""
        if self.leave:
            return "about to leave"
        return f"after {self.after} s" if self.after is not None else f"{self.read} % down"


class Sentence(Model):
    """Where, to whom and at which moment; the moments are alternatives of which all parts must come."""

    pages: tuple[PagePattern, ...] = Field((), max_length=100)
    not_pages: tuple[PagePattern, ...] = Field((), max_length=100)
    devices: tuple[VisitorDevice, ...] = DEVICES
    moments: tuple[tuple[Moment, ...], ...] = Field(((Moment(after=12),), (Moment(read=40),)), max_length=10)

    @field_validator("devices")
    @classmethod
    def _some_device(cls, value: tuple[VisitorDevice, ...]) -> tuple[VisitorDevice, ...]:
        if not value:
            raise ValueError("choose at least one of desktop, tablet and phone")
        return tuple(device for device in DEVICES if device in value)


class HowOften(Model):
    """At most once in so many days of 24 hours; None: on every page."""

    once_in_days: Annotated[int, Field(ge=1, le=3650)] | None = 7


class Until(Model):
    """Not any more after they answered."""

    answered: bool = True


class Show(Model):
    """All rules: any of the sentences shows it, within how often and until."""

    sentences: tuple[Sentence, ...] = Field((Sentence(),), min_length=1, max_length=20)
    how_often: HowOften = HowOften()
    until: Until = Until()
