"""People as this application writes them out, read again: all that was known of somebody, as data."""

from dataclasses import replace
from typing import Annotated, TypeVar

from pydantic import AfterValidator, BaseModel, ConfigDict, Field, StringConstraints, ValidationError

from ..times import Moment
from .entries import MOST_NOTE, Agreement, Entry, Noted, entry_of


def _kept(text: str) -> str:
    """Without what no table holds."""
    return text.replace("\x00", "")


_Text = Annotated[str, AfterValidator(_kept)]
_Word = Annotated[_Text, StringConstraints(max_length=4000)]
_Note = Annotated[_Text, StringConstraints(max_length=MOST_NOTE)]


class _Read(BaseModel):
    model_config = ConfigDict(extra="ignore", frozen=True)


class _Tag(_Read):
    tag: _Word


class _Agreement(_Read):
    name: Annotated[_Text, StringConstraints(max_length=40)]
    wording: _Note = ""
    touchpoint: Annotated[_Text, StringConstraints(max_length=40)] = ""
    revision: int = Field(0, ge=0, le=2_000_000_000)
    page: _Word = ""
    given_at: Moment
    confirmed_at: Moment | None = None
    withdrawn_at: Moment | None = None


class _Noted(_Read):
    at: Moment
    by: Annotated[_Text, StringConstraints(max_length=300)] = ""
    text: _Note


class _Beside(_Read):
    """What a table has no readable column for."""

    added: Moment | None = None
    consents: tuple[_Agreement, ...] = Field((), max_length=200)


class _Whole(_Beside):
    name: _Word = ""
    emails: tuple[_Word, ...] = Field((), max_length=100)
    phones: tuple[_Word, ...] = Field((), max_length=100)
    tags: tuple[_Tag, ...] = Field((), max_length=200)
    notes: tuple[_Noted, ...] = Field((), max_length=5000)
    fields: tuple[tuple[_Word, _Note], ...] = Field((), max_length=500)


_Kind = TypeVar("_Kind", bound=_Beside)


def read_record(text: str, region: str) -> Entry:
    """Whoever stands in a line of JSON Lines. Raises ValueError, in words for the owner."""
    whole = _read(_Whole, text, "The line is no person as they are exported from here")
    entry = entry_of(
        whole.name,
        whole.emails,
        whole.phones,
        region,
        tags=[one.tag for one in whole.tags],
        own=whole.fields,
        notes=[Noted(one.at, one.by, one.text) for one in whole.notes],
    )
    return _with(entry, whole)


def read_beside(text: str) -> Entry:
    """What stands in a cell of data: an entry that has nothing but when they were added, and what they agreed
    to.

    Raises ValueError, in words for the owner.
    """
    return _with(Entry("", None, None), _read(_Beside, text, "The cell of data was changed"))


def _read(kind: type[_Kind], text: str, wrong: str) -> _Kind:
    try:
        return kind.model_validate_json(text)
    except ValidationError as error:
        where = ".".join(map(str, error.errors()[0]["loc"]))
        raise ValueError(f"{wrong} ({where})." if where else f"{wrong}.") from None


def _with(entry: Entry, beside: _Beside) -> Entry:
    agreements = tuple(Agreement(**one.model_dump()) for one in beside.consents)
    return replace(entry, added=beside.added, agreements=agreements)
