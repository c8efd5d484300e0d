"""Two members at one follow-up."""

import re
from collections.abc import Callable

from playwright.sync_api import BrowserContext, Page, expect

from scripts.stack import Stack

from .pages.console import follow_up
from .pages.site import asked
from .pages.steps import step


def test_two_at_one_follow_up_know_of_each_other(
    owner: Page, stranger: BrowserContext, other_device: Callable[..., Page], stack: Stack
) -> None:
    asked(stranger.new_page(), stack, "Ottilie Brandt", "May we bring the dog?")
    follow_up(owner, stack)
    owner.get_by_role("link", name=re.compile("Ottilie Brandt")).click()
    box = owner.get_by_role("textbox", name=re.compile("^Answer to Ottilie"))
    box.fill("The dog is welcome")
    expect(owner.get_by_text("answer begun")).to_be_visible()

    step("Found again on another device; a colleague reads, writes and answers first")
    phone = other_device(viewport={"width": 390, "height": 800})
    phone.goto(owner.url)
    expect(phone.get_by_role("textbox", name=re.compile("^Answer to Ottilie"))).to_have_value(
        "The dog is welcome"
    )
    phone.close()
    jory = other_device("Jory Tregenza")
    jory.goto(owner.url)
    expect(jory.get_by_text(re.compile("Morwenna Hale is (reading|writing)"))).to_be_visible()
    expect(owner.get_by_text("Jory Tregenza is reading this")).to_be_visible()
    theirs = jory.get_by_role("textbox", name=re.compile("^Answer to Ottilie"))
    expect(theirs).to_have_value("")
    theirs.fill("Yes, on a lead.")
    expect(owner.get_by_text("Jory Tregenza is writing an answer")).to_be_visible()
    theirs.press("Control+Enter")
    expect(jory.get_by_text("Now it is their turn").last).to_be_visible()
    jory.close()

    step("Told also to whom it stands in the timeline by then, and who begins to write after it")
    expect(owner.get_by_role("region", name="What happened").get_by_text("Yes, on a lead.")).to_be_visible(
        timeout=15_000
    )
    box.fill("")
    box.fill("The dog is welcome")
    box.press("Control+Enter")
    expect(owner.get_by_text("Jory Tregenza has answered meanwhile: “Yes, on a lead.”")).to_be_visible()
    expect(box).to_have_value("The dog is welcome")
    owner.get_by_role("button", name="Send mine as well").click()
    expect(box).to_have_value("")
    expect(owner.get_by_text("The dog is welcome")).to_be_visible()
    step("What can be done with the one that is open is found by its words as well")
    owner.keyboard.press("Control+k")
    owner.get_by_label("Find or do").fill("put off until friday")
    owner.keyboard.press("Enter")
    expect(owner.get_by_text("Put off until Fri 27 Nov, 09:00").last).to_be_visible()
