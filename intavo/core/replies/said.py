"""What a visitor is told: the situation, the reply that is in effect, and the promise of an answer."""

import re
from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass
from datetime import datetime, timedelta
from enum import StrEnum
from functools import cache
from typing import Annotated, Literal
from zoneinfo import ZoneInfo

from pydantic import BaseModel, ConfigDict, Field
from typing_extensions import TypedDict

from ..hours import AnyHours, OpeningHours, add_open_time, is_open, next_closing, next_opening
from ..say import ENGLISH, Tongue, figures, moment_words, time_words, zone_words
from ..tongues import Phrase, base_of, in_tongue, say


class Told(TypedDict):
    """What visitors read."""

    title: str
    text: str


class Situation(StrEnum):
    """How the business is found at an instant."""

    OPEN = "open"
    NOBODY_FREE = "nobody-free"
    AFTER_HOURS = "after-hours"
    HOLIDAY = "holiday"


ReplySlot = Literal[
    "next_opening", "closing_time", "day_name", "promise", "back_at", "first_name", "open_now"
]
_WITHOUT: dict[ReplySlot, str] = {
    "next_opening": Phrase("soon"),
    "closing_time": Phrase("later"),
    "day_name": Phrase("the holiday"),
    "promise": Phrase("as soon as we can"),
    "back_at": Phrase("soon"),
    "first_name": "",
    "open_now": "",
}
_OPEN, _SHUT = Phrase("Open now, till {closes}"), Phrase("Closed just now")
_SHUT_TILL = Phrase("Closed just now, open again {opens}")
_ALWAYS = Phrase("Open now")


class ReplySlotRun(BaseModel):
    """A place in a text that is filled when it is said."""

    model_config = ConfigDict(frozen=True, extra="forbid")
    slot: ReplySlot


Runs = tuple[Annotated[str, Field(max_length=2000)] | ReplySlotRun, ...]


class Reply(BaseModel):
    """What is said in one situation; `hidden` says nothing at all."""

    model_config = ConfigDict(frozen=True, extra="forbid")
    button: str = Field("", max_length=60)
    title: Runs = ()
    text: Runs = ()
    tone: Literal["as-open", "quiet"] = "as-open"
    hidden: bool = False


@dataclass(frozen=True, slots=True)
class Cell:
    """Where in the table a reply stands; `channel` None is the everywhere column."""

    situation: Situation
    channel: str | None = None
    language: str = "en"


@dataclass(frozen=True, slots=True)
class Chosen:
    """The reply in effect and the cell it came from."""

    reply: Reply
    cell: Cell

    def button(self, now: Situation, column: str) -> str:
        """What a button of a column says: its own cell's words at any time, inherited ones while not open; ""
        keeps the words it has.
        """
        own = self.cell.channel == column
        return self.reply.button if own or now is not Situation.OPEN else ""


_ZERO = timedelta(0)


def situation(hours: AnyHours, at: datetime, somebody_free: bool) -> Situation:
    """The situation at an instant; `somebody_free` says whether any member is at the counter."""
    if is_open(hours, at):
        return Situation.OPEN if somebody_free else Situation.NOBODY_FREE
    return Situation.HOLIDAY if holiday_name(hours, at) is not None else Situation.AFTER_HOURS


def holiday_name(hours: AnyHours, at: datetime) -> str | None:
    """The label of the holiday exception on the local date of `at` (may be ""), or None."""
    members = (hours,) if isinstance(hours, OpeningHours) else hours.members
    for one in members:
        exception = one.exception_on(at.astimezone(one.zone).date())
        if exception is not None and exception.holiday:
            return exception.label
    return None


def choose(
    table: Mapping[Cell, Reply],
    now: Situation,
    language: str,
    business_language: str,
    channel: str | None = None,
    speaks: str = "",
) -> Chosen:
    """The channel's own reply, else everywhere's; each in the language that is spoken to them, else the
    business's.

    `language` is the visitor's, `speaks` the touchpoint's own, which goes before it ("": it says none). Where
    the table has nothing, the words that ship are used, in the first of these languages in which there are
    some.
    """
    wanted = (base_of(speaks), base_of(language), base_of(business_language))
    for column in dict.fromkeys((channel, None)):
        for tongue in dict.fromkeys(one for one in wanted if one):
            cell = Cell(now, column, tongue)
            if cell in table:
                return Chosen(table[cell], cell)
    own = next((one for one in wanted if Tongue(one).is_ours), "en")
    return Chosen(shipped(now, Tongue(own)), Cell(now, None, own))


