"""What a visitor sends becomes a submission, a person, a follow-up and mail, in one transaction."""

import json
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from django.db import IntegrityError, connection, transaction
from pydantic import BaseModel, ConfigDict, Field

from intavo.accounts.actor import Actor, Refused, visitor_of
from intavo.accounts.rows import insert
from intavo.core import people as people_rules
from intavo.core.followup import Kind
from intavo.core.rights import Right
from intavo.core.showing.visit import Page, Short
from intavo.core.touchpoint import AnswerErrors, Checked, Document, FieldPart, check_answers
from intavo.core.touchpoint.rules import VisitorDevice
from intavo.followup import actions as followup
from intavo.mail import actions as mail
from intavo.people import actions as people
from intavo.people.models import Person
from intavo.people.queries import slip_offered
from intavo.touchpoints.live import LiveSite, Published, Said, document_of, name_of, published_revision

from .models import Submission
from .words import excerpt, thank_you_text

SLIP_PAUSE = 120


class Sender(BaseModel):
    """The visitor as they send something."""

    model_config = ConfigDict(extra="ignore")
    id: Short | None = None
    utc_offset: int | None = Field(None, ge=-24 * 60, le=24 * 60)
    visits: int = Field(1, ge=0)
    language: str = Field("en", max_length=35)


class Sent(BaseModel):
    """The body of an intake. `corrects` names an earlier one whose address was a slip."""

    model_config = ConfigDict(extra="ignore")
    id: str = Field(min_length=8, max_length=80)
    touchpoint: str = Field(min_length=1, max_length=20)
    revision: int = Field(ge=1, le=2**31 - 1)
    variant: str | None = Field(None, max_length=40)
    step: str = Field("ask", max_length=40)
    answers: dict[str, str] = Field(default_factory=dict, max_length=100)
    consents: dict[str, bool] = Field(default_factory=dict, max_length=100)
    page: Page
    device: VisitorDevice
    visitor: Sender = Sender()
    elapsed_ms: int = Field(0, ge=0)
    corrects: str | None = Field(None, max_length=80)


@dataclass(frozen=True, slots=True)
class Answered:
    """The answer as text, and whether it was given before."""

    text: str
    repeated: bool


_KNOWN = """
SELECT (SELECT answer FROM intake_submission WHERE site_id = %s AND client_id = %s),
       (SELECT count(*) FROM (SELECT 1 FROM intake_submission WHERE site_id = %s AND sender = %s
                              AND stored_at > now() - interval '60 seconds' LIMIT %s) AS recent)
"""


def looked_up(site_id: int, client_id: str, sender: str, most: int) -> tuple[Answered | None, bool]:
    """The answer that this id was given before, if it was; and whether this sender has sent `most` in a minute.

    Both in one statement, since every answer takes this path. The minute is the database's own.
    """
    with connection.cursor() as cursor:
        cursor.execute(_KNOWN, [site_id, client_id, site_id, sender, most])
        answer, recent = cursor.fetchone() or (None, 0)
    return None if answer is None else Answered(answer, repeated=True), recent >= most


def replayed(site_id: int, client_id: str) -> Answered | None:
    """The answer that this id was given before, if it was."""
    return looked_up(site_id, client_id, "", 1)[0]


def receive(site: LiveSite, sent: Sent, *, at: datetime, sender: str) -> Answered:
    """Take in what a visitor sent; see `_receive`. Overtaken by another request, it begins anew once."""
    try:
        return _receive(site, sent, at=at, sender=sender)
    except people.Overtaken:
        return _receive(site, sent, at=at, sender=sender)


def _receive(site: LiveSite, sent: Sent, *, at: datetime, sender: str) -> Answered:
    """Take in what a visitor sent; raises Refused with the fields that are wrong.

    The answers are held against the revision that was seen. Everything is written in one transaction;
    of two at once with one id, the database refuses the second, which is then given the first's answer.
    """
    actor = visitor_of(site.business.pk)
    actor.needs(Right.VISIT)
    revision, document, checked = _checked(site, sent)
    said = _promise_said(site, sent, document, at)
    reach = _reach(document, checked, site.business.region)
    offered = slip_offered(site.business.pk, reach.email) if reach.email and not sent.corrects else None
    answer = _answer_text(checked, said, offered)
    try:
        with transaction.atomic():
            arrived = people.find_or_add(actor, email=reach.email, phone=reach.phone, name=reach.name, at=at)
            incoming = _Incoming(site, sent, revision, document, checked, said, at)
            opened = _follow_up(actor, incoming, arrived)
            submission = insert(
                Submission, business_id=site.business.pk, site_id=site.id, revision_id=revision.revision,
                client_id=sent.id, raw=sent.model_dump_json(), answer=answer, person_id=arrived.person,
                followup_id=opened, received_at=at, sender=sender,
            )  # fmt: skip
            assert submission is not None
            _record(actor, incoming, arrived, opened, submission)
            _thank(incoming, reach, delay=SLIP_PAUSE if offered else 0)
            if sent.corrects:
                _retire(submission, sent.corrects)
    except IntegrityError:
        known = replayed(site.id, sent.id)
        if known is None:
            raise
        return known
    return Answered(answer, repeated=False)


@dataclass(frozen=True, slots=True)
class _Incoming:
    site: LiveSite
    sent: Sent
    revision: Published
    document: Document
    checked: Checked
    said: Said | None
    at: datetime


@dataclass(frozen=True, slots=True)
class _Reach:
    email: people_rules.Address | None
    phone: people_rules.Address | None
    name: str


