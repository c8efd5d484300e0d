"""Plays a visit, with the very rules of the plan and the turns that the visitor's script keeps."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field, replace
from datetime import datetime, timedelta

from .compiled import VISIT_ENDS, Compiled, TouchpointState
from .decide import Verdict, decide
from .deeds import Deed, Open, OpenPage, OtherTab
from .opened import Opened
from .plan import PlannedEntry, plan
from .tracks import TICK, Doing, Event, PageTrack, Reason, Rehearsal, Tracks
from .visit import Began, Memory, Page, Visit

NEXT_AFTER = 3.0  # seconds from one that has gone to the next
LOOKS_AGAIN = 0.5  # seconds, while something of the site's own goes first
_NOTHING_YET: dict[str, object] = {"pages_this_visit": 0, "interruptions": 0}


@dataclass
class _Watched:
    """An entry whose moments are watched, by what is done on the page, or has been since it was closed."""

    entry: PlannedEntry
    planned: tuple[Memory | None, int]
    page: Opened


@dataclass
class _Queue:
    """Those of one kind whose moment has come; `held` is since when something of the site's own goes
    first.
    """

    waiting: list[_Watched] = field(default_factory=list)
    busy: bool = False
    timer: float | None = None
    held: float | None = None

    def let_go(self, now: float) -> None:
        """The next time that the script looks whether it may go on."""
        if self.held is not None:
            self.timer = self.held + (int((now - self.held + TICK) / LOOKS_AGAIN) + 1) * LOOKS_AGAIN
            self.held = None


def rehearse(
    touchpoints: Iterable[Compiled], visit: Visit, deeds: Sequence[Deed], at: datetime, length: float = 0
) -> Rehearsal:
    """Plays what a visitor does from an instant on; `length` in seconds, at least up to the last deed.

    `visit` describes them as they come: device, what is remembered, and which visit this is
    (`visitor.visits`, 1 for the first). Its page is that of the first deed.
    """
    play = _Play(list(touchpoints), visit, at)
    ordered = sorted(deeds, key=lambda deed: deed.at)
    for deed in ordered:
        play.until(deed.at)
        play.do(deed)
    play.until(max(length, play.now))
    return play.finished()


class _Play:
    def __init__(self, touchpoints: list[Compiled], visit: Visit, at: datetime) -> None:
        self.touchpoints = {one.id: one for one in touchpoints}
        self.visit, self.at, self.now = visit, at, 0.0
        self.gives_way = any(one.around.gives_way for one in touchpoints)
        self.visits_before = visit.visitor.visits - 1
        self.memory = dict(visit.memory)
        before = {"visits": self.visits_before, "pages_ever": visit.visitor.pages_ever - 1}
        self.visitor = visit.visitor.model_copy(update={**_NOTHING_YET, **before})
        self.last_page: float | None = None
        self.page: Opened | None = None
        self.watched: dict[str, _Watched] = {}
        self.planned: dict[str, _Watched] = {}  # as they were when the page was opened
        self.again: dict[str, _Watched] = {}  # closed on this page, and watched anew
        self.queues = {"interrupting": _Queue(), "bar": _Queue()}
        self.on_screen: dict[str, float | None] = {}  # when each goes by itself
        self.events: list[Event] = []
        self.pages: list[PageTrack] = []
        self.tracks = Tracks(one.id for one in touchpoints)

    # Time

    @property
    def clock(self) -> datetime:
        return self.at + timedelta(seconds=self.now)

    def until(self, end: float) -> None:
        """Let time pass, with everything that comes by itself meanwhile."""
        while (step := self._next_time()) is not None and step <= end + TICK:
            self.now = max(self.now, step)
            self._turn()
            self._go()
            self._look()
        self.now = max(self.now, end)

    def _next_time(self) -> float | None:
        times = [queue.timer for queue in self.queues.values() if queue.timer is not None]
        times += [goes for goes in self.on_screen.values() if goes is not None]
        for one in self._watching():
            times += [
                due for all_of in one.entry.moments if (due := one.page.due(all_of, self.now)) is not None
            ]
        return min(times, default=None)

    def _watching(self) -> list[_Watched]:
        return [*self.watched.values(), *self.again.values()]

    def _look(self) -> None:
        """Those whose moment has come are ready, in the order in which they stand."""
        for kept in (self.watched, self.again):
            for id_, one in list(kept.items()):
                come = any(
                    all(one.page.came(each, self.now) for each in all_of) for all_of in one.entry.moments
                )
                if come and kept.get(id_) is one:
                    del kept[id_]
                    self._ready(one)

    def _turn(self) -> None:
        for queue in self.queues.values():
            if queue.timer is not None and queue.timer <= self.now + TICK:
                self._next(queue)

    def _go(self) -> None:
        for id_, goes in list(self.on_screen.items()):
            if goes is not None and goes <= self.now + TICK:
                self._close(id_)

    # Turns, as the visitor's script keeps them

    def _ready(self, watched: _Watched) -> None:
        queue = self.queues.get(watched.entry.touchpoint.queue)
        if queue is None:
            self._comes_by_itself(watched)
            return
        queue.waiting.append(watched)
        queue.waiting.sort(key=lambda each: each.entry.touchpoint.order)
        if not queue.busy and queue.timer is None and queue.held is None:
            self._next(queue)
        if watched in queue.waiting and queue.held is None:
            self._mark(watched.entry.touchpoint, "waits its turn", "Waits its turn.")
        elif watched in queue.waiting:
            self._say_held(watched)

    def _say_held(self, watched: _Watched) -> None:
        self._mark(watched.entry.touchpoint, "waits its turn", "Something of the site's own goes first.")

    def _goes_first(self, queue: _Queue) -> bool:
        """Whether an element of the site's own stands that what interrupts has to wait for."""
        stands = self.gives_way and self.page is not None and self.page.notice
        return stands and queue is self.queues["interrupting"]

    def _next(self, queue: _Queue) -> None:
        queue.timer = None
        if queue.waiting and self._goes_first(queue):
            queue.held = self.now
            for one in queue.waiting:
                self._say_held(one)
            return
        while queue.waiting:
            one = queue.waiting.pop(0)
            queue.busy = True
            if self._comes_by_itself(one):
                return
            queue.busy = False

    def _comes_by_itself(self, watched: _Watched) -> bool:
        touchpoint, entry = watched.entry.touchpoint, watched.entry
        if touchpoint.id in self.on_screen:
            return False
        changed = watched.planned != self._recalled(touchpoint.id)
        if changed or (entry.until is not None and self.clock > entry.until):
            fresh = next((e for e in self._plan() if e.touchpoint.id == touchpoint.id and e.moments), None)
            if fresh is None:
                self._keep_back(touchpoint)
                return False
        self._show(touchpoint, "By itself.")
        if touchpoint.interrupts:
            self._interrupted()
        return True

    def _recalled(self, id_: str) -> tuple[Memory | None, int]:
        return self.memory.get(id_), self.visitor.interruptions

    def _interrupted(self) -> None:
        self.visitor = self.visitor.model_copy(update={"interruptions": self.visitor.interruptions + 1})

    def _show(self, touchpoint: Compiled, words: str) -> None:
        queue = self.queues.get(touchpoint.queue)
        if queue is not None:
            queue.busy, queue.timer, queue.held = True, None, None
        reasons = self._reasons(decide(touchpoint, self._visit(), self.clock))
        self.on_screen[touchpoint.id] = (
            None if touchpoint.goes_after is None else self.now + touchpoint.goes_after
        )
        known = self._remembered(touchpoint)
        self._remember(touchpoint, shown=known.shown + 1, last_shown=self.clock)
        self.events.append(Event(self.now, "shown", touchpoint.id))
        self._mark(touchpoint, "on screen", words, reasons)

    def _take_away(self, id_: str) -> None:
        if id_ in self.on_screen:
            del self.on_screen[id_]
            self.events.append(Event(self.now, "gone", id_))

    def _close(self, id_: str) -> None:
        touchpoint = self.touchpoints[id_]
        self._take_away(id_)
        self._remember(touchpoint, last_closed=self.clock)
        queue = self.queues.get(touchpoint.queue)
        if queue is not None:
            queue.busy, queue.timer, queue.held = False, self.now + NEXT_AFTER, None
        self._watch_again(touchpoint)

    def _watch_again(self, touchpoint: Compiled) -> None:
        """One that may come again on the same page is watched anew from when it was closed."""
        before = self.planned.get(touchpoint.id)
        if before is None or self.page is None or touchpoint.show.how_often.every != "moment":
            self._keep_back(touchpoint)
            return
        page = Opened(
            self.page.deed, self.now, down=self.page.down, furthest=self.page.down, acted=self.now, anew=True
        )
        self.again[touchpoint.id] = replace(before, page=page)
        verdict = decide(touchpoint, self._visit(), self.clock)
        if verdict.shows:
            self._mark_waiting(touchpoint, verdict)
        else:
            self._keep_back(touchpoint)

    def _remembered(self, touchpoint: Compiled) -> Memory:
        known = self.memory.get(touchpoint.id)
        fresh = Memory(generation=touchpoint.generation)
        return known if known is not None and known.generation >= touchpoint.generation else fresh

    def _remember(self, touchpoint: Compiled, **what: object) -> None:
        self.memory[touchpoint.id] = self._remembered(touchpoint).model_copy(update=what)

    # Deeds

    def do(self, deed: Deed) -> None:
        """One thing that they do."""
        if isinstance(deed, OpenPage):
            self._open_page(deed)
            return
        if self.page is None:
            return
        page = self.page
        if isinstance(deed, Open):
            self._open(deed.touchpoint)
        elif isinstance(deed, OtherTab):
            self._in_another_tab(page, deed.touchpoint)
        elif deed.do == "close":
            self._close_what_stands()
        elif deed.do == "answer":
            self._answer()
        elif deed.do == "gone":
            self._leave_page()
            self.page = None
            self._all_kept()
        else:
            marks = {name: self._marks(name) for name in ("read", "up")}
            for each in (page, *(one.page for one in self.again.values())):
                each.acted = self.now
                each.does(deed, marks)
            if deed.do == "settle":
                for queue in self.queues.values():
                    queue.let_go(self.now)
        if self.page is not None:
            self._look()

    def _marks(self, name: str) -> set[int]:
        """Every share of the way that something waits for."""
        moments = (each for one in self._watching() for all_of in one.entry.moments for each in all_of)
        return {mark for each in moments if (mark := getattr(each, name)) is not None}

    def _close_what_stands(self) -> None:
        for queue in ("interrupting", "bar"):
            one = next((id_ for id_ in self.on_screen if self.touchpoints[id_].queue == queue), None)
            if one is not None:
                self._close(one)
                return

    def _answer(self) -> None:
        standing = sorted(
            self.on_screen, key=lambda id_: ("interrupting", "bar", "none").index(self.touchpoints[id_].queue)
        )
        if not standing:
            return
        touchpoint = self.touchpoints[standing[0]]
        self._remember(touchpoint, answered=self.clock)
        tags = tuple(dict.fromkeys((*self.visitor.tags, *touchpoint.gives)))
        joined = self.visitor.on_list or touchpoint.joins
        self.visitor = self.visitor.model_copy(update={"tags": tags, "on_list": joined})

    def _open(self, id_: str) -> None:
        """Opened by their own click: at once; the one on screen gives way, which does not count as closed."""
        touchpoint = self.touchpoints.get(id_)
        if touchpoint is None or touchpoint.state is not TouchpointState.LIVE:
            return
        giving_way = [one for one in self.on_screen if self.touchpoints[one].queue == "interrupting"]
        for other in giving_way if touchpoint.queue == "interrupting" else [id_]:
            self._take_away(other)
            if other != id_ and other in self.touchpoints:
                self._keep_back(self.touchpoints[other])
        self._show(touchpoint, "Opened by their own click.")

    def _in_another_tab(self, page: Opened, id_: str) -> None:
        """Another tab counts its page, and remembers what it shows for all of them."""
        touchpoint = self.touchpoints[id_]
        self._count_page(page.deed)
        known = self._remembered(touchpoint)
        self._remember(touchpoint, shown=known.shown + 1, last_shown=self.clock)

    # Pages

    def _open_page(self, deed: OpenPage) -> None:
        soft = deed.soft and self.page is not None
        if not soft:
            self._leave_page()
            if not self.visit.storage:
                self._forget_all()
        for queue in self.queues.values():
            queue.waiting.clear()
            queue.let_go(self.now)
        self._count_page(deed)
        self.page = Opened(deed, self.now, acted=self.now, notice=deed.notice)
        self.pages.append(PageTrack(self.now, deed.url, self.visitor.visits))
        entries = self._plan()
        planned = {entry.touchpoint.id for entry in entries}
        for id_ in [
            one for one in self.on_screen if self.touchpoints[one].queue == "none" and one not in planned
        ]:
            self._take_away(id_)
        self.planned = {
            entry.touchpoint.id: _Watched(entry, self._recalled(entry.touchpoint.id), self.page)
            for entry in entries
            if entry.moments
        }
        self.watched, self.again = dict(self.planned), {}
        for touchpoint in self.touchpoints.values():
            if touchpoint.id in self.watched and touchpoint.id not in self.on_screen:
                self._mark_waiting(touchpoint, decide(touchpoint, self._visit(), self.clock))
            elif touchpoint.id not in self.on_screen:
                self._keep_back(touchpoint)
        self._look()

    def _leave_page(self) -> None:
        """A page that is left takes everything with it; nothing of that counts as closed."""
        for id_ in list(self.on_screen):
            self._take_away(id_)
        self.watched, self.planned, self.again = {}, {}, {}
        self.queues = {"interrupting": _Queue(), "bar": _Queue()}

    def _forget_all(self) -> None:
        self.memory, self.last_page = {}, None
        nothing = {**_NOTHING_YET, "visits": 0, "pages_ever": 0, "on_list": False, "tags": ()}
        self.visitor = self.visit.visitor.model_copy(update=nothing)

    def _count_page(self, deed: OpenPage) -> None:
        visitor, update = self.visitor, dict[str, object]()
        if self.last_page is None or self.now - self.last_page > VISIT_ENDS.total_seconds():
            first = not self.pages and self.visit.storage
            given = self.visit.visitor.arrival
            arrival = (
                given
                if first and (given.url or given.referrer)
                else Began(url=deed.url, referrer=deed.referrer)
            )
            update = {
                "visits": visitor.visits + 1,
                "visit_started": self.clock,
                "pages_this_visit": 0,
                "interruptions": 0,
                "first_page": deed.url,
                "arrival": arrival.model_copy(update={"url": arrival.url or deed.url}),
            }
        self.visitor = visitor.model_copy(update=update)
        seen = {
            "pages_ever": self.visitor.pages_ever + 1,
            "pages_this_visit": self.visitor.pages_this_visit + 1,
        }
        self.visitor = self.visitor.model_copy(update=seen)
        self.last_page = self.now

    def _visit(self) -> Visit:
        assert self.page is not None
        deed = self.page.deed
        page = Page(url=deed.url, referrer=deed.referrer, kinds=deed.kinds, signed_in=deed.signed_in)
        return self.visit.model_copy(update={"page": page, "visitor": self.visitor, "memory": self.memory})

    def _plan(self) -> list[PlannedEntry]:
        self.last_page = self.now
        return plan(self.touchpoints.values(), self._visit(), self.clock)

    # Tracks

    def _reasons(self, verdict: Verdict) -> tuple[Reason, ...]:
        return tuple(Reason(check.name, check.passed, check.sentence, check.when) for check in verdict.checks)

    def _mark_waiting(self, touchpoint: Compiled, verdict: Verdict) -> None:
        said = ", or ".join(" and ".join(one.say() for one in all_of) for all_of in verdict.moments)
        self._mark(touchpoint, "waits", f"Waits: {said}.", self._reasons(verdict))

    def _keep_back(self, touchpoint: Compiled) -> None:
        verdict = decide(touchpoint, self._visit(), self.clock)
        stopped = verdict.stopped_by
        if stopped is not None:
            words = stopped.sentence
        elif not verdict.moments:
            words = next(check.sentence for check in verdict.checks if check.name == "moment")
        else:
            words = "It has come on this page already."
        self._mark(touchpoint, "kept back", words, self._reasons(verdict))

    def _all_kept(self) -> None:
        for touchpoint in self.touchpoints.values():
            self._mark(touchpoint, "kept back", "They are not on the site.", ())

    def _mark(
        self, touchpoint: Compiled, doing: Doing, words: str, reasons: tuple[Reason, ...] | None = None
    ) -> None:
        self.tracks.mark(touchpoint.id, self.now, doing, words, reasons)

    def finished(self) -> Rehearsal:
        """The visit as it went up to now."""
        return Rehearsal(self.now, tuple(self.pages), self.tracks.ended(self.now), tuple(self.events))
