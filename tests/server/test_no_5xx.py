"""Odd requests over the wire at every address of both sides, from one seed."""

import os

from tests.fuzz import fuzz


def test_nothing_that_is_asked_is_answered_by_a_fault_of_ours() -> None:
    told = fuzz(1, seed=11, cluster=os.environ["DATABASE_URL"])
    assert told.wrong == []
    assert told.due - set(told.asked) == set()
    assert len(told.followed) > 10, "what one operation answered goes into the next"
