"""The console's API on the follow-up list, the person it is about, and the day line."""

import re
from collections.abc import Callable
from datetime import datetime
from typing import Any, Literal

from django.http import HttpResponse
from ninja import Query, Router, Schema, Status

from intavo import clock
from intavo.accounts.actor import Refused
from intavo.accounts.auth import MemberAuth, MemberRequest
from intavo.accounts.models import Member
from intavo.accounts.queries import members
from intavo.accounts.scope import own
from intavo.core import followup as rules
from intavo.core.texts import keepable
from intavo.core.times import Moment
from intavo.core.worklist import ListFilter, filter_words, via_words
from intavo.hours.queries import main_hours
from intavo.people.models import Address, Person, PersonTag, TimelineEvent
from intavo.people.queries import same_phone, timeline
from intavo.people.ways import note_on, way_called, ways_to
from intavo.sites.models import Site
from intavo.touchpoints.models import Touchpoint

from . import actions
from .desk import begun_by, draft_of, once, others_at
from .desk_api import ColleagueOut
from .kept import count_use
from .listing import listed
from .models import FollowUp
from .queries import (
    PAGE,
    Placed,
    called_by_all,
    finished_rows,
    open_work,
    placed,
    promises_kept,
    stamp,
    ways_known,
)
from .several import Asked, Deed, do_several

router = Router(tags=["follow-up"], auth=MemberAuth())


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
    excerpt: str
    touchpoint: str
    via: str
    page: str
    device: str
    member_id: int | None
    member: str
    initials: str


class LaneOut(Schema):
    lane: rules.Lane
    items: list[ItemOut]


class RulerOut(Schema):
    at: datetime
    closes: datetime | None
    opens: datetime | None
    then_closes: datetime | None


class ListOut(Schema):
    ruler: RulerOut
    timezone: str
    lanes: list[LaneOut]
    waiting: list[ItemOut]
    put_off: list[ItemOut]
    finished: list[ItemOut]
    sentence: str
    open_count: int
    promises_counted: int
    promises_kept: int
    after: str | None
    # For which of all the member has begun an answer.
    begun: list[int]


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


class TagOut(Schema):
    tag: str
    given_by: str


class OneOut(ItemOut):
    name: str
    addresses: list[AddressOut]
    can_mail: bool
    ways: list[WayOut]
    timeline: list[EventOut]
    perhaps_same: list[PerhapsOut]
    next_opening: datetime | None
    outcome: str | None
    tags: list[TagOut]
    person_since: datetime
    draft: str
    others: list[ColleagueOut]


class AnswerIn(Schema):
    text: str
    key: str
    then: Literal["wait", "finish", "remind", "keep"] = "wait"
    until: Moment | None = None
    outcome: rules.Outcome = rules.Outcome.ANSWERED
    way: str = ""
    kept: int | None = None
    # The id of the last entry of the timeline that the writer has seen.
    seen: int | None = None
    # After so many open days without a word of theirs it is our turn again.
    back_in: int | None = None
    # Ids of files that go with it.
    files: list[int] = []


class PutOffIn(Schema):
    until: Moment


class FinishIn(Schema):
    outcome: rules.Outcome


