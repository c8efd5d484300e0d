"""A channel's document: its kind, its handle, who stands behind it, and what happens while it is closed."""

from typing import Annotated, Literal, Self

from pydantic import AfterValidator, BeforeValidator, Field, StringConstraints, model_validator

from ..values import AssetId, Colour, Device, Model, as_runs
from .template import checked_template

Kind = Literal["phone", "text", "mail", "xmpp", "sip", "matrix", "map", "page", "message-link"]
# Drawn by the kind of act, never by a service.
Icon = Literal["call", "write", "text", "chat", "find", "visit", "book", "pay", "follow"]
LinkSlot = Literal["page_title", "page_address", "first_name", "short_code"]
ICONS: dict[Kind, Icon] = {
    "phone": "call", "text": "text", "mail": "write", "xmpp": "chat", "sip": "call", "matrix": "chat",
    "map": "find", "page": "visit", "message-link": "chat",
}  # fmt: skip


class LinkSlotRun(Model):
    """A place in a text that is filled when the link is made."""

    slot: LinkSlot


Run = Annotated[str, Field(max_length=1000)] | LinkSlotRun
Runs = Annotated[
    tuple[Run, ...],
    BeforeValidator(as_runs),
    Field(max_length=50),
]
Handle = Annotated[str, StringConstraints(strip_whitespace=True, max_length=300)]
Template = Annotated[
    str, StringConstraints(strip_whitespace=True, max_length=500), AfterValidator(checked_template)
]


class ChannelPerson(Model):
    """Somebody behind a channel. Their `hours` narrow the channel's;
    `member` is who of the business it is.
    """

    name: str = Field(min_length=1, max_length=80)
    words: str = Field("", max_length=200)
    picture: AssetId | None = None
    handle: Handle = ""
    hours: tuple[int, ...] = Field((), max_length=20)
    member: int | None = None


class Channel(Model):
    """One way to reach the business. `hours` are ids of sets, none: the main ones; `subject` is of a mail
    alone.

    `template` is an RFC 6570 template with {handle} and perhaps {text} for a message link, and the address of
    a map for a map. `opens`: in a new tab, in the same, or asks for the visitor's words first.
    """

    version: Literal[1] = 1
    kind: Kind
    label: str = Field(min_length=1, max_length=60)
    icon: Icon | AssetId = "chat"
    colour: Colour | None = None
    template: Template | None = None
    handle: Handle = ""
    subject: Runs = ()
    text: Runs = ()
    people: tuple[ChannelPerson, ...] = Field((), max_length=20)
    pick: Literal["visitor", "first-reachable"] = "visitor"
    devices: tuple[Device, ...] = Field(("desktop", "phone"), min_length=1)
    hours: tuple[int, ...] = Field((), max_length=20)
    while_closed: Literal["show", "say", "hide"] = "say"
    opens: Literal["new", "same", "ask-first"] = "new"
    goal: bool = False
    gateway: int | None = None

    @model_validator(mode="before")
    @classmethod
    def _icon_of_its_kind(cls, data: object) -> object:
        if not isinstance(data, dict) or "icon" in data:
            return data
        kind = data.get("kind")
        return data | {"icon": ICONS[kind]} if isinstance(kind, str) and kind in ICONS else data

    @model_validator(mode="after")
    def _has_a_way(self) -> Self:
        if self.kind == "message-link" and (self.template is None or "handle" not in self.template):
            raise ValueError("a message link needs a template with a place for the handle")
        return self
