"""Mail that came in becomes a word on somebody's timeline and work for us, or is noted; each mail once."""

import hashlib
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from django.conf import settings
from django.db import IntegrityError, transaction
from django.db.models import Q
from django.db.models.functions import Lower

from intavo import clock
from intavo.accounts.actor import Actor, Refused, visitor_of
from intavo.accounts.models import Business, Member
from intavo.apart import Unreadable, apart
from intavo.core import followup as rules
from intavo.core.mailin import Invitation, Kind, Received, Sender, TooBig, fails, read_mail, whose
from intavo.core.people import Address, email_address
from intavo.core.rights import Right
from intavo.core.times import iso
from intavo.followup.actions import MOST_NOTE, ByMail, heard_again, note_mail, ours_again, promised_by, told
from intavo.followup.actions import receive as open_followup
from intavo.followup.models import FollowUp
from intavo.followup.source import Source
from intavo.mail.actions import mail_in_of, new_secret, own_mailbox, suppress
from intavo.mail.effects import mail_given_up
from intavo.mail.models import MailIn, OutgoingMail
from intavo.people import actions as people
from intavo.talks.actions import mailed_in
from intavo.talks.models import Talk
from intavo.talks.queries import talk_of

from .aside import lay_aside
from .files import keep_files, told_of
from .models import IncomingMail
from .threads import About, about, marked, sent_about

_NO_WORDS = "(nothing but what is attached)"


class NotHere(Exception):
    """No business here takes this mail."""


@dataclass(frozen=True, slots=True)
class Taken:
    """What came of a mail: a message, noted, came-back, withdrawn, or nobody's; and whether it had come
    before.
    """

    became: str
    followup: int | None
    repeated: bool = False


def take_in(raw: bytes, at: datetime, *, secret: str) -> Taken | None:
    """Take in a mail as it came; None where nobody has this secret.

    Raises TooBig, Busy while too many are being read, and NotHere where the whole installation's secret is
    used for a mail that is for none of its businesses. The same mail again changes nothing and gives the same
    answer.
    """
    row = MailIn.objects.filter(secret=secret).first() if secret else None
    shared = bool(settings.MAIL_IN_SECRET) and secret == settings.MAIL_IN_SECRET
    if row is None and not shared:
        return None
    mail = _read(raw)
    business_id = row.business_id if row is not None else _whose(mail)
    mark = hashlib.sha256(mail.message_id.encode() if mail.message_id else raw).hexdigest()
    known = _known(business_id, mark)
    if known is not None:
        return known
    try:
        return people.unless_overtaken(lambda: _taken(business_id, mail, mark, at))
    except IntegrityError:
        known = _known(business_id, mark)
        if known is None:
            raise
        return known


# A mail that takes its reader longer is read as far as its beginning goes.
_SECONDS, _BEGINNING = 10.0, 64 * 1024


def _read(raw: bytes) -> Received:
    """A mail, by a reader of its own. Raises TooBig for one that no reader can bear."""
    try:
        return apart(read_mail, _SECONDS, raw)
    except Unreadable:
        pass
    try:
        return apart(read_mail, _SECONDS, raw[:_BEGINNING])
    except Unreadable:
        raise TooBig("This mail cannot be read.") from None


def _known(business_id: int, mark: str) -> Taken | None:
    row = IncomingMail.objects.filter(business_id=business_id, mark=mark).first()
    return None if row is None else Taken(row.became, row.followup_id, repeated=True)


def _whose(mail: Received) -> int:
    """The business that a mail is for: by our mail that it answers,
    else by the address that it was sent to.
    """
    ids = [one for one in (mail.in_reply_to, *mail.references, *mail.about) if one]
    sent = OutgoingMail.objects.filter(message_id__in=ids).values_list("business_id", flat=True).first()
    if sent is not None:
        return sent
    number = marked(mail)
    asked = (
        FollowUp.objects.filter(pk=number).values_list("business_id", flat=True).first() if number else None
    )
    if asked is not None:
        return asked
    wanted = [one.lower() for one in mail.to]
    named = [one.partition("@") for one in wanted]
    own = [name.partition("+")[0] for name, _, host in named if host and host == settings.MAIL_IN_DOMAIN]
    ours = MailIn.objects.filter(name__in=own).values_list("business_id", flat=True).first()
    if ours is not None:
        return ours
    boxes = MailIn.objects.exclude(address="").annotate(plain=Lower("address")).filter(plain__in=wanted)
    senders = Business.objects.annotate(plain=Lower("mail_address")).filter(plain__in=wanted)
    found = list(boxes.values_list("business_id", flat=True)[:1]) or list(
        senders.values_list("pk", flat=True)[:2]
    )
    if len(found) != 1:
        raise NotHere
    return found[0]


def _key(address: str | None) -> Address | None:
    try:
        return email_address(address) if address else None
    except ValueError:
        return None


