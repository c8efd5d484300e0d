"""Starts again what ends by itself."""

import math
import time
from collections.abc import Callable, Iterable
from dataclasses import dataclass, field

# What ran for so long has stayed; between two starts of what does not is at most so long a pause.
STAYED_SECONDS, MOST_PAUSE_SECONDS = 60.0, 30.0


@dataclass
class Watch:
    """Starts again what ends by itself, with pauses that grow while it does not stay; they begin anew once it
    has.
    """

    begin: Callable[[str], None]
    say: Callable[[str], None]
    now: Callable[[], float] = time.monotonic
    _pauses: dict[str, float] = field(default_factory=dict)
    _due: dict[str, float] = field(default_factory=dict)
    _begun: dict[str, float] = field(default_factory=dict)

    def look(self, ended: Iterable[str]) -> None:
        """One look at what has ended."""
        for name in ended:
            if name not in self._due:
                stayed = self.now() - self._begun.get(name, -math.inf) >= STAYED_SECONDS
                pause = 0.0 if stayed else min(MOST_PAUSE_SECONDS, max(1.0, 2 * self._pauses.get(name, 0.0)))
                self._pauses[name], self._due[name] = pause, self.now() + pause
                when = f"in {pause:.0f} s" if pause else "now"
                self.say(f"the {name} ended by itself and is started again {when}")
            if self.now() >= self._due[name]:
                del self._due[name]
                self._begun[name] = self.now()
                self.begin(name)
