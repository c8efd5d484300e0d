"""Connecting a site: what is written to whoever keeps it."""

from django.conf import settings
from django.db import transaction

from intavo.accounts.actor import Actor, Refused
from intavo.accounts.models import Member
from intavo.accounts.scope import own
from intavo.core.people import email_address
from intavo.core.rights import Right
from intavo.mail import actions as mail
from intavo.project import clock
from intavo.sites.models import Site


def instructions(site: Site, asks: str) -> str:
    """How to put the line into a site, for somebody who has never heard of us. `asks` is who wants it."""
    return (
        f"Hello,\n\n{asks} would like this one line on every page of {site.name}:\n\n"
        f'    <script async src="{settings.BASE_URL}/e/{site.key}.js"></script>\n\n'
        "It goes anywhere between <head> and </head>, once for the whole site:\n"
        "- In the template or layout that all pages share, just before </head>.\n"
        "- Or where the site's settings take code for the head of every page.\n"
        "- Or as a snippet of HTML in a tag manager, on all pages.\n\n"
        "It loads after the page, weighs less than 15 KB, and does nothing to the page itself until something is "
        'to be shown. Where visitors are asked for consent first, add data-consent="wait" to the line, and call '
        "intavo.consent(true) once they have given it. Under a content security policy, allow "
        f"{settings.BASE_URL} for scripts, connections, images and fonts.\n\n"
        "As soon as a page with it has been opened, we see it. Thank you.\n"
    )


def send_instructions(actor: Actor, *, site_id: int, to: str) -> None:
    """Mail them to whoever keeps the site; the answer goes to the member who asked."""
    actor.needs(Right.TOUCHPOINTS)
    site = own(actor, Site, site_id)
    try:
        address = email_address(to)
    except ValueError as error:
        raise Refused(("to", str(error))) from error
    assert actor.member_id is not None  # visitors have no such right
    member = Member.objects.select_related("user", "business").get(pk=actor.member_id)
    if not member.business.mail_address:
        raise Refused(("to", "Write first on this page which address your mail is sent from."))
    minute = clock.now().strftime("%Y%m%d%H%M")
    with transaction.atomic():
        mail.queue(
            member.business, to=address, subject=f"One line for {site.name}",
            text=instructions(site, member.user.name or member.business.name), reply_to=member.user.email,
            key=f"instructions-{site.pk}-{address.key}-{minute}",
        )  # fmt: skip
        actor.noted("instructions sent", site=site.pk, name=site.name, to=address.shown)
