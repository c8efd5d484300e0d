"""Exceptions read from, and hours written to, iCalendar (RFC 5545)."""

import re
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from datetime import date, datetime, timedelta
from itertools import groupby, islice
from typing import Any
from zoneinfo import ZoneInfo

from dateutil.rrule import rrulestr
from icalendar import Calendar, Event

from .model import DAYS, HoursException, OpeningHours, Stretch
from .wall import end_instant, start_instant

_ONE_DAY = timedelta(days=1)
MOST_BYTES, _MOST_EVENTS, _MOST_TIMES = 5 * 1024 * 1024, 5000, 2000
_EVENT = re.compile(r"^BEGIN:VEVENT\s*$", re.MULTILINE | re.IGNORECASE)
_USUAL = {"DAILY", "WEEKLY", "HOURLY", "MINUTELY", "SECONDLY"}
_HOLIDAY, _EXCEPTION, _WEEK = "HOLIDAY", "EXCEPTION", "WEEK"


@dataclass(frozen=True, slots=True)
class _DayOff:
    day: date
    label: str
    holiday: bool
    stretches: tuple[Stretch, ...]


def read_exceptions(text: str, timezone: str, first: date, last: date) -> tuple[HoursException, ...]:
    """Exceptions from a calendar, for dates from `first` to `last`, in the zone named.

    A whole-day event closes its days (a holiday, unless its category is EXCEPTION); a timed event makes the
    day open for just its times. Events that repeat every day or week say what is usual and are passed over.
    Raises ValueError for a text that is no calendar, or more than 5 MB or 5,000 events of one, and for an
    event that cannot be read, with its line.
    """
    if len(text) > MOST_BYTES:
        raise ValueError("This calendar has more than 5 MB; export the odd days alone.")
    # Counted before they are read, which takes its time.
    if len(_EVENT.findall(text)) > _MOST_EVENTS:
        raise ValueError(f"This calendar has more than {_MOST_EVENTS} entries; export the odd days alone.")
    try:
        calendar = Calendar.from_ical(text)
    except (ValueError, IndexError, KeyError, TypeError) as error:
        raise ValueError(f"This is not an iCalendar file{_line_of(str(error), text)}.") from error
    zone = ZoneInfo(timezone)
    by_day: dict[date, _DayOff] = {}
    for number, event in enumerate(calendar.walk("VEVENT")):
        for one in _read_event(event, zone, first, last, number, text):
            known = by_day.get(one.day)
            if known is None:
                by_day[one.day] = one
            elif known.stretches and one.stretches:
                by_day[one.day] = _DayOff(
                    one.day, known.label, known.holiday, known.stretches + one.stretches
                )
    return tuple(_spans(by_day[day] for day in sorted(by_day)))


def usual_entries(text: str) -> tuple[str, ...]:
    """The names of the entries that `read_exceptions` passes over, since they repeat every day or week; each
    once, in order. A week that was written here is none. Raises as it does for what is no calendar.
    """
    try:
        events = Calendar.from_ical(text).walk("VEVENT")
    except (ValueError, IndexError, KeyError, TypeError) as error:
        raise ValueError("This is not an iCalendar file.") from error
    usual = (one for one in events if _is_usual(one) and _WEEK not in _categories(one))
    return tuple(dict.fromkeys(str(one.get("SUMMARY", ""))[:120] for one in usual))


def _is_usual(event: Any) -> bool:
    rule = event.get("RRULE")
    return rule is not None and rule.get("FREQ", [""])[0] in _USUAL


def _read_event(event: Any, zone: ZoneInfo, first: date, last: date, number: int, text: str) -> list[_DayOff]:
    """The odd days of one event; ValueError with its line where it cannot be read."""
    try:
        return list(_days_of(event, zone, first, last))
    except (ValueError, KeyError, TypeError, AttributeError, OverflowError, IndexError) as error:
        begins = [
            at for at, line in enumerate(text.splitlines(), 1) if line.strip().upper() == "BEGIN:VEVENT"
        ]
        where = f" in line {begins[number]}" if number < len(begins) else ""
        name = str(event.get("SUMMARY", ""))[:60]
        raise ValueError(
            f"The entry{f' “{name}”' if name else ''} that begins{where} cannot be read."
        ) from error


def _line_of(message: str, text: str) -> str:
    """Where the line stands that an error of the reader quotes, if it quotes one."""
    quoted = message.split("'")[1] if message.count("'") > 1 else ""
    number = next(
        (at for at, line in enumerate(text.splitlines(), 1) if quoted and line.startswith(quoted)), None
    )
    return f": line {number} cannot be read" if number else ""


