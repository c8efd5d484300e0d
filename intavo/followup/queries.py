"""Reads on follow-ups: the list along the ruler of open time, the person's page, the day line."""

import re
from dataclasses import dataclass
from datetime import datetime, timedelta
from hashlib import sha256
from typing import TYPE_CHECKING, Any, TypedDict

from django.db import connection
from django.db.models import Case, DateTimeField, Exists, F, OuterRef, Q, QuerySet, When
from django.db.models.functions import Least

from intavo.accounts.actor import Actor
from intavo.core import followup as rules
from intavo.core.hours import OpeningHours, open_days_back
from intavo.core.touchpoint.patterns import normal_path
from intavo.core.worklist import ListFilter
from intavo.hours.effects import Promised, promises_counted
from intavo.hours.queries import main_hours
from intavo.people.models import Person, PersonTag, TimelineEvent
from intavo.people.queries import search
from intavo.project import clock

from .models import FollowUp, PromiseCounted

if TYPE_CHECKING:
    from django_stubs_ext import WithAnnotations

    StandingRow = WithAnnotations[FollowUp, "Standing"]

PAGE = 50
EVERYTHING = ListFilter()
FAR = datetime.fromisoformat("9999-01-01T00:00:00+00:00")


def wanted_rows(actor: Actor, wanted: ListFilter) -> QuerySet[FollowUp]:
    """What a filter lets through, in any state."""
    rows = FollowUp.objects.filter(business_id=actor.business_id)
    rows = rows.exclude(person__in=Person.objects.filter(business_id=actor.business_id, erasing=True))
    rows = rows.select_related("person", "touchpoint", "member__user")
    rows = rows.prefetch_related("person__addresses")
    if wanted.kind:
        rows = rows.filter(kind=wanted.kind.value)
    if wanted.touchpoint is not None:
        rows = rows.filter(touchpoint_id=wanted.touchpoint) if wanted.touchpoint else rows.filter(touchpoint=None)
    if wanted.member is not None:
        rows = rows.filter(member_id=wanted.member) if wanted.member else rows.filter(member=None)
    if wanted.via:
        rows = rows.filter(via=wanted.via)
    if wanted.site:
        rows = rows.filter(site_id=wanted.site)
    if wanted.page:
        rows = rows.filter(_on_page(wanted.page))
    if wanted.tag:
        rows = rows.filter(
            person__in=PersonTag.objects.filter(business_id=actor.business_id, tag=wanted.tag).values("person")
        )
    if wanted.since:
        zone = main_hours(actor.business_id).value.zone
        rows = rows.filter(opened_at__gte=datetime.combine(wanted.since, datetime.min.time(), zone))
    if wanted.untouched:
        rows = rows.filter(_untouched(actor, wanted.untouched))
    if wanted.q:
        rows = rows.filter(person__in=[hit.person.pk for hit in search(actor, wanted.q, 0)])
    return rows


def _untouched(actor: Actor, days: int) -> Q:
    """With whom no member has done anything for so many open days, and that are at least as old."""
    since = open_days_back(main_hours(actor.business_id).value, clock.now(), days)
    if since is None:
        return Q(pk__in=())
    touched = TimelineEvent.objects.filter(person_id=OuterRef("person_id"), at__gte=since, member__isnull=False)
    return Q(~Exists(touched), opened_at__lt=since)


def untouched(actor: Actor, at: datetime, days: int) -> int:
    """How many that are for us nobody has touched for so many open days; at most MANY are counted."""
    rows = for_us(actor, at, ListFilter(untouched=days)).order_by("pk").values_list("pk", flat=True)
    return len(rows[:MANY])


MANY = 100


@dataclass(frozen=True, slots=True)
class Arrival:
    """Something that a person did: its entry, the follow-up, how they are called, and what they wrote."""

    id: int
    followup_id: int | None
    called: str
    text: str


