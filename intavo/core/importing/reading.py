"""Rows and cards of a file of people, read one at a time, so that any length of it takes little memory."""

import csv
import json
import logging
import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from typing import IO

import vobject

from ..csvsafe import pieces_of
from ..people.cards import DATA, FIELD
from .entries import Entry, entry_of
from .guessing import Column
from .records import read_beside

MOST_CELL, MOST_COLUMNS, MOST_CARD = 100_000, 500, 2_000_000
YES = {
    "yes",
    "y",
    "true",
    "t",
    "1",
    "x",
    "✓",
    "ja",
    "oui",
    "si",
    "sí",
    "sim",
    "tak",
    "opted in",
    "subscribed",
    "agreed",
}


@dataclass(frozen=True, slots=True)
class Line:
    """A row or card of the file: its number (from 1, without the header), its cells, and why it cannot be
    read.
    """

    number: int
    cells: tuple[str, ...]
    wrong: str = ""


def csv_lines(file: IO[str], delimiter: str, header: bool) -> Iterator[Line]:
    """The rows of a CSV that is open as text; empty ones are left out, broken ones say what is wrong with
    them.

    Source: RFC 4180; what spreadsheets write in its place is understood as well.
    """
    before = csv.field_size_limit(MOST_CELL)
    try:
        reader = csv.reader((_clean(line) for line in file), delimiter=delimiter)
        number, begun = 0, False
        while True:
            try:
                cells = next(reader)
            except StopIteration:
                return
            except csv.Error:
                number, begun = number + 1, True
                yield Line(number, (), "The row cannot be read: a cell in it has no end, or is endless.")
                continue
            if not any(cell.strip() for cell in cells) or (not begun and _names_delimiter(cells)):
                continue
            if header and not begun:
                begun = True
                continue
            number, begun = number + 1, True
            if len(cells) > MOST_COLUMNS:
                yield Line(number, tuple(cells[:20]), f"The row has more than {MOST_COLUMNS} columns.")
            else:
                yield Line(number, tuple(cells))
    finally:
        csv.field_size_limit(before)


def _clean(line: str) -> str:
    return line.replace("\x00", "")


def _names_delimiter(cells: Sequence[str]) -> bool:
    return bool(re.fullmatch(r"sep=.?", "".join(cells[:1]).strip()))


def read_row(cells: Sequence[str], columns: Sequence[Column], titles: Sequence[str], region: str) -> Entry:
    """Whoever stands in a row. Raises ValueError, in words for the owner, for a row that is nobody.

    A number that is none stays as a field of its own where there is an email.
    """
    found: dict[Column, list[str]] = {one: [] for one in Column}
    own: list[tuple[str, str]] = []
    for at, cell in enumerate(cells):
        text = _shown(cell)
        kind = columns[at] if at < len(columns) else Column.IGNORED
        if not text or kind is Column.IGNORED:
            continue
        if kind is Column.OWN:
            own.append((_shown(titles[at]) if at < len(titles) and titles[at] else f"Column {at + 1}", text))
        else:
            found[kind].append(text)
    agreed = None
    if Column.CONSENT in columns:
        agreed = any(one.casefold() in YES for one in found[Column.CONSENT])
    if Column.DATA in columns:
        # Of an export of ours: each cell may hold several.
        for kind in (Column.EMAIL, Column.PHONE, Column.TAG):
            found[kind] = [piece for cell in found[kind] for piece in pieces_of(cell)]
    else:
        found[Column.TAG] = [piece for cell in found[Column.TAG] for piece in re.split(r"[;,|]", cell)]
    entry = entry_of(
        " ".join(found[Column.NAME]),
        found[Column.EMAIL],
        found[Column.PHONE],
        region,
        tags=found[Column.TAG],
        agreed=agreed,
        note="\n".join(found[Column.NOTE]),
        own=own,
    )
    if not found[Column.DATA]:
        return entry
    beside = read_beside(found[Column.DATA][0])
    return replace(entry, added=beside.added, agreements=beside.agreements)


