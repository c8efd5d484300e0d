"""What members do to a card: its name, its addresses, notes and tags; groups of people; tags everywhere."""

from django.db import IntegrityError, transaction

from intavo import clock
from intavo.accounts.actor import Actor, Refused
from intavo.accounts.models import Business, Member
from intavo.accounts.quotas import needs_room
from intavo.accounts.rows import insert
from intavo.accounts.scope import own
from intavo.core import people as rules
from intavo.core.quotas import QuotaKind
from intavo.core.rights import Right

from .actions import add_event, tag_person
from .effects import people_changed
from .models import Address, Group, Person, PersonTag

MOST_NAME, MOST_TAG = 300, 60


def add_person(actor: Actor, *, name: str, email: str, phone: str) -> tuple[int, bool]:
    """Put somebody on the list by hand, or find who has the address; says who, and whether they are new."""
    actor.needs(Right.FOLLOW_UP)
    errors: list[tuple[str, str]] = []
    found: dict[str, rules.Address] = {}
    region = Business.objects.values_list("region", flat=True).get(pk=actor.business_id)
    for field, text in (("email", email), ("phone", phone)):
        if text.strip():
            try:
                found[field] = (
                    rules.email_address(text) if field == "email" else rules.phone_number(text, region)
                )
            except ValueError as error:
                errors.append((field, str(error)))
    if not errors and not found and not name.strip():
        errors.append(("name", "Write a name, an email address or a phone number."))
    if errors:
        raise Refused(*errors)
    at = clock.now()
    with transaction.atomic():
        known = [
            Address.objects.filter(business_id=actor.business_id, kind=kind, key=one.key).first()
            for kind, one in found.items()
        ]
        there = next((one.person_id for one in known if one is not None), None)
        if there is not None:
            return there, False
        needs_room(actor, QuotaKind.PEOPLE, "name")
        person = Person.objects.create(business_id=actor.business_id, name=_name(name), created_at=at)
        for kind, one in found.items():
            _insert(actor, person.pk, kind, one)
        add_event(actor, person_id=person.pk, at=at, kind="added", data={})
    return person.pk, True


def _name(text: str) -> str:
    named = " ".join(text.split())
    if len(named) > MOST_NAME:
        raise Refused(("name", f"A name has at most {MOST_NAME} letters."))
    return named


def _insert(actor: Actor, person_id: int, kind: str, address: rules.Address) -> bool:
    domain = address.domain if kind == Address.EMAIL else ""
    given = {"kind": kind, "key": address.key, "shown": address.shown, "domain": domain}
    return (
        insert(Address, skip_doubles=True, business_id=actor.business_id, person_id=person_id, **given)
        is not None
    )


def rename(actor: Actor, *, person_id: int, name: str) -> None:
    """Another name; the timeline says who changed it and what it was."""
    actor.needs(Right.FOLLOW_UP)
    named = _name(name)
    with transaction.atomic():
        person = own(actor, Person, person_id, locked=True)
        if person.name == named:
            return
        before, person.name = person.name, named
        person.save(update_fields=["name"])
        _changed(actor, person_id, f"The name: {before or 'none'} → {named or 'none'}")


def add_address(actor: Actor, *, person_id: int, text: str) -> None:
    """Another email address or phone number. Refused with whose it is where somebody else has the email."""
    actor.needs(Right.FOLLOW_UP)
    own(actor, Person, person_id)
    kind = Address.EMAIL if "@" in text else Address.PHONE
    region = Business.objects.values_list("region", flat=True).get(pk=actor.business_id)
    try:
        one = rules.email_address(text) if kind == Address.EMAIL else rules.phone_number(text, region)
    except ValueError as error:
        raise Refused(("text", str(error))) from None
    with transaction.atomic():
        person = own(actor, Person, person_id, locked=True)
        rows = Address.objects.filter(business_id=actor.business_id, kind=kind, key=one.key)
        if kind == Address.EMAIL and (other := rows.exclude(person=person).select_related("person").first()):
            raise Refused(
                ("text", f"{other.person.name or 'Somebody else'} has this address: join the two cards.")
            )
        if _insert(actor, person.pk, kind, one):
            _changed(actor, person_id, f"Added {one.shown}")


