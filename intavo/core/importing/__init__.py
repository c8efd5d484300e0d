"""Lists of people that an owner brings in: what kind of file it is, what its columns are, and who stands in
it.
"""

from .guessing import Column, Guess, guess
from .reading import Entry, Line, card_lines, csv_lines, read_card, read_row

__all__ = ["Column", "Entry", "Guess", "Line", "card_lines", "csv_lines", "guess", "read_card", "read_row"]
