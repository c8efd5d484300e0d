"""Hours in and out of open formats."""

import json
from datetime import date

import pytest

from intavo.core.hours import (
    HoursException,
    OpeningHours,
    opening_hours_specification,
    public_holidays,
    read_exceptions,
    usual_entries,
    write_calendar,
)

from .hours_examples import BOATHOUSE

SPAN = ("Europe/London", date(2026, 1, 1), date(2027, 12, 31))


def test_exceptions_survive_going_out_and_coming_in_as_icalendar() -> None:
    assert (
        read_exceptions(write_calendar(BOATHOUSE, "Boathouse", date(2026, 11, 23)), *SPAN)
        == BOATHOUSE.exceptions
    )


def test_a_stretch_past_midnight_survives_as_well() -> None:
    odd = {
        "first": "2026-12-05",
        "last": "2026-12-06",
        "label": "Lights",
        "stretches": [{"from": "20:00", "to": "01:00"}],
    }
    value = OpeningHours.model_validate({"timezone": "Europe/London", "exceptions": [odd]})
    assert read_exceptions(write_calendar(value, "x", date(2026, 11, 23)), *SPAN) == value.exceptions


def test_whole_day_events_of_a_foreign_calendar_become_holidays_also_when_they_repeat() -> None:
    text = "\r\n".join(
        [
            "BEGIN:VCALENDAR",
            "VERSION:2.0",
            "PRODID:-//x//x//EN",
            "BEGIN:VEVENT",
            "UID:1",
            "DTSTAMP:20200101T000000Z",
            "SUMMARY:Founders’ Day",
            "DTSTART;VALUE=DATE:20200603",
            "DTEND;VALUE=DATE:20200604",
            "RRULE:FREQ=YEARLY",
            "END:VEVENT",
            "END:VCALENDAR",
            "",
        ]
    )
    found = read_exceptions(text, *SPAN)
    assert [(one.first, one.label, one.holiday) for one in found] == [
        (date(2026, 6, 3), "Founders’ Day", True),
        (date(2027, 6, 3), "Founders’ Day", True),
    ]


def test_what_repeats_every_day_or_week_is_left_out_and_named() -> None:
    events = "".join(
        f"BEGIN:VEVENT\r\nUID:{name}\r\nDTSTAMP:20200101T000000Z\r\nSUMMARY:{name}\r\n"
        f"DTSTART;VALUE=DATE:20260601\r\n{rule}END:VEVENT\r\n"
        for name, rule in (
            ("Yoga", "RRULE:FREQ=WEEKLY\r\n"), ("Refit", ""), ("Bins", "RRULE:FREQ=DAILY;COUNT=3\r\n"),
            ("Yoga", "RRULE:FREQ=WEEKLY;BYDAY=TU\r\n"),
        )
    )  # fmt: skip
    text = f"BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//x//x//EN\r\n{events}END:VCALENDAR\r\n"
    assert usual_entries(text) == ("Yoga", "Bins")
    assert [one.label for one in read_exceptions(text, *SPAN)] == ["Refit"]
    assert usual_entries(write_calendar(BOATHOUSE, "Boathouse", date(2026, 11, 23))) == ()


def test_a_text_that_is_no_calendar_is_refused() -> None:
    for read in (usual_entries, lambda text: read_exceptions(text, *SPAN)):
        with pytest.raises(ValueError, match="iCalendar"):
            read("name,date\nChristmas,2026-12-25")


def test_schema_org_says_the_week_by_day_and_closed_days_as_midnight_to_midnight() -> None:
    found = opening_hours_specification(BOATHOUSE)
    json.dumps(found)
    friday_night = next(one for one in found if one.get("opens") == "20:00")
    assert friday_night["dayOfWeek"] == ["https://schema.org/Friday"]
    christmas = next(one for one in found if one.get("validFrom") == "2026-12-24")
    assert (christmas["opens"], christmas["closes"], christmas["validThrough"]) == (
        "00:00",
        "00:00",
        "2026-12-26",
    )


def test_a_whole_day_does_not_read_as_closed_in_schema_org() -> None:
    whole = OpeningHours.model_validate(
        {"timezone": "UTC", "week": [{"day": "mon", "from": "00:00", "to": "24:00"}]}
    )
    [only] = opening_hours_specification(whole)
    assert (only["opens"], only["closes"]) == ("00:00", "23:59")


def test_public_holidays_can_be_picked_from_and_an_unknown_place_is_refused() -> None:
    christmas = HoursException(
        first=date(2026, 12, 25), last=date(2026, 12, 25), label="Christmas Day", holiday=True
    )
    assert christmas in public_holidays("GB", (2026,))
    with pytest.raises(ValueError, match="ZZ"):
        public_holidays("ZZ", (2026,))


@pytest.mark.parametrize(
    ("region", "language", "called"),
    [
        ("PT", "pt", "Dia de Natal"),
        ("PT", "en", "Christmas Day"),
        ("DE", "pl", "Erster Weihnachtstag"),
        ("DE", "", "Erster Weihnachtstag"),
        ("US", "en", "Christmas Day"),
    ],
)
def test_holidays_are_called_as_visitors_are_spoken_to_where_that_is_known(
    region: str, language: str, called: str
) -> None:
    [label] = {
        one.label
        for one in public_holidays(region, (2026,), language=language)
        if one.first == date(2026, 12, 25)
    }
    assert label == called
