"""Every stance on published templates and frameworks, on a desktop and a phone.

`python -m tests.browser.hosts [<part of a name>]`. The pages are what `package.json` here names, installed by
`make hosts` and served on a host of the demo business; what they load from elsewhere is left out, or comes from the
package that they would have loaded. A picture of each page with each stance is left in `.run/hosts`.
"""

import re
import sys
import threading
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field
from functools import partial
from http.server import SimpleHTTPRequestHandler, ThreadingHTTPServer
from pathlib import Path
from typing import Any

import psycopg
from playwright.sync_api import Browser, Page, sync_playwright

from demo.business import SITE_KEY
from scripts.cluster import Cluster
from scripts.ports import claim_port
from scripts.stack import CHROMIUM, CHROMIUM_FLAGS, RUN, Ports, Stack
from tests.browser.pages.site import settled

HERE = Path(__file__).parent / "node_modules"
SCREENS = {"desktop": {"width": 1280, "height": 800}, "phone": {"width": 390, "height": 844}}
STANCES = {
    "pop-up": "tide-table", "card": "parting-card", "bar": "group-booking", "side-panel": "call-me-back",
    "full-page": "winter-hire", "button": "ask-the-boathouse", "inline": "tide-table",
}  # fmt: skip
_ELSEWHERE = re.compile(r"<(script|link)\b[^>]*https?://(?!127)[^>]*>(</script>)?")
_PACKAGE = re.compile(r"https?://[^\"']*?/(bootstrap)@?[^/\"']*/(dist/[^\"']+)")

# What the page says of itself, to be the same once everything of ours has gone.
_TRACE = """() => [document.documentElement.style.cssText, document.body.style.cssText,
  document.documentElement.scrollHeight, document.documentElement.scrollWidth]"""
# Whether the middle of the card is really what stands there.
_ON_TOP = """(card) => { const box = card.getBoundingClientRect()
  const found = document.elementFromPoint(box.left + box.width / 2, box.top + Math.min(box.height, innerHeight - box.top) / 2)
  return found === card.getRootNode().host }"""
# Links of the page's own at the top of the screen, and those of them that cannot be clicked any more.
_LINKS = """() => { window.clickable = (one) => { const box = one.getBoundingClientRect()
  const there = document.elementFromPoint(box.left + box.width / 2, box.top + box.height / 2)
  return box.width > 0 && box.top >= 0 && !!there && (there === one || one.contains(there)) }
  window.links = [...document.querySelectorAll('nav a, header a, nav button')]
    .filter((one) => one.getBoundingClientRect().bottom <= 160 && clickable(one)) }"""
# A slot before the foot of the page, in view; and whether anything that stands there can be reached at all.
_SLOT = """(slug) => { const slot = document.createElement('div')
  slot.textContent = 'Here.'
  const foot = document.querySelector('footer')
  if (foot) foot.before(slot); else document.body.append(slot)
  const look = () => slot.scrollIntoView({ block: 'center', behavior: 'instant' })
  look()
  const box = slot.getBoundingClientRect()
  window.reached = document.elementFromPoint(box.left + box.width / 2, box.top + box.height / 2) === slot
  slot.dataset.intavo = slug
  return new Promise((filled) => { const wait = () => slot.firstElementChild
    ? (look(), filled()) : setTimeout(wait, 50); wait() }) }"""
_COVERED = "links.filter((one) => !clickable(one)).length"


@dataclass
class Found:
    """How many were tried, and what was wrong."""

    tried: int = 0
    wrong: list[str] = field(default_factory=list)


class _Pages(SimpleHTTPRequestHandler):
    """The pages as they are published, with our line in their heads."""

    def __init__(self, line: str, *args: Any) -> None:
        self.line = line
        super().__init__(*args, directory=str(HERE))

    def do_GET(self) -> None:  # the name is the standard library's
        path, _, query = self.path.partition("?")
        file = HERE / path.lstrip("/")
        if not path.endswith(".html") or not file.is_file():
            return super().do_GET()
        text = _ELSEWHERE.sub("", _PACKAGE.sub(r"/\1/\2", file.read_text()))
        if query != "bare":
            text = text.replace("</head>", f"{self.line}</head>", 1)
        body = text.encode()
        self.send_response(200)
        self.send_header("Content-Type", "text/html; charset=utf-8")
        self.send_header("Content-Length", str(len(body)))
        self.end_headers()
        self.wfile.write(body)
        return None

    def log_message(self, format: str, *args: object) -> None:
        """Nothing is said."""


@contextmanager
def _served(stack: Stack) -> Iterator[str]:
    """Where the pages are while this lasts."""
    line = f'<script async src="{stack.base_url}/e/{SITE_KEY}.js"></script>'
    server = ThreadingHTTPServer(("127.0.0.1", claim_port(9460)), partial(_Pages, line))
    threading.Thread(target=server.serve_forever, daemon=True).start()
    try:
        yield f"http://otterwick.localhost:{server.server_port}"
    finally:
        server.shutdown()


