"""What a stranger sent is taken apart in a process of its own, with one deadline over the whole and a limit
of memory: whatever a mail, a card, a calendar or a sheet does to its reader, it does to that process alone.
"""

import resource
import threading
from collections.abc import Callable
from concurrent.futures import TimeoutError as TooLate
from functools import lru_cache
from multiprocessing import get_context
from typing import ParamSpec, TypeVar

from pebble import ProcessExpired, ProcessPool

P = ParamSpec("P")
T = TypeVar("T")
MEMORY_BYTES = 1_000 * 1024 * 1024
# So many are read at a time for a process of the application; whoever comes then waits, but not for ever.
_AT_ONCE, _WAITS_SECONDS = 2, 20.0
# A reader is replaced after so many: what one of them left behind does not pile up.
_AFTER = 500
_beginning = threading.Lock()
_turns = threading.BoundedSemaphore(_AT_ONCE)


class Unreadable(Exception):
    """It took its reader too long, or too much memory."""


class Busy(Exception):
    """Others are being read, and this one's turn did not come."""


def _limited() -> None:
    resource.setrlimit(resource.RLIMIT_DATA, (MEMORY_BYTES, MEMORY_BYTES))


@lru_cache(maxsize=1)
def _readers() -> ProcessPool:
    """The readers of this process, begun anew, so that they have no part of what it holds."""
    return ProcessPool(
        max_workers=_AT_ONCE, max_tasks=_AFTER, initializer=_limited, context=get_context("spawn")
    )


def apart(read: Callable[P, T], seconds: float, *of: P.args, **named: P.kwargs) -> T:
    """What a function of the core makes of what it is given, within so many seconds.

    Raises Unreadable past them, or where its memory is not enough; Busy where too many others are being read;
    and what the function itself raises.
    """
    if not _turns.acquire(timeout=_WAITS_SECONDS):
        raise Busy
    try:
        with _beginning:
            readers = _readers()
        result: T = readers.schedule(read, of, named, timeout=seconds).result()
        return result
    except (TooLate, ProcessExpired, MemoryError) as error:
        raise Unreadable from error
    finally:
        _turns.release()
