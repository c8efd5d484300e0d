"""The console's API on people as a list: who is sought, groups, tags, and the list as a file."""

import json
from datetime import datetime
from typing import Annotated, Any
from zoneinfo import ZoneInfo

from django.db.models import Count, OuterRef, Q, QuerySet, Subquery
from django.http import StreamingHttpResponse
from ninja import Router, Schema, Status
from pydantic import ValidationError

from intavo import clock
from intavo.accounts.actor import Actor, Refused
from intavo.accounts.auth import MemberAuth, MemberRequest
from intavo.accounts.models import Business
from intavo.core import people as rules
from intavo.core.holds import Holds
from intavo.core.paging import read_key
from intavo.core.people.seeking import THEIRS
from intavo.core.refusals import wrongs
from intavo.core.rights import Right

from . import cards, exporting
from .models import Consent, Group, Person, PersonTag, TimelineEvent
from .queries import first_page
from .seeking import sought

router = Router(tags=["people"], auth=MemberAuth())
PAGE = 50


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


class AddPersonIn(Schema):
    name: str = ""
    email: str = ""
    phone: str = ""


class AddedOut(Schema):
    id: int
    new: bool


class GroupOut(Schema):
    id: int
    name: str
    for_all: bool
    wanted: Annotated[dict[str, Any], Holds(rules.Filter, "validation")]
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
            rows = rows.filter(
                pk__in=sought(actor.business_id, wanted, clock.now(), _zone(actor)).values("pk")
            )
        return rows
    return sought(actor.business_id, wanted, clock.now(), _zone(actor))


def _row(person: Person) -> SoughtOut:
    addresses = list(person.addresses.all())
    first = {
        kind: next((one.shown for one in addresses if one.kind == kind), "") for kind in ("email", "phone")
    }
    return SoughtOut(
        id=person.pk,
        name=person.name,
        email=first["email"],
        phone=first["phone"],
        tags=sorted(one.tag for one in person.tags.all()),
        agreed=any(one.withdrawn_at is None for one in person.consents.all()),
        added_at=person.created_at,
        last_at=getattr(person, "last_at", None),
        last_kind=getattr(person, "last_kind", None) or "",
    )


@router.get("/people", response=PeopleOut)
def people(request: MemberRequest, wanted: str = "", q: str = "", after: str = "") -> PeopleOut:
    """One page of people, the newest first, as far as a filter seeks them; `after` is the key of the page
    before.
    """
    actor, found = request.auth, _filter(wanted)
    actor.needs(Right.EVERYBODY)
    rows = _rows(actor, found, q)
    count = rows.count() if after or not (found.conditions or q.strip()) else None
    if after:
        try:
            at, last = read_key(after)
        except ValueError:
            at, last = None, 0
        if at is None:
            raise Refused(("after", "This is not where a page of people ends."))
        rows = rows.filter(Q(created_at__lt=at) | Q(created_at=at, pk__lt=last))
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


@router.get("/people-export")
def export(
    request: MemberRequest, form: exporting.Format, wanted: str = "", q: str = ""
) -> StreamingHttpResponse:
    """Everybody whom a filter seeks, as a file."""
    found = _filter(wanted)
    exporting.exported(request.auth, form=form, sentence=rules.filter_sentence(found))
    rows = _rows(request.auth, found, q)
    response = StreamingHttpResponse(
        exporting.stream(request.auth, rows, form), content_type=exporting.TYPES[form]
    )
    response["Content-Disposition"] = f'attachment; filename="people.{form}"'
    return response


def _group(row: Group) -> GroupOut:
    wanted = rules.Filter.model_validate(row.wanted)
    return GroupOut(
        id=row.pk,
        name=row.name,
        for_all=row.member_id is None,
        wanted=wanted.model_dump(mode="json"),
        sentence=rules.filter_sentence(wanted),
    )


@router.get("/groups", response=list[GroupOut])
def groups(request: MemberRequest) -> list[GroupOut]:
    """The groups kept for all, and one's own."""
    request.auth.needs(Right.EVERYBODY)
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
