"""Talks as both sides read them."""

from collections.abc import Iterable
from typing import Literal, NotRequired

from typing_extensions import TypedDict

from intavo.accounts.models import Business
from intavo.core.replies import Told
from intavo.core.times import iso

from .files import PICTURES
from .models import Message, Talk


class Speaker(TypedDict):
    """Who of the business said something, or the business by its script."""

    name: str
    picture: str | None


class FileSaid(TypedDict):
    """A file in a conversation."""

    name: str
    href: str
    picture: bool


class _Said(TypedDict):
    n: int
    who: Speaker | None
    text: str
    at: str
    script: bool
    file: NotRequired[FileSaid]


_From = TypedDict("_From", {"from": Literal["us", "them"]})


class MessageSaid(_Said, _From):
    """Something said, by the visitor ("them") or the business ("us", `who`); `n` counts up, `at` in UTC."""


class ChoiceOffered(TypedDict):
    """An answer that can be chosen."""

    id: str
    label: str


class TalkNow(TypedDict):
    """What is new in a conversation. `asks`: what is asked for next ("email", "phone", "text").

    `says`: what is told by the hours. What may be missing is there where the whole is asked for, or something
    was said.
    """

    messages: list[MessageSaid]
    situation: str
    choices: NotRequired[list[ChoiceOffered]]
    asks: NotRequired[str | None]
    says: NotRequired[Told | None]
    typing: NotRequired[bool]
    read: NotRequired[int]
    goal: NotRequired[bool]
    handed: NotRequired[bool]


class TalkBegun(TalkNow):
    """A conversation that has begun, and where it is gone on with."""

    talk: str
    where: str


def message_data(row: Message, business: str, where: str) -> MessageSaid:
    """A message for the visitor: who of the business it is from, or the business by its script."""
    ours = row.source != Message.THEM
    who = (row.member.user.name or business) if row.member is not None else business
    said: MessageSaid = {
        "n": row.n, "from": "us" if ours else "them", "who": {"name": who, "picture": None} if ours else None,
        "text": row.text, "at": iso(row.at), "script": row.source == Message.SCRIPT,
    }  # fmt: skip
    if row.file:
        said["file"] = {
            "name": row.file["name"],
            "href": f"{where}/files/{row.file['key']}",
            "picture": row.file["type"] in PICTURES,
        }
    return said


def messages_data(rows: Iterable[Message], business: Business, where: str) -> list[MessageSaid]:
    """Messages in order; `where` is the address of their talk."""
    return [message_data(row, business.name, where) for row in rows]


def after(talk: Talk, n: int) -> list[Message]:
    """The messages of a talk after a number."""
    return list(talk.messages.select_related("member__user").filter(n__gt=n).order_by("n")[:500])
