"""An owner invites somebody, who joins, works in two businesses, and is taken out again."""

import re

from playwright.sync_api import Browser, Page, expect

from scripts.stack import Stack

from .pages.mail import mailed
from .pages.steps import step

PASSWORD = "a long enough one"


def test_somebody_is_invited_joins_and_is_taken_out(owner: Page, browser: Browser, stack: Stack) -> None:
    owner.goto(f"{stack.base_url}/business#people")
    step("somebody is invited")
    people = owner.get_by_role("article", name="People of the business")
    people.get_by_label("Email").fill("ivy@post.example")
    people.get_by_label("Name", exact=True).fill("Ivy Marlowe")
    people.get_by_role("button", name="Invite").click()
    expect(people.get_by_text("is invited as staff")).to_be_visible()
    mail = mailed(stack, "ivy@post.example", "Otterwick Paddle Hire invites you")
    step("they join")
    context = browser.new_context()
    page = context.new_page()
    page.goto(re.search(r"http\S+/sign-up\S+", mail["text"])[0])
    expect(page.get_by_label("Email")).to_have_value("ivy@post.example")
    page.get_by_label("Password").fill(PASSWORD)
    page.get_by_role("button", name="Sign up").click()
    expect(page.get_by_role("heading", name="Look in your mail")).to_be_visible()
    confirm = mailed(stack, "ivy@post.example", "Please confirm")
    page.goto(re.search(r"http\S+/verify/\S+", confirm["text"])[0])
    page.get_by_role("button", name="Confirm my address").click()
    page.get_by_role("button", name="Join Otterwick Paddle Hire").click()
    expect(page.get_by_role("heading", name="Follow-up")).to_be_visible()
    page.goto(f"{stack.base_url}/business#people")
    expect(page.get_by_label("Your name")).to_have_value("Ivy Marlowe")
    expect(page.get_by_role("article", name="Who did what")).to_have_count(0)
    owner.reload()
    log = owner.get_by_role("article", name="Who did what")
    log.get_by_label("What was done").select_option("member joined")
    expect(log.get_by_text("Ivy Marlowe joined as staff")).to_be_visible()
    step("what staff may not change")
    page.goto(f"{stack.base_url}/hours")
    expect(page.get_by_text("owners and managers change it")).to_be_visible()
    expect(page.get_by_role("textbox", name="Monday from")).to_be_disabled()
    friday = page.get_by_role("slider", name=re.compile("^Friday"))
    before = friday.get_attribute("aria-valuetext")
    friday.press("Alt+ArrowRight")
    expect(friday).to_have_attribute("aria-valuetext", before)
    step("another role, and taken out")
    row = people.get_by_role("listitem").filter(has_text="ivy@post.example")
    row.get_by_label("Role of Ivy Marlowe").select_option("manager")
    expect(owner.get_by_text("Changed.")).to_be_visible()
    page.reload()
    expect(page.get_by_role("textbox", name="Monday from")).to_be_enabled()
    row.get_by_role("button", name="Take out …").click()
    row.get_by_role("button", name="Take out", exact=True).click()
    expect(people.get_by_text("ivy@post.example")).to_have_count(0)
    page.goto(f"{stack.base_url}/follow-up")
    expect(page.get_by_role("heading", name="Your business")).to_be_visible()
    context.close()
