"""Every stance on the demo site, on desktop and phone: where it stands, what it leaves alone, steps, codes, files."""

import re
from typing import Any

import pytest
from playwright.sync_api import Browser, BrowserContext, Page, expect

from scripts.stack import Stack

from .pages.axe import violations
from .pages.console import stage
from .pages.mail import mailed
from .pages.site import HOST, later, on, only, opened, planned, settled

STANCES = {
    "pop-up": ("/trips", "tide-table"), "card": ("/", "parting-card"), "bar": ("/groups", "group-booking"),
    "side-panel": ("/", "call-me-back"), "full-page": ("/", "winter-hire"), "button": ("/", "ask-the-boathouse"),
}  # fmt: skip


@pytest.mark.parametrize("width", [320, 390, 1280])
@pytest.mark.parametrize("stance", STANCES)
def test_it_stands_inside_the_screen_and_is_accessible(
    browser: Browser, stack: Stack, stance: str, width: int
) -> None:
    context = browser.new_context(viewport={"width": width, "height": 640}, reduced_motion="reduce")
    path, slug = STANCES[stance]
    page = on(context, stack, path)
    box = opened(page, slug, stance).bounding_box()
    assert box["x"] >= -1
    assert box["x"] + box["width"] <= width + 1
    assert box["y"] >= -1
    assert stance == "bar" or box["y"] + box["height"] <= 641
    assert page.evaluate("document.documentElement.scrollWidth") <= width
    assert width != 390 or violations(page) == []
    context.close()


@pytest.mark.parametrize("direction", ["ltr", "rtl"])
def test_long_words_and_right_to_left_text_survive(browser: Browser, stack: Stack, direction: str) -> None:
    context = browser.new_context(viewport={"width": 320, "height": 640})
    page = context.new_page()
    words = (
        "مرحبا بكم في بيت القوارب"
        if direction == "rtl"
        else "Donaudampfschifffahrtsgesellschaftskapitänsmützen" * 2
    )

    def worded(route: Any) -> None:
        answer = route.fetch()
        plan = answer.json()
        for entry in plan["touchpoints"]:
            for part in entry["document"]["steps"][0]["parts"]:
                part.update({key: words for key in ("text", "label") if part.get(key)})
        route.fulfill(response=answer, json=plan)

    page.route("**/plan", worded)
    page.goto(f"{stack.site_url}/contact")
    page.evaluate("dir => document.documentElement.dir = dir", direction)
    page.wait_for_function("window.intavo")
    box = opened(page, "boathouse-question", "pop-up").bounding_box()
    assert box["x"] >= 0
    assert box["x"] + box["width"] <= 320
    card = page.locator(HOST.format("pop-up")).locator(".card")
    assert card.evaluate("card => card.scrollWidth <= card.clientWidth")
    heading = card.locator("h2").bounding_box()
    cross = card.locator(".cross").bounding_box()
    assert direction == "ltr" or cross["x"] < heading["x"] + heading["width"] / 2
    context.close()


def test_a_bar_pushes_the_page_and_leaves_without_a_trace(stranger: BrowserContext, stack: Stack) -> None:
    page = on(stranger, stack, "/groups")
    header = page.get_by_role("banner")
    before = header.bounding_box()
    bar = opened(page, "group-booking", "bar")
    below = header.bounding_box()
    assert below["y"] >= bar.bounding_box()["height"] - 1
    bar.get_by_role("button", name="Close").click()
    expect(page.locator(HOST.format("bar"))).to_have_count(0)
    assert header.bounding_box() == before


