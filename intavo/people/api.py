"""The console's API on a person's card: added, changed, joined and parted, exported and erased."""

import json
from datetime import datetime
from typing import Any, Literal

from django.http import HttpResponse
from django.shortcuts import render
from ninja import Router, Schema, Status

from intavo.accounts.auth import MemberAuth, MemberRequest
from intavo.accounts.scope import own

from . import cards, erasing, exporting, merging
from .actions import untag_person
from .models import Person
from .queries import same_phone, timeline

router = Router(tags=["people"], auth=MemberAuth())


class CardAddressOut(Schema):
    id: int
    kind: str
    shown: str


class CardTagOut(Schema):
    tag: str
    given_by: str
    given_at: datetime


class CardConsentOut(Schema):
    name: str
    wording: str
    page: str
    given_at: datetime
    confirmed_at: datetime | None
    withdrawn_at: datetime | None
    proof: str


class CardEventOut(Schema):
    id: int
    at: datetime
    kind: str
    by: str
    data: dict[str, Any]


class MergeOut(Schema):
    id: int
    name: str
    at: datetime


class CardOut(Schema):
    id: int
    name: str
    addresses: list[str]


class WholeCardOut(Schema):
    id: int
    name: str
    added_at: datetime
    addresses: list[CardAddressOut]
    tags: list[CardTagOut]
    consents: list[CardConsentOut]
    timeline: list[CardEventOut]
    merges: list[MergeOut]
    # Other cards that have one of these phone numbers.
    perhaps_same: list[CardOut]


class CalledIn(Schema):
    name: str


class WordsIn(Schema):
    text: str


class CardTagIn(Schema):
    tag: str
    on: bool = True


class JoinIn(Schema):
    gone_id: int
    name: Literal["kept", "gone"] = "kept"


class PairIn(Schema):
    other_id: int


class JoinPreviewOut(Schema):
    name: str
    names_clash: bool
    kept_name: str
    gone_name: str
    joins: list[str]
    doubles: list[str]


class JoinedOut(Schema):
    id: int
    merge: int


class SuggestedOut(Schema):
    one: CardOut
    other: CardOut
    why: str


class ErasingOut(Schema):
    goes: list[str]
    stays: str


def _person(request: MemberRequest, person_id: int) -> WholeCardOut:
    actor = request.auth
    person = own(actor, Person.objects.prefetch_related("addresses", "tags", "consents"), person_id)
    events = [
        CardEventOut(
            id=one.pk,
            at=one.at,
            kind=one.kind,
            data=one.data,
            by=one.said_by,
        )
        for one in timeline(actor, person.pk)
    ]
    return WholeCardOut(
        id=person.pk,
        name=person.name,
        added_at=person.created_at,
        addresses=[CardAddressOut.from_orm(one) for one in person.addresses.all()],
        tags=[CardTagOut.from_orm(one) for one in person.tags.order_by("tag")],
        consents=[CardConsentOut.from_orm(one) for one in person.consents.order_by("given_at", "pk")],
        timeline=events,
        merges=[
            MergeOut(id=one.pk, name=one.record["name"], at=one.at) for one in person.merges.order_by("-pk")
        ],
        perhaps_same=[_card(one) for one in same_phone(actor, person)],
    )


@router.get("/people/{person_id}", response=WholeCardOut)
def one(request: MemberRequest, person_id: int) -> WholeCardOut:
    """A person with everything that is known; one whose card was joined with another is found under it."""
    return _person(request, merging.now_called(request.auth, person_id))


@router.put("/people/{person_id}/name", response=WholeCardOut)
def name(request: MemberRequest, person_id: int, body: CalledIn) -> WholeCardOut:
    """Call somebody otherwise."""
    cards.rename(request.auth, person_id=person_id, name=body.name)
    return _person(request, person_id)


@router.post("/people/{person_id}/addresses", response=WholeCardOut)
def add_address(request: MemberRequest, person_id: int, body: WordsIn) -> WholeCardOut:
    """Another address of theirs."""
    cards.add_address(request.auth, person_id=person_id, text=body.text)
    return _person(request, person_id)


@router.delete("/people/{person_id}/addresses/{address_id}", response=WholeCardOut)
def drop_address(request: MemberRequest, person_id: int, address_id: int) -> WholeCardOut:
    """Take an address off."""
    cards.drop_address(request.auth, person_id=person_id, address_id=address_id)
    return _person(request, person_id)


