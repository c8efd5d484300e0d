"""The one door for what comes in: JSON whose texts can be kept, are in one form, and whose numbers are
bounded.
"""

import json
import unicodedata
from collections.abc import Collection
from typing import Any

from .texts import keepable, mended

# Beyond it a number is not the same any more once a browser has read it.
MOST_NUMBER = 2**53
_DEEPEST = 60
_SHORT = 15
_MOST_DIGITS = 9
UNKEPT = "There is a character in it that cannot be kept."


class NotLetIn(ValueError):
    """What came in cannot be taken; pairs of a place ("" is the whole) and words."""

    def __init__(self, *errors: tuple[str, str]) -> None:
        super().__init__("; ".join(f"{place}: {words}" for place, words in errors))
        self.errors = list(errors)

    def named(self, whole: str = "body") -> list[tuple[str, str]]:
        """The errors, with a name for what is wrong altogether."""
        return [(place or whole, words) for place, words in self.errors]


def read_json(body: bytes, *, mending: Collection[str] = ()) -> Any:
    """The JSON that a body holds, let in; NotLetIn where it is none, names everything that cannot be taken.

    Under the fields in `mending` (what a page says of itself, which no visitor can help) a character that
    cannot be kept is replaced instead of refused.
    """
    said = _plain(body)
    if said is not _NOT_PLAIN:
        return said
    try:
        said = json.loads(body or b"null", parse_constant=_no_number)
    except (ValueError, RecursionError):
        raise NotLetIn(("", "This cannot be read.")) from None
    return let_in(said, mending=mending)


_NOT_PLAIN = object()


def _plain(body: bytes) -> Any:
    """The JSON of a body that has nothing to refuse or mend, as most have not:
    seen without going through it.
    """
    try:
        text = body.decode()
        if "\\u" in text or text.count("[") + text.count("{") > _DEEPEST:
            return _NOT_PLAIN
        if not (text.isascii() or unicodedata.is_normalized("NFC", text)):
            return _NOT_PLAIN
        return json.loads(text, parse_int=_short, parse_float=_finite, parse_constant=_no_number)
    except ValueError:
        return _NOT_PLAIN


def whole_number(text: str) -> int | None:
    """The number that a text is, of at most nine digits from 0 to 9; None where it is none."""
    return int(text) if text.isascii() and text.isdigit() and len(text) <= _MOST_DIGITS else None


def _short(digits: str) -> int:
    if len(digits) > _SHORT:
        raise ValueError(digits)
    return int(digits)


def _finite(digits: str) -> float:
    number = float(digits)
    if not abs(number) <= MOST_NUMBER:
        raise ValueError(digits)
    return number


def _no_number(name: str) -> Any:
    raise ValueError(f"{name} is no number")


def let_in(value: Any, *, mending: Collection[str] = ()) -> Any:
    """A value with its texts in one form (NFC); NotLetIn names the place of each text or number that cannot
    be kept.
    """
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
        # No number is larger than "not a number"; one of some hundred digits has no like with a point.
        if not abs(value) <= MOST_NUMBER:
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
