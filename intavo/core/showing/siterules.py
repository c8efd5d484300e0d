"""What the owner sets for a whole site: where people come from, groups of pages, and how often it may
interrupt.
"""

from typing import Annotated

from pydantic import Field, StringConstraints, field_validator

from ..hosts import normalise_host
from ..touchpoint.base import Model
from ..touchpoint.css import check_selector
from ..touchpoint.patterns import PagePattern
from ..touchpoint.rules import Selector

Name = Annotated[str, StringConstraints(min_length=1, max_length=60, strip_whitespace=True)]


class PageGroup(Model):
    """Pages under one name."""

    name: Name
    pages: tuple[PagePattern, ...] = Field(min_length=1, max_length=100)

    @field_validator("pages")
    @classmethod
    def _no_groups(cls, value: tuple[PagePattern, ...]) -> tuple[PagePattern, ...]:
        if any(one.kind == "group" for one in value):
            raise ValueError("a group is made of pages, not of groups")
        return value


class SiteRules(Model):
    """Rules of a site.

    `search` and `social` list hosts, `search_media` and `social_media` values of utm_medium. At most
    `most_interruptions` touchpoints interrupt a visit (None: any number). While an element of `give_way_to`
    is on screen, nothing interrupts. Where an element of `signed_in` is on the page, the visitor is signed
    in.
    """

    search: tuple[str, ...] = Field((), max_length=500)
    social: tuple[str, ...] = Field((), max_length=500)
    search_media: tuple[Name, ...] = Field((), max_length=50)
    social_media: tuple[Name, ...] = Field((), max_length=50)
    groups: tuple[PageGroup, ...] = Field((), max_length=100)
    most_interruptions: Annotated[int, Field(ge=1, le=100)] | None = None
    give_way_to: tuple[Selector, ...] = Field((), max_length=20)
    signed_in: Annotated[str, StringConstraints(max_length=300, strip_whitespace=True)] = ""

    @field_validator("search", "social")
    @classmethod
    def _hosts(cls, value: tuple[str, ...]) -> tuple[str, ...]:
        return tuple(dict.fromkeys(normalise_host(one) for one in value if one.strip()))

    @field_validator("search_media", "social_media")
    @classmethod
    def _folded(cls, value: tuple[str, ...]) -> tuple[str, ...]:
        return tuple(dict.fromkeys(one.casefold() for one in value))

    @field_validator("give_way_to")
    @classmethod
    def _parse(cls, value: tuple[str, ...]) -> tuple[str, ...]:
        return tuple(check_selector(one) for one in value)

    @field_validator("signed_in")
    @classmethod
    def _parses(cls, value: str) -> str:
        return check_selector(value) if value else ""

    @field_validator("groups")
    @classmethod
    def _different(cls, value: tuple[PageGroup, ...]) -> tuple[PageGroup, ...]:
        names = [one.name.casefold() for one in value]
        twice = next((name for name in names if names.count(name) > 1), None)
        if twice is not None:
            raise ValueError(f"the group “{twice}” stands twice")
        return value

    def by_name(self) -> dict[str, tuple[PagePattern, ...]]:
        """The groups by their name in lower case."""
        return {one.name.casefold(): one.pages for one in self.groups}
