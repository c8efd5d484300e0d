"""Opening hours: half-open stretches, midnight, exceptions, and both changes of the clocks."""

from collections.abc import Callable
from datetime import UTC, datetime, timedelta
from itertools import pairwise

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from pydantic import ValidationError

from intavo.core.hours import (
    OpeningHours,
    add_open_time,
    either,
    is_open,
    next_closing,
    next_opening,
    open_stretches,
    open_time,
)

from .hours_examples import ALWAYS, BOATHOUSE, NEVER, at

HOUR = timedelta(hours=1)


def hours(
    *week: tuple[str, str, str], timezone: str = "Europe/London", exceptions: list | None = None
) -> OpeningHours:
    """Hours from (day, from, to)."""
    stretches = [{"day": day, "from": start, "to": end} for day, start, end in week]
    return OpeningHours.model_validate(
        {"timezone": timezone, "week": stretches, "exceptions": exceptions or []}
    )


@pytest.mark.parametrize(
    ("when", "open_"),
    [
        ("2026-11-24T08:59:59", False),
        ("2026-11-24T09:00", True),
        ("2026-11-24T17:29:59.999999", True),
        ("2026-11-24T17:30", False),
        ("2026-11-27T23:59", True),
        ("2026-11-28T00:29", True),
        ("2026-11-28T00:30", False),
        ("2026-11-29T12:00", False),
        ("2026-12-24T12:00", False),
        ("2026-12-31T12:59", True),
        ("2026-12-31T13:00", False),
    ],
)
def test_open_at_the_start_and_not_at_the_end(when: str, open_: bool) -> None:
    assert is_open(BOATHOUSE, at(when)) is open_


@pytest.mark.parametrize("call", [is_open, next_opening, next_closing])
def test_a_time_without_a_zone_is_refused(call: Callable[..., object]) -> None:
    with pytest.raises(ValueError, match="zone"):
        call(BOATHOUSE, datetime(2026, 11, 24, 12))  # noqa: DTZ001


@pytest.mark.parametrize(
    ("document", "place"),
    [
        ({"timezone": "Europe/Otterwick"}, ("timezone",)),
        ({"timezone": "UTC", "week": [{"day": "mon", "from": "9:00", "to": "17:00"}]}, ("week", 0, "from")),
        ({"timezone": "UTC", "week": [{"day": "mon", "from": "24:00", "to": "17:00"}]}, ("week", 0, "from")),
        ({"timezone": "UTC", "week": [{"day": "mon", "from": "09:00", "to": "25:00"}]}, ("week", 0, "to")),
        ({"timezone": "UTC", "week": [{"day": "mon", "from": "09:00", "to": "09:00"}]}, ("week", 0, "to")),
        (
            {"timezone": "UTC", "week": [{"day": "Monday", "from": "09:00", "to": "17:00"}]},
            ("week", 0, "day"),
        ),
        (
            {"timezone": "UTC", "exceptions": [{"first": "2026-12-26", "last": "2026-12-24"}]},
            ("exceptions", 0, "last"),
        ),
        (
            {
                "timezone": "UTC",
                "exceptions": [
                    {"first": "2026-12-24", "last": "2026-12-26"},
                    {"first": "2026-12-26", "last": "2026-12-27"},
                ],
            },
            ("exceptions",),
        ),
    ],
)
def test_a_bad_document_is_refused_by_the_name_of_its_field(document: dict, place: tuple) -> None:
    with pytest.raises(ValidationError) as refused:
        OpeningHours.model_validate(document)
    assert refused.value.errors()[0]["loc"] == place


def test_a_stretch_past_midnight_closes_the_next_morning() -> None:
    assert next_closing(BOATHOUSE, at("2026-11-27T21:00")) == at("2026-11-28T00:30")


def test_overlapping_and_touching_stretches_merge_across_midnight() -> None:
    merged = hours(("mon", "20:00", "24:00"), ("tue", "00:00", "02:00"), ("tue", "01:00", "03:00"))
    assert next_closing(merged, at("2026-11-23T21:00")) == at("2026-11-24T03:00")
    assert len(open_stretches(merged, at("2026-11-23T00:00"), at("2026-11-25T00:00"))) == 1


def test_an_exception_replaces_what_starts_on_its_dates_and_lets_the_evening_before_run_out() -> None:
    closed = [
        {"first": "2026-11-28", "last": "2026-11-28", "label": "Gale", "holiday": False, "stretches": []}
    ]
    document = BOATHOUSE.model_dump(mode="json", by_alias=True) | {"exceptions": closed}
    gale = OpeningHours.model_validate(document)
    assert is_open(gale, at("2026-11-28T00:15"))
    assert not is_open(gale, at("2026-11-28T10:00"))


def test_a_stretch_says_whether_the_week_or_an_exception_opens_it() -> None:
    found = open_stretches(BOATHOUSE, at("2026-12-30T00:00"), at("2027-01-01T00:00"))
    assert [(s.reason, s.label) for s in found] == [("week", ""), ("exception", "New Year’s Eve")]


def test_stretches_are_clipped_to_the_span() -> None:
    [found] = open_stretches(BOATHOUSE, at("2026-11-24T10:00"), at("2026-11-24T11:00"))
    assert (found.start, found.end) == (at("2026-11-24T10:00"), at("2026-11-24T11:00"))
    assert found.length == HOUR


def test_times_in_the_spring_gap_move_to_its_end() -> None:
    night = hours(("sun", "01:15", "03:00"), ("sun", "00:30", "01:30"))
    [only] = open_stretches(night, at("2026-03-29T00:00"), at("2026-03-29T12:00"))
    assert (only.start, only.end) == (at("2026-03-29T00:30"), at("2026-03-29T03:00"))
    assert only.length == timedelta(minutes=90)


