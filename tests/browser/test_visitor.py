"""What a visitor meets: leaving it, focus, phones, refusals of storage, lost connections."""

import re

import pytest
from playwright.sync_api import Browser, BrowserContext, expect

from scripts.stack import Stack
from tests.waiting import until

from .pages.mail import mailed
from .pages.site import TIDE, arrive, arrived, fill_in_tide_table, popped_up


@pytest.mark.parametrize("way", ["cross", "escape", "outside"])
def test_it_can_be_left_and_does_not_come_back_on_the_next_page(
    stranger: BrowserContext, stack: Stack, way: str
) -> None:
    page = popped_up(stranger, stack)
    if way == "cross":
        page.get_by_role("dialog").get_by_role("button", name="Close").click()
    elif way == "escape":
        page.keyboard.press("Escape")
    else:
        page.mouse.click(20, 400)
    expect(page.get_by_role("dialog")).to_have_count(0)
    page.clock.run_for(2_000)
    with page.expect_response(re.compile("/plan$")) as planned:
        page.goto(f"{stack.site_url}/trips/sunrise")
    assert "tide-table" not in [one["slug"] for one in planned.value.json()["touchpoints"]]


def test_focus_goes_in_stays_in_and_comes_back(stranger: BrowserContext, stack: Stack) -> None:
    page = arrive(stranger, stack)
    link = page.get_by_role("link", name="Lessons")
    link.focus()
    page.clock.run_for(12_500)
    dialog = page.get_by_role("dialog", name=TIDE)
    expect(dialog.get_by_role("heading", name=TIDE)).to_be_focused()
    inside = "!!document.activeElement.shadowRoot?.activeElement?.closest('dialog')"
    for _ in range(9):
        page.keyboard.press("Tab")
        assert page.evaluate(inside)
    page.keyboard.press("Shift+Tab")
    assert page.evaluate(inside)
    page.keyboard.press("Escape")
    expect(link).to_be_focused()


def test_scrolling_to_two_fifths_brings_it_sooner(stranger: BrowserContext, stack: Stack) -> None:
    page = arrive(stranger, stack)
    page.mouse.wheel(0, 900)
    expect(page.get_by_role("dialog", name=TIDE)).to_be_visible()


@pytest.mark.parametrize(("width", "height"), [(320, 560), (390, 780)])
def test_it_fits_a_phone(browser: Browser, stack: Stack, width: int, height: int) -> None:
    context = browser.new_context(viewport={"width": width, "height": height}, has_touch=True, is_mobile=True)
    page = popped_up(context, stack)
    page.clock.run_for(500)
    arrived(page)
    box = page.get_by_role("dialog").bounding_box()
    assert box is not None
    assert box["x"] >= 0
    assert box["x"] + box["width"] <= width
    assert box["y"] >= 0
    assert box["y"] + box["height"] <= height
    assert page.evaluate("document.documentElement.scrollWidth <= innerWidth")
    context.close()


def test_where_storage_is_refused_it_never_comes_by_itself(browser: Browser, stack: Stack) -> None:
    context = browser.new_context()
    context.add_init_script(
        "Object.defineProperty(window,'localStorage',{get(){throw new Error('refused')}})"
    )
    page = arrive(context, stack)
    page.clock.run_for(60_000)
    expect(page.get_by_role("dialog")).to_have_count(0)
    page.evaluate("intavo.open('tide-table')")
    expect(page.get_by_role("dialog", name=TIDE)).to_be_visible()
    context.close()


def test_a_link_opens_it_on_any_page_and_the_page_is_told(stranger: BrowserContext, stack: Stack) -> None:
    page = arrive(stranger, stack, "/contact")
    page.evaluate(
        """() => { window.told = []; intavo.on('closed', (d) => told.push(d.touchpoint));
        document.body.insertAdjacentHTML('afterbegin', '<a href="#intavo=boathouse-question">Ask</a>') }"""
    )
    page.get_by_role("link", name="Ask", exact=True).click()
    expect(page.get_by_role("dialog", name="Something you want to know?")).to_be_visible()
    page.keyboard.press("Escape")
    assert page.evaluate("told") == ["boathouse-question"]


