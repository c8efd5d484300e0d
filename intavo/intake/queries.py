"""Reads on what visitors sent."""

import csv
import io
from typing import Any

from django.db.models import QuerySet, TextField
from django.db.models.fields.json import KT
from django.db.models.functions import Cast

from intavo.accounts.actor import Actor
from intavo.core.csvsafe import harmless
from intavo.core.touchpoint import Document, asked_fields
from intavo.touchpoints.models import Touchpoint, TouchpointRevision

from .models import Quarantined, Submission


def answers_of(touchpoint: Touchpoint) -> QuerySet[Submission]:
    """What was sent through a touchpoint and is confirmed where it has to be, oldest first."""
    rows = Submission.objects.filter(revision__touchpoint=touchpoint).exclude(
        pending__confirmed_at=None, pending__isnull=False
    )
    return rows.select_related("revision").order_by("pk")


def asked_by(touchpoint: Touchpoint) -> dict[str, str]:
    """Everything that any of the answers was asked, over all revisions: its name and what it is called last."""
    used = Submission.objects.filter(revision__touchpoint=touchpoint).order_by().values("revision").distinct()
    found: dict[str, str] = {}
    for revision in TouchpointRevision.objects.filter(pk__in=used).order_by("number"):
        found |= dict(asked_fields(Document.model_validate(revision.document)))
    return found


def answers_page(
    touchpoint: Touchpoint, text: str = "", before: int | None = None, most: int = 100
) -> list[Submission]:
    """One page of answers that hold a text, the newest first; `before` is the id that the page before ended with."""
    rows = answers_of(touchpoint).select_related("revision", "person").order_by("-pk")
    if before is not None:
        rows = rows.filter(pk__lt=before)
    if text.strip():
        rows = rows.annotate(said=Cast(KT("raw__answers"), TextField())).filter(said__icontains=text.strip()[:200])
    return list(rows[: most + 1])


def raw_of(row: Submission) -> dict[str, Any]:
    """What was sent, as data."""
    raw: dict[str, Any] = row.raw
    return raw


def answers_csv(touchpoint: Touchpoint, rows: list[Submission]) -> str:
    """Answers as CSV (RFC 4180), a column for every field that any of them was asked."""
    asked: dict[str, str] = {}
    for document in {row.revision_id: row.revision.document for row in rows}.values():
        asked |= dict(asked_fields(Document.model_validate(document)))
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow([harmless(cell) for cell in ("time", "page", *asked.values(), "agreed", "code")])
    for row in rows:
        raw = raw_of(row)
        agreed = ", ".join(name for name, given in raw.get("consents", {}).items() if given)
        answers = [str(raw.get("answers", {}).get(name, "")) for name in asked]
        cells = [row.received_at.isoformat(), str(raw["page"]["url"]), *answers, agreed, row.code]
        writer.writerow([harmless(cell) for cell in cells])
    return out.getvalue()


def quarantine_of(actor: Actor) -> QuerySet[Quarantined]:
    """What is set aside and not settled yet, the newest first."""
    return Quarantined.objects.filter(business_id=actor.business_id, settled_at=None).order_by("-pk")
