"""The day's answers as CSV by mail, to the members who are told."""

from datetime import timedelta

from intavo.accounts.models import Business, Member
from intavo.core.people import email_address
from intavo.core.touchpoint import Document
from intavo.mail import actions as mail
from intavo.project import clock
from intavo.touchpoints.models import Touchpoint

from ..queries import answers_csv, answers_of


def daily_csv() -> int:
    """Queue yesterday's answers of every touchpoint that asks for it; says how many mails.

    Run again on the same day it adds nothing: each mail's key names the day.
    """
    now, count = clock.now(), 0
    for touchpoint in Touchpoint.objects.select_related("live", "business").exclude(live=None).filter(deleted_at=None):
        assert touchpoint.live is not None
        after = Document.model_validate(touchpoint.live.document).after
        if after.daily_csv:
            count += _mail_day(touchpoint, touchpoint.business, list(after.tell), now - timedelta(days=1))
    return count


def _mail_day(touchpoint: Touchpoint, business: Business, tell: list[int], since: object) -> int:
    rows = answers_of(touchpoint).filter(received_at__gte=since)
    count = rows.count()
    if not count:
        return 0
    text = "".join(answers_csv(touchpoint, rows))
    day = clock.now().date().isoformat()
    members = Member.objects.select_related("user").filter(business=business)
    wanted = members.filter(pk__in=tell) if tell else members.filter(role="owner")
    for member in wanted:
        mail.queue(
            business, to=email_address(member.user.email), subject=f"{touchpoint.name}: {count} since yesterday",
            text=f"The last day’s answers of “{touchpoint.name}” are in the file.\n",
            key=f"daily-{touchpoint.pk}-{member.pk}-{day}",
            attached=(f"{touchpoint.slug}-{day}.csv", text),
        )  # fmt: skip
    return len(wanted)
