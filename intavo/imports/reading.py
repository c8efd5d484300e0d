"""Files of people as they are taken apart, in a process that knows nothing of the application
(`intavo.apart`).
"""

import csv
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from datetime import datetime, time
from io import BytesIO
from itertools import islice
from pathlib import Path
from typing import IO, Any

from python_calamine import CalamineError, load_workbook

from intavo.core.importing import (
    Column,
    Entry,
    Line,
    card_lines,
    csv_lines,
    read_card,
    read_record,
    read_row,
    record_lines,
)

# How the bytes of a sheet begin: zipped (.xlsx, .ods), or the older kind (.xls).
_SHEETS = (b"PK\x03\x04", b"\xd0\xcf\x11\xe0")
MOST_ROWS = 200_000


@dataclass(frozen=True, slots=True)
class Form:
    """How a file is to be read: `kind` is "vcf" (vCards), "json" (JSON Lines of an export), or "csv", rows
    whose cells are what the columns say.
    """

    kind: str
    encoding: str
    delimiter: str
    header: bool
    columns: tuple[Column, ...]
    titles: tuple[str, ...]
    region: str


@contextmanager
def opened(path: Path, encoding: str) -> Iterator[IO[str]]:
    """A file as text; what cannot be read in its encoding is marked. Raises FileNotFoundError once it is
    gone.
    """
    with path.open("r", encoding=encoding, errors="replace", newline="") as file:
        yield file


def lines_of(form: Form, file: IO[str]) -> Iterator[Line]:
    """The rows or cards of a file that is open."""
    if form.kind == "csv":
        return csv_lines(file, form.delimiter, form.header)
    return card_lines(file) if form.kind == "vcf" else record_lines(file)


def reader_of(form: Form) -> Callable[[Line], Entry]:
    """Reads whoever stands in a row or card. Raises ValueError, in words for the owner."""
    if form.kind != "csv":
        read = read_card if form.kind == "vcf" else read_record
        return lambda line: read(line.cells[0], form.region)
    return lambda line: read_row(line.cells, form.columns, form.titles, form.region)


def first_lines(path: Path, form: Form, most: int) -> list[list[str]]:
    """The first rows, each cell at most 200 characters long."""
    with opened(path, form.encoding) as file:
        return [[cell[:200] for cell in line.cells] for line in islice(lines_of(form, file), most)]


def read_first(path: Path, form: Form, most: int) -> tuple[list[tuple[Line, Entry | None, str]], bool]:
    """The first rows, whoever stands in each (None, with the reason, where that is nobody), and whether those
    are all.
    """
    read, entries = reader_of(form), list[tuple[Line, Entry | None, str]]()
    with opened(path, form.encoding) as file:
        for line in lines_of(form, file):
            if len(entries) == most:
                return entries, False
            # Of a row no more than its number is looked at any more.
            bare = Line(line.number, ())
            try:
                if line.wrong:
                    raise ValueError(line.wrong)
                entries.append((bare, read(line), ""))
            except ValueError as error:
                entries.append((bare, None, str(error)))
    return entries, True


def is_sheet(head: bytes) -> bool:
    """Whether bytes that begin so are a sheet of a spreadsheet."""
    return head.startswith(_SHEETS)


def write_rows(sheet: Path, rows: Path) -> None:
    """Write the first sheet of a spreadsheet in which anything stands as CSV in UTF-8.

    Raises ValueError, in words for the owner, for what is no spreadsheet, has none, or too many.
    """
    try:
        # By its bytes: a name says nothing of what they are.
        book = load_workbook(BytesIO(sheet.read_bytes()))
        pages = map(book.get_sheet_by_name, book.sheet_names)
        page = next((one for one in pages if one.height), None)
    except (CalamineError, OSError, ValueError) as error:
        raise ValueError("This is not a spreadsheet that can be read; save it as CSV.") from error
    if page is None:
        raise ValueError("There are no rows in this file.")
    if page.total_height > MOST_ROWS:
        raise ValueError(f"A spreadsheet has at most {MOST_ROWS:,} rows; save it as CSV.")
    with rows.open("w", encoding="utf-8", newline="") as file:
        csv.writer(file).writerows([_written(cell) for cell in row] for row in page.iter_rows())


def _written(cell: Any) -> str:
    """A cell as one would type it."""
    if isinstance(cell, bool):
        return "yes" if cell else "no"
    if isinstance(cell, float) and cell.is_integer():
        return str(int(cell))
    if isinstance(cell, datetime):
        return cell.date().isoformat() if cell.time() == time(0) else cell.isoformat(" ", "minutes")
    return str(cell)
