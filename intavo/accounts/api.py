"""The console's API on who is signed in and on the business."""

from ninja import Router, Schema, Status

from intavo.core.places import currency_of, region_of, regions, zones
from intavo.project import clock

from .actions import change_business, found_business, set_away
from .auth import MemberAuth, MemberRequest, UserAuth, UserRequest
from .models import Business, Member
from .queries import members, membership

router = Router(tags=["business"])


class BusinessOut(Schema):
    id: int
    name: str
    timezone: str
    region: str
    currency: str
    mail_address: str
    promise_minutes: int | None

    @staticmethod
    def resolve_currency(business: Business) -> str:
        """What is paid with in its country."""
        return currency_of(business.region)


class ZoneOut(Schema):
    key: str
    name: str
    region: str


class RegionOut(Schema):
    code: str
    name: str
    currency: str


class PlacesOut(Schema):
    zones: list[ZoneOut]
    regions: list[RegionOut]
    guess: ZoneOut


class MemberOut(Schema):
    id: int
    name: str
    email: str
    initials: str
    role: str
    away: bool

    @staticmethod
    def of(member: Member) -> "MemberOut":
        """A member as the console shows them."""
        user = member.user
        return MemberOut(
            id=member.pk, name=user.name or user.email, email=user.email, initials=user.initials, role=member.role,
            away=member.away,
        )  # fmt: skip


class MeOut(Schema):
    email: str
    name: str
    initials: str
    business: BusinessOut | None
    member: MemberOut | None
    now: str
    clock_fixed: bool


class FoundIn(Schema):
    name: str
    timezone: str
    region: str = "GB"


class BusinessIn(Schema):
    name: str
    mail_address: str
    promise_minutes: int | None


class AwayIn(Schema):
    away: bool


@router.get("/me", response=MeOut, auth=UserAuth())
def me(request: UserRequest) -> MeOut:
    """Who is signed in, and the server's time."""
    user = request.auth
    member = membership(user, request.session.get("business"))
    return MeOut(
        email=user.email, name=user.name, initials=user.initials,
        business=BusinessOut.from_orm(member.business) if member else None,
        member=MemberOut.of(member) if member else None,
        now=clock.now().isoformat(), clock_fixed=clock.fixed() is not None,
    )  # fmt: skip


@router.get("/places", response=PlacesOut, auth=UserAuth())
def places(request: UserRequest, zone: str = "") -> PlacesOut:
    """Time zones and countries by their names; `zone` is what the browser says of itself, for a guess."""
    known = zones()
    region = region_of(zone)
    exact = next((one for one in known if one.key == zone), None)
    near = next((one for one in known if one.region == region), None)
    london = next(one for one in known if one.key == "Europe/London")
    return PlacesOut(
        zones=[ZoneOut.from_orm(one) for one in known], regions=[RegionOut.from_orm(one) for one in regions()],
        guess=ZoneOut.from_orm(exact or near or london),
    )  # fmt: skip


@router.post("/business", response={201: None}, auth=UserAuth())
def found(request: UserRequest, body: FoundIn) -> Status[None]:
    """Found a business."""
    found_business(user=request.auth, name=body.name, timezone=body.timezone, region=body.region)
    return Status(201, None)


@router.put("/business", response={204: None}, auth=MemberAuth())
def change(request: MemberRequest, body: BusinessIn) -> Status[None]:
    """Change the business."""
    change_business(request.auth, name=body.name, mail_address=body.mail_address, promise_minutes=body.promise_minutes)
    return Status(204, None)


@router.get("/members", response=list[MemberOut], auth=MemberAuth())
def list_members(request: MemberRequest) -> list[MemberOut]:
    """Everybody in the business."""
    return [MemberOut.of(member) for member in members(request.auth)]


@router.put("/counter", response={204: None}, auth=MemberAuth())
def counter(request: MemberRequest, body: AwayIn) -> Status[None]:
    """Say whether one is away from the counter."""
    set_away(request.auth, away=body.away)
    return Status(204, None)
