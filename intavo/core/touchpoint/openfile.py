"""A touchpoint as a file: the document as JSON, taken in again with every wrong place named."""

import json
from typing import Any

from pydantic import ValidationError

from ..refusals import wrongs
from .document import Document
from .parts import KINDS

ENDING = ".touchpoint.json"
MOST_BYTES = 1024 * 1024


class BadFile(ValueError):
    """The file cannot be taken in: pairs of a place in it and the reason."""

    def __init__(self, *errors: tuple[str, str]) -> None:
        super().__init__("; ".join(f"{place}: {reason}" for place, reason in errors))
        self.errors = list(errors)


def written(document: Document) -> str:
    """The document as the text of a file. Who is told and which hours apply are this business's own and stay
    here.
    """
    data = document.model_dump(mode="json")
    data["after"] |= {"tell": [], "hours": None}
    return json.dumps(data, ensure_ascii=False, indent=1) + "\n"


def read(text: str) -> Document:
    """The document in a file's text; raises BadFile."""
    if len(text.encode()) > MOST_BYTES:
        raise BadFile(("file", "It is larger than 1 MB, which no touchpoint is."))
    try:
        data = json.loads(text)
    except json.JSONDecodeError as error:
        raise BadFile((f"line {error.lineno}", f"This is not JSON: {error.msg}.")) from error
    if not isinstance(data, dict):
        raise BadFile(("file", "A touchpoint's file holds one object."))
    _same_version(data)
    try:
        document = Document.model_validate(data)
    except ValidationError as error:
        raise BadFile(*wrongs(error.errors(), place=_place)) from error
    after = document.after.model_copy(update={"tell": (), "hours": None})
    return document.model_copy(update={"after": after})


def _same_version(data: dict[str, Any]) -> None:
    version = data.get("version")
    if not isinstance(version, int) or version < 1:
        raise BadFile(("version", "The file does not say which version it is of."))
    if version > 1:
        raise BadFile(("version", f"The file is of version {version}; this Intavo knows version 1."))


def _place(loc: tuple[int | str, ...]) -> str:
    """A place as it stands in the file; the kind of a part is no step on the way to it."""
    kinds = set(KINDS)
    kept = [
        str(one)
        for at, one in enumerate(loc)
        if not (at > 0 and isinstance(loc[at - 1], int) and one in kinds)
    ]
    return ".".join(kept) or "file"
