"""The vectors in a real browser: the real script, its real plans by the core, a clock that is moved by hand."""

import json
import time
from datetime import timedelta
from pathlib import Path
from typing import Any

import orjson
import pytest
from orjson import Fragment
from playwright.sync_api import Browser, BrowserContext, Page, Route

from intavo.core.showing import Compiled, Visit, plan
from intavo.core.showing.deeds import Deed, OpenPage
from intavo.core.times import iso
from intavo.core.tongues import ENGLISH
from intavo.core.touchpoint import Document
from intavo.intake.body import Taken
from intavo.touchpoints.making import live_touchpoint
from intavo.touchpoints.onsite import LiveTouchpoint, Wants
from intavo.visitor.wire import Plan, entry_of
from tests.vectors import ORIGIN, Vector, vectors

INTAVO = "http://intavo.example"
DIST = Path("visitor-script/dist")
STANDING = """() => [...document.querySelectorAll('[data-intavo-touchpoint]')].filter((one) => !one.inert)
  .map((one) => one.shadowRoot.querySelector('.face span, h2').textContent).sort()"""
REFUSED = (
    "Object.defineProperty(window, 'localStorage', {get() { throw new DOMException('no', 'SecurityError') }})"
)


def document(one: dict[str, Any]) -> Document:
    """A touchpoint of a vector as visitors see it: its id is its headline."""
    stance = one.get("stance", "pop-up")
    send = {"action": "send", "next": "thanks"}
    return Document.model_validate(
        {
            "purpose": "sign-up" if one.get("joins") else "inquiry",
            "stance": stance,
            "steps": [
                {
                    "id": "ask",
                    "parts": [
                        {"id": "p1", "kind": "headline", "text": one["id"]},
                        {"id": "p2", "kind": "field", "input": "email", "name": "email", "label": "Email"},
                        {"id": "p3", "kind": "button", "label": "Send", "does": send},
                    ],
                },
                {"id": "thanks", "parts": [{"id": "p4", "kind": "headline", "text": one["id"]}]},
            ],
            "face": {"label": one["id"]},
            "spot": {"selector": "main", "where": "inside"},
            "leaving": {"after": one.get("goes_after")},
            "show": one.get("show", {}),
            "look": {"arrival": "none"},
        }
    )


def _turn(page: Page, milliseconds: float = 20) -> None:
    """Let the browser go on, with its clock held, and take in what it tells meanwhile."""
    page.wait_for_timeout(milliseconds)


