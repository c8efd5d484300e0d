"""Situations, replies and promises."""

import re
from collections.abc import Iterator
from datetime import datetime, timedelta
from typing import Any

import pytest

from intavo.core.hours import is_open
from intavo.core.replies import (
    Cell,
    Promise,
    Reply,
    ReplySlotRun,
    Situation,
    choose,
    fill,
    first_promise,
    promise_words,
    situation,
    slots,
)
from intavo.core.touchpoint import STARTERS
from intavo.core.touchpoint.starters.build import Starter

from .hours_examples import BOATHOUSE, LONDON, NEVER, at

TWO_HOURS = Promise(timedelta(hours=2))


@pytest.mark.parametrize(
    ("when", "free", "expected"),
    [
        ("2026-11-24T14:05", True, Situation.OPEN),
        ("2026-11-24T14:05", False, Situation.NOBODY_FREE),
        ("2026-11-24T20:00", True, Situation.AFTER_HOURS),
        ("2026-11-24T20:00", False, Situation.AFTER_HOURS),
        ("2026-12-25T12:00", True, Situation.HOLIDAY),
        ("2026-12-31T14:00", True, Situation.AFTER_HOURS),
    ],
)
def test_the_situation(when: str, free: bool, expected: Situation) -> None:
    assert situation(BOATHOUSE, at(when), free) is expected


@pytest.mark.parametrize(
    ("when", "offset", "words"),
    [
        ("2026-11-24T14:05", 0, "today by 16:05"),
        ("2026-11-24T16:30", 0, "tomorrow by 10:00"),
        ("2026-11-27T18:00", None, "today by 22:00"),
        ("2026-11-28T18:00", 0, "on Monday by 10:00"),
        ("2026-12-23T17:00", 0, "on Monday by 10:30"),
        ("2026-11-24T14:05", 60, "today by 16:05 (London time)"),
        ("2026-07-07T14:05", 60, "today by 16:05"),
    ],
)
def test_a_promise_is_said_as_people_say_it(when: str, offset: int | None, words: str) -> None:
    assert promise_words(TWO_HOURS.due(BOATHOUSE, at(when)), at(when), LONDON, offset) == words


def test_without_an_opening_there_is_no_due_time_and_it_is_as_soon_as_we_can() -> None:
    due = TWO_HOURS.due(NEVER, at("2026-11-24T14:05"))
    assert due is None
    assert promise_words(due, at("2026-11-24T14:05"), LONDON) == "as soon as we can"


def test_the_touchpoints_own_promise_wins_over_the_purposes_and_the_businesss() -> None:
    own, purpose, business = Promise(None), Promise(timedelta(hours=1)), TWO_HOURS
    assert first_promise(own, purpose, business) is own
    assert first_promise(None, purpose, business) is purpose
    assert first_promise(None, None, business) is business


def test_the_reply_in_effect_is_the_channels_then_everywheres_and_names_its_cell() -> None:
    everywhere, phone = Cell(Situation.OPEN), Cell(Situation.OPEN, "phone")
    table = {everywhere: Reply(text=("all",)), phone: Reply(text=("ring",))}
    assert choose(table, Situation.OPEN, "en-GB", "en", "phone").cell == phone
    assert choose(table, Situation.OPEN, "en-GB", "en", "mail").cell == everywhere


def test_the_language_falls_back_to_the_businesss() -> None:
    german = Cell(Situation.OPEN, None, "de")
    table = {german: Reply(text=("Wir antworten",)), Cell(Situation.OPEN): Reply(text=("We answer",))}
    assert choose(table, Situation.OPEN, "de-AT", "en").cell == german
    assert choose(table, Situation.OPEN, "fr", "en").cell == Cell(Situation.OPEN)


def test_slots_are_filled_and_what_cannot_be_filled_stays_true() -> None:
    when = at("2026-12-25T12:00")
    words = slots(BOATHOUSE, when, LONDON, TWO_HOURS.due(BOATHOUSE, when))
    runs = ("Closed for ", ReplySlotRun(slot="day_name"), ", back ", ReplySlotRun(slot="next_opening"), ".")
    assert fill(runs, words) == "Closed for Christmas, back on Monday at 09:00."
    assert fill(("We answer ", ReplySlotRun(slot="promise"), "."), {}) == "We answer as soon as we can."


_OF_NOW = re.compile(r"\b(?:open till|we are (?:open|closed))\b|[0-9]{1,2}:[0-9]{2}\b")


def _said(data: Any) -> Iterator[str]:
    """Every slot of times, and every text, in a document."""
    if isinstance(data, dict):
        yield from [str(data["slot"])] if "slot" in data else []
        for one in data.values():
            yield from _said(one)
    elif isinstance(data, list | tuple):
        for one in data:
            yield from _said(one)
    elif isinstance(data, str):
        yield data


@pytest.mark.parametrize("starter", STARTERS, ids=lambda one: one.key)
@pytest.mark.parametrize(
    "at",
    [
        "2026-11-24T14:05:00+00:00",
        "2026-11-24T19:00:00+00:00",
        "2026-11-28T12:00:00+00:00",
        "2026-12-25T12:00:00+00:00",
    ],
)
def test_no_starter_says_what_a_situation_can_make_untrue(starter: Starter, at: str) -> None:
    now = datetime.fromisoformat(at)
    said = set(_said(starter.document.model_dump(mode="json")))
    # A time at which we close is none while we are closed, and no other day has a holiday's name.
    assert not said & {"closing_time", "day_name"}
    assert not [one for one in said if _OF_NOW.search(one)]
    if "open_now" in said:
        words = slots(BOATHOUSE, now, BOATHOUSE.zone, None)["open_now"]
        assert words.startswith("Open now, till") is is_open(BOATHOUSE, now)
        assert (", open again" in words) is not is_open(BOATHOUSE, now)