@contextmanager
def _running() -> Iterator[Stack]:
    """The application with the demo data; the clock stands at 14:05."""
    cluster = Cluster("hosts")
    try:
        url = re.sub(r"/\w+$", "/intavo_hosts", cluster.start())
        with psycopg.connect(re.sub(r"/\w+$", "/postgres", url), autocommit=True) as connection:
            connection.execute("DROP DATABASE IF EXISTS intavo_hosts WITH (FORCE)")
            connection.execute("CREATE DATABASE intavo_hosts")
        env = {
            "INTAVO_NOW": "2026-11-24T14:05:00+00:00",
            "INTAVO_PLAN_RATE": "100000",
            "INTAVO_LOG_LEVEL": "ERROR",
        }
        stack = Stack(url, Ports.free_from(9400), env, RUN / "hosts.log")
        try:
            stack.manage("migrate", "--verbosity", "0", "--skip-checks")
            stack.manage("load_demo", "--skip-checks")
            stack.start()
            yield stack
        finally:
            stack.stop()
    finally:
        cluster.stop()


def pages(part: str = "") -> list[str]:
    """Addresses of the pages that are there, by their packages."""
    found = [file for name in ("dist/index.html", "index.html") for file in HERE.glob(f"*/{name}")]
    packages: dict[str, Path] = {}
    for one in found:
        packages.setdefault(one.relative_to(HERE).parts[0], one)
    return [f"/{packages[name].relative_to(HERE).as_posix()}" for name in sorted(packages) if part in name]


def _errors(page: Page) -> list[str]:
    said: list[str] = []
    page.on("pageerror", lambda error: said.append(str(error)))  # Playwright asks for a function of our own
    return said


def try_page(browser: Browser, site: str, path: str, screen: str, found: Found) -> None:
    """Every stance on one page: seen, on top, beside the page's own navigation, and gone without a trace."""
    name = f"{path.split('/')[1]} on a {screen}"
    context = browser.new_context(viewport=SCREENS[screen], reduced_motion="reduce", locale="en-GB")  # type: ignore[arg-type]
    bare = context.new_page()
    own = _errors(bare)
    bare.goto(f"{site}{path}?bare")
    settled(bare)
    bare.close()
    page = context.new_page()
    said = _errors(page)
    with page.expect_response(re.compile("/plan$")):
        page.goto(f"{site}{path}")
    settled(page)
    for stance, slug in STANCES.items():
        found.tried += 1
        try:
            wrong = _try(page, stance, slug)
            page.screenshot(path=RUN / "hosts" / f"{path.split('/')[1]}-{screen}-{stance}.png")
            wrong += _gone(page, stance)
        except Exception as error:  # whatever it is, it is told with its page
            wrong = [f"{error!r}"[:200]]
        found.wrong += [f"{name}, {stance}: {one}" for one in wrong]
    found.wrong += [f"{name}: {one}" for one in said if one not in own]
    context.close()


def _try(page: Page, stance: str, slug: str) -> list[str]:
    page.evaluate(f"window.trace = ({_TRACE})()")
    page.evaluate(_LINKS)
    page.evaluate(_SLOT if stance == "inline" else "slug => intavo.open(slug)", slug)
    card = page.locator(f"[data-intavo-touchpoint={stance}] .card").first
    card.wait_for(timeout=5_000)
    settled(page)
    box = card.bounding_box()
    size = page.viewport_size
    assert box is not None
    assert size is not None
    wrong = []
    if (
        box["x"] < -1
        or box["x"] + box["width"] > size["width"] + 1
        or box["y"] < -1
        or box["y"] > size["height"] - 20
    ):
        wrong.append(f"not on the screen: {box}")
    if not card.evaluate(_ON_TOP) and (stance != "inline" or page.evaluate("reached")):
        wrong.append("something of the page's stands over it")
    if stance == "bar" and page.evaluate(_COVERED):
        wrong.append("it covers links of the page's own")
    return wrong


def _gone(page: Page, stance: str) -> list[str]:
    if stance == "inline":
        page.evaluate("document.querySelector('[data-intavo]').remove(), scrollTo(0, 0)")
    elif stance == "button":
        page.locator("[data-intavo-touchpoint=button] .face[aria-expanded=true]").first.click()
    else:
        page.evaluate("intavo.close()")
    settled(page)
    before, after = page.evaluate(f"[window.trace, ({_TRACE})()]")
    return [] if before == after else [f"it left a trace: {before} became {after}"]


def main() -> int:
    """Try them all; 1 if something was wrong."""
    (RUN / "hosts").mkdir(parents=True, exist_ok=True)
    found = Found()
    with _running() as stack, _served(stack) as site, sync_playwright() as playwright:
        browser = playwright.chromium.launch(
            executable_path=CHROMIUM, args=[*CHROMIUM_FLAGS], ignore_default_args=["--hide-scrollbars"]
        )
        for path in pages(sys.argv[1] if len(sys.argv) > 1 else ""):
            for screen in SCREENS:
                try_page(browser, site, path, screen, found)
        browser.close()
    for one in found.wrong:
        print(one)
    print(f"{found.tried} tried, {len(found.wrong)} wrong; pictures in .run/hosts")
    return int(bool(found.wrong) or not found.tried)


if __name__ == "__main__":
    sys.exit(main())
