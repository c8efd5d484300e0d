"""The console's API on people: who is sought, their cards, joined and parted, out and erased."""

import json
import re
from datetime import datetime
from typing import Any, Literal
from zoneinfo import ZoneInfo

from django.db.models import Count, OuterRef, Q, QuerySet, Subquery
from django.http import HttpResponse, StreamingHttpResponse
from django.shortcuts import render
from ninja import Router, Schema, Status
from pydantic import ValidationError

from intavo import clock
from intavo.accounts.actor import Actor, Refused
from intavo.accounts.auth import MemberAuth, MemberRequest
from intavo.accounts.models import Business
from intavo.accounts.scope import own
from intavo.core import people as rules
from intavo.core.people.seeking import THEIRS
from intavo.core.refusals import wrongs

from . import cards, erasing, exporting, merging
from .actions import untag_person
from .models import Consent, Group, Person, PersonTag, TimelineEvent
from .queries import first_page, same_phone, timeline
from .seeking import sought

router = Router(tags=["people"], auth=MemberAuth())
PAGE = 50
_ID = re.compile(r"[0-9]{1,18}")


class SoughtOut(Schema):
    id: int
    name: str
    email: str
    phone: str
    tags: list[str]
    agreed: bool
    added_at: datetime
    last_at: datetime | None
    last_kind: str


class PeopleOut(Schema):
    people: list[SoughtOut]
    count: int
    sentence: str
    after: str | None


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


class AddPersonIn(Schema):
    name: str = ""
    email: str = ""
    phone: str = ""


class AddedOut(Schema):
    id: int
    new: bool


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


class GroupOut(Schema):
    id: int
    name: str
    for_all: bool
    wanted: dict[str, Any]
    sentence: str


class GroupIn(Schema):
    name: str
    wanted: rules.Filter
    for_all: bool = False


class CountedOut(Schema):
    tag: str
    people: int


class ChangedOut(Schema):
    people: int


def _zone(actor: Actor) -> ZoneInfo:
    return ZoneInfo(Business.objects.values_list("timezone", flat=True).get(pk=actor.business_id))


def _filter(text: str) -> rules.Filter:
    """A filter as it stands in an address: JSON, or nothing for everybody."""
    if not text:
        return rules.Filter()
    try:
        return rules.Filter.model_validate(json.loads(text))
    except ValidationError as error:
        found = wrongs(error.errors(), whole="wanted", place=lambda loc: ".".join(map(str, ("wanted", *loc))))
        raise Refused(*found) from error
    except (ValueError, RecursionError) as error:
        raise Refused(("wanted", "This is not a filter.")) from error


def _rows(actor: Actor, wanted: rules.Filter, q: str) -> QuerySet[Person]:
    if q.strip():
        text = rules.Worded(text=q.strip()[:100])
        both = wanted.conditions if not wanted.any else ()
        rows = sought(actor.business_id, rules.Filter(conditions=(*both, text)), clock.now(), _zone(actor))
        if wanted.any:
            rows = rows.filter(pk__in=sought(actor.business_id, wanted, clock.now(), _zone(actor)).values("pk"))
        return rows
    return sought(actor.business_id, wanted, clock.now(), _zone(actor))


def _row(person: Person) -> SoughtOut:
    addresses = list(person.addresses.all())
    first = {kind: next((one.shown for one in addresses if one.kind == kind), "") for kind in ("email", "phone")}
    return SoughtOut(
        id=person.pk, name=person.name, email=first["email"], phone=first["phone"],
        tags=sorted(one.tag for one in person.tags.all()),
        agreed=any(one.withdrawn_at is None for one in person.consents.all()), added_at=person.created_at,
        last_at=getattr(person, "last_at", None), last_kind=getattr(person, "last_kind", None) or "",
    )  # fmt: skip


@router.get("/people", response=PeopleOut)
def people(request: MemberRequest, wanted: str = "", q: str = "", after: str = "") -> PeopleOut:
    """One page of people, the newest first, as far as a filter seeks them; `after` is the key of the page before."""
    actor, found = request.auth, _filter(wanted)
    rows = _rows(actor, found, q)
    count = rows.count() if after or not (found.conditions or q.strip()) else None
    if after:
        added, _, last = after.partition("|")
        try:
            at = datetime.fromisoformat(added)
        except ValueError:
            at = None
        if at is None or at.tzinfo is None or not _ID.fullmatch(last):
            raise Refused(("after", "This is not where a page of people ends."))
        rows = rows.filter(Q(created_at__lt=at) | Q(created_at=at, pk__lt=int(last)))
    if count is None:
        page, count = first_page(rows, PAGE + 1)
    else:
        page = list(rows.order_by("-created_at", "-pk").values_list("pk", flat=True)[: PAGE + 1])
    theirs = TimelineEvent.objects.filter(person=OuterRef("pk"), kind__in=THEIRS).order_by("-at", "-id")
    shown = (
        Person.objects.filter(pk__in=page[:PAGE])
        .annotate(last_at=Subquery(theirs.values("at")[:1]), last_kind=Subquery(theirs.values("kind")[:1]))
        .prefetch_related("addresses", "tags", "consents")
        .order_by("-created_at", "-pk")
    )
    out = [_row(one) for one in shown]
    key = f"{out[-1].added_at.isoformat()}|{out[-1].id}" if len(page) > PAGE else None
    return PeopleOut(people=out, count=count, sentence=rules.filter_sentence(found), after=key)


