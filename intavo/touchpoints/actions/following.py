"""Which touchpoints follow a set of hours or use a channel, as a draft or live,
and have a column of replies.
"""

from collections.abc import Callable, Iterator

from intavo.channels.effects import Used, channel_used
from intavo.core.touchpoint import Document
from intavo.hours.effects import (
    Column,
    Columns,
    Departs,
    Followed,
    column_asked,
    columns_asked,
    hours_followed,
)

from ..models import Touchpoint


@hours_followed.register
def _touchpoints(followed: Followed) -> None:
    found = _names(followed.hours.business_id, lambda document: _follows(document, followed.hours.pk))
    followed.touchpoints += len(found)
    followed.by += found


@channel_used.register
def _shows(used: Used) -> None:
    id_ = used.channel.public_id
    used.by += _names(used.channel.business_id, lambda document: bool({id_, "all"} & document.channels()))


@column_asked.register
def _knows(column: Column) -> None:
    row = Touchpoint.objects.filter(
        business_id=column.business_id, public_id=column.id, deleted_at=None
    ).first()
    column.name = row.name if row else column.name


@columns_asked.register
def _columns(columns: Columns) -> None:
    for row, documents in _documents(columns.business_id):
        document = documents[0]
        button = document.stance == "button"
        if document.asks_for_answer or button:
            answered = "message form" if document.asks_for_answer else "button"
            kind = "call-back" if any(document.fields("slot")) else answered
            columns.found.append(Departs(row.public_id, row.name, kind, document.after.follows, hides=button))


def _documents(business_id: int) -> Iterator[tuple[Touchpoint, list[Document]]]:
    rows = Touchpoint.objects.filter(business_id=business_id, deleted_at=None).order_by("order", "pk")
    for row in rows.select_related("draft", "live"):
        yield row, [Document.model_validate(one.document) for one in (row.draft, row.live) if one is not None]


def _names(business_id: int, does: Callable[[Document], bool]) -> list[str]:
    return [f"“{row.name}”" for row, documents in _documents(business_id) if any(map(does, documents))]


def _follows(document: Document, hours_id: int) -> bool:
    return hours_id in {*document.after.follows, *(one.during.hours for one in document.show.sentences)}
