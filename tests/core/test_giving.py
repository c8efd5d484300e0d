"""Whose a new piece of work is."""

import pytest

from intavo.core.followup import Kind
from intavo.core.giving import Came, GiveRule, fits, given_to, rule_words

CAME = Came(Kind.INQUIRY, "form", 7, "https://otterwick.example/trips/sunrise?x=1", frozenset({"school"}))


@pytest.mark.parametrize(
    ("rule", "held"),
    [
        ({}, True), ({"kind": "inquiry"}, True), ({"kind": "message"}, False), ({"via": "form"}, True),
        ({"via": "mail"}, False), ({"touchpoint": 7}, True), ({"touchpoint": 8}, False), ({"tag": "school"}, True),
        ({"tag": "spring"}, False), ({"page": "/trips/sunrise/"}, True), ({"page": "/trips"}, False),
        ({"page": "/trips/*"}, True), ({"page": "/tri*"}, False), ({"kind": "inquiry", "tag": "spring"}, False),
    ],
)  # fmt: skip
def test_a_rule_fits_what_all_of_it_says(rule: dict[str, object], held: bool) -> None:
    assert fits(GiveRule.model_validate(rule), CAME) is held


def test_the_first_that_fits_decides_and_nobody_who_has_left_gets_anything() -> None:
    mail, left, jory, least = (
        GiveRule(via="mail", member=3), GiveRule(member=99), GiveRule(tag="school", member=2), GiveRule(),
    )  # fmt: skip
    assert given_to([mail, left, jory, least], CAME, [1, 3], {}, [1, 2, 3]) == 2
    assert given_to([mail, left], CAME, [1, 3], {}, [1, 2, 3]) is None


@pytest.mark.parametrize(
    ("present", "open_work", "whose"),
    [([1, 3], {1: 2, 3: 1}, 3), ([1, 3], {1: 1, 3: 1}, 1), ([3, 1], {}, 1), ([], {}, None), ([3], {2: 0}, 3)],
)
def test_whoever_at_the_counter_has_the_least_open_gets_it(
    present: list[int], open_work: dict[int, int], whose: int | None
) -> None:
    assert given_to([GiveRule()], CAME, present, open_work, [1, 2, 3]) == whose


def test_a_rule_is_a_sentence() -> None:
    rule = GiveRule(kind=Kind.INQUIRY, touchpoint=7, page="/trips/*", tag="school", member=2)
    assert rule_words(rule, {7: "Boathouse question"}, {2: "Jory"}) == (
        "an inquiry from Boathouse question on /trips/* tagged “school” goes to Jory"
    )
    assert (
        rule_words(GiveRule(via="mail"), {}, {})
        == "everything by mail goes to whoever at the counter has the least open"
    )