def _shown(cell: str) -> str:
    """A cell without the apostrophe by which a spreadsheet is told that it is text."""
    text = cell.strip()
    return text[1:].strip() if text[:1] == "'" and text[1:2] in {"=", "+", "-", "@", "\t"} else text


def card_lines(file: IO[str]) -> Iterator[Line]:
    """The cards of a file of vCards that is open as text, each by itself; what stands between them is left
    out.
    """
    card: list[str] = []
    size = number = 0
    for line in file:
        mark = line.strip().upper()
        if mark == "BEGIN:VCARD":
            if card:
                number += 1
                yield Line(number, ("".join(card)[:1000],), "The card has no end.")
            card, size = [line], len(line)
        elif card:
            size += len(line)
            if size <= MOST_CARD:
                card.append(_clean(line))
            if mark == "END:VCARD":
                number += 1
                wrong = "" if size <= MOST_CARD else "The card is too large."
                yield Line(number, ("".join(card),) if not wrong else ("".join(card)[:1000],), wrong)
                card = []
    if card:
        yield Line(number + 1, ("".join(card)[:1000],), "The card has no end.")


# What its reader stumbles over is said in our words; its own would put what people wrote into a log.
logging.getLogger("vobject").setLevel(logging.CRITICAL + 1)
# Without its pictures, in characters.
_MOST_LIGHT = 200_000
_HEAVY = re.compile(
    r"^(?:[\w-]+\.)?(?:PHOTO|LOGO|SOUND|KEY)[;:].*(?:\r?\n[ \t].*)*\r?\n?", re.IGNORECASE | re.MULTILINE
)


def read_card(text: str, region: str) -> Entry:
    """Whoever a vCard is of. Raises ValueError, in words for the owner. Source: RFC 6350, RFC 2426."""
    light = _HEAVY.sub("", text)
    if len(light) > _MOST_LIGHT:
        raise ValueError("The card is too large.")
    try:
        card = next(iter(vobject.readComponents(light, ignoreUnreadable=True)))
    except Exception as error:  # whatever the reader stumbles over
        raise ValueError("The card cannot be read.") from error

    def all_of(name: str) -> list[str]:
        return [_value(one.value) for one in card.contents.get(name, [])]

    name = next(iter([*all_of("fn"), *all_of("n")]), "")
    emails, phones = (
        all_of("email"),
        [re.sub(r"^tel:", "", one, flags=re.IGNORECASE) for one in all_of("tel")],
    )
    own = [("Organisation", one) for one in all_of("org") if one] + list(map(_field, all_of(FIELD.lower())))
    tags = [tag for one in card.contents.get("categories", []) for tag in _parts(one.value)]
    numbers = [one.partition(";")[0] for one in phones]
    entry = entry_of(name, emails, numbers, region, tags=tags, note="\n".join(all_of("note")), own=own)
    for data in all_of(DATA.lower())[:1]:
        beside = read_beside(data)
        entry = replace(entry, added=beside.added, agreements=beside.agreements)
    return entry


def _field(text: str) -> tuple[str, str]:
    """A field of the owner's own, as an export writes it on a card."""
    try:
        title, words = json.loads(text)
    except ValueError:
        title, words = "Field", text
    return str(title)[:4000], str(words)[:MOST_CELL]


def record_lines(file: IO[str]) -> Iterator[Line]:
    """The lines of a file of JSON Lines that is open as text; empty ones are left out."""
    number = 0
    while line := file.readline(MOST_CARD):
        wrong = ""
        if len(line) == MOST_CARD and not line.endswith("\n"):
            wrong = "The line is too long."
            while (rest := file.readline(MOST_CARD)) and not rest.endswith("\n"):
                pass
        if line.strip():
            number += 1
            yield Line(number, (line[:1000] if wrong else line,), wrong)


def _parts(value: object) -> list[str]:
    return [str(one) for one in value] if isinstance(value, list) else re.split(r",", str(value))


def _value(value: object) -> str:
    return " ".join(map(str, value)) if isinstance(value, list) else " ".join(str(value).split(" ")).strip()
