"""Talks as both sides read them."""

from collections.abc import Iterable
from datetime import UTC, datetime
from typing import Any

from intavo.accounts.models import Business

from .models import Message, Talk


def iso(at: datetime) -> str:
    """A time as the protocol writes it: UTC with a Z."""
    return at.astimezone(UTC).isoformat(timespec="milliseconds").replace("+00:00", "Z").replace(".000Z", "Z")


def message_data(row: Message, business: str, where: str) -> dict[str, Any]:
    """A message for the visitor: who of the business it is from, or the business by its script."""
    ours = row.source != Message.THEM
    who = (row.member.user.name or business) if row.member is not None else business
    said = {
        "n": row.n, "from": "us" if ours else "them", "who": {"name": who, "picture": None} if ours else None,
        "text": row.text, "at": iso(row.at), "script": row.source == Message.SCRIPT,
    }  # fmt: skip
    if row.file:
        said["file"] = {
            "name": row.file["name"], "href": f"{where}/files/{row.file['key']}",
            "picture": row.file["type"] != "application/pdf",
        }  # fmt: skip
    return said


def messages_data(rows: Iterable[Message], business: Business, where: str) -> list[dict[str, Any]]:
    """Messages in order; `where` is the address of their talk."""
    return [message_data(row, business.name, where) for row in rows]


def after(talk: Talk, n: int) -> list[Message]:
    """The messages of a talk after a number."""
    return list(talk.messages.select_related("member__user").filter(n__gt=n).order_by("n")[:500])
