"""Reads on follow-ups: the list along the ruler of open time, the person's page, the day line."""

from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import TYPE_CHECKING, Any, TypedDict

from django.db.models import Case, DateTimeField, F, Q, QuerySet, When
from django.db.models.functions import Least

from intavo.accounts.actor import Actor
from intavo.core import followup as rules
from intavo.core.hours import OpeningHours
from intavo.hours.effects import Promised, promises_counted

from .models import FollowUp, PromiseCounted

if TYPE_CHECKING:
    from django_stubs_ext import WithAnnotations

    StandingRow = WithAnnotations[FollowUp, "Standing"]

PAGE = 50
FAR = datetime.fromisoformat("9999-01-01T00:00:00+00:00")


def open_rows(actor: Actor) -> QuerySet[FollowUp]:
    """Everything that is not finished."""
    return (
        FollowUp.objects.filter(business_id=actor.business_id)
        .exclude(state=rules.State.FINISHED.value)
        .select_related("person", "touchpoint")
        .prefetch_related("person__addresses")
    )


class Standing(TypedDict):
    """What `for_us` adds to a row."""

    stands: datetime | None


def for_us(actor: Actor, at: datetime) -> QuerySet["StandingRow"]:
    """What is for us at an instant, put-off ones whose time has come among it; `stands` is its due time."""
    back = Q(state=rules.State.PUT_OFF.value, back_at__lte=at)
    stands = Case(
        When(state=rules.State.PUT_OFF.value, then=Least("due", "back_at")), default=F("due"),
        output_field=DateTimeField(),
    )  # fmt: skip
    return open_rows(actor).filter(Q(state=rules.State.US.value) | back).annotate(stands=stands)


@dataclass(frozen=True, slots=True)
class Placed:
    """A follow-up with its place on the ruler; lengths are open time."""

    row: FollowUp
    due: datetime | None
    lane: rules.Lane
    late: timedelta
    left: timedelta


def placed(rows: list[FollowUp], hours: OpeningHours, ruler: rules.Ruler) -> list[Placed]:
    """Follow-ups put on the ruler."""
    found = []
    for row in rows:
        value = rules.returned(row.value, ruler.at)
        due, latest = value.due, value.latest
        late = left = timedelta(0)
        if due is not None:
            late = rules.how_late(hours, latest or due, ruler.at)
            left = rules.open_time_left(hours, due, ruler.at)
        found.append(Placed(row, due, ruler.lane(due, latest), late, left))
    return found


def page_for_us(actor: Actor, at: datetime, after: tuple[datetime | None, int] | None = None) -> list[FollowUp]:
    """One page in the order of due time, then id; those without a due time come last. `after` is the last key."""
    rows = for_us(actor, at).order_by(F("stands").asc(nulls_last=True), "id")
    if after is not None:
        due, last = after
        if due is None:
            rows = rows.filter(stands__isnull=True, id__gt=last)
        else:
            rows = rows.filter(Q(stands__gt=due) | Q(stands=due, id__gt=last) | Q(stands__isnull=True))
    return list(rows[: PAGE + 1])


def at_the_foot(actor: Actor, at: datetime) -> tuple[list[FollowUp], list[FollowUp]]:
    """Those that wait for them, and those put off until a time ahead."""
    waiting = open_rows(actor).filter(state=rules.State.THEM.value).order_by("-id")[:PAGE]
    aside = open_rows(actor).filter(state=rules.State.PUT_OFF.value, back_at__gt=at).order_by("back_at", "id")[:PAGE]
    return list(waiting), list(aside)


def due_marks(actor: Actor, at: datetime, until: datetime) -> list[tuple[int, str, datetime, datetime | None]]:
    """Id, name, due time and when it is late (None: then), of what is due by `until`, late ones included, in order."""
    rows = for_us(actor, at).filter(stands__lte=until).order_by("stands", "id")[:200]
    return [(row.pk, row.person.name or first_address(row), row.stands, row.late_from) for row in rows if row.stands]


def first_address(row: FollowUp) -> str:
    """How to call somebody who left no name."""
    return next((address.shown for address in row.person.addresses.all()), "Somebody")


def promises_kept(actor: Actor, since: datetime) -> tuple[int, int]:
    """How many promises were counted since then, and how many of them were kept."""
    counted = PromiseCounted.objects.filter(business_id=actor.business_id, counted_at__gte=since)
    kept: list[Any] = list(counted.values_list("kept", flat=True))
    return len(kept), sum(kept)


@promises_counted.register
def _promised(asked: Promised) -> None:
    open_ones = FollowUp.objects.filter(business_id=asked.business_id).exclude(state=rules.State.FINISHED.value)
    asked.count += open_ones.filter(due__gte=asked.since, due__lte=asked.until).count()
