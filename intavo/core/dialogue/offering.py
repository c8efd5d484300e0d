"""Questions & answers that match what a visitor is typing."""

import re
from collections.abc import Iterable

MOST = 3
_LEAST_LETTERS, _ENOUGH = 3, 0.5


def offered(questions: Iterable[tuple[int, str]], typed: str) -> tuple[int, ...]:
    """The ids of up to three (id, question) that hold at least half of the words typed, the best first.

    Words of three letters and more count, by their beginnings and in any case.
    """
    wanted = set(_words(typed))
    if not wanted:
        return ()
    found = []
    for id_, question in questions:
        known = _words(question)
        hits = sum(any(one.startswith(word) or word.startswith(one) for one in known) for word in wanted)
        if hits / len(wanted) >= _ENOUGH:
            found.append((-hits, len(known), id_))
    return tuple(id_ for _, _, id_ in sorted(found)[:MOST])


def _words(text: str) -> list[str]:
    return [word for word in re.findall(r"\w+", text.casefold()) if len(word) >= _LEAST_LETTERS]