@router.post("/people", response={201: AddedOut})
def add(request: MemberRequest, body: AddPersonIn) -> Status[AddedOut]:
    """Put somebody on the list by hand."""
    person, new = cards.add_person(request.auth, name=body.name, email=body.email, phone=body.phone)
    return Status(201, AddedOut(id=person, new=new))


def _person(request: MemberRequest, person_id: int) -> WholeCardOut:
    actor = request.auth
    person = own(actor, Person.objects.prefetch_related("addresses", "tags", "consents"), person_id)
    events = [
        CardEventOut(
            id=one.pk, at=one.at, kind=one.kind, data=one.data,
            by=one.said_by,
        )
        for one in timeline(actor, person.pk)
    ]  # fmt: skip
    return WholeCardOut(
        id=person.pk, name=person.name, added_at=person.created_at,
        addresses=[CardAddressOut.from_orm(one) for one in person.addresses.all()],
        tags=[CardTagOut.from_orm(one) for one in person.tags.order_by("tag")],
        consents=[CardConsentOut.from_orm(one) for one in person.consents.order_by("given_at", "pk")], timeline=events,
        merges=[MergeOut(id=one.pk, name=one.record["name"], at=one.at) for one in person.merges.order_by("-pk")],
        perhaps_same=[_card(one) for one in same_phone(actor, person)],
    )  # fmt: skip


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
    doubles = [one.shown for one in made.double_addresses] + [f"the tag “{one.tag}”" for one in made.double_tags]
    return JoinPreviewOut(
        name=made.card.name, names_clash=made.names_clash, kept_name=made.kept_name, gone_name=gone.name, joins=joins,
        doubles=sorted(doubles),
    )  # fmt: skip


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
def export_one(request: MemberRequest, person_id: int, form: Literal["json", "page"] = "json") -> HttpResponse:
    """All that is known of one person, as data or as a page to read."""
    found = exporting.everything(request.auth, person_id=person_id)
    exporting.exported(request.auth, form="jsonl", sentence="one person")
    if form == "json":
        response = HttpResponse(json.dumps(found, ensure_ascii=False, indent=1), content_type="application/json")
        response["Content-Disposition"] = f'attachment; filename="person-{person_id}.json"'
        return response
    return render(request, "people/person.html", exporting.to_read(request.auth, found))


@router.get("/people-export")
def export(
    request: MemberRequest, form: exporting.Format, wanted: str = "", q: str = ""
) -> StreamingHttpResponse:  # fmt: skip
    """Everybody whom a filter seeks, as a file."""
    found = _filter(wanted)
    exporting.exported(request.auth, form=form, sentence=rules.filter_sentence(found))
    rows = _rows(request.auth, found, q)
    response = StreamingHttpResponse(exporting.stream(rows, form), content_type=exporting.TYPES[form])
    response["Content-Disposition"] = f'attachment; filename="people.{form}"'
    return response


def _group(row: Group) -> GroupOut:
    wanted = rules.Filter.model_validate(row.wanted)
    return GroupOut(
        id=row.pk, name=row.name, for_all=row.member_id is None, wanted=wanted.model_dump(mode="json"),
        sentence=rules.filter_sentence(wanted),
    )  # fmt: skip


@router.get("/groups", response=list[GroupOut])
def groups(request: MemberRequest) -> list[GroupOut]:
    """The groups kept for all, and one's own."""
    mine = Q(member=None) | Q(member_id=request.auth.member_id)
    return [_group(one) for one in Group.objects.filter(mine, business_id=request.auth.business_id)]


@router.post("/groups", response={201: GroupOut})
def keep_group(request: MemberRequest, body: GroupIn) -> Status[GroupOut]:
    """Keep people under a name."""
    row = cards.keep_group(request.auth, name=body.name, wanted=body.wanted, for_all=body.for_all)
    return Status(201, _group(row))


@router.delete("/groups/{group_id}", response={204: None})
def drop_group(request: MemberRequest, group_id: int) -> Status[None]:
    """Forget a group."""
    cards.drop_group(request.auth, group_id=group_id)
    return Status(204, None)


@router.get("/people-tags", response=list[CountedOut])
def tags(request: MemberRequest) -> list[CountedOut]:
    """Every tag, with how many people have it."""
    rows = PersonTag.objects.filter(business_id=request.auth.business_id).values("tag")
    return [CountedOut(**one) for one in rows.annotate(people=Count("pk")).order_by("tag")]


class RenamedIn(Schema):
    tag: str
    name: str


@router.put("/people-tags", response=ChangedOut)
def rename_tag(request: MemberRequest, body: RenamedIn) -> ChangedOut:
    """Call a tag otherwise everywhere; called like another, they become one."""
    return ChangedOut(people=cards.rename_tag(request.auth, tag=body.tag, name=body.name))


@router.delete("/people-tags", response=ChangedOut)
def drop_tag(request: MemberRequest, tag: str) -> ChangedOut:
    """Take a tag away everywhere."""
    return ChangedOut(people=cards.drop_tag(request.auth, tag=tag))


class NamesOut(Schema):
    touchpoints: list[str]
    consents: list[str]


@router.get("/people-names", response=NamesOut)
def names(request: MemberRequest) -> NamesOut:
    """What a filter can name: touchpoints that people came through, and what they agreed to."""
    mine = {"business_id": request.auth.business_id}
    agreed = Consent.objects.filter(**mine).order_by().values_list("name", flat=True).distinct()[:200]
    events = TimelineEvent.objects.filter(**mine, kind__in=THEIRS, data__has_key="touchpoint").order_by()
    through = events.values_list("data__touchpoint", flat=True).distinct()[:200]
    return NamesOut(touchpoints=sorted(filter(None, through)), consents=sorted(agreed))
