"""How much there may be of each kind."""

import pytest

from intavo.core.quotas import GB, Quota, QuotaKind, limits


@pytest.mark.parametrize(
    ("used", "near", "met", "guests"),
    [(0, False, False, True), (79, False, False, True), (80, True, False, True), (100, True, True, True),
     (119, True, True, True), (120, True, True, False)],
)  # fmt: skip
def test_it_is_said_from_four_fifths_on_and_guests_have_a_fifth_more(
    used: int, near: bool, met: bool, guests: bool
) -> None:
    asked = Quota(QuotaKind.FILES, used, 100)
    assert (asked.near, asked.met, asked.takes_from_guests(1)) == (near, met, guests)
    free = Quota(QuotaKind.FILES, used, 0)
    assert (free.near, free.met, free.takes_from_guests(10**9)) == (False, False, True)


@pytest.mark.parametrize(
    ("quota", "words"),
    [
        (Quota(QuotaKind.FILES, 0, 20 * GB), "0 MB of files, of 20 GB"),
        (Quota(QuotaKind.FILES, 17, 20 * GB), "1 MB of files, of 20 GB"),
        (Quota(QuotaKind.FILES, 3 * GB // 2, 0), "1.5 GB of files"),
        (Quota(QuotaKind.SITES, 1, 1), "1 of 1 site"),
        (Quota(QuotaKind.PEOPLE, 1234, 0), "1,234 people"),
        (Quota(QuotaKind.COPIES, 1, 0), "1 copy"),
    ],
)
def test_words(quota: Quota, words: str) -> None:
    assert quota.words == words


def test_a_refusal_says_what_can_be_done() -> None:
    assert Quota(QuotaKind.COPIES, 10, 10).refusal == (
        "There is no room for more: 10 of 10 copies. Throw one away first, or ask whoever runs Intavo."
    )
    assert Quota(QuotaKind.IMPORTS_AT_ONCE, 1, 1).refusal.startswith("Another file is being worked on")


def test_an_operator_says_otherwise_of_what_there_is() -> None:
    mine = limits({"files": 2, "sites": 0})
    assert (mine[QuotaKind.FILES], mine[QuotaKind.SITES], mine[QuotaKind.COPIES]) == (2 * GB, 0, 10)
    for wrong in ({"fils": 1}, {"sites": -1}):
        with pytest.raises(ValueError, match=next(iter(wrong))):
            limits(wrong)