def came_in(actor: Actor, after: int | None) -> tuple[int, list[Arrival]]:
    """The id of the last entry of any timeline, and what people did after `after`, oldest first; None: only the id."""
    rows = TimelineEvent.objects.filter(business_id=actor.business_id, member=None)
    if after is None:
        return rows.order_by("-pk").values_list("pk", flat=True).first() or 0, []
    found = list(
        rows.filter(pk__gt=after).select_related("person").prefetch_related("person__addresses").order_by("pk")[:20]
    )
    told = [
        Arrival(
            one.pk, one.data.get("followup"), called_by_all(one.person),
            str(one.data.get("text") or one.data.get("touchpoint") or "")[:200],
        )
        for one in found
        if one.kind in CAME
    ]  # fmt: skip
    return (found[-1].pk if found else after), told


# What people do that a member wants to hear of at once.
CAME = (
    "signed up", "asked", "asked for a call", "message", "gave a score", "wrote by mail", "moved the call",
    "cancelled the call",
)  # fmt: skip


def _on_page(page: str) -> Q:
    """From a page, whatever its host and query; with "/*" at the end all below it too."""
    path = normal_path(page.removesuffix("*"))
    found = re.escape(path.rstrip("/"))
    head = f"^(https?://[^/]+)?{found}/"
    exact, below = Q(page__iregex=f"{head}?([?#]|$)"), Q(page__iregex=head) if page.endswith("*") else Q()
    # What does not hold the words of the path need not be taken apart.
    return Q(page__icontains=path.strip("/")) & (exact | below)


@dataclass(frozen=True, slots=True)
class Narrowed:
    """The open ones that a filter lets through, known by their ids: what is costly to find is looked for once."""

    ids: tuple[int, ...]


def narrowed(actor: Actor, wanted: ListFilter) -> "ListFilter | Narrowed":
    """A filter as its open rows, where there are not too many of them and it has a costly piece; else as it is."""
    if not (wanted.tag or wanted.page or wanted.q or wanted.untouched):
        return wanted
    ids = tuple(open_rows(actor, wanted).order_by().values_list("pk", flat=True)[: MOST_NARROWED + 1])
    return Narrowed(ids) if len(ids) <= MOST_NARROWED else wanted


MOST_NARROWED = 5_000


def open_rows(actor: Actor, wanted: "ListFilter | Narrowed" = EVERYTHING) -> QuerySet[FollowUp]:
    """Everything that is not finished, and that a filter lets through."""
    if isinstance(wanted, Narrowed):
        rows = wanted_rows(actor, EVERYTHING).filter(pk__in=wanted.ids)
    else:
        rows = wanted_rows(actor, wanted)
    return rows.exclude(state=rules.State.FINISHED.value)


def open_work(actor: Actor, member_id: int) -> QuerySet[FollowUp]:
    """What is open and given to a member."""
    return FollowUp.objects.filter(business_id=actor.business_id, member_id=member_id).exclude(
        state=rules.State.FINISHED.value
    )


def finished_rows(actor: Actor, wanted: ListFilter, after: tuple[datetime | None, int] | None = None) -> list[FollowUp]:
    """One page of what is finished, the last first; `after` is when the last of the page before was, and its id."""
    rows = wanted_rows(actor, wanted).filter(state=rules.State.FINISHED.value)
    if after is not None and after[0] is not None:
        rows = rows.filter(Q(finished_at__lt=after[0]) | Q(finished_at=after[0], id__lt=after[1]))
    return list(rows.order_by("-finished_at", "-id")[: PAGE + 1])


# Of two writes at once the one that began first may be seen last, so that the latest alone would not tell.
_STAMP = """
SELECT id, touched_at FROM followup_followup WHERE business_id = %s ORDER BY touched_at DESC LIMIT 20
"""


def stamp(actor: Actor) -> str:
    """What changes with every change of the list: one indexed query."""
    with connection.cursor() as cursor:
        cursor.execute(_STAMP, [actor.business_id])
        return sha256(repr(cursor.fetchall()).encode()).hexdigest()[:20]


class Standing(TypedDict):
    """What `for_us` adds to a row."""

    stands: datetime | None


_COMES_BACK = (rules.State.PUT_OFF.value, rules.State.THEM.value)


