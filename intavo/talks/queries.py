"""Reads on talks."""

from dataclasses import dataclass
from datetime import datetime

from django.db import connection

from intavo.lately import Lately

from .actions import GONE_AFTER, GOOD_FOR, TYPES_FOR, Saying
from .models import Talk

# Looked at and noted in one statement, since every open conversation asks this every few seconds.
_POLL = """
WITH noted AS (
    UPDATE talks_talk SET seen_at = now(), given = GREATEST(given, LEAST(%(after)s, last))
    WHERE token = %(token)s AND site_id = %(site)s AND last_word_at > %(since)s
      AND (seen_at < now() - interval '20 s' OR seen_at > now() + interval '60 s'
            OR given < LEAST(%(after)s, last))
)
"""
# By the token alone, which is one row's only: the less is asked, the less is planned.
_LOOK = """
SELECT t.id, t.site_id, t.last, t.read, t.typing_until, t.last_word_at,
       t.revision_id, p.public_id, t.channel, t.language, t.utc_offset
FROM talks_talk t LEFT JOIN touchpoints_touchpoint p ON p.id = t.touchpoint_id WHERE t.token = %(token)s
"""
# What this process has noted of each talk: until that is old a look alone is enough.
_noted: Lately[str, int] = Lately(20_000, seconds=20)


@dataclass(frozen=True, slots=True)
class Polled:
    """Where a talk stands."""

    id: int
    last: int
    read: int
    typing: bool
    saying: Saying


def poll(site_id: int, token: str, after: int, at: datetime) -> Polled | None:
    """Where a talk stands, noting that the visitor is there and what they have; None where there is none."""
    had = _noted.known(token)
    noted = had is not None and after <= had
    if not noted:
        _noted.put(token, after)
    about: dict[str, str | int | datetime] = {"token": token}
    if not noted:
        about |= {"site": site_id, "since": at - GOOD_FOR, "after": after}
    with connection.cursor() as cursor:
        cursor.execute(_LOOK if noted else _POLL + _LOOK, about)
        row = cursor.fetchone()
    if row is None:
        return None
    pk, site, last, read, typing_until, last_word_at, *by = row
    if site != site_id or last_word_at <= at - GOOD_FOR:
        return None
    typing = typing_until is not None and at < typing_until <= at + TYPES_FOR
    return Polled(pk, last, read, typing, Saying(*by))


def is_there(talk: Talk) -> bool:
    """Whether the visitor has asked for something in the last two minutes, by the database's own clock."""
    with connection.cursor() as cursor:
        cursor.execute(
            "SELECT seen_at BETWEEN now() - make_interval(secs => %s) AND now() + interval '60 s'"
            " FROM talks_talk WHERE id = %s",
            [GONE_AFTER, talk.pk],
        )
        row = cursor.fetchone()
    return bool(row and row[0])


def talk_of(business_id: int, followup_id: int) -> Talk | None:
    """The talk behind a follow-up, the latest of several."""
    rows = Talk.objects.select_related("touchpoint", "gateway").filter(
        business_id=business_id, followup_id=followup_id
    )
    return rows.order_by("-last_word_at", "-pk").first()
