"""The console's views: readable to everybody, workable from the keyboard and on a phone."""

import json
import re
from collections.abc import Callable

import pytest
from playwright.sync_api import Browser, BrowserContext, Page, Route, expect

from scripts.stack import Stack
from tests.waiting import until

from .pages.axe import violations
from .pages.console import follow_up
from .pages.mail import mailed
from .pages.site import settled, until_still


@pytest.mark.parametrize(
    ("path", "ready"),
    [
        ("/follow-up", "[data-id]"),
        ("/touchpoints", "table"),
        ("/touchpoints?new", "iframe"),
        ("/hours", "#promise"),
        ("/hours/told", "table"),
        ("/hours/channels", "section[aria-label=Channels]"),
        ("/business", "code"),
        ("/nowhere", "text=There is nothing at this address"),
    ],
)
def test_a_view_is_accessible(owner: Page, stack: Stack, path: str, ready: str) -> None:
    owner.goto(f"{stack.base_url}{path}")
    owner.wait_for_selector(ready)
    expect(owner.locator("[aria-busy=true]")).to_have_count(0)
    assert violations(owner) == []


def test_the_editor_is_accessible_with_a_part_unfolded(owner: Page, stack: Stack) -> None:
    owner.goto(f"{stack.base_url}/touchpoints")
    owner.get_by_role("link", name="Tide table").click()
    owner.get_by_role("button", name="Headline").click()
    expect(owner.get_by_label("Words", exact=True)).to_be_visible()
    assert violations(owner) == []


@pytest.mark.parametrize("path", ["/sign-in", "/sign-up", "/reset", "/verify/some-key"])
def test_an_account_view_is_accessible(page: Page, stack: Stack, path: str) -> None:
    page.goto(f"{stack.base_url}{path}")
    page.wait_for_selector("h1")
    assert violations(page) == []


@pytest.mark.parametrize("script", [True, False])
def test_the_visitors_side_is_accessible(browser: Browser, stack: Stack, script: bool) -> None:
    context = browser.new_context(java_script_enabled=True)
    page = context.new_page()
    if script:
        page.goto(f"{stack.site_url}/contact")
        page.wait_for_function("window.intavo")
        page.evaluate("intavo.open('boathouse-question')")
        expect(page.get_by_role("dialog")).to_be_visible()
        settled(page)
    else:
        page.route("**/*.js", lambda route: route.abort())
        page.goto(f"{stack.base_url}/t/{stack.names.slug}/group-booking")
    found = violations(page)
    assert found == []
    context.close()


def test_the_list_is_worked_from_the_keyboard(owner: Page, stack: Stack) -> None:
    follow_up(owner, stack)
    owner.wait_for_selector("[data-id]")
    owner.keyboard.press("ArrowDown")
    owner.wait_for_url(re.compile(r"/follow-up/\d+$"))
    current = owner.locator("[data-id][aria-current=true]")
    first = current.get_attribute("data-id")
    owner.keyboard.press("ArrowDown")
    expect(current).not_to_have_attribute("data-id", first or "")
    expect(current).to_be_focused()
    owner.keyboard.press("Enter")
    expect(owner.get_by_role("textbox", name=re.compile("^Answer to"))).to_be_focused()
    owner.keyboard.press("Escape")
    owner.keyboard.press("F1")
    expect(owner.get_by_role("dialog")).to_contain_text("Go along the list")
    owner.keyboard.press("Escape")
    owner.keyboard.press("Control+k")
    owner.keyboard.type("dunmore")
    expect(owner.get_by_role("option", name=re.compile("Ife Dunmore"))).to_be_visible()
    owner.keyboard.press("Enter")
    expect(owner.get_by_role("heading", name="Ife Dunmore")).to_be_visible()


def without_the_box(page: Page, stack: Stack, comes: Callable[[Route], None]) -> Page:
    """A first visit to the list, where the code of the box that finds anything comes as this says."""
    page.route("**/FindBox-*.js", lambda route: comes(route))
    page.goto(f"{stack.base_url}/follow-up")
    expect(page.locator("[data-id]").first).to_be_visible()
    return page


def test_what_is_typed_before_the_box_is_there_stands_in_it(
    other_device: Callable[..., Page], stack: Stack
) -> None:
    held: list[Route] = []
    page = without_the_box(other_device(), stack, held.append)
    page.keyboard.press("Control+k")
    page.keyboard.type("dunmore")
    page.keyboard.press("Enter")
    until(lambda: page.evaluate("1") and held, "its code was asked for")
    expect(page.get_by_label("Find or do")).to_have_count(0)
    held.pop().continue_()
    expect(page.get_by_role("heading", name="Ife Dunmore")).to_be_visible()


