"""During which times a sentence holds, and when that next changes."""

from typing import Any

import pytest

from intavo.core.hours import OpeningHours
from intavo.core.showing import Around, Compiled, TouchpointState, Visit, decide, plan
from intavo.core.touchpoint import Show
from intavo.core.touchpoint.during import During

from .hours_examples import LONDON, at

HOURS = OpeningHours.model_validate(
    {
        "timezone": "Europe/London",
        "week": [{"day": day, "from": "09:00", "to": "17:30"} for day in ("mon", "tue", "wed", "thu", "fri")],
    }
)


@pytest.mark.parametrize(
    ("during", "when", "holds", "changes"),
    [
        ({}, "2026-11-24T14:05", True, None),
        ({"first": "2026-12-01"}, "2026-11-24T14:05", False, "2026-12-01T00:00"),
        ({"first": "2026-12-01"}, "2026-12-01T00:00", True, None),
        ({"last": "2026-11-24"}, "2026-11-24T23:59:59", True, "2026-11-25T00:00"),
        ({"last": "2026-11-24"}, "2026-11-25T00:00", False, None),
        ({"first": "2026-11-24", "last": "2026-11-24"}, "2026-11-24T14:05", True, "2026-11-25T00:00"),
        ({"days": ["sat", "sun"]}, "2026-11-24T14:05", False, "2026-11-28T00:00"),
        ({"days": ["sat", "sun"]}, "2026-11-28T10:00", True, "2026-11-30T00:00"),
        ({"start": "09:00", "end": "17:00"}, "2026-11-24T17:00", False, "2026-11-25T09:00"),
        ({"start": "09:00", "end": "17:00"}, "2026-11-24T09:00", True, "2026-11-24T17:00"),
        ({"start": "22:00", "end": "02:00", "days": ["fri"]}, "2026-11-28T01:30", True, "2026-11-28T02:00"),
        ({"start": "22:00", "end": "02:00", "days": ["fri"]}, "2026-11-27T01:30", False, "2026-11-27T22:00"),
        ({"only": "open"}, "2026-11-24T14:05", True, "2026-11-24T17:30"),
        ({"only": "closed"}, "2026-11-24T14:05", False, "2026-11-24T17:30"),
        ({"only": "closed"}, "2026-11-27T18:00", True, "2026-11-30T09:00"),
        ({"only": "open", "days": ["sat"]}, "2026-11-24T14:05", False, None),
        ({"first": "2027-06-01", "days": ["tue"]}, "2026-11-24T14:05", False, "2027-06-01T00:00+01:00"),
        (
            {"start": "01:15", "end": "01:45", "first": "2027-03-28"},
            "2027-03-27T12:00",
            False,
            "2027-03-29T01:15+01:00",
        ),
    ],
)
def test_during(during: dict[str, Any], when: str, holds: bool, changes: str | None) -> None:
    rule = During.model_validate(during)
    assert rule.holds(at(when), LONDON, HOURS) is holds
    expected = None if changes is None else at(changes)
    assert rule.changes(at(when), LONDON, HOURS) == expected


def test_the_visitors_clock() -> None:
    show = Show.model_validate(
        {"sentences": [{"during": {"start": "18:00", "end": "23:00", "clock": "visitor"}}]}
    )
    one = Compiled("tp_1", TouchpointState.LIVE, frozenset({"x.example"}), show, LONDON)
    for offset, shows in ((0, False), (300, True)):
        visit = Visit.model_validate(
            {"page": {"url": "https://x.example/"}, "device": "phone", "visitor": {"utc_offset": offset}}
        )
        assert decide(one, visit, at("2026-11-24T14:05")).shows is shows


def test_the_plan_holds_until_time_changes_it_and_the_verdict_says_when() -> None:
    show = Show.model_validate(
        {
            "sentences": [
                {"during": {"first": "2026-12-01", "last": "2026-12-24"}},
                {"during": {"only": "open"}},
            ]
        }
    )
    one = Compiled(
        "tp_1",
        TouchpointState.LIVE,
        frozenset({"x.example"}),
        show,
        LONDON,
        around=Around(hours={None: HOURS}),
    )
    visit = Visit.model_validate({"page": {"url": "https://x.example/"}, "device": "phone"})
    [entry] = plan([one], visit, at("2026-11-24T14:05"))
    assert entry.until == at("2026-11-24T17:30")
    stopped = decide(one, visit, at("2026-11-24T20:00")).stopped_by
    assert (stopped.name, stopped.when) == ("during", at("2026-12-01T00:00"))
    assert stopped.sentence == "From 1 Dec 2026 to 24 Dec 2026; next Tue 1 Dec, 00:00."
    over = Compiled(
        "tp_1",
        TouchpointState.LIVE,
        one.hosts,
        Show.model_validate({"sentences": [{"during": {"last": "2026-01-01"}}]}),
        LONDON,
    )
    assert decide(over, visit, at("2026-11-24T20:00")).stopped_by.sentence == "To 1 Jan 2026; that is over."
