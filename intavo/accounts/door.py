"""The door before allauth's own addresses: what nobody types is refused there, as allauth refuses, by its
field.
"""

import json
from collections.abc import Callable, Iterator
from typing import Any

from django.http import HttpRequest, HttpResponse, JsonResponse

from intavo.core.texts import keepable

_PREFIX = "/_allauth/"
_MOST_BYTES, _LONGEST, _MOST_NUMBER = 16 * 1024, 1000, 2**31 - 1


class AccountDoor:
    """Bodies are small JSON objects of texts, ticks and lists of ids."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """Refuse with 400, or go on."""
        if request.path.startswith(_PREFIX) and (wrong := _wrong(request)):
            field, message = wrong
            error = {"message": message, "code": "invalid", **({"param": field} if field else {})}
            return JsonResponse({"status": 400, "errors": [error]}, status=400)
        return self.get_response(request)


def _wrong(request: HttpRequest) -> tuple[str, str] | None:
    """The field and what is wrong with it, if anything is."""
    if len(request.body) > _MOST_BYTES:
        return "", "This is too long."
    if not request.body.strip():
        return None
    try:
        said = json.loads(request.body, parse_constant=_no_number)
    except (ValueError, RecursionError):
        return "", "This cannot be read."
    if not isinstance(said, dict):
        return "", "This cannot be read."
    return next(((field, words) for field, value in said.items() for words in _about(value)), None)


def _no_number(name: str) -> Any:
    raise ValueError(f"{name} is no number")


def _about(value: Any) -> Iterator[str]:
    """What is wrong with a value."""
    if isinstance(value, list):
        if not all(isinstance(one, str) or _counts(one) for one in value):
            yield "This is no list of ids."
    elif not isinstance(value, str | bool):
        yield "This is not a text."
    texts = [one for one in (value if isinstance(value, list) else [value]) if isinstance(one, str)]
    if any(len(one) > _LONGEST for one in texts):
        yield "This is too long."
    if not all(map(keepable, texts)):
        yield "There is a character in it that cannot be kept."


def _counts(value: Any) -> bool:
    return isinstance(value, int) and not isinstance(value, bool) and 0 <= value <= _MOST_NUMBER
