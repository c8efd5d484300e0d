"""Lists of people that an owner brings in: what kind of file it is, what its columns are, and who stands in
it.
"""

from .entries import MOST_NOTE, Agreement, Entry, Noted
from .guessing import DATA_TITLE, Column, Guess, guess
from .reading import Line, card_lines, csv_lines, read_card, read_row, record_lines
from .records import read_record

__all__ = [
    "DATA_TITLE",
    "MOST_NOTE",
    "Agreement",
    "Column",
    "Entry",
    "Guess",
    "Line",
    "Noted",
    "card_lines",
    "csv_lines",
    "guess",
    "read_card",
    "read_record",
    "read_row",
    "record_lines",
]
