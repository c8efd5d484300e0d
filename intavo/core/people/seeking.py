"""Who is sought: a filter of people as a value, as a sentence, and as it is read in Python.

`intavo.people.queries` compiles the same filter to one statement; a property test holds the two against each
other.
"""

import re
import unicodedata
from dataclasses import dataclass
from datetime import date, datetime, timedelta
from typing import Annotated, Literal
from zoneinfo import ZoneInfo

from pydantic import BaseModel, ConfigDict, Field

from ..texts import Kept

# What they did, by the kind of its entry on the timeline, in the words of the sentence.
DEEDS = {
    "anything": "did anything", "signed up": "signed up", "asked": "asked", "message": "wrote a message",
    "asked for a call": "asked for a call", "gave a score": "gave a score", "replied": "answered a question",
    "wrote by mail": "wrote by mail", "imported": "were brought in",
}  # fmt: skip
Deed = Literal[
    "anything",
    "signed up",
    "asked",
    "message",
    "asked for a call",
    "gave a score",
    "replied",
    "wrote by mail",
    "imported",
]
THEIRS = tuple(one for one in DEEDS if one != "anything")
_Days = Annotated[int, Field(ge=1, le=36_500)]
_Name = Annotated[Kept, Field(min_length=1, max_length=200)]


class _Condition(BaseModel):
    model_config = ConfigDict(frozen=True, extra="forbid")
    # The other way round: those of whom it does not hold.
    no: bool = False


class Did(_Condition):
    """They did it at least `least` times; through a touchpoint (its name then), on a page (its path), of
    late.

    `days` counts back from now; `since` is a local date.
    """

    what: Literal["did"] = "did"
    deed: Deed = "anything"
    touchpoint: _Name | None = None
    page: _Name | None = None
    days: _Days | None = None
    since: date | None = None
    least: int = Field(1, ge=1, le=1_000)


class Heard(_Condition):
    """Something was heard of them within so many days."""

    what: Literal["heard"] = "heard"
    days: _Days


class Added(_Condition):
    """Their card is from these local dates, both included."""

    what: Literal["added"] = "added"
    since: date | None = None
    until: date | None = None


class HasTag(_Condition):
    """They have the tag."""

    what: Literal["tagged"] = "tagged"
    tag: Annotated[Kept, Field(min_length=1, max_length=60)]


class Agreed(_Condition):
    """They may be written to (`holds`), or withdrew what they had agreed to; by its name, or (None) any."""

    what: Literal["agreed"] = "agreed"
    name: _Name | None = None
    withdrawn: bool = False


class Reached(_Condition):
    """There is an address of this kind."""

    what: Literal["reached"] = "reached"
    kind: Literal["email", "phone"]


class Worded(_Condition):
    """The text stands in their name (without accents and case) or an address."""

    what: Literal["worded"] = "worded"
    text: Annotated[Kept, Field(min_length=1, max_length=100)]


Condition = Annotated[Did | Heard | Added | HasTag | Agreed | Reached | Worded, Field(discriminator="what")]


class Filter(BaseModel):
    """People for whom all conditions hold, or (`any`) at least one; without conditions everybody."""

    model_config = ConfigDict(frozen=True, extra="forbid")
    conditions: tuple[Condition, ...] = Field((), max_length=20)
    any: bool = False


@dataclass(frozen=True, slots=True)
class SeenEvent:
    """An entry of a timeline: `page` as it was sent, `touchpoint` by its name then."""

    kind: str
    at: datetime
    touchpoint: str = ""
    page: str = ""


@dataclass(frozen=True, slots=True)
class Seen:
    """A person as a filter sees them; addresses by kind and key, consents by name and whether withdrawn."""

    name: str
    added_at: datetime
    addresses: frozenset[tuple[str, str]] = frozenset()
    tags: frozenset[str] = frozenset()
    consents: tuple[tuple[str, bool], ...] = ()
    events: tuple[SeenEvent, ...] = ()


def midnight(day: date, zone: ZoneInfo) -> datetime:
    """The beginning of a local date, aware."""
    return datetime.combine(day, datetime.min.time(), zone)


def plain(text: str) -> str:
    """Without accents and case, as the search reads it."""
    bare = "".join(one for one in unicodedata.normalize("NFKD", text) if not unicodedata.combining(one))
    return bare.lower()


