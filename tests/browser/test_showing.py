"""From the editor outwards: rehearsing what is not on yet, the ways to link to it, and what the ready check leads to."""

import re

from playwright.sync_api import BrowserContext, Page, expect

from scripts.stack import Stack

from .pages.axe import violations
from .pages.console import saved, side, stage, start, turn_off, turn_on
from .pages.site import HOST, on, settled
from .pages.steps import step


def test_what_is_not_on_is_rehearsed_from_the_editor_and_tried_on_the_real_page(
    owner: Page, stranger: BrowserContext, stack: Stack
) -> None:
    on(stranger, stack, "/contact").close()
    editor = start(owner, stack, "A question to us", "Not on yet")
    slug = editor.get_by_text("Its short name in links is").locator("code").text_content()
    editor.get_by_role("link", name="Rehearse a visit").click()
    expect(owner.get_by_label("as if the one you edited were on, as it stands now")).to_be_checked()
    owner.get_by_label("Deed 2: what").select_option("open")
    owner.get_by_label("Deed 2: touchpoint").select_option(slug)
    owner.get_by_label("At the counter").select_option("Nobody")
    tracks = owner.get_by_role("figure", name="Tracks")
    tracks.get_by_role("button", name="Not on yet").click()
    moment = tracks.get_by_role("slider", name="Moment")
    for _ in range(6):
        moment.press("ArrowLeft")
    expect(owner.get_by_role("heading", name=re.compile("Not on yet at 0:17 — on screen"))).to_be_visible()
    expect(
        owner.get_by_text("Whoever sends it at 0:14 is told: “Thank you. We’re out on the water")
    ).to_be_visible()
    assert violations(owner) == []
    with owner.context.expect_page() as tried:
        owner.get_by_role("button", name="Open the real page like this").click()
    page = tried.value
    expect(page.get_by_text("Rehearsal: nothing is counted or sent.")).to_be_visible()
    page.evaluate("slug => intavo.open(slug)", slug)
    card = page.locator(f"{HOST.format('pop-up')} .card")
    card.get_by_label("What would you like to know?").fill("Only rehearsed?")
    card.get_by_label("Your email").fill("nobody@post.example")
    card.get_by_role("button", name=re.compile("Send|Ask")).click()
    expect(card.get_by_text(re.compile("We’re out on the water just now"))).to_be_visible()
    page.close()
    fresh = on(stranger, stack, "/contact")
    with fresh.expect_response(re.compile("/plan$")):
        fresh.evaluate("slug => intavo.open(slug)", slug)
    settled(fresh)
    expect(fresh.locator(HOST.format("pop-up"))).to_have_count(0)


def test_every_way_to_link_to_it_opens_it(owner: Page, stranger: BrowserContext, stack: Stack) -> None:
    on(stranger, stack, "/contact").close()
    editor = start(owner, stack, "News by email", "Linked to")
    side(editor, "After")
    editor.get_by_text("How to link to it").click()
    expect(editor.get_by_text("From outside it can be reached while it is on.")).to_be_visible()
    slug = turn_on(editor, stack)
    ways = {
        name: editor.locator("dt", has_text=name)
        .locator("xpath=following-sibling::dd")
        .locator("code")
        .inner_text()
        for name in (
            "A link, as HTML",
            "A button, as HTML",
            "Its place in a page, as HTML",
            "By your own script",
            "From outside, on a page of the site",
            "From outside, its own page",
        )
    }
    step("links are copied")
    editor.get_by_role("button", name="Copy: A link, as HTML").click()
    expect(editor.get_by_role("button", name="Copy: A link, as HTML")).to_have_text("copied")
    for form, kind in (("SVG", "image/svg+xml"), ("PNG", "image/png")):
        address = editor.get_by_role("link", name=form, exact=True).get_attribute("href")
        assert owner.request.get(f"{stack.base_url}{address}").headers["content-type"] == kind
    open_card = f"{HOST.format('pop-up')} .card"
    for name in ("A link, as HTML", "A button, as HTML"):
        page = on(stranger, stack, "/contact")
        page.evaluate(
            "html => document.querySelector('main').insertAdjacentHTML('beforeend', html)", ways[name]
        )
        page.locator("main").get_by_text("Linked to", exact=True).click()
        expect(page.locator(open_card)).to_be_visible()
        page.close()
    step("from a script, and from outside")
    page = on(stranger, stack, "/contact")
    page.evaluate(ways["By your own script"])
    expect(page.locator(open_card)).to_be_visible()
    page.goto(ways["From outside, on a page of the site"])
    expect(page).to_have_url(re.compile(f"^{re.escape(stack.site_url)}/#intavo-{slug}$"))
    expect(page.locator(open_card)).to_be_visible()
    page.goto(ways["From outside, its own page"])
    expect(page.get_by_role("heading", name="News worth opening")).to_be_visible()
    page = on(stranger, stack, "/contact")
    page.evaluate(
        "html => document.querySelector('main').insertAdjacentHTML('beforeend', html)",
        ways["Its place in a page, as HTML"],
    )
    page.evaluate("history.pushState({}, '', '/contact?again')")
    expect(page.locator(f"[data-intavo={slug}]").get_by_label("Your email")).to_be_visible()
    turn_off(editor)


