"""A week of opening hours as people write it: "Mon–Fri 9am–5.30pm; Sat 8–19, closed Sunday"."""

import re
from collections.abc import Iterator
from dataclasses import dataclass, field
from functools import cache

from babel import Locale, UnknownLocaleError

from .model import DAYS, Day, WeeklyStretch
from .spoken import in_english
from .typed import read_clock

_LONGEST = 1000  # characters
_ENGLISH: dict[str, Day] = {
    "m": "mon", "tues": "tue", "tu": "tue", "weds": "wed", "we": "wed", "thur": "thu", "thurs": "thu",
    "th": "thu",
}  # fmt: skip
_GROUPS: dict[str, tuple[Day, ...]] = {
    "daily": DAYS, "every day": DAYS, "everyday": DAYS, "all week": DAYS, "7 days": DAYS,
    "weekdays": DAYS[:5], "weekday": DAYS[:5], "working days": DAYS[:5], "weekends": DAYS[5:],
    "weekend": DAYS[5:],
}  # fmt: skip
_TOKENS = re.compile(
    r"""(?P<round>\b24\s*(?:/\s*7|h(?:ours|rs)?\b)|\bround\sthe\sclock\b|\ball\sday\b)
      | (?P<time>\b[0-9]{1,2}(?:\s?[:.h]\s?[0-9]{2}(?![0-9])|[0-9]{2}(?![0-9])|h(?![a-z]))?
          \s?(?:[ap]\.?\s?m\b\.?|[ap]\b)?|\b(?:noon|midday|midnight)\b)
      | (?P<dash>[-\u2010-\u2015\u2212~]|\b(?:to|till?|until|through|thru|bis)\b)
      | (?P<stop>[;\n|])
      | (?P<comma>[,&+/]|\b(?:and|und)\b)
      | (?P<also>\b(?:also|plus|again)\b)
      | (?P<closed>\b(?:closed|shut|off)\b)
      | (?P<group>\b(?:every\s?day|daily|all\sweek|7\sdays|week\s?days?|working\sdays|week\s?ends?)\b)
      | (?P<filler>[:.]|\b(?:from|on|open|opening|hours|at|between|the|uhr|o'clock|h)\b)
      | (?P<day>[^\W\d_]+\.?)""",
    re.VERBOSE,
)


@cache
def _names(language: str) -> dict[str, Day]:
    """How days are called in a language, and in English where that means nothing else."""
    names: dict[str, Day] = dict(_ENGLISH)
    for spoken in ("en", language):
        try:
            locale = Locale.parse(spoken, sep="-")
        except (UnknownLocaleError, ValueError):
            continue
        for context in ("format", "stand-alone"):
            for width in ("wide", "abbreviated", "short"):
                for number, name in locale.days[context][width].items():
                    names[name.casefold().rstrip(".")] = DAYS[number]
    return names


@dataclass
class _Clause:
    """Days, and when it is open on them; none means every day."""

    days: list[Day] = field(default_factory=list)
    times: list[tuple[str, str]] = field(default_factory=list)
    also: bool = False
    closed: bool = False
    words: str = ""

    @property
    def said(self) -> bool:
        return bool(self.times) or (self.closed and bool(self.days))


def read_hours(text: str, language: str = "en") -> tuple[WeeklyStretch, ...]:
    """The stretches of the week that a text tells, in order; days that it does not name are closed.

    Understood are 12- and 24-hour clocks, dashes of all kinds, day names and ranges in English and in
    `language` (BCP 47), "closed", "24h", "daily", "weekdays" and what they are in it ("Ruhetag", "täglich",
    "von 9 bis 17"). Times without days are every day's. "also" adds
    to what was said of a day; else days that are named on their own replace what was said of more days at
    once. "9-5" is nine to five in the afternoon, "20-2" runs into the next morning. What cannot be read is a
    ValueError that quotes the piece.
    """
    if len(text) > _LONGEST:
        raise ValueError(f"“{text[:30]}…” is too long; a week fits into {_LONGEST} characters")
    week: dict[Day, list[tuple[str, str]]] = {day: [] for day in DAYS}
    wider: dict[Day, int] = {}
    clauses = list(_clauses(text, language))
    if not clauses:
        raise ValueError(f"“{text.strip()[:30]}” says no hours; write them like Mon–Fri 9–17:30")
    for clause in clauses:
        days = list(dict.fromkeys(clause.days)) or list(DAYS)
        for day in days:
            if clause.closed or (not clause.also and wider.get(day, 0) > len(days)):
                week[day] = []
            week[day] += [one for one in clause.times if one not in week[day]]
            wider[day] = len(days)
    return tuple(
        WeeklyStretch.model_validate({"day": day, "from": start, "to": end})
        for day in DAYS
        for start, end in sorted(week[day])
    )


_PIECES = re.compile(r"([,;\n]+)")


