"""Takes the pictures in docs/screenshots from the demo data,
with the clock at Tue 24 Nov 2026 14:05 London.
"""

import os
import re
import sys
from pathlib import Path

from playwright.sync_api import Browser, Page, ViewportSize, sync_playwright

from .cluster import ROOT, Cluster
from .stack import CHROMIUM, CHROMIUM_FLAGS, RUN, Ports, Stack

NOW = "2026-11-24T14:05:00+00:00"
OUT = ROOT / "docs" / "screenshots"
DESKTOP: ViewportSize = {"width": 1280, "height": 800}
PHONE: ViewportSize = {"width": 390, "height": 780}


def _take(page: Page, name: str) -> None:
    page.wait_for_timeout(900)
    page.screenshot(path=OUT / f"{name}.png")


def _sign_in(page: Page, stack: Stack) -> None:
    page.goto(f"{stack.base_url}/sign-in")
    page.get_by_label("Email").fill("morwenna@otterwick.example")
    page.get_by_label("Password").fill("paddle-demo")
    page.get_by_role("button", name="Sign in").click()
    page.wait_for_selector("[data-id]")


def _site(browser: Browser, stack: Stack, name: str, size: ViewportSize) -> None:
    """The demo site as a stranger meets it: the pop-up over the bar, and the other stances side by side."""
    page = browser.new_context(viewport=size).new_page()
    page.goto(f"{stack.site_url}/trips")
    page.wait_for_selector("dialog", timeout=20_000)
    _take(page, name)


def _stances(browser: Browser, stack: Stack) -> None:
    context = browser.new_context(viewport=DESKTOP)
    page = context.new_page()
    page.goto(f"{stack.site_url}/contact")
    page.wait_for_function("window.intavo")
    page.wait_for_timeout(800)
    page.get_by_role("button", name="Reach us").click()
    page.get_by_role("button", name=re.compile("Chat with us")).click()
    _take(page, "contact-menu")
    page.goto(f"{stack.site_url}/lessons")
    page.wait_for_function("window.intavo")
    for slug in ("group-booking", "parting-card", "ask-the-boathouse"):
        page.evaluate("slug => intavo.open(slug)", slug)
        page.wait_for_timeout(900)
    _take(page, "bar-card-button")
    page.goto(f"{stack.site_url}/hire")
    page.wait_for_selector("[data-intavo-touchpoint=in-page]")
    page.mouse.wheel(0, 420)
    page.wait_for_timeout(600)
    page.evaluate("intavo.open('call-me-back')")
    _take(page, "in-page-and-panel")


def _visitor(browser: Browser, stack: Stack) -> None:
    for name, size in (("demo-site", DESKTOP), ("demo-site-phone", PHONE)):
        _site(browser, stack, name, size)
    _stances(browser, stack)
    plain = browser.new_context(viewport=DESKTOP, java_script_enabled=False).new_page()
    plain.goto(f"{stack.base_url}/t/otterwick/boathouse-question")
    _take(plain, "hosted-page")


def _editor(page: Page, stack: Stack, touchpoint: str, part: str, name: str) -> None:
    page.goto(f"{stack.base_url}/touchpoints")
    page.get_by_role("link", name=touchpoint, exact=True).click()
    page.get_by_role("button", name=re.compile(f"^{part}")).first.click()
    page.wait_for_timeout(1500)
    _take(page, name)


def _console(browser: Browser, stack: Stack) -> None:
    context = browser.new_context(viewport=DESKTOP)
    page = context.new_page()
    page.goto(f"{stack.base_url}/sign-in")
    page.wait_for_selector("h1")
    _sign_in(page, stack)
    page.get_by_role("link", name=re.compile("Ife Dunmore")).click()
    _take(page, "follow-up")
    for name, path in (
        ("touchpoints", "/touchpoints"), ("hours", "/hours"), ("told", "/hours/told"),
        ("channels", "/hours/channels"), ("business", "/business"),
    ):  # fmt: skip
        page.goto(f"{stack.base_url}{path}")
        if name == "business":
            page.get_by_role("heading", name="House style").scroll_into_view_if_needed()
        if name == "channels":
            page.get_by_text("Open · now").wait_for()
        _take(page, name)
    page.goto(f"{stack.base_url}/touchpoints?new")
    page.get_by_role("radio", name=re.compile("^A booking for a group")).check()
    page.wait_for_timeout(1500)
    _take(page, "starters")
    _editor(page, stack, "Tide table", "Headline", "editor")
    page.goto(f"{stack.base_url}/people")
    page.get_by_label("Another condition").select_option(label="did something")
    page.get_by_label("Through which touchpoint, 1").select_option("Tide table")
    page.get_by_label("In how many days, 1").fill("30")
    page.get_by_label("In how many days, 1").press("Tab")
    page.get_by_text("are perhaps of one person").click()
    page.wait_for_timeout(800)
    _take(page, "people")
    page.goto(f"{stack.base_url}/touchpoints/rehearse?path=/trips")
    page.get_by_role("button", name="Tide table").click()
    page.wait_for_timeout(800)
    _take(page, "rehearsal")
    page.goto(f"{stack.base_url}/follow-up")
    page.get_by_text("pasco@quay-lane.example").first.click()
    page.get_by_role("log", name="What was said").wait_for()
    _take(page, "conversation")
    phone = browser.new_context(viewport=PHONE, storage_state=context.storage_state()).new_page()
    phone.goto(f"{stack.base_url}/follow-up")
    _take(phone, "follow-up-phone")


def _mails(browser: Browser, stack: Stack) -> None:
    console = browser.new_context(viewport=DESKTOP).new_page()
    _sign_in(console, stack)
    console.get_by_role("link", name=re.compile("Ife Dunmore")).click()
    console.get_by_role("textbox", name=re.compile("^Answer to")).fill(
        "Hi Ife, Sunday still has two seats. We push off at ten to seven, so meet us at the slip at six."
    )
    console.get_by_role("button", name=re.compile("^Send")).click()
    console.get_by_text("Your answer is on its way").wait_for()
    page = browser.new_context(viewport={"width": 900, "height": 520}).new_page()
    for name, subject in (("answer-mail", "Re: your question"),):
        page.goto(stack.mail_url)
        # An answer waits some seconds, in which it could be taken back.
        for _ in range(30):
            if page.get_by_role("link", name=subject).count():
                break
            page.wait_for_timeout(1000)
            page.reload()
        page.get_by_role("link", name=subject).first.click()
        _take(page, name)


def main() -> int:
    """Take all pictures."""
    OUT.mkdir(parents=True, exist_ok=True)
    cluster = Cluster("shots")
    try:
        cluster.start()
        cluster.drop_database()
        stack = Stack(cluster.start(), Ports.free_from(8900), {"INTAVO_NOW": NOW}, Path(RUN / "shots.log"))
        try:
            stack.manage("migrate", "--verbosity", "0", "--skip-checks")
            stack.manage("load_demo", "--skip-checks")
            stack.start()
            with sync_playwright() as play:
                # Native date boxes go by the language of the browser itself.
                browser = play.chromium.launch(
                    executable_path=CHROMIUM, args=[*CHROMIUM_FLAGS], env={**os.environ, "LANGUAGE": "en_GB"}
                )
                _visitor(browser, stack)
                _console(browser, stack)
                _mails(browser, stack)
                browser.close()
        finally:
            stack.stop()
    finally:
        cluster.stop()
    return 0


if __name__ == "__main__":
    sys.exit(main())