def test_where_the_box_does_not_come_nobody_is_held_up(
    other_device: Callable[..., Page], stack: Stack
) -> None:
    refused: list[str] = []

    def refuse(route: Route) -> None:
        refused.append(route.request.url)
        route.abort()

    page = without_the_box(other_device(), stack, refuse)
    # It is fetched beforehand, and when it is asked for.
    until(lambda: page.evaluate("1") and refused, "its code was fetched beforehand")
    for words in ("dun", "more"):
        with page.expect_event("requestfailed"):
            page.keyboard.press("Control+k")
        page.get_by_label("Search the list").focus()
        page.keyboard.type(words)
    expect(page.get_by_label("Search the list")).to_have_value("dunmore")
    # Back with the network, it comes.
    page.unroute_all()
    page.keyboard.press("Control+k")
    expect(page.get_by_label("Find or do")).to_be_focused()


def test_finish_put_off_and_undo(owner: Page, stack: Stack) -> None:
    follow_up(owner, stack)
    owner.get_by_role("link", name=re.compile("Ansel Brightwater")).click()
    owner.get_by_role("button", name=re.compile("Finish")).click()
    owner.get_by_role("menuitem", name="Won").click()
    expect(owner.get_by_text("Finished: won.")).to_be_visible()
    expect(owner.get_by_role("link", name=re.compile("Ansel Brightwater"))).to_have_count(0)
    owner.get_by_role("button", name="Undo").click()
    expect(owner.get_by_role("link", name=re.compile("Ansel Brightwater.*tomorrow 12:05"))).to_be_visible()
    owner.get_by_role("button", name=re.compile("Put off")).click()
    owner.get_by_role("button", name=re.compile("Next opening")).click()
    expect(
        owner.get_by_role("link", name=re.compile("Ansel Brightwater.*back tomorrow 09:00"))
    ).to_be_visible()
    owner.get_by_role("button", name="Undo").last.click()
    expect(owner.get_by_role("link", name=re.compile("Ansel Brightwater.*tomorrow 12:05"))).to_be_visible()


def test_the_day_lines_marks_open_their_followup(owner: Page, stack: Stack) -> None:
    owner.goto(f"{stack.base_url}/business")
    owner.get_by_role("button", name="Rosalind Achterberg, due 13:00, late").click()
    expect(owner.get_by_role("heading", name="Rosalind Achterberg")).to_be_visible()
    owner.get_by_role("button", name=re.compile("Opening hours of today")).click(position={"x": 20, "y": 10})
    expect(owner.get_by_role("heading", name="The week")).to_be_visible()


# What is wider than it shows, though it is not one of those that are to be moved sideways.
TOO_WIDE = """() => [...document.querySelectorAll('*')]
  .filter((one) => one === document.documentElement || /auto|scroll/.test(getComputedStyle(one).overflowX))
  .filter((one) => !one.matches('.overflow-x-auto, pre, textarea') && one.scrollWidth > one.clientWidth + 1)
  .map((one) => [...one.querySelectorAll('*')]
    .filter((inner) => inner.getBoundingClientRect().right > innerWidth && !inner.closest('.overflow-x-auto'))
    .map((inner) => inner.outerHTML.slice(0, 200)).slice(-3))"""


@pytest.mark.parametrize("width", [390, 320])
def test_no_place_is_wider_than_a_phone(owner: Page, stack: Stack, width: int) -> None:
    owner.set_viewport_size({"width": width, "height": 780})
    ask = owner.request.get(f"{stack.base_url}/api/touchpoints").json()
    person = owner.request.get(f"{stack.base_url}/api/people").json()["people"][0]["id"]
    places = (
        "follow-up", "people", f"people/{person}", "people/bring-in", "touchpoints", "touchpoints/rehearse",
        *(f"touchpoints/{one['id']}" for one in ask if one["slug"] in ("tide-table", "ask-the-boathouse")),
        f"touchpoints/{ask[0]['id']}/answers", "hours", "hours/told", "hours/channels", "business", "you",
        "quarantine", "script",
    )  # fmt: skip
    wide: dict[str, list[list[str]]] = {}
    for place in places:
        owner.goto(f"{stack.base_url}/{place}")
        owner.get_by_role("heading").first.wait_for()
        expect(owner.locator("[aria-busy=true]")).to_have_count(0)
        owner.evaluate("document.querySelectorAll('details').forEach((one) => (one.open = true))")
        wide |= {place: found} if (found := owner.evaluate(TOO_WIDE)) else {}
    assert wide == {}


def test_followup_works_on_a_phone(other_device: Callable[..., Page], stack: Stack) -> None:
    page = other_device(viewport={"width": 390, "height": 780})
    follow_up(page, stack)
    page.get_by_role("link", name=re.compile("Tomasz Wielgosz")).click()
    expect(page.get_by_role("textbox", name="Answer to Tomasz Wielgosz")).to_be_in_viewport()
    assert page.evaluate("document.documentElement.scrollWidth <= innerWidth")
    page.get_by_role("button", name="← List").click()
    expect(page.get_by_role("heading", name="Follow-up")).to_be_visible()
    assert page.evaluate("document.documentElement.scrollWidth <= innerWidth")


