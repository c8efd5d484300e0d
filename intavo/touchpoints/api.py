"""The console's API on touchpoints."""

from datetime import datetime
from typing import Any

from django.conf import settings
from ninja import Router, Schema, Status

from intavo.accounts.auth import MemberAuth, MemberRequest
from intavo.core.touchpoint import STARTERS, Document, ready_check

from . import actions
from .models import Touchpoint
from .queries import touchpoints_of

router = Router(tags=["touchpoints"], auth=MemberAuth())


class StarterOut(Schema):
    key: str
    name: str
    about: str
    document: dict[str, Any]


class FindingOut(Schema):
    level: str
    message: str
    place: str


class PlacedOut(Schema):
    id: int
    name: str
    slug: str


class TouchpointOut(Schema):
    id: int
    public_id: str
    name: str
    slug: str
    state: str
    purpose: str
    stance: str
    pages: list[str]
    changed_since_live: bool
    sites: list[PlacedOut]
    hosted: list[str]


class DraftOut(TouchpointOut):
    document: dict[str, Any]
    number: int
    saved_at: datetime
    saved_by: str
    live_number: int | None
    can_undo: bool
    can_redo: bool
    findings: list[FindingOut]


class MakeIn(Schema):
    starter: str
    name: str = ""


class NameIn(Schema):
    name: str


class DraftIn(Schema):
    document: dict[str, Any]
    based_on: int
    run: str = ""


def _summary(row: Touchpoint) -> dict[str, Any]:
    assert row.draft is not None
    show = row.draft.document["show"]
    sites = list(row.sites.all())
    return {
        "id": row.pk, "public_id": row.public_id, "name": row.name, "slug": row.slug, "state": row.state,
        "purpose": row.draft.document["purpose"], "stance": row.draft.document["stance"],
        "pages": [pattern["path"] for sentence in show["sentences"] for pattern in sentence["pages"]],
        "changed_since_live": row.changed_since_live,
        "sites": [PlacedOut(id=site.pk, name=site.name, slug=site.slug) for site in sites],
        "hosted": [f"{settings.BASE_URL}/t/{site.slug}/{row.slug}" for site in sites],
    }  # fmt: skip


def _draft(request: MemberRequest, touchpoint_id: int) -> DraftOut:
    row = touchpoints_of(request.auth).get(pk=touchpoint_id)
    draft = row.draft
    assert draft is not None
    sites = list(row.sites.all())
    findings = ready_check(
        Document.model_validate(draft.document), bool(sites), any(site.seen_at is not None for site in sites)
    )
    return DraftOut(
        **_summary(row), document=draft.document, number=draft.number, saved_at=draft.saved_at,
        saved_by=draft.saved_by.user.name if draft.saved_by else "", live_number=row.live.number if row.live else None,
        can_undo=draft.parent_id is not None, can_redo=draft.children.exists(),
        findings=[FindingOut(level=f.level, message=f.message, place=f.place) for f in findings],
    )  # fmt: skip


@router.get("/starters", response=list[StarterOut])
def starters(request: MemberRequest) -> list[StarterOut]:
    """What a touchpoint can be started from."""
    return [
        StarterOut(key=one.key, name=one.name, about=one.about, document=one.document.model_dump(mode="json"))
        for one in STARTERS
    ]


@router.get("/touchpoints", response=list[TouchpointOut])
def list_touchpoints(request: MemberRequest) -> list[TouchpointOut]:
    """The business's touchpoints in the owner's order."""
    return [TouchpointOut(**_summary(row)) for row in touchpoints_of(request.auth)]


@router.post("/touchpoints", response={201: DraftOut})
def make(request: MemberRequest, body: MakeIn) -> Status[DraftOut]:
    """Make a touchpoint from a starter."""
    row = actions.make(request.auth, starter=body.starter, name=body.name)
    return Status(201, _draft(request, row.pk))


@router.get("/touchpoints/{touchpoint_id}", response=DraftOut)
def one(request: MemberRequest, touchpoint_id: int) -> DraftOut:
    """A touchpoint with its draft and the ready check."""
    return _draft(request, touchpoint_id)


@router.put("/touchpoints/{touchpoint_id}/draft", response=DraftOut)
def save_draft(request: MemberRequest, touchpoint_id: int, body: DraftIn) -> DraftOut:
    """Keep an edited document."""
    actions.save_draft(
        request.auth, touchpoint_id=touchpoint_id, document=body.document, based_on=body.based_on, run=body.run
    )
    return _draft(request, touchpoint_id)


@router.put("/touchpoints/{touchpoint_id}/name", response=DraftOut)
def rename(request: MemberRequest, touchpoint_id: int, body: NameIn) -> DraftOut:
    """Rename it."""
    actions.rename(request.auth, touchpoint_id=touchpoint_id, name=body.name)
    return _draft(request, touchpoint_id)


@router.post("/touchpoints/{touchpoint_id}/undo", response=DraftOut)
def undo(request: MemberRequest, touchpoint_id: int) -> DraftOut:
    """Take the draft one revision back."""
    actions.undo(request.auth, touchpoint_id=touchpoint_id)
    return _draft(request, touchpoint_id)


@router.post("/touchpoints/{touchpoint_id}/redo", response=DraftOut)
def redo(request: MemberRequest, touchpoint_id: int) -> DraftOut:
    """Take the draft one revision forward again."""
    actions.redo(request.auth, touchpoint_id=touchpoint_id)
    return _draft(request, touchpoint_id)


@router.post("/touchpoints/{touchpoint_id}/on", response=DraftOut)
def turn_on(request: MemberRequest, touchpoint_id: int) -> DraftOut:
    """Turn it on."""
    actions.turn_on(request.auth, touchpoint_id=touchpoint_id)
    return _draft(request, touchpoint_id)


@router.post("/touchpoints/{touchpoint_id}/off", response=DraftOut)
def turn_off(request: MemberRequest, touchpoint_id: int) -> DraftOut:
    """Turn it off."""
    actions.turn_off(request.auth, touchpoint_id=touchpoint_id)
    return _draft(request, touchpoint_id)


@router.post("/touchpoints/{touchpoint_id}/live", response=DraftOut)
def put_live(request: MemberRequest, touchpoint_id: int) -> DraftOut:
    """Give visitors the draft as it is now."""
    actions.put_live(request.auth, touchpoint_id=touchpoint_id)
    return _draft(request, touchpoint_id)
