"""Which follow-up a mail is about: by what it answers, by the address it was sent to, by who wrote of what
before.
"""

import re
from dataclasses import dataclass
from datetime import datetime, timedelta

from django.conf import settings

from intavo.core import followup as rules
from intavo.core.mailin import Received, bare_subject, followup_of
from intavo.followup.models import FollowUp
from intavo.mail.models import OutgoingMail
from intavo.people.actions import by_email
from intavo.talks.models import Talk

from .models import IncomingMail

SAME_SUBJECT_FOR = timedelta(days=30)
_ANSWER, _TALK = re.compile(r"^answer-(\d{1,18})-"), re.compile(r"^talk-(\d{1,18})-")


@dataclass(frozen=True, slots=True)
class About:
    """The person and the follow-up that a mail is about, as far as it is known; and whose address it came
    from.
    """

    person: int | None
    followup: int | None
    theirs: bool


def about(business_id: int, mail: Received, sender_key: str | None, at: datetime) -> About:
    """What a mail is about.

    One that answers us from an address that is not that person's belongs to the follow-up, and is not
    `theirs`.
    """
    writer = by_email(business_id, sender_key) if sender_key else None
    found = _answered(business_id, mail) or _addressed(business_id, mail)
    if found is None:
        return About(writer, _by_subject(business_id, writer, mail.subject, at) if writer else None, True)
    person, followup = found
    return About(person, followup, writer == person)


def _answered(business_id: int, mail: Received) -> tuple[int, int | None] | None:
    """By `In-Reply-To` and `References`, the nearest first."""
    ids = [one for one in (mail.in_reply_to, *reversed(mail.references)) if one]
    ours = {
        one.message_id: one
        for one in OutgoingMail.objects.filter(business_id=business_id, message_id__in=ids)
    }
    before = IncomingMail.objects.filter(business_id=business_id, message_id__in=ids).exclude(person=None)
    theirs = {one.message_id: one for one in before}
    for one in ids:
        if one in ours:
            return sent_about(ours[one])
        if one in theirs:
            known = theirs[one]
            assert known.person_id is not None
            return known.person_id, known.followup_id
    return None


def sent_about(mail: OutgoingMail) -> tuple[int, int | None] | None:
    """The person and the follow-up that a mail of ours was about; a follow-up only where it was of one."""
    row = None
    if found := _ANSWER.match(mail.key):
        row = FollowUp.objects.filter(business_id=mail.business_id, pk=int(found[1])).first()
    elif found := _TALK.match(mail.key):
        talk = (
            Talk.objects.select_related("followup")
            .filter(business_id=mail.business_id, pk=int(found[1]))
            .first()
        )
        row = talk.followup if talk else None
    if row is not None:
        return row.person_id, row.pk
    person = by_email(mail.business_id, mail.to_key)
    return None if person is None else (person, _open_one(person))


def _open_one(person: int) -> int | None:
    """The person's piece of work that an answer most likely belongs to: the last that is not finished."""
    rows = FollowUp.objects.filter(person_id=person).exclude(state=rules.State.FINISHED.value)
    rows = rows.exclude(kind__in=[rules.Kind.SIGN_UP.value, rules.Kind.CALL_BACK.value])
    return rows.order_by("-pk").values_list("pk", flat=True).first()


def marked(mail: Received) -> int | None:
    """The follow-up whose mark stands in an address that the mail was sent to."""
    keys = (settings.SECRET_KEY, *settings.SECRET_KEY_FALLBACKS)
    return next((found for key in keys if (found := followup_of(mail.to, key)) is not None), None)


def _addressed(business_id: int, mail: Received) -> tuple[int, int] | None:
    number = marked(mail)
    row = FollowUp.objects.filter(business_id=business_id, pk=number).first() if number else None
    return None if row is None else (row.person_id, row.pk)


def _by_subject(business_id: int, person: int, subject: str, at: datetime) -> int | None:
    """What this person wrote or was written of under the same subject in the last thirty days."""
    wanted, since = bare_subject(subject), at - SAME_SUBJECT_FOR
    if not wanted:
        return None
    came = IncomingMail.objects.filter(person_id=person, received_at__gte=since).exclude(followup=None)
    for one in came.order_by("-received_at")[:50]:
        if bare_subject(one.subject) == wanted:
            return one.followup_id
    rows = FollowUp.objects.filter(business_id=business_id, person_id=person).order_by("-pk")[:50]
    keys = {f"answer-{row.pk}-": row.pk for row in rows}
    went = OutgoingMail.objects.filter(
        business_id=business_id, queued_at__gte=since, key__startswith="answer-"
    )
    people = [one.key for one in rows[0].person.addresses.all()] if rows else []
    for sent in went.filter(to_key__in=people).order_by("-pk")[:50]:
        if bare_subject(sent.subject) == wanted:
            found = _ANSWER.match(sent.key)
            return keys.get(f"answer-{found[1]}-") if found else None
    return None
