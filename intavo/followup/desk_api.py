"""The console's API on who is at a follow-up, and on what is being written there."""

from ninja import Router, Schema, Status

from intavo.accounts.auth import MemberAuth, MemberRequest

from .desk import get_up, sit_down

router = Router(tags=["follow-up"], auth=MemberAuth())


class ColleagueOut(Schema):
    name: str
    writing: bool


class DeskIn(Schema):
    # What is being written; none: as it was.
    draft: str | None = None
    writing: bool = False


@router.post("/follow-ups/{followup_id}/desk", response=list[ColleagueOut])
def at_desk(request: MemberRequest, followup_id: int, body: DeskIn) -> list[ColleagueOut]:
    """Say that one is at it, and keep what is being written; says who else is at it."""
    found = sit_down(request.auth, followup_id=followup_id, draft=body.draft, writing=body.writing)
    return [ColleagueOut.from_orm(one) for one in found]


@router.delete("/follow-ups/{followup_id}/desk", response={204: None})
def leave_desk(request: MemberRequest, followup_id: int) -> Status[None]:
    """Say that one looks at something else."""
    get_up(request.auth, followup_id=followup_id)
    return Status(204, None)
