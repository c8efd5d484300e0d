"""Measures speed as ratios in one run: plan and intake against bare views, and the core's functions."""

import http.client
import json
import os
import secrets
import statistics
import sys
import threading
import time
from collections.abc import Callable
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from typing import Any

import psycopg
from playwright.sync_api import Browser

from intavo.core.hours import OpeningHours, add_open_time, is_open, next_closing, open_stretches, open_time
from intavo.core.showing import Compiled, TouchpointState, Visit, decide
from intavo.core.touchpoint import PagePattern, Sentence, Show
from scripts.cluster import Cluster
from scripts.stack import CHROMIUM, CHROMIUM_FLAGS, RUN, Ports, Stack
from tests.running.kills import kill_while_sending

from .many import many_people

ORIGIN = "http://otterwick.localhost:8401"
ROUNDS, THREADS, SECONDS = 7, 4, 2.0
MAIN_THREAD = 8.0  # times what a bare script takes
SLOWER, LIST_MS, CONSOLE_KB = 4, 2_000, 130
# The page's own time when the first row has been drawn: looking from outside costs half a second there.
ROW_IS_THERE = """
window.rowIsThere = new Promise((there) => {
  new MutationObserver((_, watch) => {
    if (!document.querySelector("main li a[href^='/follow-up/']")) return
    watch.disconnect()
    requestAnimationFrame(() => setTimeout(() => there(performance.now())))
  }).observe(document, { childList: true, subtree: true })
})
"""
# Asks for the same plan and draws a short form for each touchpoint in it, and nothing else.
BARE_SCRIPT = """
const draw = async () => {
  const { src } = document.querySelector('script[src*="/e/"]')
  const asked = await fetch(src.replace('.js', '/plan'), { method: 'POST', credentials: 'omit', body: BODY })
  for (const one of (await asked.json()).touchpoints) {
    const host = document.createElement('div')
    const root = host.attachShadow({ mode: 'open' })
    root.innerHTML = '<style>:host{position:fixed;right:0;bottom:0}form{padding:20px;border:1px solid}</style><form>' +
      one.document.steps[0].parts.map((part) => `<p><label>${part.kind} <input name="${part.id}"></label></p>`).join('') +
      '<button>Send</button></form>'
    document.documentElement.append(host)
  }
}
if (document.readyState === 'loading') addEventListener('DOMContentLoaded', draw)
else draw()
"""
HOURS = OpeningHours.model_validate(
    {
        "timezone": "Europe/London",
        "week": [{"day": day, "from": "09:00", "to": "17:30"} for day in ("mon", "tue", "wed", "thu", "fri")],
        "exceptions": [{"first": "2026-12-24", "last": "2026-12-26", "holiday": True}],
    }
)
AT = datetime(2026, 11, 24, 14, 5, tzinfo=UTC)


@dataclass
class Load:
    """One kind of request: where, and what is sent (made anew for each)."""

    path: str
    body: Callable[[], bytes]
    expects: tuple[int, ...]
    method: str = "POST"
    tag: str = ""


def headers() -> dict[str, str]:
    """Every request from an address of its own, as visitors' are."""
    address = f"2001:db8::{secrets.token_hex(2)}:{secrets.token_hex(2)}"
    return {"Origin": ORIGIN, "Content-Type": "text/plain", "X-Forwarded-For": address}


def rate(port: int, load: Load) -> float:
    """Requests a second over a few connections; every answer is checked."""
    counts = [0] * THREADS
    until = time.perf_counter() + SECONDS

    def work(slot: int) -> None:
        connection = http.client.HTTPConnection("127.0.0.1", port)
        while time.perf_counter() < until:
            tagged = {"If-None-Match": load.tag} if load.tag else {}
            connection.request(load.method, load.path, load.body() or None, headers() | tagged)
            answer = connection.getresponse()
            text = answer.read()
            if answer.status not in load.expects:
                raise AssertionError(f"{load.path}: {answer.status} {text[:200]!r}")
            counts[slot] += 1

    threads = [threading.Thread(target=work, args=(slot,)) for slot in range(THREADS)]
    started = time.perf_counter()
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    return sum(counts) / (time.perf_counter() - started)


def ratio(port: int, real: Load, bare: Load) -> tuple[float, float, float]:
    """The middle of some rounds in which both take turns: real and bare rate, and their ratio."""
    pairs = [(rate(port, real), rate(port, bare)) for _ in range(ROUNDS)]
    reals, bares = zip(*pairs, strict=True)
    return statistics.median(reals), statistics.median(bares), statistics.median(a / b for a, b in pairs)


