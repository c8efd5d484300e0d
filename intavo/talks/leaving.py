"""What happens while nobody looks: answers mailed to those who have left,
and a true word where we are late.
"""

from itertools import takewhile

from django.db import transaction
from procrastinate.contrib.django import app

from intavo import clock
from intavo.accounts.scope import held
from intavo.core.followup import State
from intavo.core.hosts import host_of
from intavo.core.people import email_address
from intavo.core.tongues import Phrase, say
from intavo.each import others_go_on
from intavo.mail import actions as mail
from intavo.mail.enclosing import put_with
from intavo.people.models import Address
from intavo.sites.queries import home_of
from intavo.touchpoints.live import live_site

from .actions import MAIL_LOOK, held_talk, language_of, said_of, send_out, tongue_in
from .files import path_of
from .models import Message, Talk
from .queries import is_there

_MOST, _MOST_QUOTED = 200, 5
_HELLO, _YOUR_MESSAGE = Phrase("Hello,"), Phrase("Re: your message to {business}")
_GO_ON = Phrase("Answer this mail, or go on in the conversation: {address}")
_LATE = Phrase("We are later than we said, and sorry for it. One of us answers {promise}.")


def mail_if_gone(talk_id: int) -> bool:
    """Mail our messages that they have not seen, together and once, if they left and gave an address."""
    with transaction.atomic():
        talk = held(
            Talk.objects.select_related("business", "person", "site", "touchpoint").filter(pk=talk_id)
        )
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
        back = _way_back(talk)
        letter = [
            say(_HELLO, tongue),
            *(row.text for row in unseen if not row.file),
            talk.business.name,
            _quoted(talk, unseen[0].n),
            say(_GO_ON, tongue, address=back) if back else "",
        ]
        sent = mail.queue(
            talk.business,
            to=email_address(address.shown),
            subject=say(_YOUR_MESSAGE, tongue, business=talk.business.name),
            text="\n\n".join(one for one in letter if one) + "\n",
            key=f"talk-{talk.pk}-{unseen[-1].n}",
            reply_to=mail.answers_to(talk.business_id, talk.followup_id),
        )
        for row in unseen:
            if row.file:
                put_with(sent.id, talk.business_id, row.file, path_of(talk.business_id, str(row.file["key"])))
    return True


def _quoted(talk: Talk, before: int) -> str:
    """What they wrote last, ahead of a message of ours, as mails quote it; addresses that were asked for are
    left out.
    """
    ahead = talk.messages.filter(n__lt=before).exclude(source=Message.SCRIPT).order_by("-n")[:_MOST_QUOTED]
    theirs = [row for row in takewhile(lambda row: row.source == Message.THEM, ahead) if not row.file]
    known = {one.key for one in Address.objects.filter(person=talk.person)}
    words = [row.text for row in reversed(theirs) if row.text.strip().casefold() not in known]
    return "\n".join(f"> {line}".rstrip() for one in words for line in one.strip().split("\n"))


def _way_back(talk: Talk) -> str:
    """The address at which the conversation goes on: the page that it began on, where that is one of ours."""
    if talk.site is None or talk.touchpoint is None or not talk.touchpoint.live_id:
        return ""
    ours = {one.host for one in talk.site.hosts.all()}
    page = talk.page if host_of(talk.page) in ours else home_of(talk.site)
    return f"{page.partition('#')[0]}#intavo-{talk.touchpoint.slug}"


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
            words = said_of(site, talk, at).words_in(tongue.ours)["promise"]
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
