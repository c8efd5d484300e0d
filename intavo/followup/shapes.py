"""What the console is told of a follow-up: as it stands on the list, and whole with its person."""

from datetime import datetime
from typing import Any

from ninja import Schema

from intavo import clock
from intavo.accounts.auth import MemberRequest
from intavo.accounts.scope import own
from intavo.core import followup as rules
from intavo.core.worklist import via_words
from intavo.hours.queries import main_hours
from intavo.people.models import Address, TimelineEvent
from intavo.people.queries import same_phone, timeline
from intavo.people.ways import note_on, way_called, ways_to

from .actions import to_of
from .desk import draft_of, others_at
from .desk_api import ColleagueOut
from .models import FollowUp
from .queries import Placed, called_by_all, placed


class ItemOut(Schema):
    id: int
    person_id: int
    called: str
    kind: str
    state: str
    lane: rules.Lane
    due: datetime | None
    late_minutes: int
    left_minutes: int
    back_at: datetime | None
    opened_at: datetime
    subject: str
    excerpt: str
    touchpoint: str
    via: str
    page: str
    device: str
    member_id: int | None
    member: str
    initials: str


class AddressOut(Schema):
    kind: str
    shown: str
    note: str


class EventOut(Schema):
    id: int
    at: datetime
    kind: str
    by: str
    data: dict[str, Any]
    receipt: str


class PerhapsOut(Schema):
    id: int
    name: str
    why: str


class WayOut(Schema):
    key: str
    words: str


class AnswerWayOut(WayOut):
    # Whether files can go that way.
    files: bool


class TagOut(Schema):
    tag: str
    given_by: str


class OneOut(ItemOut):
    name: str
    addresses: list[AddressOut]
    can_mail: bool
    ways: list[AnswerWayOut]
    timeline: list[EventOut]
    perhaps_same: list[PerhapsOut]
    next_opening: datetime | None
    outcome: str | None
    tags: list[TagOut]
    person_since: datetime
    draft: str
    others: list[ColleagueOut]


def item_of(placed: Placed) -> dict[str, Any]:
    row = placed.row
    return {
        "id": row.pk, "person_id": row.person_id, "called": called_by_all(row.person), "kind": row.kind,
        "state": rules.returned(row.value, clock.now()).state, "lane": placed.lane, "due": placed.due,
        "late_minutes": int(placed.late.total_seconds() // 60),
        "left_minutes": int(placed.left.total_seconds() // 60), "back_at": row.back_at,
        "opened_at": row.opened_at, "subject": row.subject, "excerpt": row.excerpt,
        "touchpoint": row.touchpoint.name if row.touchpoint else "", "via": via_words(row.via),
        "page": row.page, "device": row.device, "member_id": row.member_id,
        "member": row.member.called if row.member else "",
        "initials": row.member.initials if row.member else "",
    }  # fmt: skip


def _row(request: MemberRequest, followup_id: int) -> FollowUp:
    rows = FollowUp.objects.select_related(
        "person", "touchpoint", "business", "member__user"
    ).prefetch_related("person__addresses")
    return own(request.auth, rows, followup_id)


def _receipt(event: TimelineEvent) -> str:
    """What became of an answer, in words of the way that it went."""
    if event.kind != "answered":
        return ""
    if event.data.get("taken_back"):
        return "taken back before it went out"
    way = way_called(event.data.get("way", "mail"))
    return way.receipt(event.business_id, event.data) if way else ""


def whole(request: MemberRequest, followup_id: int) -> OneOut:
    row, at = _row(request, followup_id), clock.now()
    hours = main_hours(request.auth.business_id).value
    ruler = rules.ruler(hours, at)
    [item] = placed([row], hours, ruler)
    addresses = list(row.person.addresses.all())
    events = [
        EventOut(
            id=e.pk,
            at=e.at,
            kind=e.kind,
            by=e.said_by,
            data=e.data,
            receipt=_receipt(e),
        )
        for e in timeline(request.auth, row.person_id)
    ]
    return OneOut(
        **item_of(item),
        name=row.person.name,
        timeline=events,
        outcome=row.outcome,
        addresses=[
            AddressOut(kind=one.kind, shown=one.shown, note=note_on(row.business_id, one.kind, one.key))
            for one in addresses
        ],
        can_mail=any(one.kind == Address.EMAIL for one in addresses),
        ways=[
            AnswerWayOut(key=one.key, words=one.words, files=one.takes_files(whom))
            for whom in (to_of(row),)
            for one in ways_to(whom)
        ],
        perhaps_same=[
            PerhapsOut(id=one.pk, name=one.name or "somebody without a name", why="the same phone number")
            for one in same_phone(request.auth, row.person)
        ],
        next_opening=ruler.opens,
        person_since=row.person.created_at,
        draft=draft_of(request.auth, row.pk),
        others=[ColleagueOut.from_orm(one) for one in others_at(request.auth, row.pk, at)],
        tags=[TagOut(tag=one.tag, given_by=one.given_by) for one in row.person.tags.order_by("tag")],
    )
