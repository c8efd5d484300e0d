"""The console's API on who is signed in and on the business."""

from datetime import datetime
from typing import Annotated

import segno
from django.db import transaction
from ninja import Router, Schema, Status
from pydantic import Field

from intavo import clock
from intavo.core.deeds import deed_words
from intavo.core.places import currency_of, region_of, regions, zones
from intavo.core.rights import Right, Role, rights_of
from intavo.core.texts import Line
from intavo.core.tongues import home_of

from .actions import change_business, found_business
from .actor import member_actor
from .auth import MemberAuth, MemberRequest, UserAuth, UserRequest
from .membership import (
    change_member,
    invitations_of,
    invite,
    join,
    open_business,
    rename_user,
    revoke_invitation,
    take_out,
)
from .models import AuditEntry, Business, Member
from .queries import AUDIT_PAGE, audit, audit_verbs, businesses, members, membership, pending
from .sender import ask_sender

router = Router(tags=["business"])


class BusinessOut(Schema):
    id: int
    name: str
    timezone: str
    region: str
    language: str
    currency: str
    week_start: int
    mail_address: str
    mail_confirmed: bool
    promise_minutes: int | None

    @staticmethod
    def resolve_currency(business: Business) -> str:
        """What is paid with in its country."""
        return currency_of(business.region)

    @staticmethod
    def resolve_week_start(business: Business) -> int:
        """With which day a week begins in its country; 0 is Monday."""
        return home_of(business.region).first_week_day


class ZoneOut(Schema):
    key: str
    name: str
    region: str


class RegionOut(Schema):
    code: str
    name: str
    currency: str
    language: str


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
    back_at: datetime | None
    touchpoint_mail: bool
    sees_everybody: bool

    @staticmethod
    def of(member: Member) -> "MemberOut":
        """A member as the console shows them."""
        user = member.user
        return MemberOut(
            id=member.pk,
            name=user.name or user.email,
            email=user.email,
            initials=member.initials,
            role=member.role,
            away=member.is_away(clock.now()),
            back_at=member.back_at if member.is_away(clock.now()) else None,
            touchpoint_mail=member.touchpoint_mail,
            sees_everybody=member_actor(member).may(Right.EVERYBODY),
        )


class PlaceOut(Schema):
    id: int
    name: str


class InvitedOut(Schema):
    id: int
    business: str
    role: str


class MeOut(Schema):
    email: str
    name: str
    initials: str
    business: BusinessOut | None
    member: MemberOut | None
    rights: list[str]
    businesses: list[PlaceOut]
    invitations: list[InvitedOut]
    now: str
    clock_fixed: bool


class FoundIn(Schema):
    name: Line
    timezone: str
    region: str = "GB"
    language: str = ""
    # What whoever founds it is called; what is not said stays as it is.
    your_name: Line = Field(default_factory=str, max_length=120)


class BusinessIn(Schema):
    # What is not said stays as it is.
    name: Line = Field(default_factory=str)
    mail_address: str = Field(default_factory=str)
    promise_minutes: int | None = None
    region: str = Field(default_factory=str)
    language: str = Field(default_factory=str)


@router.get("/me", response=MeOut, auth=UserAuth())
def me(request: UserRequest) -> MeOut:
    """Who is signed in, and the server's time."""
    user = request.auth
    member = membership(user, request.session.get("business"))
    return MeOut(
        email=user.email,
        name=user.name,
        initials=member.initials if member else user.initials,
        businesses=[PlaceOut(id=one.pk, name=one.name) for one in businesses(user)],
        invitations=[
            InvitedOut(id=one.pk, business=one.business.name, role=one.role) for one in invitations_of(user)
        ],
        business=BusinessOut.from_orm(member.business) if member else None,
        member=MemberOut.of(member) if member else None,
        rights=[*rights_of(Role(member.role))] if member else [],
        now=clock.now().isoformat(),
        clock_fixed=clock.fixed() is not None,
    )


@router.get("/places", response=PlacesOut, auth=UserAuth())
def places(request: UserRequest, zone: str = "") -> PlacesOut:
    """Time zones and countries by their names; `zone` is what the browser says of itself, for a guess."""
    known = zones()
    region = region_of(zone)
    exact = next((one for one in known if one.key == zone), None)
    near = next((one for one in known if one.region == region), None)
    london = next(one for one in known if one.key == "Europe/London")
    return PlacesOut(
        zones=[ZoneOut.from_orm(one) for one in known],
        regions=[RegionOut.from_orm(one) for one in regions()],
        guess=ZoneOut.from_orm(exact or near or london),
    )


@router.post("/business", response={201: None}, auth=UserAuth())
def found(request: UserRequest, body: FoundIn) -> Status[None]:
    """Found a business."""
    with transaction.atomic():
        found_business(
            user=request.auth,
            name=body.name,
            timezone=body.timezone,
            region=body.region,
            language=body.language,
        )
        if body.your_name.strip():
            rename_user(request.auth, name=body.your_name)
    return Status(201, None)


