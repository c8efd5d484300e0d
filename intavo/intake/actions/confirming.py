"""Double opt-in: nothing is given before the button behind the mail's link is pressed."""

import hashlib
import secrets
from datetime import datetime, timedelta
from typing import Any

from django.conf import settings
from django.db import transaction

from intavo import clock
from intavo.accounts.rows import insert_all
from intavo.core.people.naming import name_in_mail
from intavo.core.tongues import Phrase, say
from intavo.core.touchpoint import filled
from intavo.mail import actions as mail
from intavo.people.actions import unless_overtaken
from intavo.touchpoints.live import live_site

from ..body import Sent
from ..models import Pending, Submission
from ..words import letter
from .giving import Given, file_for, give
from .sent import Incoming, incoming

LASTS, ONCE_WITHIN, MOST_ASKED = timedelta(days=14), timedelta(days=1), 5
_NOT_YOU = Phrase("If this was not you, do nothing: the address is forgotten after 14 days.")
_HERE = Phrase("Please confirm here: {link}")


def _hash(token: str) -> str:
    return hashlib.sha256(token.encode()).hexdigest()


def ask_to_confirm(incoming: Incoming, submission: int) -> None:
    """Queue the mail with the link; only the link's hash is kept.

    Whoever types an address can have mail sent to it: one address is asked once a day for a touchpoint, whose
    mail then stands for all that it sent there, and five times in all as long as it confirms nothing.
    """
    wanted, business = incoming.document.after.confirm, incoming.site.business
    assert incoming.reach.email is not None
    token = secrets.token_urlsafe(24)
    about: dict[str, Any] = {
        "business_id": business.pk, "submission_id": submission,
        "touchpoint_id": incoming.revision.touchpoint, "address_key": incoming.reach.email.key,
        "expires_at": incoming.at + LASTS,
    }  # fmt: skip
    asked = Pending.objects.filter(
        business_id=business.pk,
        address_key=incoming.reach.email.key,
        confirmed_at=None,
        mailed_at__isnull=False,
    )
    today = (
        asked.filter(touchpoint_id=incoming.revision.touchpoint, mailed_at__gt=incoming.at - ONCE_WITHIN)
        .order_by("-pk")
        .first()
    )
    if today is not None or asked.count() >= MOST_ASKED:
        Pending.objects.create(token_hash=today.token_hash if today else _hash(token), **about)
        return
    Pending.objects.create(token_hash=_hash(token), mailed_at=incoming.at, **about)
    name, tongue = name_in_mail(incoming.reach.name), incoming.site.tongue(incoming.document.language)
    words = filled(wanted.text, {"first_name": name})
    link = f"{settings.BASE_URL}/c/{token}"
    mail.queue(
        business,
        to=incoming.reach.email,
        subject=wanted.subject,
        text=letter(
            name,
            words,
            [say(_HERE, tongue, link=link), say(_NOT_YOU, tongue)],
            business.name,
            tongue,
        ),
        key=f"confirm-{incoming.site.id}-{incoming.sent.id}"[:100],
    )


def pending_of(token: str) -> Pending | None:
    """What a link of a mail stands for; None if it is unknown or over."""
    rows = Pending.objects.select_related("submission__site__business", "submission__revision__touchpoint")
    return rows.filter(token_hash=_hash(token), expires_at__gt=clock.now()).order_by("pk").first()


def confirm(token: str) -> tuple[Incoming, Given] | None:
    """Give what waited for the confirmation, once; None if the link is unknown or over.

    Pressed again, it gives the same answer and nothing twice.
    """
    first = pending_of(token)
    site = live_site(first.submission.site.key) if first is not None else None
    if first is None or site is None:
        return None
    answer = _given(first.pk, site.key)
    # What else came from the same address to the same touchpoint before the button was pressed.
    others = Pending.objects.filter(token_hash=first.token_hash, confirmed_at=None).exclude(pk=first.pk)
    for other in others.order_by("pk").values_list("pk", flat=True):
        _given(other, site.key)
    return answer


def _given(pending_id: int, key: str) -> tuple[Incoming, Given]:
    return unless_overtaken(lambda: give_confirmed(pending_id, key, clock.now()))


@transaction.atomic
def give_confirmed(pending_id: int, key: str, at: datetime) -> tuple[Incoming, Given]:
    """Give what waited for a confirmation that was given at an instant; raises Overtaken as `find_or_add`
    does.
    """
    pending = Pending.objects.select_for_update().get(pk=pending_id)
    submission = Submission.objects.select_for_update().get(pk=pending.submission_id)
    site = live_site(key)
    assert site is not None
    raw = submission.raw
    found = incoming(site, Sent.model_validate(raw), submission.received_at)
    if pending.confirmed_at is not None:
        return found, Given(
            submission.person_id, submission.followup_id, submission.code or None, file_for(found)
        )
    given = give(found, submission.pk, confirmed_at=at)
    submission.person_id, submission.followup_id, submission.code = (
        given.person,
        given.followup,
        given.code or "",
    )
    submission.save(update_fields=["person", "followup", "code"])
    insert_all(given.rows)
    pending.confirmed_at = at
    pending.save(update_fields=["confirmed_at"])
    return found, given


def erase_unconfirmed() -> int:
    """Erase the addresses that did not confirm in time, with what they sent and what asked them; says how
    many.
    """
    over = Pending.objects.filter(confirmed_at=None, expires_at__lte=clock.now())
    rows = list(over.values_list("submission_id", "business_id", "address_key"))
    with transaction.atomic():
        for business_id, key in {(business_id, key) for _, business_id, key in rows if key}:
            mail.forget(business_id=business_id, to_key=key, begins="confirm-")
        Submission.objects.filter(pk__in=[submission for submission, _, _ in rows]).delete()
    return len(rows)
