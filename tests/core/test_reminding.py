"""Days with open time, and when a member is told of a follow-up."""

from datetime import datetime, timedelta
from typing import Any
from zoneinfo import ZoneInfo

import pytest
from hypothesis import given
from hypothesis import strategies as st

from intavo.core.hours import OpeningHours, is_open, open_days_back, open_days_on, open_stretches
from intavo.core.reminding import About, Wish, about

HOURS = OpeningHours.model_validate(
    {
        "timezone": "Europe/London",
        "week": [{"day": d, "from": "09:00", "to": "17:30"} for d in ("mon", "tue", "wed", "thu", "fri")]
        + [{"day": "fri", "from": "20:00", "to": "00:30"}],
        "exceptions": [
            {
                "first": "2026-12-25",
                "last": "2026-12-28",
                "label": "Christmas",
                "holiday": True,
                "stretches": [],
            }
        ],
    }
)
NEVER = OpeningHours.model_validate({"timezone": "Europe/London", "week": [], "exceptions": []})


def at(text: str) -> datetime:
    return datetime.fromisoformat(text).replace(tzinfo=ZoneInfo("Europe/London"))


@pytest.mark.parametrize(
    ("now", "days", "on", "back"),
    [
        ("2026-11-24T14:05", 1, "2026-11-25T09:00", "2026-11-23T09:00"),
        ("2026-11-24T14:05", 3, "2026-11-27T09:00", "2026-11-19T09:00"),
        ("2026-11-27T23:00", 1, "2026-11-30T09:00", "2026-11-26T09:00"),
        # What is open past midnight is open on the day on which it began.
        ("2026-11-28T00:10", 1, "2026-11-30T09:00", "2026-11-27T09:00"),
        ("2026-12-24T10:00", 2, "2026-12-30T09:00", "2026-12-22T09:00"),
    ],
)
def test_open_days_are_days_on_which_it_opens(now: str, days: int, on: str, back: str) -> None:
    assert open_days_on(HOURS, at(now), days) == at(on)
    assert open_days_back(HOURS, at(now), days) == at(back)


def test_hours_that_never_open_have_no_open_days() -> None:
    assert open_days_on(NEVER, at("2026-11-24T14:05"), 1) is None
    assert open_days_back(NEVER, at("2026-11-24T14:05"), 1) is None


@given(st.integers(0, 700 * 24 * 60), st.integers(1, 30))
def test_between_now_and_so_many_open_days_lie_as_many_days_that_open(minutes: int, days: int) -> None:
    now = at("2026-01-01T00:00") + timedelta(minutes=minutes)
    later, before = open_days_on(HOURS, now, days), open_days_back(HOURS, now, days)
    assert later is not None
    assert before is not None
    opening = {
        s.start.date()
        for s in open_stretches(HOURS, now - timedelta(days=99), now + timedelta(days=99))
        if s.start.hour != 0
    }
    assert len([day for day in opening if now.date() < day <= later.date()]) == days
    assert len([day for day in opening if before.date() <= day < now.date()]) == days
    assert is_open(HOURS, later)
    assert is_open(HOURS, before)


@pytest.mark.parametrize(
    ("now", "due", "wish", "told"),
    [
        ("2026-11-24T14:00", "2026-11-24T14:30", (30, True), About.BEFORE),
        ("2026-11-24T13:59", "2026-11-24T14:30", (30, True), None),
        # The night between does not count: 20 minutes before closing, and ten after opening.
        ("2026-11-24T17:10", "2026-11-25T09:10", (30, True), About.BEFORE),
        ("2026-11-24T18:00", "2026-11-25T09:10", (30, True), None),
        ("2026-11-24T14:31", "2026-11-24T14:30", (None, True), About.LATE),
        ("2026-11-24T14:30", "2026-11-24T14:30", (None, True), None),
        ("2026-11-24T14:31", "2026-11-24T14:30", (30, False), None),
        ("2026-11-28T10:00", "2026-11-27T14:30", (30, True), None),
    ],
)
def test_a_member_is_told_in_open_hours_alone(now: str, due: str, wish: Any, told: About | None) -> None:
    asked = Wish(timedelta(minutes=wish[0]) if wish[0] else None, wish[1])
    assert about(HOURS, at(now), at(due), at(due), asked) is told


def test_a_call_is_late_after_its_slot() -> None:
    due, ends = at("2026-11-24T14:00"), at("2026-11-24T14:15")
    assert about(HOURS, at("2026-11-24T14:10"), due, ends, Wish(None, True)) is None
    assert about(HOURS, at("2026-11-24T14:16"), due, ends, Wish(None, True)) is About.LATE
