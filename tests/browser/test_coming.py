"""What comes onto a page: in view, where it was asked for, beside what stands there, and gone as it was said."""

import io
import re
from typing import Any

import pytest
from PIL import Image
from playwright.sync_api import BrowserContext, FloatRect, Route, expect

from scripts.stack import Stack
from tests.waiting import until

from .pages.site import HOST, looking, on, opened, planned, settled, until_still, with_parts

TALL = "main{min-height:4000px}"


@pytest.mark.parametrize("stays", [True, False])
@pytest.mark.parametrize("pushes", [True, False])
def test_a_bar_that_comes_on_a_scrolled_page_is_in_view_and_nothing_jumps(
    stranger: BrowserContext, stack: Stack, pushes: bool, stays: bool
) -> None:
    page = stranger.new_page()
    looking(page, pushes=pushes, stays=stays, arrival="none", going="none")
    page.goto(f"{stack.site_url}/groups")
    page.add_style_tag(content=TALL)
    page.evaluate("scrollTo(0, 700)")
    foot = "() => document.querySelector('footer').getBoundingClientRect().top"
    before = page.evaluate(foot)
    bar = opened(page, "group-booking", "bar")
    assert bar.bounding_box()["y"] == pytest.approx(0, abs=1)
    settled(page)
    assert page.evaluate(foot) == pytest.approx(before, abs=1)
    page.evaluate("scrollBy(0, 300)")
    settled(page)
    assert (bar.bounding_box()["y"] > -1) is stays
    page.evaluate("scrollTo(0, 0)")
    # While it is scrolled, it is looked now and then where the page's own head is.
    until_still(page)
    box, header = bar.bounding_box(), page.get_by_role("banner").bounding_box()
    first, second = (box, header) if pushes else (header, box)
    assert first["y"] + first["height"] == pytest.approx(second["y"], abs=1)
    page.evaluate("scrollTo(0, 600)")
    before = page.evaluate(foot)
    page.evaluate("intavo.close()")
    expect(page.locator(HOST.format("bar"))).to_have_count(0)
    settled(page)
    assert page.evaluate(foot) == pytest.approx(before, abs=1)


@pytest.mark.parametrize("width", [320, 390, 1280])
def test_buttons_in_one_corner_stand_above_one_another(
    stranger: BrowserContext, stack: Stack, width: int
) -> None:
    page = stranger.new_page()
    page.set_viewport_size({"width": width, "height": 700})

    def second(plan: dict[str, Any]) -> None:
        for one in [entry for entry in plan["touchpoints"] if entry["slug"] == "ask-the-boathouse"]:
            more = {**one, "id": "tp_second", "slug": "second", "document": {**one["document"], "face": {
                **one["document"]["face"], "label": "The second one"}}}  # fmt: skip
            plan["touchpoints"].append(more)

    planned(page, second)
    page.goto(f"{stack.site_url}/contact")
    one, other = (page.get_by_role("button", name=name) for name in ("Ask the boathouse", "The second one"))
    expect(other).to_be_visible()
    settled(page)
    above, below = sorted((one.bounding_box(), other.bounding_box()), key=lambda box: box["y"])
    assert above["y"] + above["height"] <= below["y"] - 6
    assert below["y"] + below["height"] <= 700
    one.click()
    expect(one).to_have_attribute("aria-expanded", "true")
    page.keyboard.press("Escape")
    other.click()
    expect(other).to_have_attribute("aria-expanded", "true")


def test_a_page_that_changes_all_the_time_is_not_asked_all_the_time(
    stranger: BrowserContext, stack: Stack
) -> None:
    page = stranger.new_page()
    page.add_init_script("""const { elementsFromPoint } = Document.prototype
      window.asked = 0
      Document.prototype.elementsFromPoint = function (...at) { asked += 1; return elementsFromPoint.apply(this, at) }""")
    page.goto(f"{stack.site_url}/contact")
    face = page.get_by_role("button", name="Ask the boathouse")
    expect(face).to_be_visible()
    page.wait_for_function("asked")
    until_still(page)
    once = page.evaluate("asked")
    assert once
    page.evaluate("""() => new Promise((done) => { asked = 0; let left = 100; const change = () => {
      document.body.append(document.createElement('i')); left -= 1; setTimeout(left ? change : done, 10) }; change() })""")
    assert 0 < page.evaluate("asked") < 20 * once
    # What of the page's own comes where it stands, it makes room for.
    page.evaluate("""() => { const own = document.createElement('b')
      own.style.cssText = 'position:fixed;right:12px;bottom:12px;width:60px;height:60px;background:red'
      document.body.append(own) }""")
    highest = page.viewport_size["height"] - 72
    until(lambda: (box := face.bounding_box())["y"] + box["height"] <= highest, "it makes room")