def test_signing_up_confirming_founding_and_resetting(stranger: BrowserContext, stack: Stack) -> None:
    page = stranger.new_page()
    page.goto(f"{stack.base_url}/sign-up")
    page.get_by_label("Email").fill("ola@heron.example")
    page.get_by_label("Password").fill("short")
    page.get_by_role("button", name="Sign up").click()
    expect(page.get_by_text(re.compile("at least 10 characters", re.I)).first).to_be_visible()
    page.get_by_label("Password").fill("a heron stands still")
    page.get_by_role("button", name="Sign up").click()
    expect(page.get_by_role("heading", name="Look in your mail")).to_be_visible()
    letter = mailed(stack, "ola@heron.example", "onfirm")
    link = re.search(r"http://\S+/verify/\S+", letter["text"])
    assert link
    page.goto(link[0])
    page.get_by_role("button", name="Confirm my address").click()
    page.wait_for_url(re.compile("/(sign-in|welcome)"))
    if "/sign-in" in page.url:
        sign_in_as(page, "ola@heron.example", "a heron stands still")
    page.get_by_label("What is it called?").fill("Heron Boats")
    page.get_by_label("Its web site").fill("heron boats")
    page.get_by_role("button", name="Go on to the first touchpoint").click()
    expect(page.get_by_text("“heron boats” is not the address of a web site")).to_be_visible()
    page.get_by_label("Its web site").fill("https://www.heron.example/")
    page.get_by_role("button", name="Go on to the first touchpoint").click()
    expect(page.get_by_role("heading", name="What do you want from your visitors?")).to_be_visible()
    page.keyboard.press("Escape")
    page.get_by_role("button", name=re.compile("account of")).click()
    page.get_by_role("menuitem", name="Sign out").click()
    page.get_by_role("link", name="Forgotten the password?").click()
    expect(page.get_by_role("heading", name="Forgotten the password?")).to_be_visible()
    page.get_by_label("Email").fill("ola@heron.example")
    page.get_by_role("button", name="Send me a link").click()
    expect(page.get_by_text("a mail with a link is on its way")).to_be_visible()
    letter = mailed(stack, "ola@heron.example", "A new password")
    link = re.search(r"http://\S+/reset/\S+", letter["text"])
    assert link
    page.goto(link[0])
    page.get_by_label("New password").fill("a heron flies away")
    page.get_by_role("button", name="Set it").click()
    page.wait_for_url(re.compile("/(sign-in|follow-up)"))


def sign_in_as(page: Page, email: str, password: str) -> None:
    """Fill in the form that is shown."""
    page.get_by_label("Email").fill(email)
    page.get_by_label("Password").fill(password)
    page.get_by_role("button", name="Sign in").click()
    page.wait_for_url("**/welcome")


# Each answer of the API comes later than the one before it, as over a bad line; what moves on the screen is kept.
LATE = """
  const asked = window.fetch
  window.fetch = async (...about) => {
    const answer = await asked(...about)
    const address = String(about[0].url ?? about[0])
    const late = [...address].reduce((sum, one) => (sum * 31 + one.charCodeAt(0)) % 997, 0)
    if (address.includes('/api/')) await new Promise((go) => setTimeout(go, 50 + late / 2))
    return answer
  }
  window.moved = []
  const kept = (entries) => {
    for (const entry of entries)
      for (const { node, previousRect: was, currentRect: is } of entry.sources)
        if (Math.abs(was.y - is.y) > 2) moved.push(`${node?.textContent?.trim().slice(0, 60)}: ${was.y} to ${is.y}`)
  }
  new PerformanceObserver((list) => kept(list.getEntries())).observe({ type: 'layout-shift', buffered: true })
"""


def test_nothing_moves_under_the_pointer_when_answers_are_late(owner: Page, stack: Stack) -> None:
    site = owner.request.get(f"{stack.base_url}/api/sites").json()[0]
    origin = {"Origin": f"http://{site['hosts'][0]}"}
    answer = owner.request.post(
        f"{stack.base_url}/e/{site['key']}/beats", data=json.dumps([{"what": "danced"}]), headers=origin
    )
    assert answer.json() == {"kept": 0, "refused": 1}
    owner.add_init_script(LATE)
    for place in ("people", "touchpoints", "hours", "hours/told", "hours/channels", "business", "you"):
        owner.goto(f"{stack.base_url}/{place}")
        owner.get_by_role("heading", level=1).wait_for()
        owner.wait_for_load_state("networkidle")
        until_still(owner)
        assert owner.evaluate("moved") == [], place


def test_a_part_of_a_page_stays_in_view_while_what_is_above_it_comes(owner: Page, stack: Stack) -> None:
    owner.add_init_script(LATE)
    owner.goto(f"{stack.base_url}/business#log")
    entries = owner.locator("#log").get_by_role("listitem")
    expect(entries.first).to_be_visible()
    owner.wait_for_load_state("networkidle")
    until_still(owner)
    expect(owner.locator("#log").get_by_role("heading")).to_be_in_viewport()
    owner.mouse.move(640, 500)
    owner.mouse.wheel(0, -5000)
    expect(owner.get_by_role("heading", level=1)).to_be_in_viewport()
