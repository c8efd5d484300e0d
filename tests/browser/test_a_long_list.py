"""A list that is longer than a page: what is being read stays on it, and where it stands, whatever comes in before it."""

import re

from playwright.sync_api import Page, expect

from scripts.stack import Stack

from .pages.console import follow_up
from .pages.mail import posted


def test_what_comes_in_never_pushes_a_row_off_the_page_that_is_read(owner: Page, stack: Stack) -> None:
    follow_up(owner, stack)
    rows = owner.locator("[data-id]")
    expect(rows.first).to_be_visible()
    before = rows.count()
    held = owner.get_by_role("link", name=re.compile("Perpetua Lindqvist"))
    held.hover()
    stood = held.bounding_box()
    for number in range(55):
        posted(stack, f"Heap{number}", "Heron")
    expect(rows.filter(has_text="Heron")).to_have_count(55)
    assert rows.count() == before + 55
    assert held.bounding_box() == stood, "what is being read has moved"
    owner.get_by_role("button", name="new above").click()
    expect(rows.filter(has_text="Heap0 Heron")).to_be_in_viewport()

    # Whoever comes anew sees the first page of it, and the rest when asked for.
    owner.reload()
    expect(rows.filter(has_text="Heron").first).to_be_visible()
    expect(held).to_have_count(0)
    owner.get_by_role("button", name="More", exact=True).click()
    expect(held).to_have_count(1)
    posted(stack, "Heap55", "Heron")
    expect(rows.filter(has_text="Heap55 Heron")).to_have_count(1)
    expect(held).to_have_count(1)