def test_one_whose_dates_are_past_is_not_turned_on_and_the_way_to_them_is_shown(
    owner: Page, stack: Stack
) -> None:
    editor = start(owner, stack, "A notice bar", "Gone by")
    check = editor.get_by_role("group", name="Ready check")
    expect(check.get_by_role("button", name="It is made, but not on.")).to_be_visible()
    check.get_by_role("button", name="It is made, but not on.").click()
    expect(editor.get_by_role("heading", name="Turn it on")).to_be_visible()
    editor.get_by_role("button", name="Not yet").click()
    editor.get_by_role("button", name="at any time").click()
    editor.get_by_label("to, that day too").fill("2026-11-20")
    editor.get_by_label("to, that day too").press("Tab")
    editor.keyboard.press("Escape")
    saved(editor)
    expect(
        check.get_by_role("button", name="Its dates are past: it shows to nobody any more.")
    ).to_be_visible()
    editor.get_by_role("button", name="Turn on").click()
    dialog = editor.get_by_role("dialog")
    expect(dialog.get_by_role("button", name="Turn on", exact=True)).to_have_count(0)
    dialog.get_by_role("button", name="Its dates are past: it shows to nobody any more.").click()
    expect(editor.get_by_role("group", name="Show sentence").get_by_role("button").first).to_be_focused()
    expect(stage(editor, "Desktop").locator(".card")).to_be_visible()


def test_a_button_inside_one_opens_another_and_the_first_gives_way(
    owner: Page, stranger: BrowserContext, stack: Stack
) -> None:
    editor = start(owner, stack, "A text to read", "Leads on")
    editor.get_by_role("button", name=re.compile("^Button that closes")).click()
    editor.get_by_label("What a click does").select_option("touchpoint")
    saved(editor)
    expect(editor.get_by_role("button", name="A click opens “”, which is not there.")).to_be_visible()
    editor.get_by_label("Which touchpoint").select_option(label="Boathouse question")
    saved(editor)
    expect(editor.get_by_role("button", name=re.compile("which is not there"))).to_have_count(0)
    slug = turn_on(editor, stack)
    page = on(stranger, stack, "/contact")
    page.evaluate("slug => intavo.open(slug)", slug)
    first = page.locator(f"{HOST.format('side-panel')} .card")
    first.get_by_role("button").last.click()
    expect(page.locator(f"{HOST.format('pop-up')} .card").get_by_label("Your question")).to_be_visible()
    expect(page.locator(f"{HOST.format('side-panel')}:not([inert])")).to_have_count(0)
    kept = page.evaluate("Object.values(JSON.parse(Object.values(localStorage)[0]).touchpoints)")
    assert [one["last_closed"] for one in kept] == [None] * len(kept)
    turn_off(editor)
