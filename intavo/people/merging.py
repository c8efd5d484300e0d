"""Two cards of one person made one, and made two again: the values of the core over rows of every app.

Every row of any app that belongs to a person goes along by itself; what cannot stand twice on one card is
told apart here (addresses, tags) or by the app above (`effects.people_merged`).
"""

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import datetime
from typing import Any, Literal

from django.db import models, transaction
from django.db.models import Count

from intavo import clock
from intavo.accounts.actor import Actor, Refused
from intavo.accounts.rows import insert
from intavo.accounts.scope import own
from intavo.core import people as rules
from intavo.core.rights import Right

from .actions import add_event
from .effects import Merging, people_held, people_merged, people_split
from .models import Address, Merge, NotOne, Person, PersonTag

MOST_SUGGESTED = 50


def _theirs() -> Iterator[tuple[str, type[models.Model], str]]:
    """Every model whose rows belong to a person and just go along: its label, itself, and the field."""
    for relation in Person._meta.related_objects:
        model = relation.related_model
        if model not in {Address, PersonTag, Merge, NotOne} and not isinstance(model, str):
            yield model._meta.label, model, relation.field.name


def card_of(person: Person) -> rules.CardValue:
    """A person's card as a value."""
    rows: set[tuple[str, int]] = set()
    for label, model, field in _theirs():
        rows |= {
            (label, pk)
            for pk in model._default_manager.filter(**{field: person}).values_list("pk", flat=True)
        }
    return rules.CardValue(
        person.pk,
        person.name,
        person.created_at,
        frozenset(rules.AddressValue(one.pk, one.kind, one.key, one.shown) for one in person.addresses.all()),
        frozenset(rules.TagValue(one.pk, one.tag, one.given_by) for one in person.tags.all()),
        frozenset(rows),
    )


@dataclass(frozen=True, slots=True)
class Preview:
    """What a merge does: the two cards, and what becomes of them."""

    kept: rules.CardValue
    gone: rules.CardValue
    made: rules.Merged


def preview(actor: Actor, *, kept_id: int, gone_id: int, name: Literal["kept", "gone"] = "kept") -> Preview:
    """What joins, what clashes, and which value stays; nothing is changed. Refused for one and the same."""
    actor.needs(Right.FOLLOW_UP)
    return _preview(actor, kept_id, gone_id, name)


def _preview(actor: Actor, kept_id: int, gone_id: int, name: Literal["kept", "gone"]) -> Preview:
    kept, gone = (own(actor, Person, one) for one in (kept_id, gone_id))
    if kept.pk == gone.pk:
        raise Refused(("gone_id", "This is one card already."))
    ours, theirs = card_of(kept), card_of(gone)
    return Preview(ours, theirs, rules.merged(ours, theirs, name))


def merge(actor: Actor, *, kept_id: int, gone_id: int, name: Literal["kept", "gone"] = "kept") -> Merge:
    """Make two cards one; everything of both is on the one that is kept. Can be undone at any time."""
    actor.needs(Right.FOLLOW_UP)
    return join_cards(actor, kept_id=kept_id, gone_id=gone_id, name=name)


def join_cards(actor: Actor, *, kept_id: int, gone_id: int, name: Literal["kept", "gone"] = "kept") -> Merge:
    """The same, also where it comes of what a visitor did."""
    actor.needs(Right.VISIT if actor.member_id is None else Right.FOLLOW_UP)
    with transaction.atomic():
        # Held fast in one order, so that of two merges at once the second sees what the first made: what
        # others may hold, then the cards, on which nothing new can hang then.
        people_held.tell(Merging(actor, kept_id, gone_id))
        for one in sorted({kept_id, gone_id}):
            own(actor, Person, one, locked=True)
        made = _preview(actor, kept_id, gone_id, name).made
        kept, gone = own(actor, Person, kept_id), own(actor, Person, gone_id)
        told = Merging(actor, kept.pk, gone.pk)
        people_merged.tell(told)
        record = _recorded(made, gone, told)
        for label, model, field in _theirs():
            ids = [pk for known, pk in made.gone.rows if known == label]
            model._default_manager.filter(pk__in=ids).update(**{field: kept})
        gone.addresses.filter(pk__in=[one.id for one in made.double_addresses]).delete()
        gone.tags.filter(pk__in=[one.id for one in made.double_tags]).delete()
        gone.addresses.update(person=kept)
        gone.tags.update(person=kept)
        Merge.objects.filter(kept=gone).update(kept=kept)
        kept.name, kept.created_at = made.card.name, made.card.created_at
        kept.save(update_fields=["name", "created_at"])
        gone.delete()
        at = clock.now()
        row = Merge.objects.create(
            business_id=actor.business_id,
            kept=kept,
            gone_id=gone_id,
            at=at,
            member_id=actor.member_id,
            record=record,
        )
        add_event(
            actor, person_id=kept.pk, at=at, kind="joined", data={"merge": row.pk, "name": made.gone.name}
        )
        actor.noted("cards joined", cards=2)
    return row


