"""What two wanted at once, of whom the database gave up one, is done one after the other."""

import secrets
import time
from collections.abc import Callable
from typing import TypeVar

import psycopg
from django.db import Error

T = TypeVar("T")

TRIES = 4
_PAUSE = 0.05  # seconds, times the number of the try
# What a row leads to may be gone since it was looked up, joined to another or erased, and what was free then
# may be taken.
_COLLISIONS = (
    psycopg.errors.DeadlockDetected
    | psycopg.errors.SerializationFailure
    | psycopg.errors.ForeignKeyViolation
    | psycopg.errors.UniqueViolation
)


def collided(error: BaseException | None) -> bool:
    """Whether the database gave up one of two that were at the same: all that it did is undone."""
    return isinstance(error, _COLLISIONS) or (error is not None and isinstance(error.__cause__, _COLLISIONS))


def step_back(number: int) -> None:
    """Wait a little before the next try after this one, never as long as another who waits."""
    time.sleep(_PAUSE * number * (1 + secrets.randbelow(100) / 100))


def asked_again(do: Callable[[], T]) -> T:
    """What is given by something that changes nothing unless it ends well; done anew, a few times, where it
    collided. Raises what the last try raised.
    """
    for number in range(1, TRIES):
        try:
            return do()
        except Error as error:
            if not collided(error):
                raise
        step_back(number)
    return do()