class Run:
    """A vector being played."""

    def __init__(self, vector: Vector, context: BrowserContext) -> None:
        self.vector, self.now, self.busy, self.last = vector, 0.0, 0, 0.0
        self.context = context
        self.documents = {one["id"]: document(one) for one in vector.data["touchpoints"]}
        self.kinds = {one["id"]: one for one in vector.data["touchpoints"]}
        self.how = vector.data.get("browser", {})
        self.opened: OpenPage | None = None
        self.wants_more = False
        context.add_init_script(_UNDER_WAY)
        context.on("request", lambda _: self._count(1))
        context.on("requestfinished", lambda _: self._count(-1))
        context.on("requestfailed", lambda _: self._count(-1))
        context.route("**/*", self._answer)
        self.page = context.new_page()
        began = vector.at + timedelta(hours=self.how.get("skew_hours", 0))
        # It runs until it is stopped: however long that takes, it is not there yet.
        self.page.clock.install(time=began - timedelta(hours=1))
        self.page.clock.pause_at(began)

    def _count(self, by: int) -> None:
        self.busy += by
        self.last = time.monotonic()

    def _answer(self, route: Route) -> None:
        url = route.request.url
        allowed = {"Access-Control-Allow-Origin": ORIGIN}
        if url.startswith(f"{INTAVO}/e/key.js"):
            route.fulfill(body=(DIST / "loader.js").read_text(), content_type="text/javascript")
        elif url.endswith("/more.js"):
            text = (DIST / "more.js").read_text() + ";window.moreIsHere=true"
            route.fulfill(body=text, content_type="text/javascript")
        elif url.endswith("/plan"):
            said = orjson.dumps(self._plan(route.request.post_data_json))
            route.fulfill(body=said, content_type="application/json", headers=allowed)
        elif url.endswith("/intake"):
            id_ = route.request.post_data_json["touchpoint"]
            tags = self.kinds[id_].get("gives", [])
            taken: Taken = {
                "next": "thanks", "says": None, "code": None, "file": None, "suggest": None, "tags": tags,
            }  # fmt: skip
            route.fulfill(status=201, json=taken, headers=allowed)
        elif url.startswith(ORIGIN):
            route.fulfill(body=self._site_page(), content_type="text/html")
        else:
            route.fulfill(json={}, headers=allowed)

    def _site_page(self) -> str:
        deed = self.opened or OpenPage(url=ORIGIN)
        kinds = f'<i data-intavo-page="{",".join(deed.kinds)}"></i>' if deed.kinds else ""
        notice = _NOTICE if deed.notice else ""
        account = '<i id="account"></i>' if deed.signed_in else ""
        return (
            "<!doctype html><html lang=en><title>A page</title><style>html,body,p{margin:0}</style>"
            f'<body><main style="height:{deed.screens * 100}vh;overflow:hidden"><p>Words</p>{kinds}{account}</main>{notice}'
            f'<script src="{INTAVO}/e/key.js"></script></body></html>'
        )

    def _plan(self, body: dict[str, Any]) -> Plan:
        visit = Visit.model_validate(body)
        at = self.vector.at + timedelta(seconds=self.now)
        ready = self.vector.touchpoints
        sentences = [sentence for one in ready for sentence in one.show.sentences]
        rules = self.vector.data.get("rules", {})
        wants: Wants = {
            "kinds": any(one.kinds or one.not_kinds for one in sentences),
            "signed_in": rules.get("signed_in", ""),
        }
        entries = plan(ready, visit, at, visit.open)
        self.wants_more |= any(
            moment.after is None and moment.read is None
            for one in entries
            for m in one.moments
            for moment in m
        )
        day = at + timedelta(days=1)
        said: Plan = {
            "now": iso(at), "visit_minutes": 30, "hours": {"situation": "open", "until": None, "says": None},
            "give_way_to": [*rules.get("give_way_to", []), ":modal"],
            "touchpoints": [
                entry_of(live := self._live(one.touchpoint), one, iso(min(one.until or day, day)), Fragment(live.document))
                for one in entries
            ],
        }  # fmt: skip
        if wants["kinds"] or wants["signed_in"]:
            said["wants"] = wants
        return said

    def _live(self, one: Compiled) -> LiveTouchpoint:
        """A touchpoint made ready by the server's own code."""
        seen = self.documents[one.id]
        return live_touchpoint(one, seen, one.id, one.id, 1, house=None, region="GB", tongue=ENGLISH)

    def settle(self, page: Page | None = None, quiet: float = 0.0) -> None:
        """Until nothing is under way any more, and nothing has been for so many seconds.

        Of a request that a page was left with the browser may tell no end: after a while without any news none is
        waited for.
        """
        page = page or self.page
        while True:
            underway = page.evaluate(_A_TURN)
            still = time.monotonic() - self.last
            rest = quiet - still
            if rest <= 0 and ((not self.busy and not underway) or still > _NO_NEWS):
                self.busy = 0
                return
            _turn(page, max(2.0, 1000 * rest))

    def go_to(self, at: float) -> None:
        """Let the clock run up to a moment."""
        ahead = at - self.now
        if ahead <= 0:
            return
        self.now = at
        if ahead > 120:
            self.page.clock.fast_forward(round(ahead * 1000) - 50)
            self.page.clock.run_for(50)
        else:
            self.page.clock.run_for(round(ahead * 1000))
        self.settle()

    def do(self, number: int, deed: Deed) -> None:
        """Do what the visitor does."""
        if isinstance(deed, OpenPage):
            self._open(deed, self.how.get("by", {}).get(str(number), "soft" if deed.soft else ""))
        elif deed.do == "scroll":
            self.page.evaluate(_SCROLL, deed.to)
        elif deed.do in {"click", "see"}:
            self.page.evaluate(_CLICK if deed.do == "click" else _SEE, deed.on)
        elif deed.do == "move":
            self.page.evaluate("() => dispatchEvent(new PointerEvent('pointermove', {bubbles: true}))")
        elif deed.do == "exit":
            self.page.evaluate(
                "() => document.dispatchEvent(new MouseEvent('mouseout', {clientY: -1, bubbles: true}))"
            )
        elif deed.do == "close":
            self._close()
        elif deed.do == "settle":
            self.page.evaluate("() => document.querySelector('#notice').remove()")
        elif deed.do == "answer":
            self._send()
        elif deed.do == "open":
            self.page.evaluate("(slug) => intavo.open(slug)", deed.touchpoint)
        elif deed.do == "tab":
            self._elsewhere(deed.touchpoint)
        elif deed.do == "gone":
            self.page.goto("about:blank")
        self.settle()

    def _open(self, deed: OpenPage, how: str) -> None:
        self.opened = deed
        if how != "soft":
            self.wants_more = False
        if how == "soft":
            self.page.evaluate("(url) => history.pushState({}, '', url)", deed.url)
            self.page.clock.run_for(1)
        elif how == "reload":
            self.page.reload()
        elif how == "back":
            self.page.go_back()
        else:
            self.page.goto(deed.url, referer=deed.referrer or None)
        # What is watched from the beginning is looked at in the first turn of the clock.
        self._until("window.plansRead > 0", "the page had no plan")
        self.settle(quiet=_ARRIVED)
        if self.wants_more:
            self._until("window.moreIsHere === true", "the second file of the script never came")
        self.settle(quiet=_ARRIVED)
        self.page.clock.run_for(1)

    def _until(self, holds: str, else_: str) -> None:
        patience = time.monotonic() + 2 * _NO_NEWS
        while not self.page.evaluate(holds):
            assert time.monotonic() < patience, else_
            _turn(self.page)

    def _close(self) -> None:
        if self.how.get("keyboard"):
            self.page.keyboard.press("Tab")
            self.page.keyboard.press("Escape")
        else:
            self.page.evaluate("() => intavo.close()")

    def _send(self) -> None:
        self.page.evaluate(
            """() => { const root = document.querySelector('[data-intavo-touchpoint]').shadowRoot
            root.querySelector('input').value = 'a@post.example'; root.querySelector('form').requestSubmit() }"""
        )

    def _elsewhere(self, slug: str) -> None:
        other = self.context.new_page()
        other.goto(self.page.url)
        self.settle(other, quiet=_ARRIVED)
        other.evaluate("(slug) => intavo.open(slug)", slug)
        self.settle(other)
        other.close()

    def standing(self) -> list[str]:
        """The ids of what is on screen."""
        return self.page.evaluate(STANDING)


