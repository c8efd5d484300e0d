"""What goes to members by mail of itself: the day's answers as CSV, and that codes go oddly fast."""

from datetime import timedelta

from django.conf import settings
from django.db.models import Count

from intavo import clock
from intavo.accounts.models import Business
from intavo.accounts.telling import foot, told_of_touchpoints, way_to_end
from intavo.core.people import email_address
from intavo.core.touchpoint import Document
from intavo.core.touchpoint.draining import LEAST, drains_oddly
from intavo.each import others_go_on
from intavo.mail import actions as mail
from intavo.touchpoints.models import CodeToGive, Touchpoint

from ..queries import answers_csv, answers_of


def daily_csv() -> int:
    """Queue yesterday's answers of every touchpoint that asks for it; says how many mails.

    Run again on the same day it adds nothing: each mail's key names the day.
    """
    now, count = clock.now(), 0
    for touchpoint in (
        Touchpoint.objects.select_related("live", "business").exclude(live=None).filter(deleted_at=None)
    ):
        assert touchpoint.live is not None
        with others_go_on("the day's answers of a touchpoint", touchpoint.pk):
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
    wanted = told_of_touchpoints(business.pk, tell)
    for member in wanted:
        mail.queue(
            business,
            to=email_address(member.user.email),
            subject=f"{touchpoint.name}: {count} since yesterday",
            text=f"The last day’s answers of “{touchpoint.name}” are in the file.\n{foot()}",
            key=f"daily-{touchpoint.pk}-{member.pk}-{day}",
            attached=(f"{touchpoint.slug}-{day}.csv", text),
            unsubscribe=way_to_end(member),
        )
    return len(wanted)


def tell_of_drains() -> int:
    """Queue a mail for each touchpoint whose codes go oddly fast, at most one a day and member; says how
    many.
    """
    now, count = clock.now(), 0
    lately = CodeToGive.objects.filter(given_at__gt=now - timedelta(hours=1), given_at__lte=now).order_by()
    many = lately.values("touchpoint").annotate(count=Count("pk")).filter(count__gte=LEAST)
    ids = many.values_list("touchpoint", flat=True)
    for touchpoint in (
        Touchpoint.objects.select_related("live", "business").exclude(live=None).filter(pk__in=list(ids))
    ):
        with others_go_on("telling of codes that go fast", touchpoint.pk):
            given = touchpoint.codes.exclude(given_at=None).values_list("given_at", flat=True)
            drain = drains_oddly((one for one in given if one is not None), now)
            if drain is None:
                continue
            assert touchpoint.live is not None
            told = told_of_touchpoints(
                touchpoint.business_id, Document.model_validate(touchpoint.live.document).after.tell
            )
            for member in told:
                mail.queue(
                    touchpoint.business,
                    to=email_address(member.user.email),
                    subject=f"{touchpoint.name}: codes go faster than ever",
                    text=f"{drain.words}\n\nLook who took them: "
                    f"{settings.BASE_URL}/touchpoints/{touchpoint.pk}/answers\n{foot()}",
                    key=f"drain-{touchpoint.pk}-{member.pk}-{now.date().isoformat()}",
                    unsubscribe=way_to_end(member),
                )
            count += len(told)
    return count
