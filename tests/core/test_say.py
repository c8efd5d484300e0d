"""Times and lengths as people say them."""

from datetime import timedelta
from zoneinfo import ZoneInfo

import pytest

from intavo.core.say import (
    ENGLISH,
    Tongue,
    day_words,
    length_words,
    moment_words,
    short_date,
    stamp,
    zone_words,
)

from .hours_examples import LONDON, at

NOW = at("2026-11-24T14:05")


@pytest.mark.parametrize(
    ("day", "words"),
    [
        ("2026-11-24", "today"),
        ("2026-11-25", "tomorrow"),
        ("2026-11-26", "on Thursday"),
        ("2026-11-30", "on Monday"),
        ("2026-12-01", "on Tue 1 Dec"),
        ("2026-11-23", "on Mon 23 Nov"),
    ],
)
def test_a_day_is_said_as_near_as_it_is(day: str, words: str) -> None:
    assert day_words(at(f"{day}T00:00").date(), NOW.date()) == words


def test_the_day_is_the_zones_not_the_servers() -> None:
    just_past_midnight = at("2026-07-08T00:10")
    assert moment_words(just_past_midnight, at("2026-07-07T23:50"), LONDON, "at") == "tomorrow at 00:10"


@pytest.mark.parametrize(
    ("due", "words"),
    [
        ("2026-11-25T00:00", "by midnight"),
        ("2026-11-26T00:00", "tomorrow by midnight"),
        ("2026-11-28T00:00", "on Friday by midnight"),
        ("2026-11-25T00:01", "tomorrow by 00:01"),
        ("2026-11-24T00:00", "today by 00:00"),
    ],
)
def test_by_midnight_is_the_end_of_a_day(due: str, words: str) -> None:
    assert moment_words(at(due), NOW, LONDON, "by") == words
    assert moment_words(at(due), NOW, LONDON, "by", Tongue("de", "DE"), 60).endswith("(Zeit in London)")


@pytest.mark.parametrize(("offset", "named"), [(None, False), (0, False), (60, True), (-300, True)])
def test_the_zone_is_named_only_for_visitors_elsewhere(offset: int | None, named: bool) -> None:
    assert ("London time" in moment_words(NOW, NOW, LONDON, "by", ENGLISH, offset)) is named


def test_a_stamp_a_date_and_a_zone() -> None:
    assert stamp(at("2026-11-28T08:00"), LONDON) == "Sat 28 Nov, 08:00"
    assert short_date(NOW.date()) == "Tue 24 Nov"
    assert zone_words(ZoneInfo("America/New_York")) == "New York time"


@pytest.mark.parametrize(
    ("minutes", "words"), [(0, "0 min"), (55, "55 min"), (60, "1 h"), (65, "1 h 05"), (600, "10 h")]
)
def test_a_length(minutes: int, words: str) -> None:
    assert length_words(timedelta(minutes=minutes)) == words
