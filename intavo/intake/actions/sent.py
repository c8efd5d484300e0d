"""What a visitor sends, and what is known of it once it has been checked."""

from contextlib import suppress
from dataclasses import dataclass, replace
from datetime import datetime

from pydantic import BaseModel, ConfigDict, Field

from intavo.accounts.actor import Refused
from intavo.core import people as people_rules
from intavo.core.replies import fill
from intavo.core.say import moment_words
from intavo.core.showing.visit import Page, Short
from intavo.core.texts import Kept
from intavo.core.touchpoint import AnswerErrors, Checked, Document, check_answers
from intavo.core.touchpoint.rules import VisitorDevice
from intavo.touchpoints.live import LiveSite, Published, Said, document_of, published_revision


class Sender(BaseModel):
    """The visitor as they send something."""

    model_config = ConfigDict(extra="ignore")
    id: Short | None = None
    utc_offset: int | None = Field(None, ge=-24 * 60, le=24 * 60)
    visits: int = Field(1, ge=0)
    language: str = Field("en", max_length=35)


class Sent(BaseModel):
    """The body of an intake.

    `corrects` names an earlier one whose address was a slip; `trap` is what stood in the field that only
    machines fill in; `work` is the answer to the piece of work, where one was asked for.
    """

    model_config = ConfigDict(extra="ignore")
    id: Kept = Field(min_length=8, max_length=80)
    touchpoint: str = Field(min_length=1, max_length=20)
    revision: int = Field(ge=1, le=2**31 - 1)
    variant: str | None = Field(None, max_length=40)
    step: str = Field("ask", max_length=40)
    answers: dict[str, str] = Field(default_factory=dict, max_length=100)
    consents: dict[str, bool] = Field(default_factory=dict, max_length=100)
    page: Page
    device: VisitorDevice
    visitor: Sender = Sender()
    elapsed_ms: int | None = Field(None, ge=0)
    corrects: str | None = Field(None, max_length=80)
    trap: str = Field("", max_length=1000)
    work: str = Field("", max_length=4000)


@dataclass(frozen=True, slots=True)
class Reach:
    """How a sender can be reached, as far as they said."""

    email: people_rules.Address | None
    phone: people_rules.Address | None
    name: str

    @property
    def known(self) -> bool:
        """Whether they can be reached at all."""
        return self.email is not None or self.phone is not None


@dataclass(frozen=True, slots=True)
class Incoming:
    """Something sent, with everything that its giving needs."""

    site: LiveSite
    sent: Sent
    revision: Published
    document: Document
    checked: Checked
    reach: Reach
    said: Said | None
    at: datetime


def incoming(site: LiveSite, sent: Sent, at: datetime) -> Incoming:
    """What was sent, held against the revision that was seen; raises Refused with the fields that are wrong."""
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
    reach = _reach(document, checked, site.business.region)
    said = _said(site, sent, document, at)
    if said is not None and (call := time_of_call(document, checked)) is not None:
        said = _calling(said, call, site, sent, at)
    return Incoming(site, sent, revision, document, checked, reach, said, at)


def time_of_call(document: Document, checked: Checked) -> datetime | None:
    """When a call was asked for (aware); None where none was, or where it is no time."""
    for field in document.fields("slot"):
        with suppress(ValueError):
            when = datetime.fromisoformat(checked.values.get(field.name, ""))
            return when if when.tzinfo is not None else None
    return None


def _calling(said: Said, call: datetime, site: LiveSite, sent: Sent, at: datetime) -> Said:
    """What is told to whoever has a time for a call: that time, in the touchpoint's own words where it has some."""
    when = moment_words(call, at, site.zone, "at", sent.visitor.utc_offset)
    words = said.words | {"promise": when}
    title, text = "Your call is booked", f"We call you {when}."
    if said.chosen.cell.channel == sent.touchpoint:
        title, text = fill(said.chosen.reply.title, words), fill(said.chosen.reply.text, words)
    return replace(said, title=title, text=text, words=words)


def _reach(document: Document, checked: Checked, region: str) -> Reach:
    def first(*inputs: str) -> str | None:
        names = (field.name for field in document.fields(*inputs))
        return next((checked.values[name] for name in names if name in checked.values), None)

    email, phone = first("email"), first("phone")
    if email is None and phone is None and document.purpose in {"sign-up", "inquiry"}:
        field = next((field.name for field in document.fields("email", "phone")), "")
        raise Refused((f"answers.{field}", "Please leave a way to reach you."))
    return Reach(
        people_rules.email_address(email) if email else None,
        people_rules.phone_number(phone, region) if phone else None,
        first("name") or checked.values.get("name", ""),
    )


def _said(site: LiveSite, sent: Sent, document: Document, at: datetime) -> Said | None:
    return site.answers(document, at, sent.visitor.language, sent.visitor.utc_offset, sent.touchpoint)
