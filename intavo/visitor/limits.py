"""How often one address may call: counted in the process, on a clock that cannot be set back."""

import threading
import time
from dataclasses import dataclass, field
from math import ceil

from cachetools import LRUCache

MINUTE = 60.0


@dataclass
class Window:
    """Counts calls by key in windows of a minute; `most` calls are let through."""

    most: int
    # Where more call than these, whoever has not called for longest begins anew.
    _counts: LRUCache[tuple[int, str], tuple[float, int]] = field(default_factory=lambda: LRUCache(50_000))
    _lock: threading.Lock = field(default_factory=threading.Lock)

    def wait(self, key: tuple[int, str], now: float | None = None) -> int:
        """Seconds to wait before this key may call again; 0 if it may now (and then it is counted)."""
        at = time.monotonic() if now is None else now
        with self._lock:
            since, count = self._counts.get(key, (at, 0))
            if at - since >= MINUTE:
                since, count = at, 0
            if count >= self.most:
                return max(1, ceil(since + MINUTE - at))
            self._counts[key] = (since, count + 1)
            return 0