def test_a_stretch_that_lies_in_the_gap_is_none() -> None:
    assert (
        open_stretches(hours(("sun", "01:10", "01:50")), at("2026-03-29T00:00"), at("2026-03-30T00:00")) == []
    )


def test_a_repeated_time_starts_first_and_ends_second() -> None:
    night = hours(("sun", "01:15", "01:45"))
    [only] = open_stretches(night, at("2026-10-25T00:00"), at("2026-10-25T12:00"))
    assert only.length == timedelta(minutes=90)


def test_a_whole_date_that_a_zone_skipped_opens_nothing() -> None:
    apia = hours(("fri", "09:00", "17:00"), timezone="Pacific/Apia")
    span = (at("2011-12-29T00:00", "Pacific/Apia"), at("2012-01-03T00:00", "Pacific/Apia"))
    assert open_stretches(apia, *span) == []


@pytest.mark.parametrize(
    ("start", "minutes", "due"),
    [
        ("2026-11-24T14:05", 120, "2026-11-24T16:05"),
        ("2026-11-24T16:30", 60, "2026-11-24T17:30"),
        ("2026-11-24T16:30", 61, "2026-11-25T09:01"),
        ("2026-11-29T12:00", 0, "2026-11-30T09:00"),
        ("2026-11-24T12:00", 0, "2026-11-24T12:00"),
        ("2026-12-23T17:00", 60, "2026-12-28T09:30"),
    ],
)
def test_open_time_is_added_over_closed_hours(start: str, minutes: int, due: str) -> None:
    assert add_open_time(BOATHOUSE, at(start), timedelta(minutes=minutes)) == at(due)


def test_no_opening_within_400_days_gives_none() -> None:
    assert next_opening(NEVER, at("2026-11-24T12:00")) is None
    assert add_open_time(NEVER, at("2026-11-24T12:00"), HOUR) is None
    assert next_closing(ALWAYS, at("2026-11-24T12:00")) is None


def test_a_negative_amount_is_refused() -> None:
    with pytest.raises(ValueError, match="negative"):
        add_open_time(BOATHOUSE, at("2026-11-24T12:00"), -HOUR)


def test_either_is_open_when_any_is_and_speaks_in_the_first_ones_zone() -> None:
    tokyo = hours(("tue", "23:00", "24:00"), timezone="Asia/Tokyo")
    both = either(tokyo, BOATHOUSE)
    opening = next_opening(both, at("2026-11-24T00:00"))
    assert opening == at("2026-11-24T09:00")
    assert str(opening.tzinfo) == "Asia/Tokyo"
    assert open_time(both, at("2026-11-24T13:00"), at("2026-11-24T15:30")) == timedelta(hours=2.5)


zones = st.sampled_from(
    ["Europe/London", "America/New_York", "Pacific/Apia", "Australia/Lord_Howe", "Africa/Casablanca"]
)
minutes = st.integers(0, 24 * 60 - 1).map(lambda m: f"{m // 60:02d}:{m % 60:02d}")
stretches = st.builds(
    lambda day, start, end: {"day": day, "from": start, "to": end},
    st.sampled_from(["mon", "tue", "wed", "thu", "fri", "sat", "sun"]),
    minutes,
    st.one_of(minutes, st.just("24:00")),
).filter(lambda s: s["from"] != s["to"])
some_hours = st.builds(
    lambda zone, week: OpeningHours.model_validate({"timezone": zone, "week": week}),
    zones,
    st.lists(stretches, max_size=9),
)
instants = st.datetimes(datetime(2025, 1, 1), datetime(2027, 12, 31), timezones=st.just(UTC))  # noqa: DTZ001
lengths = st.integers(1, 5 * 24 * 60).map(lambda m: timedelta(minutes=m))


def just_before(at: datetime) -> datetime:
    """A moment earlier in time, which a wall clock that was put forward just then would not give."""
    return at.astimezone(UTC) - timedelta(microseconds=1)


@settings(max_examples=150, deadline=None)
@given(some_hours, instants, lengths)
def test_adding_open_time_and_measuring_it_agree(
    value: OpeningHours, start: datetime, amount: timedelta
) -> None:
    due = add_open_time(value, start, amount)
    if due is not None:
        assert open_time(value, start, due) == amount
        assert open_time(value, start, just_before(due)) < amount


@settings(max_examples=150, deadline=None)
@given(some_hours, instants, lengths)
def test_open_time_is_the_sum_of_the_stretches_and_splits_anywhere(
    value: OpeningHours, start: datetime, length: timedelta
) -> None:
    middle, end = start + length / 3, start + length
    found = open_stretches(value, start, end)
    assert sum((s.length for s in found), timedelta()) == open_time(value, start, end)
    assert open_time(value, start, middle) + open_time(value, middle, end) == open_time(value, start, end)
    assert all(one.end.astimezone(UTC) < other.start.astimezone(UTC) for one, other in pairwise(found))


@settings(max_examples=150, deadline=None)
@given(some_hours, instants)
def test_it_is_open_at_the_next_opening_and_shut_at_the_next_closing(
    value: OpeningHours, start: datetime
) -> None:
    opening = next_opening(value, start)
    # Two zones' times of one instant are not equal to Python where the clock shows it twice.
    assert (opening is not None and opening.astimezone(UTC) == start) == is_open(value, start)
    if opening is not None:
        assert is_open(value, opening)
    closing = next_closing(value, start)
    if closing is not None:
        assert not is_open(value, closing)
        assert is_open(value, just_before(closing))
