"""Calls that were booked: their calendar entries, moved and cancelled by whoever booked them."""

import secrets
from datetime import datetime

from django.conf import settings
from django.db import transaction

from intavo import clock
from intavo.accounts.actor import Actor, Refused, visitor_of
from intavo.accounts.models import Business
from intavo.accounts.scope import held
from intavo.core.calls import Call, calendar_entry
from intavo.core.followup import Outcome, State
from intavo.core.people import Address as Reach
from intavo.core.people import email_address
from intavo.core.people.naming import name_in_mail
from intavo.core.rights import Right
from intavo.core.say import stamp
from intavo.core.slots import Slot
from intavo.core.tongues import Phrase, say
from intavo.core.touchpoint import FieldPart
from intavo.followup.models import FollowUp
from intavo.mail import actions as mail
from intavo.people.actions import add_event
from intavo.people.models import Address
from intavo.touchpoints.live import live_site
from intavo.touchpoints.onsite import LiveSite
from intavo.touchpoints.revisions import document_of

from ..models import Booking
from ..words import CALL_ALONE, letter
from .sent import Incoming
from .slots import free_slots, lock_slots

_CALLS_YOU, _MOVE_OR_CANCEL = Phrase("{business} calls you"), Phrase("Move or cancel it here: {link}")
_BOOKED, _MOVED = (
    Phrase("Your call with {business} is booked: {when}"),
    Phrase("Your call with {business} has been moved: {when}"),
)
_CANCELLED = Phrase("Your call with {business} is cancelled: {when}")


def book(incoming: Incoming, followup_id: int, slot: tuple[datetime, datetime]) -> Booking:
    """Keep a call that was taken, and mail its entry to both.
    The database holds that no seat is given twice.
    """
    field = next(one for one in incoming.document.fields("slot") if one.name in incoming.checked.values)
    row = Booking.objects.create(
        business_id=incoming.site.business.pk,
        site_id=incoming.site.id,
        touchpoint_id=incoming.revision.touchpoint,
        revision_id=incoming.revision.revision,
        field=field.name,
        followup_id=followup_id,
        token=secrets.token_hex(16),
        start=slot[0],
        end=slot[1],
        seat=_seat(incoming.revision.touchpoint, slot[0]),
    )
    _mail_entry(row, incoming.reach.name, incoming.reach.email)
    return row


def manage_link(row: Booking) -> str:
    """Where whoever booked a call moves or cancels it."""
    return f"{settings.BASE_URL}/b/{row.token}"


def _seat(touchpoint_id: int, start: datetime) -> int:
    taken = set(
        Booking.objects.filter(touchpoint_id=touchpoint_id, start=start, cancelled_at=None).values_list(
            "seat", flat=True
        )
    )
    return next(seat for seat in range(len(taken) + 1) if seat not in taken)


def _mail_entry(row: Booking, name: str = "", to: Reach | None = None) -> None:
    """Mail the entry as it stands now to the business, and to the visitor if they left an address."""
    business = Business.objects.get(pk=row.business_id)
    site = live_site(row.site.key)
    zone = site.hours.zone if site is not None else None
    followup = FollowUp.objects.select_related("person", "touchpoint").filter(pk=row.followup_id).first()
    person = followup.person if followup is not None else None
    who = name or (person.name if person is not None else "") or "somebody"
    if to is None and person is not None:
        found = Address.objects.filter(person=person, kind=Address.EMAIL).first()
        to = email_address(found.shown) if found is not None else None
    when = stamp(row.start, zone) if zone is not None else row.start.isoformat()
    phones = Address.objects.filter(person=person, kind=Address.PHONE).values_list("shown", flat=True)
    number = phones.first() if person is not None else ""
    # Said to us alone: anybody can type anybody's address, and words for them.
    about = followup.excerpt if followup is not None and followup.excerpt != CALL_ALONE else ""
    words = "is cancelled" if row.cancelled_at else "has been moved" if row.sequence else "is booked"
    ours = Call(
        f"call-{row.token[:16]}@intavo",
        row.sequence,
        row.start,
        row.end,
        f"Call {who}",
        "\n".join(filter(None, (number, about, f"{settings.BASE_URL}/follow-up/{row.followup_id}"))),
        (business.name, business.mail_address),
        (who, to.shown) if to else None,
        row.cancelled_at is not None,
    )
    key = f"call-{row.pk}-{row.sequence}"
    mail.queue(
        business,
        to=email_address(business.mail_address),
        subject=f"A call {words}: {who}, {when}",
        text="\n".join(filter(None, (f"{who}, {when}", number, about)))
        + f"\n\n{settings.BASE_URL}/follow-up/{row.followup_id}\n",
        key=f"{key}-us",
        attached=("call.ics", calendar_entry(ours, clock.now())),
    )
    if to is None:
        return
    manage = manage_link(row)
    tongue = row.site.tongue(document_of(row.revision_id).language).ours
    theirs = Call(
        ours.uid,
        row.sequence,
        row.start,
        row.end,
        say(_CALLS_YOU, tongue, business=business.name),
        say(_MOVE_OR_CANCEL, tongue, link=manage),
        ours.organizer,
        (name_in_mail(who) or to.shown, to.shown),
        ours.cancelled,
    )
    subject = _CANCELLED if row.cancelled_at else _MOVED if row.sequence else _BOOKED
    when = stamp(row.start, zone, tongue) if zone is not None else row.start.isoformat()
    more = [] if row.cancelled_at else [say(_MOVE_OR_CANCEL, tongue, link=manage)]
    words = say(subject, tongue, business=business.name, when=when)
    mail.queue(
        business,
        to=to,
        subject=words,
        text=letter("", f"{words}.", more, business.name, tongue),
        key=f"{key}-them",
        attached=("call.ics", calendar_entry(theirs, clock.now())),
    )


