"""The walk of the list: what comes in while it is open, six worked by keyboard, hours that move, five thousand brought in,
the whole business out and into an empty one, and what is finished found again."""

import re
from collections.abc import Callable
from typing import Any

from playwright.sync_api import BrowserContext, Page, expect

from scripts.stack import Stack

from .pages.console import asks_for, follow_up
from .pages.mail import posted
from .pages.site import asked
from .pages.steps import step

NAMES = ("Abel", "Bryn", "Cai", "Dilys", "Efa", "Ffion", "Gwil", "Hari")


def walrus(page: Page, name: str) -> Any:
    """Somebody's row on the list."""
    return page.locator("[data-id]").filter(has_text=f"{name} Walrus")


def test_eleven_come_in_and_six_are_worked_by_keyboard(
    owner: Page, stranger: BrowserContext, other_device: Callable[..., Page], stack: Stack
) -> None:
    follow_up(owner, stack)
    held = owner.get_by_role("link", name=re.compile("Perpetua Lindqvist"))
    held.hover()
    before = held.bounding_box()
    for name in NAMES:
        posted(stack, name)
    visit = stranger.new_page()
    for name in ("Idris", "Jac", "Kyffin"):
        asked(visit, stack, f"{name} Walrus", f"Is there a walrus tour for {name}?")
    expect(owner.locator("[data-id]").filter(has_text="Walrus")).to_have_count(11)
    assert held.bounding_box() == before, "what is being read has moved"
    expect(walrus(owner, "Abel")).to_contain_text("in 2 h")
    owner.get_by_label("Search the list").fill("wálrus tour")
    expect(owner.locator("[data-id]")).to_have_count(11)

    step("Answered, noted, put off, given, and four finished at once: no pointer is needed")
    keys = owner.keyboard
    walrus(owner, "Abel").focus()
    keys.press("Enter")
    box = owner.get_by_role("textbox", name=re.compile("^Answer to Abel"))
    expect(box).to_be_focused()
    keys.type("There is, in June.")
    keys.press("Control+Enter")
    expect(walrus(owner, "Abel")).to_contain_text("their turn")
    walrus(owner, "Bryn").focus()
    keys.press("Enter")
    owner.get_by_label("How", exact=True).select_option("as a note")
    owner.get_by_role("textbox", name=re.compile("^Answer to Bryn")).focus()
    keys.type("Rang; will ring again")
    keys.press("Control+Enter")
    expect(owner.get_by_text("The note is kept.")).to_be_visible()
    asks_for(owner, "put off until friday", "Put off until Friday")
    expect(walrus(owner, "Bryn")).to_contain_text("back Fri")
    walrus(owner, "Cai").focus()
    keys.press("Enter")
    expect(owner.get_by_role("heading", name="Cai Walrus")).to_be_visible()
    asks_for(owner, "give jory", "Give to Jory")
    expect(walrus(owner, "Cai")).to_contain_text("JT")
    keys.press("Escape")
    walrus(owner, "Dilys").focus()
    for _ in range(4):
        keys.press("x")
        keys.press("ArrowDown")
    bar = owner.get_by_role("region", name="What is done to all that are chosen")
    expect(bar).to_contain_text("4 chosen")
    bar.get_by_role("button", name="Finish").press("Enter")
    owner.get_by_role("menuitem", name="Not a fit").press("Enter")
    expect(owner.get_by_text("4 finished: not a fit.")).to_be_visible()
    expect(owner.locator("[data-id]")).to_have_count(7)
    owner.get_by_role("button", name="Undo").last.press("Enter")
    expect(owner.locator("[data-id]")).to_have_count(11)

    step("What is asked for by its words is done to all that are chosen as well, not to the one that is open")
    walrus(owner, "Dilys").focus()
    for _ in range(2):
        keys.press("x")
        keys.press("ArrowDown")
    expect(bar).to_contain_text("2 chosen")
    asks_for(owner, "finish won", "Finish: won")
    expect(owner.get_by_text("2 finished: won.")).to_be_visible()
    expect(bar).to_have_count(0)
    expect(owner.locator("[data-id]")).to_have_count(9)
    owner.get_by_role("button", name="Undo").last.press("Enter")
    expect(owner.locator("[data-id]")).to_have_count(11)

    step("What is finished is found again: by the filter, by a word, and in its touchpoint's table")
    address = owner.url
    owner.get_by_role("button", name="Show everything open").click()
    colleague = other_device("Jory Tregenza")
    colleague.goto(address)
    expect(colleague.locator("[data-id]")).to_have_count(11)
    for name in (*NAMES, "Idris", "Jac", "Kyffin"):
        walrus(colleague, name).click()
        colleague.get_by_role("button", name=re.compile("^Finish")).click()
        colleague.get_by_role("menuitem", name="Won").click()
        expect(walrus(colleague, name)).to_have_count(0)
    colleague.close()
    owner.get_by_label("In which state").select_option("finished")
    owner.get_by_label("Search the list").fill("walrus")
    expect(owner.locator("[data-id]")).to_have_count(11)
    asks_for(owner, "kyffin walrus", "Kyffin Walrus")
    expect(owner.get_by_text("Finished: won").first).to_be_visible()
    owner.goto(f"{stack.base_url}/touchpoints")
    owner.get_by_role("row", name=re.compile("^Boathouse question")).get_by_role(
        "button", name="More"
    ).click()
    owner.get_by_role("menuitem", name="Its answers").click()
    expect(owner.get_by_role("row", name=re.compile("Is there a walrus tour for Kyffin"))).to_be_visible()
