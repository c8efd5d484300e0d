"""Reads on results."""

from dataclasses import dataclass
from datetime import datetime, timedelta

from django.db.models import Sum

from intavo.accounts.actor import Actor

from .models import HourlyTally, RefusedBeats


@dataclass(frozen=True, slots=True)
class Tally:
    """How often a touchpoint was seen, and reached its goal."""

    seen: int = 0
    goals: int = 0

    @property
    def rate(self) -> float | None:
        """Goals a showing; nothing seen has no rate."""
        return self.goals / self.seen if self.seen else None


def refused_beats(actor: Actor, *, site_id: int, at: datetime, days: int = 7) -> dict[str, int]:
    """How many reports of a site were not counted in the last days up to `at` (UTC), by why,
    the most first.
    """
    rows = RefusedBeats.objects.filter(
        business_id=actor.business_id, site_id=site_id, day__gt=(at - timedelta(days=days)).date()
    )
    return dict(rows.values_list("why").annotate(count=Sum("count")).order_by("-count", "why"))


def tallies(actor: Actor, *, at: datetime, days: int = 30, site_id: int | None = None) -> dict[str, Tally]:
    """What happened to each touchpoint, by its public id, in the last days up to `at`."""
    rows = HourlyTally.objects.filter(
        business_id=actor.business_id, hour__gte=at - timedelta(days=days), hour__lte=at
    )
    if site_id is not None:
        rows = rows.filter(site_id=site_id)
    found: dict[str, dict[str, int]] = {}
    for touchpoint, what, count in rows.values_list("touchpoint", "what").annotate(count=Sum("count")):
        found.setdefault(touchpoint, {})[what] = count
    return {id_: Tally(counts.get("seen", 0), counts.get("goal", 0)) for id_, counts in found.items()}
