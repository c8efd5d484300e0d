"""Writes on channels."""

from collections.abc import Iterable
from datetime import date
from typing import Any

from django.db import connection, transaction
from django.db.models import Max
from pydantic import ValidationError

from intavo import clock
from intavo.accounts.actor import Actor, Refused
from intavo.accounts.edits import Edit
from intavo.accounts.models import Business, Member
from intavo.accounts.scope import own
from intavo.core.links import Channel as Document
from intavo.core.links import channels_together, href
from intavo.core.refusals import wrongs
from intavo.core.rights import Right
from intavo.hours.effects import (
    Column,
    Columns,
    Departs,
    Followed,
    column_asked,
    columns_asked,
    hours_followed,
)
from intavo.hours.models import HoursSet
from intavo.sites.actions import touch

from .models import Channel, LinkClicks

_MOST = 60


def add_channel(actor: Actor, *, document: dict[str, Any]) -> Channel:
    """Add a channel at the end; Refused that names every field that is wrong."""
    actor.needs(Right.HOURS)
    value = checked(actor.business_id, document)
    with transaction.atomic():
        rows = Channel.objects.filter(business_id=actor.business_id, deleted_at=None)
        if rows.count() >= _MOST:
            raise Refused(("document", f"There are {_MOST} channels already; delete one first."))
        last = rows.aggregate(last=Max("order"))["last"]
        row = Channel.objects.create(
            business_id=actor.business_id,
            document=value.model_dump(mode="json"),
            created_at=clock.now(),
            order=0 if last is None else last + 1,
        )
        touch(actor.business_id)
        actor.noted("channel added", channel=row.public_id, label=value.label, kind=value.kind)
    return row


def checked(business_id: int, document: dict[str, Any]) -> Document:
    """A channel's document that leads somewhere; Refused that names every field that is wrong."""
    return _fitting(business_id, _read(document))


def _read(document: dict[str, Any]) -> Document:
    try:
        return Document.model_validate(document)
    except ValidationError as error:
        raise Refused(*wrongs(error.errors(), "document", whole="document")) from error


def _fitting(business_id: int, value: Document) -> Document:
    errors = [*_bad_ways(business_id, value), *_not_ours(business_id, value)]
    if errors:
        raise Refused(*errors)
    return value


def _bad_ways(business_id: int, value: Document) -> list[tuple[str, str]]:
    region = Business.objects.values_list("region", flat=True).get(pk=business_id)
    errors = []
    own_ways = [
        (f"document.people.{number}.handle", one) for number, one in enumerate(value.people) if one.handle
    ]
    # Where everybody behind it has a way of their own, the channel needs none.
    for place, person in [
        *([("document.handle", None)] if len(own_ways) < max(1, len(value.people)) else []),
        *own_ways,
    ]:
        for device in ("desktop", "phone"):
            try:
                href(value, person=person, region=region, device=device)
            except ValueError as error:
                errors.append((place, str(error)))
                break
    return errors


def _not_ours(business_id: int, value: Document) -> list[tuple[str, str]]:
    sets = set(HoursSet.objects.filter(business_id=business_id, deleted_at=None).values_list("pk", flat=True))
    members = set(Member.objects.filter(business_id=business_id).values_list("pk", flat=True))
    errors = [("document.hours", "These hours are not there.")] if set(value.hours) - sets else []
    for number, one in enumerate(value.people):
        if set(one.hours) - sets:
            errors.append((f"document.people.{number}.hours", "These hours are not there."))
        if one.member is not None and one.member not in members:
            errors.append((f"document.people.{number}.member", "This member is not there."))
    return errors


def set_channel(actor: Actor, *, channel_id: int, edit: Edit) -> Channel:
    """Change a channel. Refused that names every field that is wrong; Changed where both changed the same."""
    actor.needs(Right.HOURS)
    with transaction.atomic():
        row = _own(actor, channel_id)
        value = _fitting(actor.business_id, edit.over(row.value, _read, channels_together))
        before, row.document = row.document, value.model_dump(mode="json")
        row.save(update_fields=["document"])
        touch(actor.business_id)
        actor.noted("channel changed", channel=row.public_id, label=value.label, before=before)
    return row


def _own(actor: Actor, channel_id: int) -> Channel:
    return own(actor, Channel.objects.filter(deleted_at=None), channel_id, locked=True)


def drop_channel(actor: Actor, *, channel_id: int) -> None:
    """Delete a channel; visitors no longer see it anywhere. It can be brought back."""
    actor.needs(Right.HOURS)
    with transaction.atomic():
        row = _own(actor, channel_id)
        row.deleted_at = clock.now()
        row.save(update_fields=["deleted_at"])
        touch(actor.business_id)
        actor.noted("channel deleted", channel=row.public_id, label=row.value.label)


def bring_back(actor: Actor, *, channel_id: int) -> Channel:
    """Undo deleting it."""
    actor.needs(Right.HOURS)
    with transaction.atomic():
        row = own(actor, Channel, channel_id, locked=True)
        row.deleted_at = None
        row.save(update_fields=["deleted_at"])
        touch(actor.business_id)
        actor.noted("channel brought back", channel=row.public_id, label=row.value.label)
    return row


def order_channels(actor: Actor, *, channel_ids: Iterable[int]) -> None:
    """Put the channels in an order; those that are not named come after, as they were."""
    actor.needs(Right.HOURS)
    named = {id_: at for at, id_ in enumerate(channel_ids)}
    with transaction.atomic():
        rows = list(
            Channel.objects.select_for_update().filter(business_id=actor.business_id, deleted_at=None)
        )
        for at, row in enumerate(
            sorted(rows, key=lambda one: (named.get(one.pk, len(named)), one.order, one.pk))
        ):
            row.order = at
        Channel.objects.bulk_update(rows, ["order"])
        touch(actor.business_id)
        actor.noted("channels ordered", channels=[row.public_id for row in rows])


_COUNT = """
INSERT INTO channels_linkclicks (business_id, channel_id, place, day, count) VALUES (%s, %s, %s, %s, 1)
ON CONFLICT (channel_id, place, day) DO UPDATE SET count = channels_linkclicks.count + 1
"""
_MOST_PLACES = 200


def count_click(actor: Actor, *, channel_id: int, place: str, day: date) -> None:
    """One more visitor who followed its short link; places beyond the first 200 count as none."""
    actor.needs(Right.VISIT)
    channel = own(actor, Channel, channel_id)
    known = LinkClicks.objects.filter(channel=channel).values_list("place", flat=True).distinct()
    said = " ".join(place.split())[:60]
    if said not in set(known[:_MOST_PLACES]) and len(known[:_MOST_PLACES]) >= _MOST_PLACES:
        said = ""
    with connection.cursor() as cursor:
        cursor.execute(_COUNT, [actor.business_id, channel.pk, said, day])


@hours_followed.register
def _follows(followed: Followed) -> None:
    for row in Channel.objects.filter(business_id=followed.hours.business_id, deleted_at=None):
        value = row.value
        if followed.hours.pk in {*value.hours, *(one for person in value.people for one in person.hours)}:
            followed.channels += 1
            followed.by.append(f"the channel {value.label}")


@column_asked.register
def _knows(column: Column) -> None:
    row = Channel.objects.filter(business_id=column.business_id, public_id=column.id, deleted_at=None).first()
    column.name = row.value.label if row else column.name


@columns_asked.register
def _columns(columns: Columns) -> None:
    rows = Channel.objects.filter(business_id=columns.business_id, deleted_at=None)
    columns.found += [
        Departs(row.public_id, row.value.label, "channel", row.value.hours, hides=True) for row in rows
    ]