@transaction.atomic
def _taken(business_id: int, mail: Received, mark: str, at: datetime) -> Taken:
    row = IncomingMail.objects.create(
        business_id=business_id,
        mark=mark,
        message_id=mail.message_id,
        sender=mail.sender.address,
        subject=mail.subject,
        kind=mail.kind.value,
        became="nobody",
        received_at=at,
    )
    actor = visitor_of(business_id)
    if mail.kind is Kind.BOUNCE:
        _came_back(actor, row, mail, at)
    elif mail.kind is Kind.COMPLAINT:
        _complained(actor, row, mail, at)
    elif fails(mail.results, settings.MAIL_IN_HOST):
        if mail.kind is Kind.MESSAGE:
            _of_somebody(actor, row, mail, at)
    elif mail.kind is not Kind.RECEIPT:
        own = _own_addresses(business_id)
        customer = mail.sender if mail.kind is Kind.AUTO_REPLY else whose(mail, own)
        sender = _key(customer.address) if customer else None
        found = about(business_id, mail, sender.key if sender else None, at)
        if mail.kind is Kind.AUTO_REPLY:
            _noted(actor, row, mail, found, at)
        elif sender is not None and sender.key in own:
            _our_own(actor, row, mail, found, at)
        else:
            _message(actor, row, mail, found, customer or Sender("", mail.sender.name), at)
    if row.became == "nobody" or mail.kind in NOT_WORK:
        lay_aside(row, mail)
    row.save()
    return Taken(row.became, row.followup_id)


# Nothing of these is for us to answer; each can be taken up all the same.
NOT_WORK = {Kind.AUTO_REPLY, Kind.COMPLAINT, Kind.RECEIPT}


def _own_addresses(business_id: int) -> frozenset[str]:
    """Under which the business and those who work there write, as keys."""
    written = [
        *Business.objects.filter(pk=business_id).values_list("mail_address", flat=True),
        *(
            at
            for row in MailIn.objects.filter(business_id=business_id)
            for at in (row.address, own_mailbox(row))
        ),
        *Member.objects.filter(business_id=business_id).values_list("user__email", flat=True),
    ]
    return frozenset(one.key for one in map(_key, written) if one is not None)


def _said(mail: Received) -> str:
    return mail.said or mail.text.strip() or (_NO_WORDS if mail.files else "")


def _our_own(actor: Actor, row: IncomingMail, mail: Received, about: About, at: datetime) -> None:
    """What one of us wrote, with the list in copy, is a note: nobody has asked anything."""
    if about.person is None:
        return
    row.person_id, row.followup_id, row.became = about.person, about.followup, "noted"
    data = {
        "text": _said(mail)[:MOST_NOTE],
        "followup": about.followup,
        "mail": row.pk,
        "from": mail.sender.address,
    }
    people.add_event(actor, person_id=about.person, at=at, kind="noted", data=data)
    told(actor, person_id=about.person)


def _message(
    actor: Actor, row: IncomingMail, mail: Received, about: About, customer: Sender, at: datetime
) -> None:
    sent_on = mail.forwarded if mail.forwarded is not None and mail.forwarded.sender == customer else None
    words = sent_on.text.strip() if sent_on else _said(mail)
    subject = sent_on.subject if sent_on and sent_on.subject else mail.subject
    due = promised_by(actor.business_id, at)
    by = ByMail(mail.message_id, subject, " ".join(words.split())[:300])
    if about.person is None:
        name = customer.name if "@" not in customer.name else ""
        email = _key(customer.address)
        arrived = people.find_or_add(actor, email=email, phone=None, name=name, at=at)
        about = About(arrived.person, None, True)
    assert about.person is not None
    if about.followup is not None:
        opened = heard_again(actor, followup_id=about.followup, at=at, due=due, mail=by)
    else:
        opened = open_followup(
            actor,
            person_id=about.person,
            kind=rules.Kind.INQUIRY,
            at=at,
            due=due,
            source=Source(None, None, "", "", by.excerpt, "mail"),
            thread=mail.message_id[:200],
        )
        note_mail(opened, by)
    row.person_id, row.followup_id, row.became = about.person, opened, "message"
    files = keep_files(row, mail.files)
    data: dict[str, Any] = {
        "text": words, "quoted": "" if sent_on else mail.quoted, "subject": subject, "followup": opened,
        "mail": row.pk,
        "files": told_of(files),
    }  # fmt: skip
    if fails(mail.results, settings.MAIL_IN_HOST):
        data["perhaps_from"] = mail.sender.address
    elif not about.theirs:
        data["from"] = customer.address
    if sent_on:
        data["sent_on_by"] = mail.sender.name or mail.sender.address
    elif customer.address != mail.sender.address:
        data["through"] = mail.sender.address
    if mail.invitation is not None:
        data["invitation"] = _invited(mail.invitation)
    talk = talk_of(actor.business_id, opened)
    if talk is not None and talk.gateway_id is None and words:
        locked = Talk.objects.select_for_update(of=("self",)).get(pk=talk.pk)
        mailed_in(locked, text=words, key=f"mail-{row.mark}", at=at)
        data["talk"] = talk.pk
    people.add_event(actor, person_id=about.person, at=at, kind="wrote by mail", data=data)


def _of_somebody(actor: Actor, row: IncomingMail, mail: Received, at: datetime) -> None:
    """What is perhaps not from whom it says is heard, and joins nobody: neither whose address it names nor
    the matter that it answers.
    """
    _message(actor, row, mail, About(None, None, False), Sender("", mail.sender.name), at)