def choose_whole(
    table: Mapping[Cell, Reply],
    now: Situation,
    language: str,
    business_language: str,
    channel: str | None,
    speaks: str,
    words_in: Callable[[str], Mapping[ReplySlot, str]],
) -> Chosen:
    """The same, of what can be said whole: a reply with a place that we have no words for in its language
    gives way to what is said in the business's. `words_in` says what fills the places in a language.
    """
    chosen = choose(table, now, language, business_language, channel, speaks)
    own = chosen.cell.language
    if Tongue(own).is_ours or own == base_of(business_language) or _says_all(chosen.reply, words_in(own)):
        return chosen
    return choose(table, now, business_language, business_language, channel)


def _says_all(reply: Reply, words: Mapping[ReplySlot, str]) -> bool:
    """Whether there are words for every place that cannot be left empty."""
    return all(
        isinstance(run, str) or run.slot in words or (not _WITHOUT[run.slot] and run.slot != "open_now")
        for run in (*reply.title, *reply.text)
    )


def first_promise(*promises: "Promise | None") -> "Promise":
    """The promise that applies: the touchpoint's own, else the purpose's, else the business's."""
    return next((one for one in promises if one is not None), Promise(None))


@dataclass(frozen=True, slots=True)
class Promise:
    """How soon an answer is promised, in open time; None promises no time."""

    amount: timedelta | None

    @classmethod
    def of_minutes(cls, minutes: int | None) -> "Promise":
        """A promise of so many open minutes; None promises no time."""
        return cls(None if minutes is None else timedelta(minutes=minutes))

    def due(self, hours: AnyHours, at: datetime) -> datetime | None:
        """When the answer is due, in the hours' zone; None without a promise or an opening in 400 days."""
        return None if self.amount is None else add_open_time(hours, at, self.amount)


def promise_words(
    due: datetime | None,
    at: datetime,
    zone: ZoneInfo,
    visitor_offset: int | None = None,
    tongue: Tongue = ENGLISH,
) -> str:
    """A due time as people say it: "today by 15:25"; without one, "as soon as we can"."""
    if due is None:
        return in_tongue(_WITHOUT["promise"], tongue)
    return moment_words(due, at, zone, "by", tongue, visitor_offset)


def slots(
    hours: AnyHours,
    at: datetime,
    zone: ZoneInfo,
    due: datetime | None,
    visitor_offset: int | None = None,
    back: datetime | None = None,
    tongue: Tongue = ENGLISH,
) -> dict[ReplySlot, str]:
    """The words for every slot that can be filled at `at`, in the tongue; `back` is when somebody is back at
    the counter.
    """
    if not tongue.is_ours:
        return _figures(hours, at, zone, due, visitor_offset, back, tongue)
    filled: dict[ReplySlot, str] = {"promise": promise_words(due, at, zone, visitor_offset, tongue)}
    if back is not None:
        filled["back_at"] = moment_words(back, at, zone, "at", tongue, visitor_offset)
    opening, closing = next_opening(hours, at), next_closing(hours, at)
    filled["open_now"] = open_words(hours, at, zone, visitor_offset, tongue)
    if opening is not None:
        filled["next_opening"] = moment_words(opening, at, zone, "at", tongue, visitor_offset)
    if closing is not None:
        filled["closing_time"] = time_words(closing.astimezone(zone).time(), tongue)
    name = holiday_name(hours, at)
    if name:
        filled["day_name"] = name
    return filled