def _checked(site: LiveSite, sent: Sent) -> tuple[Published, Document, Checked]:
    revision = published_revision(site.business.pk, sent.touchpoint, sent.revision)
    if revision is None:
        known = any(one.compiled.id == sent.touchpoint for one in site.touchpoints)
        raise Refused(
            ("revision", "This revision was never live.") if known else ("touchpoint", "There is no such touchpoint.")
        )
    document = document_of(revision.revision)
    try:
        checked = check_answers(document, sent.step, sent.answers, sent.consents, site.business.region)
    except AnswerErrors as error:
        raise Refused(*error.errors) from error
    return revision, document, checked


def _reach(document: Document, checked: Checked, region: str) -> _Reach:
    def first(kind: str) -> str | None:
        fields = (part for part in document.parts() if isinstance(part, FieldPart) and part.input == kind)
        return next((checked.values[part.name] for part in fields if part.name in checked.values), None)

    email, phone = first("email"), first("phone")
    if email is None and phone is None:
        field = next(
            (p.name for p in document.parts() if isinstance(p, FieldPart) and p.input in {"email", "phone"}), ""
        )
        raise Refused((f"answers.{field}", "Please leave a way to reach you."))
    return _Reach(
        people_rules.email_address(email) if email else None,
        people_rules.phone_number(phone, region) if phone else None,
        checked.values.get("name", ""),
    )


def _promise_said(site: LiveSite, sent: Sent, document: Document, at: datetime) -> Said | None:
    if not asks_for_answer(document):
        return None
    return site.says(at, sent.visitor.language, sent.visitor.utc_offset, document.after.promise_minutes)


def asks_for_answer(document: Document) -> bool:
    """Whether somebody is to answer: an inquiry always, a sign-up if it says so."""
    return document.purpose == "inquiry" or document.after.follow_up


def _answer_text(checked: Checked, said: Said | None, offered: str | None) -> str:
    says = None if said is None or said.chosen.reply.hidden else {"title": said.title, "text": said.text}
    body = {
        "next": checked.next, "says": says, "code": None, "file": None,
        "suggest": {"email": offered} if offered else None,
    }  # fmt: skip
    return json.dumps(body, ensure_ascii=False, separators=(",", ":"))


def _follow_up(actor: Actor, incoming: _Incoming, arrived: people.Arrived) -> int:
    sent, document = incoming.sent, incoming.document
    words = excerpt(document, incoming.checked)
    return followup.receive(
        actor, person_id=arrived.person, kind=Kind(document.purpose), at=incoming.at,
        due=incoming.said.due if incoming.said else None, somebody_new=arrived.new,
        source=followup.Source(incoming.revision.touchpoint, incoming.site.id, sent.page.url, sent.device, words),
    )  # fmt: skip


def _record(actor: Actor, incoming: _Incoming, arrived: people.Arrived, opened: int, submission: int) -> None:
    people.add_event(
        actor, person_id=arrived.person, at=incoming.at, kind=_EVENT[incoming.document.purpose],
        data=_event_data(incoming, arrived, opened, submission),
    )  # fmt: skip
    people.add_consents(
        actor, person_id=arrived.person, agreed=incoming.checked.agreed.items(),
        touchpoint=incoming.revision.public_id, revision=incoming.revision.number, page=incoming.sent.page.url,
        at=incoming.at,
    )  # fmt: skip


_EVENT = {"sign-up": "signed up", "inquiry": "asked"}


def _event_data(incoming: _Incoming, arrived: people.Arrived, opened: int, submission: int) -> dict[str, Any]:
    sent, document, checked, said = incoming.sent, incoming.document, incoming.checked, incoming.said
    labels = {part.name: part.label or part.name for part in document.parts() if isinstance(part, FieldPart)}
    return {
        "touchpoint": name_of(incoming.site, incoming.revision), "page": sent.page.url, "title": sent.page.title,
        "device": sent.device, "visits": sent.visitor.visits, "followup": opened, "submission": submission,
        "typed": [[labels[name], value] for name, value in checked.values.items()],
        "agreed": list(checked.agreed.values()), "told": said.text if said else "",
        "due": said.due.isoformat() if said and said.due else None, "perhaps_same": arrived.suggest,
    }  # fmt: skip


def _thank(incoming: _Incoming, reach: _Reach, *, delay: int) -> None:
    thanks = incoming.document.after.thank_you
    if not thanks.send or reach.email is None:
        return
    said = incoming.said.text if incoming.said and not incoming.said.chosen.reply.hidden else ""
    mail.queue(
        incoming.site.business, to=reach.email, subject=thanks.subject,
        text=thank_you_text(reach.name, thanks.text, said, incoming.site.business.name),
        key=_thanks_key(incoming.site.id, incoming.sent.id), delay=delay,
    )  # fmt: skip


def _thanks_key(site_id: int, client_id: str) -> str:
    return f"thanks-{site_id}-{client_id}"[:100]


def _retire(submission: int, wrong_id: str) -> None:
    """Take back what a slip of the address made: its mail, and its person if nothing else is known of them."""
    row = Submission.objects.select_related("revision").get(pk=submission)
    wrong = (
        Submission.objects.select_related("person")
        .filter(site_id=row.site_id, client_id=wrong_id, revision__touchpoint=row.revision.touchpoint_id)
        .exclude(pk=row.pk)
        .first()
    )
    if wrong is None or wrong.person_id == row.person_id:
        return
    mail.withdraw(business_id=row.business_id, key=_thanks_key(row.site_id, wrong_id))
    slipped: Person = wrong.person
    wrong.person, wrong.followup = row.person, row.followup
    wrong.save(update_fields=["person", "followup"])
    if not slipped.submissions.exists() and not slipped.events.exclude(data__submission=wrong.pk).exists():
        slipped.delete()
