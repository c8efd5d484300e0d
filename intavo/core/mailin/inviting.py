"""What a calendar in a mail invites to: what, when, where, and who asks.

Source: RFC 5545, RFC 5546, RFC 6047.
"""

from datetime import UTC, date, datetime, time, timedelta
from typing import Any, Literal

from icalendar import Calendar, Event, vCalAddress, vText
from pydantic import TypeAdapter, ValidationError

from .model import Invitation
from .parts import Part

_MOST_BYTES, _MOST_LINES = 200_000, 5_000
_MOST_WORDS, _MOST_ASKED = 500, 50
Says = Literal["accepted", "declined", "tentative"]


def invitation_of(parts: list[Part]) -> Invitation | None:
    """The first event of the first calendar that can be read; None where there is none."""
    for part in parts:
        if not part.inside and part.type in {"text/calendar", "application/ics"}:
            asked = _invitation(part.text(_MOST_BYTES), str(part.head.get_param("method") or ""))
            if asked is not None:
                return asked
    return None


def _invitation(text: str, method: str) -> Invitation | None:
    if text.count("\n") > _MOST_LINES:
        return None
    try:
        calendar = Calendar.from_ical(text)
        event = next(iter(calendar.walk("VEVENT")), None)
        if event is None:
            return None
        start = _instant(event.get("DTSTART"))
        end = _instant(event.get("DTEND"))
        if end is None and start is not None and event.get("DURATION") is not None:
            end = start + event.get("DURATION").dt
        organizer = event.get("ORGANIZER")
        return Invitation(
            (method or str(calendar.get("METHOD", ""))).strip().upper()[:40],
            _words(event.get("UID")),
            _words(event.get("SUMMARY")),
            start,
            end or (start + timedelta(days=1) if start is not None and _is_day(event) else None),
            _words(event.get("LOCATION")),
            _organizer(organizer),
            _address(organizer),
            tuple(filter(None, map(_address, _several(event.get("ATTENDEE"))))),
            int(event.get("SEQUENCE") or 0),
        )
    except (ValueError, KeyError, TypeError, IndexError, AttributeError, OverflowError):
        return None


def _is_day(event: Any) -> bool:
    return not isinstance(event.get("DTSTART").dt, datetime)


def _instant(value: Any) -> datetime | None:
    """With the zone that it names; without one, and for a whole day, in UTC."""
    at = getattr(value, "dt", None)
    if isinstance(at, datetime):
        return at if at.tzinfo is not None else at.replace(tzinfo=UTC)
    return datetime.combine(at, time(), UTC) if isinstance(at, date) else None


def _words(value: Any) -> str:
    return " ".join(str(value or "").split())[:_MOST_WORDS]


def _several(value: Any) -> list[Any]:
    return (value if isinstance(value, list) else [] if value is None else [value])[:_MOST_ASKED]


def _address(value: Any) -> str:
    """The mail address of somebody in an event; "" where they are named otherwise."""
    text = str(value or "").strip()
    return text[7:].strip()[:320] if text[:7].lower() == "mailto:" else ""


def invitation_kept(data: Any) -> Invitation | None:
    """An invitation as the timeline keeps it; None for what asks for no answer, or does not say of what or
    to whom.
    """
    if not isinstance(data, dict) or data.get("method") not in {"REQUEST", ""}:
        return None
    try:
        kept = _KEPT.validate_python(data)
    except ValidationError:
        return None
    return kept if kept.uid and kept.answer_to else None


_KEPT = TypeAdapter(Invitation)


def answered(asked: Invitation, who: tuple[str, str], says: Says, at: datetime) -> str:
    """An answer to an invitation as iCalendar text (METHOD REPLY). Aware times only (ValueError).

    `who` is the name and the address of whoever was asked. Source: RFC 5546, 3.2.3.
    """
    if at.tzinfo is None:
        raise ValueError("an answer has a time with a zone")
    calendar = Calendar()
    calendar.add("prodid", "-//Intavo//Invitations//EN")
    calendar.add("version", "2.0")
    calendar.add("method", "REPLY")
    event = Event()
    event.add("uid", asked.uid)
    event.add("sequence", asked.sequence)
    event.add("dtstamp", at.astimezone(UTC))
    if asked.start is not None:
        event.add("dtstart", asked.start.astimezone(UTC))
    if asked.summary:
        event.add("summary", asked.summary)
    event.add("organizer", vCalAddress(f"mailto:{asked.answer_to}"))
    attendee = vCalAddress(f"mailto:{who[1]}")
    attendee.params["PARTSTAT"] = vText(says.upper())
    if who[0]:
        attendee.params["CN"] = vText(who[0])
    event.add("attendee", attendee)
    calendar.add_component(event)
    return str(calendar.to_ical().decode())


def _organizer(value: Any) -> str:
    """The name that stands with the address, else the address."""
    if value is None:
        return ""
    named = _words(getattr(value, "params", {}).get("CN"))
    return named or _words(value).removeprefix("mailto:").removeprefix("MAILTO:")
