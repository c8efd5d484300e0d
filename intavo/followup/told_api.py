"""The console's API on what a member is told, and on what has come in since they looked."""

from typing import Any

from ninja import Router, Schema

from intavo import clock
from intavo.accounts.auth import MemberAuth, MemberRequest
from intavo.core.hours import is_open
from intavo.hours.queries import main_hours

from .queries import came_in
from .reminding import wish, wishes_of

router = Router(tags=["follow-up"], auth=MemberAuth())


class WishesOut(Schema):
    before_minutes: int | None
    when_late: bool
    morning: bool
    untouched_days: int | None
    notify: bool
    sound: bool
    touchpoints: bool


class WishesIn(Schema):
    before_minutes: int | None = None
    when_late: bool = True
    morning: bool = False
    untouched_days: int | None = 3
    notify: bool = False
    sound: bool = False
    touchpoints: bool = True


@router.get("/me/told", response=WishesOut)
def what_i_am_told(request: MemberRequest) -> WishesOut:
    """What the member is told, and how."""
    return WishesOut.from_orm(wishes_of(request.auth))


@router.put("/me/told", response=WishesOut)
def tell_me(request: MemberRequest, body: WishesIn) -> WishesOut:
    """Change what the member is told."""
    return WishesOut.from_orm(wish(request.auth, said=body.model_dump()))


class ArrivalOut(Schema):
    id: int
    followup_id: int | None
    called: str
    text: str


class ArrivalsOut(Schema):
    last: int
    open_now: bool
    came: list[ArrivalOut]


@router.get("/arrivals", response=ArrivalsOut)
def arrivals(request: MemberRequest, after: int | None = None) -> dict[str, Any]:
    """What came in from people after an entry (none: only which is the last), and whether it is open now."""
    last, found = came_in(request.auth, after)
    return {
        "last": last, "open_now": is_open(main_hours(request.auth.business_id).value, clock.now()),
        "came": [ArrivalOut.from_orm(one) for one in found],
    }  # fmt: skip
