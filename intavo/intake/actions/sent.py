"""What a visitor sends, and what is known of it once it has been checked."""

from contextlib import suppress
from dataclasses import dataclass, replace
from datetime import datetime

from intavo.accounts.actor import Refused
from intavo.core import people as people_rules
from intavo.core.replies import ReplySlot, fill
from intavo.core.say import READER, Tongue, moment_words
from intavo.core.tongues import Phrase, say
from intavo.core.touchpoint import AnswerErrors, Checked, Document, check_answers
from intavo.touchpoints.onsite import LiveSite, Said
from intavo.touchpoints.revisions import Published, document_of, published_revision

from ..body import Sent

BOOKED, WE_CALL = Phrase("Your call is booked"), Phrase("We call you {when}.")


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
    """What was sent, held against the revision that was seen;
    raises Refused with the fields that are wrong.
    """
    revision = published_revision(site.business.pk, sent.touchpoint, sent.revision)
    if revision is None:
        known = any(one.compiled.id == sent.touchpoint for one in site.touchpoints)
        raise Refused(
            ("revision", "This revision was never live.")
            if known
            else ("touchpoint", "There is no such touchpoint.")
        )
    document = document_of(revision.revision)
    # What is kept of it in words, now or once it is confirmed, is read by members.
    READER.set(Tongue("en", site.business.region))
    try:
        checked = check_answers(document, sent.step, sent.answers, sent.consents, site.business.region)
    except AnswerErrors as error:
        raise Refused(*error.errors) from error
    reach = _reach(document, checked, site.business.region)
    said = _said(site, sent, document, at)
    if said is not None and (call := time_of_call(document, checked)) is not None:
        said = _calling(said, call, site, sent, at, site.tongue(document.language))
    return Incoming(site, sent, revision, document, checked, reach, said, at)


def time_of_call(document: Document, checked: Checked) -> datetime | None:
    """When a call was asked for (aware); None where none was, or where it is no time."""
    for field in document.fields("slot"):
        with suppress(ValueError):
            when = datetime.fromisoformat(checked.values.get(field.name, ""))
            return when if when.tzinfo is not None else None
    return None


def _calling(said: Said, call: datetime, site: LiveSite, sent: Sent, at: datetime, tongue: Tongue) -> Said:
    """What is told to whoever has a time for a call: that time, in the touchpoint's own words where it has
    some, else in ours, in what it speaks (`tongue`).
    """

    def words_in(tongue: Tongue) -> dict[ReplySlot, str]:
        when = moment_words(call, at, site.zone, "at", tongue, sent.visitor.utc_offset)
        return said.words_in(tongue) | {"promise": when}

    words = words_in(said.tongue)
    ours = tongue.ours
    title, text = say(BOOKED, ours), say(WE_CALL, ours, when=words_in(ours)["promise"])
    if said.chosen.cell.channel == sent.touchpoint:
        title, text = (
            fill(one, words, said.tongue) for one in (said.chosen.reply.title, said.chosen.reply.text)
        )
    return replace(said, title=title, text=text, words=words, words_in=words_in)


def _reach(document: Document, checked: Checked, region: str) -> Reach:
    def first(*inputs: str) -> str | None:
        names = (field.name for field in document.fields(*inputs))
        return next((checked.values[name] for name in names if name in checked.values), None)

    email, phone = first("email"), first("phone")
    if email is None and phone is None and document.purpose in {"sign-up", "inquiry"}:
        field = next((field.name for field in document.fields("email", "phone")), "")
        raise Refused((f"answers.{field}", Phrase("Please leave a way to reach you.")))
    return Reach(
        people_rules.email_address(email) if email else None,
        people_rules.phone_number(phone, region) if phone else None,
        first("name") or checked.values.get("name", ""),
    )


def _said(site: LiveSite, sent: Sent, document: Document, at: datetime) -> Said | None:
    return site.answers(document, at, sent.visitor.language, sent.visitor.utc_offset, sent.touchpoint)
