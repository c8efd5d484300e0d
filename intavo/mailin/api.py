"""The console's API on mail that comes in."""

from datetime import datetime
from typing import Any

from django.conf import settings
from django.http import HttpResponse
from ninja import Router, Schema, Status
from pydantic import Field

from intavo.accounts.auth import MemberAuth, MemberRequest
from intavo.accounts.scope import own
from intavo.core.rights import Right
from intavo.core.texts import Kept
from intavo.mail.actions import mail_in_of, own_mailbox
from intavo.mail.models import MailIn

from . import actions, aside
from .files import given_out
from .mailbox import drop_mailbox, set_mailbox
from .models import IncomingFile, IncomingMail, Mailbox

router = Router(tags=["mail in"], auth=MemberAuth())


class MailInOut(Schema):
    url: str
    address: str
    own: str
    direct: bool
    last: str | None
    count: int


class MailInIn(Schema):
    address: str
    direct: bool | None = None


def _out(row: MailIn) -> MailInOut:
    came = IncomingMail.objects.filter(business_id=row.business_id).order_by("-received_at")
    last = came.values_list("received_at", flat=True).first()
    return MailInOut(
        url=f"{settings.BASE_URL}/in/mail/{row.secret}",
        address=row.address,
        own=own_mailbox(row),
        direct=row.direct,
        last=last.isoformat() if last else None,
        count=came.count(),
    )


@router.get("/mail-in", response=MailInOut)
def mail_in(request: MemberRequest) -> MailInOut:
    """Where mail is handed in, and to which mailbox answers are sent."""
    request.auth.needs(Right.BUSINESS)
    return _out(mail_in_of(request.auth.business_id))


@router.put("/mail-in", response=MailInOut)
def set_mail_in(request: MemberRequest, body: MailInIn) -> MailInOut:
    """Say to which mailbox answers are sent."""
    return _out(actions.set_mail_in(request.auth, address=body.address, direct=body.direct))


@router.post("/mail-in/renew", response=MailInOut)
def renew(request: MemberRequest) -> MailInOut:
    """Another address to hand mail in at."""
    return _out(actions.renew_secret(request.auth))


class MailboxOut(Schema):
    host: str
    port: int
    user: str
    folder: str
    wrong: str
    read_at: datetime | None


class MailboxIn(Schema):
    host: Kept
    port: int = 993
    user: Kept
    password: Kept = ""
    folder: Kept = "INBOX"


@router.get("/mailbox", response=MailboxOut | None)
def mailbox(request: MemberRequest) -> Any:
    """The mailbox that is read, if one is."""
    request.auth.needs(Right.BUSINESS)
    return Mailbox.objects.filter(business_id=request.auth.business_id).first()


@router.put("/mailbox", response=MailboxOut)
def read_from(request: MemberRequest, body: MailboxIn) -> MailboxOut:
    """Have a mailbox read from now on; it is opened once to see that it can be."""
    return MailboxOut.from_orm(set_mailbox(request.auth, **body.model_dump()))


@router.delete("/mailbox", response={204: None})
def leave_mailbox(request: MemberRequest) -> Status[None]:
    """Read it no more."""
    drop_mailbox(request.auth)
    return Status(204, None)


class AsideFileOut(Schema):
    id: int
    name: str
    size: int
    risky: bool


class AsideOut(Schema):
    id: int
    received_at: datetime
    sender: str
    name: str
    subject: str
    said: str
    kind: str
    became: str
    looked: bool
    files: list[AsideFileOut]


@router.get("/mail-aside", response=list[AsideOut])
def mail_aside(request: MemberRequest, q: str = "") -> Any:
    """What came in and is not on the list, the last first; with these words in it."""
    return [_aside_out(row) for row in aside.lying_aside(request.auth, q[:200])[:MOST_ASIDE]]


MOST_ASIDE = 200


def _aside_out(row: IncomingMail) -> AsideOut:
    files = [AsideFileOut.from_orm(one) for one in row.files.all()]
    return AsideOut(
        id=row.pk,
        received_at=row.received_at,
        sender=row.sender,
        name=row.name,
        subject=row.subject,
        said=row.said,
        kind=row.kind,
        became=row.became,
        looked=row.looked,
        files=files,
    )


class LookedIn(Schema):
    through: int = Field(ge=1, le=2**53)


@router.post("/mail-aside/looked", response={204: None})
def looked(request: MemberRequest, body: LookedIn) -> Status[None]:
    """It was looked through, as far as the one with this id."""
    aside.looked_at(request.auth, through=body.through)
    return Status(204, None)


class TakenUpOut(Schema):
    followup_id: int


@router.post("/mail-aside/{mail_id}/take-up", response=TakenUpOut)
def take_up(request: MemberRequest, mail_id: int) -> TakenUpOut:
    """Put it on the list."""
    return TakenUpOut(followup_id=aside.take_up(request.auth, mail_id=mail_id))


@router.get("/mail-files/{file_id}")
def mail_file(request: MemberRequest, file_id: int) -> HttpResponse:
    """A file that came by mail, to be saved."""
    request.auth.needs(Right.SEE)
    return given_out(own(request.auth, IncomingFile, file_id))
