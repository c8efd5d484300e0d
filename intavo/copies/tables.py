"""Which tables a copy carries, in which order, how a row is written down and read again, and what it may
hold.
"""

import json
import uuid
from collections.abc import Iterator
from dataclasses import dataclass
from datetime import date, datetime
from functools import cache
from typing import Any

from django.apps import apps
from django.db.models import CharField, DateTimeField, Field, ForeignKey, JSONField, Model

from intavo.accounts.models import AccountMail, Business, Invitation, Member, SeenBrowser, User
from intavo.channels.models import Channel
from intavo.followup.models import Batch, FollowUp, GiveRules, KeptFilter
from intavo.hours.models import HoursSet
from intavo.imports.models import Import, ImportedRow
from intavo.intake.models import Submission
from intavo.mail.models import Enclosure, MailIn, OutgoingMail
from intavo.mailin.models import IncomingFile, IncomingMail, Mailbox
from intavo.people.models import Merge, TimelineEvent
from intavo.results.models import Beat, HourlyTally
from intavo.sites.models import Site
from intavo.talks.models import Gateway, Message, Talk
from intavo.touchpoints.models import LyingOver, RehearsalVisitor, Touchpoint, TouchpointRevision

from .checks import DOCUMENTS
from .models import Copy

# Accounts and their members are not a business's to carry away; the rest is of no use elsewhere: work that is
# being done (imports, mail that waits), what could be undone, secrets, and views that are counted in tallies.
NOT_CARRIED: tuple[type[Model], ...] = (
    Business, User, Member, Invitation, SeenBrowser, AccountMail, Copy, Import, ImportedRow, Merge, MailIn,
    Mailbox, Beat, LyingOver, Batch,
)  # fmt: skip
_DOCUMENT: dict[str, type[Model]] = {
    "hours": HoursSet, "also_hours": HoursSet, "people": Member, "tell": Member, "member": Member,
    "gateway": Gateway,
}  # fmt: skip
# Which numbers inside of a table's documents are ids, by the names of their keys.
REFERS: dict[type[Model], dict[str, type[Model]]] = {
    TimelineEvent: {
        "followup": FollowUp,
        "mail": OutgoingMail,
        "merge": Merge,
        "id": IncomingFile,
        "enclosure": Enclosure,
        "talk": Talk,
        "message": Message,
        "submission": Submission,
    },
    TouchpointRevision: _DOCUMENT,
    Channel: _DOCUMENT,
    RehearsalVisitor: _DOCUMENT,
    Site: _DOCUMENT,
    KeptFilter: {"touchpoint": Touchpoint, "member": Member, "site": Site},
    GiveRules: {"touchpoint": Touchpoint, "member": Member},
}
# Entries of the timeline whose "mail" is one that came in.
THEIR_MAIL = {"wrote by mail", "answered by itself", "noted", "mail came back", "complained"}
_NEEDS_TOO: dict[type[Model], set[type[Model]]] = {TimelineEvent: {IncomingMail}}
# Columns that hold an id without being a foreign key.
LOOSE: dict[tuple[type[Model], str], type[Model]] = {(HourlyTally, "site_id"): Site}
# What is left out of a row, and stands as it does in a new one.
LEFT_OUT = {(FollowUp, "touched_at"), (Gateway, "bearer"), (Gateway, "secret")}


@dataclass(frozen=True, slots=True)
class Carried:
    """One table: `links` are foreign keys that are set before the row is there, `later` those set after."""

    model: type[Model]
    name: str
    fields: "tuple[Field[Any, Any], ...]"
    links: "tuple[ForeignKey[Any, Any], ...]"
    later: "tuple[ForeignKey[Any, Any], ...]"

    @property
    def file(self) -> str:
        """Where its rows are in the copy."""
        return f"tables/{self.name}.jsonl"

    @property
    def schema_file(self) -> str:
        """Where its JSON Schema is."""
        return f"schemas/{self.name}.json"

    @property
    def unique(self) -> "tuple[CharField[Any, Any], ...]":
        """Texts that no two businesses may share."""
        alone = {one.fields[0] for one in self.model._meta.total_unique_constraints if len(one.fields) == 1}
        return tuple(
            one for one in self.fields if isinstance(one, CharField) and (one.unique or one.name in alone)
        )


