"""What was worked out lately is kept for a while, for every thread, and never without a bound."""

import threading
from concurrent.futures import ThreadPoolExecutor
from functools import partial

from intavo.lately import Lately


def test_a_value_is_worked_out_once_and_nothing_is_a_value_too() -> None:
    kept: Lately[str, int | None] = Lately(10)
    asked: list[str] = []

    def work(key: str) -> int | None:
        asked.append(key)
        return None if key == "none" else len(key)

    assert [kept.get(key, partial(work, key)) for key in ("ab", "none", "ab", "none")] == [
        2,
        None,
        2,
        None,
    ]
    assert asked == ["ab", "none"]
    assert (kept.known("ab"), kept.known("abc")) == (2, None)


def test_what_was_asked_for_longest_ago_goes_first() -> None:
    kept: Lately[int, int] = Lately(3)
    for key in (1, 2, 3):
        kept.put(key, key)
    kept.known(1)
    kept.put(4, 4)
    assert [kept.known(key) for key in (1, 2, 3, 4)] == [1, None, 3, 4]


def test_nothing_is_given_out_that_is_too_old() -> None:
    kept: Lately[str, int] = Lately(10, seconds=0.0)
    kept.put("a", 1)
    assert kept.get("a", lambda: 2) == 2


def test_many_threads_share_it() -> None:
    kept: Lately[int, int] = Lately(50)
    begin = threading.Barrier(8)

    def work(seed: int) -> bool:
        begin.wait()
        return all(kept.get(key % 97, partial(int, key % 97)) == key % 97 for key in range(seed, seed + 5000))

    with ThreadPoolExecutor(8) as pool:
        assert all(pool.map(work, range(8)))
    assert len(kept) == 50
