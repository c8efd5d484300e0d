"""The console: the editor of a touchpoint, the list, what is found by its words."""

import re
from typing import Any

from playwright.sync_api import FrameLocator, Page, expect

from scripts.stack import Stack

from .site import until_on


def follow_up(page: Page, stack: Stack) -> None:
    """Open the list."""
    page.goto(f"{stack.base_url}/follow-up")
    page.get_by_role("heading", name="Follow-up").wait_for()


def stage(page: Page, which: str) -> FrameLocator:
    """One of the two frames of the editor's stage."""
    return page.frame_locator(f'iframe[title="{which}"]')


def side(page: Page, name: str) -> None:
    """One of the three parts of the editor's left column: Content, Look or After."""
    page.get_by_role("tab", name=name, exact=True).click()


def saved(page: Page) -> None:
    """Wait until the draft is kept."""
    expect(page.get_by_text("Saved today 14:05")).to_be_visible()


def start(page: Page, stack: Stack, starter: str, name: str) -> Page:
    """A draft from a starter, in the editor; it is made as the console makes it, past the pictures of the starters."""
    starters = page.request.get(f"{stack.base_url}/api/starters").json()
    key = next(one["key"] for one in starters if one["name"].startswith(starter))
    token = next(one["value"] for one in page.context.cookies() if one["name"] == "csrftoken")
    made = page.request.post(
        f"{stack.base_url}/api/touchpoints",
        data={"starter": key, "name": name},
        headers={"X-CSRFToken": token, "Referer": f"{stack.base_url}/"},
    )
    assert made.status == 201, made.text()
    page.goto(f"{stack.base_url}/touchpoints/{made.json()['id']}")
    saved(page)
    return page


def turn_on(editor: Page, stack: Stack) -> str:
    """Turn on what is open in the editor; its short name."""
    saved(editor)
    editor.get_by_role("button", name="Turn on").click()
    editor.get_by_role("dialog").get_by_role("button", name="Turn on").click()
    expect(editor.get_by_text("It is on: visitors get it within a second.")).to_be_visible()
    slug = editor.get_by_text("Its short name in links is").locator("code").text_content()
    until_on(stack, slug)
    return slug


def turn_off(editor: Page) -> None:
    """Out of the way of other tests."""
    editor.get_by_role("button", name="Turn off").click()
    expect(editor.get_by_text("It is off.")).to_be_visible()


def add_to(editor: Page, label: str, *texts: str) -> None:
    """Write into a list of pages or words, one after the other."""
    for text in texts:
        editor.get_by_label(f"{label}: add").fill(text)
        editor.get_by_label(f"{label}: add").press("Enter")


def asks_for(page: Page, words: str, what: str) -> None:
    """Find or do something by its words, without a pointer."""
    page.keyboard.press("Control+k")
    expect(page.get_by_label("Find or do")).to_be_focused()
    page.keyboard.type(words)
    expect(page.get_by_role("option", name=re.compile(f"^{what}")).first).to_be_visible()
    page.keyboard.press("Enter")
    expect(page.get_by_label("Find or do")).to_have_count(0)


def row(page: Page, name: str) -> Any:
    """Somebody's row on the list."""
    return page.locator("[data-id]").filter(has_text=name)
