"""The console's API on mail that comes in."""

from django.conf import settings
from django.http import HttpResponse
from ninja import Router, Schema

from intavo.accounts.auth import MemberAuth, MemberRequest
from intavo.accounts.scope import own
from intavo.core.rights import Right
from intavo.mail.models import MailIn

from . import actions
from .files import given_out
from .models import IncomingFile, IncomingMail

router = Router(tags=["mail in"], auth=MemberAuth())


class MailInOut(Schema):
    url: str
    address: str
    last: str | None
    count: int


class MailInIn(Schema):
    address: str


def _out(row: MailIn) -> MailInOut:
    came = IncomingMail.objects.filter(business_id=row.business_id).order_by("-received_at")
    last = came.values_list("received_at", flat=True).first()
    return MailInOut(
        url=f"{settings.BASE_URL}/in/mail/{row.secret}", address=row.address,
        last=last.isoformat() if last else None, count=came.count(),
    )  # fmt: skip


@router.get("/mail-in", response=MailInOut)
def mail_in(request: MemberRequest) -> MailInOut:
    """Where mail is handed in, and to which mailbox answers are sent."""
    request.auth.needs(Right.BUSINESS)
    return _out(actions.mail_in_of(request.auth.business_id))


@router.put("/mail-in", response=MailInOut)
def set_mail_in(request: MemberRequest, body: MailInIn) -> MailInOut:
    """Say to which mailbox answers are sent."""
    return _out(actions.set_mail_in(request.auth, address=body.address))


@router.post("/mail-in/renew", response=MailInOut)
def renew(request: MemberRequest) -> MailInOut:
    """Another address to hand mail in at."""
    return _out(actions.renew_secret(request.auth))


@router.get("/mail-files/{file_id}")
def mail_file(request: MemberRequest, file_id: int) -> HttpResponse:
    """A file that came by mail, to be saved."""
    request.auth.needs(Right.SEE)
    return given_out(own(request.auth, IncomingFile, file_id))
