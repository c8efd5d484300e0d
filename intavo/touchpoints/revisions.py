"""Revisions that were given to visitors, which never change again."""

import threading
from dataclasses import dataclass

from cachetools import LRUCache, cached

from intavo.core.touchpoint import Document

from .models import Touchpoint, TouchpointRevision
from .onsite import LiveSite
from .queries import published


@cached(LRUCache(1024), key=lambda revision_pk, _written=None: revision_pk, lock=threading.Lock())
def document_of(revision_pk: int, written: object = None) -> Document:
    """The document of a published revision, which never changes again; `written` spares asking for it."""
    if written is None:
        written = TouchpointRevision.objects.values_list("document", flat=True).get(pk=revision_pk)
    return Document.model_validate(written)


@dataclass(frozen=True, slots=True)
class Published:
    """A revision that was given to visitors, with its touchpoint's ids."""

    revision: int
    number: int
    touchpoint: int
    public_id: str


def published_revision(business_id: int, public_id: str, number: int) -> Published | None:
    """The revision that a visitor says they saw; None if there is none that was ever live."""
    try:
        return _published(business_id, public_id, number)
    except LookupError:
        return None


# What is published stays so; what is not yet (LookupError) is not remembered.
@cached(LRUCache(4096), lock=threading.Lock())
def _published(business_id: int, public_id: str, number: int) -> Published:
    row = published(business_id, public_id, number)
    if row is None:
        raise LookupError(public_id)
    return Published(row.pk, row.number, row.touchpoint_id, public_id)


def name_of(site: "LiveSite", seen: Published) -> str:
    """What the owner calls the touchpoint now."""
    live = next((one.name for one in site.touchpoints if one.compiled.id == seen.public_id), None)
    return live or Touchpoint.objects.values_list("name", flat=True).get(pk=seen.touchpoint)