def read_what_can_be(text: str, language: str = "en") -> tuple[tuple[WeeklyStretch, ...], tuple[str, ...]]:
    """What `read_hours` reads of a text, and the pieces between commas, semicolons and lines that it cannot.
    ValueError as there where nothing can be read.
    """
    try:
        return read_hours(text, language), ()
    except ValueError:
        if len(text) > _LONGEST:
            raise
        known, unread = "", []
        pieces = _PIECES.split(text)
        # A piece may say the days of the next.
        waiting = ""
        for piece, gap in zip(pieces[::2], [*pieces[1::2], ""], strict=True):
            if _can_be_read(f"{known}{waiting}{piece}", language):
                known, waiting = f"{known}{waiting}{piece}{gap}", ""
            elif waiting and _can_be_read(f"{known}{piece}", language):
                unread.append(waiting)
                known, waiting = f"{known}{piece}{gap}", ""
            else:
                waiting += f"{piece}{gap}"
        if not known:
            raise
        cut = (one.strip(" ,;\n") for one in (*unread, waiting))
        return read_hours(known, language), tuple(one for one in cut if one)


def _can_be_read(text: str, language: str) -> bool:
    try:
        read_hours(text, language)
    except ValueError:
        return False
    return True


def _clauses(text: str, language: str) -> Iterator[_Clause]:
    """One after the other; a day after times begins a new one, and so does a semicolon."""
    tokens, names = _tokens(in_english(text.casefold(), language)), _names(language)
    clause, at = _Clause(), 0
    while at < len(tokens):
        kind, words = tokens[at]
        begins = (kind in {"day", "group", "also"} and clause.said) or (
            kind == "closed" and bool(clause.times)
        )
        if kind == "stop" or begins:
            yield from _finished(clause)
            clause = _Clause()
        clause.words += f" {words}"
        if kind in {"day", "group"}:
            at = _take_days(clause, tokens, at, names)
        elif kind == "time":
            at = _take_times(clause, tokens, at)
        elif kind == "round":
            clause.times.append(("00:00", "24:00"))
        elif kind in {"also", "closed"}:
            setattr(clause, kind, True)
        elif kind == "dash":
            raise ValueError(f"“{clause.words.strip()}” cannot be read as hours")
        at += 1
    yield from _finished(clause)


def _finished(clause: _Clause) -> Iterator[_Clause]:
    if clause.times or clause.closed:
        yield clause
    elif clause.days or clause.also:
        raise ValueError(f"“{clause.words.strip()}” says no times; write them like Mon–Fri 9–17:30")


def _tokens(given: str) -> list[tuple[str, str]]:
    tokens, at = [], 0
    while at < len(given):
        if given[at] in " \t\r\u00a0\u202f":
            at += 1
            continue
        match = _TOKENS.match(given, at)
        if match is None or match.lastgroup is None:
            piece = re.split(r"[\s,;]", given[at:], maxsplit=1)[0]
            raise ValueError(f"“{piece[:30]}” cannot be read as hours")
        if match.lastgroup != "filler":
            tokens.append((match.lastgroup, match[0].strip()))
        at = match.end()
    return tokens


def _take_days(clause: _Clause, tokens: list[tuple[str, str]], at: int, names: dict[str, Day]) -> int:
    """A day, a range of days, or a group; gives back the last token that belongs to it."""
    kind, words = tokens[at]
    if kind == "group":
        key = " ".join(words.split())
        clause.days += _GROUPS.get(key) or _GROUPS[key.replace(" ", "")]
        return at
    first = _day(words, names)
    if at + 2 < len(tokens) and tokens[at + 1][0] == "dash" and tokens[at + 2][0] == "day":
        start, last = DAYS.index(first), DAYS.index(_day(tokens[at + 2][1], names))
        clause.days += [DAYS[(start + ahead) % 7] for ahead in range((last - start) % 7 + 1)]
        return at + 2
    clause.days.append(first)
    return at


def _day(words: str, names: dict[str, Day]) -> Day:
    name = words.rstrip(".")
    day = names.get(name) or (names.get(name.removesuffix("s")) if len(name) > 3 else None)
    if day is None:
        raise ValueError(f"“{words[:30]}” is no day, and cannot be read as hours")
    return day


def _take_times(clause: _Clause, tokens: list[tuple[str, str]], at: int) -> int:
    start = tokens[at][1]
    if at + 2 >= len(tokens) or tokens[at + 1][0] != "dash" or tokens[at + 2][0] != "time":
        raise ValueError(f"“{start}” says no end; write it like 9–17:30")
    clause.times.append(_stretch(start, tokens[at + 2][1]))
    return at + 2


_BARE = re.compile(r"[0-9]{1,2}(?:[:.][0-9]{2})?$")


def _stretch(start: str, end: str) -> tuple[str, str]:
    """Two times; an end that would lie before its start is one of the afternoon, where both are of twelve
    hours.
    """
    opens, closes = read_clock(start), read_clock(end)
    morning = 5 <= int(opens[:2]) < 12
    if _BARE.match(end.strip()) and closes < opens and morning and 1 <= int(closes[:2]) < 12:
        closes = f"{int(closes[:2]) + 12:02d}{closes[2:]}"
    if opens == "24:00":
        opens = "00:00"
    if closes == "00:00":
        closes = "24:00"
    if opens == closes:
        raise ValueError(
            f"“{start}–{end}” begins and ends at one time; write am and pm, or 24h for a whole day"
        )
    return opens, closes
