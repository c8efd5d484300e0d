"""What the editor's stage shows of hours, times and questions: the same as the visitor is given."""

from typing import Any

from ninja import Router

from intavo.accounts.auth import MemberAuth, MemberRequest
from intavo.core.touchpoint import Document
from intavo.project import clock
from intavo.touchpoints.live import live_site
from intavo.touchpoints.queries import touchpoints_of

from .more import extras

router = Router(tags=["touchpoints"], auth=MemberAuth())


@router.get("/touchpoints/{touchpoint_id}/extras", response=dict[str, Any])
def stage_extras(request: MemberRequest, touchpoint_id: int) -> dict[str, Any]:
    """What the draft's parts need besides the document; empty where it stands on no site."""
    row = touchpoints_of(request.auth).get(pk=touchpoint_id)
    placed = next(iter(row.sites.all()), None)
    site = live_site(placed.key) if placed else None
    if site is None or row.draft is None:
        return {}
    found = extras(row.business_id, Document.model_validate(row.draft.document), site, row.pk, clock.now())
    return found | {"code": "SAMPLE-42"}
