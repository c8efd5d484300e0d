"""Reads on channels."""

from django.db.models import Sum

from .models import Channel, LinkClicks


def kept(business_id: int) -> list[Channel]:
    """The business's channels in the owner's order."""
    return list(Channel.objects.filter(business_id=business_id, deleted_at=None))


def own(business_id: int, channel_id: int) -> Channel:
    """One of them; Channel.DoesNotExist if it is not there."""
    return Channel.objects.get(pk=channel_id, business_id=business_id, deleted_at=None)


def by_public_id(public_id: str) -> Channel | None:
    """The channel behind a short link."""
    return Channel.objects.select_related("business").filter(public_id=public_id, deleted_at=None).first()


def clicked(channel: Channel) -> list[tuple[str, int]]:
    """Where its short link was followed from, and how often, the most first."""
    rows = (
        LinkClicks.objects.filter(channel=channel).values("place").annotate(all=Sum("count")).order_by("-all", "place")
    )
    return [(row["place"], row["all"]) for row in rows]
