"""What came in by mail and is not on the list: looked through, sought, and taken up; kept for ninety days."""

from datetime import timedelta

from django.db import transaction
from django.db.models import Q, QuerySet

from intavo import clock
from intavo.accounts.actor import Actor, visitor_of
from intavo.accounts.scope import own
from intavo.core import followup as rules
from intavo.core.mailin import Received
from intavo.core.people import email_address
from intavo.core.rights import Right
from intavo.followup.actions import ByMail, note_mail, promised_by
from intavo.followup.actions import receive as open_followup
from intavo.followup.effects import Aside, came_aside
from intavo.followup.source import Source
from intavo.people import actions as people
from intavo.people.effects import Erasing, person_erased

from .files import keep_files, told_of
from .models import IncomingFile, IncomingMail

KEPT_FOR = timedelta(days=90)
MOST_SAID = 20_000
_NO_WORDS = "(no words)"


def lay_aside(row: IncomingMail, mail: Received) -> None:
    """Keep what a mail says that nobody is asked to answer; the row is saved by the caller."""
    row.aside, row.name = True, mail.sender.name
    row.said = (mail.said or mail.text.strip())[:MOST_SAID]
    keep_files(row, mail.files)


def lying_aside(actor: Actor, q: str = "") -> QuerySet[IncomingMail]:
    """What is not on the list, the last first; with all the words of `q` in its sender, subject or text."""
    actor.needs(Right.FOLLOW_UP)
    rows = IncomingMail.objects.filter(business_id=actor.business_id, aside=True)
    for word in q.split()[:10]:
        rows = rows.filter(
            Q(sender__icontains=word)
            | Q(name__icontains=word)
            | Q(subject__icontains=word)
            | Q(said__icontains=word)
        )
    return rows.order_by("-received_at", "-pk").prefetch_related("files")


def looked_at(actor: Actor, *, through: int) -> None:
    """Somebody has seen the list of them; `through` is the id of the last that was there."""
    lying_aside(actor).filter(looked=False, pk__lte=through).order_by().update(looked=True)


def take_up(actor: Actor, *, mail_id: int) -> int:
    """Put it on the list as what its sender asks now; says the follow-up. The second time changes nothing."""
    actor.needs(Right.FOLLOW_UP)
    return people.unless_overtaken(lambda: _taken_up(actor, mail_id))


@transaction.atomic
def _taken_up(actor: Actor, mail_id: int) -> int:
    row = own(actor, IncomingMail, mail_id, locked=True)
    if not row.aside and row.followup_id is not None:
        return row.followup_id
    visitor, now = visitor_of(actor.business_id), clock.now()
    person = row.person_id
    if person is None:
        try:
            email = email_address(row.sender) if row.sender else None
        except ValueError:
            email = None
        name = row.name if "@" not in row.name else ""
        person = people.find_or_add(visitor, email=email, phone=None, name=name, at=now).person
    words = row.said or _NO_WORDS
    by = ByMail(row.message_id, row.subject, " ".join(words.split())[:300])
    opened = open_followup(
        visitor,
        person_id=person,
        kind=rules.Kind.INQUIRY,
        at=now,
        due=promised_by(actor.business_id, now),
        source=Source(None, None, "", "", by.excerpt, "mail"),
        thread=row.message_id[:200],
    )
    note_mail(opened, by)
    files = told_of(row.files.order_by("pk"))
    data = {"text": words, "subject": row.subject, "followup": opened, "mail": row.pk, "files": files}
    people.add_event(visitor, person_id=person, at=row.received_at, kind="wrote by mail", data=data)
    row.person_id, row.followup_id, row.aside, row.became = person, opened, False, "message"
    row.save()
    return opened


def clear_away() -> None:
    """Forget the words and files of what has lain there for ninety days; that it came is still known."""
    old = IncomingMail.objects.filter(aside=True, received_at__lt=clock.now() - KEPT_FOR)
    for file in IncomingFile.objects.filter(mail__in=old).iterator():
        file.delete()
    old.update(aside=False, said="", name="", subject="", sender="")


@came_aside.register
def _count(asked: Aside) -> None:
    rows = IncomingMail.objects.filter(business_id=asked.business_id, aside=True, looked=False)
    asked.count += rows[:MOST_COUNTED].count()


MOST_COUNTED = 1_000


@person_erased.register
def _what_lies_aside_goes_too(erasing: Erasing) -> None:
    """Every mail beside the list that is from an address of theirs, or holds one."""
    for one in erasing.spellings:
        rows = IncomingMail.objects.filter(business_id=erasing.business_id, aside=True)
        for row in rows.filter(Q(sender__icontains=one) | Q(said__icontains=one) | Q(subject__icontains=one)):
            row.delete()
