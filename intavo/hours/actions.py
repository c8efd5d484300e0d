"""Writes on hours and replies."""

import json
from typing import Any

from django.db import transaction
from pydantic import ValidationError

from intavo.accounts.actions import look_at_hours
from intavo.accounts.actor import Actor, Refused
from intavo.accounts.effects import business_created
from intavo.accounts.models import Business
from intavo.core.hours import OpeningHours, read_clock
from intavo.core.refusals import wrongs
from intavo.core.replies import Reply, Situation
from intavo.core.rights import Right
from intavo.sites.actions import site_created, touch
from intavo.sites.models import Site

from .effects import Followed, hours_followed
from .models import HoursSet, ReplyCell, SiteHours

_WEEKDAYS = ("mon", "tue", "wed", "thu", "fri")


def set_hours(actor: Actor, *, hours_id: int, document: dict[str, Any]) -> None:
    """Replace a set of hours, with times as people type them; Refused that names every field that is wrong."""
    actor.needs(Right.BUSINESS)
    value = _read(document)
    with transaction.atomic():
        hours = _own(actor, hours_id)
        hours.document = value.model_dump(mode="json", by_alias=True)
        hours.save(update_fields=["document"])
        touch(actor.business_id)
        look_at_hours(actor)
        actor.noted("hours changed", hours=hours.pk, name=hours.name)


def _own(actor: Actor, hours_id: int) -> HoursSet:
    return HoursSet.objects.select_for_update().get(pk=hours_id, business_id=actor.business_id)


def read_document(text: str) -> OpeningHours:
    """A set of hours from JSON, with times as people type them; Refused that names every field that is wrong."""
    try:
        found = json.loads(text)
    except (ValueError, RecursionError):
        found = None
    if not isinstance(found, dict):
        raise Refused(("document", "This is no set of hours."))
    return _read(found)


def _read(document: dict[str, Any]) -> OpeningHours:
    try:
        return OpeningHours.model_validate(_with_clocks(document))
    except ValidationError as error:
        raise Refused(*wrongs(error.errors(), "hours")) from error


def _with_clocks(document: dict[str, Any]) -> dict[str, Any]:
    """The document with every time that can be read as HH:MM; the rest is refused at its place."""

    def clock(text: object) -> object:
        try:
            return read_clock(text) if isinstance(text, str) else text
        except ValueError:
            return text

    def stretches(rows: object) -> object:
        if not isinstance(rows, list):
            return rows
        return [
            row | {name: clock(row[name]) for name in ("from", "to") if name in row} if isinstance(row, dict) else row
            for row in rows
        ]

    def odd(rows: object) -> object:
        if not isinstance(rows, list):
            return rows
        return [
            one | {"stretches": stretches(one["stretches"])} if isinstance(one, dict) and "stretches" in one else one
            for one in rows
        ]

    found = {"week": stretches, "exceptions": odd}
    return document | {name: read(document[name]) for name, read in found.items() if name in document}


def add_hours(actor: Actor, *, name: str, document: dict[str, Any]) -> HoursSet:
    """Add a named set of hours; Refused for a name that is empty or taken, and for every field that is wrong."""
    actor.needs(Right.BUSINESS)
    title, value = _free_name(actor, name), _read(document)
    with transaction.atomic():
        row = HoursSet.objects.create(
            business_id=actor.business_id, name=title, document=value.model_dump(mode="json", by_alias=True)
        )
        touch(actor.business_id)
        actor.noted("hours added", hours=row.pk, name=title)
    return row


def _free_name(actor: Actor, name: str, but: int | None = None) -> str:
    title = " ".join(name.split())
    if not title or len(title) > 80:
        raise Refused(("name", "Please write a name of at most 80 characters."))
    if HoursSet.objects.filter(business_id=actor.business_id, name__iexact=title).exclude(pk=but or 0).exists():
        raise Refused(("name", f"There are hours called “{title}” already."))
    return title