@router.put("/business", response={204: None}, auth=MemberAuth())
def change(request: MemberRequest, body: BusinessIn) -> Status[None]:
    """Change what is said of the business."""
    change_business(request.auth, **body.dict(exclude_unset=True))
    return Status(204, None)


@router.post("/business/sender", response={204: None}, auth=MemberAuth())
def sender(request: MemberRequest) -> Status[None]:
    """Ask the address that mail is to come from once more."""
    ask_sender(request.auth)
    return Status(204, None)


@router.get("/members", response=list[MemberOut], auth=MemberAuth())
def list_members(request: MemberRequest) -> list[MemberOut]:
    """Everybody in the business."""
    return [MemberOut.of(member) for member in members(request.auth)]


class NameIn(Schema):
    name: str


class TextIn(Schema):
    text: Annotated[str, Field(min_length=1, max_length=500)]


class PictureOut(Schema):
    svg: str


class OpenIn(Schema):
    business_id: int


class InviteIn(Schema):
    email: str
    role: str
    name: str = ""


class RoleIn(Schema):
    role: str
    initials: str = ""
    # None: as it is.
    sees_everybody: bool | None = None


class PendingOut(Schema):
    id: int
    email: str
    name: str
    role: str
    expires_at: datetime


class EntryOut(Schema):
    id: int
    at: datetime
    who: str
    verb: str
    words: str


class LogOut(Schema):
    entries: list[EntryOut]
    verbs: list[str]
    more: bool


@router.put("/me", response={204: None}, auth=UserAuth())
def rename_me(request: UserRequest, body: NameIn) -> Status[None]:
    """One's own name."""
    rename_user(request.auth, name=body.name)
    return Status(204, None)


@router.post("/me/qr", response=PictureOut, auth=UserAuth())
def qr(request: UserRequest, body: TextIn) -> PictureOut:
    """A text as a QR code, for an authenticator to read. Source: ISO/IEC 18004, by segno."""
    return PictureOut(svg=segno.make(body.text, error="m").svg_inline(scale=4, border=4, light="#fff"))


@router.post("/me/business", response={204: None}, auth=UserAuth())
def switch(request: UserRequest, body: OpenIn) -> Status[None]:
    """Work in another business from now on."""
    request.session["business"] = open_business(request.auth, business_id=body.business_id)
    return Status(204, None)


@router.post("/invitations/{invitation_id}/join", response={204: None}, auth=UserAuth())
def join_business(request: UserRequest, invitation_id: int) -> Status[None]:
    """Take up an invitation, and work in that business from now on."""
    request.session["business"] = join(request.auth, invitation_id=invitation_id).business_id
    return Status(204, None)


@router.get("/invitations", response=list[PendingOut], auth=MemberAuth())
def invitations(request: MemberRequest) -> list[PendingOut]:
    """Who is invited and has not joined yet."""
    return [PendingOut.from_orm(one) for one in pending(request.auth)]


@router.post("/invitations", response={201: PendingOut}, auth=MemberAuth())
def invite_somebody(request: MemberRequest, body: InviteIn) -> Status[PendingOut]:
    """Invite somebody by mail."""
    row = invite(request.auth, email=body.email, role=body.role, name=body.name)
    return Status(201, PendingOut.from_orm(row))


@router.delete("/invitations/{invitation_id}", response={204: None}, auth=MemberAuth())
def take_back(request: MemberRequest, invitation_id: int) -> Status[None]:
    """Take an invitation back."""
    revoke_invitation(request.auth, invitation_id=invitation_id)
    return Status(204, None)


@router.put("/members/{member_id}", response=MemberOut, auth=MemberAuth())
def change_one(request: MemberRequest, member_id: int, body: RoleIn) -> MemberOut:
    """Another role, or other initials."""
    return MemberOut.of(
        change_member(
            request.auth,
            member_id=member_id,
            role=body.role,
            initials=body.initials,
            sees_everybody=body.sees_everybody,
        )
    )


@router.delete("/members/{member_id}", response={204: None}, auth=MemberAuth())
def take_one_out(request: MemberRequest, member_id: int, heir: int | None = None) -> Status[None]:
    """Take somebody out, or leave; what is theirs to do goes to `heir`, or to everybody."""
    take_out(request.auth, member_id=member_id, heir_id=heir)
    return Status(204, None)


@router.get("/audit", response=LogOut, auth=MemberAuth())
def log(
    request: MemberRequest, verb: str = "", member: int | None = None, before: int | None = None
) -> LogOut:
    """Who did what, in words, the newest first."""
    found = audit(request.auth, verb, member, before)
    return LogOut(
        entries=[_entry(one) for one in found[:AUDIT_PAGE]],
        verbs=audit_verbs(request.auth),
        more=len(found) > AUDIT_PAGE,
    )


def _entry(row: AuditEntry) -> EntryOut:
    who = row.member.called if row.member else "Somebody who is not a member any more"
    return EntryOut(id=row.pk, at=row.at, who=who, verb=row.verb, words=deed_words(row.verb, row.about))
