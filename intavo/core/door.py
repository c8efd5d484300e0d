"""The one door for what comes in: JSON whose texts can be kept, are in one form, and whose numbers are bounded."""

import json
import math
import re
import unicodedata
from collections.abc import Collection
from typing import Any

from .texts import keepable, mended

# Beyond it a number is not the same any more once a browser has read it.
MOST_NUMBER = 2**53
_DEEPEST = 60
UNKEPT = "There is a character in it that cannot be kept."


class NotLetIn(ValueError):
    """What came in cannot be taken; pairs of a place ("" is the whole) and words."""

    def __init__(self, *errors: tuple[str, str]) -> None:
        super().__init__("; ".join(f"{place}: {words}" for place, words in errors))
        self.errors = list(errors)


def read_json(body: bytes, *, mending: Collection[str] = ()) -> Any:
    """The JSON that a body holds, let in; NotLetIn where it is none, names everything that cannot be taken.

    Under the fields in `mending` (what a page says of itself, which no visitor can help) a character that cannot be
    kept is replaced instead of refused.
    """
    try:
        text = (body or b"null").decode(errors="surrogateescape")
        said = json.loads(text, parse_constant=_no_number)
    except (ValueError, RecursionError):
        raise NotLetIn(("", "This cannot be read.")) from None
    return said if _plain(text) else let_in(said, mending=mending)


# An escape that may stand for anything, and a number that may be beyond bounds.
_ODD = re.compile(r"\\u|\d{16}|(?:^|[:\[,\s])-?\d[\d.]*[eE]|[\ud800-\udfff]")


def _plain(text: str) -> bool:
    """Whether a JSON text has nothing that can be refused or mended, told by itself: most need not be gone through."""
    if text.count("[") + text.count("{") > _DEEPEST or _ODD.search(text):
        return False
    return text.isascii() or unicodedata.is_normalized("NFC", text)


def _no_number(name: str) -> Any:
    raise ValueError(f"{name} is no number")


def let_in(value: Any, *, mending: Collection[str] = ()) -> Any:
    """A value with its texts in one form (NFC); NotLetIn names the place of each text or number that cannot be kept."""
    errors: list[tuple[str, str]] = []
    taken = _taken(value, (), errors, mending, False)
    if errors:
        raise NotLetIn(*errors)
    return taken


def _taken(
    value: Any, place: tuple[str, ...], errors: list[tuple[str, str]], mending: Collection[str], mend: bool
) -> Any:
    if isinstance(value, str):
        if not keepable(value):
            if not mend:
                errors.append((".".join(place), UNKEPT))
            value = mended(value)
        return value if value.isascii() else unicodedata.normalize("NFC", value)
    if value is None or isinstance(value, bool):
        return value
    if isinstance(value, int | float):
        if not math.isfinite(value) or abs(value) > MOST_NUMBER:
            errors.append((".".join(place), "This number is beyond all bounds."))
        return value
    if len(place) >= _DEEPEST:
        errors.append((".".join(place[:3]), "This is nested too deep."))
        return None
    if isinstance(value, dict):
        return {
            _taken(key, place, errors, mending, mend): _taken(
                one, (*place, key if keepable(key) else "?"), errors, mending, mend or key in mending
            )
            for key, one in value.items()
        }
    return [_taken(one, (*place, str(at)), errors, mending, mend) for at, one in enumerate(value)]
