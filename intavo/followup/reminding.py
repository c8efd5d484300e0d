"""Members told by mail of what is due, what is late, and each morning of the day's work."""

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import TYPE_CHECKING

from django.conf import settings
from django.db import transaction
from django.db.models import Exists, OuterRef, Q

from intavo.accounts import telling
from intavo.accounts.actor import Actor, Refused, member_actor
from intavo.accounts.mails import queue_mail
from intavo.accounts.models import Member
from intavo.accounts.scope import own
from intavo.core import followup as rules
from intavo.core.hours import OpeningHours, is_open
from intavo.core.reminding import About, Wish, about, reach
from intavo.core.rights import Right, Role, may
from intavo.core.say import Tongue, length_words, moment_words
from intavo.each import others_go_on
from intavo.hours.queries import main_hours

from .models import FollowUp, Reminded, Wishes
from .queries import called_by_all, for_us

if TYPE_CHECKING:
    from django.db.models import QuerySet

    from .queries import StandingRow

MOST_BEFORE, MOST_LINES = 60 * 24, 30
_SALT = "told"


def wishes_of(actor: Actor) -> Wishes:
    """What a member wants to be told; as it is for everybody until they say otherwise."""
    found = Wishes.objects.filter(member_id=actor.member_id or 0).first()
    return found or Wishes(business_id=actor.business_id, member_id=actor.member_id or 0)


def wish(actor: Actor, *, said: dict[str, object]) -> Wishes:
    """Keep what a member wants to be told."""
    actor.needs(Right.FOLLOW_UP)
    member = own(actor, Member, actor.member_id or 0)
    before, untouched = said.get("before_minutes"), said.get("untouched_days")
    if isinstance(before, int) and not 1 <= before <= MOST_BEFORE:
        raise Refused(("before_minutes", f"From 1 to {MOST_BEFORE:,} minutes of open time, or not at all."))
    if isinstance(untouched, int) and not 1 <= untouched <= 60:
        raise Refused(("untouched_days", "From 1 to 60 open days, or not at all."))
    # Kept with the member, where also the touchpoints find it.
    member.touchpoint_mail = bool(said["touchpoints"])
    kept = {name: value for name, value in said.items() if name != "touchpoints"}
    with transaction.atomic():
        member.save(update_fields=["touchpoint_mail"])
        row, _ = Wishes.objects.update_or_create(
            member=member, defaults={"business_id": actor.business_id, **kept}
        )
    return row


def remind_all(at: datetime) -> None:
    """Tell every member of every business what they want to be told now."""
    businesses = FollowUp.objects.exclude(state=rules.State.FINISHED.value).values("business").distinct()
    ids = businesses.values_list("business", flat=True).order_by("business")
    for business_id in ids:
        with others_go_on("reminders of a business", business_id):
            _remind(business_id, at)


def _remind(business_id: int, at: datetime) -> None:
    hours = main_hours(business_id).value
    if not is_open(hours, at):
        return
    members = Member.objects.filter(business_id=business_id).select_related("user", "business", "wishes")
    for member in members.order_by("pk"):
        if may(Role(member.role), Right.FOLLOW_UP):
            told = getattr(member, "wishes", None) or Wishes(business_id=business_id, member=member)
            with transaction.atomic():
                _tell_due(member, told, hours, at)
                _tell_morning(member, told, hours, at)


@dataclass(frozen=True, slots=True)
class _Found:
    row: FollowUp
    due: datetime
    about: About