def live_touchpoints(numbers: range) -> tuple[str, int]:
    """Live touchpoints of these numbers, the first six of which stand in the answer for /trips; one to send to."""
    from intavo.accounts.actor import member_actor
    from intavo.accounts.models import Member
    from intavo.touchpoints.actions import make, save_draft, turn_on

    owner = member_actor(Member.objects.filter(role="owner").order_by("pk")[0])
    for number in numbers:
        row = make(owner, starter="news", name=f"Bench {number}")
        assert row.draft is not None
        document: dict[str, Any] = dict(row.draft.document)
        path = "/trips" if number < 6 else f"/elsewhere/{number}"
        document["show"]["sentences"][0]["pages"] = [{"kind": "below", "path": path}]
        save_draft(owner, touchpoint_id=row.pk, document=document, based_on=row.draft.number)
        last = turn_on(owner, touchpoint_id=row.pk)
    assert last.live is not None
    return last.public_id, last.live.number


def live_contact() -> tuple[str, int]:
    """A form for inquiries that is on, and stands on no page that the plans are asked for."""
    from intavo.accounts.actor import member_actor
    from intavo.accounts.models import Member
    from intavo.touchpoints.actions import make, save_draft, turn_on

    owner = member_actor(Member.objects.filter(role="owner").order_by("pk")[0])
    row = make(owner, starter="contact", name="Bench contact")
    assert row.draft is not None
    document: dict[str, Any] = dict(row.draft.document)
    document["show"]["sentences"][0]["pages"] = [{"kind": "below", "path": "/elsewhere"}]
    save_draft(owner, touchpoint_id=row.pk, document=document, based_on=row.draft.number)
    last = turn_on(owner, touchpoint_id=row.pk)
    assert last.live is not None
    return last.public_id, last.live.number


def nothing_else(database: str) -> None:
    """What the demo has on is turned off."""
    os.environ["DATABASE_URL"] = database
    import django

    django.setup()
    from intavo.accounts.actor import member_actor
    from intavo.accounts.models import Member
    from intavo.touchpoints.actions import turn_off
    from intavo.touchpoints.models import Touchpoint

    owner = member_actor(Member.objects.filter(role="owner").order_by("pk")[0])
    for row in Touchpoint.objects.filter(state="live"):
        turn_off(owner, touchpoint_id=row.pk)


def reachable_by_twelve() -> tuple[str, int]:
    """Twelve channels in a menu that comes on /trips, and a conversation in it; its id and revision."""
    from intavo.accounts.actor import member_actor
    from intavo.accounts.models import Member
    from intavo.channels.actions import add_channel
    from intavo.channels.models import Channel
    from intavo.touchpoints.actions import make, save_draft, turn_on

    owner = member_actor(Member.objects.filter(role="owner").order_by("pk")[0])
    for number in range(12 - Channel.objects.filter(business_id=owner.business_id).count()):
        add_channel(
            owner, document={"kind": "phone", "label": f"Line {number}", "handle": f"01632 96{number:04}"}
        )
    row = make(owner, starter="reach", name="Bench ways")
    assert row.draft is not None
    document: dict[str, Any] = dict(row.draft.document)
    document["steps"][0]["parts"].append({"id": "pt", "kind": "talk"})
    document["show"]["sentences"][0]["pages"] = [{"kind": "below", "path": "/trips"}]
    save_draft(owner, touchpoint_id=row.pk, document=document, based_on=row.draft.number)
    last = turn_on(owner, touchpoint_id=row.pk)
    assert last.live is not None
    return last.public_id, last.live.number


def called(port: int, path: str, body: dict[str, Any]) -> tuple[int, dict[str, Any]]:
    """One request of a visitor."""
    connection = http.client.HTTPConnection("127.0.0.1", port)
    connection.request("POST", path, json.dumps(body).encode(), headers())
    answer = connection.getresponse()
    return answer.status, json.loads(answer.read())


def talks_at_once(port: int, touchpoint: str, revision: int, count: int = 200) -> bool:
    """So many visitors who begin a conversation and say three things at the same time; nothing may be lost."""
    begun = {
        "touchpoint": touchpoint,
        "revision": revision,
        "page": {"url": f"{ORIGIN}/trips"},
        "device": "phone",
    }
    statuses: list[int] = []

    def talk(number: int) -> None:
        status, found = called(port, f"{_SITE}/talks", begun)
        statuses.append(status)
        for word in range(3):
            path = f"{_SITE}/talks/{found['talk']}/messages"
            statuses.append(called(port, path, {"id": f"{number}-{word}-word", "text": "Is it cold?"})[0])

    threads = [threading.Thread(target=talk, args=(number,)) for number in range(count)]
    started = time.perf_counter()
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    took = time.perf_counter() - started
    good = statuses.count(201) == 4 * count
    print(f"{f'talks, {count} at once':24} {took:8.2f} s    {statuses.count(201)} of {4 * count} taken")
    return good


