"""The day line: today's hours, now, what is due, and what was made but is not on."""

from dataclasses import dataclass
from datetime import datetime, timedelta
from zoneinfo import ZoneInfo

from intavo.accounts.actor import Actor
from intavo.accounts.queries import business_of
from intavo.accounts.quotas import near
from intavo.core import followup as rules
from intavo.core.hours import OpenStretch, open_stretches
from intavo.core.replies import Promise, Situation, choose, fill, situation, slots
from intavo.core.rights import Right
from intavo.core.say import Tongue, is_midnight, moment_words, time_words
from intavo.hours.queries import anybody_free, main_hours, replies
from intavo.touchpoints.queries import waiting

from .effects import Aside, Away, came_aside, services_away
from .queries import due_marks, untouched
from .reminding import wishes_of


@dataclass(frozen=True, slots=True)
class Mark:
    """Something due: its follow-up, whose it is, when, and its lane."""

    id: int
    name: str
    due: datetime
    lane: rules.Lane


@dataclass(frozen=True, slots=True)
class DayLine:
    """What the strip shows for the local day from `start` to `end`."""

    at: datetime
    timezone: str
    start: datetime
    end: datetime
    situation: Situation
    until: str
    after_reply: str
    stretches: list[OpenStretch]
    marks: list[Mark]
    late: int
    before_closing: int
    made_not_on: int
    changed_since_live: int
    ended: int
    away: list[str]
    aside: int
    untouched: int
    untouched_days: int
    nearly_full: list[str]


def day_line(actor: Actor, at: datetime) -> DayLine:
    """The day line at an instant."""
    business = business_of(actor)
    hours = main_hours(business.pk).value
    local = at.astimezone(hours.zone)
    start = local.replace(hour=0, minute=0, second=0, microsecond=0, fold=0)
    end = (start + timedelta(days=1)).replace(fold=0)
    now = situation(hours, at, anybody_free(business.pk, at))
    ruler = rules.ruler(hours, at)
    stretches = open_stretches(hours, start, end)
    # What is said stands in the closed time after the day's last opening, and has to be true there.
    reply_at = next((one.end for one in reversed(stretches) if one.end > at), at)
    promise = Promise.of_minutes(business.promise_minutes)
    told = choose(
        replies(business.pk), situation(hours, reply_at, True), business.language, business.language
    )
    tongue = Tongue(told.cell.language, business.region)
    words = slots(hours, reply_at, hours.zone, promise.due(hours, reply_at), tongue=tongue)
    due_now = due_marks(actor, at, ruler.closes or end)
    marks = [Mark(id_, name, due, ruler.lane(due, late_from)) for id_, name, due, late_from in due_now]
    waits = waiting(actor, at)
    days = wishes_of(actor).untouched_days or 0
    asked = Away(actor.business_id)
    services_away.tell(asked)
    lies = Aside(actor.business_id)
    came_aside.tell(lies)
    return DayLine(
        at=at,
        timezone=hours.timezone,
        start=start,
        end=end,
        situation=now,
        until=_until(ruler, at, hours.zone),
        after_reply=fill(told.reply.text, words, tongue),
        stretches=stretches,
        marks=marks,
        late=sum(mark.lane is rules.Lane.LATE for mark in marks),
        before_closing=sum(mark.lane is rules.Lane.BEFORE_CLOSING for mark in marks),
        made_not_on=waits.not_on,
        changed_since_live=waits.changed,
        ended=waits.ended,
        away=asked.names,
        aside=lies.count,
        untouched=untouched(actor, at, days) if days else 0,
        untouched_days=days,
        nearly_full=near(actor.business_id) if actor.may(Right.BUSINESS) else [],
    )


def _until(ruler: rules.Ruler, at: datetime, zone: ZoneInfo) -> str:
    if ruler.closes is not None:
        closes = ruler.closes.astimezone(zone)
        today = at.astimezone(zone).date()
        if is_midnight(closes) and closes.date() == today + timedelta(days=1):
            return "open till midnight"
        same_day = closes.date() == today
        when = time_words(closes.time()) if same_day else moment_words(ruler.closes, at, zone, "at")
        return f"open till {when}"
    if ruler.opens is None:
        return "closed"
    return f"closed, opens {moment_words(ruler.opens, at, zone, 'at')}"