def _recorded(merged: rules.Merged, gone: Person, merging: Merging) -> dict[str, Any]:
    rows: dict[str, list[int]] = {}
    for label, pk in sorted(merged.gone.rows):
        rows.setdefault(label, []).append(pk)
    return {
        "kept_name": merged.kept_name, "made_name": merged.card.name,
        "kept_created_at": merged.kept_created_at.isoformat(),
        "name": gone.name, "created_at": gone.created_at.isoformat(), "rows": rows,
        "addresses": [one.pk for one in gone.addresses.all()], "tags": [one.pk for one in gone.tags.all()],
        "double_addresses": list(
            gone.addresses.filter(pk__in=[one.id for one in merged.double_addresses]).values(
                "id", "kind", "key", "shown", "domain"
            )
        ),
        "double_tags": [
            {**one, "given_at": one["given_at"].isoformat()}
            for one in gone.tags.filter(pk__in=[one.id for one in merged.double_tags]).values(
                "id", "tag", "given_by", "given_at"
            )
        ],
        "apps": merging.record,
    }  # fmt: skip


def undo_merge(actor: Actor, *, merge_id: int) -> Person:
    """Make one card two again; what came since stays with the kept one. Says the other, which has its id
    again.
    """
    actor.needs(Right.FOLLOW_UP)
    with transaction.atomic():
        row = own(actor, Merge.objects.select_related("kept"), merge_id, locked=True)
        kept, record = own(actor, Person, row.kept_id, locked=True), row.record
        insert(
            Person,
            id=row.gone_id,
            business_id=actor.business_id,
            name=record["name"],
            created_at=datetime.fromisoformat(record["created_at"]),
        )
        gone = Person.objects.get(pk=row.gone_id)
        for label, model, field in _theirs():
            ids = record["rows"].get(label, [])
            model._default_manager.filter(pk__in=ids, **{field: kept}).update(**{field: gone})
        kept.addresses.filter(pk__in=record["addresses"]).update(person=gone)
        kept.tags.filter(pk__in=record["tags"]).update(person=gone)
        for one in record["double_addresses"]:
            insert(Address, skip_doubles=True, business_id=actor.business_id, person_id=gone.pk, **one)
        for one in record["double_tags"]:
            given = {**one, "given_at": datetime.fromisoformat(one["given_at"])}
            insert(PersonTag, skip_doubles=True, business_id=actor.business_id, person_id=gone.pk, **given)
        if kept.name == record["made_name"]:
            kept.name = record["kept_name"]
        kept.created_at = datetime.fromisoformat(record["kept_created_at"])
        kept.save(update_fields=["name", "created_at"])
        people_split.tell(Merging(actor, kept.pk, gone.pk, record["apps"]))
        kept.events.filter(kind="joined", data__merge=row.pk).delete()
        row.delete()
        actor.noted("cards parted", cards=2)
    return gone


def now_called(actor: Actor, person_id: int) -> int:
    """The card on which somebody is now: their own, or the one that theirs was joined with."""
    for _ in range(20):
        if Person.objects.filter(business_id=actor.business_id, pk=person_id).exists():
            return person_id
        row = Merge.objects.filter(business_id=actor.business_id, gone_id=person_id).order_by("-pk").first()
        if row is None:
            break
        person_id = row.kept_id
    raise Person.DoesNotExist


@dataclass(frozen=True, slots=True)
class Suggested:
    """Two cards that are perhaps of one person, and why."""

    one: Person
    other: Person
    why: str


def suggestions(actor: Actor) -> list[Suggested]:
    """Pairs of cards that share a phone number, the newest first, less those of which somebody said no."""
    actor.needs(Right.EVERYBODY)
    shared = (
        Address.objects.filter(business_id=actor.business_id, kind=Address.PHONE)
        .values("key")
        .annotate(people=Count("person", distinct=True))
        .filter(people__gte=2)
        .order_by("-key")
        .values_list("key", flat=True)[:MOST_SUGGESTED]
    )
    owners: dict[str, list[int]] = {}
    rows = Address.objects.filter(business_id=actor.business_id, kind=Address.PHONE, key__in=list(shared))
    for key, person in rows.order_by("person").values_list("key", "person"):
        owners.setdefault(key, []).append(person)
    phones: dict[int, set[str]] = {}
    for key, people in owners.items():
        for person in people[:10]:
            phones.setdefault(person, set()).add(key)
    cards = [rules.Card(person, phones=frozenset(keys)) for person, keys in phones.items()]
    no = set(NotOne.objects.filter(business_id=actor.business_id).values_list("one_id", "other_id"))
    pairs = [pair for pair in rules.suggested_merges(cards) if tuple(sorted(pair)) not in no][:MOST_SUGGESTED]
    known = (
        Person.objects.filter(business_id=actor.business_id)
        .prefetch_related("addresses")
        .in_bulk([one for pair in pairs for one in pair])
    )
    return [
        Suggested(known[min(pair)], known[max(pair)], "the same phone number") for pair in reversed(pairs)
    ]


def not_one(actor: Actor, *, one_id: int, other_id: int) -> None:
    """Say that two cards are not of one person; they are suggested no longer."""
    actor.needs(Right.FOLLOW_UP)
    first, second = sorted((one_id, other_id))
    for person in (first, second):
        own(actor, Person, person)
    if first == second:
        raise Refused(("other_id", "This is one card."))
    NotOne.objects.get_or_create(one_id=first, other_id=second, defaults={"business_id": actor.business_id})