def rename_hours(actor: Actor, *, hours_id: int, name: str) -> None:
    """Give a set another name."""
    actor.needs(Right.BUSINESS)
    with transaction.atomic():
        row = _own(actor, hours_id)
        before, row.name = row.name, _free_name(actor, name, but=hours_id)
        row.save(update_fields=["name"])
        actor.noted("hours renamed", hours=row.pk, before=before, name=row.name)


def drop_hours(actor: Actor, *, hours_id: int) -> None:
    """Delete a set that nothing follows; Refused with the names of what does."""
    actor.needs(Right.BUSINESS)
    with transaction.atomic():
        row = _own(actor, hours_id)
        if HoursSet.objects.filter(business_id=actor.business_id).count() == 1:
            raise Refused(("hours", "These are the only hours: there have to be some."))
        followed = Followed(row)
        hours_followed.tell(followed)
        used = followed.by + [
            f"the site {one.site.name}" for one in SiteHours.objects.select_related("site").filter(hours=row)
        ]
        if used:
            raise Refused(("hours", f"They are followed by {', '.join(sorted(used))}. Let them follow others first."))
        actor.noted("hours deleted", hours=row.pk, name=row.name, document=row.document)
        row.delete()
        touch(actor.business_id)


def follow_hours(actor: Actor, *, site_id: int, hours_id: int) -> None:
    """Say which hours are the main ones of a site."""
    actor.needs(Right.BUSINESS)
    with transaction.atomic():
        row = _own(actor, hours_id)
        site = Site.objects.get(pk=site_id, business_id=actor.business_id)
        SiteHours.objects.update_or_create(site=site, defaults={"business_id": actor.business_id, "hours": row})
        touch(actor.business_id)
        actor.noted("main hours chosen", site=site.name, hours=row.pk, name=row.name)


def set_replies(actor: Actor, *, situation: str, reply: dict[str, Any]) -> None:
    """Set what is told everywhere in a situation, in the business's language; Refused with what is wrong."""
    try:
        value, now = Reply.model_validate(reply), Situation(situation)
    except ValidationError as error:
        raise Refused(*wrongs(error.errors(), "reply")) from error
    except ValueError:
        raise Refused(("situation", f"There is no situation “{situation[:40]}”.")) from None
    language = Business.objects.values_list("language", flat=True).get(pk=actor.business_id)
    set_reply(actor, situation=now, language=language, reply=value)


def reset_reply(actor: Actor, *, situation: str) -> None:
    """Back to the words that ship."""
    actor.needs(Right.BUSINESS)
    with transaction.atomic():
        ReplyCell.objects.filter(business_id=actor.business_id, situation=situation).delete()
        touch(actor.business_id)
        actor.noted("reply put back", situation=situation)


def set_reply(actor: Actor, *, situation: Situation, language: str, reply: Reply) -> None:
    """Set what is told everywhere in a situation."""
    actor.needs(Right.BUSINESS)
    with transaction.atomic():
        ReplyCell.objects.update_or_create(
            business_id=actor.business_id, situation=situation.value, language=language,
            defaults={"document": reply.model_dump(mode="json")},
        )  # fmt: skip
        touch(actor.business_id)
        actor.noted("reply changed", situation=situation.value)


@business_created.register
def _first_hours(business: Business) -> None:
    """A new business starts with weekday hours, so that promises are right from the first minute."""
    week = [{"day": day, "from": "09:00", "to": "17:00"} for day in _WEEKDAYS]
    HoursSet.objects.create(
        business=business, name="Main hours", document={"timezone": business.timezone, "week": week, "exceptions": []}
    )


@site_created.register
def _main_hours(site: Site) -> None:
    """A new site follows the first hours of its business."""
    first = HoursSet.objects.filter(business_id=site.business_id).order_by("pk")[0]
    SiteHours.objects.create(business_id=site.business_id, site=site, hours=first)