def _tell_due(member: Member, wishes: Wishes, hours: OpeningHours, at: datetime) -> None:
    asked = Wish(
        timedelta(minutes=wishes.before_minutes) if wishes.before_minutes else None, wishes.when_late
    )
    if not asked.before and not asked.late:
        return
    # Of those that they know to be late there may be many.
    heard = Reminded.objects.filter(
        member=member, followup=OuterRef("pk"), due=OuterRef("stands"), about=About.LATE.value
    )
    rows = (
        _theirs(member, at)
        .filter(~Exists(heard), stands__lte=reach(hours, at, asked))
        .order_by("stands", "pk")[:200]
    )
    found = []
    for row in rows:
        if row.stands is None:
            continue
        what = about(hours, at, row.stands, max(row.stands, row.late_from or row.stands), asked)
        if what is not None:
            found.append(_Found(row, row.stands, what))
    known = set(
        Reminded.objects.filter(member=member, followup__in=[one.row.pk for one in found]).values_list(
            "followup_id", "due", "about"
        )
    )
    found = [one for one in found if (one.row.pk, one.due, one.about.value) not in known]
    if not found:
        return
    Reminded.objects.bulk_create(
        (
            Reminded(
                business_id=member.business_id,
                member=member,
                followup=one.row,
                due=one.due,
                about=one.about.value,
            )
            for one in found
        ),
        ignore_conflicts=True,
    )
    late = sum(one.about is About.LATE for one in found)
    soon = len(found) - late
    heads = [f"{late} late" if late else "", f"{soon} due soon" if soon else ""]
    _mail(
        member,
        f"{' and '.join(one for one in heads if one)}: {_names(found)}",
        [_line(member, one.row, one.due, hours, at) for one in found],
    )


def _names(due: list[_Found]) -> str:
    names = list(dict.fromkeys(called_by_all(one.row.person) for one in due))
    return ", ".join(names[:3]) + (f" and {len(names) - 3} more" if len(names) > 3 else "")


def _tell_morning(member: Member, wishes: Wishes, hours: OpeningHours, at: datetime) -> None:
    today = at.astimezone(hours.zone).date()
    if not wishes.morning or wishes.morning_on == today:
        return
    wishes.morning_on = today
    wishes.save(update_fields=["morning_on"])
    ruler = rules.ruler(hours, at)
    rows = list(_theirs(member, at).filter(stands__lte=ruler.closes or at).order_by("stands", "pk")[:200])
    free = _theirs(member, at).filter(stands=None).count()
    if not rows and not free:
        return
    lines = [_line(member, row, row.stands, hours, at) for row in rows if row.stands]
    if free:
        lines.append(f"{free} more {'has' if free == 1 else 'have'} no set time.")
    count = len(rows)
    _mail(member, f"Today: {count} to answer before closing" if count else "Today: nothing is due", lines)


def _theirs(member: Member, at: datetime) -> "QuerySet[StandingRow]":
    """What is for us, and this member's or everybody's."""
    return for_us(member_actor(member), at).filter(Q(member=member) | Q(member=None))


def _line(member: Member, row: FollowUp, due: datetime, hours: OpeningHours, at: datetime) -> str:
    latest = max(due, row.late_from or due)
    when = moment_words(due, at, hours.zone, "at", Tongue("en", member.business.region))
    if latest < at:
        late = rules.how_late(hours, latest, at)
        how = f"was due {when}" + (
            f", {length_words(late)} of open time late" if late >= timedelta(minutes=1) else ""
        )
    else:
        how = f"due {when}"
    said = f"\n  “{row.excerpt}”" if row.excerpt else ""
    return f"- {called_by_all(row.person)}: {how}{said}\n  {settings.BASE_URL}/follow-up/{row.pk}"


def _mail(member: Member, subject: str, lines: Iterable[str]) -> None:
    shown = list(lines)
    more = [f"And {len(shown) - MOST_LINES} more."] if len(shown) > MOST_LINES else []
    text = "\n\n".join([member.business.name, *shown[:MOST_LINES], *more]) + "\n" + telling.foot()
    ends = telling.way_to_end(member, "told", _SALT)
    queue_mail(to=member.user.email, subject=subject[:200], text=text, unsubscribe=ends)


def told_by(token: str) -> Member | None:
    """The member that a link of these mails is of; None where there is none."""
    return telling.told_by(token, _SALT)


def tell_no_more(token: str) -> Member | None:
    """Send no more of these mails to the member of a link; None as in `told_by`."""
    member = told_by(token)
    if member is not None:
        Wishes.objects.update_or_create(
            member=member,
            business_id=member.business_id,
            defaults={"before_minutes": None, "when_late": False, "morning": False},
        )
    return member
