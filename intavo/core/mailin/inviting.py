"""What a calendar in a mail invites to: what, when, where, and who asks.

Source: RFC 5545, RFC 5546, RFC 6047.
"""

from datetime import UTC, date, datetime, time, timedelta
from typing import Any

from icalendar import Calendar

from .model import Invitation
from .parts import Part

_MOST_BYTES, _MOST_LINES = 200_000, 5_000
_MOST_WORDS = 500


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


def _organizer(value: Any) -> str:
    """The name that stands with the address, else the address."""
    if value is None:
        return ""
    named = _words(getattr(value, "params", {}).get("CN"))
    return named or _words(value).removeprefix("mailto:").removeprefix("MAILTO:")
