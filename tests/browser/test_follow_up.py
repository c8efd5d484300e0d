"""Working the list as an owner does: found, narrowed, several at once, answered by mail and answered back."""

import re
from collections.abc import Callable

from playwright.sync_api import BrowserContext, Page, expect

from scripts.stack import Stack

from .pages.console import follow_up
from .pages.mail import hand_in, mailed
from .pages.site import asked
from .pages.steps import step


def test_the_list_is_worked_between_customers(
    owner: Page, stranger: BrowserContext, other_device: Callable[..., Page], stack: Stack
) -> None:
    visit = stranger.new_page()
    follow_up(owner, stack)
    held = owner.get_by_role("link", name=re.compile("Perpetua Lindqvist"))
    held.hover()
    before = held.bounding_box()
    asked(visit, stack, "Zoë Ångström", "Do you hire a canoe for crème fraîche picnics?")
    row = owner.get_by_role("link", name=re.compile("Zoë Ångström"))
    expect(row).to_have_count(1)
    assert held.bounding_box() == before, "what is being read has moved"

    step("Found by a word of theirs, without its accents; the filter stands in the address, and is kept")
    owner.get_by_label("Search the list").fill("creme fraiche")
    expect(owner.locator("[data-id]")).to_have_count(1)
    owner.get_by_label("Search the list").fill("")
    owner.get_by_label("What", exact=True).select_option("inquiry")
    owner.get_by_role("button", name="and …").click()
    row.click()
    owner.get_by_label("Another tag").fill("picnics")
    owner.get_by_label("Another tag").press("Enter")
    owner.get_by_label("Tagged").select_option("picnics")
    expect(owner.locator("[data-id]")).to_have_count(1)
    owner.get_by_role("button", name="Keep this filter").click()
    owner.get_by_label("Its name").fill("Picnics")
    owner.get_by_label("for all of us").check()
    owner.get_by_role("button", name="Keep it").click()
    expect(owner.get_by_role("button", name="Picnics", pressed=True)).to_be_visible()
    colleague = other_device()
    colleague.goto(owner.url)
    expect(colleague.locator("[data-id]")).to_have_count(1)
    colleague.close()
    owner.get_by_role("button", name="Forget “Picnics”").click()
    owner.get_by_role("button", name="Show everything open").click()

    step("A note, then an answer")
    row.click()
    owner.get_by_label("How", exact=True).select_option("as a note")
    box = owner.get_by_role("textbox", name=re.compile("^Answer to Zoë"))
    box.fill("The green canoe is free on Sunday")
    owner.get_by_role("button", name=re.compile("^Keep")).click()
    expect(owner.get_by_text("Note, for us alone")).to_be_visible()
    kept = owner.get_by_role("region", name="Kept answers")
    box.press("/")
    kept.get_by_role("button", name="+ Kept answer").click()
    kept.get_by_label("Its name").fill("Opening")
    kept.get_by_role("textbox", name="The words of the answer").press_sequentially("Hello ")
    kept.get_by_role("button", name="+ their first name").click()
    kept.get_by_role("button", name="Keep it").click()
    kept.get_by_label("Find a kept answer").fill("open")
    kept.get_by_label("Find a kept answer").press("Enter")
    expect(box).to_have_value("Hello Zoë")
    box.fill("We do, on Sunday.")
    box.press("Control+Enter")
    expect(owner.get_by_text("Now it is their turn").last).to_be_visible()
    sent = mailed(stack, "zoë@post.example", "Re: your question")
    assert sent["text"].count("We do, on Sunday.") == 1

    step("They answer by mail: it is for us again, with what it answers folded")
    hand_in(visit, stack, sent["name"], "answer", "Lovely: from ten, please.")
    expect(owner.get_by_text("Lovely: from ten, please.", exact=True)).to_be_visible()
    expect(row).to_contain_text("in 2 h")
    expect(owner.get_by_text("> We do, on Sunday.")).to_be_hidden()
    owner.get_by_text("what it answers").click()
    expect(owner.get_by_text("> We do, on Sunday.")).to_be_visible()
    hand_in(visit, stack, sent["name"], "away")
    expect(owner.get_by_text("An automatic reply came, which changes nothing")).to_be_visible()
    hand_in(visit, stack, sent["name"], "gone")
    expect(owner.get_by_text("came back: there is no such address")).to_be_visible()
    expect(owner.get_by_text("nothing is mailed there")).to_be_visible()

    step("Several at once, by the keyboard alone, and taken back")
    owner.keyboard.press("Escape")
    row.focus()
    owner.keyboard.press("x")
    owner.keyboard.press("ArrowUp")
    expect(row).not_to_be_focused()
    expect(owner.locator("[data-id][aria-current=true]")).to_be_focused()
    owner.keyboard.press("x")
    bar = owner.get_by_role("region", name="What is done to all that are chosen")
    expect(bar).to_contain_text("2 chosen")
    bar.get_by_role("button", name="Finish").click()
    owner.get_by_role("menuitem", name="Answered").click()
    expect(owner.get_by_text("2 finished: answered.")).to_be_visible()
    expect(row).to_have_count(0)
    owner.get_by_label("In which state").select_option("finished")
    expect(row).to_have_count(1)
    owner.get_by_role("button", name="Undo").last.click()
    expect(row).to_have_count(0)
    owner.get_by_role("button", name="Show everything open").click()
    expect(row).to_have_count(1)
    row.click()
    owner.get_by_role("button", name=re.compile("Finish")).click()
    owner.get_by_role("menuitem", name="No answer").click()