def test_privacy_control_sends_no_id_and_no_beats(browser: Browser, stack: Stack) -> None:
    context = browser.new_context()
    context.add_init_script("Object.defineProperty(navigator,'globalPrivacyControl',{get:()=>true})")
    sent: list[str] = []
    context.on("request", lambda request: sent.append(request.url))
    page = context.new_page()
    page.clock.install()
    with page.expect_request(re.compile("/plan$")) as planned:
        page.goto(f"{stack.site_url}/trips")
    assert planned.value.post_data_json["visitor"]["id"] is None
    page.wait_for_load_state("networkidle")
    page.clock.run_for(20_000)
    expect(page.get_by_role("dialog")).to_be_visible()
    page.keyboard.press("Escape")
    page.clock.run_for(5_000)
    assert not [url for url in sent if url.endswith("/beats")]
    context.close()


def test_what_was_seen_and_closed_is_reported(stranger: BrowserContext, stack: Stack) -> None:
    told: list[tuple[str, int]] = []
    stranger.on(
        "response",
        lambda answer: (
            told.extend((beat["what"], answer.status) for beat in answer.request.post_data_json)
            if answer.url.endswith("/beats")
            else None
        ),
    )
    page = popped_up(stranger, stack)
    arrived(page)

    def both() -> bool:
        # Together or one after the other, as fast as the machine is.
        page.clock.run_for(500)
        return set(told) >= {("seen", 202), ("closed", 202)}

    page.clock.run_for(1_500)
    page.keyboard.press("Escape")
    until(both, "both are reported")


def test_consent_is_waited_for(stranger: BrowserContext, stack: Stack) -> None:
    page = stranger.new_page()
    page.add_init_script(
        """new MutationObserver(() => document.querySelector('script[src*="/e/"]')?.setAttribute('data-consent', 'wait'))
        .observe(document, {childList: true, subtree: true})"""
    )
    asked: list[str] = []
    page.on("request", lambda request: asked.append(request.url))
    page.goto(f"{stack.site_url}/trips")
    page.wait_for_function("window.intavo")
    assert page.evaluate("localStorage.length") == 0
    assert not [url for url in asked if url.endswith("/plan")]
    with page.expect_response(re.compile("/plan$")):
        page.evaluate("intavo.consent(true)")


def test_a_slip_is_offered_and_taken(stranger: BrowserContext, stack: Stack) -> None:
    page = popped_up(stranger, stack)
    nell = stack.names.email("nell")
    fill_in_tide_table(page, nell.replace("otterwick", "otterwik"))
    page.get_by_role("button", name=f"Use {nell}").click()
    expect(page.get_by_text(f"We write to {nell}.")).to_be_visible()
    mailed(stack, nell, "tide table")


def test_the_hosted_page_is_drawn_by_the_same_code(stranger: BrowserContext, stack: Stack) -> None:
    page = stranger.new_page()
    page.goto(f"{stack.base_url}/t/{stack.names.slug}/tide-table")
    card = page.locator("[data-intavo-touchpoint=inline]")
    expect(card.get_by_role("heading", name=TIDE)).to_be_visible()
    assert page.locator("form[method=post]").count() == 0


def test_what_was_filled_in_before_the_script_came_stands_in_what_it_draws(
    stranger: BrowserContext, stack: Stack
) -> None:
    page, held = stranger.new_page(), []
    page.route("**/plan", lambda route: held.append(route))
    page.goto(f"{stack.base_url}/t/{stack.names.slug}/tide-table")
    page.get_by_label("Send me the monthly tide table.").check()
    page.get_by_label("Your email").fill("slow@post.example")
    expect(page.locator("[data-intavo-touchpoint=inline]")).to_have_count(0)
    until(lambda: page.evaluate("1") and held, "the plan is asked for")
    held[0].continue_()
    card = page.locator("[data-intavo-touchpoint=inline]")
    expect(card.get_by_label("Your email")).to_have_value("slow@post.example")
    expect(card.get_by_label("Your email")).to_be_focused()
    expect(card.get_by_label("Send me the monthly tide table.")).to_be_checked()
    expect(page.locator("form[method=post]")).to_have_count(0)
