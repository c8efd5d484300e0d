"""What somebody who sent something is given: a card, a follow-up, tags, a code, a file, and mail."""

from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Any

from django.conf import settings
from django.core import signing

from intavo.accounts.actor import Actor, visitor_of
from intavo.accounts.rows import Row
from intavo.accounts.telling import told_of_touchpoints, way_to_end
from intavo.core.followup import Kind
from intavo.core.opening import kind_of
from intavo.core.people import email_address
from intavo.core.people.naming import name_in_mail
from intavo.core.tongues import Phrase, say
from intavo.core.touchpoint import filled, said_answers
from intavo.followup import actions as followup
from intavo.followup.source import Source
from intavo.mail import actions as mail
from intavo.people import actions as people
from intavo.touchpoints.actions import give_code
from intavo.touchpoints.revisions import name_of

from ..body import FileGiven
from ..words import excerpt, letter, told
from .calls import book
from .sent import Incoming
from .slots import take_slot

FILE_SALT = "file"
_THE_FILE, _YOUR_CODE = Phrase("The file"), Phrase("Your code: {code}")
FILE_LASTS = timedelta(days=30)


@dataclass(frozen=True, slots=True)
class Given:
    """What was given; `rows` are still to be inserted, with what was sent."""

    person: int | None = None
    followup: int | None = None
    code: str | None = None
    file: FileGiven | None = None
    rows: tuple[Row, ...] = ()


def give(found: Incoming, submission: int, *, delay: int = 0, confirmed_at: datetime | None = None) -> Given:
    """Give everything that the touchpoint gives, in the caller's transaction; `submission` is the id of what was sent.

    `delay` holds the mail back for so many seconds; `confirmed_at` is when an address was confirmed.
    """
    actor = visitor_of(found.site.business.pk)
    arrived = _person(actor, found)
    opened, slot = _follow_up(actor, found, arrived) if arrived else (None, None)
    if opened is not None and slot is not None:
        book(found, opened, slot)
    code = _code(actor, found, arrived)
    file = file_for(found)
    if found.reach.email is not None:
        _answer_mail(found, code, file, delay)
    _tell_members(found, opened)
    rows = _recorded(actor, found, arrived, opened, submission, confirmed_at) if arrived else ()
    return Given(arrived.person if arrived else None, opened, code, file, rows)


def _person(actor: Actor, found: Incoming) -> people.Arrived | None:
    reach = found.reach
    if not reach.known:
        return None
    arrived = people.find_or_add(actor, email=reach.email, phone=reach.phone, name=reach.name, at=found.at)
    tags = found.document.after.tags
    if tags:
        people.add_tags(actor, person_id=arrived.person, tags=tags, given_by=found.sent.touchpoint, at=found.at)
    return arrived


def _follow_up(
    actor: Actor, found: Incoming, arrived: people.Arrived
) -> tuple[int | None, tuple[datetime, datetime] | None]:
    """The follow-up that it opens, and the time of the call that was booked with it."""
    kind = kind_of(found.document, found.checked.values)
    if kind is None:
        return None, None
    due, late_from = found.said.due if found.said else None, None
    slot = take_slot(found) if kind is Kind.CALL_BACK else None
    if slot is not None:
        due, late_from = slot
    elif kind is Kind.FEEDBACK and due is None:
        due = found.site.promise(found.document.after.promise_minutes).due(found.site.hours, found.at)
    sent = found.sent
    source = Source(
        found.revision.touchpoint, found.site.id, sent.page.url, sent.device, excerpt(found.document, found.checked)
    )
    opened = followup.receive(
        actor, person_id=arrived.person, kind=kind, at=found.at, due=due, late_from=late_from,
        somebody_new=arrived.new, source=source,
    )  # fmt: skip
    return opened, slot


def _code(actor: Actor, found: Incoming, arrived: people.Arrived | None) -> str | None:
    wanted = found.document.after.code
    if wanted.kind == "none":
        return None
    if wanted.kind == "shared":
        return wanted.shared or None
    to = f"person:{arrived.person}" if arrived else f"visitor:{found.sent.visitor.id or found.sent.id}"
    return give_code(actor, touchpoint_id=found.revision.touchpoint, to=to[:80])