def _days_of(event: Any, zone: ZoneInfo, first: date, last: date) -> Iterator[_DayOff]:
    start = event.decoded("DTSTART")
    if not isinstance(start, date):
        raise TypeError("this is no date")
    if _is_usual(event):
        return
    label = str(event.get("SUMMARY", ""))
    length = event.duration
    for begins in _occurrences(event, start, first, last):
        if isinstance(begins, datetime):
            local = begins.astimezone(zone) if begins.tzinfo else begins
            ends = local + length if local.tzinfo is None else (begins + length).astimezone(zone)
            stretch = _stretch(local, ends)
            if stretch and first <= local.date() <= last:
                yield _DayOff(local.date(), label, _HOLIDAY in _categories(event), (stretch,))
        else:
            holiday = _EXCEPTION not in _categories(event)
            for day in _each_day(begins, max(begins + length, begins + _ONE_DAY), first, last):
                yield _DayOff(day, label, holiday, ())


def _occurrences(event: Any, start: date, first: date, last: date) -> Iterator[date]:
    if event.get("RRULE") is None:
        yield start
        return
    # Rules repeat on wall-clock dates: the zone is put back on each.
    at_midnight = datetime(start.year, start.month, start.day)  # noqa: DTZ001
    rule = rrulestr(event["RRULE"].to_ical().decode().split(";UNTIL")[0], dtstart=at_midnight)
    since = datetime(first.year, first.month, first.day) - timedelta(days=31)  # noqa: DTZ001
    until = datetime(last.year, last.month, last.day)  # noqa: DTZ001
    for found in islice(rule.xafter(since, inc=True), _MOST_TIMES):
        if found > until:
            return
        yield datetime.combine(found.date(), start.timetz()) if isinstance(start, datetime) else found.date()


def _each_day(start: date, end: date, first: date, last: date) -> Iterator[date]:
    day = max(start, first)
    while day < end and day <= last:
        yield day
        day += _ONE_DAY


def _stretch(start: datetime, end: datetime) -> Stretch | None:
    begins, ends = start.strftime("%H:%M"), end.strftime("%H:%M")
    if ends == "00:00" and end.date() > start.date():
        ends = "24:00"
    return None if begins == ends else Stretch(from_=begins, to=ends)


def _categories(event: Any) -> set[str]:
    value = event.get("CATEGORIES")
    return {str(one).upper() for one in value.cats} if value is not None else set()


def _spans(days: Iterable[_DayOff]) -> Iterator[HoursException]:
    """Neighbouring days with the same words and stretches become one exception."""
    numbered = enumerate(days)
    alike = groupby(
        numbered, key=lambda n: (n[1].day.toordinal() - n[0], n[1].label, n[1].holiday, n[1].stretches)
    )
    for (_, label, holiday, stretches), group in alike:
        dates = [one.day for _, one in group]
        yield HoursException(
            first=dates[0], last=dates[-1], label=label, holiday=holiday, stretches=stretches
        )


def write_calendar(hours: OpeningHours, name: str, since: date) -> str:
    """The week (repeating from the week of `since`) and the exceptions as an iCalendar text."""
    calendar = Calendar()
    calendar.add("PRODID", "-//Intavo//Opening hours//EN")
    calendar.add("VERSION", "2.0")
    calendar.add("X-WR-CALNAME", name)
    for number, event in enumerate([*_week_events(hours, name, since), *_exception_events(hours)]):
        event.add("UID", f"{number}-{since:%Y%m%d}@intavo.invalid")
        event.add("DTSTAMP", start_instant(ZoneInfo("UTC"), since, 0))
        calendar.add_component(event)
    return str(calendar.to_ical().decode())


def _timed(hours: OpeningHours, day: date, stretch: Stretch, label: str, category: str) -> Event:
    event = Event()
    event.add("SUMMARY", label)
    event.add("CATEGORIES", [category])
    event.add("DTSTART", start_instant(hours.zone, day, stretch.start_minute).astimezone(hours.zone))
    event.add("DTEND", end_instant(hours.zone, day, stretch.end_minute).astimezone(hours.zone))
    return event


def _week_events(hours: OpeningHours, name: str, since: date) -> Iterator[Event]:
    for stretch in hours.week:
        day = since + timedelta(days=(DAYS.index(stretch.day) - since.weekday()) % 7)
        event = _timed(hours, day, stretch, name, _WEEK)
        event.add("RRULE", {"FREQ": "WEEKLY"})
        start = event.decoded("DTSTART")
        skipped = [
            start + timedelta(days=(off - day).days)
            for one in hours.exceptions
            for off in _each_day(one.first, one.last + _ONE_DAY, day, one.last)
            if off.weekday() == day.weekday()
        ]
        if skipped:
            event.add("EXDATE", skipped)
        yield event


def _exception_events(hours: OpeningHours) -> Iterator[Event]:
    for one in hours.exceptions:
        if not one.stretches:
            event = Event()
            event.add("SUMMARY", one.label)
            event.add("CATEGORIES", [_HOLIDAY if one.holiday else _EXCEPTION])
            event.add("DTSTART", one.first)
            event.add("DTEND", one.last + _ONE_DAY)
            yield event
            continue
        for day in _each_day(one.first, one.last + _ONE_DAY, one.first, one.last):
            for stretch in one.stretches:
                yield _timed(hours, day, stretch, one.label, _HOLIDAY if one.holiday else _EXCEPTION)
