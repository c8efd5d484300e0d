"""Reads on sites."""

from django.db.models import QuerySet

from intavo.accounts.actor import Actor

from .models import Site


def sites_of(actor: Actor) -> QuerySet[Site]:
    """The business's sites with their hosts."""
    return Site.objects.filter(business_id=actor.business_id).prefetch_related("hosts").order_by("pk")