@cache
def carried() -> tuple[Carried, ...]:
    """Every table that is carried, each after those that its rows need."""
    models = [
        one for one in apps.get_models() if one.__module__.startswith("intavo.") and one not in NOT_CARRIED
    ]
    found: list[Carried] = []
    done: set[type[Model]] = set(NOT_CARRIED)
    while left := [one for one in models if one not in done]:
        ready = next((one for one in left if _needs(one, also_empty=True) <= done), None)
        # Of a ring the one goes first that can be there without the others for a moment.
        ready = ready or next((one for one in left if _needs(one, also_empty=False) <= done), None)
        if ready is None:
            raise RuntimeError("tables need each other in a ring")
        links = _links(ready)
        later = tuple(one for one in links if one.null and one.related_model not in done)
        found.append(_carried(ready, tuple(one for one in links if one not in later), later))
        done.add(ready)
    return tuple(found)


def _links(model: type[Model]) -> "list[ForeignKey[Any, Any]]":
    return [
        one for one in model._meta.concrete_fields if isinstance(one, ForeignKey) and one.name != "business"
    ]


def _needs(model: type[Model], *, also_empty: bool) -> set[type[Model]]:
    """The tables whose rows a row names; `also_empty`: those too that it may be without."""
    named = {one.related_model for one in _links(model) if also_empty or not one.null}
    inside = {*REFERS.get(model, {}).values(), *(to for (one, _), to in LOOSE.items() if one is model)}
    return (named | inside | _NEEDS_TOO.get(model, set())) - {model}


def _carried(model: type[Model], links: tuple[Any, ...], later: tuple[Any, ...]) -> Carried:
    fields = tuple(
        one
        for one in model._meta.concrete_fields
        if not one.primary_key
        and not isinstance(one, ForeignKey)
        and not getattr(one, "generated", False)
        and one.name != "business_id"
        and (model, one.name) not in LEFT_OUT
    )
    return Carried(model, f"{model._meta.app_label}.{model.__name__}", fields, links, later)


def columns(table: Carried) -> list[str]:
    """The columns of a row as it is written down; the first is its id."""
    links = [one.attname for one in (*table.links, *table.later)]
    return ["id" if table.model._meta.pk.name == "id" else table.model._meta.pk.attname, *links,
            *(one.name for one in table.fields)]  # fmt: skip


def rows_of(table: Carried, business_id: int) -> Iterator[bytes]:
    """A business's rows of a table, each as a line of JSON."""
    names = columns(table)
    rows = table.model._default_manager.filter(business_id=business_id).order_by("pk")
    if table.model is OutgoingMail:
        # What has not gone out is sent by the one that has the queue.
        rows = rows.exclude(state=OutgoingMail.WAITING)
    for row in rows.values_list(*names).iterator(chunk_size=2_000):
        said = json.dumps(dict(zip(names, row, strict=True)), ensure_ascii=False, default=_plain)
        yield said.encode() + b"\n"


def _plain(value: object) -> str:
    if isinstance(value, datetime | date):
        return value.isoformat()
    if isinstance(value, uuid.UUID):
        return str(value)
    raise TypeError(f"{type(value)} is not written down")


_TYPES = {
    "BooleanField": "boolean", "PositiveIntegerField": "integer", "PositiveSmallIntegerField": "integer",
    "IntegerField": "integer", "BigIntegerField": "integer", "PositiveBigIntegerField": "integer",
}  # fmt: skip


def schema_of(table: Carried) -> dict[str, Any]:
    """The JSON Schema (draft 2020-12) of a line of a table."""
    properties: dict[str, Any] = {"id": {"type": "integer"}}
    for link in (*table.links, *table.later):
        to = link.related_model.__name__
        properties[link.attname] = {
            "type": ["integer", "null"] if link.null else "integer",
            "description": f"the id of a row of {to}",
        }
    definitions: dict[str, Any] = {}
    for field in table.fields:
        properties[field.name] = _schema(table.model, field)
        # What a document is made of is named for the whole line.
        definitions |= properties[field.name].pop("$defs", {})
    return {
        "$defs": definitions, "$schema": "https://json-schema.org/draft/2020-12/schema", "title": table.name,
        "type": "object", "properties": properties, "required": columns(table), "additionalProperties": False,
    }  # fmt: skip


def _schema(model: type[Model], field: "Field[Any, Any]") -> dict[str, Any]:
    if isinstance(field, JSONField):
        document = DOCUMENTS.get((model, field.name))
        return {"description": f"a {document.__name__}"} | document.model_json_schema() if document else {}
    kind = _TYPES.get(field.get_internal_type(), "string")
    schema: dict[str, Any] = {"type": [kind, "null"] if field.null else kind}
    if kind == "string" and field.max_length:
        schema["maxLength"] = field.max_length
    if isinstance(field, DateTimeField):
        schema["format"] = "date-time"
    return schema
