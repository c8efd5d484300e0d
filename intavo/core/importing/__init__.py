"""Lists of people that an owner brings in: what kind of file it is, and what its columns are."""

from .guessing import Column, Guess, guess

__all__ = ["Column", "Guess", "guess"]