def for_us(actor: Actor, at: datetime, wanted: "ListFilter | Narrowed" = EVERYTHING) -> QuerySet["StandingRow"]:
    """What is for us at an instant, put-off ones whose time has come among it; `stands` is its due time."""
    back = Q(state__in=_COMES_BACK, back_at__lte=at)
    stands = Case(
        When(state__in=_COMES_BACK, then=Least("due", "back_at")), default=F("due"),
        output_field=DateTimeField(),
    )  # fmt: skip
    return open_rows(actor, wanted).filter(Q(state=rules.State.US.value) | back).annotate(stands=stands)


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


def page_for_us(
    actor: Actor, at: datetime, after: tuple[datetime | None, int] | None = None,
    wanted: "ListFilter | Narrowed" = EVERYTHING,
) -> list[FollowUp]:  # fmt: skip
    """One page in the order of due time, then id; those without a due time come last. `after` is the last key.

    Those that came back by themselves are few, and read apart: the rest stands in the order of an index.
    """
    ours = open_rows(actor, wanted).filter(state=rules.State.US.value).annotate(stands=F("due"))
    back = for_us(actor, at, wanted).filter(state__in=_COMES_BACK)
    found: list[FollowUp] = []
    for rows in (ours, back):
        found += _page(rows, after)
    found.sort(key=lambda row: (row.stands is None, row.stands or FAR, row.pk))  # type: ignore[attr-defined]
    return found[: PAGE + 1]


def _page(rows: "QuerySet[Any]", after: tuple[datetime | None, int] | None) -> list[FollowUp]:
    timed, free = rows.filter(stands__isnull=False), rows.filter(stands__isnull=True)
    if after is not None:
        due, last = after
        if due is None:
            return list(free.filter(id__gt=last).order_by("id")[: PAGE + 1])
        # Of a pair of columns an index knows where to begin.
        timed = timed.filter(stands__gte=due).filter(Q(stands__gt=due) | Q(id__gt=last))
    found = list(timed.order_by("stands", "id")[: PAGE + 1])
    return found if len(found) > PAGE else found + list(free.order_by("id")[: PAGE + 1 - len(found)])


def at_the_foot(
    actor: Actor, at: datetime, wanted: "ListFilter | Narrowed" = EVERYTHING
) -> tuple[list[FollowUp], list[FollowUp]]:
    """Those that wait for them, and those put off until a time ahead."""
    waiting = open_rows(actor, wanted).filter(state=rules.State.THEM.value)
    waiting = waiting.exclude(back_at__lte=at).order_by("-id")[:PAGE]
    aside = (
        open_rows(actor, wanted)
        .filter(state=rules.State.PUT_OFF.value, back_at__gt=at)
        .order_by("back_at", "id")[:PAGE]
    )
    return list(waiting), list(aside)


def due_marks(actor: Actor, at: datetime, until: datetime) -> list[tuple[int, str, datetime, datetime | None]]:
    """Id, name, due time and when it is late (None: then), of what is due by `until`, late ones included, in order."""
    rows = for_us(actor, at).filter(stands__lte=until).order_by("stands", "id")[:200]
    return [(row.pk, called_by_all(row.person), row.stands, row.late_from) for row in rows if row.stands]


def ways_known(actor: Actor) -> list[str]:
    """How follow-ups came so far."""
    rows = FollowUp.objects.filter(business_id=actor.business_id)
    return sorted(rows.order_by().values_list("via", flat=True).distinct())


def called_by_all(person: Person) -> str:
    """By their name, else by what they left."""
    return person.name or next((address.shown for address in person.addresses.all()), "Somebody")


def promises_kept(actor: Actor, since: datetime) -> tuple[int, int]:
    """How many promises were counted since then, and how many of them were kept."""
    counted = PromiseCounted.objects.filter(business_id=actor.business_id, counted_at__gte=since)
    kept: list[Any] = list(counted.values_list("kept", flat=True))
    return len(kept), sum(kept)


@promises_counted.register
def _promised(asked: Promised) -> None:
    open_ones = FollowUp.objects.filter(business_id=asked.business_id).exclude(state=rules.State.FINISHED.value)
    asked.count += open_ones.filter(due__gte=asked.since, due__lte=asked.until).count()
