"""Reads on businesses and members."""

from .actor import Actor
from .models import Business, Member, User


def business_of(actor: Actor) -> Business:
    """The actor's business."""
    return Business.objects.get(pk=actor.business_id)


def membership(user: User, business_id: int | None = None) -> Member | None:
    """A user's place: in the business named, or else the first."""
    found = Member.objects.select_related("business", "user").filter(user=user).order_by("pk")
    return (found.filter(business_id=business_id) if business_id else found).first()


def somebody_free(business_id: int) -> bool:
    """Whether any member is at the counter."""
    return Member.objects.filter(business_id=business_id, away=False).exists()


def members(actor: Actor) -> list[Member]:
    """Everybody in the actor's business."""
    return list(Member.objects.select_related("user").filter(business_id=actor.business_id).order_by("pk"))
