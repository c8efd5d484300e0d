"""What is wrong in something that came in: its place and words for a person. The one reader of Pydantic's errors."""

import re
from collections.abc import Callable, Iterable, Mapping
from typing import Any

_WORDS = {
    "string_too_long": "This is too long: at most {max_length} characters.",
    "string_too_short": "Please write something here.",
    "greater_than_equal": "At least {ge}.",
    "less_than_equal": "At most {le}.",
    "int_parsing": "Please write a whole number.",
    "int_from_float": "Please write a whole number.",
    "float_parsing": "Please write a number.",
    "too_long": "These are too many: at most {max_length}.",
    "missing": "Something is missing here.",
    "date_from_datetime_parsing": "Please write a day like 2026-11-24.",
    "datetime_from_date_parsing": "Please choose a moment.",
    "json_invalid": "This cannot be read.",
}

Error = Mapping[str, Any]
Loc = tuple[str | int, ...]


# Where a field may be of several types, Pydantic adds the type it tried: no part of what was sent.
_TRIED = re.compile(r"constrained-\w+|[a-z-]+\[.*\]|str|int|float|bool")


def dotted(loc: Loc) -> str:
    """A place as a path, like "week.3.from", without the types that were tried there."""
    return ".".join(str(part) for part in loc if isinstance(part, int) or not _TRIED.fullmatch(part))


def wrongs(
    errors: Iterable[Any], prefix: str = "", whole: str = "document", place: Callable[[Loc], str] = dotted
) -> list[tuple[str, str]]:
    """Each of Pydantic's errors as its place and its words; `whole` is the place of what is wrong altogether."""
    found = ((".".join(filter(None, (prefix, place(tuple(one["loc"]))))), say_error(one)) for one in errors)
    return [(where or whole, words) for where, words in found]


def say_error(error: Error) -> str:
    """One error in words for whoever edits or sends it."""
    known = _WORDS.get(error["type"])
    if known is not None:
        return known.format(**error.get("ctx", {}))
    words = str(error["msg"]).removeprefix("Value error, ")
    return words[:1].upper() + words[1:]
