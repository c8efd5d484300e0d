"""Reads on follow-ups: the list along the ruler of open time, the person's page, the day line."""

from dataclasses import dataclass
from datetime import datetime, timedelta
from hashlib import sha256
from typing import TYPE_CHECKING, Any, TypedDict
from urllib.parse import quote, unquote

from django.db import connection
from django.db.models import Case, DateTimeField, Exists, F, OuterRef, Q, QuerySet, When
from django.db.models.functions import Least

from intavo import clock
from intavo.accounts.actor import Actor
from intavo.core import followup as rules
from intavo.core.hours import OpeningHours, open_days_back
from intavo.core.paging import Key
from intavo.core.people.seeking import path_of
from intavo.core.worklist import ListFilter
from intavo.hours.effects import Promised, promises_counted
from intavo.hours.queries import main_hours
from intavo.people.models import Person, PersonTag, TimelineEvent
from intavo.people.queries import search

from .models import FollowUp, PromiseCounted

if TYPE_CHECKING:
    from django_stubs_ext import WithAnnotations

    StandingRow = WithAnnotations[FollowUp, "Standing"]

PAGE = 50
# What came in since a page was shown makes it longer, up to this.
LONGEST_PAGE = 200
EVERYTHING = ListFilter()


def wanted_rows(actor: Actor, wanted: ListFilter) -> QuerySet[FollowUp]:
    """What a filter lets through, in any state."""
    rows = FollowUp.objects.filter(business_id=actor.business_id)
    rows = rows.exclude(person__in=Person.objects.filter(business_id=actor.business_id, erasing=True))
    rows = rows.select_related("person", "touchpoint", "member__user")
    rows = rows.prefetch_related("person__addresses")
    if wanted.kind:
        rows = rows.filter(kind=wanted.kind.value)
    if wanted.touchpoint is not None:
        rows = (
            rows.filter(touchpoint_id=wanted.touchpoint)
            if wanted.touchpoint
            else rows.filter(touchpoint=None)
        )
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
            person__in=PersonTag.objects.filter(business_id=actor.business_id, tag=wanted.tag).values(
                "person"
            )
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
    touched = TimelineEvent.objects.filter(
        person_id=OuterRef("person_id"), at__gte=since, member__isnull=False
    )
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
    """The id of the last entry of any timeline, and what people did after `after`, oldest first; None: only
    the id.
    """
    rows = TimelineEvent.objects.filter(business_id=actor.business_id, member=None)
    if after is None:
        return rows.order_by("-pk").values_list("pk", flat=True).first() or 0, []
    found = list(
        rows.filter(pk__gt=after)
        .select_related("person")
        .prefetch_related("person__addresses")
        .order_by("pk")[:20]
    )
    told = [
        Arrival(
            one.pk,
            one.data.get("followup"),
            called_by_all(one.person),
            str(one.data.get("text") or one.data.get("touchpoint") or "")[:200],
        )
        for one in found
        if one.kind in CAME
    ]
    return (found[-1].pk if found else after), told


# What people do that a member wants to hear of at once.
CAME = (
    "signed up", "asked", "asked for a call", "message", "gave a score", "wrote by mail", "moved the call",
    "cancelled the call",
)  # fmt: skip


def _on_page(page: str) -> Q:
    """From a page, whatever its host and query and however its letters are written; with "*" all below it
    too.
    """
    path = path_of(unquote(page.removesuffix("*"))).lower()
    spellings = {path, quote(path).lower()}
    wanted = Q(path__in=sorted(spellings))
    if page.endswith("*"):
        for one in spellings:
            wanted |= Q(path__startswith=f"{one.rstrip('/')}/")
    return wanted


def open_rows(actor: Actor, wanted: ListFilter = EVERYTHING) -> QuerySet[FollowUp]:
    """Everything that is not finished, and that a filter lets through."""
    return wanted_rows(actor, wanted).exclude(state=rules.State.FINISHED.value)


