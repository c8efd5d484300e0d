"""Where a page of a list ends: the time and the id of its last row, as one text in an address."""

import re
from collections.abc import Sequence
from datetime import UTC, datetime

ROW_ID = re.compile(r"[0-9]{1,18}")
# The time (aware, or None where the row has none) and the id.
Key = tuple[datetime | None, int]
_LAST = datetime.max.replace(tzinfo=UTC)


def key_text(key: Key) -> str:
    """A key as `read_key` reads it."""
    return f"{key[0].isoformat() if key[0] else ''}|{key[1]}"


def page_end(
    keys: Sequence[Key], page: int, most: int, through: Key | None = None, last_first: bool = False
) -> tuple[int, Key | None, bool]:
    """How many of the rows that were read belong to a page, the key that it ends with (none where it is
    empty), and whether more come after it.

    `page` is how many rows a page has, `most` how many at most. One that is read anew goes `through` the key
    that it ended with when it was shown, whatever has come in before that: no row leaves a page that somebody
    looks at because another came. `last_first` says that the keys go down; those without a time come last in
    any case.
    """

    def place(key: Key) -> tuple[bool, float, int]:
        way = -1 if last_first else 1
        return key[0] is None, way * (key[0] or _LAST).timestamp(), way * key[1]

    within = 0 if through is None else sum(place(key) <= place(through) for key in keys)
    size = min(max(page, within), most)
    shown = keys[:size]
    end = through if size == within else shown[-1] if shown else None
    return len(shown), end, len(keys) > len(shown)


def read_key(text: str) -> Key:
    """The key that a text says; ValueError for what is no such text."""
    time, _, last = text.partition("|")
    at = datetime.fromisoformat(time) if time else None
    if not ROW_ID.fullmatch(last) or (at is not None and at.tzinfo is None):
        raise ValueError("This is not where a page ends.")
    return at, int(last)
