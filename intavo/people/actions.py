"""Writes on people: found by their addresses or added, with what they did and agreed to."""

import hashlib
import json
from collections.abc import Iterable
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from django.db import IntegrityError, transaction

from intavo.accounts.actor import Actor
from intavo.core import people as rules
from intavo.core.rights import Right

from .models import Address, Consent, Person, TimelineEvent


@dataclass(frozen=True, slots=True)
class Arrived:
    """The person something belongs to, whether they are new, and with whom a merge is suggested."""

    person: Person
    new: bool
    suggest: int | None


def find_or_add(
    actor: Actor, *, email: rules.Address | None, phone: rules.Address | None, name: str, at: datetime
) -> Arrived:
    """The person with this email, else (without an email) with this phone, else somebody new.

    A blank never overwrites, and nobody is renamed by what is typed. Two requests at once with the
    same new email end in one person: the database refuses the second, which then finds the first.
    """
    actor.needs(Right.VISIT)
    business = actor.business_id
    by_email = _by_email(business, email)
    by_phone = _by_phone(business, phone)
    found = rules.match(_key(email), _key(phone), by_email, by_phone)
    if found.person is None:
        try:
            with transaction.atomic():
                person = Person.objects.create(business_id=business, name=name[:300], created_at=at)
                _add_addresses(person, email, phone)
            return Arrived(person, True, found.suggest)
        except IntegrityError:
            found = rules.match(_key(email), None, _by_email(business, email), ())
            if found.person is None:
                raise
    person = Person.objects.get(pk=found.person, business_id=business)
    kept = rules.filled(person.name, name)[:300]
    if kept != person.name:
        person.name = kept
        person.save(update_fields=["name"])
    # Whoever is found with an email is found by it, so only a phone can be new.
    _add_addresses(person, None, phone)
    return Arrived(person, False, found.suggest)


def _key(address: rules.Address | None) -> str | None:
    return address.key if address is not None else None


def _by_email(business: int, email: rules.Address | None) -> int | None:
    if email is None:
        return None
    found = Address.objects.filter(business_id=business, kind=Address.EMAIL, key=email.key)
    return found.values_list("person_id", flat=True).first()


def _by_phone(business: int, phone: rules.Address | None) -> list[rules.Card]:
    if phone is None:
        return []
    found = Address.objects.filter(business_id=business, kind=Address.PHONE, key=phone.key)
    return [rules.Card(person, phones=frozenset({phone.key})) for person in found.values_list("person_id", flat=True)]


def _add_addresses(person: Person, email: rules.Address | None, phone: rules.Address | None) -> None:
    for kind, address in ((Address.EMAIL, email), (Address.PHONE, phone)):
        if address is None:
            continue
        row = Address(
            business_id=person.business_id, person=person, kind=kind, key=address.key, shown=address.shown,
            domain=address.domain if kind == Address.EMAIL else "",
        )  # fmt: skip
        if kind == Address.EMAIL:
            row.save(force_insert=True)
        else:
            Address.objects.bulk_create([row], ignore_conflicts=True)


def add_event(actor: Actor, *, person_id: int, at: datetime, kind: str, data: dict[str, Any]) -> TimelineEvent:
    """Add to a person's timeline."""
    return TimelineEvent.objects.create(
        business_id=actor.business_id, person_id=person_id, at=at, kind=kind, member_id=actor.member_id, data=data
    )


def add_consents(
    actor: Actor, *, person_id: int, agreed: Iterable[tuple[str, str]], touchpoint: str, revision: int, page: str,
    at: datetime,
) -> None:  # fmt: skip
    """Keep what was agreed to, with its exact wording and a proof that outlives erasing."""
    actor.needs(Right.VISIT)
    for name, wording in agreed:
        facts = [person_id, name, wording, touchpoint, revision, page, at.isoformat()]
        Consent.objects.create(
            business_id=actor.business_id, person_id=person_id, name=name, wording=wording, touchpoint=touchpoint,
            revision=revision, page=page[:4000], given_at=at,
            proof=hashlib.sha256(json.dumps(facts).encode()).hexdigest(),
        )  # fmt: skip
