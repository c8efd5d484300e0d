"""The open part of the list as it is shown: a page along the ruler, what waits at the foot, and how many are
for us.

What a filter lets through is found in one of two ways. One that an index answers is asked page by page. One
that is costly (a tag, a page, words, what nobody touched) is asked once, for the places of all, and only
those that are shown are read whole. Both give the same, which a test holds.
"""

from collections.abc import Set
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from django.db.models import Case, F, Q, QuerySet, Value, When

from intavo.accounts.actor import Actor
from intavo.core import followup as rules
from intavo.core.paging import Key
from intavo.core.worklist import ListFilter

from .models import FollowUp
from .queries import COMES_BACK, PAGE, STANDS, for_us, is_for_us, open_rows

MOST_PLACED = 5_000
_FAR = datetime.fromisoformat("9999-01-01T00:00:00+00:00")
_US = rules.State.US.value
# What is shown for each state that a filter asks for.
_SHOWN: dict[str, Set[str]] = {
    "open": {"ours", "waiting", "aside"}, "for-us": {"ours"}, "for-them": {"waiting"}, "put-off": {"aside"},
    "finished": set(),
}  # fmt: skip


@dataclass(frozen=True, slots=True)
class Listed:
    """One page of what is for us, one row more where there is another page; all of it counted;
    and the foot.
    """

    page: list[FollowUp]
    count: int
    waiting: list[FollowUp]
    aside: list[FollowUp]


def listed(
    actor: Actor, at: datetime, wanted: ListFilter, after: Key | None = None, most: int = PAGE
) -> Listed:
    """What a filter lets through at an instant, in the order of due time, then id; those without one come
    last.

    `after` is the due time and the id that the page before ended with; `most` is how many are read, and one
    more where there is one. The foot is those that wait for them,
    the last first, and those put off until a time ahead, the next first; at most PAGE of each, and with the
    first page alone. Of what the filter's state leaves out nothing is read; how many are for us is counted in
    any case.
    """
    parts = _SHOWN[wanted.state] if after is None else _SHOWN[wanted.state] & {"ours"}
    if parts and (wanted.tag or wanted.page or wanted.q or wanted.untouched):
        page = _placed(actor, at, wanted, after, parts, most)
        if page is not None:
            return page
    return Listed(
        _page(actor, at, wanted, after, most) if "ours" in parts else [],
        for_us(actor, at, wanted).count(),
        _waiting(actor, at, wanted) if "waiting" in parts else [],
        _aside(actor, at, wanted) if "aside" in parts else [],
    )


def _placed(
    actor: Actor, at: datetime, wanted: ListFilter, after: Key | None, parts: Set[str], most: int
) -> Listed | None:
    """Every one placed by one statement, and only those that are shown read whole; None where there are too
    many.
    """
    part = Case(
        When(is_for_us(at), then=Value("ours")),
        When(state=rules.State.THEM.value, then=Value("waiting")),
        default=Value("aside"),
    )
    rows = open_rows(actor, wanted).annotate(stands=STANDS, part=part)
    when = Case(When(part="aside", then=F("back_at")), default=F("stands"))
    placed = rows.annotate(past=_past(after)).order_by(when.asc(nulls_last=True), "pk")
    found = list(placed.values_list("pk", "part", "past")[: MOST_PLACED + 1])
    if len(found) > MOST_PLACED:
        return None
    shown = [one for one in found if one[1] in parts]
    page = [pk for pk, part, past in shown if part == "ours" and past][: most + 1]
    waiting = sorted((pk for pk, part, _ in shown if part == "waiting"), reverse=True)[:PAGE]
    aside = [pk for pk, part, _ in shown if part == "aside"][:PAGE]
    read = open_rows(actor).filter(pk__in=[*page, *waiting, *aside]).in_bulk()
    whole = [[read[pk] for pk in part if pk in read] for part in (page, waiting, aside)]
    return Listed(whole[0], sum(part == "ours" for _, part, _ in found), whole[1], whole[2])


def _past(after: Key | None) -> "Case | Value":
    """Whether a row comes after the end of the page before."""
    if after is None:
        return Value(True)
    due, last = after
    free = Q(stands__isnull=True)
    past = free & Q(pk__gt=last) if due is None else free | Q(stands__gt=due) | Q(stands=due, pk__gt=last)
    return Case(When(past, then=Value(True)), default=Value(False))


def _page(actor: Actor, at: datetime, wanted: ListFilter, after: Key | None, most: int) -> list[FollowUp]:
    """Those that came back by themselves are few, and read apart:
    the rest stands in the order of an index.
    """
    ours = open_rows(actor, wanted).filter(state=_US).annotate(stands=F("due"))
    back = for_us(actor, at, wanted).filter(state__in=COMES_BACK)
    found: list[FollowUp] = []
    for rows in (ours, back):
        found += _first(rows, after, most)
    found.sort(key=lambda row: (row.stands is None, row.stands or _FAR, row.pk))  # type: ignore[attr-defined]
    return found[: most + 1]


def _first(rows: "QuerySet[Any]", after: Key | None, most: int) -> list[FollowUp]:
    timed, free = rows.filter(stands__isnull=False), rows.filter(stands__isnull=True)
    if after is not None:
        due, last = after
        if due is None:
            return list(free.filter(id__gt=last).order_by("id")[: most + 1])
        # Of a pair of columns an index knows where to begin.
        timed = timed.filter(stands__gte=due).filter(Q(stands__gt=due) | Q(id__gt=last))
    found = list(timed.order_by("stands", "id")[: most + 1])
    return found if len(found) > most else found + list(free.order_by("id")[: most + 1 - len(found)])


def _waiting(actor: Actor, at: datetime, wanted: ListFilter) -> list[FollowUp]:
    rows = open_rows(actor, wanted).filter(state=rules.State.THEM.value)
    return list(rows.exclude(back_at__lte=at).order_by("-id")[:PAGE])


def _aside(actor: Actor, at: datetime, wanted: ListFilter) -> list[FollowUp]:
    rows = open_rows(actor, wanted).filter(state=rules.State.PUT_OFF.value, back_at__gt=at)
    return list(rows.order_by("back_at", "id")[:PAGE])
