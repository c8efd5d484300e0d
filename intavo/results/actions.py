"""Writes on results: beats kept as they come."""

import uuid
from collections.abc import Collection, Iterable, Mapping
from datetime import UTC, datetime, timedelta

from django.db import connection, transaction
from django.db.models import Max
from psycopg import sql
from pydantic import BaseModel, ConfigDict, Field

from intavo.accounts.actor import Actor
from intavo.core.rights import Right
from intavo.core.showing.visit import Page
from intavo.core.times import Moment
from intavo.core.touchpoint.rules import VisitorDevice, normal_path

from .models import WHAT, Beat, HourlyTally


class SaidBeat(BaseModel):
    """A beat as a browser sends it."""

    model_config = ConfigDict(extra="ignore")
    id: str = Field(min_length=8, max_length=80)
    touchpoint: str = Field(min_length=1, max_length=20)
    revision: int = Field(ge=1, le=2**31 - 1)
    variant: str | None = Field(None, max_length=40)
    # `over` is in no figure: it says that a bar could not move the page aside, and lies over it.
    what: str = Field(pattern=f"^({'|'.join((*WHAT, 'over'))})$")
    page: Page
    device: VisitorDevice
    at: Moment
    channel: str = Field("", max_length=20)


def keep_beats(
    actor: Actor, *, site_id: int, beats: Iterable[SaidBeat], at: datetime, channels: Collection[str] = ()
) -> int:
    """Keep beats that were looked at already; says how many."""
    actor.needs(Right.VISIT)
    rows = [
        Beat(
            id=uuid.uuid4(),
            business_id=actor.business_id,
            site_id=site_id,
            client_id=beat.id,
            received_at=at,
            touchpoint=beat.touchpoint,
            revision=beat.revision,
            variant=beat.variant,
            what=beat.what,
            page=normal_path(beat.page.url)[:500],
            device=beat.device,
            at=beat.at,
            channel=beat.channel if beat.channel in channels else "",
        )
        for beat in beats
        if beat.what in WHAT
    ]
    Beat.objects.bulk_create(rows)
    return len(rows)


def count_refused(actor: Actor, *, site_id: int, why: Mapping[str, int], at: datetime) -> None:
    """Add to how many reports were not kept on a day (UTC), by why: they are in no figure."""
    actor.needs(Right.VISIT)
    with connection.cursor() as cursor:
        for reason in sorted(why):
            cursor.execute(
                "INSERT INTO results_refusedbeats AS row (business_id, site_id, day, why, count)"
                " VALUES (%s, %s, %s, %s, %s) ON CONFLICT (site_id, day, why) DO UPDATE SET"
                " count = row.count + EXCLUDED.count",
                [actor.business_id, site_id, at.astimezone(UTC).date(), reason, why[reason]],
            )


# Further back nothing is looked for that was not folded in its time.
_FOLDED_BACK = timedelta(days=62)
_FOLD = """
INSERT INTO results_hourlytally (business_id, site_id, touchpoint, hour, what, channel, count)
SELECT business_id, site_id, touchpoint, date_trunc('hour', first), what, channel, count(*) FROM (
    SELECT business_id, site_id, touchpoint, what, channel, client_id, min(received_at) AS first
    FROM results_beat WHERE received_at >= %(since)s - interval '2 days' AND received_at < %(until)s
    GROUP BY business_id, site_id, touchpoint, what, channel, client_id
) AS beats
WHERE first >= %(since)s AND EXISTS (SELECT 1 FROM accounts_business b WHERE b.id = business_id)
GROUP BY business_id, site_id, touchpoint, date_trunc('hour', first), what, channel
ON CONFLICT (touchpoint, site_id, hour, what, channel) DO UPDATE SET count = EXCLUDED.count
"""


def fold_beats(at: datetime, hours: int = 3) -> int:
    """Fold the beats of the last hours, and of those since this was done last, into hourly tallies; says how
    many tallies were written.

    A beat that came twice (same id from the browser) counts once, in the hour in which it came first. Folding
    again gives the same tallies.
    """
    hour = at.replace(minute=0, second=0, microsecond=0)
    last = HourlyTally.objects.filter(hour__lte=hour).aggregate(last=Max("hour"))["last"]
    since = max(min(hour, last or hour - _FOLDED_BACK) - timedelta(hours=hours), hour - _FOLDED_BACK)
    with connection.cursor() as cursor:
        cursor.execute(_FOLD, {"since": since, "until": at + timedelta(hours=1)})
        return int(cursor.rowcount)


def make_months(at: datetime, ahead: int = 2) -> list[str]:
    """Make the partitions of the months `ahead` (UTC) as far as they are not there; says their names.

    A partition is made beside the table and then attached: no report waits for longer than a short lock, and
    if that cannot be had at once it is left to another day (OperationalError). A month whose reports have
    come already, with no partition for them, stays where it is.
    """
    this = at.astimezone(UTC).replace(day=1, hour=0, minute=0, second=0, microsecond=0)
    first = (this + timedelta(days=32)).replace(day=1)
    months: list[str] = []
    for _ in range(ahead):
        following = (first + timedelta(days=32)).replace(day=1)
        if _make_month(first, following):
            months.append(_name_of(first))
        first = following
    return months


def _name_of(month: datetime) -> str:
    return f"results_beat_{month:%Y_%m}"


def _make_month(first: datetime, following: datetime) -> bool:
    name, month = (
        sql.Identifier(_name_of(first)),
        {"since": first.isoformat(), "until": following.isoformat()},
    )
    ours = sql.Identifier(f"not_{_name_of(first)}")

    def run(text: str) -> None:
        with transaction.atomic(), connection.cursor() as cursor:
            cursor.execute("SET LOCAL lock_timeout = '2s'")
            given = {key: sql.Literal(value) for key, value in month.items()}
            cursor.execute(sql.SQL(text).format(name=name, ours=ours, **given))

    with connection.cursor() as cursor:
        cursor.execute("SELECT to_regclass(%s)", [_name_of(first)])
        there = (cursor.fetchone() or (None,))[0] is not None
        cursor.execute(
            "SELECT EXISTS (SELECT FROM results_beat_rest"
            " WHERE received_at >= %(since)s AND received_at < %(until)s)",
            month,
        )
        if there or (cursor.fetchone() or (True,))[0]:
            return False
    # That nothing of the month lies in the rest is looked at while reports come; nobody waits for the
    # attaching then.
    run("ALTER TABLE results_beat_rest DROP CONSTRAINT IF EXISTS {ours}")
    run(
        "ALTER TABLE results_beat_rest ADD CONSTRAINT {ours} CHECK"
        " (received_at < {since} OR received_at >= {until}) NOT VALID"
    )
    run("ALTER TABLE results_beat_rest VALIDATE CONSTRAINT {ours}")
    run(
        "CREATE TABLE {name} (LIKE results_beat INCLUDING ALL);"
        " ALTER TABLE results_beat ATTACH PARTITION {name} FOR VALUES FROM ({since}) TO ({until});"
        " ALTER TABLE results_beat_rest DROP CONSTRAINT {ours}"
    )
    return True
