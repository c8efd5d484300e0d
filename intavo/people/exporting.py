"""People as they go out: CSV, vCards and JSON Lines in a stream, and one of them with all that is known."""

import csv
import io
import json
from collections.abc import Iterator
from datetime import datetime
from typing import Any, Literal
from zoneinfo import ZoneInfo

from django.db.models import Prefetch, QuerySet

from intavo import clock
from intavo.accounts.actor import Actor
from intavo.accounts.queries import business_of
from intavo.accounts.scope import own
from intavo.core.csvsafe import harmless, one_cell
from intavo.core.importing import DATA_TITLE
from intavo.core.people.cards import WrittenCard, write_card
from intavo.core.people.reading import entry_words, told_time
from intavo.core.rights import Right

from .models import Address, Person, TimelineEvent
from .queries import timeline

Format = Literal["csv", "vcf", "jsonl"]
TYPES: dict[Format, str] = {
    "csv": "text/csv; charset=utf-8", "vcf": "text/vcard; charset=utf-8",
    "jsonl": "application/jsonl; charset=utf-8",
}  # fmt: skip
_AT_ONCE = 500
# What is brought in again is read by these titles (`intavo.core.importing`); the owner's own fields follow.
_TITLES = ("id", "name", "email", "other emails", "phone", "other phones", "tags", "notes",
           "agreed to", "withdrawn", "added", DATA_TITLE)  # fmt: skip
_MOST_FIELDS, _REST = 300, "other fields"


def stream(actor: Actor, rows: QuerySet[Person], form: Format) -> Iterator[str]:
    """People in a format, oldest first, a few hundred at a time, so that any number of them takes little
    memory. Brought in again they are whom they were.

    Source: RFC 4180 (CSV, with cells that no spreadsheet takes for a formula), RFC 6350 (vCard 4.0).
    """
    zone = ZoneInfo(business_of(actor).timezone)
    fields = _own_titles(rows) if form == "csv" else []
    if form == "csv":
        yield _csv((*_TITLES, *fields))
    told = TimelineEvent.objects.filter(kind__in=("noted", "imported")).select_related("member__user")
    found = rows.order_by("pk").prefetch_related(
        "addresses", "tags", "consents", Prefetch("events", told.order_by("at", "pk"), to_attr="told")
    )
    for person in found.iterator(chunk_size=_AT_ONCE):
        if form == "csv":
            yield _row(person, fields, zone)
        else:
            yield _card(person, zone) if form == "vcf" else _line(person)


def _own_titles(rows: QuerySet[Person]) -> list[str]:
    """What the owner's own fields are called, among some people, as they came."""
    events = TimelineEvent.objects.filter(person__in=rows.order_by().values("pk"), kind="imported")
    titles: dict[str, None] = {}
    for typed in events.order_by("pk").values_list("data__typed", flat=True).iterator(chunk_size=2000):
        titles |= dict.fromkeys(title for title, _ in typed or [])
        if len(titles) > _MOST_FIELDS:
            return [*list(titles)[:_MOST_FIELDS], _REST]
    return list(titles)


def exported(actor: Actor, *, form: Format, sentence: str) -> None:
    """Write into the log who took people out, which, and as what."""
    actor.needs(Right.EVERYBODY)
    actor.noted("people exported", people=sentence, format=form)


def as_data(person: Person) -> dict[str, Any]:
    """A person as data."""
    return {
        "id": person.pk, "name": person.name, "added": person.created_at.isoformat(),
        "emails": _shown(person, Address.EMAIL), "phones": _shown(person, Address.PHONE),
        "tags": [{"tag": one.tag, "given_by": one.given_by} for one in person.tags.all()],
        "notes": [
            {"at": one.at.isoformat(), "by": one.said_by, "text": one.data["text"]}
            for one in _told(person) if one.data.get("text")
        ],
        "fields": _fields(person),
        "consents": _consents(person),
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
        "called": person["name"]
        or next(iter((*person["emails"], *person["phones"])), f"Somebody no. {person['id']}"),
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


def _consents(person: Person) -> list[dict[str, Any]]:
    return [
        {
            "name": one.name,
            "wording": one.wording,
            "touchpoint": one.touchpoint,
            "revision": one.revision,
            "page": one.page,
            "given_at": one.given_at.isoformat(),
            "confirmed_at": _time(one.confirmed_at),
            "withdrawn_at": _time(one.withdrawn_at),
            "proof": one.proof,
        }
        for one in person.consents.all()
    ]


def _told(person: Person) -> list[TimelineEvent]:
    """The notes on somebody, and what came with them from elsewhere."""
    events = person.events.filter(kind__in=("noted", "imported")).select_related("member__user")
    read: list[TimelineEvent] | None = getattr(person, "told", None)
    return list(events.order_by("at", "pk")) if read is None else read


def _fields(person: Person) -> list[list[str]]:
    """The owner's own fields, as they came; of two that are the same, one."""
    pairs = [tuple(pair) for one in _told(person) for pair in one.data.get("typed") or ()]
    return [list(pair) for pair in dict.fromkeys(pairs)]


def _notes(person: Person, zone: ZoneInfo) -> list[str]:
    """The notes as one reads them: with the day and whose they are, where they were written here."""
    return [
        f"{one.at.astimezone(zone):%Y-%m-%d} {one.said_by}: {text}" if one.kind == "noted" else text
        for one in _told(person)
        if (text := one.data.get("text"))
    ]


def _beside(person: Person) -> str:
    """What a table or a card has no place of its own for, as data."""
    known = {"added": person.created_at.isoformat(), "consents": _consents(person)}
    return json.dumps(known, ensure_ascii=False)


def _row(person: Person, titles: list[str], zone: ZoneInfo) -> str:
    emails, phones = _shown(person, Address.EMAIL), _shown(person, Address.PHONE)
    agreed = [one for one in person.consents.all() if one.withdrawn_at is None]
    gone = [one for one in person.consents.all() if one.withdrawn_at is not None]
    own: dict[str, list[str]] = {}
    for title, text in _fields(person):
        there = title in titles and title != _REST
        own.setdefault(title if there else _REST, []).append(text if there else f"{title}: {text}")
    return _csv(
        (
            str(person.pk),
            person.name,
            next(iter(emails), ""),
            one_cell(emails[1:]),
            next(iter(phones), ""),
            one_cell(phones[1:]),
            one_cell(sorted(one.tag for one in person.tags.all())),
            "\n\n".join(_notes(person, zone)),
            "; ".join(f"{one.name} ({one.given_at:%Y-%m-%d})" for one in agreed),
            "; ".join(f"{one.name} ({one.withdrawn_at:%Y-%m-%d})" for one in gone),
            person.created_at.isoformat(),
            _beside(person),
            *("\n".join(own.get(title, [])) for title in titles),
        )
    )


def _card(person: Person, zone: ZoneInfo) -> str:
    return write_card(
        WrittenCard(
            str(person.pk),
            person.name,
            tuple(_shown(person, Address.EMAIL)),
            tuple(_shown(person, Address.PHONE)),
            tuple(sorted(one.tag for one in person.tags.all())),
            tuple(_notes(person, zone)),
            tuple((title, text) for title, text in _fields(person)),
            _beside(person),
        )
    )


def _line(person: Person) -> str:
    return json.dumps(as_data(person), ensure_ascii=False) + "\n"
