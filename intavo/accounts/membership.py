"""Who belongs to a business: invited by mail, joined, changed, taken out; and which of several is open."""

from datetime import timedelta
from urllib.parse import urlencode

from allauth.account.models import EmailAddress
from django.conf import settings
from django.db import transaction

from intavo import clock
from intavo.core.people import email_address
from intavo.core.people.naming import name_in_mail
from intavo.core.rights import MEMBERS, Right, Role

from .actor import Actor, NotAllowed, Refused, member_actor
from .daily import few_a_day
from .effects import Leaving, business_changed, member_leaves
from .mails import queue_mail
from .models import Business, Invitation, Member, User
from .scope import own

LASTS = timedelta(days=14)
_MOST_A_DAY = 30
_INVITED = """Hello{name},

{who} invites you to {business} on Intavo, as {role}.
{how} with this address, and you are asked to join:

{link}

The invitation lasts fourteen days. If you do not know {business}, do nothing.

Intavo
"""


_AS = {Role.OWNER: "an owner", Role.MANAGER: "a manager", Role.STAFF: "a member of the staff"}


def invite(actor: Actor, *, email: str, role: str, name: str = "") -> Invitation:
    """Invite somebody by mail; asked again, the invitation is renewed. Refused with what is wrong."""
    actor.needs(Right.BUSINESS)
    errors: list[tuple[str, str]] = []
    address = ""
    try:
        address = email_address(email).shown
    except ValueError as error:
        errors.append(("email", str(error)))
    if role not in {one.value for one in MEMBERS}:
        errors.append(("role", "Choose owner, manager or staff."))
    if address and Member.objects.filter(business_id=actor.business_id, user__email__iexact=address).exists():
        errors.append(("email", "They are a member already."))
    if errors:
        raise Refused(*errors)
    few_a_day(actor, "member invited", _MOST_A_DAY, "email")
    title = name_in_mail(name)[:120]
    with transaction.atomic():
        row, _ = Invitation.objects.update_or_create(
            business_id=actor.business_id,
            email=address.lower(),
            defaults={
                "role": role,
                "name": title,
                "expires_at": clock.now() + LASTS,
                "invited_by_id": actor.member_id,
            },
        )
        business = Business.objects.get(pk=actor.business_id)
        who = User.objects.get(memberships__pk=actor.member_id or 0)
        text = _INVITED.format(
            name=f" {title}" if title else "",
            who=who.name or who.email,
            business=business.name,
            role=_AS[Role(role)],
            **_way_in(address),
        )
        subject = f"{business.name} invites you"
        queue_mail(to=address, subject=subject, text=text)
        actor.noted("member invited", email=address, role=role)
    return row


def _way_in(address: str) -> dict[str, str]:
    """Where the mail leads: to signing up, unless somebody has an account with the address."""
    if User.objects.filter(email__iexact=address).exists():
        return {"how": "Sign in", "link": f"{settings.BASE_URL}/welcome"}
    return {"how": "Sign up", "link": f"{settings.BASE_URL}/sign-up?{urlencode({'email': address})}"}


def revoke_invitation(actor: Actor, *, invitation_id: int) -> None:
    """The invitation is good no longer."""
    actor.needs(Right.BUSINESS)
    row = own(actor, Invitation, invitation_id)
    with transaction.atomic():
        actor.noted("invitation taken back", email=row.email)
        row.delete()


def invitations_of(user: User) -> list[Invitation]:
    """What a user is invited to, by the addresses that they have confirmed."""
    confirmed = [
        one.lower()
        for one in EmailAddress.objects.filter(user=user, verified=True).values_list("email", flat=True)
    ]
    rows = Invitation.objects.select_related("business").filter(
        email__in=confirmed, expires_at__gt=clock.now()
    )
    return list(rows.order_by("pk"))