def file_for(found: Incoming) -> FileGiven | None:
    """The signed link of the file that is given, if one is; made anew, it lasts thirty days from now."""
    wanted = found.document.after.file
    if wanted.asset is None:
        return None
    # Signed, so that the address is good for this file alone, and for thirty days.
    token = signing.dumps({"asset": wanted.asset, "business": found.site.business.pk}, salt=FILE_SALT)
    return {
        "url": f"{settings.BASE_URL}/f/{token}",
        "label": wanted.label or say(_THE_FILE, found.site.tongue(found.document.language)),
    }


def _recorded(
    actor: Actor, found: Incoming, arrived: people.Arrived, opened: int | None, submission: int,
    confirmed_at: datetime | None,
) -> tuple[Row, ...]:  # fmt: skip
    data = _event_data(found, arrived, opened, submission)
    if confirmed_at is not None:
        data["confirmed"] = confirmed_at.isoformat()
    kind = _EVENT.get(found.document.purpose, "replied")
    agreed = people.Agreed(
        tuple(found.checked.agreed.items()), found.revision.public_id, found.revision.number, found.sent.page.url,
        found.at, confirmed_at,
    )  # fmt: skip
    at = confirmed_at or found.at
    return people.answer_rows(actor, person_id=arrived.person, at=at, kind=kind, data=data, agreed=agreed)


_EVENT = {"sign-up": "signed up", "inquiry": "asked", "call": "asked for a call", "feedback": "gave a score"}


def _event_data(found: Incoming, arrived: people.Arrived, opened: int | None, submission: int) -> dict[str, Any]:
    sent, checked, said = found.sent, found.checked, found.said
    return {
        "touchpoint": name_of(found.site, found.revision), "page": sent.page.url, "title": sent.page.title,
        "device": sent.device, "visits": sent.visitor.visits, "followup": opened, "submission": submission,
        "typed": said_answers(found.document, checked.values), "agreed": list(checked.agreed.values()),
        "told": said.text if said else "", "due": said.due.isoformat() if said and said.due else None,
        "perhaps_same": arrived.suggest, "tags": list(found.document.after.tags),
    }  # fmt: skip


def thanks_key(site_id: int, client_id: str) -> str:
    """The key of the answer mail to one submission."""
    return f"thanks-{site_id}-{client_id}"[:100]


def _answer_mail(found: Incoming, code: str | None, file: FileGiven | None, delay: int) -> None:
    thanks, after, said = found.document.after.thank_you, found.document.after, found.said
    if not thanks.send or found.reach.email is None:
        return
    promise = said.words.get("promise", "") if said and said.told else ""
    name, tongue = name_in_mail(found.reach.name), found.site.tongue(found.document.language)
    slots = {
        "first_name": name, "promise": promise,
        "next_opening": said.words.get("next_opening", "") if said else "",
        "code": (code or "") if after.code.mail else "", "file": file["url"] if file else "",
    }  # fmt: skip
    used = {run.slot for run in thanks.text if not isinstance(run, str)}
    more = [said.text] if promise and said and "promise" not in used else []
    more += [f"{file['label']}: {file['url']}"] if file and "file" not in used else []
    more += [say(_YOUR_CODE, tongue, code=code)] if code and after.code.mail and "code" not in used else []
    mail.queue(
        found.site.business, to=found.reach.email, subject=thanks.subject,
        text=letter(name, filled(thanks.text, slots), more, found.site.business.name, tongue),
        key=thanks_key(found.site.id, found.sent.id), delay=delay, reply_to=thanks.reply_to,
    )  # fmt: skip


def _tell_members(found: Incoming, opened: int | None) -> None:
    wanted = found.document.after.tell
    if not wanted:
        return
    name = name_of(found.site, found.revision)
    text = told(name, said_answers(found.document, found.checked.values), found.sent.page.url, opened)
    for member in told_of_touchpoints(found.site.business.pk, wanted):
        mail.queue(
            found.site.business, to=email_address(member.user.email), subject=f"{name}: something new", text=text,
            key=f"tell-{member.pk}-{found.site.id}-{found.sent.id}"[:100], unsubscribe=way_to_end(member),
        )  # fmt: skip
