"""The copy of a whole business: its manifest, and what becomes of ids that stand inside of documents."""

import re
from collections.abc import Mapping
from typing import Annotated, Any, Literal

from pydantic import AwareDatetime, BaseModel, ConfigDict, Field

FORMAT, VERSION = "intavo-business", 1
_NAMED = re.compile(r"\b(?:tp|ch|as)_[0-9a-f]{8,32}\b")
_File = Annotated[str, Field(pattern=r"^[A-Za-z0-9._/-]{1,200}$")]


class Table(BaseModel):
    """One table: its name, the file with a row a line, the file of its JSON Schema, and how many rows there
    are.
    """

    model_config = ConfigDict(frozen=True)
    name: Annotated[str, Field(pattern=r"^[a-z]+\.[A-Za-z]+$")]
    file: _File
    schema_file: _File
    rows: int = Field(ge=0)


class Manifest(BaseModel):
    """What a copy holds; `files` counts what is not a table: pictures and what was sent."""

    model_config = ConfigDict(frozen=True)
    format: Literal["intavo-business"]
    version: Literal[1]
    made_at: AwareDatetime
    business: Annotated[str, Field(min_length=1, max_length=120)]
    tables: tuple[Table, ...]
    files: int = Field(ge=0)


def renamed(text: str, names: Mapping[str, str]) -> str:
    """A text with the public ids in it put in place of those they had."""
    return _NAMED.sub(lambda found: names.get(found[0], found[0]), text)


def remapped(value: Any, ids: Mapping[str, Mapping[int, int]], names: Mapping[str, str]) -> Any:
    """A document with the ids that its rows have now; what it names that is not there is left out.

    `ids` says by the name of a key, at any depth, which ids became which: a number, or a list of numbers,
    under such a key is an id. `names` are public ids, which may stand anywhere in a text.
    """
    if isinstance(value, dict):
        return {
            key: _keyed(one, ids[key], ids, names) if key in ids else remapped(one, ids, names)
            for key, one in value.items()
        }
    if isinstance(value, list):
        return [remapped(one, ids, names) for one in value]
    return renamed(value, names) if isinstance(value, str) else value


def _keyed(
    value: Any, now: Mapping[int, int], ids: Mapping[str, Mapping[int, int]], names: Mapping[str, str]
) -> Any:
    if _is_id(value):
        return now.get(value) if value else value
    if isinstance(value, list) and all(_is_id(one) for one in value):
        return [now[one] for one in value if one in now]
    return remapped(value, ids, names)


def _is_id(value: Any) -> bool:
    return isinstance(value, int) and not isinstance(value, bool)
