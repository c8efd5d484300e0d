"""The console's API on what visitors sent: the answers of a touchpoint, and what was set aside as spam."""

from datetime import datetime

from django.http import StreamingHttpResponse
from ninja import Router, Schema, Status

from intavo import clock
from intavo.accounts.actor import Actor, Refused
from intavo.accounts.auth import MemberAuth, MemberRequest
from intavo.accounts.scope import own
from intavo.core.rights import Right
from intavo.core.say import day_and_time
from intavo.core.touchpoint import Document
from intavo.core.touchpoint.parts import Asked
from intavo.followup.models import FollowUp
from intavo.touchpoints.models import Touchpoint

from . import actions
from .actions.calls import booking_behind, cancel_call, move_call, slots_for
from .models import Booking, Quarantined, Submission
from .queries import answers_csv, answers_page, answers_with, asked_by, quarantine_of, raw_of

_MOST_TIMES = 200
router = Router(tags=["quarantine"], auth=MemberAuth())


class TypedOut(Schema):
    name: str
    value: str


class QuarantinedOut(Schema):
    id: int
    received_at: datetime
    reason: str
    touchpoint: str
    page: str
    typed: list[TypedOut]

    @staticmethod
    def of(row: Quarantined, names: dict[str, str]) -> "QuarantinedOut":
        """What was set aside, as the console shows it."""
        return QuarantinedOut(
            id=row.pk,
            received_at=row.received_at,
            reason=row.reason,
            touchpoint=names.get(row.touchpoint, row.touchpoint),
            page=row.raw.get("page", {}).get("url", ""),
            typed=[TypedOut(name=k, value=str(v)) for k, v in row.raw.get("answers", {}).items() if v],
        )


@router.get("/quarantine", response=list[QuarantinedOut])
def quarantine(request: MemberRequest) -> list[QuarantinedOut]:
    """What is set aside, the newest first."""
    rows = list(quarantine_of(request.auth)[:200])
    known = Touchpoint.objects.filter(business_id=request.auth.business_id)
    names = dict(known.values_list("public_id", "name"))
    return [QuarantinedOut.of(row, names) for row in rows]


@router.post("/quarantine/{quarantined_id}/release", response={204: None})
def release(request: MemberRequest, quarantined_id: int) -> Status[None]:
    """Take it in after all."""
    actions.release(request.auth, quarantined_id=quarantined_id)
    return Status(204, None)


@router.delete("/quarantine/{quarantined_id}", response={204: None})
def throw_out(request: MemberRequest, quarantined_id: int) -> Status[None]:
    """It is spam."""
    actions.throw_out(request.auth, quarantined_id=quarantined_id)
    return Status(204, None)


class AnswerColumnOut(Schema):
    name: str
    label: str


class AnswerRowOut(Schema):
    id: int
    at: datetime
    person_id: int | None
    called: str
    page: str
    cells: dict[str, str]
    agreed: list[str]
    code: str


class AnswersOut(Schema):
    touchpoint: str
    columns: list[AnswerColumnOut]
    rows: list[AnswerRowOut]
    before: int | None


def _answer_row(row: Submission) -> AnswerRowOut:
    raw = raw_of(row)
    document = Document.model_validate(row.revision.document)
    values = {name: str(one) for name, one in raw.get("answers", {}).items()}
    asked = [part for part in document.parts() if isinstance(part, Asked) and part.name in values]
    read = {part.name: part.as_read(values[part.name]) for part in asked}
    return AnswerRowOut(
        id=row.pk,
        at=row.received_at,
        person_id=row.person_id,
        called=row.person.name if row.person else "",
        page=str(raw.get("page", {}).get("url", "")),
        cells=read,
        code=row.code or "",
        agreed=[name for name, given in raw.get("consents", {}).items() if given],
    )


@router.get("/touchpoints/{touchpoint_id}/answers", response=AnswersOut)
def answers(request: MemberRequest, touchpoint_id: int, q: str = "", before: int | None = None) -> AnswersOut:
    """One row an answer, its fields over all revisions, the newest first; `q` is a text that stands in it."""
    request.auth.needs(Right.EVERYBODY)
    touchpoint = own(request.auth, Touchpoint, touchpoint_id)
    found = answers_page(touchpoint, q, before)
    columns = [AnswerColumnOut(name=name, label=label) for name, label in asked_by(touchpoint).items()]
    rows = [_answer_row(one) for one in found[:100]]
    return AnswersOut(
        touchpoint=touchpoint.name,
        columns=columns,
        rows=rows,
        before=rows[-1].id if len(found) > 100 else None,
    )


@router.get("/touchpoints/{touchpoint_id}/answers-csv")
def answers_file(request: MemberRequest, touchpoint_id: int, q: str = "") -> StreamingHttpResponse:
    """The same as a file, all of them, oldest first."""
    request.auth.needs(Right.EVERYBODY)
    touchpoint = own(request.auth, Touchpoint, touchpoint_id)
    request.auth.noted("answers taken out", name=touchpoint.name)
    rows = answers_csv(touchpoint, answers_with(touchpoint, q))
    response = StreamingHttpResponse(rows, content_type="text/csv; charset=utf-8")
    response["Content-Disposition"] = f'attachment; filename="{touchpoint.slug}.csv"'
    return response


class TimeOut(Schema):
    value: datetime
    words: str


class CallOut(Schema):
    # None: there is no call ahead.
    when: datetime | None = None
    # Times that it can be moved to, by the business's clock.
    times: list[TimeOut] = []


class TimeIn(Schema):
    time: str


def _call(actor: Actor, followup_id: int) -> CallOut:
    row, at = booking_behind(actor, followup_id), clock.now()
    if row is None:
        return CallOut()
    try:
        free = slots_for(row, at)
    except Refused:
        free = []
    return CallOut(
        when=row.start,
        times=[TimeOut(value=one.start, words=day_and_time(one.start)) for one in free[:_MOST_TIMES]],
    )


@router.get("/follow-ups/{followup_id}/call", response=CallOut)
def call(request: MemberRequest, followup_id: int) -> CallOut:
    """The call that was booked and is ahead, with the times that it can be moved to."""
    own(request.auth, FollowUp.objects.only("pk"), followup_id)
    return _call(request.auth, followup_id)


@router.put("/follow-ups/{followup_id}/call", response=CallOut)
def move(request: MemberRequest, followup_id: int, body: TimeIn) -> CallOut:
    """Move it; whoever booked it is told by mail, where they left an address."""
    row = booking_behind(request.auth, followup_id)
    if row is None:
        raise Booking.DoesNotExist
    move_call(row.token, body.time, clock.now(), request.auth)
    return _call(request.auth, followup_id)


@router.delete("/follow-ups/{followup_id}/call", response={204: None})
def cancel(request: MemberRequest, followup_id: int) -> Status[None]:
    """Cancel it; whoever booked it is told by mail, where they left an address."""
    row = booking_behind(request.auth, followup_id)
    if row is None:
        raise Booking.DoesNotExist
    cancel_call(row.token, clock.now(), request.auth)
    return Status(204, None)
