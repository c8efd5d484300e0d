"""Every kind of part has all its pieces: what it says of itself, and where it is drawn."""

import re
from pathlib import Path

import pytest

from intavo.core.touchpoint import Document, changes, offered
from intavo.core.touchpoint.parts import KINDS, Part_, values_of

ROOT = Path(__file__).parents[2]
# What a page without scripts has no use for.
NOT_HOSTED = {"space"}
SAID_APART = {"id", "kind", "hidden", "text", "label", "does"}


@pytest.mark.parametrize("kind", KINDS)
def test_a_kind_says_its_name_how_it_is_added_and_what_its_values_are_called(kind: str) -> None:
    part = KINDS[kind]
    assert part.CALLED
    assert part.OFFERED
    own = set(part.model_fields) - SAID_APART
    assert own <= set(values_of(kind)), f"values of {kind} that have no name"


@pytest.mark.parametrize("kind", KINDS)
def test_a_kind_is_drawn_in_the_page_on_the_hosted_page_and_in_the_editor(kind: str) -> None:
    script = "".join(
        (ROOT / "visitor-script/src" / one).read_text() for one in ("render/parts.ts", "more/index.ts")
    )
    assert re.search(rf"^\s+{kind}[,:]", script, re.MULTILINE)
    hosted = (ROOT / "intavo/visitor/templates/visitor/part.html").read_text()
    assert kind in NOT_HOSTED or f'part.kind == "{kind}"' in hosted


def test_what_is_added_holds_and_its_change_is_named() -> None:
    empty = Document.model_validate({"purpose": "notice", "stance": "card", "steps": [{"id": "one"}]})
    for patterns in offered().values():
        for name, values in patterns.items():
            step = {"id": "one", "parts": [{**values, "id": "p1"}]}
            made = Document.model_validate({"purpose": "notice", "stance": "card", "steps": [step]})
            said = [one.words for one in changes(empty, made)]
            assert said[0].endswith(": new"), name
            assert isinstance(next(made.parts()), Part_)


def test_a_part_of_another_kind_in_the_place_of_one_is_named_as_new_and_the_other_as_gone() -> None:
    patterns = [values for family in offered().values() for values in family.values()]
    made = [
        Document.model_validate(
            {
                "purpose": "notice",
                "stance": "card",
                "steps": [{"id": "one", "parts": [{**values, "id": "p1"}]}],
            }
        )
        for values in patterns
    ]
    for before in made:
        for after in made:
            kinds = {next(one.parts()).kind for one in (before, after)}
            said = [one.words.rpartition(": ")[2] for one in changes(before, after)]
            assert (said[:2] == ["new", "gone"]) == (len(kinds) == 2)
