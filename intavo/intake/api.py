"""The console's API on what was set aside as spam."""

from datetime import datetime

from ninja import Router, Schema, Status

from intavo.accounts.auth import MemberAuth, MemberRequest
from intavo.touchpoints.models import Touchpoint

from . import actions
from .models import Quarantined
from .queries import quarantine_of

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
            id=row.pk, received_at=row.received_at, reason=row.reason,
            touchpoint=names.get(row.touchpoint, row.touchpoint), page=row.raw.get("page", {}).get("url", ""),
            typed=[TypedOut(name=k, value=str(v)) for k, v in row.raw.get("answers", {}).items() if v],
        )  # fmt: skip


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
