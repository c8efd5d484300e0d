"""What goes over the wire, as the running server sends it."""

import gzip
import re
from urllib.parse import urlsplit
from urllib.request import Request, urlopen

import brotli
import pytest
from playwright.sync_api import Page

from scripts.stack import Stack

# The console's are its scripts and styles with the heads of their answers, until the list stands there.
LOADER, CONSOLE = 12 * 1024, 130 * 1000


def sent(address: str, takes: str) -> tuple[bytes, str, str]:
    """The bytes that come for an address, how they are packed, and what the answer depends on."""
    with urlopen(Request(address, headers={"Accept-Encoding": takes}), timeout=20) as answer:
        return answer.read(), answer.headers.get("Content-Encoding", ""), answer.headers.get("Vary", "")


@pytest.mark.parametrize(
    ("takes", "how"), [("gzip, deflate, br, zstd", "br"), ("gzip", "gzip"), ("identity", ""), ("", "")]
)
def test_scripts_are_sent_as_the_asker_takes_them(stack: Stack, takes: str, how: str) -> None:
    site = urlsplit(stack.site_url)
    asked = Request(f"http://127.0.0.1:{site.port}/contact", headers={"Host": site.netloc})
    page = urlopen(asked, timeout=20).read().decode()
    loader = re.search(r'src="([^"]+/e/[^/"]+\.js)"', page)
    assert loader
    unpack = {"br": brotli.decompress, "gzip": gzip.decompress, "": bytes}[how]
    plain = sent(loader[1], "identity")[0]
    for address in (loader[1], f"{stack.base_url}/static/touch/more.js"):
        body, packed, vary = sent(address, takes)
        assert (packed, "Accept-Encoding" in vary) == (how, True), address
        whole = unpack(body)
        assert whole == plain or address != loader[1]
        assert len(body) < len(whole) or not how
    if how:
        assert len(sent(loader[1], takes)[0]) <= LOADER


def test_the_console_comes_in_few_bytes(owner: Page, stack: Stack) -> None:
    page = owner.context.browser.new_context(storage_state=owner.context.storage_state()).new_page()
    wire = page.context.new_cdp_session(page)
    wire.send("Network.enable")
    came: dict[str, float] = {}
    names: dict[str, str] = {}
    wire.on("Network.responseReceived", lambda one: names.update({one["requestId"]: one["response"]["url"]}))
    wire.on("Network.loadingFinished", lambda one: came.update({one["requestId"]: one["encodedDataLength"]}))
    page.goto(f"{stack.base_url}/follow-up")
    page.get_by_role("heading", name="Follow-up").wait_for()
    page.wait_for_timeout(500)
    sizes = {names[one]: size for one, size in came.items() if "/static/console/" in names.get(one, "")}
    code = {name: size for name, size in sizes.items() if name.endswith((".js", ".css"))}
    # The list is asked for once, with the page and not after its code.
    lists = page.evaluate("""() => performance.getEntriesByType('resource')
      .filter((one) => one.name.endsWith('/api/follow-ups?after=')).map((one) => one.initiatorType)""")
    assert lists == ["link"]
    # What opens by a key is there once there is nothing else to do.
    page.keyboard.press("Control+k")
    page.get_by_label("Find or do").wait_for()
    page.context.close()
    assert code
    assert sum(code.values()) <= CONSOLE, sorted(code.items(), key=lambda one: -one[1])[:8]


def test_what_members_are_told_is_packed_and_kept_by_nobody(owner: Page, stack: Stack) -> None:
    for path, packs in (
        ("/api/follow-ups", True),
        ("/api/people", True),
        ("/api/mail-in", False),
        ("/api/me", False),
    ):
        answer = owner.request.get(f"{stack.base_url}{path}", headers={"Accept-Encoding": "gzip"})
        assert answer.headers["cache-control"] == "private, no-store", path
        assert (answer.headers.get("content-encoding") == "gzip") is packs, path
    signed = owner.request.get(f"{stack.base_url}/_allauth/browser/v1/auth/session")
    assert "no-store" in signed.headers["cache-control"]
