"""Which question that was answered before somebody asks again, by the words that both have."""

import re
import unicodedata
from collections.abc import Sequence

# Of a word its beginning counts, so that "hire", "hires" and "hired" are one.
_LETTERS, _LEAST, _ALIKE = 5, 2, 0.6
# Words that stand in every question; the shortest are left out anyway.
_EVERYWHERE = frozenset(
    {
        "about",
        "also",
        "been",
        "come",
        "could",
        "does",
        "dont",
        "from",
        "have",
        "here",
        "into",
        "just",
        "know",
        "like",
        "many",
        "much",
        "need",
        "only",
        "other",
        "please",
        "said",
        "same",
        "some",
        "tell",
        "than",
        "that",
        "their",
        "them",
        "then",
        "there",
        "these",
        "they",
        "this",
        "those",
        "very",
        "want",
        "well",
        "were",
        "what",
        "when",
        "where",
        "which",
        "while",
        "will",
        "with",
        "would",
        "your",
    }
)


def words_of(text: str) -> frozenset[str]:
    """What a text is about: the beginnings of its words, without accents and case."""
    plain = "".join(
        one for one in unicodedata.normalize("NFKD", text.lower()) if not unicodedata.combining(one)
    )
    words = (one for one in re.findall(r"[^\W_]+", plain) if len(one) > 3 and one not in _EVERYWHERE)
    return frozenset(one[:_LETTERS] for one in words)


def likeliest(asked: str, known: Sequence[str]) -> int | None:
    """The place of the known question that a text most likely asks; None where none is like it.

    Two words at least, and three of five of the known one's, have to stand in the text. Of two that are alike
    the longer one fits better, then the first.
    """
    theirs = words_of(asked)
    best, place = (0.0, 0), None
    for at, one in enumerate(known):
        ours = words_of(one)
        both = len(ours & theirs)
        if (
            both >= min(_LEAST, len(ours))
            and ours
            and both / len(ours) >= _ALIKE
            and (len(ours) > 1 or len(theirs) < 4)
        ):
            score = (both / len(ours), both)
            if score > best:
                best, place = score, at
    return place
