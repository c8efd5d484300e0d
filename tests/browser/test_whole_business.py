"""What reaches over the whole business: several sites, answers with pictures. Last, since it leaves a second site behind."""

import re
from typing import Any

import pytest
from playwright.sync_api import BrowserContext, Locator, Page, expect

from scripts.stack import Stack

from .pages.console import side, start
from .pages.site import on, opened
from .pages.steps import step


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
    owner.get_by_label("Address of the site").fill(f"shop.{stack.names.host}")
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
        editor.get_by_role("dialog").get_by_text(re.compile(f"Visitors of shop.{stack.names.host} get it"))
    ).to_be_visible()


def test_a_site_that_is_open_twice_keeps_what_both_have_changed(owner: Page, stack: Stack) -> None:
    other = owner.context.new_page()
    both = (owner, other)
    for page in both:
        page.goto(f"{stack.base_url}/business")
        page.get_by_text("Showing on this site").first.click()
    sites = [page.locator("article", has=page.get_by_label("Snippet")).first for page in both]
    tongues = [site.get_by_label("Its visitors are spoken to in") for site in sites]
    corners = [site.get_by_label("Corners of the house style") for site in sites]
    often = [site.get_by_label("Interruptions of a visit") for site in sites]
    new = [f"shop.{stack.names.host}", f"blog.{stack.names.host}"]
    step("Both have typed before either is saved")
    for at in (0, 1):
        sites[at].get_by_placeholder("another address").fill(new[at])
        tongues[at].select_option(("de", "fr")[at])
        corners[at].fill(("11", "12")[at])
        often[at].fill(("7", "8")[at])
        often[at].press("Tab")

    def save(at: int, name: str) -> Locator:
        sites[at].get_by_role("button", name=name).click()
        return sites[at].get_by_role("alert")

    for name in ("Save the site", "Keep the house style", "Save what holds for the site"):
        with owner.expect_response(lambda answer: answer.request.method == "PUT"):
            save(0, name)
    asked = save(1, "Save the site")
    expect(asked).to_contain_text("Somebody else has changed the same meanwhile: its language.")
    asked.get_by_role("button", name="Save mine in its place").click()
    expect(asked).to_have_count(0)
    expect(tongues[1]).to_have_value("fr")
    for host in new:
        expect(sites[1].get_by_role("button", name=f"Remove {host}")).to_be_visible()
    asked = save(1, "Keep the house style")
    expect(asked).to_contain_text("the same meanwhile: Corners.")
    asked.get_by_role("button", name="Take what stands there").click()
    expect(corners[1]).to_have_value("11")
    asked = save(1, "Save what holds for the site")
    expect(asked).to_contain_text("the same meanwhile: how often a visit is interrupted.")
    asked.get_by_role("button", name="Take what stands there").click()
    expect(often[1]).to_have_value("7")

    step("Whose new work is, is kept with each change")
    rules = [page.get_by_role("article", name="Whose new work is") for page in both]
    rules[0].get_by_role("button", name="+ Rule").click()
    expect(rules[0].get_by_role("listitem")).to_have_count(1)
    rules[1].get_by_role("button", name="+ Rule").click()
    expect(rules[1].get_by_role("listitem")).to_have_count(1)
    step("One after the other, however fast")
    rules[0].get_by_label("What, rule 1").select_option("sign-up")
    rules[0].get_by_label("On which page, rule 1").fill("/trips")
    rules[0].get_by_label("On which page, rule 1").press("Tab")
    expect(rules[0].get_by_role("group", name="a sign-up on /trips goes to")).to_be_visible()
    rules[1].get_by_label("What, rule 1").select_option("inquiry")
    asked = rules[1].get_by_role("alert")
    expect(asked).to_contain_text("the same meanwhile: whose new work is.")
    asked.get_by_role("button", name="Take what stands there").click()
    expect(rules[1].get_by_label("What, rule 1")).to_have_value("sign-up")
    rules[1].get_by_role("button", name="Remove rule 1").click()
    expect(rules[1].get_by_role("listitem")).to_have_count(0)
    other.close()
