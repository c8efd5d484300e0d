"""The vectors as the rehearsal plays them; tests/browser holds the real script to the same."""

import itertools

import pytest

from intavo.core.showing import rehearse
from tests.vectors import Vector, vectors

ALL = vectors()


def test_there_are_enough_of_them_and_all_kinds() -> None:
    assert len(ALL) >= 120
    assert len({one.name for one in ALL}) == len(ALL)
    assert any(one.events == [] for one in ALL)


@pytest.mark.parametrize("vector", ALL, ids=lambda one: one.name)
def test_the_rehearsal_agrees(vector: Vector) -> None:
    played = rehearse(vector.touchpoints, vector.visit, vector.deeds, vector.at, vector.data.get("length", 0))
    assert [(round(one.at, 3), one.what, one.touchpoint) for one in played.events] == vector.events
    for id_, track in played.tracks.items():
        assert all(before.end <= after.start for before, after in itertools.pairwise(track)), id_
        assert all(stretch.words.endswith(".") for stretch in track)
        shown = [one.start for one in track if one.doing == "on screen"]
        assert shown == [
            at
            for at, what, one in ((e.at, e.what, e.touchpoint) for e in played.events)
            if (what, one) == ("shown", id_)
        ]
