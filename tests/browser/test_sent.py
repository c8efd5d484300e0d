"""What goes over the wire, as a browser at its first visit gets it."""

import re
from collections.abc import Callable

from playwright.sync_api import Page

from scripts.cluster import ROOT
from scripts.stack import Stack

# The console's are its scripts and styles with the heads of their answers, until the list stands there.
CONSOLE = 130 * 1000


def test_the_script_costs_a_page_no_more_than_its_page_for_developers_says(
    other_device: Callable[..., Page], stack: Stack
) -> None:
    said = dict(
        re.findall(
            r"^\| ([a-z][^|]+) \| (\d+) KB \|", (ROOT / "docs" / "script.md").read_text(), re.MULTILINE
        )
    )
    kinds = {
        "the script": r"/e/[\w-]+\.js$",
        "what may show on the page": "/plan$",
        "its second file": "/more\\.js$",
        "what a touchpoint shows of the business: hours, questions, free times": "/more$",
    }
    assert said.keys() == kinds.keys()
    page = other_device()
    wire = page.context.new_cdp_session(page)
    wire.send("Network.enable")
    names: dict[str, str] = {}
    came: list[tuple[str, float]] = []
    wire.on("Network.responseReceived", lambda one: names.update({one["requestId"]: one["response"]["url"]}))
    wire.on(
        "Network.loadingFinished",
        lambda one: came.append((names.get(one["requestId"], ""), one["encodedDataLength"])),
    )
    page.goto(f"{stack.site_url}/contact")
    page.wait_for_load_state("networkidle")
    ours = [
        (name.removeprefix(stack.base_url), size) for name, size in came if name.startswith(stack.base_url)
    ]
    for name, size in ours:
        kind = next(kind for kind, pattern in kinds.items() if re.search(pattern, name))
        assert size <= int(said[kind]) * 1000, (name, size)
    assert sum(name.endswith((".js", "/plan")) for name, _ in ours) == 3, ours


def test_the_console_comes_in_few_bytes(other_device: Callable[..., Page], stack: Stack) -> None:
    page = other_device()
    wire = page.context.new_cdp_session(page)
    wire.send("Network.enable")
    came: dict[str, float] = {}
    names: dict[str, str] = {}
    wire.on("Network.responseReceived", lambda one: names.update({one["requestId"]: one["response"]["url"]}))
    wire.on("Network.loadingFinished", lambda one: came.update({one["requestId"]: one["encodedDataLength"]}))
    page.goto(f"{stack.base_url}/follow-up")
    page.get_by_role("heading", name="Follow-up").wait_for()
    page.wait_for_load_state("networkidle")
    sizes = {names[one]: size for one, size in came.items() if "/static/console/" in names.get(one, "")}
    code = {name: size for name, size in sizes.items() if name.endswith((".js", ".css"))}
    # The list is asked for once, with the page and not after its code.
    lists = page.evaluate("""() => performance.getEntriesByType('resource')
      .filter((one) => one.name.endsWith('/api/follow-ups?after=')).map((one) => one.initiatorType)""")
    assert lists == ["link"]
    # What opens by a key is there once there is nothing else to do.
    page.keyboard.press("Control+k")
    page.get_by_label("Find or do").wait_for()
    assert code
    assert sum(code.values()) <= CONSOLE, sorted(code.items(), key=lambda one: -one[1])[:8]
