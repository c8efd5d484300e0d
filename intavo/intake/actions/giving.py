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
from .calls import book, manage_link
from .sent import Incoming
from .slots import take_slot

FILE_SALT = "file"
_MOVE_OR_CANCEL = Phrase("Move or cancel the call")
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


def give(
    incoming: Incoming, submission: int, *, delay: int = 0, confirmed_at: datetime | None = None
) -> Given:
    """Give everything that the touchpoint gives, in the caller's transaction; `submission` is the id of what
    was sent.

    `delay` holds the mail back for so many seconds; `confirmed_at` is when an address was confirmed.
    """
    actor = visitor_of(incoming.site.business.pk)
    arrived = _person(actor, incoming)
    opened, slot = _follow_up(actor, incoming, arrived) if arrived else (None, None)
    call = book(incoming, opened, slot) if opened is not None and slot is not None else None
    code = _code(actor, incoming, arrived)
    file = file_for(incoming)
    if incoming.reach.email is not None:
        _answer_mail(incoming, code, file, delay)
    _tell_members(incoming, opened)
    rows = _recorded(actor, incoming, arrived, opened, submission, confirmed_at) if arrived else ()
    if call is not None and file is None:
        # Whoever left a phone number alone has it nowhere else.
        tongue = incoming.site.tongue(incoming.document.language)
        file = {"url": manage_link(call), "label": say(_MOVE_OR_CANCEL, tongue)}
    return Given(arrived.person if arrived else None, opened, code, file, rows)


def _person(actor: Actor, incoming: Incoming) -> people.Arrived | None:
    reach = incoming.reach
    if not reach.known:
        return None
    arrived = people.find_or_add(actor, email=reach.email, phone=reach.phone, name=reach.name, at=incoming.at)
    tags = incoming.document.after.tags
    if tags:
        people.add_tags(
            actor, person_id=arrived.person, tags=tags, given_by=incoming.sent.touchpoint, at=incoming.at
        )
    return arrived


def _follow_up(
    actor: Actor, incoming: Incoming, arrived: people.Arrived
) -> tuple[int | None, tuple[datetime, datetime] | None]:
    """The follow-up that it opens, and the time of the call that was booked with it."""
    kind = kind_of(incoming.document, incoming.checked.values)
    if kind is None:
        return None, None
    due, late_from = incoming.said.due if incoming.said else None, None
    slot = take_slot(incoming) if kind is Kind.CALL_BACK else None
    if slot is not None:
        due, late_from = slot
    elif kind is Kind.FEEDBACK and due is None:
        due = incoming.site.promise(incoming.document.after.promise_minutes).due(
            incoming.site.hours, incoming.at
        )
    sent = incoming.sent
    source = Source(
        incoming.revision.touchpoint,
        incoming.site.id,
        sent.page.url,
        sent.device,
        excerpt(incoming.document, incoming.checked),
    )
    opened = followup.receive(
        actor,
        person_id=arrived.person,
        kind=kind,
        at=incoming.at,
        due=due,
        late_from=late_from,
        somebody_new=arrived.new,
        source=source,
    )
    return opened, slot


def _code(actor: Actor, incoming: Incoming, arrived: people.Arrived | None) -> str | None:
    wanted = incoming.document.after.code
    if wanted.kind == "none":
        return None
    if wanted.kind == "shared":
        return wanted.shared or None
    to = f"person:{arrived.person}" if arrived else f"visitor:{incoming.sent.visitor.id or incoming.sent.id}"
    return give_code(actor, touchpoint_id=incoming.revision.touchpoint, to=to[:80])


def file_for(incoming: Incoming) -> FileGiven | None:
    """The signed link of the file that is given, if one is; made anew, it lasts thirty days from now."""
    wanted = incoming.document.after.file
    if wanted.asset is None:
        return None
    # Signed, so that the address is good for this file alone, and for thirty days.
    token = signing.dumps({"asset": wanted.asset, "business": incoming.site.business.pk}, salt=FILE_SALT)
    return {
        "url": f"{settings.BASE_URL}/f/{token}",
        "label": wanted.label or say(_THE_FILE, incoming.site.tongue(incoming.document.language)),
    }


