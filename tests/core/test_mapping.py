"""The map of a site's pages: which touchpoint shows on which, and whose turn it is."""

from typing import Any

import pytest

from intavo.core.showing import Compiled, OnPages, TouchpointState, on_pages, taking_turns
from intavo.core.touchpoint import Moment, PagePattern, Sentence, Show

from .hours_examples import at
from .test_showing import touchpoint, visit

NOW = at("2026-11-24T14:05")
PATHS = ["/trips", "/trips/sunrise", "/hire"]
COMES = ((Moment(after=12),),)


def shown(**sentence: Any) -> OnPages:
    """How a touchpoint of one sentence does on the pages above."""
    one = touchpoint(Show(sentences=(Sentence(**sentence),)))
    return on_pages(one, [(path, visit(path)) for path in PATHS], NOW)


def test_on_all_on_some_on_none_or_only_if_somebody_opens_it() -> None:
    below = (PagePattern(kind="below", path="/trips"),)
    assert shown(moments=COMES) == OnPages("yes", "", tuple(PATHS), True)
    assert shown(moments=COMES, pages=below) == OnPages("some", "2 of 3", ("/trips", "/trips/sunrise"), True)
    assert shown(moments=COMES, devices=("phone",)) == OnPages("no", "", (), False)
    assert shown(moments=()) == OnPages("asked", "if opened", tuple(PATHS), False)


def test_what_only_its_times_hold_back_comes_later() -> None:
    later = shown(moments=COMES, during={"first": "2026-12-01"})
    assert (later.shows, later.words) == ("later", "from 1 Dec")
    assert shown(moments=COMES, during={"first": "2026-12-01"}, devices=("phone",)).shows == "no"


def row(queue: str, shows: Any = "yes", by_itself: bool = True) -> tuple[Compiled, OnPages]:
    """A touchpoint that waits in a queue, and how it does on its pages."""
    one = touchpoint(state=TouchpointState.LIVE, queue=queue)
    words = "1 of 2" if shows == "some" else ""
    return one, OnPages(shows, words, ("/",), by_itself)


@pytest.mark.parametrize(
    ("rows", "shows", "shared"),
    [
        ([], [], 0),
        ([row("interrupting"), row("interrupting")], ["yes", "turn"], 2),
        ([row("interrupting"), row("bar"), row("bar")], ["yes", "yes", "turn"], 2),
        ([row("none"), row("none"), row("none")], ["yes", "yes", "yes"], 0),
        ([row("interrupting", "no"), row("interrupting")], ["no", "yes"], 1),
        ([row("interrupting", "asked", by_itself=False), row("interrupting")], ["asked", "yes"], 1),
        (
            [row("interrupting", "some"), row("interrupting", "some"), row("interrupting")],
            ["some", "turn", "turn"],
            3,
        ),
    ],
)
def test_where_several_would_come_at_once_the_later_ones_wait(
    rows: list[tuple[Compiled, OnPages]], shows: list[str], shared: int
) -> None:
    found, many = taking_turns(rows)
    assert ([one.shows for one in found], many) == (shows, shared)
    assert all("in turn" in one.words for one in found if one.shows == "turn")
