"""What is wrong in something that came in: its place and words for a person. The one reader of Pydantic's
errors.
"""

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
    "too_short": "These are too few: at least {min_length}.",
    "greater_than": "More than {gt}.",
    "less_than": "Less than {lt}.",
    "finite_number": "Please write a number.",
    "int_type": "Please write a whole number.",
    "float_type": "Please write a number.",
    "decimal_parsing": "Please write a number.",
    "string_type": "Please write words here.",
    "bool_type": "This is yes or no.",
    "bool_parsing": "This is yes or no.",
    "literal_error": "This is one of {expected}.",
    "enum": "This is one of {expected}.",
    "union_tag_invalid": "This is one of {expected_tags}.",
    "union_tag_not_found": "Something is missing here.",
    "list_type": "This is a list.",
    "tuple_type": "This is a list.",
    "dict_type": "This is an object with fields.",
    "model_type": "This is an object with fields.",
    "model_attributes_type": "This is an object with fields.",
    "extra_forbidden": "There is no field of this name.",
    "string_pattern_mismatch": "This cannot be written like that.",
    "date_parsing": "Please write a day like 2026-11-24.",
    "date_type": "Please write a day like 2026-11-24.",
    "datetime_parsing": "Please choose a moment.",
    "datetime_type": "Please choose a moment.",
    "time_parsing": "Please write a time like 14:05.",
    "time_type": "Please write a time like 14:05.",
    "timezone_aware": "Please say in which zone this moment is.",
    "int_parsing_size": "This number is too large.",
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
    """Each of Pydantic's errors as its place and its words;
    `whole` is the place of what is wrong altogether.
    """
    found = ((".".join(filter(None, (prefix, place(tuple(one["loc"]))))), say_error(one)) for one in errors)
    return [(where or whole, words) for where, words in found]


def say_error(error: Error) -> str:
    """One error in words for whoever edits or sends it."""
    known = _WORDS.get(error["type"])
    if known is not None:
        return known.format(**error.get("ctx", {}))
    words = str(error["msg"]).removeprefix("Value error, ")
    return words[:1].upper() + words[1:]
