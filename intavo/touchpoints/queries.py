"""Reads on touchpoints."""

from django.db.models import QuerySet

from intavo.accounts.actor import Actor
from intavo.core.showing import State

from .models import Touchpoint, TouchpointRevision


def touchpoints_of(actor: Actor) -> QuerySet[Touchpoint]:
    """The business's touchpoints with their revisions and sites, in the owner's order."""
    rows = Touchpoint.objects.filter(business_id=actor.business_id).select_related("draft__saved_by__user", "live")
    return rows.prefetch_related("sites").order_by("order", "pk")


def live_on(site_id: int) -> list[Touchpoint]:
    """Touchpoints that are on and stand on a site."""
    rows = Touchpoint.objects.filter(sites=site_id, state=State.LIVE.value).select_related("live")
    return list(rows.order_by("order", "pk"))


def published(business_id: int, public_id: str, number: int) -> TouchpointRevision | None:
    """The published revision of a touchpoint that a visitor says they saw."""
    rows = TouchpointRevision.objects.select_related("touchpoint").filter(
        business_id=business_id, touchpoint__public_id=public_id, number=number, published_at__isnull=False
    )
    return rows.first()


def waiting(actor: Actor) -> tuple[int, int]:
    """How many were made but are not on, and how many changed since they went live."""
    rows = list(touchpoints_of(actor))
    drafts = sum(row.state == State.DRAFT.value for row in rows)
    return drafts, sum(row.state == State.LIVE.value and row.changed_since_live for row in rows)
