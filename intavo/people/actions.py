"""Writes on people: found by their addresses or added, with what they did and agreed to."""

import hashlib
import json
from collections.abc import Iterable
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from django.db import connection

from intavo.accounts.actor import Actor
from intavo.accounts.rows import insert
from intavo.core import people as rules
from intavo.core.rights import Right

from .models import Address, Consent, Person, PersonTag, TimelineEvent


class Overtaken(Exception):
    """Another request has added the same email just before; begin the transaction anew."""


@dataclass(frozen=True, slots=True)
class Arrived:
    """The person something belongs to, whether they are new, and with whom a merge is suggested."""

    person: int
    new: bool
    suggest: int | None


def find_or_add(
    actor: Actor, *, email: rules.Address | None, phone: rules.Address | None, name: str, at: datetime
) -> Arrived:
    """The person with this email, else (without an email) with this phone, else somebody new.

    A blank never overwrites, and nobody is renamed by what is typed. Of two requests at once with the
    same new email the database refuses the second with Overtaken: its transaction has to begin anew, and
    then finds the first.
    """
    actor.needs(Right.VISIT)
    business = actor.business_id
    by_email = _by_email(business, email)
    by_phone = _by_phone(business, phone)
    found = rules.match(_key(email), _key(phone), by_email, by_phone)
    if found.person is None:
        added = _add(business, email, phone, name, at)
        if added is None:
            raise Overtaken
        return Arrived(added, True, found.suggest)
    known = Person.objects.values_list("name", flat=True).get(pk=found.person, business_id=business)
    kept = rules.filled(known, name)[:300]
    if kept != known:
        Person.objects.filter(pk=found.person).update(name=kept)
    # Whoever is found with an email is found by it, so only a phone can be new.
    _add_phone(business, found.person, phone)
    return Arrived(found.person, False, found.suggest)


def _add(
    business: int, email: rules.Address | None, phone: rules.Address | None, name: str, at: datetime
) -> int | None:
    """Somebody new; None if another request has added the same email just before."""
    if email is None:
        person = insert(Person, business_id=business, name=name[:300], created_at=at)
    else:
        with connection.cursor() as cursor:
            cursor.execute(_NEW, [business, name[:300], at, business, email.key, email.shown, email.domain])
            row = cursor.fetchone()
        person = int(row[0]) if row else None
    if person is None:
        return None
    _add_phone(business, person, phone)
    return person


# Person and email in one statement; where somebody has the email already, nothing is kept: the caller's
# transaction begins anew.
_NEW = """
WITH added AS (INSERT INTO people_person (business_id, name, created_at) VALUES (%s, %s, %s) RETURNING id)
INSERT INTO people_address (business_id, person_id, kind, key, shown, domain)
SELECT %s, id, 'email', %s, %s, %s FROM added ON CONFLICT DO NOTHING RETURNING person_id
"""


def _key(address: rules.Address | None) -> str | None:
    return address.key if address is not None else None


# Plain, since every answer takes this path.
_BY_EMAIL = "SELECT person_id FROM people_address WHERE business_id = %s AND kind = 'email' AND key = %s"


def _by_email(business: int, email: rules.Address | None) -> int | None:
    if email is None:
        return None
    with connection.cursor() as cursor:
        cursor.execute(_BY_EMAIL, [business, email.key])
        row = cursor.fetchone()
    return int(row[0]) if row else None


def _by_phone(business: int, phone: rules.Address | None) -> list[rules.Card]:
    if phone is None:
        return []
    found = Address.objects.filter(business_id=business, kind=Address.PHONE, key=phone.key)
    return [rules.Card(person, phones=frozenset({phone.key})) for person in found.values_list("person_id", flat=True)]


def _add_phone(business: int, person: int, phone: rules.Address | None) -> None:
    if phone is not None:
        given = {"kind": Address.PHONE, "key": phone.key, "shown": phone.shown, "domain": ""}
        insert(Address, skip_doubles=True, business_id=business, person_id=person, **given)


def add_event(actor: Actor, *, person_id: int, at: datetime, kind: str, data: dict[str, Any]) -> None:
    """Add to a person's timeline."""
    insert(
        TimelineEvent, business_id=actor.business_id, person_id=person_id, at=at, kind=kind,
        member_id=actor.member_id, data=data,
    )  # fmt: skip


def add_consents(
    actor: Actor, *, person_id: int, agreed: Iterable[tuple[str, str]], touchpoint: str, revision: int, page: str,
    at: datetime, confirmed_at: datetime | None = None,
) -> None:  # fmt: skip
    """Keep what was agreed to, with its exact wording and a proof that outlives erasing.

    `confirmed_at` is when the button behind the mail's link was pressed.
    """
    actor.needs(Right.VISIT)
    for name, wording in agreed:
        facts = [person_id, name, wording, touchpoint, revision, page, at.isoformat()]
        facts += [confirmed_at.isoformat()] if confirmed_at else []
        insert(
            Consent,
            business_id=actor.business_id,
            person_id=person_id,
            name=name,
            wording=wording,
            touchpoint=touchpoint,
            revision=revision,
            page=page[:4000],
            given_at=at,
            confirmed_at=confirmed_at,
            proof=hashlib.sha256(json.dumps(facts).encode()).hexdigest(),
        )


def add_tags(actor: Actor, *, person_id: int, tags: Iterable[str], given_by: str, at: datetime) -> None:
    """Put tags on a person; one that is there stays as it is."""
    for tag in tags:
        insert(
            PersonTag, skip_doubles=True, business_id=actor.business_id, person_id=person_id, tag=tag,
            given_by=given_by, given_at=at,
        )  # fmt: skip
