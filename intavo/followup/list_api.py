"""The console's API on the follow-up list: what a filter shows of it, and several worked at once."""

from datetime import datetime
from typing import Any

from django.http import HttpResponse
from ninja import Query, Router, Schema, Status

from intavo import clock
from intavo.accounts.actor import Refused
from intavo.accounts.auth import MemberAuth, MemberRequest
from intavo.accounts.queries import members
from intavo.core import followup as rules
from intavo.core.paging import Key, key_text, page_end, read_key
from intavo.core.times import Moment
from intavo.core.worklist import ListFilter, filter_words, via_words
from intavo.hours.queries import main_hours
from intavo.people.models import PersonTag
from intavo.sites.models import Site
from intavo.touchpoints.models import Touchpoint

from .desk import begun_by
from .listing import listed
from .queries import LONGEST_PAGE, PAGE, finished_rows, placed, promises_kept, stamp, ways_known
from .several import Asked, Deed, Done, count, do_several, lately, undo
from .shapes import ItemOut, WayOut, item_of

router = Router(tags=["follow-up"], auth=MemberAuth())


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
    # As of before the rows were read: what has changed since then changes it.
    stamp: str
    sentence: str
    open_count: int
    promises_counted: int
    promises_kept: int
    # With what the next page begins, where there is one; and with what this one ends.
    after: str | None
    through: str | None
    # For which of all the member has begun an answer.
    begun: list[int]


def _key(field: str, text: str) -> Key | None:
    """Where a page ended: its last due time (aware, or none) and its last id."""
    if not text:
        return None
    try:
        return read_key(text)
    except ValueError:
        raise Refused((field, "This is not where a page of the list ends.")) from None


def _sentence(request: MemberRequest, wanted: ListFilter) -> str:
    if not wanted.narrows:
        return ""
    rows = Touchpoint.objects.filter(business_id=request.auth.business_id, pk=wanted.touchpoint or 0)
    called = {one.pk: one.called for one in members(request.auth)} if wanted.member else {}
    sites = Site.objects.filter(business_id=request.auth.business_id, pk=wanted.site or 0)
    return filter_words(
        wanted, dict(rows.values_list("pk", "name")), called, dict(sites.values_list("pk", "name"))
    )


@router.get("/ways-in", response=list[WayOut])
def ways_in(request: MemberRequest) -> list[WayOut]:
    """How follow-ups came so far, for the filter: its key and its words."""
    return [WayOut(key=one, words=via_words(one)) for one in ways_known(request.auth)]


@router.get("/follow-ups", response=ListOut)
def follow_ups(
    request: MemberRequest, wanted: Query[ListFilter], after: str = "", through: str = ""
) -> ListOut:
    """The list along the ruler of open time, as far as a filter shows it; `after` is the key of the page
    before, and `through`, when a page is read anew, the one that it ended with.
    """
    actor, at = request.auth, clock.now()
    before = stamp(actor)
    hours = main_hours(actor.business_id).value
    ruler = rules.ruler(hours, at)
    begin, end = _key("after", after), _key("through", through)
    most, finished = LONGEST_PAGE if end else PAGE, wanted.state == "finished"
    done = finished_rows(actor, wanted, begin, most) if finished else []
    shown = listed(actor, at, wanted, None if finished else begin, most)
    along = placed(shown.page, hours, ruler)
    keys = (
        [(one.finished_at, one.pk) for one in done] if finished else [(one.due, one.row.pk) for one in along]
    )
    size, ends, more = page_end(keys, PAGE, most, end, last_first=finished)
    found, done = along[:size], done[:size]
    lanes = [
        LaneOut(lane=lane, items=[ItemOut(**item_of(one)) for one in found if one.lane is lane])
        for lane in rules.Lane
    ]
    month = at.astimezone(hours.zone).replace(day=1, hour=0, minute=0, second=0, microsecond=0)
    counted, kept = promises_kept(actor, month, at)
    return ListOut(
        ruler=RulerOut.from_orm(ruler),
        timezone=hours.timezone,
        lanes=lanes,
        waiting=[ItemOut(**item_of(one)) for one in placed(shown.waiting, hours, ruler)],
        put_off=[ItemOut(**item_of(one)) for one in placed(shown.aside, hours, ruler)],
        finished=[ItemOut(**item_of(one)) for one in placed(done, hours, ruler)],
        stamp=before,
        sentence=_sentence(request, wanted),
        open_count=shown.count,
        promises_counted=counted,
        promises_kept=kept,
        after=key_text(ends) if ends and more else None,
        through=key_text(ends) if ends else None,
        begun=begun_by(actor),
    )


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
    # By this it is taken back, for a day; none where nothing was done.
    batch: int | None


class BatchOut(Schema):
    id: int
    at: datetime
    by: str
    count: int
    words: str
    undone: bool
    undoable: bool


def _done(work: Done) -> SeveralOut:
    return SeveralOut(
        done=work.done,
        left=[LeftOut(id=one, why=why) for one, why in work.left],
        before=[BeforeOut(id=one, member_id=work.before[one]) for one in work.done if one in work.before],
        batch=work.batch,
    )


@router.post("/several-follow-ups", response=SeveralOut)
def several(request: MemberRequest, body: SeveralIn) -> SeveralOut:
    """Do one thing to several; says to which it was done, and whose they were before."""
    asked = Asked(body.do, tuple(body.ids), body.all_of, body.member_id, body.until, body.outcome, body.tag)
    return _done(do_several(request.auth, asked))


@router.get("/several-follow-ups", response=list[BatchOut])
def done_lately(request: MemberRequest) -> list[BatchOut]:
    """What was done to several within the last day, the last first."""
    return [
        BatchOut(
            id=one.pk,
            at=one.at,
            by=one.member.called if one.member else "",
            count=len(one.rows),
            words=one.words,
            undone=one.undone_at is not None,
            undoable=one.undone_at is None and one.do != "take-up",
        )
        for one in lately(request.auth)
    ]


@router.post("/several-follow-ups/{batch_id}/undo", response=SeveralOut)
def undo_several(request: MemberRequest, batch_id: int) -> SeveralOut:
    """Take back what was done to several, of each that is still as it was left."""
    return _done(undo(request.auth, batch_id=batch_id))


@router.get("/follow-ups-count", response=int)
def follow_ups_count(request: MemberRequest, wanted: Query[ListFilter]) -> int:
    """How many a filter shows."""
    return count(request.auth, wanted)


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
