"""What comes after: codes, the secret address of the answers, the open file."""

from django.http import HttpResponse
from ninja import Router, Schema

from intavo.accounts.auth import MemberRequest
from intavo.core.touchpoint import Document, written
from intavo.core.touchpoint.openfile import ENDING

from .. import actions
from ..queries import touchpoints_of
from .shapes import DraftOut, draft_out

router = Router()


class CodesIn(Schema):
    codes: str


class CodesOut(Schema):
    added: int
    known: int
    draft: DraftOut


@router.post("/touchpoints/{touchpoint_id}/codes", response=CodesOut)
def add_codes(request: MemberRequest, touchpoint_id: int, body: CodesIn) -> CodesOut:
    """Add codes, a line each or CSV."""
    added, known = actions.add_codes(request.auth, touchpoint_id=touchpoint_id, text=body.codes)
    return CodesOut(added=added, known=known, draft=draft_out(request, touchpoint_id))


@router.delete("/touchpoints/{touchpoint_id}/codes", response=DraftOut)
def drop_codes(request: MemberRequest, touchpoint_id: int) -> DraftOut:
    """Throw away the codes that nobody has been given."""
    actions.drop_codes(request.auth, touchpoint_id=touchpoint_id)
    return draft_out(request, touchpoint_id)


@router.post("/touchpoints/{touchpoint_id}/csv", response=DraftOut)
def csv_address(request: MemberRequest, touchpoint_id: int) -> DraftOut:
    """Make a new secret address of the answers; the one before works no longer."""
    actions.csv_address(request.auth, touchpoint_id=touchpoint_id)
    return draft_out(request, touchpoint_id)


@router.delete("/touchpoints/{touchpoint_id}/csv", response=DraftOut)
def revoke_csv(request: MemberRequest, touchpoint_id: int) -> DraftOut:
    """Revoke the address."""
    actions.revoke_csv(request.auth, touchpoint_id=touchpoint_id)
    return draft_out(request, touchpoint_id)


@router.get("/touchpoints/{touchpoint_id}/file")
def file(request: MemberRequest, touchpoint_id: int) -> HttpResponse:
    """The draft as an open file."""
    row = touchpoints_of(request.auth).get(pk=touchpoint_id)
    assert row.draft is not None
    text = written(Document.model_validate(row.draft.document))
    response = HttpResponse(text, content_type="application/json")
    response["Content-Disposition"] = f'attachment; filename="{row.slug}{ENDING}"'
    return response