def plan_body() -> bytes:
    """What the script asks."""
    return json.dumps(
        {
            "page": {"url": f"{ORIGIN}/trips", "title": "Trips"},
            "device": "desktop",
            "memory": {},
            "visitor": {"id": "6f0c", "language": "en-GB", "utc_offset": 0, "visits": 1},
        }
    ).encode()


def intake_body(touchpoint: str, revision: int) -> bytes:
    """What the script sends, from somebody new."""
    mark = secrets.token_hex(16)
    return json.dumps(
        {
            "id": mark,
            "touchpoint": touchpoint,
            "revision": revision,
            "step": "ask",
            "answers": {"email": f"{mark}@post.example", "name": "Ife"},
            "consents": {"news": True},
            "page": {"url": f"{ORIGIN}/trips"},
            "device": "phone",
            "visitor": {"id": "6f0c", "utc_offset": 0},
        }
    ).encode()


def inquiry_body(touchpoint: str, revision: int) -> bytes:
    """What the script sends, from one of three hundred who have asked before."""
    email = f"known{secrets.randbelow(300)}@post.example"
    return json.dumps(
        {
            "id": secrets.token_hex(16),
            "touchpoint": touchpoint,
            "revision": revision,
            "step": "write",
            "answers": {"email": email, "name": "Ife", "question": "Is there a canoe?"},
            "page": {"url": f"{ORIGIN}/elsewhere"},
            "device": "phone",
            "visitor": {"id": "6f0c", "utc_offset": 0},
        }
    ).encode()


def server_ratios() -> bool:
    """Plan and intake against the bare views."""
    cluster = Cluster("bench")
    try:
        cluster.start()
        cluster.drop_database()
        url = cluster.start()
        with psycopg.connect(url) as connection:
            connection.execute("CREATE TABLE bench_row (id bigserial PRIMARY KEY, body jsonb NOT NULL)")
        env = {
            "DJANGO_SETTINGS_MODULE": "tests.bench.settings",
            "INTAVO_PLAN_RATE": "10000000", "INTAVO_INTAKE_RATE": "10000000", "INTAVO_LOG_LEVEL": "ERROR",
        }  # fmt: skip
        stack = Stack(url, Ports.free_from(9100), env, RUN / "bench.log")
        os.environ.update({"INTAVO_SECRET_KEY": "bench", **env})
        stack.manage("migrate", "--verbosity", "0", "--skip-checks")
        stack.manage("load_demo", "--skip-checks")
        try:
            stack.start_outside()
            stack.start_front()
            stack.start_web()
            stack.wait(f"{stack.base_url}/sign-in")
            stack.wait(f"http://127.0.0.1:{stack.ports.site}/")
            good = main_thread(f"{stack.site_url}/trips")
            good &= console_list(stack.base_url)
            nothing_else(url)
            touchpoint, revision = live_touchpoints(range(20))
            good &= _measure(stack.ports.app, touchpoint, revision)
            return many_people() and good
        finally:
            stack.stop()
    finally:
        cluster.stop()


_SITE = "/e/0tterwick0demo01"


def _reaching(port: int, bare: Load) -> bool:
    """The plan with twelve channels on the page, and a conversation in which nothing is new."""
    touchpoint, revision = reachable_by_twelve()
    time.sleep(1.2)
    plan = Load(f"{_SITE}/plan", plan_body, (200,))
    begun = {
        "touchpoint": touchpoint,
        "revision": revision,
        "page": {"url": f"{ORIGIN}/trips"},
        "device": "phone",
    }
    talk = called(port, f"{_SITE}/talks", begun)[1]["talk"]
    connection = http.client.HTTPConnection("127.0.0.1", port)
    path = f"{_SITE}/talks/{talk}?after=9"
    connection.request("GET", path, headers=headers())
    poll = Load(path, bytes, (304,), "GET", connection.getresponse().headers["ETag"])
    good = True
    for name, load, least in (("plan, 12 channels", plan, 0.40), ("poll, nothing new", poll, 0.50)):
        got, base, share = ratio(port, load, bare)
        good &= share >= least
        print(f"{name:18} {got:7.0f}/s   bare {base:7.0f}/s   {share:6.1%}   at least {least:.0%}")
    return talks_at_once(port, touchpoint, revision) and good


