"""Connecting a site: what is written to whoever keeps it."""

from django.conf import settings
from django.db import transaction

from intavo import clock
from intavo.accounts.actor import Actor, Refused
from intavo.accounts.daily import few_a_day
from intavo.accounts.models import Member, User
from intavo.accounts.scope import own
from intavo.accounts.sender import is_theirs
from intavo.core.people import email_address
from intavo.core.rights import Right
from intavo.mail import actions as mail
from intavo.people.models import Consent
from intavo.sites.models import Site

_MOST_A_DAY = 5


def instructions(site: Site, asks: str) -> str:
    """How to put the line into a site, for somebody who has never heard of us. `asks`: whose wish it is."""
    host = site.hosts.values_list("host", flat=True).first() or "the site"
    return (
        f"Hello,\n\n{asks} would like this one line on every page of {host}:\n\n"
        f'    <script async src="{settings.BASE_URL}/e/{site.key}.js"></script>\n\n'
        "It goes anywhere between <head> and </head>, once for the whole site:\n"
        "- In the template or layout that all pages share, just before </head>.\n"
        "- Or where the site's settings take code for the head of every page.\n"
        "- Or as a snippet of HTML in a tag manager, on all pages.\n\n"
        "It loads after the page, weighs less than 15 KB, and does nothing to the page itself until "
        "something is to be shown. Where visitors are asked for consent first, add "
        'data-consent="wait" to the line, and call '
        "intavo.consent(true) once they have given it. Under a content security policy, allow "
        f"{settings.BASE_URL} for scripts, connections, images and fonts.\n\n"
        "As soon as a page with it has been opened, we see it. Thank you.\n"
    )


def _has_confirmed(actor: Actor, key: str) -> bool:
    """Whether somebody pressed the button behind a mail to this address."""
    return Consent.objects.filter(
        business_id=actor.business_id,
        confirmed_at__isnull=False,
        withdrawn_at=None,
        person__addresses__kind="email",
        person__addresses__key=key,
    ).exists()


def instructions_of(actor: Actor, site_id: int) -> str:
    """The same for a member to send from their own mail."""
    actor.needs(Right.TOUCHPOINTS)
    user = User.objects.get(memberships__pk=actor.member_id or 0)
    return instructions(own(actor, Site, site_id), user.email)


def send_instructions(actor: Actor, *, site_id: int, to: str) -> None:
    """Mail them to whoever keeps the site; the answer goes to the member who asked.

    They go to the members' own addresses and to those that somebody has confirmed: to nobody who never heard
    of us, few times a day, and without a word that could be chosen. Raises Refused, naming `to`.
    """
    actor.needs(Right.TOUCHPOINTS)
    site = own(actor, Site, site_id)
    try:
        address = email_address(to)
    except ValueError as error:
        raise Refused(("to", str(error))) from error
    assert actor.member_id is not None  # visitors have no such right
    member = Member.objects.select_related("user", "business").get(pk=actor.member_id)
    if not is_theirs(address.shown, business_id=actor.business_id) and not _has_confirmed(actor, address.key):
        raise Refused(
            (
                "to",
                "This address has not confirmed anything to us, so we do not write to it. Copy the text, "
                "and send it from your own mail.",
            )
        )
    few_a_day(actor, "instructions sent", _MOST_A_DAY, "to")
    minute = clock.now().strftime("%Y%m%d%H%M")
    with transaction.atomic():
        mail.queue(
            member.business,
            to=address,
            subject="One line for your site",
            text=instructions(site, member.user.email),
            reply_to=member.user.email,
            key=f"instructions-{site.pk}-{address.key}-{minute}",
        )
        actor.noted("instructions sent", site=site.pk, name=site.name, to=address.shown)
