"""The console's API on who is at the counter."""

from typing import Literal

from ninja import Schema, Status

from intavo import clock
from intavo.accounts.actions import set_away
from intavo.accounts.auth import MemberRequest
from intavo.accounts.queries import members
from intavo.core.presence import Until
from intavo.core.say import moment_words
from intavo.core.times import Moment

from ..actions import (
    go_away,
    set_usual_hours,
)
from ..models import MemberHours
from ..queries import main_hours, presences
from .router import router


class CounterIn(Schema):
    away: bool
    until: Literal["15-minutes", "1-hour", "time", "next-opening", "until-said"] = "until-said"
    time: Moment | None = None


class UsualIn(Schema):
    hours_id: int | None


class AtCounterOut(Schema):
    member: int
    name: str
    initials: str
    away: bool
    back: str
    hours_id: int | None


@router.put("/counter", response={204: None})
def counter(request: MemberRequest, body: CounterIn) -> Status[None]:
    """Say whether one is at the counter, and until when one is away."""
    if body.away:
        go_away(request.auth, until=Until(body.until), time=body.time)
    else:
        set_away(request.auth, None)
    return Status(204, None)


@router.get("/counter", response=list[AtCounterOut])
def at_the_counter(request: MemberRequest) -> list[AtCounterOut]:
    """Everybody of the business: who is at the counter, and when the others are back."""
    at, zone = clock.now(), main_hours(request.auth.business_id).value.zone
    by_id = {one.member: one for one in presences(request.auth.business_id)}
    usual = dict(
        MemberHours.objects.filter(business_id=request.auth.business_id).values_list("member_id", "hours_id")
    )
    everybody = []
    for row in members(request.auth):
        one = by_id[row.pk]
        away = one.is_away(at)
        back = one.away.back_at if one.away and away else None
        everybody.append(
            AtCounterOut(
                member=row.pk,
                name=row.called,
                initials=row.initials,
                away=away,
                back=moment_words(back, at, zone, "at") if back else "",
                hours_id=usual.get(row.pk),
            )
        )
    return everybody


@router.put("/members/{member_id}/hours", response={204: None})
def usual_hours(request: MemberRequest, member_id: int, body: UsualIn) -> Status[None]:
    """Say when a member is usually at the counter."""
    set_usual_hours(request.auth, member_id=member_id, hours_id=body.hours_id)
    return Status(204, None)