def _measure(port: int, touchpoint: str, revision: int) -> bool:
    bare_json = Load("/bench/json", plan_body, (200,))
    bare_insert = Load("/bench/insert", plan_body, (201,))
    plan = Load(f"{_SITE}/plan", plan_body, (200,))
    intake = Load(f"{_SITE}/intake", lambda: intake_body(touchpoint, revision), (201,))
    contact, asked = live_contact()
    time.sleep(1.2)
    again = Load(f"{_SITE}/intake", lambda: inquiry_body(contact, asked), (201,))
    good = True
    for name, real, bare, least in (
        ("plan, 20", plan, bare_json, 0.60), ("intake", intake, bare_insert, 0.33),
        ("intake, of somebody known", again, bare_insert, None), ("plan, 200", plan, bare_json, None),
    ):  # fmt: skip
        if name == "plan, 200":
            good &= _reaching(port, bare_json)
            live_touchpoints(range(20, 200))
        got, base, share = ratio(port, real, bare)
        good &= least is None or share >= least
        wanted = "" if least is None else f"at least {least:.0%}"
        print(f"{name:26} {got:7.0f}/s   bare {base:7.0f}/s   {share:6.1%}   {wanted}".rstrip())
    return good


def main_thread(url: str) -> bool:
    """What the script takes of the main thread while a page loads on which touchpoints come at once, against what a
    bare script takes there.

    In a real browser, in the thread's own processor time: what the script runs, and what the page is laid out more
    than without it.
    """
    bare = BARE_SCRIPT.replace("BODY", json.dumps(plan_body().decode()))
    from playwright.sync_api import sync_playwright

    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=CHROMIUM, args=[*CHROMIUM_FLAGS])
        _loaded(browser, url)
        turns = [
            (_loaded(browser, url), _loaded(browser, url, bare), _loaded(browser, url, "")) for _ in range(7)
        ]
        browser.close()
    shares, ran, laid_out = [], [], []
    for ours, other, none in turns:
        ran.append(ours["ScriptDuration"] - none["ScriptDuration"])
        laid_out.append(_layout(ours) - _layout(none))
        shares.append(ran[-1] / (other["ScriptDuration"] - none["ScriptDuration"]))
    runs, lays_out, share = map(statistics.median, (ran, laid_out, shares))
    print(
        f"{'script, a page loads':24} {runs:8.3f} ms   (layout and style {lays_out:.1f} ms)   "
        f"{share:.1f} times a bare one   at most {MAIN_THREAD}"
    )
    return share <= MAIN_THREAD


def console_list(base_url: str) -> bool:
    """How long the list takes at a first visit with a processor so many times slower, and what is sent until it
    stands there.
    """
    from playwright.sync_api import sync_playwright

    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=CHROMIUM, args=[*CHROMIUM_FLAGS])
        page = browser.new_page()
        page.goto(f"{base_url}/sign-in")
        page.get_by_label("Email").fill("morwenna@otterwick.example")
        page.get_by_label("Password").fill("paddle-demo")
        page.get_by_role("button", name="Sign in").click()
        page.wait_for_url("**/follow-up**")
        cookies: Any = page.context.cookies()
        visits = [_first_visit(browser, f"{base_url}/follow-up", cookies) for _ in range(ROUNDS)]
        browser.close()
    took, sent = map(statistics.median, zip(*visits, strict=True))
    print(
        f"{f'list, {SLOWER} times slower':24} {took:8.0f} ms   at most {LIST_MS} ms   "
        f"{sent / 1000:.0f} KB of code and styles   at most {CONSOLE_KB} KB"
    )
    return took <= LIST_MS and sent <= 1000 * CONSOLE_KB


def _first_visit(browser: Browser, url: str, cookies: Any) -> tuple[float, float]:
    """Milliseconds until the first row can be pressed, and bytes of scripts and styles as sent."""
    context = browser.new_context()
    context.add_cookies(cookies)
    page = context.new_page()
    context.new_cdp_session(page).send("Emulation.setCPUThrottlingRate", {"rate": SLOWER})
    page.add_init_script(ROW_IS_THERE)
    page.goto(url, wait_until="commit")
    took, sent = page.evaluate(
        "async () => [await window.rowIsThere, performance.getEntriesByType('resource')"
        ".filter((one) => /\\.(js|css)$/.test(new URL(one.name).pathname))"
        ".reduce((all, one) => all + one.transferSize, 0)]"
    )
    context.close()
    return took, sent


def _layout(measured: dict[str, float]) -> float:
    return measured["LayoutDuration"] + measured["RecalcStyleDuration"]