def _item(placed: Placed) -> dict[str, Any]:
    row = placed.row
    return {
        "id": row.pk, "person_id": row.person_id, "called": called_by_all(row.person), "kind": row.kind,
        "state": rules.returned(row.value, clock.now()).state, "lane": placed.lane, "due": placed.due,
        "late_minutes": int(placed.late.total_seconds() // 60), "left_minutes": int(placed.left.total_seconds() // 60),
        "back_at": row.back_at, "opened_at": row.opened_at, "excerpt": row.excerpt,
        "touchpoint": row.touchpoint.name if row.touchpoint else "", "via": via_words(row.via),
        "page": row.page, "device": row.device,
        "member_id": row.member_id, "member": row.member.called if row.member else "",
        "initials": row.member.initials if row.member else "",
    }  # fmt: skip


_ID = re.compile(r"[0-9]{1,18}")


def _key(text: str) -> tuple[datetime | None, int] | None:
    """Where the page before ended: its last due time (aware, or none) and its last id."""
    if not text:
        return None
    due, _, last = text.partition("|")
    wrong = Refused(("after", "This is not where a page of the list ends."))
    try:
        at = datetime.fromisoformat(due) if due else None
    except ValueError:
        raise wrong from None
    if not _ID.fullmatch(last) or (at is not None and at.tzinfo is None):
        raise wrong
    return at, int(last)


def _sentence(request: MemberRequest, wanted: ListFilter) -> str:
    if not wanted.narrows:
        return ""
    rows = Touchpoint.objects.filter(business_id=request.auth.business_id, pk=wanted.touchpoint or 0)
    called = {one.pk: one.called for one in members(request.auth)} if wanted.member else {}
    sites = Site.objects.filter(business_id=request.auth.business_id, pk=wanted.site or 0)
    return filter_words(wanted, dict(rows.values_list("pk", "name")), called, dict(sites.values_list("pk", "name")))


@router.get("/ways-in", response=list[WayOut])
def ways_in(request: MemberRequest) -> list[WayOut]:
    """How follow-ups came so far, for the filter: its key and its words."""
    return [WayOut(key=one, words=via_words(one)) for one in ways_known(request.auth)]


@router.get("/follow-ups", response=ListOut)
def follow_ups(request: MemberRequest, wanted: Query[ListFilter], after: str = "") -> ListOut:
    """The list along the ruler of open time, as far as a filter shows it; `after` is the key of the page before."""
    actor, at = request.auth, clock.now()
    hours = main_hours(actor.business_id).value
    ruler = rules.ruler(hours, at)
    done = finished_rows(actor, wanted, _key(after)) if wanted.state == "finished" else []
    shown = listed(actor, at, wanted, _key(after) if wanted.state != "finished" else None)
    more, rows = len(shown.page) > PAGE, shown.page[:PAGE]
    found = placed(rows, hours, ruler)
    lanes = [
        LaneOut(lane=lane, items=[ItemOut(**_item(one)) for one in found if one.lane is lane]) for lane in rules.Lane
    ]
    month = at.astimezone(hours.zone).replace(day=1, hour=0, minute=0, second=0, microsecond=0)
    counted, kept = promises_kept(actor, month)
    last = found[-1] if found else None
    key = f"{last.due.isoformat() if last.due else ''}|{last.row.pk}" if more and last else None
    if len(done) > PAGE:
        done = done[:PAGE]
        key = f"{done[-1].finished_at.isoformat() if done[-1].finished_at else ''}|{done[-1].pk}"
    return ListOut(
        ruler=RulerOut.from_orm(ruler), timezone=hours.timezone, lanes=lanes,
        waiting=[ItemOut(**_item(one)) for one in placed(shown.waiting, hours, ruler)],
        put_off=[ItemOut(**_item(one)) for one in placed(shown.aside, hours, ruler)],
        finished=[ItemOut(**_item(one)) for one in placed(done, hours, ruler)],
        sentence=_sentence(request, wanted),
        open_count=shown.count, promises_counted=counted, promises_kept=kept,
        after=key, begun=begun_by(actor),
    )  # fmt: skip


def _row(request: MemberRequest, followup_id: int) -> FollowUp:
    rows = FollowUp.objects.select_related("person", "touchpoint", "business", "member__user").prefetch_related(
        "person__addresses"
    )
    return own(request.auth, rows, followup_id)


def _receipt(event: TimelineEvent) -> str:
    """What became of an answer, in words of the way that it went."""
    if event.kind != "answered":
        return ""
    if event.data.get("taken_back"):
        return "taken back before it went out"
    way = way_called(event.data.get("way", "mail"))
    return way.receipt(event.data) if way else ""


def _one(request: MemberRequest, followup_id: int) -> OneOut:
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
        **_item(item), name=row.person.name, timeline=events, outcome=row.outcome,
        addresses=[
            AddressOut(kind=one.kind, shown=one.shown, note=note_on(row.business_id, one.kind, one.key))
            for one in addresses
        ],
        can_mail=any(one.kind == Address.EMAIL for one in addresses),
        ways=[WayOut(key=one.key, words=one.words) for one in ways_to(actions.to_of(row))],
        perhaps_same=[
            PerhapsOut(id=one.pk, name=one.name or "somebody without a name", why="the same phone number")
            for one in same_phone(request.auth, row.person)
        ],
        next_opening=ruler.opens, person_since=row.person.created_at,
        draft=draft_of(request.auth, row.pk),
        others=[ColleagueOut.from_orm(one) for one in others_at(request.auth, row.pk, at)],
        tags=[TagOut(tag=one.tag, given_by=one.given_by) for one in row.person.tags.order_by("tag")],
    )  # fmt: skip


