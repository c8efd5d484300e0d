"""Where a page of a list ends, and where it ends when it is read anew."""

from datetime import UTC, datetime, timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from intavo.core.paging import Key, key_text, page_end, read_key

NOON = datetime(2026, 11, 24, 12, tzinfo=UTC)
PAGE, MOST = 3, 6


def keys(*minutes: int | None) -> list[Key]:
    return [(None if one is None else NOON + timedelta(minutes=one), at) for at, one in enumerate(minutes)]


@pytest.mark.parametrize(
    ("minutes", "through", "size", "end", "more"),
    [
        ((), None, 0, None, False),
        ((1, 2), None, 2, 1, False),
        ((1, 2, 3), None, 3, 2, False),
        ((1, 2, 3, 4), None, 3, 2, True),
        ((1, 2, 3, 4, 5), 3, 4, 3, True),
        ((1, 2, 3, 4, None), 4, 5, 4, False),
        ((1, 2, 3, 4), 0, 3, 2, True),
        ((1, 2, 3, 4, 5, 6, 7), 6, 6, 5, True),
    ],
)
def test_a_page_ends(
    minutes: tuple[int | None, ...], through: int | None, size: int, end: int, more: bool
) -> None:
    rows = keys(*minutes)
    ends = None if end is None else rows[end]
    assert page_end(rows, PAGE, MOST, None if through is None else rows[through]) == (size, ends, more)


def test_the_row_that_it_ended_with_may_be_gone() -> None:
    gone = (NOON + timedelta(minutes=4, seconds=30), 99)
    assert page_end(keys(1, 2, 3, 4, 5), PAGE, MOST, gone) == (4, gone, True)


def test_of_what_goes_down_the_last_comes_first() -> None:
    rows = keys(9, 8, 7, 6, 5)
    assert page_end(rows, PAGE, MOST, rows[3], last_first=True) == (4, rows[3], True)


@given(st.lists(st.integers(0, 50), max_size=MOST, unique=True), st.sets(st.integers(0, 50), max_size=PAGE))
def test_no_row_leaves_a_page_because_another_came(before: list[int], came: set[int]) -> None:
    def rows(minutes: set[int]) -> list[Key]:
        return [(NOON + timedelta(minutes=one), one) for one in sorted(minutes)]

    known = rows(set(before))
    size, end, _ = page_end(known[: PAGE + 1], PAGE, PAGE)
    later = rows({*before, *came})[: MOST + 1]
    again, _, _ = page_end(later, PAGE, MOST, end)
    assert set(known[:size]) <= set(later[:again])


def test_a_key_says_what_it_is() -> None:
    for key in keys(1, None):
        assert read_key(key_text(key)) == key
