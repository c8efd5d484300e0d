"""A page that is open in a rehearsed visit: what was done on it, and which moments have come by that."""

from dataclasses import dataclass, field

from ..touchpoint.rules import Moment
from .deeds import Click, Deed, OpenPage, Scroll, See
from .tracks import TICK

SHORT_PAGE_DOWN_AFTER = 5.0
BACK_UP = 1.0  # percent further down than the share it comes back to


@dataclass
class Opened:
    """What has been done on the page that is open."""

    deed: OpenPage
    start: float
    down: float = 0
    furthest: float = 0
    clicks: int = 0
    clicked: set[str] = field(default_factory=set)
    seen: set[str] = field(default_factory=set)
    acted: float = 0
    left: bool = False
    notice: bool = False
    back: set[int] = field(default_factory=set)
    anew: bool = False  # what was done since one was closed; it must be passed again to count as read
    passed: set[int] = field(default_factory=set)

    @property
    def short(self) -> bool:
        """Whether it cannot be scrolled."""
        return self.deed.screens <= 1

    def due(self, all_of: tuple[Moment, ...], now: float) -> float | None:
        """When all parts will have come if nothing more is done; None if that takes a deed."""
        latest = self.start
        for moment in all_of:
            if self.came(moment, now):
                continue
            if moment.after is not None:
                latest = max(latest, self.start + moment.after)
            elif moment.idle is not None:
                latest = max(latest, self.acted + moment.idle)
            elif moment.read is not None and self.short and not self.anew:
                latest = max(latest, self.start + SHORT_PAGE_DOWN_AFTER)
            else:
                return None
        return latest

    def came(self, moment: Moment, now: float) -> bool:
        """Whether a moment has come by then."""
        elapsed = now - self.start + TICK
        if moment.after is not None:
            return elapsed >= moment.after
        if moment.read is not None:
            if self.anew:
                return moment.read in self.passed
            if self.short:
                return elapsed >= SHORT_PAGE_DOWN_AFTER
            return self.furthest + TICK >= moment.read
        if moment.up is not None:
            return moment.up in self.back
        if moment.idle is not None:
            return now - self.acted + TICK >= moment.idle
        if moment.clicks is not None:
            return self.clicks >= moment.clicks
        if moment.view is not None:
            return moment.view in self.seen
        return moment.click in self.clicked if moment.click is not None else self.left

    def does(self, deed: Deed, marks: dict[str, set[int]]) -> None:
        """One thing that they do here; `marks` are the shares of the way that something waits for, down and
        up.
        """
        if isinstance(deed, Scroll):
            before, self.down = self.down, 0 if self.short else deed.to
            self.furthest = max(self.furthest, self.down)
            self.back |= {up for up in marks["up"] if self.furthest > up + BACK_UP >= self.down}
            self.passed |= {mark for mark in marks["read"] if before < mark <= self.down}
        elif isinstance(deed, Click):
            self.clicks += 1
            self.clicked |= {deed.on} - {""}
        elif isinstance(deed, See):
            self.seen.add(deed.on)
        elif deed.do == "exit":
            self.left = True
        elif deed.do == "settle":
            self.notice = False