@router.get("/follow-ups/{followup_id}", response=OneOut)
def one(request: MemberRequest, followup_id: int) -> OneOut:
    """A follow-up with its person and their whole timeline."""
    return _one(request, followup_id)


def _done(request: MemberRequest, followup_id: int, do: Callable[[], object]) -> OneOut:
    """Do it, once for what a device calls it, unless a colleague did something that the device has not seen."""
    key, seen = request.headers.get("X-Intavo-Once", "")[:80], request.headers.get("X-Intavo-Seen", "")
    if seen and not _ID.fullmatch(seen):
        raise Refused(("X-Intavo-Seen", "This is the id of no entry."))
    if not keepable(key):
        raise Refused(("X-Intavo-Once", "This is no id of a device."))
    with once(request.auth, followup_id=followup_id, key=key, seen=int(seen) if seen else None) as still:
        if still:
            do()
    return _one(request, followup_id)


@router.post("/follow-ups/{followup_id}/answer", response=OneOut)
def answer(request: MemberRequest, followup_id: int, body: AnswerIn) -> OneOut:
    """Answer by mail, and then wait, finish, be reminded, or keep it."""

    def do() -> None:
        actions.answer(
            request.auth, followup_id=followup_id, text=body.text, key=body.key, then=body.then, until=body.until,
            outcome=body.outcome, way=body.way, seen=body.seen, back_in=body.back_in, files=tuple(body.files),
        )  # fmt: skip
        if body.kept is not None:
            count_use(request.auth, body.kept)

    return _done(request, followup_id, do)


class TakeBackIn(Schema):
    key: str


@router.post("/follow-ups/{followup_id}/take-back", response=OneOut)
def take_back(request: MemberRequest, followup_id: int, body: TakeBackIn) -> OneOut:
    """Stop an answer that has not gone out yet."""
    actions.take_back(request.auth, followup_id=followup_id, key=body.key)
    return _one(request, followup_id)


@router.post("/follow-ups/{followup_id}/wait", response=OneOut)
def wait(request: MemberRequest, followup_id: int) -> OneOut:
    """It is their turn."""
    return _done(request, followup_id, lambda: actions.wait_for_them(request.auth, followup_id=followup_id))


@router.post("/follow-ups/{followup_id}/put-off", response=OneOut)
def put_off(request: MemberRequest, followup_id: int, body: PutOffIn) -> OneOut:
    """Set it aside until a time."""
    return _done(request, followup_id, lambda: actions.put_off(request.auth, followup_id=followup_id, until=body.until))


@router.post("/follow-ups/{followup_id}/finish", response=OneOut)
def finish(request: MemberRequest, followup_id: int, body: FinishIn) -> OneOut:
    """Close it with an outcome."""
    return _done(
        request, followup_id, lambda: actions.finish(request.auth, followup_id=followup_id, outcome=body.outcome)
    )


@router.post("/follow-ups/{followup_id}/take-up", response=OneOut)
def take_up(request: MemberRequest, followup_id: int) -> OneOut:
    """Make it for us again."""
    actions.take_up(request.auth, followup_id=followup_id)
    return _one(request, followup_id)


