"""Double opt-in: nothing is given before the button behind the mail's link is pressed."""

import hashlib
import secrets
from datetime import datetime, timedelta

from django.conf import settings
from django.db import transaction

from intavo.core.people.naming import name_in_mail
from intavo.core.touchpoint import filled
from intavo.mail import actions as mail
from intavo.people.actions import Overtaken
from intavo.project import clock
from intavo.touchpoints.live import live_site

from ..models import Pending, Submission
from ..words import letter
from .giving import Given, file_for, give
from .sent import Incoming, Sent, incoming

LASTS = timedelta(days=14)
_NOT_YOU = "If this was not you, do nothing: the address is forgotten after 14 days."


def _hash(token: str) -> str:
    return hashlib.sha256(token.encode()).hexdigest()


def ask_to_confirm(found: Incoming, submission: int) -> None:
    """Queue the mail with the link; only the link's hash is kept."""
    wanted, business = found.document.after.confirm, found.site.business
    assert found.reach.email is not None
    token = secrets.token_urlsafe(24)
    Pending.objects.create(
        business_id=business.pk, submission_id=submission, token_hash=_hash(token), expires_at=found.at + LASTS
    )
    name = name_in_mail(found.reach.name)
    words = filled(wanted.text, {"first_name": name})
    link = f"{settings.BASE_URL}/c/{token}"
    mail.queue(
        business, to=found.reach.email, subject=wanted.subject,
        text=letter(
            name, words,
            [f"Please confirm here: {link}", _NOT_YOU],
            business.name,
        ),
        key=f"confirm-{found.site.id}-{found.sent.id}"[:100],
    )  # fmt: skip


def pending_of(token: str) -> Pending | None:
    """What a link of a mail stands for; None if it is unknown or over."""
    rows = Pending.objects.select_related("submission__site__business", "submission__revision__touchpoint")
    return rows.filter(token_hash=_hash(token), expires_at__gt=clock.now()).first()


def confirm(token: str) -> tuple[Incoming, Given] | None:
    """Give what waited for the confirmation, once; None if the link is unknown or over.

    Pressed again, it gives the same answer and nothing twice.
    """
    pending = pending_of(token)
    if pending is None:
        return None
    site = live_site(pending.submission.site.key)
    if site is None:
        return None
    try:
        return give_confirmed(pending.pk, site.key, clock.now())
    except Overtaken:
        return give_confirmed(pending.pk, site.key, clock.now())


@transaction.atomic
def give_confirmed(pending_id: int, key: str, at: datetime) -> tuple[Incoming, Given]:
    """Give what waited for a confirmation that was given at an instant; raises Overtaken as `find_or_add` does."""
    pending = Pending.objects.select_for_update().get(pk=pending_id)
    submission = Submission.objects.select_for_update().get(pk=pending.submission_id)
    site = live_site(key)
    assert site is not None
    raw = submission.raw
    found = incoming(site, Sent.model_validate(raw),
                     submission.received_at)  # fmt: skip
    if pending.confirmed_at is not None:
        return found, Given(submission.person_id, submission.followup_id, submission.code or None, file_for(found))
    given = give(found, confirmed_at=at)
    submission.person_id, submission.followup_id, submission.code = given.person, given.followup, given.code or ""
    submission.save(update_fields=["person", "followup", "code"])
    given.record(submission.pk)
    pending.confirmed_at = at
    pending.save(update_fields=["confirmed_at"])
    return found, given


def erase_unconfirmed() -> int:
    """Erase the addresses that did not confirm in time, with everything they sent; says how many."""
    over = Submission.objects.filter(pending__confirmed_at=None, pending__expires_at__lte=clock.now())
    count = over.count()
    over.delete()
    return count
