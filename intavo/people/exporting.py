"""People as they go out: CSV, vCards and JSON Lines in a stream, and one of them with all that is known."""

import csv
import io
import json
from collections.abc import Callable, Iterator
from datetime import datetime
from typing import Any, Literal
from zoneinfo import ZoneInfo

from django.db.models import QuerySet

from intavo import clock
from intavo.accounts.actor import Actor
from intavo.accounts.queries import business_of
from intavo.accounts.scope import own
from intavo.core.csvsafe import harmless
from intavo.core.people.cards import WrittenCard, write_card
from intavo.core.people.reading import entry_words, told_time
from intavo.core.rights import Right

from .models import Address, Person
from .queries import timeline

Format = Literal["csv", "vcf", "jsonl"]
TYPES: dict[Format, str] = {
    "csv": "text/csv; charset=utf-8", "vcf": "text/vcard; charset=utf-8",
    "jsonl": "application/jsonl; charset=utf-8",
}  # fmt: skip
_AT_ONCE = 500
_TITLES = (
    "id",
    "name",
    "email",
    "other emails",
    "phone",
    "other phones",
    "tags",
    "agreed to",
    "withdrawn",
    "added",
)


def stream(rows: QuerySet[Person], form: Format) -> Iterator[str]:
    """People in a format, oldest first, a few hundred at a time, so that any number of them takes little
    memory.

    Source: RFC 4180 (CSV, with cells that no spreadsheet takes for a formula), RFC 6350 (vCard 4.0).
    """
    write = _WRITERS[form]
    if form == "csv":
        yield _csv(_TITLES)
    found = rows.order_by("pk").prefetch_related("addresses", "tags", "consents")
    for person in found.iterator(chunk_size=_AT_ONCE):
        yield write(person)


def exported(actor: Actor, *, form: Format, sentence: str) -> None:
    """Write into the log who took people out, which, and as what."""
    actor.needs(Right.FOLLOW_UP)
    actor.noted("people exported", people=sentence, format=form)


def as_data(person: Person) -> dict[str, Any]:
    """A person as data."""
    return {
        "id": person.pk, "name": person.name, "added": person.created_at.isoformat(),
        "emails": _shown(person, Address.EMAIL), "phones": _shown(person, Address.PHONE),
        "tags": [{"tag": one.tag, "given_by": one.given_by} for one in person.tags.all()],
        "consents": [
            {
                "name": one.name, "wording": one.wording, "touchpoint": one.touchpoint,
                "revision": one.revision, "page": one.page, "given_at": one.given_at.isoformat(),
                "confirmed_at": _time(one.confirmed_at), "withdrawn_at": _time(one.withdrawn_at),
                "proof": one.proof,
            }
            for one in person.consents.all()
        ],
    }  # fmt: skip


def everything(actor: Actor, *, person_id: int) -> dict[str, Any]:
    """All that is known of one person, with their whole timeline."""
    person = own(actor, Person.objects.prefetch_related("addresses", "tags", "consents"), person_id)
    return {
        **as_data(person),
        "timeline": [
            {
                "at": one.at.isoformat(), "kind": one.kind, "data": one.data,
                "by": one.said_by,
            }
            for one in timeline(actor, person.pk)
        ],
    }  # fmt: skip


def to_read(actor: Actor, person: dict[str, Any]) -> dict[str, Any]:
    """What `everything` says, in words and with times by the business's clock, for the page to read."""
    business = business_of(actor)
    zone = ZoneInfo(business.timezone)
    return {
        "person": person,
        "called": person["name"] or next(iter((*person["emails"], *person["phones"])), "Somebody"),
        "business": business.name, "at": told_time(clock.now().isoformat(), zone),
        "added": told_time(person["added"], zone), "consents": [
            {
                **one,
                "given": told_time(one["given_at"], zone),
                "withdrawn": told_time(one["withdrawn_at"] or "", zone),
            }
            for one in person["consents"]
        ],
        "happened": [
            {"at": told_time(one["at"], zone), "head": head, "by": one["by"], "pairs": pairs}
            for one in person["timeline"]
            for head, pairs in (entry_words(one["kind"], one["data"], zone),)
        ],
    }  # fmt: skip


def _shown(person: Person, kind: str) -> list[str]:
    return [one.shown for one in person.addresses.all() if one.kind == kind]


def _time(at: datetime | None) -> str | None:
    return at.isoformat() if at else None


def _csv(cells: tuple[str, ...]) -> str:
    out = io.StringIO()
    csv.writer(out).writerow([harmless(cell) for cell in cells])
    return out.getvalue()


def _row(person: Person) -> str:
    emails, phones = _shown(person, Address.EMAIL), _shown(person, Address.PHONE)
    agreed = [one for one in person.consents.all() if one.withdrawn_at is None]
    gone = [one for one in person.consents.all() if one.withdrawn_at is not None]
    return _csv(
        (
            str(person.pk),
            person.name,
            next(iter(emails), ""),
            "; ".join(emails[1:]),
            next(iter(phones), ""),
            "; ".join(phones[1:]),
            "; ".join(sorted(one.tag for one in person.tags.all())),
            "; ".join(f"{one.name} ({one.given_at:%Y-%m-%d})" for one in agreed),
            "; ".join(f"{one.name} ({one.withdrawn_at:%Y-%m-%d})" for one in gone),
            person.created_at.isoformat(),
        )
    )


def _card(person: Person) -> str:
    return write_card(
        WrittenCard(
            str(person.pk),
            person.name,
            tuple(_shown(person, Address.EMAIL)),
            tuple(_shown(person, Address.PHONE)),
            tuple(sorted(one.tag for one in person.tags.all())),
        )
    )


def _line(person: Person) -> str:
    return json.dumps(as_data(person), ensure_ascii=False) + "\n"


_WRITERS: dict[Format, Callable[[Person], str]] = {"csv": _row, "vcf": _card, "jsonl": _line}
