"""Cells of a CSV file: none that a spreadsheet takes for a formula, and some that hold several."""

import csv
from collections.abc import Iterable


def harmless(cell: str) -> str:
    """A cell that is read as text: one that begins with = + - @, a tab or a return gets an apostrophe before
    it.
    """
    return f"'{cell}" if cell[:1] in {"=", "+", "-", "@", "\t", "\r"} else cell


def one_cell(pieces: Iterable[str]) -> str:
    """Several in one cell, parted by semicolons; one that has such a sign itself stands in quotes."""
    plain = (" ".join(one.split()) for one in pieces)
    return "; ".join(
        '"{}"'.format(one.replace('"', '""')) if ";" in one or '"' in one else one for one in plain
    )


def pieces_of(cell: str) -> list[str]:
    """What stands in a cell that `one_cell` wrote; of any other, what its semicolons part."""
    row = next(csv.reader([" ".join(cell.split())], delimiter=";", skipinitialspace=True), [])
    return [one.strip() for one in row if one.strip()]
