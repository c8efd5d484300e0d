"""What comes in is let in by one door, or refused with its place."""

import json
import unicodedata
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from intavo.core.door import MOST_NUMBER, NotLetIn, let_in, read_json, whole_number
from intavo.core.texts import keepable

ANY = st.recursive(
    st.none() | st.booleans() | st.integers() | st.floats() | st.text(st.characters()),
    lambda inner: (
        st.lists(inner, max_size=4) | st.dictionaries(st.text(st.characters(), max_size=5), inner, max_size=4)
    ),
)


def texts(value: Any) -> list[str]:
    """Every text in a value."""
    if isinstance(value, dict):
        return [one for pair in value.items() for half in pair for one in texts(half)]
    if isinstance(value, list):
        return [one for each in value for one in texts(each)]
    return [value] if isinstance(value, str) else []


def tried(value: Any, *mending: str) -> tuple[Any, list[str]]:
    """What comes of letting a value in: it, or the words of its refusal."""
    try:
        return let_in(value, mending=mending), []
    except NotLetIn as error:
        return None, [words for _, words in error.errors]


@given(ANY)
def test_what_is_let_in_can_be_kept_and_is_let_in_as_it_is(value: Any) -> None:
    taken, refused = tried(value)
    assert refused or all(keepable(one) and unicodedata.is_normalized("NFC", one) for one in texts(taken))
    assert refused or let_in(taken) == taken


@given(ANY)
def test_what_a_page_says_of_itself_is_mended(value: Any) -> None:
    taken, refused = tried({"page": value}, "page")
    assert set(refused) <= {"This number is beyond all bounds."}
    assert all(map(keepable, texts(taken)))


@pytest.mark.parametrize(
    ("body", "places"),
    [
        (b'{"a": [{"b": "\\u0000"}], "c": "\\ud800"}', ["a.0.b", "c"]), (b'{"n": 1e999}', ["n"]),
        (b'{"n": 99999999999999999999}', ["n"]), (b'{"n": NaN}', [""]), (b"{", [""]), (b"\xff", [""]),
        (b"[" * 5000, [""]), (b'{"a":' * 90 + b"1" + b"}" * 90, ["a.a.a"]), (b'{"\\u0000": 1}', [""]),
        (b"9" * 5000, [""]),
    ],
)  # fmt: skip
def test_each_place_that_cannot_be_taken_is_named(body: bytes, places: list[str]) -> None:
    with pytest.raises(NotLetIn) as refused:
        read_json(body)
    assert [place for place, _ in refused.value.errors] == places


def test_the_same_text_has_one_form_and_bounds_are_still_in() -> None:
    assert read_json(json.dumps({"name": "Cafe\u0301", "n": MOST_NUMBER}).encode()) == {
        "name": "Café",
        "n": MOST_NUMBER,
    }
    assert read_json(b"") is None


@given(ANY)
def test_what_is_read_is_what_would_be_let_in(value: Any) -> None:
    for ascii_only in (True, False):
        try:
            body = json.dumps(value, ensure_ascii=ascii_only, allow_nan=False).encode(
                "utf-8", "surrogatepass"
            )
        except ValueError:
            return
        try:
            read = read_json(body)
        except NotLetIn:
            read = None
        assert read == tried(json.loads(body.decode("utf-8", "surrogateescape")))[0]


@pytest.mark.parametrize(
    ("text", "number"),
    [("0", 0), ("12", 12), ("999999999", 999_999_999), ("1000000000", None), ("9" * 5000, None), ("", None), ("²", None),
     ("٣", None), ("-1", None), ("+1", None), ("1.0", None), (" 1", None), ("1\n", None), ("1_0", None)],
)  # fmt: skip
def test_a_whole_number_is_read_in_one_way(text: str, number: int | None) -> None:
    assert whole_number(text) == number


@pytest.mark.parametrize("digits", [17, 308, 309, 400, 4_300, 5_000])
def test_a_number_of_any_length_is_refused_by_its_place(digits: int) -> None:
    with pytest.raises(NotLetIn) as refused:
        read_json(b'{"n": 1' + b"0" * digits + b"}")
    assert refused.value.errors[0][0] in {"n", ""}
