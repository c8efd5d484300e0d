"""What reaches over the whole business: several sites, answers with pictures. Last, since it leaves a second site behind."""

import re
from typing import Any

import pytest
from playwright.sync_api import BrowserContext, Page, expect

from scripts.stack import Stack

from .conftest import side
from .test_making import start
from .test_stances import on, opened


def test_an_answer_shows_its_picture_to_visitors(owner: Page, stranger: BrowserContext, stack: Stack) -> None:
    owner.goto(f"{stack.base_url}/business")
    owner.get_by_role("button", name="Change “What should I bring?”").click()
    owner.get_by_role("button", name="Picture", exact=True).click()
    owner.get_by_role("dialog").get_by_role("button").filter(has=owner.locator("img")).first.click()
    owner.get_by_role("button", name="Keep it").click()
    expect(owner.get_by_role("button", name="Keep it")).to_have_count(0)
    page = on(stranger, stack, "/lessons")
    card = opened_button(page)
    card.get_by_text("What should I bring?").click()
    picture = card.locator("details[open] img")
    expect(picture).to_be_visible()
    assert picture.evaluate("one => one.decode().then(() => one.naturalWidth)") > 100
    page.set_viewport_size({"width": 320, "height": 640})
    box = picture.bounding_box()
    assert box is not None
    assert box["x"] >= 0
    assert box["x"] + box["width"] <= 320


def opened_button(page: Page) -> Any:
    """The card of the button in the corner, unfolded."""
    page.evaluate("intavo.open('ask-the-boathouse')")
    card = page.locator("[data-intavo-touchpoint=button] .card").first
    expect(card).to_be_visible()
    return card


@pytest.mark.parametrize("size", [(640, 400), (427, 267)])
@pytest.mark.parametrize(("slug", "stance"), [("tide-table", "pop-up"), ("call-me-back", "side-panel")])
def test_zoomed_in_everything_can_be_reached(
    stranger: BrowserContext, stack: Stack, size: tuple[int, int], slug: str, stance: str
) -> None:
    page = on(stranger, stack, "/lessons")
    page.set_viewport_size({"width": size[0], "height": size[1]})
    card = opened(page, slug, stance)
    last = card.locator("button:visible").last
    last.scroll_into_view_if_needed()
    for inner in (last, card.get_by_role("button", name="Close")):
        inner.scroll_into_view_if_needed()
        box = inner.bounding_box()
        assert box is not None
        assert box["x"] >= -1
        assert box["x"] + box["width"] <= size[0] + 1
        assert box["y"] >= -1
        assert box["y"] + box["height"] <= size[1] + 1


def test_a_touchpoint_stands_on_the_sites_that_are_ticked(owner: Page, stack: Stack) -> None:
    owner.goto(f"{stack.base_url}/business")
    owner.get_by_role("button", name="+ Another site").click()
    owner.get_by_label("Address of the site").fill("shop.otterwick.example")
    owner.get_by_role("button", name="Add it").click()
    expect(owner.get_by_role("button", name="Add it")).to_have_count(0)
    editor = start(owner, stack, "A notice bar", "On two sites")
    side(editor, "After")
    sites = editor.get_by_role("group", name="On these sites").get_by_role("checkbox")
    expect(sites).to_have_count(2)
    for at in (0, 1):
        expect(sites.nth(at)).to_be_checked()
    sites.nth(0).uncheck()
    sites.nth(1).uncheck()
    expect(editor.get_by_text("It stands on no site.").first).to_be_visible()
    editor.get_by_role("button", name="Turn on").click()
    expect(editor.get_by_role("dialog").get_by_text("This has to be put right first")).to_be_visible()
    editor.get_by_role("dialog").get_by_role("button", name="Not yet").click()
    sites.nth(1).check()
    expect(editor.get_by_text("It stands on no site.")).to_have_count(0)
    editor.reload()
    side(editor, "After")
    expect(sites.nth(0)).not_to_be_checked()
    expect(sites.nth(1)).to_be_checked()
    editor.get_by_role("button", name="Turn on").click()
    expect(
        editor.get_by_role("dialog").get_by_text(re.compile("Visitors of shop.otterwick.example get it"))
    ).to_be_visible()