_NOTICE = (
    '<div id="notice" style="position:fixed;bottom:0;left:0">We keep nothing. <button>Fine</button></div>'
)
_PATIENCE = 3.0
_NO_NEWS = 15.0
_ARRIVED = 0.08  # what else a page brings with it
_A_TURN = """() => new Promise((go) => {
  const c = new MessageChannel(); c.port1.onmessage = () => go(window.underWay); c.port2.postMessage(0) })"""
# How many answers the script still waits for or is reading: the browser tells of a request's end before that.
_UNDER_WAY = """window.underWay = window.plansRead = 0
window.fetch = ((asks) => (...asked) => {
  const answer = asks(...asked), what = /(plan|intake)$/.exec(asked[0])
  if (!what) return answer
  const over = () => { window.underWay--; if (what[1] === 'plan') window.plansRead++ }
  window.underWay++
  answer.then((one) => { const read = one.json.bind(one)
    one.json = () => { const said = read(); said.then(over, over); return said } }, over)
  return answer
})(window.fetch)"""
# Until the browser itself has told the page of it: later, the clock would have gone on meanwhile.
_SCROLL = """(to) => new Promise((done) => { const box = document.scrollingElement, before = box.scrollTop
  const heard = (event) => { if (event.isTrusted) { document.removeEventListener('scroll', heard); done() } }
  document.addEventListener('scroll', heard)
  box.scrollTop = (to / 100) * (box.scrollHeight - box.clientHeight)
  if (box.scrollTop !== before) return
  document.removeEventListener('scroll', heard); document.dispatchEvent(new Event('scroll')); done() })"""
