"""A button that the table of replies hides, and hours that are followed together."""

from dataclasses import replace
from datetime import datetime
from typing import Any

import pytest

from intavo.core.hours import OpeningHours, any_of, is_open
from intavo.core.presence import Away, Presence
from intavo.core.replies import Cell, Reply, Situation
from intavo.core.showing import Compiled, Hides, TouchpointState, Visit, decide, hidden_cells, shows
from intavo.core.showing.compiled import page_view
from intavo.core.showing.decide import holds_until
from intavo.core.touchpoint import Show

from .hours_examples import BOATHOUSE, LONDON, at

NIGHT, NOON = at("2026-11-24T20:05"), at("2026-11-24T12:00")
HIDDEN, SAID = Reply(hidden=True), Reply(title=("Shut",))


def button(*, away: bool = False, **cells: Reply) -> Compiled:
    """A button that shows everywhere, with these cells, written like `after_hours__tp_1__en`."""
    table = {}
    for name, reply in cells.items():
        situation, column, language = name.split("__")
        table[Cell(Situation(situation.replace("_", "-")), column or None, language)] = reply
    members = (Presence(1, Away(None, None) if away else None),)
    hides = Hides(table, "tp_1", "en", BOATHOUSE, members) if hidden_cells(table, "tp_1") else None
    hosts = frozenset({"otterwick.example"})
    return Compiled(
        "tp_1", TouchpointState.LIVE, hosts, Show.model_validate({"sentences": [{}]}), LONDON, hides=hides
    )


def seen(**visitor: Any) -> Visit:
    """A page view."""
    page = {"url": "https://otterwick.example/"}
    return Visit.model_validate({"page": page, "device": "desktop", "visitor": visitor})


@pytest.mark.parametrize(
    ("cells", "away", "when", "stays"),
    [
        ({"after_hours__tp_1__en": HIDDEN}, False, NIGHT, False), ({"after_hours__tp_1__en": HIDDEN}, False, NOON, True),
        ({"after_hours____en": HIDDEN}, False, NIGHT, True), ({"after_hours__ch_1__en": HIDDEN}, False, NIGHT, True),
        ({"after_hours__tp_1__en": SAID}, False, NIGHT, True),
        ({"nobody_free__tp_1__en": HIDDEN}, True, NOON, False), ({"nobody_free__tp_1__en": HIDDEN}, False, NOON, True),
    ],
)  # fmt: skip
def test_its_own_cell_hides_it_while_so(
    cells: dict[str, Reply], away: bool, when: datetime, stays: bool
) -> None:
    touchpoint = button(away=away, **cells)
    verdict = decide(touchpoint, seen(), when)
    assert (verdict.shows, shows(touchpoint, page_view(seen(), when))) == (stays, stays)


def test_the_language_of_the_visitor_counts() -> None:
    touchpoint = button(after_hours__tp_1__en=HIDDEN, after_hours__tp_1__cy=SAID)
    assert not decide(touchpoint, seen(language="en-GB"), NIGHT).shows
    assert decide(touchpoint, seen(language="cy"), NIGHT).shows


def test_it_is_said_why_and_until_when() -> None:
    touchpoint = button(after_hours__tp_1__en=HIDDEN)
    stopped = decide(touchpoint, seen(), NIGHT).stopped_by
    assert stopped is not None
    assert (stopped.name, stopped.when) == ("during", at("2026-11-25T09:00"))
    assert (
        stopped.sentence == "Hidden while it is “after hours”, by the table of replies, until 09:00 tomorrow."
    )
    assert holds_until(touchpoint, page_view(seen(), NOON)) == at("2026-11-24T17:30")
    assert holds_until(replace(touchpoint, hides=None), page_view(seen(), NOON)) is None


def test_sets_that_are_followed_together_are_open_when_any_is() -> None:
    evening = OpeningHours.model_validate(
        {"timezone": "Europe/London", "week": [{"day": "tue", "from": "19:00", "to": "22:00"}]}
    )
    sets = {None: BOATHOUSE, 4: evening}
    assert [is_open(any_of(sets, ids), NIGHT) for ids in ((None,), (4,), (None, 4), (9,), ())] == [
        False,
        True,
        True,
        False,
        False,
    ]