def _recorded(
    actor: Actor,
    incoming: Incoming,
    arrived: people.Arrived,
    opened: int | None,
    submission: int,
    confirmed_at: datetime | None,
) -> tuple[Row, ...]:
    data = _event_data(incoming, arrived, opened, submission)
    if confirmed_at is not None:
        data["confirmed"] = confirmed_at.isoformat()
    kind = _EVENT.get(incoming.document.purpose, "replied")
    agreed = people.Agreed(
        tuple(incoming.checked.agreed.items()),
        incoming.revision.public_id,
        incoming.revision.number,
        incoming.sent.page.url,
        incoming.at,
        confirmed_at,
    )
    at = confirmed_at or incoming.at
    return people.answer_rows(actor, person_id=arrived.person, at=at, kind=kind, data=data, agreed=agreed)


_EVENT = {"sign-up": "signed up", "inquiry": "asked", "call": "asked for a call", "feedback": "gave a score"}


def _event_data(
    incoming: Incoming, arrived: people.Arrived, opened: int | None, submission: int
) -> dict[str, Any]:
    sent, checked, said = incoming.sent, incoming.checked, incoming.said
    return {
        "touchpoint": name_of(incoming.site, incoming.revision), "page": sent.page.url,
        "title": sent.page.title, "device": sent.device, "visits": sent.visitor.visits, "followup": opened,
        "submission": submission, "typed": said_answers(incoming.document, checked.values),
        "agreed": list(checked.agreed.values()), "told": said.text if said else "",
        "due": said.due.isoformat() if said and said.due else None, "perhaps_same": arrived.suggest,
        "tags": list(incoming.document.after.tags),
    }  # fmt: skip


def thanks_key(site_id: int, client_id: str) -> str:
    """The key of the answer mail to one submission."""
    return f"{mail.THANKS}{site_id}-{client_id}"[:100]


def _answer_mail(incoming: Incoming, code: str | None, file: FileGiven | None, delay: int) -> None:
    thanks, after, said = incoming.document.after.thank_you, incoming.document.after, incoming.said
    to, business = incoming.reach.email, incoming.site.business
    if not thanks.send or to is None or mail.thanked_enough(business_id=business.pk, to_key=to.key):
        return
    name, tongue = name_in_mail(incoming.reach.name), incoming.site.tongue(incoming.document.language)
    words = said.words_in(tongue) if said else {}
    promise = words.get("promise", "") if said and said.told else ""
    slots = {
        "first_name": name, "promise": promise,
        "next_opening": words.get("next_opening", ""),
        "code": (code or "") if after.code.mail else "", "file": file["url"] if file else "",
    }  # fmt: skip
    used = {run.slot for run in thanks.text if not isinstance(run, str)}
    more = [said.text] if promise and said and "promise" not in used else []
    more += [f"{file['label']}: {file['url']}"] if file and "file" not in used else []
    more += [say(_YOUR_CODE, tongue, code=code)] if code and after.code.mail and "code" not in used else []
    mail.queue(
        business,
        to=to,
        subject=thanks.subject,
        text=letter(name, filled(thanks.text, slots), more, business.name, tongue),
        key=thanks_key(incoming.site.id, incoming.sent.id),
        delay=delay,
        reply_to=thanks.reply_to,
    )


def _tell_members(incoming: Incoming, opened: int | None) -> None:
    wanted = incoming.document.after.tell
    if not wanted:
        return
    name = name_of(incoming.site, incoming.revision)
    text = told(
        name, said_answers(incoming.document, incoming.checked.values), incoming.sent.page.url, opened
    )
    for member in told_of_touchpoints(incoming.site.business.pk, wanted):
        mail.queue(
            incoming.site.business,
            to=email_address(member.user.email),
            subject=f"{name}: something new",
            text=text,
            key=f"tell-{member.pk}-{incoming.site.id}-{incoming.sent.id}"[:100],
            unsubscribe=way_to_end(member),
        )