def booking_of(token: str) -> Booking | None:
    """The booking behind a mail's link."""
    return Booking.objects.select_related("site", "business").filter(token=token[:64]).first()


def slots_for(row: Booking, at: datetime) -> list[Slot]:
    """The times that it can be moved to: future ones that are free."""
    site, field = _around(row)
    return free_slots(site, row.touchpoint_id, field, document_of(row.revision_id).after.follows, at)


def _around(row: Booking) -> tuple[LiveSite, FieldPart]:
    site = live_site(row.site.key)
    field = next((one for one in document_of(row.revision_id).fields("slot") if one.name == row.field), None)
    if site is None or field is None:
        raise Refused(("time", Phrase("This call can no longer be moved here. Please write to us.")))
    return site, field


def move_call(token: str, time: str, at: datetime, by: Actor | None = None) -> Booking:
    """Move a call to another free time; its follow-up stays the same one. Refused for a time that is not
    free. `by` is the member who does it, None whoever booked it.
    """
    row = _open(booking_of(token), at)
    try:
        wanted = datetime.fromisoformat(time)
    except ValueError:
        raise Refused(("time", Phrase("Please choose a time."))) from None
    with transaction.atomic():
        lock_slots(row.touchpoint_id)
        row = _open(_held(row), at)
        slot = next(
            (one for one in slots_for(row, at) if wanted.tzinfo is not None and one.start == wanted), None
        )
        if slot is None:
            raise Refused(("time", Phrase("This time has just been taken. Please choose another.")))
        row.start, row.end, row.seat = slot.start, slot.end, _seat(row.touchpoint_id, slot.start)
        row.sequence += 1
        row.save(update_fields=["start", "end", "seat", "sequence"])
        # Also where it was finished: they count on being called then.
        FollowUp.objects.filter(pk=row.followup_id).update(
            due=slot.start,
            late_from=slot.end,
            state=State.US.value,
            back_at=None,
            finished_at=None,
            outcome=None,
        )
        _noted(row, "moved the call", at, by)
        _mail_entry(row)
    return row


def _held(row: Booking) -> Booking | None:
    """The same, as it is now, held fast after its follow-up, as whoever works that does."""
    list(FollowUp.objects.select_for_update().filter(pk=row.followup_id).values_list("pk"))
    return held(Booking.objects.select_related("site").filter(pk=row.pk))


def cancel_call(token: str, at: datetime, by: Actor | None = None) -> Booking:
    """Cancel a call: its time is free again, and its follow-up is finished; `by` as for `move_call`."""
    row = _open(booking_of(token), at)
    with transaction.atomic():
        row = _open(_held(row), at)
        row.cancelled_at, row.sequence = at, row.sequence + 1
        row.save(update_fields=["cancelled_at", "sequence"])
        FollowUp.objects.filter(pk=row.followup_id).exclude(state=State.FINISHED.value).update(
            state=State.FINISHED.value,
            finished_at=at,
            outcome=Outcome.CANCELLED.value,
            due=None,
            back_at=None,
        )
        _noted(row, "cancelled the call", at, by)
        _mail_entry(row)
    return row


def booking_behind(actor: Actor, followup_id: int) -> Booking | None:
    """The call that a follow-up is about, where it is ahead still and one is."""
    actor.needs(Right.FOLLOW_UP)
    rows = Booking.objects.select_related("site", "business").filter(business_id=actor.business_id)
    return rows.filter(followup_id=followup_id, cancelled_at=None, start__gt=clock.now()).first()


def _noted(row: Booking, kind: str, at: datetime, by: Actor | None) -> None:
    person = FollowUp.objects.filter(pk=row.followup_id).values_list("person_id", flat=True).first()
    if person is not None:
        data = {"followup": row.followup_id, "until": row.start.isoformat()}
        add_event(by or visitor_of(row.business_id), person_id=person, at=at, kind=kind, data=data)


def _open(row: Booking | None, at: datetime) -> Booking:
    if row is None:
        raise Refused(("time", Phrase("There is no such call.")))
    if row.cancelled_at is not None:
        raise Refused(("time", Phrase("This call is cancelled already.")))
    if row.start <= at:
        raise Refused(("time", Phrase("This call has begun or is over.")))
    return row
