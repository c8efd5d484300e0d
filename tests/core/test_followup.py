"""The follow-up list: what opens it, when it is due, where it stands."""

from dataclasses import replace
from datetime import datetime, timedelta

import pytest

from intavo.core.followup import (
    FollowUp,
    Kept,
    Kind,
    Lane,
    Outcome,
    State,
    finish,
    how_late,
    put_off,
    receive,
    returned,
    ruler,
    taken_up,
    wait_for_them,
)

from .hours_examples import ALWAYS, BOATHOUSE, NEVER, at

NOW = at("2026-11-24T14:05")
DUE = at("2026-11-24T16:05")
OPEN = FollowUp(Kind.INQUIRY, State.US, opened_at=NOW, due=DUE)


def test_a_first_act_opens_a_followup() -> None:
    assert receive(None, Kind.INQUIRY, NOW, DUE) == (OPEN, True)


def test_an_open_one_takes_more_in_and_keeps_the_earliest_due_time() -> None:
    found, new = receive(OPEN, Kind.INQUIRY, NOW + timedelta(hours=1), DUE + timedelta(hours=1))
    assert (found.due, new) == (DUE, False)


@pytest.mark.parametrize("state", [State.THEM, State.PUT_OFF])
def test_their_message_brings_it_back_with_a_new_due_time(state: State) -> None:
    later = DUE + timedelta(days=1)
    waiting = replace(OPEN, state=state, due=None, back_at=NOW + timedelta(days=9))
    found, new = receive(waiting, Kind.INQUIRY, NOW, later)
    assert (found.state, found.due, found.back_at, new) == (State.US, later, None, False)


@pytest.mark.parametrize(
    ("worked", "counted", "due"),
    [
        (finish(OPEN, NOW, Outcome.SPAM)[0], None, None),
        (finish(OPEN, NOW, Outcome.ANSWERED)[0], DUE, DUE),
        (wait_for_them(OPEN, NOW, answered=True)[0], None, None),
        (wait_for_them(OPEN, NOW, answered=False)[0], None, DUE),
        (put_off(OPEN, NOW, NOW + timedelta(days=2), answered=False)[0], NOW, DUE),
    ],
)
def test_taken_up_it_is_for_us_with_the_due_time_that_it_had(
    worked: FollowUp, counted: datetime | None, due: datetime | None
) -> None:
    assert taken_up(worked, counted) == replace(OPEN, due=due)


@pytest.mark.parametrize(
    ("days", "thread", "reopens"), [(30, "t", True), (31, "t", False), (1, "other", False), (1, "", False)]
)
def test_a_finished_one_reopens_within_30_days_on_its_thread(days: int, thread: str, reopens: bool) -> None:
    done = replace(OPEN, state=State.FINISHED, finished_at=NOW, thread="t")
    found, new = receive(done, Kind.INQUIRY, NOW + timedelta(days=days), DUE, thread)
    assert new is not reopens
    assert found.state is State.US


def test_an_answer_in_time_keeps_the_promise_and_a_late_one_breaks_it() -> None:
    assert wait_for_them(OPEN, DUE, answered=True)[1] == Kept(DUE, kept=True)
    assert finish(OPEN, DUE + timedelta(seconds=1), Outcome.ANSWERED)[1] == Kept(DUE, kept=False)


def test_each_due_time_counts_once_and_spam_not_at_all() -> None:
    waiting, _ = wait_for_them(OPEN, NOW, answered=True)
    assert finish(waiting, DUE + timedelta(days=1), Outcome.WON)[1] is None
    assert finish(OPEN, DUE + timedelta(days=1), Outcome.SPAM)[1] is None


def test_put_off_comes_back_by_itself_and_the_promise_stays() -> None:
    aside, kept = put_off(OPEN, NOW, NOW + timedelta(days=2), answered=False)
    assert kept is None
    assert returned(aside, NOW + timedelta(days=1)).state is State.PUT_OFF
    back = returned(aside, NOW + timedelta(days=2))
    assert (back.state, back.due) == (State.US, DUE)
    with pytest.raises(ValueError, match="ahead"):
        put_off(OPEN, NOW, NOW, answered=False)


@pytest.mark.parametrize(
    ("now", "due", "lane"),
    [
        ("2026-11-24T14:05", "2026-11-24T14:04", Lane.LATE),
        ("2026-11-24T14:05", "2026-11-24T14:05", Lane.BEFORE_CLOSING),
        ("2026-11-24T14:05", "2026-11-24T17:30", Lane.BEFORE_CLOSING),
        ("2026-11-24T14:05", "2026-11-25T09:30", Lane.NEXT_OPENING),
        ("2026-11-24T14:05", "2026-11-26T09:30", Lane.LATER),
        ("2026-11-24T14:05", None, Lane.ANY_TIME),
        ("2026-11-24T22:00", "2026-11-25T09:30", Lane.NEXT_OPENING),
        ("2026-11-24T22:00", "2026-11-26T09:30", Lane.LATER),
        ("2026-11-27T16:00", "2026-11-27T20:30", Lane.NEXT_OPENING),
        ("2026-11-28T00:10", "2026-11-28T00:20", Lane.BEFORE_CLOSING),
    ],
)
def test_the_lane(now: str, due: str | None, lane: Lane) -> None:
    assert ruler(BOATHOUSE, at(now)).lane(at(due) if due else None) is lane


def test_lateness_is_counted_in_open_time() -> None:
    assert how_late(BOATHOUSE, at("2026-11-24T17:00"), at("2026-11-25T09:35")) == timedelta(minutes=65)


def test_hours_that_never_open_and_never_close_still_have_a_ruler() -> None:
    assert ruler(NEVER, NOW).lane(DUE) is Lane.LATER
    assert ruler(ALWAYS, NOW).lane(DUE) is Lane.BEFORE_CLOSING
