"""What happens while nobody looks: answers mailed to those who have left, and a true word where we are late."""

from django.db import transaction
from procrastinate.contrib.django import app

from intavo.core.followup import State
from intavo.core.people import email_address
from intavo.mail import actions as mail
from intavo.people.models import Address
from intavo.project import clock
from intavo.touchpoints.live import live_site

from .actions import MAIL_LOOK, said_of, send_out
from .models import Message, Talk
from .queries import is_there

_MOST = 200


def mail_if_gone(talk_id: int) -> bool:
    """Mail our messages that they have not seen, together and once, if they left and gave an address."""
    with transaction.atomic():
        rows = Talk.objects.select_for_update(of=("self",)).select_related("business", "person")
        talk = rows.filter(pk=talk_id).first()
        if talk is None:
            return False
        unseen = list(talk.messages.filter(source=Message.US, n__gt=talk.given, mailed=False).order_by("n"))
        if not unseen:
            return False
        if is_there(talk):
            app.configure_task("mail_talk", queue="mail", schedule_in={"seconds": MAIL_LOOK}).defer(talk_id=talk.pk)
            return False
        address = Address.objects.filter(person=talk.person, kind=Address.EMAIL).first()
        if address is None:
            return False
        Message.objects.filter(pk__in=[row.pk for row in unseen]).update(mailed=True)
        mail.queue(
            talk.business, to=email_address(address.shown), subject=f"Re: your message to {talk.business.name}",
            text="\n\n".join(["Hello,", *(row.text for row in unseen), talk.business.name]) + "\n",
            key=f"talk-{talk.pk}-{unseen[-1].n}", reply_to=mail.answers_to(talk.business_id, talk.followup_id),
        )  # fmt: skip
    return True


def tell_late() -> int:
    """Tell those whom we have not answered in the promised time, once each; says how many."""
    at = clock.now()
    late = Talk.objects.filter(told_late=False, followup__state=State.US.value, followup__due__lt=at)
    told = 0
    for talk_id in list(late.values_list("pk", flat=True)[:_MOST]):
        with transaction.atomic():
            talk = Talk.objects.select_for_update(of=("self",)).select_related("touchpoint", "site").get(pk=talk_id)
            site = live_site(talk.site.key) if talk.site is not None else None
            if talk.told_late or site is None:
                continue
            words = said_of(site, talk, at).words.get("promise", "as soon as we can")
            talk.last += 1
            talk.told_late = True
            talk.save(update_fields=["last", "told_late"])
            row = Message.objects.create(
                business_id=talk.business_id, talk=talk, n=talk.last, source=Message.SCRIPT, at=at,
                text=f"We are later than we said, and sorry for it. One of us answers {words}.",
            )  # fmt: skip
            if talk.gateway_id is not None:
                send_out(talk, [row])
            told += 1
    return told
