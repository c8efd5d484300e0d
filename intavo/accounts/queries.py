"""Reads on businesses and members."""

from intavo.core.rights import Right

from .actor import Actor
from .models import AuditEntry, Business, Invitation, Member, User


def business_of(actor: Actor) -> Business:
    """The actor's business."""
    return Business.objects.get(pk=actor.business_id)


def membership(user: User, business_id: int | None = None) -> Member | None:
    """A user's place: in the business named, or else the first."""
    found = Member.objects.select_related("business", "user").filter(user=user).order_by("pk")
    named = found.filter(business_id=business_id).first() if business_id else None
    return named or found.first()


def businesses(user: User) -> list[Business]:
    """Every business that a user belongs to."""
    return [
        one.business for one in Member.objects.select_related("business").filter(user=user).order_by("pk")
    ]


def pending(actor: Actor) -> list[Invitation]:
    """Who is invited and has not joined yet."""
    return list(Invitation.objects.filter(business_id=actor.business_id).order_by("pk"))


AUDIT_PAGE = 50


def audit(
    actor: Actor, verb: str = "", member_id: int | None = None, before: int | None = None
) -> list[AuditEntry]:
    """Who did what, the newest first: of a verb, of a member, older than an entry."""
    actor.needs(Right.BUSINESS)
    rows = (
        AuditEntry.objects.select_related("member__user")
        .filter(business_id=actor.business_id)
        .order_by("-pk")
    )
    rows = rows.filter(verb=verb) if verb else rows
    rows = rows.filter(member_id=member_id) if member_id else rows
    return list((rows.filter(pk__lt=before) if before else rows)[: AUDIT_PAGE + 1])


def audit_verbs(actor: Actor) -> list[str]:
    """Every verb that stands in the log."""
    rows = AuditEntry.objects.filter(business_id=actor.business_id)
    return sorted(rows.order_by().values_list("verb", flat=True).distinct())


def members(actor: Actor) -> list[Member]:
    """Everybody in the actor's business."""
    return list(Member.objects.select_related("user").filter(business_id=actor.business_id).order_by("pk"))
