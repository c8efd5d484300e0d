"""The business's site as visitors meet it: its pages, and what stands on them."""

import json
import re
from collections.abc import Callable
from typing import Any

import httpx
from playwright.sync_api import BrowserContext, Locator, Page, Route, expect

from scripts.stack import Stack
from tests.waiting import until

from .mail import mailed

HOST = "[data-intavo-touchpoint={}]"
TIDE = "The month’s safe paddling hours, on one page"
ON_TRIPS = "/trips"
# The time of a visitor's page can be set ahead: nobody types as fast as a test, and what is sent at once is set aside.
AHEAD = """{ const now = performance.now.bind(performance); let ahead = 0
performance.now = () => now() + ahead; window.later = (by) => { ahead += by } }"""
# Two pictures of the browser later everything that moves for a while has arrived.
_STILL = """async () => {
  const pictures = async () => { for (let left = 2; left; left--) await new Promise(requestAnimationFrame) }
  await pictures()
  const roots = [document, ...[...document.querySelectorAll('*')].map((one) => one.shadowRoot).filter(Boolean)]
  const moving = roots.flatMap((root) => root.getAnimations())
    .filter((one) => Number.isFinite(one.effect.getComputedTiming().endTime))
  await Promise.allSettled(moving.map((one) => one.finished))
  await pictures()
}"""


def on(context: BrowserContext, stack: Stack, path: str) -> Page:
    """A page of the demo site, its plan in."""
    page = context.new_page()
    with page.expect_response(re.compile("/plan$")):
        page.goto(f"{stack.site_url}{path}")
    return page


def by_hand(context: BrowserContext, stack: Stack) -> Page:
    """A page with a pop-up that comes after its seconds, whose time is moved by hand."""
    page = context.new_page()
    page.clock.install()
    with page.expect_response(re.compile("/plan$")):
        page.goto(f"{stack.site_url}/trips")
    return page


def settled(page: Page) -> None:
    """Until nothing on the page moves any more."""
    page.evaluate(_STILL)


def later(page: Page, seconds: float = 5) -> None:
    """So much later by the page's own reckoning: nobody types as fast as a test."""
    page.evaluate("(by) => window.later(by)", seconds * 1000)


def opened(page: Page, slug: str, stance: str) -> Locator:
    """A touchpoint opened by its short name; its card."""
    page.evaluate("slug => intavo.open(slug)", slug)
    card = page.locator(f"{HOST.format(stance)} .card")
    expect(card.first).to_be_visible()
    # It arrives, unless the visitor asks for less motion.
    card.first.evaluate("one => Promise.all(one.getAnimations().map(each => each.finished))")
    return card.first


def planned(page: Page | BrowserContext, change: Callable[[dict[str, Any]], None]) -> None:
    """Every plan is changed on its way."""

    def changed(route: Route) -> None:
        answer = route.fetch()
        plan = answer.json()
        change(plan)
        route.fulfill(response=answer, json=plan)

    page.route("**/plan", changed)


def looking(page: Page | BrowserContext, **look: Any) -> None:
    """Every touchpoint with these values of its look."""

    def change(plan: dict[str, Any]) -> None:
        for entry in plan["touchpoints"]:
            entry["document"]["look"] |= look
            entry["document"]["look"]["phone"] |= look

    planned(page, change)


def only(page: Page, *slugs: str) -> None:
    """Nothing else comes in between."""

    def change(plan: dict[str, Any]) -> None:
        plan["touchpoints"] = [one for one in plan["touchpoints"] if one["slug"] in slugs]

    planned(page, change)


def with_parts(page: Page, slug: str, *parts: dict[str, Any], **look: Any) -> None:
    """A touchpoint that begins with other parts."""

    def change(plan: dict[str, Any]) -> None:
        for entry in [one for one in plan["touchpoints"] if one["slug"] == slug]:
            step = entry["document"]["steps"][0]
            base = {"on": ["desktop", "phone"], "hidden": False, "row": None, "share": 100}
            step["parts"] = [{**base, "id": f"x{at}", **one} for at, one in enumerate(parts)] + step["parts"]
            entry["needs_more"] = True
            entry["document"]["look"] |= look
            entry["document"]["look"]["phone"] |= look

    planned(page, change)


def on_a_page(
    context: BrowserContext,
    stack: Stack,
    *,
    css: str = "",
    body: str = "",
    script: str = "",
    path: str = "/contact",
    moved_by_hand: bool = False,
) -> Page:
    """A page of the demo site with something of its own: a style sheet, elements, a script that runs before all else.
    `moved_by_hand`: its clock is, and no picture comes by itself.
    """
    own = json.dumps({"css": css, "body": body})
    context.add_init_script(
        f"""{script};{{ const own = {own}; new MutationObserver((_, seen) => {{
          if (!document.body) return
          seen.disconnect()
          document.head.append(Object.assign(document.createElement('style'), {{ textContent: own.css }}))
          document.body.insertAdjacentHTML('afterbegin', own.body)
        }}).observe(document, {{ childList: true, subtree: true }}) }}"""
    )
    page = context.new_page()
    wrong: list[Any] = []
    page.on("pageerror", lambda error: wrong.append(error))  # Playwright asks for a function of our own
    with page.expect_response(re.compile("/plan$")):
        page.goto(f"{stack.site_url}{path}")
    if moved_by_hand:
        page.wait_for_load_state("networkidle")
    else:
        settled(page)
    assert wrong == []
    return page


