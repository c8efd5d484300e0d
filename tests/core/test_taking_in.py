"""Odd days from a calendar, laid over those that are there."""

from datetime import date, timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from intavo.core.hours import (
    HoursException,
    OpeningHours,
    parts_of,
    public_holidays,
    read_exceptions,
    taken_in,
)

SPAN = ("Europe/London", date(2026, 11, 26), date(2027, 12, 31))
HOURS = OpeningHours.model_validate(
    {
        "timezone": "Europe/London",
        "week": [{"day": "thu", "from": "09:00", "to": "17:30"}],
        "exceptions": [{"first": "2026-12-24", "last": "2026-12-28", "label": "Christmas", "holiday": True}],
    }
)


def off(first: str, last: str = "", label: str = "Away") -> HoursException:
    """Closed days."""
    return HoursException.model_validate({"first": first, "last": last or first, "label": label})


def test_a_day_within_a_longer_one_takes_its_place_and_the_rest_stays() -> None:
    opened = HoursException.model_validate(
        {
            "first": "2026-12-26",
            "last": "2026-12-26",
            "label": "Race",
            "stretches": [{"from": "10:00", "to": "12:00"}],
        }
    )
    merged, [coming] = taken_in(HOURS, [opened])
    assert [(one.first.day, one.last.day, one.label) for one in merged] == [
        (24, 25, "Christmas"),
        (26, 26, "Race"),
        (27, 28, "Christmas"),
    ]
    assert (coming.replaces, coming.usual, coming.known) == (("Christmas",), "closed", False)


def test_what_is_so_already_changes_nothing_and_what_is_usual_is_told() -> None:
    merged, [there, fresh] = taken_in(HOURS, [off("2026-12-25"), off("2026-12-31")])
    assert (there.known, fresh.known, fresh.usual, fresh.replaces) == (True, False, "09:00–17:30", ())
    assert [one.first.day for one in merged] == [24, 31]


days = st.dates(date(2026, 12, 1), date(2026, 12, 31))
spans = st.lists(st.tuples(days, st.integers(0, 9)), max_size=8).map(
    lambda found: [
        off(str(first), str(first + timedelta(days=long)), f"n{at}") for at, (first, long) in enumerate(found)
    ]
)


@given(spans)
def test_whatever_comes_in_each_date_has_one_odd_day_and_the_last_to_come_holds(
    found: list[HoursException],
) -> None:
    merged, coming = taken_in(OpeningHours(timezone="Europe/London"), found)
    OpeningHours(timezone="Europe/London", exceptions=merged)
    taken = [one.exception for one in coming if not one.known]
    for day in {each for one in found for each in (one.first, one.last)}:
        holds = [one for one in merged if one.first <= day <= one.last]
        wanted = [one.label for one in taken if one.first <= day <= one.last][-1:]
        assert [one.label for one in holds] == wanted


def calendar(*lines: str) -> str:
    """A calendar with one event of these lines."""
    return "\r\n".join(
        ["BEGIN:VCALENDAR", "VERSION:2.0", "BEGIN:VEVENT", *lines, "END:VEVENT", "END:VCALENDAR", ""]
    )


@pytest.mark.parametrize(
    ("text", "said"),
    [("", "not an iCalendar file"), ("x" * (5 * 1024 * 1024 + 1), "more than 5 MB"), ("name,date", "not an iCalendar file"),
     ("BEGIN:VCALENDAR\nVERSION:2.0\nfoo bar\nEND:VCALENDAR", "line 3 cannot be read"),
     (calendar("SUMMARY:Away"), "“Away” that begins in line 3"), (calendar("DTSTART:soon"), "begins in line 3"),
     (calendar("SUMMARY:Away", "DTSTART;VALUE=DATE:20261231", "RRULE:FREQ=NEVER"), "“Away” that begins in line 3"),
     (calendar("DTSTART;VALUE=DATE:20261231", "DURATION:x"), "begins in line 3")],
)  # fmt: skip
def test_a_calendar_that_cannot_be_read_says_why_and_where(text: str, said: str) -> None:
    with pytest.raises(ValueError, match=said):
        read_exceptions(text, *SPAN)


def test_a_huge_calendar_is_refused_by_its_entries_and_an_endless_one_ends() -> None:
    event = "BEGIN:VEVENT\r\nDTSTART;VALUE=DATE:20261231\r\nEND:VEVENT\r\n"
    with pytest.raises(ValueError, match="more than 5000 entries"):
        read_exceptions(f"BEGIN:VCALENDAR\r\n{event * 5001}END:VCALENDAR\r\n", *SPAN)
    monthly = read_exceptions(calendar("DTSTART;VALUE=DATE:19700101", "RRULE:FREQ=MONTHLY"), *SPAN)
    assert [one.first.month for one in monthly] == [12, *range(1, 13)]
    assert read_exceptions(calendar("DTSTART:20261201T090000Z", "RRULE:FREQ=SECONDLY"), *SPAN) == ()


@given(st.text(max_size=200))
def test_any_text_is_a_calendar_or_is_refused_in_words(text: str) -> None:
    for tried in (
        text,
        calendar(text),
        calendar(f"DTSTART:{text}"),
        calendar("DTSTART:20261201", f"RRULE:{text}"),
    ):
        try:
            read_exceptions(tried, *SPAN)
        except ValueError as refused:
            words = str(refused)
            assert words.endswith((".", "alone."))  # either holds


def test_the_parts_of_a_country_have_names_and_holidays_of_their_own() -> None:
    assert ("SCT", "Scotland") in parts_of("GB")
    assert parts_of("ZZ") == ()
    names = {one.label for one in public_holidays("GB", (2026,), "SCT")}
    assert any("Andrew" in name for name in names)
    with pytest.raises(ValueError, match="GB, XX"):
        public_holidays("GB", (2026,), "XX")
