"""What somebody would be told at a moment, and the reasons, each with the place that it came from."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from datetime import UTC, date, datetime, timedelta

from ..hours import WEEKDAYS, AnyHours, OpeningHours, Stretch, open_time
from ..hours.wall import end_instant, start_instant
from ..say import ENGLISH, Tongue, length_words, short_date, stamp, zone_words
from .said import (
    Cell,
    Chosen,
    Promise,
    Reply,
    ReplySlot,
    Situation,
    choose_whole,
    fill,
    holiday_name,
    situation,
    slots,
)

_ONE_DAY = timedelta(days=1)
SITUATIONS = {
    Situation.OPEN: "open", Situation.NOBODY_FREE: "open, nobody free", Situation.AFTER_HOURS: "after hours",
    Situation.HOLIDAY: "holiday",
}  # fmt: skip


@dataclass(frozen=True, slots=True)
class Reason:
    """A sentence for the owner, and what it is about.

    `about` is a place: "hours.0.week.3" or "hours.0.exceptions.1" (the set's number where several are
    followed, and the stretch or exception in its document), "hours", "counter", "promise", or
    "replies.<situation>.<channel or everywhere>.<language>".
    """

    words: str
    about: str


@dataclass(frozen=True, slots=True)
class Explained:
    """What is said, the promised time (in the hours' zone) if any, and why."""

    situation: Situation
    reply: Reply
    words: dict[ReplySlot, str]
    due: datetime | None
    reasons: tuple[Reason, ...]
    tongue: Tongue = ENGLISH

    def __iter__(self) -> Iterator[Reason]:
        """The reasons, one after the other."""
        return iter(self.reasons)

    @property
    def title(self) -> str:
        """The title as it would read."""
        return fill(self.reply.title, self.words, self.tongue)

    @property
    def text(self) -> str:
        """The text as it would read."""
        return fill(self.reply.text, self.words, self.tongue)


def explain(
    hours: AnyHours,
    at: datetime,
    *,
    somebody_free: bool = True,
    table: Mapping[Cell, Reply] | None = None,
    language: str = "en",
    business_language: str = "en",
    promise: Promise | None = None,
    channel: str | None = None,
    visitor_offset: int | None = None,
    back: datetime | None = None,
    speaks: str = "",
    region: str = "GB",
) -> Explained:
    """What somebody would be told at an aware instant, and a sentence for each reason.

    `visitor_offset` is their offset from UTC in minutes, east positive; `back` is when somebody is back at
    the counter; `speaks` is the touchpoint's own language, `region` the business's. A naive instant is a
    ValueError.
    """
    if at.tzinfo is None:
        raise ValueError("an instant has a zone")
    now = situation(hours, at, somebody_free)
    promised = promise or Promise(None)
    due = promised.due(hours, at)

    def words_in(language: str) -> dict[ReplySlot, str]:
        return slots(hours, at, hours.zone, due, visitor_offset, back, Tongue(language, region))

    chosen = choose_whole(table or {}, now, language, business_language, channel, speaks, words_in)
    tongue = Tongue(chosen.cell.language, region)
    words = words_in(chosen.cell.language)
    reasons = (
        *_about_hours(hours, at), *_about_the_situation(hours, now, at),
        *_about_the_cell(chosen, table or {}, language),
        *_about_the_promise(hours, at, promised, due, visitor_offset),
    )  # fmt: skip
    return Explained(now, chosen.reply, words, due, reasons, tongue)


def _about_hours(hours: AnyHours, at: datetime) -> Iterator[Reason]:
    members = (hours,) if isinstance(hours, OpeningHours) else hours.members
    for number, one in enumerate(members):
        found = _open_by(one, at)
        if found is not None:
            where, words = found
            yield Reason(f"At {stamp(at, hours.zone)} it is open: {words}.", f"hours.{number}.{where}")
            return
    for number, one in enumerate(members):
        where, words = _closed_by(one, at.astimezone(one.zone).date())
        yield Reason(f"At {stamp(at, hours.zone)} it is closed: {words}.", f"hours.{number}{where}")


def _open_by(hours: OpeningHours, at: datetime) -> tuple[str, str] | None:
    """The stretch that is open then: where it stands, and words."""
    today = at.astimezone(hours.zone).date()
    for day in (today, today - _ONE_DAY):
        stretches, exception = hours.stretches_starting_on(day)
        for stretch in stretches:
            start, end = (
                start_instant(hours.zone, day, stretch.start_minute),
                end_instant(hours.zone, day, stretch.end_minute)
            )  # fmt: skip
            if start <= at.astimezone(UTC) < end:
                if exception is not None:
                    where = f"exceptions.{hours.exceptions.index(exception)}"
                    return where, f"“{exception.label or short_date(day)}” opens it from {_span(stretch)}"
                number = next(n for n, each in enumerate(hours.week) if each is stretch)
                return f"week.{number}", f"every {WEEKDAYS[day.weekday()]} from {_span(stretch)}"
    return None


def _closed_by(hours: OpeningHours, day: date) -> tuple[str, str]:
    stretches, exception = hours.stretches_starting_on(day)
    usual = " and ".join(_span(each) for each in stretches)
    if exception is not None:
        label = exception.label or short_date(day)
        words = f"“{label}” opens it only from {usual}" if usual else f"“{label}” closes it that day"
        return f".exceptions.{hours.exceptions.index(exception)}", words
    name = WEEKDAYS[day.weekday()]
    return "", f"on a {name} it opens from {usual}" if usual else f"it never opens on a {name}"


def _span(stretch: Stretch) -> str:
    return f"{stretch.from_} to {stretch.to}"


def _about_the_situation(hours: AnyHours, now: Situation, at: datetime) -> Iterator[Reason]:
    if now is Situation.OPEN:
        yield Reason("Somebody is at the counter, so the situation is “open”.", "counter")
    elif now is Situation.NOBODY_FREE:
        yield Reason(
            "Everybody is away from the counter, so the situation is “open, nobody free”.", "counter"
        )
    elif now is Situation.HOLIDAY:
        label = holiday_name(hours, at)
        day = f"“{label}” is a holiday" if label else "That day is a holiday"
        yield Reason(f"{day}, so the situation is “holiday”.", "hours")
    else:
        yield Reason("It is no holiday, so the situation is “after hours”.", "hours")


def _about_the_cell(chosen: Chosen, table: Mapping[Cell, Reply], language: str) -> Iterator[Reason]:
    cell = chosen.cell
    place = f"replies.{cell.situation.value}.{cell.channel or 'everywhere'}.{cell.language}"
    where = f"“{SITUATIONS[cell.situation]}”"
    if cell not in table:
        words = f"You have written nothing for {where}, so the words that ship are said."
        yield Reason(words, place)
        return
    column = "for this channel" if cell.channel else "for everywhere"
    words = f"You have written what is said in {where} {column}."
    wanted = language.split("-")[0].lower()
    if cell.language != wanted and Cell(cell.situation, cell.channel, wanted) in table:
        words += (
            f" What you have written in “{wanted}” has a place that we have no words for in it,"
            f" so all of it is said in “{cell.language}”."
        )
    elif cell.language != wanted:
        words += f" Nothing is written in “{wanted}”, so it is said in “{cell.language}”."
    yield Reason(words, place)
    if chosen.reply.hidden:
        yield Reason("It is hidden then: nothing is said, and a channel shows no button.", place)


def _about_the_promise(
    hours: AnyHours, at: datetime, promise: Promise, due: datetime | None, visitor_offset: int | None
) -> Iterator[Reason]:
    if promise.amount is None:
        yield Reason("No time is promised: “as soon as we can”.", "promise")
        return
    amount = length_words(promise.amount)
    if due is None:
        yield Reason(f"{amount} of open time do not pass within 400 days, so no time is promised.", "promise")
        return
    passed = length_words(open_time(hours, at, due))
    yield Reason(
        f"{amount} of open time are promised: {passed} have passed by {stamp(due, hours.zone)}.", "promise"
    )
    offset = due.astimezone(hours.zone).utcoffset()
    if visitor_offset is not None and offset is not None and offset != timedelta(minutes=visitor_offset):
        yield Reason(f"Their clock shows another time, so it is said in {zone_words(hours.zone)}.", "promise")
