"""Reads on what visitors sent."""

import csv
import io
from collections.abc import Iterable, Iterator
from typing import Any

from django.db.models import OuterRef, QuerySet, Subquery, TextField
from django.db.models.fields.json import KT
from django.db.models.functions import Cast

from intavo.accounts.actor import Actor
from intavo.core.csvsafe import harmless
from intavo.core.touchpoint import Document, asked_fields
from intavo.touchpoints.models import Touchpoint, TouchpointRevision

from .models import Quarantined, Submission


def answers_of(touchpoint: Touchpoint) -> QuerySet[Submission]:
    """What was sent through a touchpoint and is confirmed where it has to be, oldest first."""
    rows = Submission.objects.filter(revision__in=_given_out(touchpoint))
    return rows.exclude(pending__confirmed_at=None, pending__isnull=False).order_by("pk")


def _given_out(touchpoint: Touchpoint) -> list[int]:
    """The revisions that visitors got: by their ids the database knows beforehand how many answers
    there are.
    """
    rows = TouchpointRevision.objects.filter(touchpoint=touchpoint).exclude(published_at=None)
    return list(rows.values_list("pk", flat=True))


def asked_by(touchpoint: Touchpoint) -> dict[str, str]:
    """Everything that any of the answers was asked, over all revisions:
    its name and what it is called last.
    """
    # One answer for each is looked for; whether there is any at all would be asked of all answers at once.
    one = Subquery(Submission.objects.filter(revision=OuterRef("pk")).order_by().values("pk")[:1])
    rows = TouchpointRevision.objects.filter(touchpoint=touchpoint).annotate(one=one).exclude(one=None)
    by_name: dict[str, str] = {}
    for revision in rows.order_by("number"):
        by_name |= dict(asked_fields(Document.model_validate(revision.document)))
    return by_name


def answers_page(
    touchpoint: Touchpoint, text: str = "", before: int | None = None, most: int = 100
) -> list[Submission]:
    """One page of answers that hold a text, the newest first; `before` is the id that the page before ended
    with.
    """
    rows = answers_with(touchpoint, text).select_related("revision", "person").order_by("-pk")
    return list((rows if before is None else rows.filter(pk__lt=before))[: most + 1])


def answers_with(touchpoint: Touchpoint, text: str) -> QuerySet[Submission]:
    """The answers that hold a text, oldest first; "" is in all of them."""
    rows = answers_of(touchpoint)
    if not text.strip():
        return rows
    return rows.annotate(said=Cast(KT("raw__answers"), TextField())).filter(
        said__icontains=text.strip()[:200]
    )


def raw_of(row: Submission) -> dict[str, Any]:
    """What was sent, as data."""
    raw: dict[str, Any] = row.raw
    return raw


def answers_csv(touchpoint: Touchpoint, rows: QuerySet[Submission]) -> Iterator[str]:
    """Answers as CSV (RFC 4180) in pieces, a column for every field that any of them was asked.

    Any number of them takes little memory: they are read as they are written.
    """
    asked = asked_by(touchpoint)
    yield _lines([("time", "page", *asked.values(), "agreed", "code")])
    # The time as the database writes it (ISO 8601): to read it costs more than all the rest of a row.
    said = rows.annotate(received=Cast("received_at", TextField()))
    last = 0
    # Each piece is asked for by itself: a cursor would first set all answers aside, and no transaction waits
    # for whoever reads slowly.
    while piece := list(said.filter(pk__gt=last).values_list("pk", "received", "raw", "code")[:_AT_ONCE]):
        yield _lines(_cells(asked, at, raw, code) for _, at, raw, code in piece)
        last = piece[-1][0]


_AT_ONCE = 1000


def _cells(asked: Iterable[str], at: str, raw: dict[str, Any], code: str) -> tuple[str, ...]:
    answers, consents = raw.get("answers", {}), raw.get("consents", {})
    agreed = ", ".join(name for name, given in consents.items() if given)
    return (
        f"{at.replace(' ', 'T')}:00",
        str(raw["page"]["url"]),
        *(str(answers.get(name, "")) for name in asked),
        agreed,
        code,
    )


def _lines(rows: Iterable[Iterable[str]]) -> str:
    out = io.StringIO()
    csv.writer(out).writerows([harmless(cell) for cell in cells] for cells in rows)
    return out.getvalue()


def quarantine_of(actor: Actor) -> QuerySet[Quarantined]:
    """What is set aside and not settled yet, the newest first."""
    return Quarantined.objects.filter(business_id=actor.business_id, settled_at=None).order_by("-pk")
