"""A question that was answered before is known again."""

import pytest

from intavo.core.proposing import likeliest

KNOWN = (
    "Do you hire wetsuits for children?",
    "When are you open on Sundays?",
    "Can dogs come along in a canoe?",
    "Parking?",
)


@pytest.mark.parametrize(
    ("asked", "place"),
    [
        ("Hello! Do you have wetsuits for hire, for two children of nine?", 0),
        ("are you OPEN this sunday", 1),
        ("We have two dogs – could they come in the canoe with us?", 2),
        ("Is there parking?", 3),
        (
            "I left a dry bag in the second double on Saturday, near the parking, has anybody handed it in?",
            None,
        ),
        ("Two doubles and a single, weekend of 5 December?", None),
        ("wetsuits", None),
        ("", None),
        ("Ça va ? Wétsuits à hire pour children", 0),
    ],
)
def test_a_question_is_known_again_by_what_it_is_about(asked: str, place: int | None) -> None:
    assert likeliest(asked, KNOWN) == place


def test_among_none_none_is_likely() -> None:
    assert likeliest("Do you hire wetsuits?", ()) is None