def test_a_card_ends_where_a_bar_begins(stranger: BrowserContext, stack: Stack) -> None:
    page = stranger.new_page()
    page.set_viewport_size({"width": 390, "height": 380})
    looking(page, place="bottom", arrival="none", going="none")
    page.goto(f"{stack.site_url}/trips")
    card, bar = opened(page, "parting-card", "card"), opened(page, "group-booking", "bar")
    settled(page)
    box = card.bounding_box()
    assert box["y"] >= 0
    assert box["y"] + box["height"] <= bar.bounding_box()["y"]
    page.evaluate("intavo.close()")
    expect(card).to_have_count(0)


def test_a_button_stands_above_a_bar_and_is_not_seen_behind_a_card(
    stranger: BrowserContext, stack: Stack
) -> None:
    page = stranger.new_page()
    page.set_viewport_size({"width": 390, "height": 700})
    looking(page, place="bottom", arrival="none", going="none")
    page.goto(f"{stack.site_url}/contact")
    face = page.get_by_role("button", name="Ask the boathouse")
    expect(face).to_be_visible()
    bar = opened(page, "group-booking", "bar")
    settled(page)
    box = face.bounding_box()
    assert box["y"] + box["height"] <= bar.bounding_box()["y"]
    opened(page, "parting-card", "card")
    expect(face).to_be_hidden()
    page.evaluate("intavo.close()")
    expect(face).to_be_visible()


def test_a_click_while_the_page_still_loads_opens_it_when_the_script_is_ready(
    stranger: BrowserContext, stack: Stack
) -> None:
    page = stranger.new_page()
    held: list[Route] = []
    page.route("**/plan", lambda route: route.continue_() if held else held.append(route))
    page.goto(f"{stack.site_url}/contact")
    page.evaluate(
        "document.querySelector('main').insertAdjacentHTML('afterbegin',"
        " '<button data-intavo-open=\"boathouse-question\">Ask</button>')"
    )
    page.get_by_role("button", name="Ask", exact=True).click()
    until(lambda: page.evaluate("1") and held, "the plan is asked for")
    held[0].continue_()
    expect(page.locator(HOST.format("pop-up")).locator(".card")).to_be_visible()


@pytest.mark.parametrize("way", ["Escape", "a click outside"])
@pytest.mark.parametrize("ticked", [True, False])
@pytest.mark.parametrize(
    ("slug", "stance"), [("parting-card", "card"), ("tide-table", "pop-up"), ("call-me-back", "side-panel")]
)
def test_it_closes_as_ticked_with_the_focus_still_in_the_page(
    stranger: BrowserContext, stack: Stack, slug: str, stance: str, ticked: bool, way: str
) -> None:
    page = stranger.new_page()

    def leaving(plan: dict[str, Any]) -> None:
        for entry in plan["touchpoints"]:
            entry["document"]["leaving"] |= {"outside": ticked, "escape": ticked}

    planned(page, leaving)
    page.goto(f"{stack.site_url}/trips")
    page.wait_for_function("window.intavo")
    page.get_by_role("link", name="Lessons").first.focus()
    opened(page, slug, stance)
    if way == "Escape":
        page.keyboard.press("Escape")
    else:
        page.mouse.click(5, 300)
    settled(page)
    expect(page.locator(HOST.format(stance))).to_have_count(0 if ticked else 1)


def test_what_the_site_says_of_the_visitor_after_the_plan_changes_what_shows(
    stranger: BrowserContext, stack: Stack
) -> None:
    asked: list[dict[str, Any]] = []
    page = stranger.new_page()
    page.on("request", lambda one: asked.append(one.post_data_json) if one.url.endswith("/plan") else None)

    def members_only(plan: dict[str, Any]) -> None:
        signed = asked[-1]["page"]["signed_in"]
        for entry in plan["touchpoints"]:
            entry["moments"] = [[{"after": 0}]] if entry["slug"] == "parting-card" and signed else []

    planned(page, members_only)
    with page.expect_response(re.compile("/plan$")):
        page.goto(f"{stack.site_url}/contact")
    page.wait_for_load_state("networkidle")
    with page.expect_response(re.compile("/plan$")):
        page.evaluate("intavo.visitor({signed_in: true})")
    expect(page.locator(HOST.format("card")).locator(".card")).to_be_visible()
    with page.expect_response(re.compile("/plan$")):
        page.evaluate("intavo.visitor({email_known: true, first_name: 'Bo'})")
    assert asked[-1]["visitor"]["on_list"] is True
    count = len(asked)
    page.evaluate("intavo.visitor({email_known: true})")
    # Whatever it asks for goes out before this does.
    page.evaluate("async () => { await new Promise(requestAnimationFrame); await fetch('/contact') }")
    assert len(asked) == count


