"""On pages that are not ours: style sheets, names, keys, dialogs and faults of the page that a touchpoint stands on."""

import json
import re
from typing import Any

import pytest
from playwright.sync_api import BrowserContext, Page, expect

from scripts.stack import Stack

HELD = "getComputedStyle(document.documentElement).overflow"
ASK = "Something you want to know?"


def on_a_page(
    context: BrowserContext, stack: Stack, *, css: str = "", body: str = "", script: str = "", path: str = "/contact"
) -> Page:
    """A page of the demo site with something of its own: a style sheet, elements, a script that runs before all else."""
    given = json.dumps({"css": css, "body": body})
    context.add_init_script(
        f"""{script};{{ const given = {given}; new MutationObserver((_, seen) => {{
          if (!document.body) return
          seen.disconnect()
          document.head.append(Object.assign(document.createElement('style'), {{ textContent: given.css }}))
          document.body.insertAdjacentHTML('afterbegin', given.body)
        }}).observe(document, {{ childList: true, subtree: true }}) }}"""
    )
    page = context.new_page()
    page.set_default_timeout(10_000)
    wrong: list[Any] = []
    page.on("pageerror", lambda error: wrong.append(error))  # Playwright asks for a function of our own
    with page.expect_response(re.compile("/plan$")):
        page.goto(f"{stack.site_url}{path}")
    page.wait_for_timeout(300)
    assert wrong == []
    return page


@pytest.mark.parametrize(
    "css",
    [
        "div:empty,body>*:empty{display:none}",
        "body>div,body>:not(main){position:static;float:left;width:1px;height:1px;overflow:hidden;opacity:0;transform:scale(.1)}",
        "*{letter-spacing:9px!important;visibility:hidden!important;text-transform:uppercase!important;color:red!important}",
    ],
)
def test_a_style_sheet_of_the_page_does_not_reach_in(stranger: BrowserContext, stack: Stack, css: str) -> None:
    page = on_a_page(stranger, stack, css=css)
    page.evaluate("intavo.open('boathouse-question')")
    heading = page.get_by_role("dialog").get_by_role("heading", name=ASK)
    expect(heading).to_be_visible()
    assert heading.evaluate("h => [getComputedStyle(h).letterSpacing, getComputedStyle(h).textTransform]") == [
        "normal", "none",
    ]  # fmt: skip
    box = page.get_by_role("dialog").bounding_box()
    assert box is not None
    assert box["width"] > 250


def test_what_cannot_be_seen_never_holds_the_page(stranger: BrowserContext, stack: Stack) -> None:
    page = on_a_page(stranger, stack)
    page.evaluate(
        """() => new MutationObserver(() => document.querySelectorAll('[data-intavo-touchpoint]')
        .forEach((one) => one.inert ||= true)).observe(document.documentElement, { childList: true })"""
    )
    page.evaluate("intavo.open('boathouse-question')")
    expect(page.get_by_role("dialog")).to_have_count(0, timeout=3_000)
    assert page.evaluate(HELD) != "hidden"


def test_nothing_of_ours_is_printed(stranger: BrowserContext, stack: Stack) -> None:
    page = on_a_page(stranger, stack)
    button = page.locator("[data-intavo-touchpoint=button] .face").first
    expect(button).to_be_visible()
    page.emulate_media(media="print")
    expect(button).to_be_hidden()


def test_an_element_of_the_page_may_have_our_name(stranger: BrowserContext, stack: Stack) -> None:
    page = on_a_page(stranger, stack, body='<div id="intavo"></div><div id="x" name="intavo"></div>')
    page.evaluate("intavo.open('boathouse-question')")
    expect(page.get_by_role("dialog")).to_be_visible()


def test_its_address_is_the_name_of_a_place_as_any_page_takes_it(stranger: BrowserContext, stack: Stack) -> None:
    page = on_a_page(
        stranger, stack, script="addEventListener('load', () => document.querySelector(location.hash || 'a'))"
    )
    page.goto(f"{stack.site_url}/contact#intavo-boathouse-question")
    page.reload()
    expect(page.get_by_role("dialog").get_by_role("heading", name=ASK)).to_be_visible()
    page.keyboard.press("Escape")
    expect(page.get_by_role("dialog")).to_have_count(0)
    page.evaluate("document.body.insertAdjacentHTML('afterbegin', '<a href=\"#intavo-boathouse-question\">Ask</a>')")
    page.get_by_role("link", name="Ask", exact=True).click()
    expect(page.get_by_role("dialog")).to_be_visible()