@pytest.mark.parametrize("pushes", [True, False])
def test_a_bar_moves_a_pinned_header_aside_or_stands_below_it(
    stranger: BrowserContext, stack: Stack, pushes: bool
) -> None:
    page = stranger.new_page()

    def pushed(plan: dict[str, Any]) -> None:
        for entry in plan["touchpoints"]:
            entry["document"]["look"]["pushes"] = pushes

    planned(page, pushed)
    page.goto(f"{stack.site_url}/groups")
    page.add_style_tag(content="header.top{position:fixed;top:0;left:0;right:0;background:#fff;z-index:9}")
    page.wait_for_function("window.intavo")
    bar = opened(page, "group-booking", "bar").bounding_box()
    header = page.get_by_role("banner").bounding_box()
    first, second = (bar, header) if pushes else (header, bar)
    assert first["y"] + first["height"] <= second["y"] + 1


def test_the_question_in_the_page_stands_at_its_spot_and_each_answer_goes_its_way(
    stranger: BrowserContext, stack: Stack
) -> None:
    sent: list[dict[str, Any]] = []
    stranger.on(
        "request", lambda one: sent.append(one.post_data_json) if one.url.endswith("/intake") else None
    )
    page = stranger.new_page()
    only(page, "hire-question", "call-me-back")
    page.goto(f"{stack.site_url}/hire")
    card = page.locator(HOST.format("in-page"))
    expect(card).to_be_visible()
    assert card.evaluate("one => one.nextElementSibling.tagName") == "H2"
    card.get_by_role("button", name="A bit of a challenge").click()
    expect(card.get_by_role("heading", name="Then a single, round the island")).to_be_visible()
    expect(card.get_by_role("img", name="Step 3 of 3")).to_be_visible()
    card.get_by_role("button", name="Back").click()
    card.get_by_role("button", name="Calm water").click()
    expect(card.get_by_text("£36")).to_be_visible()
    card.get_by_role("button", name="Ask us for a time").click()
    expect(page.get_by_role("dialog", name="Shall we call you?")).to_be_visible()
    assert [one["answers"] for one in sent] == [{"choice": "challenge"}, {"choice": "calm"}]


def test_what_was_typed_survives_a_reload(stranger: BrowserContext, stack: Stack) -> None:
    page = on(stranger, stack, "/contact")
    opened(page, "ask-the-boathouse", "button")
    page.get_by_role("button", name="Write to us").click()
    page.get_by_label("Your message").fill("Is there room for a bike?")
    page.reload()
    expect(page.get_by_label("Your message")).to_have_value("Is there room for a bike?")
    page.get_by_label("Your email").fill("bo@post.example")
    later(page)
    page.get_by_role("button", name="Send it").click()
    expect(page.get_by_text("We answer today by 16:05.")).to_be_visible()
    with page.expect_response(re.compile("/plan$")):
        page.reload()
    settled(page)
    expect(page.get_by_label("Your message")).to_have_count(0)


def test_the_button_opens_answers_that_are_searched_and_help(stranger: BrowserContext, stack: Stack) -> None:
    page = on(stranger, stack, "/lessons")
    face = page.get_by_role("button", name="Ask the boathouse")
    face.click()
    expect(face).to_have_attribute("aria-expanded", "true")
    expect(page.get_by_text("Open now, till 17:30")).to_be_visible()
    page.get_by_label("Search the answers").fill("dog jacket")
    page.get_by_text("May the dog come?").click()
    with page.expect_response(re.compile("/helped$")) as told:
        page.get_by_role("button", name="Yes").click()
    assert told.value.status == 204
    page.get_by_label("Search the answers").fill("unicorn")
    expect(page.get_by_text("Nothing about that yet.")).to_be_visible()
    page.keyboard.press("Escape")
    expect(page.get_by_label("Search the answers")).to_be_hidden()
    expect(face).to_be_focused()


def test_every_visitor_has_a_code_of_their_own_that_stays(browser: Browser, stack: Stack) -> None:
    codes = []
    for _ in range(2):
        context = browser.new_context()
        page = on(context, stack, "/")
        for _ in range(2):
            card = opened(page, "parting-card", "card")
            expect(card.locator("output")).to_have_text(re.compile(r"PADDLE-\d+"))
            codes.append(card.locator("output").inner_text())
            card.get_by_role("button", name="No, thank you").click()
            expect(page.locator(HOST.format("card"))).to_have_count(0)
        context.close()
    assert codes[0] == codes[1] != codes[2] == codes[3]


