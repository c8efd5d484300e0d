"""What everything in a touchpoint's document is made of: ids, devices, colours, and words with slots."""

from collections.abc import Iterable
from typing import Annotated, Literal

import nh3
from pydantic import BeforeValidator, Field

from ..addresses import leads
from ..values import HOUSE_LOGO, AssetId, Colour, Device, Id, Model, as_runs

WordSlot = Literal["first_name", "promise", "next_opening", "code", "file"]

__all__ = [
    "HOUSE_LOGO", "AssetId", "Colour", "Device", "Id", "Model", "Run", "WordSlot", "WordSlotRun", "Words",
    "as_runs", "filled", "sanitised",
]  # fmt: skip
_TAGS = {"p", "br", "b", "strong", "i", "em", "a", "ul", "ol", "li", "span", "h3", "img"}
_ATTRIBUTES = {"a": {"href"}, "span": {"data-slot"}, "img": {"src", "alt"}}


class WordSlotRun(Model):
    """A place in a text that is filled when it is said."""

    slot: WordSlot


Run = Annotated[str, Field(max_length=5000)] | WordSlotRun


Words = Annotated[tuple[Run, ...], BeforeValidator(as_runs), Field(max_length=200)]


def filled(words: Iterable[Run], slots: dict[str, str]) -> str:
    """Words with their slots filled; a slot that nothing is known for says nothing."""
    return "".join(run if isinstance(run, str) else slots.get(run.slot, "") for run in words)


def sanitised(html: str) -> str:
    """Rich text with only the elements that a text may hold; slots are `<span data-slot="first_name">`.

    Pictures keep only addresses of Intavo's own library; links lead where their address was meant to. Source:
    nh3.
    """
    return nh3.clean(
        html,
        tags=_TAGS,
        attributes=_ATTRIBUTES,
        url_schemes={"http", "https", "mailto", "tel", "sms"},
        attribute_filter=_own_pictures_only,
    )


def _own_pictures_only(tag: str, name: str, value: str) -> str | None:
    if tag == "span" and name == "data-slot":
        return value if value == "first_name" else None
    if tag == "a" and name == "href":
        return leads(value) or None
    return None if tag == "img" and name == "src" and not value.startswith("/m/") else value