def _figures(
    hours: AnyHours,
    at: datetime,
    zone: ZoneInfo,
    due: datetime | None,
    visitor_offset: int | None,
    back: datetime | None,
    tongue: Tongue,
) -> dict[ReplySlot, str]:
    """What fills a text of the owner's in a language that we have no words in: dates and times alone."""
    closing = next_closing(hours, at)
    moments: dict[ReplySlot, datetime | None] = {
        "promise": due, "back_at": back, "next_opening": next_opening(hours, at),
    }  # fmt: skip
    filled = {
        slot: figures(when, zone, tongue, visitor_offset)
        for slot, when in moments.items()
        if when is not None
    }
    if closing is not None:
        filled["closing_time"] = figures(closing, zone, tongue, day=False)
    name = holiday_name(hours, at)
    return filled | ({"day_name": name} if name else {})


def open_words(
    hours: AnyHours,
    at: datetime,
    zone: ZoneInfo,
    visitor_offset: int | None = None,
    tongue: Tongue = ENGLISH,
) -> str:
    """Whether it is open and until when, or when it opens again: true at any time, in any situation."""
    opening, closing = next_opening(hours, at), next_closing(hours, at)
    if not is_open(hours, at):
        if opening is None:
            return say(_SHUT, tongue)
        return say(_SHUT_TILL, tongue, opens=moment_words(opening, at, zone, "at", tongue, visitor_offset))
    if closing is None:
        return say(_ALWAYS, tongue)
    closes = closing.astimezone(zone)
    words = time_words(closes.time(), tongue)
    offset = closes.utcoffset()
    if visitor_offset is not None and offset is not None and offset != timedelta(minutes=visitor_offset):
        words = f"{words} ({zone_words(zone, tongue)})"
    return say(_OPEN, tongue, closes=words)


def fill(runs: Iterable[str | ReplySlotRun], words: Mapping[ReplySlot, str], tongue: Tongue = ENGLISH) -> str:
    """A text with its slots filled; a slot without words gets words that are always true, in the tongue."""

    def word(slot: ReplySlot) -> str:
        return words[slot] if slot in words else in_tongue(_WITHOUT[slot], tongue)

    return "".join(run if isinstance(run, str) else word(run.slot) for run in runs).strip()


def next_moment_of(wanted: Situation, hours: AnyHours, at: datetime) -> datetime:
    """When a situation holds next, counted from `at` (which it is, if it holds then or never comes).

    For showing the owner what will be said; who is at the counter is taken as it has to be.
    """
    if wanted in {Situation.OPEN, Situation.NOBODY_FREE}:
        return next_opening(hours, at) or at
    if wanted is Situation.AFTER_HOURS:
        return (next_closing(hours, at) or at) if is_open(hours, at) else at
    days = (at + timedelta(days=ahead) for ahead in range(400))
    return next((day for day in days if holiday_name(hours, day) is not None and not is_open(hours, day)), at)


_SHIPPED: dict[Situation, tuple[str, str]] = {
    Situation.OPEN: (Phrase("Thank you"), Phrase("We answer {promise}.")),
    Situation.NOBODY_FREE: (
        Phrase("Thank you"), Phrase("We are away from the counter just now. We answer {promise}."),
    ),
    Situation.AFTER_HOURS: (
        Phrase("We are closed just now"), Phrase("We open again {next_opening} and answer {promise}."),
    ),
    Situation.HOLIDAY: (
        Phrase("Closed for {day_name}"), Phrase("We are back {next_opening} and answer {promise}."),
    ),
}  # fmt: skip
_PLACE = re.compile(r"\{(\w+)\}")


def runs_of(text: str) -> Runs:
    """A text of ours with its slots as runs."""
    pieces = _PLACE.split(text)
    return tuple(ReplySlotRun(slot=one) if odd % 2 else one for odd, one in enumerate(pieces) if one)


@cache
def shipped(now: Situation, tongue: Tongue = ENGLISH) -> Reply:
    """What is told in a situation where the owner has written nothing, in a tongue."""
    title, text = (runs_of(say(one, tongue)) for one in _SHIPPED[now])
    quiet = now in {Situation.AFTER_HOURS, Situation.HOLIDAY}
    return Reply(title=title, text=text, tone="quiet" if quiet else "as-open")


SHIPPED: dict[Situation, Reply] = {now: shipped(now) for now in Situation}