def _invited(asked: Invitation) -> dict[str, Any]:
    """An invitation as the timeline keeps it."""
    return {
        "method": asked.method, "uid": asked.uid, "summary": asked.summary, "location": asked.location,
        "organizer": asked.organizer, "start": iso(asked.start) if asked.start else None,
        "end": iso(asked.end) if asked.end else None,
        "answer_to": asked.answer_to, "asked": list(asked.asked), "sequence": asked.sequence,
    }  # fmt: skip


def _noted(actor: Actor, row: IncomingMail, mail: Received, about: About, at: datetime) -> None:
    """What answers by itself is shown and changes nothing."""
    if about.person is None:
        return
    row.person_id, row.followup_id, row.became = about.person, about.followup, "noted"
    data = {"text": _said(mail)[:2000], "subject": mail.subject, "mail": row.pk}
    people.add_event(actor, person_id=about.person, at=at, kind="answered by itself", data=data)
    told(actor, person_id=about.person)


def _reported(actor: Actor, mail: Received) -> tuple[Address, OutgoingMail] | None:
    """The address that a report is about and our mail to it; None where nothing proves that we sent one.

    Anybody can send what looks like a report: it names a mail of ours by its id, or comes to the address that
    our answer was sent with, whose mark nobody can make up.
    """
    address = _key(mail.final_recipient)
    if address is None:
        return None
    ids = [one for one in (*mail.about, mail.in_reply_to, *mail.references) if one]
    number = marked(mail)
    proof = Q(message_id__in=ids) | (Q(key__startswith=f"answer-{number}-") if number else Q(pk=None))
    sent = OutgoingMail.objects.filter(proof, business_id=actor.business_id, to_key=address.key)
    last = sent.order_by("-pk").first()
    return None if last is None else (address, last)


def _came_back(actor: Actor, row: IncomingMail, mail: Received, at: datetime) -> None:
    found = _reported(actor, mail)
    if found is None:
        return
    address, sent = found
    if mail.permanent:
        suppress(business_id=actor.business_id, address_key=address.key, reason="bounced")
    regards = sent_about(sent)
    row.became = "came-back"
    if regards is None:
        return
    person, followup = regards
    if mail.permanent:
        followup = ours_again(actor, followup_id=followup, at=at)
    row.person_id, row.followup_id = person, followup
    data = {"address": address.shown, "permanent": bool(mail.permanent), "mail": row.pk}
    people.add_event(actor, person_id=person, at=at, kind="mail came back", data=data)
    told(actor, person_id=person)


@mail_given_up.register
def _not_sent(mail: OutgoingMail) -> None:
    """What could not be mailed is said on the timeline of whom it was for, and is for us again."""
    regards = sent_about(mail)
    if regards is None:
        return
    actor, at, (person, followup) = visitor_of(mail.business_id), clock.now(), regards
    ours_again(actor, followup_id=followup, at=at)
    data = {"address": mail.to, "reason": mail.wrong, "through": "mail", "mail": mail.pk}
    people.add_event(actor, person_id=person, at=at, kind="not delivered", data=data)
    told(actor, person_id=person)


def _complained(actor: Actor, row: IncomingMail, mail: Received, at: datetime) -> None:
    found = _reported(actor, mail)
    if found is None:
        return
    address, _ = found
    suppress(business_id=actor.business_id, address_key=address.key, reason="complained")
    row.became = "withdrawn"
    person = people.by_email(actor.business_id, address.key)
    if person is None:
        return
    row.person_id = person
    withdrawn = people.withdraw_consents(actor, person_id=person, at=at)
    data = {"address": address.shown, "withdrawn": withdrawn, "mail": row.pk}
    people.add_event(actor, person_id=person, at=at, kind="complained", data=data)
    told(actor, person_id=person)


def set_mail_in(actor: Actor, *, address: str, direct: bool | None = None) -> MailIn:
    """Say to which mailbox answers are sent; "" for none of the business's, and whether they come to the one
    that it has here (`direct`; None: as it is). Refused for what is no address.
    """
    actor.needs(Right.BUSINESS)
    shown = address.strip()
    try:
        shown = email_address(shown).shown if shown else ""
    except ValueError as error:
        raise Refused(("address", str(error))) from error
    if "+" in shown.partition("@")[0]:
        raise Refused(
            ("address", "This address has a + in it already, where the mark of the answer has to stand.")
        )
    with transaction.atomic():
        row = mail_in_of(actor.business_id)
        row.address, row.direct = shown, row.direct if direct is None else direct
        row.save(update_fields=["address", "direct"])
        actor.noted("mail in set", address=shown or (own_mailbox(row) if row.direct else ""))
    return row


def renew_secret(actor: Actor) -> MailIn:
    """Another address to post mail to; the one before takes nothing any more."""
    actor.needs(Right.BUSINESS)
    with transaction.atomic():
        row = mail_in_of(actor.business_id)
        row.secret = new_secret()
        row.save(update_fields=["secret"])
        actor.noted("mail in renewed")
    return row
