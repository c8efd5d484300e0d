"""What a visitor sends becomes a submission, a person, a follow-up and mail, in one transaction."""

import json
from dataclasses import dataclass
from datetime import datetime
from functools import partial

from django.db import IntegrityError, transaction

from intavo.accounts.actor import Refused, visitor_of
from intavo.accounts.rows import insert_all, next_id, run
from intavo.core.rights import Right
from intavo.core.tongues import in_tongue
from intavo.mail import actions as mail
from intavo.people import actions as people
from intavo.people.models import Person
from intavo.people.queries import slip_offered
from intavo.touchpoints.onsite import LiveSite

from ..body import Sender, Sent, Taken
from ..guard import suspected
from ..models import Quarantined, Submission
from .confirming import ask_to_confirm
from .giving import Given, give, thanks_key
from .sent import Incoming, incoming

__all__ = ["Answered", "Sender", "Sent", "looked_up", "receive", "replayed"]
SLIP_PAUSE = 120


@dataclass(frozen=True, slots=True)
class Answered:
    """The answer as text, and whether it was given before."""

    text: str
    repeated: bool


_KNOWN = f"""
SELECT COALESCE((SELECT answer FROM intake_submission WHERE site_id = %s AND client_id = %s),
                (SELECT answer FROM intake_quarantined WHERE site_id = %s AND client_id = %s)),
       (SELECT count(*) FROM (SELECT 1 FROM intake_submission WHERE site_id = %s AND sender = %s
                              AND stored_at BETWEEN now() - interval '60 s' AND now() + interval '60 s'
                              LIMIT %s) AS recent),
       {next_id(Submission)}
"""  # noqa: S608  # the name of our own table


@dataclass(frozen=True, slots=True)
class LookedUp:
    """What is known as something comes: the answer that its id was given before, if it was; and whether the
    sender has sent too much within a minute. `number` is what it is kept under if it is new.
    """

    known: Answered | None
    too_many: bool
    number: int


def looked_up(site_id: int, client_id: str, sender: str, most: int) -> LookedUp:
    """What is known of an id and of its sender, who may send `most` in a minute.

    All in one statement, since every answer takes this path. The minute is the database's own; what it kept
    while its clock was ahead counts no longer.
    """
    row = run(_KNOWN, [site_id, client_id, site_id, client_id, site_id, sender, most])
    assert row is not None
    answer, recent, number = row
    return LookedUp(None if answer is None else Answered(answer, repeated=True), recent >= most, number)


def replayed(site_id: int, client_id: str) -> Answered | None:
    """The answer that this id was given before, if it was."""
    return looked_up(site_id, client_id, "", 1).known


def receive(
    site: LiveSite, sent: Sent, *, at: datetime, sender: str, trusted: bool = False, number: int | None = None
) -> Answered:
    """Take in what a visitor sent; raises Refused with the fields that are wrong.

    The answers are held against the revision that was seen. Everything is written in one transaction; of two
    at once with one id, the database refuses the second, which is then given the first's answer. What looks
    like spam is set aside and given the same answer, unless it is `trusted`. `number` is what looking it up
    gave.
    """
    visitor_of(site.business.pk).needs(Right.VISIT)
    try:
        return _received(site, sent, at, sender, trusted, number)
    except Refused as error:
        tongue = site.tongue_at(sent.touchpoint)
        raise Refused(*((field, in_tongue(message, tongue)) for field, message in error.errors)) from error


def _received(
    site: LiveSite, sent: Sent, at: datetime, sender: str, trusted: bool, number: int | None
) -> Answered:
    found = incoming(site, sent, at)
    try:
        reason = None if trusted else suspected(found.document, sent)
        if reason:
            return _set_aside(found, sender, reason)
        number = number or looked_up(site.id, sent.id, sender, 1).number
        return people.unless_overtaken(partial(_kept, found, sender, number))
    except IntegrityError:
        known = replayed(site.id, sent.id)
        if known is None:
            raise
        return known


def _kept(incoming: Incoming, sender: str, number: int) -> Answered:
    site, sent = incoming.site, incoming.sent
    offered = (
        slip_offered(site.business.pk, incoming.reach.email)
        if incoming.reach.email and not sent.corrects
        else None
    )
    waits = incoming.document.after.confirm.on and incoming.reach.email is not None
    with transaction.atomic():
        given = Given() if waits else give(incoming, number, delay=SLIP_PAUSE if offered else 0)
        answer = answer_text(incoming, given, offered)
        submission = {
            "id": number,
            "business_id": site.business.pk,
            "site_id": site.id,
            "revision_id": incoming.revision.revision,
            "client_id": sent.id,
            "raw": sent.model_dump_json(exclude={"work"}),
            "answer": answer,
            "person_id": given.person,
            "followup_id": given.followup,
            "code": given.code or "",
            "received_at": incoming.at,
            "sender": sender,
        }
        insert_all([*given.rows, (Submission, submission)])
        if waits:
            ask_to_confirm(incoming, number)
        if sent.corrects:
            _retire(number, sent.corrects)
    return Answered(answer, repeated=False)


def answer_text(incoming: Incoming, given: Given, offered: str | None) -> str:
    """The answer as the protocol has it; written once, and replayed as it was."""
    after = incoming.document.after
    says = incoming.said.told if incoming.said else None
    body: Taken = {
        "next": incoming.checked.next, "says": says, "code": given.code if after.code.show else None,
        "file": given.file, "suggest": {"email": offered} if offered else None,
    }  # fmt: skip
    if after.tags and not after.confirm.on:
        body["tags"] = list(after.tags)
    return json.dumps(body, ensure_ascii=False, separators=(",", ":"))


def _set_aside(incoming: Incoming, sender: str, reason: str) -> Answered:
    answer = answer_text(incoming, Given(), None)
    with transaction.atomic():
        Quarantined.objects.create(
            business_id=incoming.site.business.pk,
            site_id=incoming.site.id,
            client_id=incoming.sent.id,
            touchpoint=incoming.sent.touchpoint,
            raw=incoming.sent.model_dump(mode="json"),
            answer=answer,
            reason=reason,
            sender=sender,
            received_at=incoming.at,
        )
    return Answered(answer, repeated=False)


def _retire(submission: int, wrong_id: str) -> None:
    """Take back what a slip of the address made: its mail,
    and its person if nothing else is known of them.
    """
    row = Submission.objects.select_related("revision").get(pk=submission)
    wrong = (
        Submission.objects.select_related("person")
        .filter(site_id=row.site_id, client_id=wrong_id, revision__touchpoint=row.revision.touchpoint_id)
        .exclude(pk=row.pk)
        .first()
    )
    if wrong is None or (wrong.person_id is not None and wrong.person_id == row.person_id):
        return
    for key in (thanks_key(row.site_id, wrong_id), f"confirm-{row.site_id}-{wrong_id}"[:100]):
        mail.withdraw(business_id=row.business_id, key=key)
    slipped: Person | None = wrong.person
    wrong.person, wrong.followup = row.person, row.followup
    wrong.save(update_fields=["person", "followup"])
    if slipped is None:
        wrong.delete()
    elif not slipped.submissions.exists() and not slipped.events.exclude(data__submission=wrong.pk).exists():
        slipped.delete()
