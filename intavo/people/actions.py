"""Writes on people: found by their addresses or added, with what they did and agreed to."""

import hashlib
import json
from collections.abc import Callable, Iterable
from dataclasses import dataclass
from datetime import datetime
from typing import Any, TypeVar

from django.db import IntegrityError
from psycopg.errors import ForeignKeyViolation

from intavo.accounts.actor import Actor
from intavo.accounts.rows import Row, insert, run
from intavo.core import people as rules
from intavo.core.rights import Right

from .models import Address, Consent, Person, PersonTag, TimelineEvent

T = TypeVar("T")


class Overtaken(Exception):
    """Another request has added the same email just before; begin the transaction anew."""


def unless_overtaken(do: Callable[[], T]) -> T:
    """What a transaction gives; begun anew, twice at most, where somebody was added just before, or where the
    card that it found was joined to another or erased meanwhile.
    """
    for left in (2, 1, 0):
        try:
            return do()
        except Overtaken:
            if not left:
                raise
        except IntegrityError as error:
            if not left or not isinstance(error.__cause__, ForeignKeyViolation):
                raise
    raise AssertionError("unreachable")


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
    if email is None:
        return _find_or_add_by_phone(business, phone, name, at)
    person, new = _find_or_add_by_email(business, email, name, at)
    suggest = rules.match(email.key, _key(phone), None if new else person, _by_phone(business, phone)).suggest
    if not new:
        _fill_in(person, name)
    # Whoever is found with an email is found by it, so only a phone can be new.
    _add_phone(business, person, phone)
    return Arrived(person, new, suggest)


def _find_or_add_by_phone(business: int, phone: rules.Address | None, name: str, at: datetime) -> Arrived:
    found = rules.match(None, _key(phone), None, _by_phone(business, phone))
    if found.person is not None:
        _fill_in(found.person, name)
        return Arrived(found.person, False, found.suggest)
    person = insert(Person, business_id=business, name=name[:300], created_at=at)
    assert person is not None
    _add_phone(business, person, phone)
    return Arrived(person, True, found.suggest)


def _fill_in(person: int, name: str) -> None:
    known = Person.objects.values_list("name", flat=True).get(pk=person)
    kept = rules.filled(known, name)[:300]
    if kept != known:
        Person.objects.filter(pk=person).update(name=kept)


# Found or added in one statement, since every answer takes this path. Where another has added the email since
# the statement began, it gives no row, and the caller's transaction begins anew.
_BY_EMAIL = """
WITH known AS (SELECT person_id FROM people_address WHERE business_id = %s AND kind = 'email' AND key = %s),
     added AS (INSERT INTO people_person (business_id, name, created_at)
               SELECT %s, %s, %s WHERE NOT EXISTS (SELECT FROM known) RETURNING id),
     address AS (INSERT INTO people_address (business_id, person_id, kind, key, shown, domain)
                 SELECT %s, id, 'email', %s, %s, %s FROM added ON CONFLICT DO NOTHING RETURNING person_id)
SELECT person_id, false FROM known UNION ALL SELECT person_id, true FROM address
"""


def _find_or_add_by_email(business: int, email: rules.Address, name: str, at: datetime) -> tuple[int, bool]:
    """The person with this email, and whether they are new; raises Overtaken."""
    person, address = (business, name[:300], at), (business, email.key, email.shown, email.domain)
    row = run(_BY_EMAIL, [business, email.key, *person, *address])
    if row is None:
        raise Overtaken
    return int(row[0]), bool(row[1])


def _key(address: rules.Address | None) -> str | None:
    return address.key if address is not None else None


def _by_phone(business: int, phone: rules.Address | None) -> list[rules.Card]:
    if phone is None:
        return []
    found = Address.objects.filter(business_id=business, kind=Address.PHONE, key=phone.key)
    return [
        rules.Card(person, phones=frozenset({phone.key}))
        for person in found.values_list("person_id", flat=True)
    ]


def _add_phone(business: int, person: int, phone: rules.Address | None) -> None:
    if phone is not None:
        given = {"kind": Address.PHONE, "key": phone.key, "shown": phone.shown, "domain": ""}
        insert(Address, skip_doubles=True, business_id=business, person_id=person, **given)


