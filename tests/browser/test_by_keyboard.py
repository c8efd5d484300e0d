"""The list worked by keyboard alone: the focus never falls back to the top of the page."""

import re

from playwright.sync_api import BrowserContext, Page, expect

from scripts.stack import Stack

from .pages.console import follow_up
from .pages.site import asked


def tab_to(page: Page, words: str, key: str = "Tab") -> None:
    """Go along the page until what has the focus is called so."""
    for _ in range(60):
        called = "document.activeElement.getAttribute('aria-label') || document.activeElement.innerText || ''"
        if re.match(words, page.evaluate(called).strip()):
            return
        page.keyboard.press(key)
    raise AssertionError(f"nothing is called {words}")


def test_an_answer_is_kept_changed_and_forgotten_by_keyboard(
    owner: Page, stranger: BrowserContext, stack: Stack
) -> None:
    asked(stranger.new_page(), stack, "Perpetua Reed", "Do you keep my boots dry?")
    follow_up(owner, stack)
    owner.get_by_role("link", name=re.compile("Perpetua Reed")).focus()
    owner.keyboard.press("Enter")
    box = owner.get_by_role("textbox", name=re.compile("^Answer to Perpetua"))
    expect(box).to_be_focused()
    owner.keyboard.type("Yes, in a dry bag.")
    tab_to(owner, "Kept answers")
    owner.keyboard.press("Enter")
    tab_to(owner, "Keep what is written")
    owner.keyboard.press("Enter")
    expect(owner.get_by_label("Its name")).to_be_focused()
    owner.keyboard.type("Dry bag")
    owner.keyboard.press("Enter")
    found = owner.get_by_label("Find a kept answer")
    expect(found).to_be_focused()
    tab_to(owner, "Change Dry bag")
    owner.keyboard.press("Enter")
    expect(owner.get_by_label("Its name")).to_be_focused()
    owner.keyboard.press("Escape")
    expect(found).to_be_focused()
    owner.keyboard.press("Escape")
    expect(owner.get_by_role("button", name="Kept answers")).to_be_focused()

    tab_to(owner, "Kept answers")
    owner.keyboard.press("Enter")
    tab_to(owner, "Change Dry bag")
    owner.keyboard.press("Enter")
    tab_to(owner, "Forget it")
    owner.keyboard.press("Enter")
    expect(found).to_be_focused()
    owner.keyboard.press("Escape")
    expect(owner.get_by_role("button", name="Kept answers")).to_be_focused()


def test_whoever_is_done_with_one_stands_on_the_next_or_on_a_row_never_on_the_page_itself(
    owner: Page, stranger: BrowserContext, stack: Stack
) -> None:
    page = stranger.new_page()
    for name in ("Alda Weir", "Bede Weir", "Cato Weir", "Dora Weir"):
        asked(page, stack, name, "Is there a weir?")
    owner.goto(f"{stack.base_url}/follow-up?q=Weir")
    rows = owner.locator("[data-id]")
    expect(rows).to_have_count(4)
    # At once: the person may not have been read yet.
    rows.first.focus()
    owner.keyboard.press("f")
    expect(owner.get_by_role("menu")).to_be_visible()
    owner.keyboard.press("ArrowDown")
    owner.keyboard.press("Enter")
    expect(owner.get_by_text("Finished: answered.")).to_be_visible()
    expect(owner.locator("[data-id]:focus")).to_have_count(1)
    expect(rows).to_have_count(3)
    expect(owner.locator("[data-id]:focus")).to_have_count(1)

    owner.get_by_label("go on to the next").check()
    second = rows.nth(1).get_attribute("data-id")
    rows.first.focus()
    owner.keyboard.press("Enter")
    box = owner.get_by_role("textbox", name=re.compile("^Answer to"))
    expect(box).to_be_focused()
    owner.keyboard.press("Escape")
    expect(owner.locator("[data-id]:focus")).to_have_count(1)
    owner.keyboard.press("Enter")
    owner.keyboard.type("There is, below the mill.")
    owner.keyboard.press("Control+Enter")
    expect(owner.locator(f"[data-id='{second}']:focus")).to_have_attribute("aria-current", "true")
    owner.keyboard.press("f")
    expect(owner.get_by_role("menu")).to_be_visible()
    owner.keyboard.press("ArrowDown")
    owner.keyboard.press("Enter")
    expect(owner.locator("[data-id][aria-current=true]:focus")).to_have_count(1)
    expect(owner.locator(f"[data-id='{second}']")).to_have_count(0)
    owner.get_by_label("go on to the next").uncheck()


def test_the_newest_of_a_long_timeline_is_in_view(
    owner: Page, stranger: BrowserContext, stack: Stack
) -> None:
    asked(stranger.new_page(), stack, "Ansel Wick", "Is there a bench by the slipway?")
    follow_up(owner, stack)
    owner.get_by_role("link", name=re.compile("Ansel Wick")).click()
    box = owner.get_by_role("textbox", name=re.compile("^Answer to Ansel"))
    happened = owner.get_by_role("region", name="What happened")
    for number in range(6):
        owner.get_by_label("How", exact=True).select_option("note")
        box.fill(f"Looked, time {number}\n\nand again")
        owner.get_by_role("button", name=re.compile("^Keep")).click()
        expect(happened.get_by_text(f"Looked, time {number}")).to_be_in_viewport()
    expect(happened.get_by_text("bench by the slipway")).not_to_be_in_viewport()
    owner.reload()
    expect(happened.get_by_text("Looked, time 5")).to_be_in_viewport()
    # Whoever has gone up to read stays there, whatever comes.
    happened.evaluate("one => one.scrollTo(0, 0)")
    expect(happened.get_by_text("bench by the slipway")).to_be_in_viewport()
    owner.get_by_label("Whose").select_option(label="Jory Tregenza")
    expect(happened.get_by_text("Given to Jory Tregenza")).to_be_attached()
    expect(happened.get_by_text("bench by the slipway")).to_be_in_viewport()


def test_a_phone_number_dials_and_finished_work_is_offered_to_the_search(owner: Page, stack: Stack) -> None:
    owner.goto(f"{stack.base_url}/follow-up?q=zzyzx")
    owner.get_by_role("button", name="Look among what is finished").click()
    expect(owner).to_have_url(re.compile("state=finished"))
    owner.goto(f"{stack.base_url}/people")
    owner.get_by_role("button", name="+ Person").click()
    form = owner.get_by_role("dialog")
    form.get_by_label("Name").fill("Isolde Quay")
    form.get_by_label("Phone").fill("+44 1632 960 799")
    form.get_by_role("button").first.click()
    expect(owner.get_by_role("link", name="+44 1632 960 799")).to_have_attribute("href", "tel:+441632960799")


def test_keys_that_come_faster_than_the_list_goes_on_are_meant_for_the_next_row(
    owner: Page, stack: Stack
) -> None:
    follow_up(owner, stack)
    owner.locator("[data-id]").first.focus()
    owner.evaluate(
        """() => { for (const key of ['x', 'ArrowDown', 'x', 'ArrowDown'])
          document.activeElement.dispatchEvent(
            new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true })) }"""
    )
    bar = owner.get_by_role("region", name="What is done to all that are chosen")
    expect(bar).to_contain_text("2 chosen")
    third = owner.locator("[data-id]").nth(2)
    expect(third).to_be_focused()
    expect(third).to_have_attribute("aria-current", "true")