def test_red_words_go_as_soon_as_their_field_holds(stranger: BrowserContext, stack: Stack) -> None:
    page = on(stranger, stack, "/contact")
    card = opened(page, "tide-table", "pop-up")
    card.get_by_label("Your email").fill("nobody")
    card.get_by_role("button", name="Send me the tide table").click()
    wrong = card.locator(".error:visible")
    expect(wrong).to_have_count(2)
    card.get_by_label("Your email").fill("nobody@")
    expect(wrong).to_have_count(2)
    card.get_by_label("Your email").fill("nobody@post.example")
    expect(wrong).to_have_count(1)
    card.get_by_label("Send me the monthly tide table.").check()
    expect(wrong).to_have_count(0)
    expect(card.locator("[aria-invalid=true]")).to_have_count(0)


@pytest.mark.parametrize("width", [390, 1280])
def test_foreign_markup_runs_in_its_frame_and_is_as_high_as_its_content(
    stranger: BrowserContext, stack: Stack, width: int
) -> None:
    page = stranger.new_page()
    page.set_viewport_size({"width": width, "height": 800})
    html = (
        '<p id="said">not run</p><div style="height:300px"></div><script>'
        "document.querySelector('#said').textContent = `run, ${innerWidth}, ${(() => { try { return parent.document.title }"
        " catch { return 'apart' } })()}`</script>"
    )
    part = {"kind": "markup", "html": html, "windows": False, "height": 50, "description": "A widget"}
    with_parts(page, "tide-table", part)
    page.goto(f"{stack.site_url}/lessons")
    page.wait_for_function("window.intavo")
    card = opened(page, "tide-table", "pop-up")
    frame = card.locator("iframe.markup")
    said = page.frame_locator("iframe.markup").locator("#said")
    expect(said).to_contain_text("run, ")
    expect(said).to_contain_text("apart")
    expect(frame).to_have_attribute("height", re.compile(r"^3[3-9]\d$"))
    box = frame.bounding_box()
    assert box is not None
    assert f"run, {round(box['width'])}" in said.inner_text()


@pytest.mark.parametrize("real", [False, True])
def test_windows_of_foreign_markup_are_real_ones_where_ticked(
    stranger: BrowserContext, stack: Stack, real: bool
) -> None:
    page = stranger.new_page()
    html = f"<button onclick=\"window.open('{stack.site_url}/trips')\">A window</button>"
    with_parts(
        page,
        "tide-table",
        {"kind": "markup", "html": html, "windows": real, "height": 50, "description": "A widget"},
    )
    page.goto(f"{stack.site_url}/lessons")
    page.wait_for_function("window.intavo")
    opened(page, "tide-table", "pop-up")
    with stranger.expect_page() as window:
        page.frame_locator("iframe.markup").get_by_role("button", name="A window").click()
    # What stays in the sandbox has no cookies of its own.
    reads = "() => { try { return typeof document.cookie === 'string' } catch { return false } }"
    assert window.value.evaluate(reads) is real


def test_a_headline_keeps_its_lines_and_stays_clear_of_a_close_word(
    stranger: BrowserContext, stack: Stack
) -> None:
    page = stranger.new_page()
    head = {
        "kind": "headline",
        "text": "One line\nand another one",
        "known": [],
        "size": "large",
        "colour": None,
        "align": "start",
    }
    cross = {"style": "word", "word": "Not now, thank you", "size": 36, "place": "end"}
    with_parts(page, "boathouse-question", head, cross=cross)
    page.goto(f"{stack.site_url}/contact")
    page.wait_for_function("window.intavo")
    card = opened(page, "boathouse-question", "pop-up")
    title = card.get_by_role("heading", name="One line")
    assert title.evaluate("one => one.innerText.split('\\n').length") == 2
    settled(page)
    right = title.evaluate(
        "one => { const range = document.createRange(); range.selectNodeContents(one);"
        " return Math.max(...[...range.getClientRects()].map((box) => box.right)) }"
    )
    assert right <= card.get_by_role("button", name="Not now, thank you").bounding_box()["x"]


def test_the_page_scrolls_under_a_pointer_that_is_on_a_bar_or_a_card(
    stranger: BrowserContext, stack: Stack
) -> None:
    page = stranger.new_page()
    looking(page, arrival="none", going="none")
    page.goto(f"{stack.site_url}/groups")
    page.add_style_tag(content=TALL)
    opened(page, "group-booking", "bar").hover(position={"x": 6, "y": 6})
    page.mouse.wheel(0, 500)
    page.wait_for_function("scrollY > 300")


def test_what_interrupts_covers_bars_and_buttons_with_the_rest_of_the_page(
    stranger: BrowserContext, stack: Stack
) -> None:
    page = stranger.new_page()
    looking(page, arrival="none", going="none")
    page.goto(f"{stack.site_url}/groups")
    face = page.locator(".face").first
    expect(face).to_be_visible()
    box = face.bounding_box()
    at: FloatRect = {"x": box["x"] + 4, "y": box["y"] + box["height"] / 2, "width": 1, "height": 1}

    def light() -> int:
        return sum(Image.open(io.BytesIO(page.screenshot(clip=at))).convert("RGB").tobytes())

    bare = light()
    opened(page, "tide-table", "pop-up")
    settled(page)
    assert light() < bare * 0.8