def _event(actor: Actor, person_id: int, at: datetime, kind: str, data: dict[str, Any]) -> dict[str, Any]:
    return {
        "business_id": actor.business_id, "person_id": person_id, "at": at, "kind": kind,
        "member_id": actor.member_id, "data": data,
    }  # fmt: skip


def add_event(actor: Actor, *, person_id: int, at: datetime, kind: str, data: dict[str, Any]) -> None:
    """Add to a person's timeline."""
    insert(TimelineEvent, **_event(actor, person_id, at, kind, data))


@dataclass(frozen=True, slots=True)
class Agreed:
    """What was agreed to: pairs of a name and its exact wording, in which revision, on which page, and when.

    `confirmed_at` is when the button behind the mail's link was pressed.
    """

    wordings: tuple[tuple[str, str], ...]
    touchpoint: str
    revision: int
    page: str
    at: datetime
    confirmed_at: datetime | None = None


def answer_rows(
    actor: Actor, *, person_id: int, at: datetime, kind: str, data: dict[str, Any], agreed: Agreed
) -> tuple[Row, ...]:
    """What somebody sent, for their timeline, and what they agreed to, with a proof that outlives erasing."""
    actor.needs(Right.VISIT)
    event = (TimelineEvent, _event(actor, person_id, at, kind, data))
    return event, *((Consent, _consent(actor, person_id, agreed, *one)) for one in agreed.wordings)


def _consent(actor: Actor, person_id: int, agreed: Agreed, name: str, wording: str) -> dict[str, Any]:
    facts = [person_id, name, wording, agreed.touchpoint, agreed.revision, agreed.page, agreed.at.isoformat()]
    facts += [agreed.confirmed_at.isoformat()] if agreed.confirmed_at else []
    return {
        "business_id": actor.business_id, "person_id": person_id, "name": name, "wording": wording,
        "touchpoint": agreed.touchpoint, "revision": agreed.revision, "page": agreed.page[:4000],
        "given_at": agreed.at, "confirmed_at": agreed.confirmed_at,
        "proof": hashlib.sha256(json.dumps(facts).encode()).hexdigest(),
    }  # fmt: skip


def add_tags(actor: Actor, *, person_id: int, tags: Iterable[str], given_by: str, at: datetime) -> None:
    """Put tags on a person; one that is there stays as it is."""
    for tag in tags:
        insert(
            PersonTag,
            skip_doubles=True,
            business_id=actor.business_id,
            person_id=person_id,
            tag=tag,
            given_by=given_by,
            given_at=at,
        )


def withdraw_consents(actor: Actor, *, person_id: int, at: datetime) -> int:
    """What a person agreed to holds no longer; the proof stays. Says how many were withdrawn."""
    actor.needs(Right.VISIT)
    agreed = Consent.objects.filter(business_id=actor.business_id, person_id=person_id, withdrawn_at=None)
    return agreed.update(withdrawn_at=at)


def by_email(business_id: int, key: str) -> int | None:
    """The person who has this email."""
    rows = Address.objects.filter(business_id=business_id, kind=Address.EMAIL, key=key)
    return rows.values_list("person_id", flat=True).first()


def tag_person(actor: Actor, *, person_id: int, tag: str, at: datetime) -> bool:
    """Put a tag of a member's own on a person; says whether it is new."""
    actor.needs(Right.FOLLOW_UP)
    rows = PersonTag.objects.filter(business_id=actor.business_id)
    _, new = rows.get_or_create(
        person_id=person_id,
        tag=tag,
        defaults={"business_id": actor.business_id, "given_by": "", "given_at": at},
    )
    return new


def untag_person(actor: Actor, *, person_id: int, tag: str) -> bool:
    """Take a tag off a person; says whether it was there."""
    actor.needs(Right.FOLLOW_UP)
    gone, _ = PersonTag.objects.filter(business_id=actor.business_id, person_id=person_id, tag=tag).delete()
    return gone > 0