def _loaded(browser: Browser, url: str, script: str | None = None) -> dict[str, float]:
    """The times of a page's main thread, in milliseconds, some two seconds after it was opened; with another script
    in the place of ours.
    """
    context = browser.new_context()
    page = context.new_page()
    session = context.new_cdp_session(page)
    session.send("Performance.enable", {"timeDomain": "threadTicks"})
    if script is not None:
        page.route("**/e/*.js", lambda route: route.fulfill(body=script, content_type="text/javascript"))
    page.goto(url)
    page.wait_for_timeout(1800)
    measured = {one["name"]: 1000 * one["value"] for one in session.send("Performance.getMetrics")["metrics"]}
    context.close()
    return measured


def timed(call: Callable[[], object], repeat: int = 100) -> float:
    """The best time of a call, in milliseconds."""
    best = min(_once(call) for _ in range(repeat))
    return best * 1000


def _once(call: Callable[[], object]) -> float:
    started = time.perf_counter()
    call()
    return time.perf_counter() - started


def core_times() -> bool:
    """The functions of the hours and the verdicts, in milliseconds."""
    year = AT + timedelta(days=365)
    calls: dict[str, Callable[[], object]] = {
        "is_open": lambda: is_open(HOURS, AT),
        "next_closing": lambda: next_closing(HOURS, AT),
        "add_open_time, 2 h": lambda: add_open_time(HOURS, AT, timedelta(hours=2)),
        "open_time, a year": lambda: open_time(HOURS, AT, year),
        "open_stretches, a year": lambda: open_stretches(HOURS, AT, year),
        "open_time, five years": lambda: open_time(HOURS, AT, AT + timedelta(days=5 * 365)),
    }
    good = True
    for name, call in calls.items():
        took = timed(call)
        good &= took < 10
        print(f"{name:24} {took:8.3f} ms   under 10 ms")
    show = Show(sentences=(Sentence(pages=(PagePattern(kind="below", path="/trips"),)),))
    visit = Visit.model_validate_json(plan_body())
    each: dict[int, float] = {}
    for count, most in ((20, 0.2), (200, 2.0)):
        many = [
            Compiled(f"tp_{n}", TouchpointState.LIVE, frozenset({"otterwick.localhost"}), show, HOURS.zone)
            for n in range(count)
        ]
        took = timed(lambda many=many: [decide(one, visit, AT) for one in many])  # type: ignore[misc]
        good &= count == 20 or took < most
        each[count] = 1000 * took / count
        print(f"{f'decide, {count}':24} {took:8.3f} ms   under {most} ms   {each[count]:.2f} µs each")
    print(f"{'decide, 200 to 20, each':24} {each[200] / each[20]:8.2f}      under 1.5")
    return good and each[200] / each[20] < 1.5


def nothing_is_lost() -> bool:
    """Two thousand answers from twenty clients while web, worker and database are killed."""
    told = kill_while_sending(2_000)
    killed = ", ".join(f"{what} {times} times" for what, times in sorted(told.killed.items()))
    print(f"{told.sent:,} acknowledged, {len(told.wrong)} of them wrong; killed: {killed}")
    for one in told.wrong[:10]:
        print(f"  {one}")
    return not told.wrong and told.sent == 2_000


def no_faults() -> bool:
    """Ten rounds of odd requests from a seed by chance, which is said."""
    from tests.running.fuzz import fuzz

    seed, cluster = secrets.randbelow(2**31), Cluster("fuzz")
    try:
        told = fuzz(10, seed, cluster.start())
    finally:
        cluster.stop()
    print(f"odd requests, seed {seed}: {told.statuses.total()}, {len(told.wrong)} answered by a fault")
    for wrong in told.wrong[:20]:
        print(" ", wrong)
    return not told.wrong


def faults_are_caught() -> bool:
    """Small faults put into the rules, and how many of them the core's tests catch."""
    from tests.bench.mutants import AT_LEAST, run

    made, caught, left = run()
    print(
        f"{'faults in the rules':24} {caught / made:8.0%}      of {made} are caught, at least {AT_LEAST:.0%}"
    )
    for one in left[:20]:
        print(f"  not caught: {one}")
    return caught >= AT_LEAST * made


def reference() -> None:
    """What this machine is: bars in milliseconds are for one on which this takes some 25."""

    def turn() -> None:
        sum(number % 7 for number in range(400_000))

    print(f"{'this machine':24} {timed(turn, 30):8.1f} ms   for a fixed turn of Python, which is no bar")


def main() -> int:
    """Everything; 1 if something is under its bar."""
    reference()
    good = core_times()
    good &= server_ratios()
    good &= nothing_is_lost()
    good &= no_faults()
    good &= faults_are_caught()
    return 0 if good else 1


if __name__ == "__main__":
    sys.exit(main())