def test_the_parting_card_comes_when_the_pointer_leaves_at_the_top(
    stranger: BrowserContext, stack: Stack
) -> None:
    page = on(stranger, stack, "/blog")
    page.wait_for_function(
        "performance.getEntriesByType('resource').some((one) => /more\\.js$/.test(one.name))"
    )
    settled(page)
    page.mouse.move(400, 300)
    expect(page.locator(HOST.format("card"))).to_have_count(0)
    page.evaluate("document.dispatchEvent(new MouseEvent('mouseout', {clientY: -3, bubbles: true}))")
    expect(page.get_by_role("dialog", name="Before you go")).to_be_visible()


def test_a_sign_up_is_confirmed_by_mail_before_its_file_is_given(
    stranger: BrowserContext, stack: Stack
) -> None:
    page = on(stranger, stack, "/lessons")
    card = opened(page, "tide-table", "pop-up")
    card.get_by_label("Your email").fill("odile@post.example")
    card.get_by_label("Send me the monthly tide table.").check()
    later(page)
    card.get_by_role("button", name="Send me the tide table").click()
    expect(card.get_by_role("heading", name="Look in your mail")).to_be_visible()
    mail = mailed(stack, "odile@post.example", "Please confirm")
    page.goto(re.search(r"http\S+/c/\S+", mail["text"])[0])
    page.get_by_role("button", name="Send me the tide table").click()
    with page.expect_download() as download:
        page.get_by_role("link", name="This month’s tide table").click()
    assert download.value.suggested_filename == "tide-table.pdf"
    assert "/f/" in mailed(stack, "odile@post.example", "Your tide table")["text"]


def test_a_call_is_booked_in_open_hours_and_stands_on_the_list(
    stranger: BrowserContext, stack: Stack, owner: Page
) -> None:
    page = on(stranger, stack, "/contact")
    card = opened(page, "call-me-back", "side-panel")
    card.get_by_label("When?: day").select_option("Wed 25 Nov")
    card.get_by_label("When?: time").select_option("10:30")
    card.get_by_label("Your phone number").fill("07700 900321")
    card.get_by_label("Your name").fill("Petra")
    card.get_by_role("button", name="Call me then").click()
    # Exactly: the question before it, “Shall we call you?”, has the same words in it.
    expect(card.get_by_role("heading", name="We call you", exact=True)).to_be_visible()
    owner.goto(f"{stack.base_url}/follow-up")
    item = owner.get_by_role("link", name=re.compile("Petra.*Call me back"))
    expect(item).to_contain_text("tomorrow 10:30")


@pytest.mark.parametrize("slug", ["ask-the-boathouse", "hire-question", "call-me-back"])
def test_the_hosted_page_works_without_javascript(browser: Browser, stack: Stack, slug: str) -> None:
    context = browser.new_context(java_script_enabled=False)
    page = context.new_page()
    page.goto(f"{stack.base_url}/t/{stack.names.slug}/{slug}")
    if slug == "ask-the-boathouse":
        page.get_by_role("button", name="Write to us").click()
        page.get_by_label("Your message").fill("Do you have a ramp?")
        page.get_by_label("Your email").fill("ramp@post.example")
        page.get_by_role("button", name="Send it").click()
        expect(page.get_by_text("We answer today by 16:05.")).to_be_visible()
    elif slug == "hire-question":
        page.get_by_label("Calm water").check()
        page.get_by_role("button", name="Go on").click()
        expect(page.get_by_role("heading", name="Then take a double, upstream")).to_be_visible()
    else:
        page.get_by_label("When?").select_option(label="Wed 25 Nov, 11:00")
        page.get_by_label("Your phone number").fill("07700 900322")
        page.get_by_label("Your name").fill("Quill")
        page.get_by_role("button", name="Call me then").click()
        expect(page.get_by_role("heading", name="We call you", exact=True)).to_be_visible()
    context.close()