_CLICK = """(on) => { const made = document.createElement('a'); if (on) made.id = on.slice(1)
  document.querySelector('main').append(made); made.click(); made.remove() }"""
_SEE = """(on) => new Promise((seen) => { const made = document.createElement('div'); made.id = on.slice(1)
  made.style.cssText = 'position:fixed;top:0;left:0;width:20px;height:20px'; document.querySelector('main').append(made)
  // Told twice, with two pictures of the browser: by then the script's own observer has been told as well.
  const look = (left) => { const one = new IntersectionObserver(() => { one.disconnect(); left ? look(left - 1) : seen() })
    one.observe(made) }
  look(2) })"""


def play(vector: Vector, browser: Browser) -> None:
    """Play a vector; what stands is looked at just before and just after everything that happens."""
    how = vector.data.get("browser", {})
    context = browser.new_context(
        viewport={"width": how.get("width", 1280), "height": 720},
        has_touch=how.get("touch", False),
        is_mobile=how.get("touch", False),
        reduced_motion="reduce",
        locale=how.get("locale", "en-GB"),
        timezone_id=how.get("zone", "Europe/London"),
    )
    if how.get("no_storage"):
        context.add_init_script(REFUSED)
    remembered = vector.data.get("visit", {})
    if memory := {
        **remembered.get("visitor", {}),
        **({"touchpoints": remembered["memory"]} if "memory" in remembered else {}),
    }:
        context.add_init_script(f"localStorage['intavo.key'] ??= JSON.stringify({json.dumps(memory)})")
    try:
        _play(vector, Run(vector, context))
    finally:
        context.close()


def _play(vector: Vector, run: Run) -> None:
    deeds = list(enumerate(sorted(vector.deeds, key=lambda one: one.at)))
    happens = {at for at, _, _ in vector.events}
    looks = {round(at + by, 3) for at in happens for by in (-0.15, 0.15) if at + by > 0}
    looks |= {round(deed.at + 0.15, 3) for _, deed in deeds}
    if "length" in vector.data:
        looks.add(float(vector.data["length"]))
    for at in sorted(looks | {deed.at for _, deed in deeds}):
        run.go_to(at)
        while deeds and deeds[0][1].at <= at:
            run.do(*deeds.pop(0))
        if at in looks:
            expected: list[str] = []
            for when, what, id_ in vector.events:
                if when <= at:
                    expected = (
                        [*expected, id_] if what == "shown" else [one for one in expected if one != id_]
                    )
            # The clock stands still meanwhile: only what has been asked for already can still arrive.
            patience = time.monotonic() + _PATIENCE
            while run.standing() != sorted(expected) and time.monotonic() < patience:
                _turn(run.page)
            assert (at, run.standing()) == (at, sorted(expected))


@pytest.mark.parametrize("vector", vectors(), ids=lambda one: one.name)
def test_the_real_script_agrees(vector: Vector, browser: Browser) -> None:
    play(vector, browser)


@pytest.fixture(autouse=True)
def _built() -> None:
    assert (DIST / "more.js").exists(), "the script is built first"
