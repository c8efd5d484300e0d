"""Keeping what holds of an edited document: what does not is named at its place, and stays as it was."""

import copy
from typing import Any

from pydantic import ValidationError

from ..refusals import say_error
from .document import Document

Path = tuple[str | int, ...]
_MOST_ROUNDS = 60


def kept_as_far(document: dict[str, Any], before: Document) -> tuple[Document, list[tuple[str, str]]]:
    """The edited document with everything that holds; what does not stays as it was before.

    Also gives pairs of the place (a part's id with the value, like "p3.address", or "leaving.cross") and
    words for the owner. Raises ValidationError where nothing of it can be kept.
    """
    data, old = copy.deepcopy(document), before.model_dump(mode="json")
    errors: dict[str, str] = {}
    tries: dict[Path, int] = {}
    for _ in range(_MOST_ROUNDS):
        try:
            return Document.model_validate(data), list(errors.items())
        except ValidationError as error:
            for one in error.errors():
                path = _path(data, one["loc"]) or _placed(data, one.get("ctx", {}).get("place", ""))
                place = _called(data, path)
                if not any(known == place or known.startswith(f"{place}.") for known in errors):
                    errors[place] = say_error(one)
                level = tries[path] = tries.get(path, 0) + 1
                _give_back(data, old, path[: max(0, len(path) - level + 1)])
                break
    return before, list(errors.items())


def _path(data: Any, loc: tuple[str | int, ...]) -> Path:
    """The place of an error in the data itself: without the names of kinds that Pydantic puts between."""
    found: list[str | int] = []
    here = data
    for key in loc:
        if isinstance(here, dict) and key == here.get("kind") and not (found and isinstance(found[-1], str)):
            continue
        inside = isinstance(here, dict) and key in here
        if inside or (isinstance(here, list) and isinstance(key, int) and key < len(here)):
            here = here[key]
            found.append(key)
        elif isinstance(here, dict) and isinstance(key, str):
            found.append(key)
            break
    return tuple(found)


def _placed(data: dict[str, Any], place: str) -> Path:
    """The place that a rule over the whole names: a part's id, or one of the wholes."""
    for at, step in enumerate(_rows(data, "steps")):
        for number, part in enumerate(_rows(step, "parts")):
            if isinstance(part, dict) and part.get("id") == place:
                return ("steps", at, "parts", number)
    return (place,) if place in data else ()


def _rows(holder: Any, name: str) -> list[Any]:
    rows = holder.get(name) if isinstance(holder, dict) else None
    return rows if isinstance(rows, list) else []


def _called(data: dict[str, Any], path: Path) -> str:
    """The place as the editor knows it: a part by its id."""
    if len(path) >= 4 and path[0] == "steps" and path[2] == "parts":
        part = data["steps"][path[1]]["parts"][path[3]]
        if isinstance(part, dict):
            return ".".join(str(one) for one in (part.get("id", ""), *path[4:]))
    return ".".join(str(one) for one in path) or "document"


def _give_back(data: dict[str, Any], old: dict[str, Any], path: Path) -> None:
    """Puts what was there before at a place; what is new there falls back to the usual, or goes."""
    if not path:
        data.clear()
        data.update(copy.deepcopy(old))
        return
    here: Any = data
    was: Any = old
    for key in path[:-1]:
        was = _same(was, here, key)
        here = here[key]
    last = path[-1]
    known = _same(was, here, last)
    if known is not None or (isinstance(was, dict) and last in was):
        here[last] = copy.deepcopy(known)
    elif isinstance(here, list) and isinstance(last, int):
        del here[last]
    else:
        here.pop(last, None)


def _same(was: Any, here: Any, key: str | int) -> Any:
    """What stood there before: in lists by the id of the thing, elsewhere by its name."""
    if isinstance(was, dict):
        return was.get(key)
    if not isinstance(was, list) or not isinstance(key, int):
        return None
    now = here[key] if isinstance(here, list) and key < len(here) else None
    id_ = now.get("id") if isinstance(now, dict) else None
    if id_ is not None:
        return next((one for one in was if isinstance(one, dict) and one.get("id") == id_), None)
    return was[key] if key < len(was) else None
