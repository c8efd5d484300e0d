"""Editing in the console: looks and rules of a touchpoint, two members at once, hours in a plain form."""

import re
from collections.abc import Callable

import pytest
from playwright.sync_api import Page, expect

from scripts.stack import Stack
from tests.waiting import until

from .pages.console import add_to, saved, side, stage, start
from .pages.steps import step


@pytest.fixture
def editor(owner: Page, stack: Stack) -> Page:
    """A new draft, open in the editor."""
    return start(owner, stack, "News by email", "A draft to edit")


def test_a_look_is_seen_at_once_on_the_stage_and_kept(editor: Page) -> None:
    card = stage(editor, "Desktop").get_by_role("dialog")
    side(editor, "Look")
    editor.get_by_label("Width", exact=True).fill("640")
    editor.get_by_label("Width", exact=True).press("Tab")
    editor.get_by_text("Colours", exact=True).click()
    editor.get_by_label("Button", exact=True).fill("#a32d1e")
    editor.get_by_label("Stands", exact=True).select_option("top")
    saved(editor)
    editor.reload()
    expect(editor.get_by_label("Width", exact=True)).to_have_value("640")
    expect(card).to_have_css("width", "640px")
    button = stage(editor, "Phone").get_by_role("button", name="Keep me posted")
    expect(button).to_have_css("background-color", "rgb(163, 45, 30)")


def test_enter_in_a_headline_makes_a_line_that_stands(editor: Page) -> None:
    headline = stage(editor, "Desktop").get_by_role("textbox", name="Words of p1")
    headline.click()
    editor.keyboard.press("Control+a")
    editor.keyboard.type("Warm bread")
    editor.keyboard.press("Enter")
    editor.keyboard.type("every Thursday")
    saved(editor)
    editor.reload()
    for screen in ("Desktop", "Phone"):
        written = stage(editor, screen).get_by_role("textbox", name="Words of p1")
        expect(written).to_have_js_property("innerText", "Warm bread\nevery Thursday")


# Where the words of an element end: its box without its padding.
EDGE = "(one) => one.getBoundingClientRect().right - parseFloat(getComputedStyle(one).paddingInlineEnd)"


def test_a_close_word_keeps_clear_of_the_headline_and_leaves_it_the_line_under_a_picture(
    editor: Page,
) -> None:
    card, padding = stage(editor, "Phone").get_by_role("dialog"), "padding-inline-end"
    side(editor, "Look")
    editor.get_by_text("How it is closed", exact=True).click()
    editor.get_by_role("combobox", name="Close sign", exact=True).select_option("a word")
    editor.get_by_label("Word to close").fill("No, thank you")
    editor.get_by_label("Word to close").press("Tab")
    expect(card.get_by_role("button", name="No, thank you")).to_be_visible()
    expect(card.locator("h2")).to_have_css(padding, "0px")
    side(editor, "Content")
    editor.get_by_role("button", name=re.compile("^Picture")).click()
    editor.get_by_role("button", name="Remove Picture").click()
    expect(card.get_by_role("img")).to_have_count(0)
    expect(card.locator("h2")).not_to_have_css(padding, "0px")
    # It is drawn once more when what is kept comes back, and what is measured meanwhile is nothing yet.
    close = card.get_by_role("button", name="No, thank you")
    until(
        lambda: (
            card.locator("h2").evaluate(EDGE) <= close.evaluate("(one) => one.getBoundingClientRect().left")
        ),
        "a headline that ends before the word to close",
        20,
    )
    editor.get_by_label("How it stands").select_option("Bar")
    bar = stage(editor, "Phone").locator("[data-stance=bar]")
    expect(bar.get_by_role("button", name="No, thank you")).to_be_visible()
    assert bar.locator("h2").evaluate("(one) => one.clientWidth") >= 140