class WorkItemOut(Schema):
    id: int
    kind: str
    state: str
    excerpt: str
    opened_at: datetime


@router.get("/people/{person_id}/follow-ups", response=list[WorkItemOut])
def work_with(request: MemberRequest, person_id: int) -> list[WorkItemOut]:
    """The follow-ups of a person, the newest first."""
    own(request.auth, Person, person_id)
    rows = FollowUp.objects.filter(business_id=request.auth.business_id, person_id=person_id).order_by("-pk")[:100]
    return [WorkItemOut.from_orm(one) for one in rows]


class GiveIn(Schema):
    member_id: int | None = None


@router.post("/follow-ups/{followup_id}/give", response=OneOut)
def give(request: MemberRequest, followup_id: int, body: GiveIn) -> OneOut:
    """Give it to a member, or back to everybody."""
    actions.give(request.auth, followup_id=followup_id, member_id=body.member_id)
    return _one(request, followup_id)


class WorkOut(Schema):
    open: int


@router.get("/members/{member_id}/work", response=WorkOut)
def work_of(request: MemberRequest, member_id: int) -> WorkOut:
    """How much is open and given to a member."""
    own(request.auth, Member, member_id)
    return WorkOut(open=open_work(request.auth, member_id).count())


class NoteIn(Schema):
    text: str


@router.post("/follow-ups/{followup_id}/note", response=OneOut)
def note(request: MemberRequest, followup_id: int, body: NoteIn) -> OneOut:
    """Keep a note, which only members see."""
    return _done(request, followup_id, lambda: actions.note(request.auth, followup_id=followup_id, text=body.text))


class TagIn(Schema):
    tag: str
    on: bool = True


@router.post("/follow-ups/{followup_id}/tag", response=OneOut)
def tag(request: MemberRequest, followup_id: int, body: TagIn) -> OneOut:
    """Put a tag on the person, or take it off."""
    actions.tag(request.auth, followup_id=followup_id, tag=body.tag, on=body.on)
    return _one(request, followup_id)


class SeveralIn(Schema):
    do: Deed
    ids: list[int] = []
    all_of: ListFilter | None = None
    member_id: int | None = None
    until: Moment | None = None
    outcome: rules.Outcome = rules.Outcome.ANSWERED
    tag: str = ""


class LeftOut(Schema):
    id: int
    why: str


class BeforeOut(Schema):
    id: int
    member_id: int | None


class SeveralOut(Schema):
    done: list[int]
    left: list[LeftOut]
    before: list[BeforeOut]


@router.post("/several-follow-ups", response=SeveralOut)
def several(request: MemberRequest, body: SeveralIn) -> SeveralOut:
    """Do one thing to several; says to which it was done, and whose they were before."""
    asked = Asked(body.do, tuple(body.ids), body.all_of, body.member_id, body.until, body.outcome, body.tag)
    found = do_several(request.auth, asked)
    return SeveralOut(
        done=found.done, left=[LeftOut(id=one, why=why) for one, why in found.left],
        before=[BeforeOut(id=one, member_id=found.before[one]) for one in found.done],
    )  # fmt: skip


@router.get("/follow-ups-stamp", response={304: None, 200: str})
def list_stamp(request: MemberRequest, response: HttpResponse) -> Any:
    """Something that changes with every change of the list: 304 while nothing has, for one indexed query."""
    now = stamp(request.auth)
    response["ETag"], response["Cache-Control"] = f'W/"{now}"', "private, no-cache"
    if request.headers.get("If-None-Match") == f'W/"{now}"':
        return Status(304, None)
    return Status(200, now)


@router.get("/tags", response=list[str])
def tags(request: MemberRequest) -> list[str]:
    """Every tag that anybody has."""
    rows = PersonTag.objects.filter(business_id=request.auth.business_id)
    return sorted(rows.order_by().values_list("tag", flat=True).distinct()[:500], key=str.casefold)
