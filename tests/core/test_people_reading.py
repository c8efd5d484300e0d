"""Entries of a timeline in words, for whoever is given all that is known of them."""

from zoneinfo import ZoneInfo

import pytest

from intavo.core.people.reading import entry_words, told_time

ZONE = ZoneInfo("Europe/London")


def test_what_was_typed_comes_first_and_inner_numbers_are_left_out() -> None:
    data = {
        "typed": [["Your question", "Do you mend wheels?"], ["Your email", "eve@post.example"]], "touchpoint": "Ask us",
        "followup": 7, "submission": 8, "perhaps_same": None, "tags": [], "agreed": ["news"], "visits": 2,
        "enclosed": [{"enclosure": 3, "name": "plan.pdf", "size": 9}],
    }  # fmt: skip
    head, pairs = entry_words("asked", data, ZONE)
    assert head == "Asked"
    assert pairs == [
        ("Your question", "Do you mend wheels?"),
        ("Your email", "eve@post.example"),
        ("through", "Ask us"),
        ("visits by then", "2"),
        ("agreed to", "news"),
        ("files sent along", "plan.pdf"),
    ]


@pytest.mark.parametrize(
    ("kind", "data", "said"),
    [
        (
            "put off",
            {"until": "2026-07-01T08:00:00+00:00"},
            ("Put off by us", [("until", "Wed 1 July 2026, 09:00")]),
        ),
        ("waiting", {"until": None}, ("Their turn", [])),
        ("something new", {"typed": "odd", "text": ""}, ("Something new", [])),
        ("noted", {"text": "Called.", "risky": True}, ("Our note", [("words", "Called.")])),
        ("changed", {"typed": [["a"], "bc", 5, ["b", 2]]}, ("We changed the card", [("b", "2")])),
    ],
)
def test_every_entry_has_words(
    kind: str, data: dict[str, object], said: tuple[str, list[tuple[str, str]]]
) -> None:
    assert entry_words(kind, data, ZONE) == said


def test_times_are_told_by_the_clock_of_the_zone_and_odd_ones_stand_as_they_are() -> None:
    assert told_time("2026-11-24T14:05:00+00:00", ZONE) == "Tue 24 November 2026, 14:05"
    assert [told_time(odd, ZONE) for odd in ("", "soon", "2026-11-24")] == ["", "soon", "2026-11-24"]