def test_a_slot_may_hold_words_of_its_own(stranger: BrowserContext, stack: Stack) -> None:
    page = on_a_page(
        stranger, stack,
        body="""<div id="one" data-intavo="boathouse-question"> <!-- here --> <p>Write to us.</p></div>
        <div id="two" data-intavo="nothing-of-this-name"><p>Call us.</p></div>""",
    )  # fmt: skip
    expect(page.locator("#one").get_by_role("heading", name=ASK)).to_be_visible()
    expect(page.get_by_text("Write to us.")).to_have_count(0)
    expect(page.get_by_text("Call us.")).to_be_visible()


@pytest.mark.parametrize("slot", ["", '<div data-intavo="boathouse-question"></div>'])
def test_what_is_typed_is_none_of_the_pages_shortcuts(stranger: BrowserContext, stack: Stack, slot: str) -> None:
    listens = """window.pressed = []; for (const name of ['keydown', 'keypress', 'keyup'])
        document.addEventListener(name, (event) => pressed.push(event.key))"""
    page = on_a_page(stranger, stack, body=slot, script=listens)
    if not slot:
        page.evaluate("intavo.open('boathouse-question')")
    place = page.locator("[data-intavo]") if slot else page.get_by_role("dialog")
    field = place.get_by_role("textbox").first
    field.focus()
    page.keyboard.type("s/?k")
    expect(field).to_have_value("s/?k")
    assert page.evaluate("pressed") == []
    if not slot:
        page.keyboard.press("Escape")
        expect(page.get_by_role("dialog")).to_have_count(0)


def test_closed_at_once_and_opened_again_it_stays(stranger: BrowserContext, stack: Stack) -> None:
    page = on_a_page(stranger, stack)
    page.evaluate("intavo.open('boathouse-question')")
    expect(page.get_by_role("dialog")).to_be_visible()
    page.evaluate("intavo.close(); intavo.open('boathouse-question')")
    page.wait_for_timeout(1_000)
    expect(page.get_by_role("dialog")).to_have_count(1)


def test_it_waits_for_a_dialog_of_the_page(stranger: BrowserContext, stack: Stack) -> None:
    page = stranger.new_page()
    page.clock.install()
    with page.expect_response(re.compile("/plan$")):
        page.goto(f"{stack.site_url}/trips")
    page.wait_for_load_state("networkidle")
    page.evaluate(
        """() => { document.body.insertAdjacentHTML('beforeend', '<dialog id="theirs">Cookies <button>Fine</button></dialog>')
        document.getElementById('theirs').showModal() }"""
    )
    page.clock.run_for(14_000)
    page.wait_for_timeout(300)
    expect(page.locator("[data-intavo-touchpoint=pop-up]")).to_have_count(0)
    page.evaluate("document.getElementById('theirs').close()")
    page.clock.run_for(1_000)
    expect(page.get_by_role("dialog", name=re.compile("safe paddling hours"))).to_be_visible()


def test_without_the_second_file_nothing_stands_there_naked(stranger: BrowserContext, stack: Stack) -> None:
    stranger.route("**/static/touch/more.js", lambda route: route.abort())
    page = on_a_page(stranger, stack)
    page.evaluate("intavo.open('boathouse-question')")
    page.wait_for_timeout(500)
    expect(page.locator("[data-intavo-touchpoint]")).to_have_count(0)
    assert page.evaluate(HELD) != "hidden"


@pytest.mark.parametrize("phone", ["", "no number"])
def test_an_answer_that_hangs_is_kept_and_they_are_told_what_became_of_it(
    stranger: BrowserContext, stack: Stack, phone: str
) -> None:
    page = on_a_page(stranger, stack)
    stranger.route("**/intake", lambda route: None)
    page.evaluate("intavo.open('boathouse-question')")
    dialog = page.get_by_role("dialog")
    dialog.get_by_label("Your question").fill("Is there a canoe?")
    dialog.get_by_label("Your email").fill("ife@post.example")
    dialog.get_by_label(re.compile("phone", re.I)).fill(phone)
    dialog.get_by_role("button", name=re.compile("send|ask", re.I)).first.click()
    kept = dialog.get_by_text("What you wrote is kept and sent later.")
    expect(kept).to_be_visible(timeout=6_000)
    stranger.unroute("**/intake")
    expect(kept).to_have_count(0, timeout=10_000)
    if phone:
        expect(dialog.get_by_text("This does not look like a phone number.")).to_be_visible()
    else:
        expect(dialog.get_by_role("textbox")).to_have_count(0)
