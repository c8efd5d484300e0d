"""One person: how addresses are matched, and what is only offered."""

import pytest
from email_validator import EmailNotValidError, validate_email
from hypothesis import given, settings
from hypothesis import strategies as st

from intavo.core.people import (
    Card,
    Match,
    email_address,
    filled,
    likely_slip,
    match,
    one_edit_apart,
    phone_number,
    suggested_merges,
)


@pytest.mark.parametrize(
    ("typed", "key"),
    [
        ("Ife.Dunmore@Post.EXAMPLE", "ife.dunmore@post.example"),
        ("  ife.dunmore@post.example ", "ife.dunmore@post.example"),
        ("ife@MÜNCHEN.example", "ife@xn--mnchen-3ya.example"),
        ("ｉｆｅ@post.example", "ife@post.example"),
    ],
)
def test_an_email_is_matched_by_its_key_and_shown_as_typed(typed: str, key: str) -> None:
    found = email_address(typed)
    assert found.key == key
    assert email_address(found.shown).key == key


@pytest.mark.parametrize(
    "typed", ["", "ife", "ife@", "@post.example", "ife@post", "i fe@post.example", "a@@b.example"]
)
def test_what_is_no_email_is_refused_in_words(typed: str) -> None:
    with pytest.raises(ValueError, match=r"[a-z]{4,} [a-z]"):
        email_address(typed)


def test_a_phone_is_read_with_the_region_and_fictional_numbers_are_taken() -> None:
    assert phone_number("07700 900 318", "GB").key == "+447700900318"
    assert phone_number("+44 7700 900318", "US").key == "+447700900318"
    with pytest.raises(ValueError, match="digits"):
        phone_number("12", "GB")


@pytest.mark.parametrize(
    ("one", "other", "apart"),
    [("otterwik", "otterwick", True), ("otterwcik", "otterwick", True), ("otterwick", "otterwick", False),
     ("otterwixk", "otterwick", True), ("otterwickk", "otterwick", True), ("oterwik", "otterwick", False)],
)  # fmt: skip
def test_one_edit(one: str, other: str, apart: bool) -> None:
    assert one_edit_apart(one, other) is apart
    assert one_edit_apart(other, one) is apart


@given(st.text("abc", min_size=1, max_size=6), st.integers(0, 5), st.sampled_from("abc"))
def test_leaving_out_a_letter_is_always_one_edit(text: str, at: int, letter: str) -> None:
    longer = text[:at] + letter + text[at:]
    assert one_edit_apart(text, longer)


def test_a_slip_is_offered_only_towards_a_domain_that_three_people_use() -> None:
    assert likely_slip("otterwik.example", {"otterwick.example": 3}) == "otterwick.example"
    assert likely_slip("otterwik.example", {"otterwick.example": 2}) is None
    assert likely_slip("otterwik.example", {"otterwick.example": 9, "otterwik.example": 3}) is None


@pytest.mark.parametrize(
    ("email", "phone", "by_email", "by_phone", "expected"),
    [
        ("a@x.example", None, 1, [], Match(1)),
        ("a@x.example", "+1", None, [2], Match(None, suggest=2)),
        ("a@x.example", "+1", 1, [1], Match(1)),
        ("a@x.example", "+1", 1, [2], Match(1, suggest=2)),
        (None, "+1", None, [3, 2], Match(2)),
        (None, "+1", None, [], Match(None)),
    ],
)
def test_email_decides_and_a_phone_joins_only_without_one(
    email: str | None, phone: str | None, by_email: int | None, by_phone: list[int], expected: Match
) -> None:
    assert match(email, phone, by_email, [Card(one) for one in by_phone]) == expected


def test_people_who_share_a_phone_are_suggested_once() -> None:
    cards = [
        Card(2, phones=frozenset({"+1"})),
        Card(1, phones=frozenset({"+1"})),
        Card(3, phones=frozenset({"+2"})),
    ]
    assert suggested_merges(cards) == [(1, 2)]


def test_a_blank_never_overwrites_and_nobody_is_renamed() -> None:
    assert filled("Ife", "") == "Ife"
    assert filled("Ife", "Mallory") == "Ife"
    assert filled("", " Ife ") == "Ife"


_LABELS = st.text("aZ09-_+.xn", max_size=9) | st.sampled_from(
    [
        "post",
        "example",
        "test",
        "invalid",
        "localhost",
        "local",
        "arpa",
        "onion",
        "xn--bcher-kva",
        "a" * 63,
        "a" * 64,
        "co",
        "1",
    ]
)


@given(
    st.lists(_LABELS, min_size=1, max_size=3).map(".".join) | st.just("a" * 64) | st.just("a" * 65),
    st.lists(_LABELS, min_size=1, max_size=4).map(".".join),
)
@settings(max_examples=2000)
def test_a_plain_address_is_what_the_whole_check_says_it_is(local: str, domain: str) -> None:
    typed = f"{local}@{domain}"
    try:
        found = validate_email(typed, check_deliverability=False, test_environment=True)
    except EmailNotValidError:
        with pytest.raises(ValueError, match="email"):
            email_address(typed)
        return
    assert email_address(typed).key == f"{found.local_part}@{found.ascii_domain}".casefold()
