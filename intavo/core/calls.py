"""A call-back as a calendar entry, and what becomes of it. Sources: RFC 5545,
and RFC 5546 for its methods.
"""

from dataclasses import dataclass
from datetime import UTC, datetime

from icalendar import Calendar, Event, vCalAddress, vText


@dataclass(frozen=True, slots=True)
class Call:
    """A call at a time; `uid` and the growing `sequence` tell calendars that it is the same one, changed."""

    uid: str
    sequence: int
    start: datetime
    end: datetime
    title: str
    about: str
    organizer: tuple[str, str]
    attendee: tuple[str, str] | None = None
    cancelled: bool = False


def calendar_entry(call: Call, at: datetime) -> str:
    """The entry as iCalendar text: METHOD REQUEST, or CANCEL once it is cancelled. Aware times only
    (ValueError).
    """
    if any(one.tzinfo is None for one in (call.start, call.end, at)):
        raise ValueError("a call has times with a zone")
    calendar = Calendar()
    calendar.add("prodid", "-//Intavo//Calls//EN")
    calendar.add("version", "2.0")
    calendar.add("method", "CANCEL" if call.cancelled else "REQUEST")
    event = Event()
    event.add("uid", call.uid)
    event.add("sequence", call.sequence)
    event.add("dtstamp", at.astimezone(UTC))
    event.add("dtstart", call.start.astimezone(UTC))
    event.add("dtend", call.end.astimezone(UTC))
    event.add("summary", call.title)
    event.add("description", call.about)
    event.add("status", "CANCELLED" if call.cancelled else "CONFIRMED")
    event.add("organizer", _address(call.organizer))
    if call.attendee is not None:
        event.add("attendee", _address(call.attendee))
    calendar.add_component(event)
    return str(calendar.to_ical().decode())


def _address(who: tuple[str, str]) -> vCalAddress:
    name, address = who
    person = vCalAddress(f"mailto:{address}")
    if name:
        person.params["CN"] = vText(name)
    return person
