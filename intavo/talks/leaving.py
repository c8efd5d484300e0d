"""What happens while nobody looks: answers mailed to those who have left,
and a true word where we are late.
"""

from django.db import transaction
from procrastinate.contrib.django import app

from intavo import clock
from intavo.accounts.scope import held
from intavo.core.followup import State
from intavo.core.people import email_address
from intavo.core.tongues import Phrase, say
from intavo.each import others_go_on
from intavo.mail import actions as mail
from intavo.people.models import Address
from intavo.touchpoints.live import live_site

from .actions import MAIL_LOOK, held_talk, language_of, said_of, send_out, tongue_in
from .models import Message, Talk
from .queries import is_there

_MOST = 200
_HELLO, _YOUR_MESSAGE = Phrase("Hello,"), Phrase("Re: your message to {business}")
_LATE = Phrase("We are later than we said, and sorry for it. One of us answers {promise}.")


def mail_if_gone(talk_id: int) -> bool:
    """Mail our messages that they have not seen, together and once, if they left and gave an address."""
    with transaction.atomic():
        talk = held(Talk.objects.select_related("business", "person").filter(pk=talk_id))
        if talk is None:
            return False
        unseen = list(talk.messages.filter(source=Message.US, n__gt=talk.given, mailed=False).order_by("n"))
        if not unseen:
            return False
        if is_there(talk):
            app.configure_task("mail_talk", queue="mail", schedule_in={"seconds": MAIL_LOOK}).defer(
                talk_id=talk.pk
            )
            return False
        address = _mails_to(talk)
        if address is None:
            return False
        Message.objects.filter(pk__in=[row.pk for row in unseen]).update(mailed=True)
        tongue = language_of(talk)
        mail.queue(
            talk.business,
            to=email_address(address.shown),
            subject=say(_YOUR_MESSAGE, tongue, business=talk.business.name),
            text="\n\n".join([say(_HELLO, tongue), *(row.text for row in unseen), talk.business.name]) + "\n",
            key=f"talk-{talk.pk}-{unseen[-1].n}",
            reply_to=mail.answers_to(talk.business_id, talk.followup_id),
        )
    return True


def _mails_to(talk: Talk) -> Address | None:
    return Address.objects.filter(person=talk.person, kind=Address.EMAIL).first()


def left_words(talk: Talk) -> str:
    """How an answer reaches somebody who has left the page, for us to read."""
    if _mails_to(talk) is not None:
        return "has left the page: what they have not seen goes to them by mail"
    return "has left the page, and no address: they read an answer if they come back"


def tell_late() -> int:
    """Tell those whom we have not answered in the promised time, once each; says how many."""
    at = clock.now()
    late = Talk.objects.filter(
        told_late=False, gateway__deleted_at=None, followup__state=State.US.value, followup__due__lt=at
    )
    count = 0
    for talk_id in list(late.values_list("pk", flat=True)[:_MOST]):
        with others_go_on("telling of a late answer", talk_id), transaction.atomic():
            talk = held_talk(Talk.objects.select_related("touchpoint", "site").filter(pk=talk_id))
            site = live_site(talk.site.key) if talk is not None and talk.site is not None else None
            # Somebody may have answered since it was looked for.
            if talk is None or site is None or not late.filter(pk=talk_id).exists():
                continue
            tongue = tongue_in(site, talk)
            words = said_of(site, talk, at).words_in(tongue)["promise"]
            talk.last += 1
            talk.told_late = True
            talk.save(update_fields=["last", "told_late"])
            row = Message.objects.create(
                business_id=talk.business_id,
                talk=talk,
                n=talk.last,
                source=Message.SCRIPT,
                at=at,
                text=say(_LATE, tongue, promise=words),
            )
            if talk.gateway_id is not None:
                send_out(talk, [row])
            count += 1
    return count
