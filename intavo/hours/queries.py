"""Reads on hours and replies, and on who is at the counter."""

from datetime import datetime

from django.db.models import QuerySet

from intavo.accounts.models import Member
from intavo.core.hours import OpeningHours
from intavo.core.presence import Away, Presence, somebody_free
from intavo.core.replies import Cell, Reply, Situation

from .models import HoursSet, ReplyCell, SiteHours


def main_hours(business_id: int, site_id: int | None = None) -> HoursSet:
    """A site's main hours; without a site, those of the business's first site, or its first set."""
    followed = SiteHours.objects.select_related("hours").filter(business_id=business_id).order_by("site_id")
    row = (followed.filter(site_id=site_id) if site_id else followed).first()
    return row.hours if row else kept_sets(business_id)[0]


def own_hours(business_id: int, hours_id: int) -> HoursSet:
    """One of the business's sets of hours; HoursSet.DoesNotExist if it is not there."""
    return HoursSet.objects.get(pk=hours_id, business_id=business_id, deleted_at=None)


def by_token(token: str) -> HoursSet | None:
    """The set behind a secret address."""
    return HoursSet.objects.filter(token=token[:40], deleted_at=None).first()


def kept_sets(business_id: int) -> QuerySet[HoursSet]:
    """Every named set that is there."""
    return HoursSet.objects.filter(business_id=business_id, deleted_at=None).order_by("pk")


def replies(business_id: int) -> dict[Cell, Reply]:
    """The business's own table of replies."""
    return {
        Cell(Situation(row.situation), row.column or None, row.language): Reply.model_validate(row.document)
        for row in ReplyCell.objects.filter(business_id=business_id)
    }


def all_hours(business_id: int) -> dict[int, OpeningHours]:
    """Every named set of the business's hours by its id;
    a deleted one's id names what stands instead of it.
    """
    rows = {row.pk: row for row in HoursSet.objects.filter(business_id=business_id)}
    values = {id_: row.value for id_, row in rows.items() if row.deleted_at is None}
    return values | {id_: values[now] for id_, row in rows.items() if (now := _instead(rows, row)) in values}


def _instead(rows: dict[int, HoursSet], row: HoursSet) -> int:
    """The id of the set that is followed in place of a deleted one."""
    for _ in rows:
        if row.instead_id is None:
            break
        row = rows[row.instead_id]
    return row.pk


def all_sets(business_id: int, site_id: int | None = None) -> dict[int | None, OpeningHours]:
    """All of them, and the main ones under None."""
    by_id: dict[int | None, OpeningHours] = {None: main_hours(business_id, site_id).value}
    for id_, value in all_hours(business_id).items():
        by_id[id_] = value
    return by_id


def presences(business_id: int) -> tuple[Presence, ...]:
    """Everybody of a business: away or not, and when they are usually there."""
    rows = Member.objects.filter(business_id=business_id).select_related("usual_hours__hours").order_by("pk")
    return tuple(
        Presence(
            row.pk,
            Away(row.back_at, row.away_ends) if row.away else None,
            row.usual_hours.hours.value if hasattr(row, "usual_hours") else None,
        )
        for row in rows
    )


def anybody_free(business_id: int, at: datetime) -> bool:
    """Whether any member is at the counter."""
    return somebody_free(presences(business_id), at)