@router.post("/people/{person_id}/note", response=WholeCardOut)
def note(request: MemberRequest, person_id: int, body: WordsIn) -> WholeCardOut:
    """Keep a note, which only members see."""
    cards.write_note(request.auth, person_id=person_id, text=body.text)
    return _person(request, person_id)


@router.post("/people/{person_id}/tag", response=WholeCardOut)
def tag(request: MemberRequest, person_id: int, body: CardTagIn) -> WholeCardOut:
    """Put a tag on, or take it off."""
    if body.on:
        cards.put_tag(request.auth, person_id=person_id, tag=body.tag)
    else:
        own(request.auth, Person, person_id)
        untag_person(request.auth, person_id=person_id, tag=body.tag)
    return _person(request, person_id)


@router.post("/people/{person_id}/join-preview", response=JoinPreviewOut)
def join_preview(request: MemberRequest, person_id: int, body: JoinIn) -> JoinPreviewOut:
    """What joining another card with this one does; nothing is changed."""
    found = merging.preview(request.auth, kept_id=person_id, gone_id=body.gone_id, name=body.name)
    made, gone = found.made, found.gone
    joins = [one.shown for one in sorted(gone.addresses - made.double_addresses, key=lambda one: one.id)]
    joins += [f"the tag “{one.tag}”" for one in sorted(gone.tags - made.double_tags, key=lambda one: one.tag)]
    rows = len(gone.rows)
    joins += [f"{rows} entries and pieces of work" if rows != 1 else "one entry"] if rows else []
    doubles = [one.shown for one in made.double_addresses] + [
        f"the tag “{one.tag}”" for one in made.double_tags
    ]
    return JoinPreviewOut(
        name=made.card.name,
        names_clash=made.names_clash,
        kept_name=made.kept_name,
        gone_name=gone.name,
        joins=joins,
        doubles=sorted(doubles),
    )


@router.post("/people/{person_id}/join", response=JoinedOut)
def join(request: MemberRequest, person_id: int, body: JoinIn) -> JoinedOut:
    """Join another card with this one."""
    row = merging.merge(request.auth, kept_id=person_id, gone_id=body.gone_id, name=body.name)
    return JoinedOut(id=row.kept_id, merge=row.pk)


@router.post("/merges/{merge_id}/undo", response=CardOut)
def part(request: MemberRequest, merge_id: int) -> CardOut:
    """Make two cards of one again; says the other."""
    return _card(merging.undo_merge(request.auth, merge_id=merge_id))


def _card(person: Person) -> CardOut:
    return CardOut(id=person.pk, name=person.name, addresses=[one.shown for one in person.addresses.all()])


@router.get("/people-suggested", response=list[SuggestedOut])
def suggested(request: MemberRequest) -> list[SuggestedOut]:
    """Cards that are perhaps of one person."""
    return [
        SuggestedOut(one=_card(pair.one), other=_card(pair.other), why=pair.why)
        for pair in merging.suggestions(request.auth)
    ]


@router.post("/people/{person_id}/not-one", response={204: None})
def not_one(request: MemberRequest, person_id: int, body: PairIn) -> Status[None]:
    """Two cards are not of one person."""
    merging.not_one(request.auth, one_id=person_id, other_id=body.other_id)
    return Status(204, None)


@router.get("/people/{person_id}/goes", response=ErasingOut)
def goes(request: MemberRequest, person_id: int) -> ErasingOut:
    """What erasing somebody takes, and what stays."""
    found = erasing.what_goes(request.auth, person_id=person_id)
    return ErasingOut(goes=found.goes, stays=found.stays)


@router.delete("/people/{person_id}", response={202: None})
def erase(request: MemberRequest, person_id: int) -> Status[None]:
    """Have somebody erased; cannot be undone."""
    erasing.erase(request.auth, person_id=person_id)
    return Status(202, None)


@router.get("/people/{person_id}/export")
def export_one(
    request: MemberRequest, person_id: int, form: Literal["json", "page"] = "json"
) -> HttpResponse:
    """All that is known of one person, as data or as a page to read."""
    exporting.exported(request.auth, form="jsonl", sentence="one person")
    found = exporting.everything(request.auth, person_id=person_id)
    if form == "json":
        response = HttpResponse(
            json.dumps(found, ensure_ascii=False, indent=1), content_type="application/json"
        )
        response["Content-Disposition"] = f'attachment; filename="person-{person_id}.json"'
        return response
    return render(request, "people/person.html", exporting.to_read(request.auth, found))
