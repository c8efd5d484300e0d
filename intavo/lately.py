"""What was worked out lately, kept for a while in a bounded place that threads share."""

import threading
import time
from collections.abc import Callable, Hashable
from typing import Generic, TypeVar, cast

from cachetools import LRUCache, TTLCache

Key = TypeVar("Key", bound=Hashable)
Value = TypeVar("Value")
_NOTHING = object()


class Lately(Generic[Key, Value]):
    """Values by key. Where there are `most`, the one that was asked for longest ago goes; none is older than
    `seconds`.

    The clock is one that cannot be set back.
    """

    def __init__(self, most: int, seconds: float | None = None) -> None:
        self._kept: LRUCache[Key, Value] | TTLCache[Key, Value]
        self._kept = LRUCache(most) if seconds is None else TTLCache(most, seconds, timer=time.monotonic)
        self._lock = threading.Lock()

    def get(self, key: Key, work: Callable[[], Value]) -> Value:
        """The value of a key, worked out where it is not kept. Nobody waits for another who works it out as
        well.
        """
        with self._lock:
            value = self._kept.get(key, _NOTHING)
        if value is _NOTHING:
            value = work()
            self.put(key, value)
        return cast(Value, value)

    def known(self, key: Key) -> Value | None:
        """The value of a key, where it is kept."""
        with self._lock:
            return self._kept.get(key)

    def put(self, key: Key, value: Value) -> None:
        """Keep a value."""
        with self._lock:
            self._kept[key] = value

    def drop(self, key: Key) -> None:
        """Forget a value, where it is kept."""
        with self._lock:
            self._kept.pop(key, None)

    def clear(self) -> None:
        """Forget everything."""
        with self._lock:
            self._kept.clear()

    def __len__(self) -> int:
        """How many are kept."""
        with self._lock:
            return len(self._kept)
