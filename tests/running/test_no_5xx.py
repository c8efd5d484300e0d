"""Odd requests over the wire at every address of both sides, from one seed."""

import os

from tests.running.fuzz import fuzz

# A part of a round: every operation and every kind of address is asked. `make bench` and `make fuzz` ask for longer.
SHORT = 0.1


def test_nothing_that_is_asked_is_answered_by_a_fault_of_ours() -> None:
    told = fuzz(SHORT, seed=11, cluster=os.environ["DATABASE_URL"])
    assert told.wrong == []
    assert told.due - set(told.asked) == set()
    assert len(told.followed) > 10, "what one operation answered goes into the next"
