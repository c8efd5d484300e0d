"""The console's API on one follow-up: its person, and what is done with it."""

from collections.abc import Callable
from datetime import datetime
from typing import Literal

from ninja import Router, Schema

from intavo.accounts.actor import Refused
from intavo.accounts.auth import MemberAuth, MemberRequest
from intavo.accounts.models import Member
from intavo.accounts.scope import own
from intavo.core import followup as rules
from intavo.core.mailin import Says
from intavo.core.paging import ROW_ID
from intavo.core.texts import MOST_ONCE, Once, keepable
from intavo.core.times import Moment
from intavo.people.models import Person

from . import actions, inviting
from .desk import once
from .kept import count_use
from .models import FollowUp
from .queries import (
    open_work,
)
from .shapes import OneOut, whole

router = Router(tags=["follow-up"], auth=MemberAuth())


class AnswerIn(Schema):
    text: str
    key: Once
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


class InvitationIn(Schema):
    says: Says


class PutOffIn(Schema):
    until: Moment


class FinishIn(Schema):
    outcome: rules.Outcome


@router.get("/follow-ups/{followup_id}", response=OneOut)
def one(request: MemberRequest, followup_id: int) -> OneOut:
    """A follow-up with its person and their whole timeline."""
    return whole(request, followup_id)


def _done(request: MemberRequest, followup_id: int, do: Callable[[], object]) -> OneOut:
    """Do it, once for what a device calls it, unless a colleague did something that the device has not
    seen.
    """
    key, seen = request.headers.get("X-Intavo-Once", ""), request.headers.get("X-Intavo-Seen", "")
    if seen and not ROW_ID.fullmatch(seen):
        raise Refused(("X-Intavo-Seen", "This is the id of no entry."))
    if not keepable(key) or len(key) > MOST_ONCE:
        raise Refused(("X-Intavo-Once", "This is no id of a device."))
    with once(request.auth, followup_id=followup_id, key=key, seen=int(seen) if seen else None) as still:
        if still:
            do()
    return whole(request, followup_id)


@router.post("/follow-ups/{followup_id}/answer", response=OneOut)
def answer(request: MemberRequest, followup_id: int, body: AnswerIn) -> OneOut:
    """Answer by mail, and then wait, finish, be reminded, or keep it."""

    def do() -> None:
        actions.answer(
            request.auth,
            followup_id=followup_id,
            text=body.text,
            key=body.key,
            then=body.then,
            until=body.until,
            outcome=body.outcome,
            way=body.way,
            seen=body.seen,
            back_in=body.back_in,
            files=tuple(body.files),
        )
        if body.kept is not None:
            count_use(request.auth, body.kept)

    return _done(request, followup_id, do)


class TakeBackIn(Schema):
    key: Once


@router.post("/follow-ups/{followup_id}/take-back", response=OneOut)
def take_back(request: MemberRequest, followup_id: int, body: TakeBackIn) -> OneOut:
    """Stop an answer that has not gone out yet."""
    actions.take_back(request.auth, followup_id=followup_id, key=body.key)
    return whole(request, followup_id)


@router.post("/follow-ups/{followup_id}/invitations/{event_id}", response=OneOut)
def answer_invitation(request: MemberRequest, followup_id: int, event_id: int, body: InvitationIn) -> OneOut:
    """Accept an invitation that came by mail, decline it, or say perhaps."""
    inviting.answer_invitation(request.auth, followup_id=followup_id, event_id=event_id, says=body.says)
    return whole(request, followup_id)


@router.post("/follow-ups/{followup_id}/wait", response=OneOut)
def wait(request: MemberRequest, followup_id: int) -> OneOut:
    """It is their turn."""
    return _done(request, followup_id, lambda: actions.wait_for_them(request.auth, followup_id=followup_id))


@router.post("/follow-ups/{followup_id}/put-off", response=OneOut)
def put_off(request: MemberRequest, followup_id: int, body: PutOffIn) -> OneOut:
    """Set it aside until a time."""
    return _done(
        request, followup_id, lambda: actions.put_off(request.auth, followup_id=followup_id, until=body.until)
    )


@router.post("/follow-ups/{followup_id}/finish", response=OneOut)
def finish(request: MemberRequest, followup_id: int, body: FinishIn) -> OneOut:
    """Close it with an outcome."""
    return _done(
        request,
        followup_id,
        lambda: actions.finish(request.auth, followup_id=followup_id, outcome=body.outcome),
    )


@router.post("/follow-ups/{followup_id}/take-up", response=OneOut)
def take_up(request: MemberRequest, followup_id: int) -> OneOut:
    """Make it for us again."""
    actions.take_up(request.auth, followup_id=followup_id)
    return whole(request, followup_id)


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
    rows = FollowUp.objects.filter(business_id=request.auth.business_id, person_id=person_id).order_by("-pk")[
        :100
    ]
    return [WorkItemOut.from_orm(one) for one in rows]


class GiveIn(Schema):
    member_id: int | None = None


@router.post("/follow-ups/{followup_id}/give", response=OneOut)
def give(request: MemberRequest, followup_id: int, body: GiveIn) -> OneOut:
    """Give it to a member, or back to everybody."""
    actions.give(request.auth, followup_id=followup_id, member_id=body.member_id)
    return whole(request, followup_id)


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
    return _done(
        request, followup_id, lambda: actions.note(request.auth, followup_id=followup_id, text=body.text)
    )


class TagIn(Schema):
    tag: str
    on: bool = True


@router.post("/follow-ups/{followup_id}/tag", response=OneOut)
def tag(request: MemberRequest, followup_id: int, body: TagIn) -> OneOut:
    """Put a tag on the person, or take it off."""
    actions.tag(request.auth, followup_id=followup_id, tag=body.tag, on=body.on)
    return whole(request, followup_id)
