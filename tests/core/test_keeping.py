"""What cannot be kept of an edit is named at its place; everything else is kept."""

import json
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from intavo.core.touchpoint import STARTERS, Document
from intavo.core.touchpoint.keeping import kept_as_far

BEFORE = next(one.document for one in STARTERS if one.key == "code")


def edited(edit: Any) -> tuple[Document, dict[str, str]]:
    """The document after an edit that also changes its headline, and what was not kept."""
    data = json.loads(BEFORE.model_dump_json())
    data["steps"][0]["parts"][1]["text"] = "Another headline"
    edit(data)
    document, errors = kept_as_far(data, BEFORE)
    return document, dict(errors)


def put(*path: Any) -> Any:
    """An edit that puts the last of the path at the place before it."""

    def edit(data: dict[str, Any]) -> None:
        here: Any = data
        for key in path[:-2]:
            here = here[key]
        here[path[-2]] = path[-1]

    return edit


@pytest.mark.parametrize(
    ("edit", "place", "said"),
    [
        (put("steps", 0, "parts", 3, "label", "x" * 900), "p4.label", "too long: at most 200"),
        (put("leaving", "cross", None), "leaving", "close sign within 5 seconds"),
        (put("leaving", "after", 1), "leaving.after", "At least 2."),
        (put("look", "width", 9000), "look.width", "At most 1600."),
        (put("look", "colours", "card", "blackish"), "look.colours.card", ""),
        (put("after", "page", "javascript:x"), "after.page", "begins with https"),
        (put("after", "thank_you", "reply_to", "nobody"), "after.thank_you.reply_to", "has an @ in it"),
        (put("steps", 0, "parts", 5, "does", "next", "gone"), "p6", "leads to the step"),
        (put("show", "sentences", 0, "devices", []), "show.sentences.0.devices", "at least one of"),
        (put("spot", "selector", "main >> p"), "spot.selector", "cannot be read"),
        (put("surprise", 1), "surprise", ""),
        (lambda data: data.pop("purpose"), "purpose", "missing"),
    ],
)
def test_what_does_not_hold_is_named_and_everything_else_is_kept(edit: Any, place: str, said: str) -> None:
    document, errors = edited(edit)
    assert list(errors) == [place]
    assert said in errors[place]
    assert document.model_dump()["steps"][0]["parts"][1]["text"] == "Another headline"


def test_two_at_once_are_both_named_and_a_new_part_that_cannot_be_goes() -> None:
    def edit(data: dict[str, Any]) -> None:
        data["look"]["width"] = -1
        data["steps"][0]["parts"].append({"id": "p99", "kind": "price", "now": "lots"})
        data["steps"][0]["parts"].append({"id": "p98", "kind": "unicorn"})

    document, errors = edited(edit)
    assert set(errors) >= {"look.width", "p99.now"}
    assert document.look.width == BEFORE.look.width
    assert [part.id for part in document.steps[0].parts][-1] == "p99"


@given(st.recursive(st.none() | st.booleans() | st.integers() | st.text(max_size=5), lambda inner: st.lists(inner, max_size=3) | st.dictionaries(st.text(max_size=4), inner, max_size=3), max_leaves=6), st.sampled_from(sorted(Document.model_fields)))  # fmt: skip
def test_whatever_stands_in_one_place_the_rest_is_kept(value: Any, place: str) -> None:
    data = json.loads(BEFORE.model_dump_json()) | {place: value}
    document, _ = kept_as_far(data, BEFORE)
    kept = document.model_dump(mode="json")
    before = BEFORE.model_dump(mode="json")
    assert {name: kept[name] for name in kept if name not in {place, "leaving", "steps", "stance"}} == {
        name: before[name] for name in before if name not in {place, "leaving", "steps", "stance"}
    }


JSON = st.recursive(
    st.none() | st.booleans() | st.integers(-5, 5) | st.text(max_size=3) | st.just("p1"),
    lambda inner: (
        st.lists(inner, max_size=3)
        | st.dictionaries(st.sampled_from(["id", "parts", "kind", "does", "text"]), inner, max_size=3)
    ),
    max_leaves=8,
)


@given(st.dictionaries(st.sampled_from(sorted(Document.model_fields)), JSON, max_size=6))
def test_any_document_at_all_ends_in_one_that_holds(data: dict[str, Any]) -> None:
    document, _ = kept_as_far(data, BEFORE)
    assert Document.model_validate(document.model_dump(mode="json")) == document
