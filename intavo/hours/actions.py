"""Writes on hours and replies."""

from typing import Any

from django.db import transaction
from pydantic import ValidationError

from intavo.accounts.actor import Actor, Refused
from intavo.accounts.effects import business_created
from intavo.accounts.models import Business
from intavo.core.hours import OpeningHours
from intavo.core.replies import Reply, Situation
from intavo.core.rights import Right
from intavo.sites.actions import site_created, touch
from intavo.sites.models import Site

from .models import HoursSet, ReplyCell, SiteHours

_WEEKDAYS = ("mon", "tue", "wed", "thu", "fri")


def refusals(error: ValidationError, prefix: str = "") -> Refused:
    """A document's errors as places and words."""
    found = (
        (
            ".".join(filter(None, (prefix, *(str(part) for part in one["loc"])))),
            one["msg"].removeprefix("Value error, "),
        )
        for one in error.errors()
    )
    return Refused(*((place or "document", message) for place, message in found))


def set_hours(actor: Actor, *, hours: HoursSet, document: dict[str, Any]) -> None:
    """Replace a set of hours; raises Refused that names every field that is wrong."""
    actor.needs(Right.BUSINESS)
    try:
        value = OpeningHours.model_validate(document)
    except ValidationError as error:
        raise refusals(error, "hours") from error
    with transaction.atomic():
        hours.document = value.model_dump(mode="json", by_alias=True)
        hours.save(update_fields=["document"])
        touch(actor.business_id)
        actor.noted("hours changed", hours=hours.pk, name=hours.name)


def add_hours(actor: Actor, *, name: str, document: dict[str, Any]) -> HoursSet:
    """Add a named set of hours."""
    actor.needs(Right.BUSINESS)
    value = OpeningHours.model_validate(document)
    return HoursSet.objects.create(
        business_id=actor.business_id, name=name, document=value.model_dump(mode="json", by_alias=True)
    )


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
