"""Reads on hours and replies."""

from intavo.core.hours import OpeningHours
from intavo.core.replies import Cell, Reply, Situation

from .models import HoursSet, ReplyCell, SiteHours


def main_hours(business_id: int, site_id: int | None = None) -> HoursSet:
    """A site's main hours; without a site, those of the business's first site, or its first set."""
    followed = SiteHours.objects.select_related("hours").filter(business_id=business_id).order_by("site_id")
    row = (followed.filter(site_id=site_id) if site_id else followed).first()
    return row.hours if row else HoursSet.objects.filter(business_id=business_id).order_by("pk")[0]


def own_hours(business_id: int, hours_id: int) -> HoursSet:
    """One of the business's sets of hours; HoursSet.DoesNotExist if it is not there."""
    return HoursSet.objects.get(pk=hours_id, business_id=business_id)


def replies(business_id: int) -> dict[Cell, Reply]:
    """The business's own table of replies."""
    return {
        Cell(Situation(row.situation), None, row.language): Reply.model_validate(row.document)
        for row in ReplyCell.objects.filter(business_id=business_id)
    }


def all_hours(business_id: int) -> dict[int, OpeningHours]:
    """Every named set of the business's hours by its id."""
    return {row.pk: row.value for row in HoursSet.objects.filter(business_id=business_id)}
