"""What everything in a touchpoint's document is made of: ids, devices, colours, and words with slots."""

from collections.abc import Iterable
from typing import Annotated, Any, Literal

import nh3
from pydantic import BaseModel, BeforeValidator, ConfigDict, Field, StringConstraints

from ..addresses import leads

Id = Annotated[str, StringConstraints(pattern=r"^[a-z][a-z0-9_-]{0,39}$")]
Device = Literal["desktop", "phone"]
Colour = Annotated[str, StringConstraints(pattern=r"^#[0-9a-fA-F]{6}$")]
# Stands for the logo of the site's house style, whichever that is just then.
HOUSE_LOGO = "house-logo"
# "shipped-…" is one of the pictures that come with Intavo, "as_…" one of the business's own.
AssetId = Annotated[str, StringConstraints(pattern=r"^(as_[0-9a-f]{8,32}|shipped-[a-z0-9-]{1,40}|house-logo)$")]
WordSlot = Literal["first_name", "promise", "next_opening", "code", "file"]

_TAGS = {"p", "br", "b", "strong", "i", "em", "a", "ul", "ol", "li", "span", "h3", "img"}
_ATTRIBUTES = {"a": {"href"}, "span": {"data-slot"}, "img": {"src", "alt"}}


class Model(BaseModel):
    """Base of everything in a document: immutable, and an unknown field is refused by name."""

    model_config = ConfigDict(frozen=True, extra="forbid", json_schema_serialization_defaults_required=True)


class WordSlotRun(Model):
    """A place in a text that is filled when it is said."""

    slot: WordSlot


Run = Annotated[str, Field(max_length=5000)] | WordSlotRun


def as_runs(value: Any) -> Any:
    """Plain words are one run."""
    return ([value] if value else []) if isinstance(value, str) else value


Words = Annotated[tuple[Run, ...], BeforeValidator(as_runs), Field(max_length=200)]


def filled(words: Iterable[Run], slots: dict[str, str]) -> str:
    """Words with their slots filled; a slot that nothing is known for says nothing."""
    return "".join(run if isinstance(run, str) else slots.get(run.slot, "") for run in words)


def sanitised(html: str) -> str:
    """Rich text with only the elements that a text may hold; slots are `<span data-slot="first_name">`.

    Pictures keep only addresses of Intavo's own library; links lead where their address was meant to. Source: nh3.
    """
    return nh3.clean(
        html, tags=_TAGS, attributes=_ATTRIBUTES, url_schemes={"http", "https", "mailto", "tel", "sms"},
        attribute_filter=_own_pictures_only,
    )  # fmt: skip


def _own_pictures_only(tag: str, name: str, value: str) -> str | None:
    if tag == "span" and name == "data-slot":
        return value if value == "first_name" else None
    if tag == "a" and name == "href":
        return leads(value) or None
    return None if tag == "img" and name == "src" and not value.startswith("/m/") else value