def open_work(actor: Actor, member_id: int) -> QuerySet[FollowUp]:
    """What is open and given to a member."""
    return FollowUp.objects.filter(business_id=actor.business_id, member_id=member_id).exclude(
        state=rules.State.FINISHED.value
    )


def finished_rows(
    actor: Actor, wanted: ListFilter, after: Key | None = None, most: int = PAGE
) -> list[FollowUp]:
    """What is finished, the last first: at most so many and one more; `after` is when the last of the page
    before was, and its id.
    """
    rows = wanted_rows(actor, wanted).filter(state=rules.State.FINISHED.value)
    if after is not None and after[0] is not None:
        rows = rows.filter(Q(finished_at__lt=after[0]) | Q(finished_at=after[0], id__lt=after[1]))
    return list(rows.order_by("-finished_at", "-id")[: most + 1])


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


COMES_BACK = (rules.State.PUT_OFF.value, rules.State.THEM.value)


# When something is due: what was to come back stands where it comes back, unless it is due before.
STANDS = Case(
    When(state__in=COMES_BACK, then=Least("due", "back_at")), default=F("due"), output_field=DateTimeField()
)


def is_for_us(at: datetime) -> Q:
    """For us at an instant, what was to come back by then among it."""
    return Q(state=rules.State.US.value) | Q(state__in=COMES_BACK, back_at__lte=at)


def for_us(actor: Actor, at: datetime, wanted: ListFilter = EVERYTHING) -> QuerySet["StandingRow"]:
    """What is for us at an instant, put-off ones whose time has come among it; `stands` is its due time."""
    return open_rows(actor, wanted).filter(is_for_us(at)).annotate(stands=STANDS)


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
    items = []
    for row in rows:
        value = rules.returned(row.value, ruler.at)
        due, latest = value.due, value.latest
        late = left = timedelta(0)
        if due is not None:
            late = rules.how_late(hours, latest or due, ruler.at)
            left = rules.open_time_left(hours, due, ruler.at)
        items.append(Placed(row, due, ruler.lane(due, latest), late, left))
    return items


def due_marks(
    actor: Actor, at: datetime, until: datetime
) -> list[tuple[int, str, datetime, datetime | None]]:
    """Id, name, due time and when it is late (None: then), of what is due by `until`, late ones included, in
    order.
    """
    rows = for_us(actor, at).filter(stands__lte=until).order_by("stands", "id")[:200]
    return [(row.pk, called_by_all(row.person), row.stands, row.late_from) for row in rows if row.stands]


def ways_known(actor: Actor) -> list[str]:
    """How follow-ups came so far."""
    rows = FollowUp.objects.filter(business_id=actor.business_id)
    return sorted(rows.order_by().values_list("via", flat=True).distinct())


def called_by_all(person: Person) -> str:
    """By their name, else by what they left, else so that they are told from others who left nothing."""
    return person.name or next(
        (address.shown for address in person.addresses.all()), f"Somebody no. {person.pk}"
    )


def promises_kept(actor: Actor, since: datetime, at: datetime) -> tuple[int, int]:
    """How many promises were counted since then, and how many of them were kept.

    What is late at an instant is not kept already, though nobody has answered yet.
    """
    counted = PromiseCounted.objects.filter(business_id=actor.business_id, counted_at__gte=since)
    kept: list[Any] = list(counted.values_list("kept", flat=True))
    return len(kept) + _late(actor, at), sum(kept)


def _late(actor: Actor, at: datetime) -> int:
    """How many are late, by what was promised them."""
    rows = for_us(actor, at).filter(due__lt=at)
    return rows.filter(Q(late_from__lt=at) | Q(late_from=None)).count()


@promises_counted.register
def _promised(asked: Promised) -> None:
    open_ones = FollowUp.objects.filter(business_id=asked.business_id).exclude(
        state=rules.State.FINISHED.value
    )
    asked.count += open_ones.filter(due__gte=asked.since, due__lte=asked.until).count()
