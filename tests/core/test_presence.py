"""Who is at the counter: away until a time, until opening, until said; usual times; when one is back."""

from datetime import UTC, datetime, timedelta

import pytest

from intavo.core.hours import OpeningHours
from intavo.core.presence import Away, Presence, Until, back_at, changes_at, going_away, somebody_free

WEEK = [{"day": day, "from": "09:00", "to": "17:30"} for day in ("mon", "tue", "wed", "thu", "fri")]
HOURS = OpeningHours.model_validate({"timezone": "Europe/London", "week": WEEK})
AT = datetime(2026, 11, 24, 14, 5, 20, tzinfo=UTC)


def utc(day: int, hour: int, minute: int = 0) -> datetime:
    return datetime(2026, 11, day, hour, minute, tzinfo=UTC)


@pytest.mark.parametrize(
    ("until", "at", "time", "back", "ends"),
    [(Until.QUARTER, AT, None, utc(24, 14, 21), utc(24, 14, 21)), (Until.HOUR, AT, None, utc(24, 15, 6), utc(24, 15, 6)),
     (Until.OPENING, AT, None, utc(25, 9), utc(25, 9)), (Until.SAID, AT, None, None, None),
     (Until.TIME, AT, utc(24, 16), utc(24, 16), utc(24, 16)),
     (Until.HOUR, utc(25, 8, 30), None, utc(25, 9, 30), utc(25, 9)), (Until.OPENING, utc(25, 7), None, utc(25, 9), utc(25, 9)),
     (Until.TIME, utc(25, 8, 30), utc(25, 10), utc(25, 10), utc(25, 10))],
)  # fmt: skip
def test_going_away_ends_at_back_at_or_at_the_next_opening(
    until: Until, at: datetime, time: datetime | None, back: datetime | None, ends: datetime | None
) -> None:
    assert going_away(until, at, HOURS, time) == Away(back, ends)


@pytest.mark.parametrize("time", [None, AT, AT - timedelta(1), AT + timedelta(15)])
def test_a_time_that_does_not_lie_ahead_is_refused(time: datetime | None) -> None:
    with pytest.raises(ValueError, match="lies ahead"):
        going_away(Until.TIME, AT, HOURS, time)


def test_being_away_ends_by_itself_and_usual_times_count() -> None:
    away = Presence(1, going_away(Until.HOUR, AT, HOURS))
    mornings = OpeningHours.model_validate(
        {"timezone": "Europe/London", "week": [{"day": "tue", "from": "9:00".zfill(5), "to": "12:00"}]}
    )
    usual = Presence(2, None, mornings)
    assert not somebody_free((away, usual), AT)
    assert changes_at((away, usual), AT) == utc(24, 15, 6)
    assert somebody_free((away, usual), utc(24, 15, 6))
    assert somebody_free((usual,), utc(24, 10))
    assert not somebody_free((), AT)


def test_back_at_is_the_earliest_that_lies_in_open_hours() -> None:
    later, sooner = Presence(1, Away(utc(24, 16), utc(24, 16))), Presence(2, Away(utc(24, 15), utc(24, 15)))
    assert back_at((later, sooner, Presence(3)), AT, HOURS) == utc(24, 15)
    assert back_at((Presence(1, Away(utc(24, 20), utc(24, 20))),), AT, HOURS) is None
    assert back_at((Presence(1, Away(None, None)),), AT, HOURS) is None