def path_of(page: str) -> str:
    """The path of a page as it was sent, without host, query and closing slash; "/" for the first page.

    Of a longer one its first 600 characters.
    """
    return f"/{_HOST.sub('', _QUERY.sub('', page)).removeprefix('/').rstrip('/')}"[:600]


_QUERY, _HOST = re.compile(r"[?#].*$", re.DOTALL), re.compile(r"^[a-zA-Z][a-zA-Z0-9+.-]*://[^/]*")


def from_when(condition: Did, at: datetime, zone: ZoneInfo) -> datetime | None:
    """From when on what they did counts; None: at any time."""
    limits = [midnight(condition.since, zone)] if condition.since else []
    limits += [at - timedelta(days=condition.days)] if condition.days else []
    return max(limits, default=None)


def holds(wanted: Filter, seen: Seen, at: datetime, zone: ZoneInfo) -> bool:
    """Whether a person is among those sought, at an instant, with dates in the business's zone."""
    found = [_holds(one, seen, at, zone) is not one.no for one in wanted.conditions]
    return not found or (any(found) if wanted.any else all(found))


def _holds(condition: Condition, seen: Seen, at: datetime, zone: ZoneInfo) -> bool:
    if isinstance(condition, Did):
        return sum(_meant(condition, event, at, zone) for event in seen.events) >= condition.least
    if isinstance(condition, Heard):
        return any(
            event.kind in THEIRS and event.at >= at - timedelta(days=condition.days) for event in seen.events
        )
    if isinstance(condition, Added):
        begins = condition.since is None or seen.added_at >= midnight(condition.since, zone)
        return begins and (
            condition.until is None or seen.added_at < midnight(condition.until + timedelta(days=1), zone)
        )
    if isinstance(condition, HasTag):
        return condition.tag in seen.tags
    if isinstance(condition, Agreed):
        return any(
            condition.name in {None, name} and gone is condition.withdrawn for name, gone in seen.consents
        )
    if isinstance(condition, Reached):
        return any(kind == condition.kind for kind, _ in seen.addresses)
    text = plain(condition.text)
    return text in plain(seen.name) or any(condition.text.casefold() in key for _, key in seen.addresses)


def _meant(deed: Did, event: SeenEvent, at: datetime, zone: ZoneInfo) -> bool:
    begins = from_when(deed, at, zone)
    return (
        (event.kind in THEIRS if deed.deed == "anything" else event.kind == deed.deed)
        and (deed.touchpoint is None or event.touchpoint == deed.touchpoint)
        and (deed.page is None or (event.page != "" and path_of(event.page) == path_of(deed.page)))
        and (begins is None or event.at >= begins)
    )


def filter_sentence(wanted: Filter) -> str:
    """The filter in words: "people who signed up through “Tide table” in the last 30 days and are tagged
    “school”".
    """
    if not wanted.conditions:
        return "everybody"
    return "people who " + (" or " if wanted.any else " and ").join(_said(one) for one in wanted.conditions)


def _said(condition: Condition) -> str:
    not_ = "not " if condition.no else ""
    if isinstance(condition, Did):
        return _did(condition)
    if isinstance(condition, Heard):
        return f"were {not_}heard of in the last {condition.days} days"
    if isinstance(condition, Added):
        ends = [f"from {condition.since}"] if condition.since else []
        ends += [f"until {condition.until}"] if condition.until else []
        return f"were {not_}added " + (" ".join(ends) or "at any time")
    if isinstance(condition, HasTag):
        return f"are {not_}tagged “{condition.tag}”"
    if isinstance(condition, Agreed):
        what = f" to “{condition.name}”" if condition.name else ""
        agreed = f"withdrew what they agreed{what}" if condition.withdrawn else f"agreed{what}"
        return f"never {agreed}" if condition.no else agreed
    if isinstance(condition, Reached):
        return (
            f"{'left no' if condition.no else 'left an'} email"
            if condition.kind == "email"
            else (f"{'left no' if condition.no else 'left a'} phone number")
        )
    return f"have {'no ' if condition.no else ''}“{condition.text}” in their name or address"


def _did(deed: Did) -> str:
    said = f"never {DEEDS[deed.deed]}" if deed.no else DEEDS[deed.deed]
    if deed.touchpoint:
        said += f" through “{deed.touchpoint}”"
    if deed.page:
        said += f" on {deed.page}"
    if deed.least > 1:
        said += f" at least {deed.least} times"
    if deed.days:
        said += f" in the last {deed.days} days"
    return f"{said} since {deed.since}" if deed.since else said
