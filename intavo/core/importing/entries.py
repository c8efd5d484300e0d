"""Somebody in a file of people, whatever kind of file it is."""

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import datetime

from ..people import Address, email_address, phone_number

MOST_NOTE, MOST_TAGS, _MOST_OWN = 100_000, 200, 500


@dataclass(frozen=True, slots=True)
class Noted:
    """A note of a member's, as it was written down."""

    at: datetime
    by: str
    text: str


@dataclass(frozen=True, slots=True)
class Agreement:
    """What somebody agreed to, as it was written down."""

    name: str
    wording: str
    touchpoint: str
    revision: int
    page: str
    given_at: datetime
    confirmed_at: datetime | None
    withdrawn_at: datetime | None


@dataclass(frozen=True, slots=True)
class Entry:
    """Somebody in a file, by the first email address, else the first phone number.

    `more` are their further addresses; `agreed` is what a column on consent says (None: there is none);
    `agreements` what an export says of it, each by itself; `own` what has no place.
    """

    name: str
    email: Address | None
    phone: Address | None
    tags: tuple[str, ...] = ()
    agreed: bool | None = None
    note: str = ""
    own: tuple[tuple[str, str], ...] = ()
    more: tuple[Address, ...] = ()
    notes: tuple[Noted, ...] = ()
    agreements: tuple[Agreement, ...] = ()
    added: datetime | None = None


def entry_of(
    name: str,
    emails: Iterable[str],
    phones: Iterable[str],
    region: str,
    *,
    tags: Iterable[str] = (),
    agreed: bool | None = None,
    note: str = "",
    own: Iterable[tuple[str, str]] = (),
    notes: Iterable[Noted] = (),
) -> Entry:
    """Somebody, of what is written of them. Raises ValueError, in words for the owner, where that is nobody.

    A number that is none, and what is no address beside one that is, stays as a field of its own.
    """
    all_emails, all_phones = list(filter(None, emails)), list(filter(None, phones))
    if not all_emails and not all_phones:
        raise ValueError("There is neither an email address nor a phone number.")
    kept = list(own)
    first = email_address(all_emails[0]) if all_emails else None
    others, numbers = list[Address](), list[Address]()
    for text in all_emails[1:]:
        try:
            others.append(email_address(text))
        except ValueError:
            kept.append(("Email", text[:320]))
    for text in all_phones:
        try:
            numbers.append(phone_number(text, region))
        except ValueError:
            if first is None and text is all_phones[0]:
                raise
            kept.append(("Phone", text[:200]))
    labels = [" ".join(one.split())[:60] for one in tags]
    return Entry(
        " ".join(name.split())[:300],
        first,
        next(iter(numbers), None),
        tuple(dict.fromkeys(filter(None, labels)))[:MOST_TAGS],
        agreed,
        note.strip()[:MOST_NOTE],
        tuple(kept[:_MOST_OWN]),
        more=tuple(dict.fromkeys((*others, *numbers[1:]))),
        notes=tuple(notes),
    )