def planned_slugs(stack: Stack, base_url: str = "") -> list[str]:
    """The short names of what a visitor of /contact may meet just now."""
    answer = httpx.post(
        f"{base_url or stack.base_url}/e/{stack.names.site_key}/plan",
        json={"page": {"url": f"{stack.site_url}/contact"}, "device": "desktop"},
        headers={"Origin": stack.site_url},
        timeout=60,
    )
    return [one["slug"] for one in answer.json()["touchpoints"]]


def until_on(stack: Stack, slug: str) -> None:
    """Until every visitor gets it: another process may have looked up to a second ago."""
    until(lambda: slug in planned_slugs(stack), f"“{slug}” is on", seconds=30)


def asked(visitor: Page, stack: Stack, name: str, words: str) -> None:
    """Somebody asks through the demo site."""
    visitor.goto(f"{stack.site_url}/contact")
    visitor.wait_for_function("window.intavo")
    visitor.evaluate("intavo.open('boathouse-question')")
    visitor.get_by_label("Your question").fill(words)
    visitor.get_by_label("Your email").fill(f"{name.split()[0].lower()}@post.example")
    visitor.get_by_label(re.compile("^Your name")).fill(name)
    later(visitor)
    visitor.get_by_role("dialog").get_by_role("button", name=re.compile("Send|Ask")).first.click()
    expect(visitor.get_by_text(re.compile("We answer"))).to_be_visible()


# Where everything stands, until it has stood there for a quarter of a second: what is moved aside is moved by script.
_STANDS = """() => new Promise((done) => {
  let before = '', since = performance.now()
  const look = () => {
    const now = [...document.querySelectorAll('body *')].slice(0, 200)
      .map((one) => { const box = one.getBoundingClientRect(); return `${box.x},${box.y},${box.height}` }).join()
    if (now !== before) { before = now; since = performance.now() }
    if (performance.now() - since > 250) done(); else requestAnimationFrame(look)
  }
  look()
})"""


def until_still(page: Page) -> None:
    """Until nothing of the page changes its place any more."""
    page.evaluate(_STANDS)


def arrive(context: BrowserContext, stack: Stack, path: str = ON_TRIPS) -> Page:
    """On a page with a clock that can be moved on."""
    page = context.new_page()
    page.clock.install()
    with page.expect_response(re.compile("/plan$")):
        page.goto(f"{stack.site_url}{path}")
    # What the plan asks for besides is there too, and its moments are watched.
    page.wait_for_load_state("networkidle")
    return page


def popped_up(context: BrowserContext, stack: Stack) -> Page:
    """Twelve seconds later."""
    page = arrive(context, stack)
    page.clock.run_for(8_000)
    expect(page.get_by_role("dialog")).to_have_count(0)
    page.clock.run_for(4_500)
    expect(page.get_by_role("dialog", name=TIDE)).to_be_visible()
    return page


def arrived(page: Page) -> None:
    """Until what has come up stands still, on a page whose clock is moved by hand."""
    dialog = page.get_by_role("dialog").first
    dialog.evaluate("one => Promise.all(one.getAnimations({subtree: true}).map((each) => each.finished))")


def fill_in_tide_table(page: Page, email: str) -> None:
    """Fill in the tide table's form and send it."""
    dialog = page.get_by_role("dialog")
    page.clock.run_for(2_000)  # nobody types faster
    dialog.get_by_label("Your email").fill(email)
    dialog.get_by_label("Send me the monthly tide table.").check()
    dialog.get_by_role("button", name="Send me the tide table").click()


def confirm_by_mail(page: Page, stack: Stack, address: str) -> None:
    """Open the link of the mail, and press the button."""
    mail = mailed(stack, address, "Please confirm: the tide table")
    page.goto(re.search(r"http\S+/c/\S+", mail["text"])[0])
    page.get_by_role("button", name="Send me the tide table").click()
    expect(page.get_by_role("heading", name="Thank you, that is confirmed")).to_be_visible()


def begin_talk(page: Page, stack: Stack, email: str) -> None:
    """Somebody begins to talk on /lessons, and says where they are reached."""
    page.goto(f"{stack.site_url}/lessons")
    page.get_by_role("button", name="Talk to us").click()
    page.get_by_role("button", name="Change a booking").click()
    page.get_by_label("Write to us").fill("Saturday, the early lesson")
    page.get_by_role("button", name="Send", exact=True).click()
    page.get_by_label("Your email address").fill(email)
    page.get_by_role("button", name="Send", exact=True).click()
    expect(page.get_by_role("log", name="Conversation")).to_contain_text("One of us answers today by 16:05.")