DRAWN = """root => [...root.querySelectorAll('[data-part]')].map(part =>
  [part.dataset.part, part.tagName, part.innerText.replace(/\\s+/g, ' ').trim(), getComputedStyle(part).color])"""


def test_stage_page_and_hosted_page_are_drawn_by_the_same_code(
    owner: Page, stranger: BrowserContext, stack: Stack
) -> None:
    owner.goto(f"{stack.base_url}/touchpoints")
    owner.get_by_role("link", name="Tide table").click()
    on_stage = stage(owner, "Desktop").locator("[data-intavo-touchpoint=stage] .card")
    expect(on_stage).to_be_visible()
    page = on(stranger, stack, "/contact")
    on_page = opened(page, "tide-table", "pop-up")
    hosted = stranger.new_page()
    hosted.goto(f"{stack.base_url}/t/{stack.names.slug}/tide-table")
    on_hosted = hosted.locator("[data-intavo-touchpoint=inline] .card")
    expect(on_hosted).to_be_visible()
    drawn = [one.evaluate(DRAWN) for one in (on_stage, on_page, on_hosted)]
    assert len(drawn[0]) >= 5
    assert drawn[0] == drawn[1] == drawn[2]


def test_the_house_style_is_read_from_the_sites_own_page(owner: Page, stack: Stack) -> None:
    visit = owner.context.new_page()
    with visit.expect_response(re.compile("/plan$")):
        visit.goto(f"{stack.site_url}/contact")
    visit.close()
    owner.goto(f"{stack.base_url}/business")
    style = owner.get_by_role("region", name=f"House style of {stack.names.slug}.")
    style.get_by_label("Corners of the house style").fill("21")
    style.get_by_label("Corners of the house style").press("Tab")
    with owner.expect_popup() as popup:
        style.get_by_role("button", name="Read it from the site").click()
    found = owner.get_by_text("This is what your site looks like. Take it?")
    expect(found).to_be_visible()
    popup.value.close()
    # The corners are kept with the same words and at the same address as this is.
    with owner.expect_response(
        lambda answer: answer.request.method == "PUT" and "#fbf1de" in (answer.request.post_data or "")
    ):
        owner.get_by_role("button", name="Take it").click()
    expect(owner.get_by_text("follow it within a second")).to_be_visible()
    owner.reload()
    expect(style.get_by_label("Card of the house style", exact=True)).to_have_value("#fbf1de")
    expect(style.get_by_label("Font of text: its name")).to_have_value(re.compile("^Georgia"))
    expect(style.get_by_text(f"logo of {stack.names.host}.png")).to_be_visible()


def test_what_was_set_aside_is_seen_and_released(owner: Page, stranger: BrowserContext, stack: Stack) -> None:
    page = on(stranger, stack, "/contact")
    card = opened(page, "boathouse-question", "pop-up")
    card.get_by_label("Your question").fill("Cheap pills?")
    card.get_by_label("Your email").fill("robot@post.example")
    card.locator(".trap input").evaluate("input => input.value = 'http://spam.example'")
    later(page)
    card.get_by_role("button", name="Send my question").click()
    expect(card.get_by_role("heading", name="We have it")).to_be_visible()
    owner.goto(f"{stack.base_url}/follow-up")
    owner.get_by_role("link", name=re.compile("set aside as spam")).click()
    held = owner.get_by_role("listitem").filter(has_text="Cheap pills?")
    expect(held).to_contain_text("filled in a field that people do not see")
    assert violations(owner) == []
    held.get_by_role("button", name="Release it").click()
    expect(held).to_have_count(0)
    owner.goto(f"{stack.base_url}/follow-up")
    expect(owner.get_by_role("link", name=re.compile("robot@post.example"))).to_have_count(1)
