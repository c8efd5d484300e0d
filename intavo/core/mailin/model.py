"""A mail as values."""

from dataclasses import dataclass
from datetime import datetime
from enum import StrEnum
from typing import NamedTuple

MOST_BYTES = 25 * 1024 * 1024
MOST_PARTS = 200


class TooBig(ValueError):
    """More than 25 MB, or more than 200 parts."""


class Kind(StrEnum):
    """What kind of mail it is; auto-reply by RFC 3834, bounce by RFC 3464, complaint by RFC 5965, receipt by
    RFC 8098.
    """

    MESSAGE = "message"
    AUTO_REPLY = "auto-reply"
    BOUNCE = "bounce"
    COMPLAINT = "complaint"
    RECEIPT = "receipt"


class Sender(NamedTuple):
    """An address as it was written, and the name before it; "" where there is none."""

    address: str
    name: str


@dataclass(frozen=True, slots=True)
class MailFile:
    """Something attached.

    `type` is read from its bytes, not from what the mail calls it; `risky` is one that could run, or a page:
    never shown, only kept for download.
    """

    name: str
    type: str
    content: bytes
    risky: bool = False


@dataclass(frozen=True, slots=True)
class Forwarded:
    """A mail that was sent on: who wrote it, of what, and what it says."""

    sender: Sender
    subject: str
    text: str


@dataclass(frozen=True, slots=True)
class Invitation:
    """A calendar's invitation, answer or cancellation (RFC 5546), by its `method` in capitals.

    `start` and `end` are instants with their zone; a whole day is from midnight to midnight in UTC. None
    where there is none that can be read.
    """

    method: str
    uid: str
    summary: str
    start: datetime | None
    end: datetime | None
    location: str
    organizer: str
    # To whom an answer goes, of whom it is asked (addresses), and which state of the invitation it is of.
    answer_to: str = ""
    asked: tuple[str, ...] = ()
    sequence: int = 0


@dataclass(frozen=True, slots=True)
class Received:
    """A mail that was read as far as it can be.

    Ids are as the headers have them, in their angle brackets; "" where there is none. `text` is the whole
    body, `said` what was written now, `quoted` the rest. A bounce has a `final_recipient` and says whether it
    is `permanent`; a complaint has the address that complained, where it says so. `about` are the ids of the
    mails that a report brings back. `reply_to` is where an answer is wanted, in the order of the heads.
    `results` are what hosts on its way say of where it is from.
    """

    message_id: str
    in_reply_to: str
    references: tuple[str, ...]
    sender: Sender
    to: tuple[str, ...]
    subject: str
    text: str
    said: str
    quoted: str
    files: tuple[MailFile, ...]
    kind: Kind
    final_recipient: str | None = None
    permanent: bool | None = None
    about: tuple[str, ...] = ()
    reply_to: tuple[Sender, ...] = ()
    forwarded: Forwarded | None = None
    invitation: Invitation | None = None
    results: tuple[str, ...] = ()
