"""Questions & answers that match what a visitor is typing."""

import re
from collections.abc import Sequence

MOST = 3
_LEAST_LETTERS, _ENOUGH, _SEVERAL = 3, 3, 3


def offered(questions: Sequence[tuple[int, str]], typed: str) -> tuple[int, ...]:
    """The ids of up to three (id, question) that are much like what is typed, the best first.

    Words of three letters and more count, by their beginnings and in any case: those that stand in some of
    the questions, and not in more than half of several. A question has at least a third of them.
    """
    known = [_words(question) for _, question in questions]
    hits = [[_has(one, word) for one in known] for word in dict.fromkeys(_words(typed))]
    telling = [one for one in hits if any(one) and (len(known) < _SEVERAL or 2 * sum(one) <= len(known))]
    found = [
        (-count, len(known[at]), at)
        for at in range(len(known))
        if (count := sum(one[at] for one in telling)) and _ENOUGH * count >= len(telling)
    ]
    return tuple(questions[at][0] for _, _, at in sorted(found)[:MOST])


def _has(words: list[str], word: str) -> bool:
    return any(one.startswith(word) or word.startswith(one) for one in words)


def _words(text: str) -> list[str]:
    return [word for word in re.findall(r"\w+", text.casefold()) if len(word) >= _LEAST_LETTERS]
