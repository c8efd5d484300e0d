"""A call as a calendar entry."""

from datetime import UTC, datetime, timedelta
from zoneinfo import ZoneInfo

import pytest
from icalendar import Calendar

from intavo.core.calls import Call, calendar_entry

START = datetime(2026, 11, 25, 10, 30, tzinfo=ZoneInfo("Europe/London"))
AT = datetime(2026, 11, 24, 14, 5, tzinfo=UTC)
CALL = Call(
    "call-1@intavo",
    0,
    START,
    START + timedelta(minutes=30),
    "Call Ife",
    "07700 900123",
    ("Otterwick", "hello@otterwick.example"),
    ("Ife", "ife@post.example"),
)


def test_the_entry_has_its_time_in_utc_and_asks() -> None:
    calendar = Calendar.from_ical(calendar_entry(CALL, AT))
    [event] = calendar.walk("VEVENT")
    assert calendar["METHOD"] == "REQUEST"
    assert event.decoded("DTSTART") == START
    assert (event["STATUS"], event["SEQUENCE"], event["ORGANIZER"]) == (
        "CONFIRMED",
        0,
        "mailto:hello@otterwick.example",
    )
    assert event["ATTENDEE"].params["CN"] == "Ife"


def test_a_naive_time_is_refused() -> None:
    with pytest.raises(ValueError, match="zone"):
        calendar_entry(CALL, AT.replace(tzinfo=None))
