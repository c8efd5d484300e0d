"""Who sees a touchpoint, and why not."""

from datetime import timedelta
from typing import Any

import pytest

from intavo.core.showing import Compiled, TouchpointState, Visit, decide, plan
from intavo.core.touchpoint import HowOften, Moment, PagePattern, Sentence, Show, Until
from intavo.core.touchpoint.rules import normal_path

from .hours_examples import LONDON, at

NAMES = ["state", "site", "where", "who", "during", "how often", "until", "moment", "turn"]
NOW = at("2026-11-24T14:05")
TRIPS = Sentence(
    pages=(PagePattern(kind="below", path="/trips"),),
    not_pages=(PagePattern(kind="exact", path="/trips/sunrise"),),
)


def touchpoint(
    show: Show | None = None, state: TouchpointState = TouchpointState.LIVE, **more: Any
) -> Compiled:
    """A touchpoint on otterwick.example."""
    return Compiled(
        "tp_1", state, frozenset({"otterwick.example"}), show or Show(sentences=(TRIPS,)), LONDON, **more
    )


def visit(
    path: str = "/trips", host: str = "otterwick.example", device: str = "desktop", **more: Any
) -> Visit:
    """A page view."""
    return Visit.model_validate({"page": {"url": f"https://{host}{path}"}, "device": device, **more})


def shown(hours_ago: float, **more: Any) -> dict[str, Any]:
    """What is remembered of one that was shown so long ago."""
    return {
        "memory": {"tp_1": {"shown": 1, "last_shown": (NOW - timedelta(hours=hours_ago)).isoformat(), **more}}
    }


@pytest.mark.parametrize(
    ("one", "seen", "stopped_by"),
    [
        (touchpoint(), visit(), None),
        (touchpoint(state=TouchpointState.OFF), visit(), "state"),
        (touchpoint(state=TouchpointState.DRAFT), visit(), "state"),
        (touchpoint(), visit(host="elsewhere.example"), "site"),
        (touchpoint(), visit(host="www.otterwick.example:8443"), None),
        (touchpoint(), visit("/TRIPS/After%2Ddark/"), None),
        (touchpoint(), visit("/trips-2026"), "where"),
        (touchpoint(), visit("/trips/sunrise?x=1#y"), "where"),
        (touchpoint(Show(sentences=(Sentence(devices=("phone",)),))), visit(), "who"),
        (touchpoint(Show(sentences=(Sentence(devices=("phone",)), TRIPS))), visit(), None),
        (touchpoint(), visit(**shown(1)), "how often"),
        (touchpoint(), visit(**shown(7 * 24)), None),
        (touchpoint(generation=2), visit(**shown(1)), None),
        (touchpoint(Show(sentences=(TRIPS,), how_often=HowOften(every="page"))), visit(**shown(0)), None),
        (touchpoint(), visit(**shown(24 * 30, answered="2026-10-01T00:00:00Z")), "until"),
        (touchpoint(Show(sentences=(TRIPS,), until=Until(answered=False))), visit(**shown(999, answered="2026-10-01T00:00:00Z")), None),
    ],
)  # fmt: skip
def test_the_one_rule_that_stops_it_is_named(one: Compiled, seen: Visit, stopped_by: str | None) -> None:
    verdict = decide(one, seen, NOW)
    assert (verdict.stopped_by.name if verdict.stopped_by else None) == stopped_by
    assert verdict.shows is (stopped_by is None)
    assert bool(plan([one], seen, NOW)) is verdict.shows
    assert [check.name for check in verdict.checks] == NAMES
    assert all(check.sentence.endswith(".") for check in verdict.checks)


def test_the_verdict_says_when_it_will_next_be_allowed() -> None:
    check = decide(touchpoint(), visit(**shown(1)), NOW).stopped_by
    assert check.when == NOW - timedelta(hours=1) + timedelta(days=7)
    assert check.sentence == "At most once in 7 days; shown Tue 24 Nov, 13:05; free again Tue 1 Dec, 13:05."


def test_seven_days_are_168_hours_also_over_a_change_of_the_clocks() -> None:
    before = at("2026-10-24T12:00")
    seen = visit(memory={"tp_1": {"shown": 1, "last_shown": before.isoformat()}})
    assert not decide(touchpoint(), seen, at("2026-10-31T10:59:59")).shows
    assert decide(touchpoint(), seen, at("2026-10-31T11:00")).shows


def test_the_plan_keeps_the_owners_order_and_the_moments_of_sentences_that_hold() -> None:
    late = Sentence(moments=((Moment(after=60),),), devices=("phone",))
    first = Compiled(
        "tp_2",
        TouchpointState.LIVE,
        frozenset({"otterwick.example"}),
        Show(sentences=(Sentence(), late)),
        LONDON,
        order=5,
    )
    entries = plan([touchpoint(order=10), first], visit(), NOW)
    assert [entry.touchpoint.id for entry in entries] == ["tp_2", "tp_1"]
    assert [[m.after, m.read] for all_of in entries[0].moments for m in all_of] == [[12, None], [None, 40]]


def test_where_the_browser_refuses_to_remember_nothing_comes_by_itself() -> None:
    [entry] = plan([touchpoint()], visit(storage=False), NOW)
    assert entry.moments == ()


def test_a_click_opens_it_whatever_its_sentence_but_not_when_it_is_off() -> None:
    elsewhere = visit("/contact")
    assert [e.moments for e in plan([touchpoint()], elsewhere, NOW, opened="tp_1")] == [()]
    assert plan([touchpoint(state=TouchpointState.OFF)], elsewhere, NOW, opened="tp_1") == []


@pytest.mark.parametrize(
    ("address", "path"),
    [
        ("https://x.example/Trips/", "/trips"),
        ("https://x.example", "/"),
        ("trips", "/trips"),
        ("/a%20b?c#d", "/a b"),
        ("/caf%C3%A9", "/café"),
        ("//trips//", "/trips"),
    ],
)
def test_paths_are_compared_in_one_form(address: str, path: str) -> None:
    assert normal_path(address) == path
