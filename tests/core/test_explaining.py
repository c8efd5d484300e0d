"""What would somebody be told at a moment, and why."""

from datetime import datetime, timedelta
from typing import Any

import pytest

from intavo.core.hours import OpeningHours, either
from intavo.core.replies import Cell, Promise, Reply, Situation, explain

from .hours_examples import at

WEEK = [{"day": "mon", "from": "09:00", "to": "17:30"}, {"day": "fri", "from": "09:00", "to": "17:30"},
        {"day": "fri", "from": "20:00", "to": "00:30"}]  # fmt: skip
OFF = [{"first": "2026-12-25", "last": "2026-12-26", "label": "Christmas", "holiday": True, "stretches": []},
       {"first": "2026-11-30", "last": "2026-11-30", "label": "Stocktaking", "stretches": [{"from": "13:00", "to": "15:00"}]}]  # fmt: skip
HOURS = OpeningHours.model_validate({"timezone": "Europe/London", "week": WEEK, "exceptions": OFF})
TWO = Promise(timedelta(hours=2))
TABLE = {
    Cell(Situation.AFTER_HOURS, None, "en"): Reply(title=("The boathouse is shut",)),
    Cell(Situation.AFTER_HOURS, "ch_1", "en"): Reply(hidden=True),
}


def why(when: str, hours: Any = HOURS, **more: Any) -> dict[str, str]:
    """The sentences by what they are about."""
    found = explain(hours, at(when), table=TABLE, promise=TWO, **more)
    return {one.about: one.words for one in found.reasons}


def test_a_friday_night_is_open_by_its_late_stretch_also_after_midnight() -> None:
    assert (
        why("2026-11-27T23:40")["hours.0.week.2"]
        == "At Fri 27 Nov, 23:40 it is open: every Friday from 20:00 to 00:30."
    )
    assert (
        why("2026-11-28T00:10")["hours.0.week.2"]
        == "At Sat 28 Nov, 00:10 it is open: every Friday from 20:00 to 00:30."
    )


@pytest.mark.parametrize(
    ("when", "about", "said"),
    [("2026-11-27T18:00", "hours.0", "on a Friday it opens from 09:00 to 17:30 and 20:00 to 00:30"),
     ("2026-11-29T12:00", "hours.0", "it never opens on a Sunday"),
     ("2026-12-25T12:00", "hours.0.exceptions.0", "“Christmas” closes it that day"),
     ("2026-11-30T10:00", "hours.0.exceptions.1", "“Stocktaking” opens it only from 13:00 to 15:00"),
     ("2026-11-30T14:00", "hours.0.exceptions.1", "it is open: “Stocktaking” opens it from 13:00 to 15:00")],
)  # fmt: skip
def test_it_is_open_or_closed_by_a_stretch_or_an_odd_day_that_is_named(
    when: str, about: str, said: str
) -> None:
    assert said in why(when)[about]


@pytest.mark.parametrize(
    ("when", "more", "about", "said"),
    [("2026-11-27T10:00", {}, "counter", "Somebody is at the counter, so the situation is “open”."),
     ("2026-11-27T10:00", {"somebody_free": False}, "counter", "Everybody is away"),
     ("2026-12-25T12:00", {}, "hours", "“Christmas” is a holiday, so the situation is “holiday”."),
     ("2026-11-29T12:00", {}, "hours", "so the situation is “after hours”"),
     ("2026-11-29T12:00", {}, "replies.after-hours.everywhere.en", "You have written what is said in “after hours” for everywhere."),
     ("2026-11-29T12:00", {"language": "fr-FR"}, "replies.after-hours.everywhere.en", "Nothing is written in “fr”, so it is said in “en”."),
     ("2026-11-29T12:00", {"channel": "ch_1"}, "replies.after-hours.ch_1.en", "It is hidden then"),
     ("2026-12-25T12:00", {}, "replies.holiday.everywhere.en", "the words that ship"),
     ("2026-11-27T17:00", {}, "promise", "2 h of open time are promised: 2 h have passed by Fri 27 Nov, 21:30."),
     ("2026-11-27T17:00", {"visitor_offset": 60}, "promise", "said in London time")],
)  # fmt: skip
def test_each_reason_leads_to_where_it_came_from(
    when: str, more: dict[str, Any], about: str, said: str
) -> None:
    assert said in why(when, **more)[about]


def test_with_several_sets_the_one_that_opens_it_is_named() -> None:
    night = OpeningHours.model_validate(
        {"timezone": "Europe/London", "week": [{"day": "sun", "from": "11:00", "to": "13:00"}]}
    )
    assert (
        "every Sunday from 11:00 to 13:00" in why("2026-11-29T12:00", either(HOURS, night))["hours.1.week.0"]
    )
    assert {"hours.0", "hours.1"} <= set(why("2026-11-29T18:00", either(HOURS, night)))


def test_what_is_said_is_what_a_visitor_is_told() -> None:
    found = explain(HOURS, at("2026-11-29T12:00"), table=TABLE, promise=TWO)
    assert (found.title, found.due) == ("The boathouse is shut", at("2026-11-30T15:00"))
    assert explain(HOURS, at("2026-11-29T12:00")).due is None
    never = OpeningHours.model_validate({"timezone": "Europe/London"})
    assert "do not pass within 400 days" in why("2026-11-29T12:00", never)["promise"]
    with pytest.raises(ValueError, match="zone"):
        explain(HOURS, datetime(2026, 11, 29, 12))  # noqa: DTZ001  # that is the point