def drop_address(actor: Actor, *, person_id: int, address_id: int) -> None:
    """Take an address off a card."""
    actor.needs(Right.FOLLOW_UP)
    with transaction.atomic():
        own(actor, Person, person_id, locked=True)
        row = own(actor, Address.objects.filter(person_id=person_id), address_id)
        row.delete()
        _changed(actor, person_id, f"Removed {row.shown}")


def write_note(actor: Actor, *, person_id: int, text: str) -> None:
    """Keep a note, which only members see."""
    actor.needs(Right.FOLLOW_UP)
    if not text.strip():
        raise Refused(("text", "Please write the note first."))
    own(actor, Person, person_id)
    add_event(actor, person_id=person_id, at=clock.now(), kind="noted", data={"text": text.strip()})
    people_changed.tell((actor, person_id))


def put_tag(actor: Actor, *, person_id: int, tag: str) -> None:
    """Put a tag of a member's own on a card."""
    own(actor, Person, person_id)
    if tag_person(actor, person_id=person_id, tag=_tag(tag), at=clock.now()):
        people_changed.tell((actor, person_id))


def _tag(text: str) -> str:
    named = " ".join(text.split())
    if not named or len(named) > MOST_TAG:
        raise Refused(("tag", f"A tag has between one and {MOST_TAG} letters."))
    return named


def rename_tag(actor: Actor, *, tag: str, name: str) -> int:
    """Call a tag otherwise everywhere; where a person has both, they are one. Says on how many cards."""
    actor.needs(Right.FOLLOW_UP)
    named = _tag(name)
    with transaction.atomic():
        rows = PersonTag.objects.select_for_update().filter(business_id=actor.business_id, tag=tag)
        count = len(rows)
        if named != tag:
            both = PersonTag.objects.filter(business_id=actor.business_id, tag=named).values_list(
                "person", flat=True
            )
            rows.filter(person__in=list(both)).delete()
            rows.update(tag=named)
            actor.noted("tag renamed", before=tag, name=named)
    return count


def drop_tag(actor: Actor, *, tag: str) -> int:
    """Take a tag away everywhere; says from how many cards."""
    actor.needs(Right.FOLLOW_UP)
    with transaction.atomic():
        count, _ = PersonTag.objects.filter(business_id=actor.business_id, tag=tag).delete()
        if count:
            actor.noted("tag removed", name=tag)
    return count


def _changed(actor: Actor, person_id: int, words: str) -> None:
    add_event(actor, person_id=person_id, at=clock.now(), kind="changed", data={"text": words})
    people_changed.tell((actor, person_id))


def keep_group(actor: Actor, *, name: str, wanted: rules.Filter, for_all: bool) -> Group:
    """Keep people under a name, for oneself or for all; the same name again takes its place."""
    actor.needs(Right.FOLLOW_UP)
    named = " ".join(name.split())
    if not named or len(named) > 60:
        raise Refused(("name", "A group needs a name of at most 60 letters."))
    whose = None if for_all or actor.member_id is None else own(actor, Member, actor.member_id)
    try:
        row, _ = Group.objects.update_or_create(
            business_id=actor.business_id,
            member=whose,
            name=named,
            defaults={"wanted": wanted.model_dump(mode="json", exclude_defaults=False)},
        )
    except IntegrityError as error:
        raise Refused(("name", "Somebody has just kept a group of this name.")) from error
    return row


def drop_group(actor: Actor, *, group_id: int) -> None:
    """Forget a group: one's own, or everybody's."""
    actor.needs(Right.FOLLOW_UP)
    row = own(actor, Group, group_id)
    if row.member_id not in {None, actor.member_id}:
        raise Group.DoesNotExist
    row.delete()
