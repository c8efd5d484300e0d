"""What a touchpoint was before: undo, redo, named and dated versions."""

from datetime import datetime
from typing import Annotated, Any

from ninja import Router, Schema

from intavo.accounts.auth import MemberRequest
from intavo.core.holds import Holds
from intavo.core.touchpoint import Document, SeenDocument, changes, for_visitors

from .. import actions
from ..models import Touchpoint, TouchpointRevision
from ..queries import house_of, revisions_of, touchpoints_of
from .shapes import ChangeOut, DraftOut, draft_out

router = Router()


class RevisionOut(Schema):
    number: int
    name: str
    saved_at: datetime
    saved_by: str
    published_at: datetime | None
    is_draft: bool
    is_live: bool


class RevisionSeenOut(RevisionOut):
    seen: Annotated[dict[str, Any], Holds(SeenDocument)]
    changes: list[ChangeOut]


class RevisionNameIn(Schema):
    name: str


def _out(row: Touchpoint, revision: TouchpointRevision) -> dict[str, Any]:
    return {
        "number": revision.number,
        "name": revision.name,
        "saved_at": revision.saved_at,
        "published_at": revision.published_at,
        "saved_by": revision.saved_by.user.name if revision.saved_by else "",
        "is_draft": revision.pk == row.draft_id,
        "is_live": revision.pk == row.live_id,
    }


@router.post("/touchpoints/{touchpoint_id}/undo", response=DraftOut)
def undo(request: MemberRequest, touchpoint_id: int) -> DraftOut:
    """Take the draft one revision back."""
    actions.undo(request.auth, touchpoint_id=touchpoint_id)
    return draft_out(request, touchpoint_id)


@router.post("/touchpoints/{touchpoint_id}/redo", response=DraftOut)
def redo(request: MemberRequest, touchpoint_id: int) -> DraftOut:
    """Take the draft one revision forward again."""
    actions.redo(request.auth, touchpoint_id=touchpoint_id)
    return draft_out(request, touchpoint_id)


@router.get("/touchpoints/{touchpoint_id}/revisions", response=list[RevisionOut])
def revisions(request: MemberRequest, touchpoint_id: int) -> list[RevisionOut]:
    """Every version, the newest first."""
    row = touchpoints_of(request.auth).get(pk=touchpoint_id)
    return [RevisionOut(**_out(row, one)) for one in revisions_of(row)[:500]]


@router.get("/touchpoints/{touchpoint_id}/revisions/{number}", response=RevisionSeenOut)
def revision(request: MemberRequest, touchpoint_id: int, number: int) -> RevisionSeenOut:
    """One version as it looked, and what is different now."""
    row = touchpoints_of(request.auth).get(pk=touchpoint_id)
    one = revisions_of(row).get(number=number)
    document = Document.model_validate(one.document)
    assert row.draft is not None
    since = changes(document, Document.model_validate(row.draft.document))
    house = house_of(next(iter(row.sites.all()), None))
    return RevisionSeenOut(
        **_out(row, one),
        seen=for_visitors(document, house),
        changes=[ChangeOut(place=change.place, words=change.words) for change in since],
    )


@router.put("/touchpoints/{touchpoint_id}/revisions/{number}/name", response=list[RevisionOut])
def name_revision(
    request: MemberRequest, touchpoint_id: int, number: int, body: RevisionNameIn
) -> list[RevisionOut]:
    """Give a version a name."""
    actions.name_revision(request.auth, touchpoint_id=touchpoint_id, number=number, name=body.name)
    return revisions(request, touchpoint_id)


@router.post("/touchpoints/{touchpoint_id}/revisions/{number}/return", response=DraftOut)
def return_to(request: MemberRequest, touchpoint_id: int, number: int) -> DraftOut:
    """Make it the draft again."""
    actions.return_to(request.auth, touchpoint_id=touchpoint_id, number=number)
    return draft_out(request, touchpoint_id)
