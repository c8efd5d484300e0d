"""Waiting for what comes about by itself, wherever no page tells of it."""

import time
from collections.abc import Callable
from typing import TypeVar

T = TypeVar("T")


def until(look: Callable[[], T], what: str, seconds: float = 60, every: float = 0.05) -> T:
    """Look again and again until there is something, and say what; AssertionError with `what` after so many seconds."""
    give_up = time.monotonic() + seconds
    while not (seen := look()):
        assert time.monotonic() < give_up, f"{what}: not within {seconds:.0f} s"
        time.sleep(every)
    return seen
