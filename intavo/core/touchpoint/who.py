"""Who: what is asked of a visitor, each piece also the other way round (`unless`)."""

from typing import Annotated, Literal, Self

from pydantic import Field, StringConstraints, model_validator

from .base import Model
from .patterns import TextPattern

VisitorDevice = Literal["desktop", "tablet", "phone"]
DEVICES: tuple[VisitorDevice, ...] = ("desktop", "tablet", "phone")
Way = Literal["typed", "search", "social", "elsewhere", "here"]
Word = Annotated[str, StringConstraints(min_length=1, max_length=120, strip_whitespace=True)]
WAYS: dict[Way, str] = {
    "typed": "by typing your address", "search": "from a search site", "social": "from a social site",
    "elsewhere": "from another site", "here": "from your own site",
}  # fmt: skip


class _Who(Model):
    unless: bool = False


class Been(_Who):
    """They have been on the site before."""

    kind: Literal["been"]


class Visits(_Who):
    """They are on at least, or at most, so many visits, this one counted."""

    kind: Literal["visits"]
    least: int | None = Field(None, ge=1, le=10_000)
    most: int | None = Field(None, ge=1, le=10_000)

    @model_validator(mode="after")
    def _bounded(self) -> Self:
        if self.least is None and self.most is None:
            raise ValueError("say at least or at most how many visits")
        if self.least is not None and self.most is not None and self.least > self.most:
            raise ValueError("at least is more than at most")
        return self


class Pages(_Who):
    """They have seen at least so many pages, this one counted: in this visit or ever."""

    kind: Literal["pages"]
    least: int = Field(2, ge=1, le=10_000)
    span: Literal["visit", "ever"] = "visit"


class Arrival(_Who):
    """How this visit came to the site: any of these ways."""

    kind: Literal["arrival"]
    ways: tuple[Way, ...] = Field(min_length=1, max_length=5)


class Referrer(_Who):
    """The address they came from matches (host, path and query, without scheme)."""

    kind: Literal["referrer"]
    address: TextPattern


class Campaign(_Who):
    """A tag in the address they landed on matches, such as utm_campaign."""

    kind: Literal["campaign"]
    tag: Annotated[str, StringConstraints(min_length=1, max_length=60, pattern=r"^[\w.-]+$")] = "utm_campaign"
    value: TextPattern


class SignedIn(_Who):
    """They are signed in to the site, as the site's script or an element on it says."""

    kind: Literal["signed_in"]


class Language(_Who):
    """Their browser speaks one of these languages (BCP 47; "en" takes in "en-GB")."""

    kind: Literal["language"]
    languages: tuple[
        Annotated[str, StringConstraints(pattern=r"^[A-Za-z]{2,3}(-[A-Za-z0-9]{2,8})*$")], ...
    ] = Field(min_length=1, max_length=40)


class OnList(_Who):
    """They are on the list, as far as their browser knows."""

    kind: Literal["on_list"]


class Tagged(_Who):
    """A touchpoint gave them one of these tags."""

    kind: Literal["tag"]
    tags: tuple[Word, ...] = Field(min_length=1, max_length=40)


Who = Annotated[
    Been | Visits | Pages | Arrival | Referrer | Campaign | SignedIn | Language | OnList | Tagged,
    Field(discriminator="kind"),
]