def join(user: User, *, invitation_id: int) -> Actor:
    """Take an invitation up; raises Invitation.DoesNotExist for one that is not theirs, or over."""
    with transaction.atomic():
        row = next((one for one in invitations_of(user) if one.pk == invitation_id), None)
        if row is None:
            raise Invitation.DoesNotExist
        member, _ = Member.objects.get_or_create(
            business=row.business, user=user, defaults={"role": row.role}
        )
        if row.name and not user.name:
            User.objects.filter(pk=user.pk).update(name=row.name)
        row.delete()
        actor = member_actor(member)
        business_changed.tell(actor.business_id)
        actor.noted("member joined", role=member.role)
    return actor


def _locked(actor: Actor, member_id: int) -> Member:
    """The member, with every owner held fast, so that two at once cannot take out the last one."""
    list(
        Member.objects.select_for_update().filter(business_id=actor.business_id).values_list("pk", flat=True)
    )
    return own(actor, Member.objects.select_related("user"), member_id)


def _keep_an_owner(member: Member) -> None:
    owners = Member.objects.filter(business_id=member.business_id, role=Role.OWNER.value)
    if member.role == Role.OWNER.value and owners.count() == 1:
        raise Refused(("role", "They are the only owner: make somebody else one first."))


def change_member(
    actor: Actor, *, member_id: int, role: str, initials: str = "", sees_everybody: bool | None = None
) -> Member:
    """Another role, other initials, or whether they see everybody (None: as it is); the last owner stays
    one.
    """
    actor.needs(Right.BUSINESS)
    if role not in {one.value for one in MEMBERS}:
        raise Refused(("role", "Choose owner, manager or staff."))
    letters = "".join(initials.split())[:3].upper()
    with transaction.atomic():
        member = _locked(actor, member_id)
        if role != member.role:
            _keep_an_owner(member)
        member.role, member.own_initials = role, letters
        if sees_everybody is not None and sees_everybody != member.sees_everybody:
            member.sees_everybody = sees_everybody
            actor.noted("everybody shown" if sees_everybody else "everybody hidden", member=member.user.email)
        member.save(update_fields=["role", "own_initials", "sees_everybody"])
        actor.noted("member changed", member=member.user.email, role=role)
    return member


def take_out(actor: Actor, *, member_id: int, heir_id: int | None = None) -> None:
    """Take somebody out of the business, or leave it oneself; the last owner stays.

    What is theirs to do goes to `heir_id`, another member, or (None) to everybody.
    """
    if member_id != actor.member_id:
        actor.needs(Right.BUSINESS)
    with transaction.atomic():
        member = _locked(actor, member_id)
        _keep_an_owner(member)
        heir = _heir(actor, member_id, heir_id)
        member_leaves.tell(Leaving(actor, member_id, heir_id))
        about = {"member": member.user.email, "heir": heir.called if heir else ""}
        actor.noted("member left" if member_id == actor.member_id else "member taken out", **about)
        member.delete()
        business_changed.tell(actor.business_id)


def _heir(actor: Actor, member_id: int, heir_id: int | None) -> Member | None:
    if heir_id is None:
        return None
    others = Member.objects.filter(business_id=actor.business_id).exclude(pk=member_id).select_related("user")
    heir = others.filter(pk=heir_id).first()
    if heir is None:
        raise Refused(("heir", "Choose somebody else of the business, or everybody."))
    return heir


def rename_user(user: User, *, name: str) -> None:
    """One's own name, as others read it."""
    title = " ".join(name.split())
    if not title or len(title) > 120:
        raise Refused(("name", "Please write a name of at most 120 characters."))
    with transaction.atomic():
        User.objects.filter(pk=user.pk).update(name=title)


def open_business(user: User, *, business_id: int) -> int:
    """The business to work in from now on; NotAllowed for one they do not belong to."""
    if not Member.objects.filter(user=user, business_id=business_id).exists():
        raise NotAllowed(Right.SEE)
    return business_id
