"""Takes the pictures in docs/screenshots from the demo data, with the clock at Tue 24 Nov 2026 14:05 London."""

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


def _visitor(browser: Browser, stack: Stack) -> None:
    for name, size in (("demo-site", DESKTOP), ("demo-site-phone", PHONE)):
        page = browser.new_context(viewport=size).new_page()
        page.goto(f"{stack.site_url}/trips")
        page.wait_for_selector("dialog", timeout=20_000)
        _take(page, name)
    page = browser.new_context(viewport=DESKTOP).new_page()
    page.goto(f"{stack.site_url}/contact")
    page.wait_for_function("window.intavo")
    page.evaluate("intavo.open('boathouse-question')")
    page.get_by_label("Your question").fill("Is the sunrise trip on if it rains?")
    page.get_by_label("Your email").fill("nell.harrow@post.example")
    page.get_by_label("Your name").fill("Nell Harrow")
    page.get_by_role("button", name="Send my question").click()
    page.get_by_text("We answer today").wait_for()
    _take(page, "thanks-step")
    plain = browser.new_context(viewport=DESKTOP, java_script_enabled=False).new_page()
    plain.goto(f"{stack.base_url}/t/otterwick/group-booking")
    _take(plain, "hosted-page")


def _console(browser: Browser, stack: Stack) -> None:
    context = browser.new_context(viewport=DESKTOP)
    page = context.new_page()
    page.goto(f"{stack.base_url}/sign-in")
    page.wait_for_selector("h1")
    _take(page, "sign-in")
    _sign_in(page, stack)
    page.get_by_role("link", name=re.compile("Ife Dunmore")).click()
    _take(page, "follow-up")
    for name, path in (("touchpoints", "/touchpoints"), ("hours", "/hours"), ("business", "/business")):
        page.goto(f"{stack.base_url}{path}")
        _take(page, name)
    page.goto(f"{stack.base_url}/touchpoints?new")
    _take(page, "new-touchpoint")
    page.goto(f"{stack.base_url}/touchpoints")
    page.get_by_role("link", name="Tide table").click()
    page.get_by_role("button", name="Headline").click()
    _take(page, "editor")
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
    console.wait_for_timeout(1500)
    page = browser.new_context(viewport={"width": 900, "height": 520}).new_page()
    for name, subject in (("thank-you-mail", "We have your question"), ("answer-mail", "Re: your question")):
        page.goto(stack.mail_url)
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
                browser = play.chromium.launch(executable_path=CHROMIUM, args=[*CHROMIUM_FLAGS])
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