def test_the_show_sentence_says_what_its_panels_hold(editor: Page, stack: Stack) -> None:
    editor.get_by_role("button", name="on every page").click()
    add_to(editor, "Only on these pages", f"https://{stack.names.host}/Trips/*", "/lessons")
    add_to(editor, "But not on", "/trips/sunrise")
    expect(editor.get_by_role("status").filter(has_text="known pages")).to_be_visible()
    editor.keyboard.press("Escape")
    step("who")
    editor.get_by_role("button", name="anyone, on any device").click()
    editor.get_by_label("on a tablet").uncheck()
    editor.get_by_label("Add something about them").select_option("been")
    editor.get_by_label("Those who do, or those who do not: have been here before").select_option("not")
    editor.keyboard.press("Escape")
    editor.get_by_role("button", name=re.compile("^after 12 s")).click()
    editor.get_by_label("Add a moment").select_option("idle")
    editor.get_by_label("all of them").check()
    editor.get_by_role("button", name="Leave out: so much of it read").click()
    editor.keyboard.press("Escape")
    step("when")
    editor.get_by_role("button", name="at any time").click()
    editor.get_by_label("to, that day too").fill("2026-11-30")
    editor.get_by_label("from", exact=True).fill("2026-12-01")
    editor.get_by_label("from", exact=True).press("Tab")
    expect(editor.get_by_role("alert")).to_contain_text(
        "t would end on Mon 30 Nov, before it starts on Tue 1 Dec"
    )
    expect(editor.get_by_label("to, that day too")).to_have_value("30 Nov 2026")
    editor.get_by_label("to, that day too").fill("")
    editor.get_by_label("to, that day too").press("Tab")
    expect(editor.get_by_role("alert")).to_have_count(0)
    editor.get_by_role("button", name="Sat", exact=True).click()
    editor.get_by_label("While open or closed").select_option("open")
    editor.keyboard.press("Escape")
    editor.get_by_role("button", name="at most once in 7 days").click()
    editor.get_by_label("Once in: how many").fill("30")
    editor.get_by_label("Once in: how many").press("Tab")
    editor.get_by_label("once closed, not for").check()
    editor.keyboard.press("Escape")
    step("until")
    editor.get_by_role("button", name="until they answer").click()
    editor.get_by_label("It belongs to the group").fill("News")
    editor.get_by_label("It belongs to the group").press("Enter")
    editor.get_by_label("nor after they answered another of its group").check()
    editor.keyboard.press("Escape")
    saved(editor)
    editor.reload()
    for words in (
        "on /trips and below and /lessons but /trips/sunrise",
        "people on a desktop or phone who are here for the first time",
        "after 12 s and after 30 s of doing nothing",
        "from 1 Dec 2026, on Sat, while you are open",
        "at most once in 30 days, not for 7 days once closed",
        "until they answer this or another of “News”",
    ):
        expect(editor.get_by_role("button", name=words, exact=True)).to_be_visible()


def test_two_sentences_are_joined_by_or_and_a_bad_pattern_is_refused_with_its_place(editor: Page) -> None:
    editor.get_by_role("button", name="or also …").click()
    show = editor.get_by_role("group", name="Show sentence")
    expect(show).to_contain_text("or on every page to")
    show.get_by_role("button", name="on every page").nth(1).click()
    editor.get_by_role("button", name="more exact …").click()
    add_to(editor, "Only on these pages", "/x")
    editor.get_by_label("Only on these pages: how 1").select_option("regex")
    editor.get_by_label("Only on these pages: page 1").fill("(?=x)")
    editor.get_by_label("Only on these pages: page 1").press("Tab")
    expect(editor.get_by_text("this regular expression cannot be read").first).to_be_visible()
    editor.get_by_label("Only on these pages: page 1").fill("^/x+$")
    editor.get_by_label("Only on these pages: page 1").press("Tab")
    expect(editor.get_by_text("this regular expression cannot be read")).to_have_count(0)
    editor.keyboard.press("Escape")
    saved(editor)
    editor.get_by_role("button", name="Leave out sentence 2").click()
    expect(show).not_to_contain_text("or on")


def test_the_later_of_two_members_is_told_and_loses_nothing(
    editor: Page, other_device: Callable[..., Page]
) -> None:
    other = other_device()
    other.goto(editor.url)
    theirs = stage(other, "Desktop").get_by_role("textbox", name="Words of p1")
    theirs.fill("Their headline")
    saved(other)
    mine = stage(editor, "Desktop").get_by_role("textbox", name="Words of p1")
    mine.fill("My headline")
    expect(editor.get_by_role("alert")).to_contain_text("has changed this touchpoint meanwhile")
    expect(mine).to_have_text("My headline")
    editor.get_by_role("button", name="Keep mine on top of it").click()
    saved(editor)
    other.reload()
    expect(theirs).to_have_text("My headline")


def test_foreign_markup_runs_on_the_stage_as_on_a_page(editor: Page) -> None:
    editor.get_by_role("button", name="+ Add a part").click()
    editor.get_by_role("menuitem", name="Foreign markup").click()
    editor.get_by_label("Markup of somebody else").fill(
        "<p id='said'>not run</p><div style='height:310px'></div><script>said.textContent = 'run'</script>"
    )
    saved(editor)
    for which in ("Desktop", "Phone"):
        frame = stage(editor, which).locator("iframe.markup")
        expect(frame.content_frame.locator("#said")).to_have_text("run")
        expect(frame).to_have_attribute("height", re.compile(r"^3[3-9]\d$"))
