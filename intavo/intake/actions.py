"""What a visitor sends becomes a submission, a person, a follow-up and mail, in one transaction."""

import json
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from django.db import IntegrityError, transaction
from pydantic import BaseModel, ConfigDict, Field

from intavo.accounts.actor import Actor, Refused, visitor_of
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
from intavo.touchpoints.live import LiveSite, Said, document_of
from intavo.touchpoints.models import TouchpointRevision
from intavo.touchpoints.queries import published

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


def replayed(site_id: int, client_id: str) -> Answered | None:
    """The answer that this id was given before, if it was."""
    row = Submission.objects.filter(site_id=site_id, client_id=client_id).values_list("answer", flat=True).first()
    return None if row is None else Answered(row, repeated=True)


def receive(site: LiveSite, sent: Sent, *, at: datetime, sender: str) -> Answered:
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
            row = Submission.objects.create(
                business_id=site.business.pk, site_id=site.id, revision=revision, client_id=sent.id,
                raw=sent.model_dump(mode="json"), answer=answer, person=arrived.person, received_at=at, sender=sender,
            )  # fmt: skip
            incoming = _Incoming(site, sent, revision, document, checked, said, at)
            _record(actor, incoming, row, arrived)
            _thank(incoming, reach, delay=SLIP_PAUSE if offered else 0)
            if sent.corrects:
                _retire(row, sent.corrects)
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
    revision: TouchpointRevision
    document: Document
    checked: Checked
    said: Said | None
    at: datetime


@dataclass(frozen=True, slots=True)
class _Reach:
    email: people_rules.Address | None
    phone: people_rules.Address | None
    name: str


def _checked(site: LiveSite, sent: Sent) -> tuple[TouchpointRevision, Document, Checked]:
    revision = published(site.business.pk, sent.touchpoint, sent.revision)
    if revision is None:
        known = any(one.compiled.id == sent.touchpoint for one in site.touchpoints)
        raise Refused(
            ("revision", "This revision was never live.") if known else ("touchpoint", "There is no such touchpoint.")
        )
    document = document_of(revision.pk)
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


def _record(actor: Actor, incoming: _Incoming, row: Submission, arrived: people.Arrived) -> None:
    sent, document, touchpoint = incoming.sent, incoming.document, incoming.revision.touchpoint
    due = incoming.said.due if incoming.said else None
    words = excerpt(document, incoming.checked)
    row.followup = followup.receive(
        actor, person_id=arrived.person.pk, kind=Kind(document.purpose), at=incoming.at, due=due,
        source=followup.Source(touchpoint.pk, incoming.site.id, sent.page.url, sent.device, words),
    )  # fmt: skip
    row.save(update_fields=["followup"])
    people.add_event(
        actor, person_id=arrived.person.pk, at=incoming.at, kind=_EVENT[document.purpose],
        data=_event_data(incoming, row, arrived),
    )  # fmt: skip
    people.add_consents(
        actor, person_id=arrived.person.pk, agreed=incoming.checked.agreed.items(), touchpoint=touchpoint.public_id,
        revision=incoming.revision.number, page=sent.page.url, at=incoming.at,
    )  # fmt: skip


_EVENT = {"sign-up": "signed up", "inquiry": "asked"}


def _event_data(incoming: _Incoming, row: Submission, arrived: people.Arrived) -> dict[str, Any]:
    sent, document, checked, said = incoming.sent, incoming.document, incoming.checked, incoming.said
    labels = {part.name: part.label or part.name for part in document.parts() if isinstance(part, FieldPart)}
    return {
        "touchpoint": incoming.revision.touchpoint.name, "page": sent.page.url, "title": sent.page.title,
        "device": sent.device, "visits": sent.visitor.visits, "followup": row.followup_id, "submission": row.pk,
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


def _retire(row: Submission, wrong_id: str) -> None:
    """Take back what a slip of the address made: its mail, and its person if nothing else is known of them."""
    wrong = (
        Submission.objects.select_related("person")
        .filter(site_id=row.site_id, client_id=wrong_id, revision__touchpoint=row.revision.touchpoint)
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
