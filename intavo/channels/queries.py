"""Reads on channels."""

from datetime import datetime, timedelta

from django.db.models import Sum

from intavo.accounts.models import Business
from intavo.core.links import Channel as Document
from intavo.core.links import Met, meet, reached
from intavo.core.links.reach import ALWAYS, Sets
from intavo.core.replies import Situation
from intavo.hours.queries import all_sets, presences, replies

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
        LinkClicks.objects.filter(channel=channel)
        .values("place")
        .annotate(all=Sum("count"))
        .order_by("-all", "place")
    )
    return [(row["place"], row["all"]) for row in rows]


def channel_findings(business_id: int, at: datetime) -> dict[str, str]:
    """What is to be looked at in each channel, by its id; "" for nothing."""
    sets, members, table = all_sets(business_id), presences(business_id), replies(business_id)
    language = Business.objects.values_list("language", flat=True).get(pk=business_id)
    findings = {}
    for row in kept(business_id):
        told = [
            meet(
                row.value,
                row.public_id,
                sets,
                at,
                members,
                table=table,
                as_if=one,
                language=language,
                business_language=language,
            )
            for one in (Situation.AFTER_HOURS, Situation.HOLIDAY)
        ]
        findings[row.public_id] = finding(row.value, sets, at, told)
    return findings


def finding(channel: Document, sets: Sets, at: datetime, closed: list[Met]) -> str:
    """What is to be looked at in a channel; "" for nothing."""
    label = f"The channel “{channel.label}”"
    if not reached(channel, sets, at, at + _AHEAD):
        return f"{label} reaches nobody in the next four weeks: nothing in its hours is open."
    silent = (
        channel.kind not in ALWAYS
        and channel.while_closed == "say"
        and any(not one.hidden and (one.says is None or not "".join(one.says).strip()) for one in closed)
    )
    return f"{label} says nothing while you are closed." if silent else ""


_AHEAD = timedelta(days=28)
