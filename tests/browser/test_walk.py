"""The acceptance walk: a stranger's email reaches the follow-up list, with an honest promise of an answer."""

import re

from playwright.sync_api import BrowserContext, Page, expect

from scripts.stack import Stack

from .pages.console import side, stage
from .pages.mail import mailed, mails
from .pages.signing import sign_in
from .pages.site import later, until_on

STRANGER = "wren.halloran@post.example"


def make_touchpoint(page: Page) -> None:
    """A sign-up from a starter, its words edited on the stage."""
    page.get_by_role("link", name="Touchpoints", exact=True).click()
    page.get_by_role("button", name="+ New touchpoint").click()
    page.get_by_label("Your own name for it").fill("Boat club news")
    page.get_by_role("button", name="Start with this").click()
    page.wait_for_url(re.compile(r"/touchpoints/\d+$"))
    desktop, phone = stage(page, "Desktop"), stage(page, "Phone")
    desktop.get_by_role("textbox", name="Words of p1").fill("Join the boat club")
    desktop.get_by_role("textbox", name="Words of p3").fill("Where do we write to?")
    desktop.get_by_role("textbox", name="Words of p6").fill("Sign me up")
    expect(phone.get_by_role("textbox", name="Words of p1")).to_have_text("Join the boat club")
    page.get_by_role("button", name="Consent tick").click()
    page.get_by_label("What they agree to").fill("Write to me about the boat club.")
    side(page, "After")
    page.get_by_label("Asks for follow-up").check()
    expect(page.get_by_text("Saved today 14:05")).to_be_visible()
    expect(desktop.get_by_text("Write to me about the boat club.")).to_be_visible()


def undo_and_redo(page: Page) -> None:
    """One run of changes goes back and comes again."""
    side(page, "Content")
    page.get_by_role("button", name="Headline").click()
    page.get_by_label("Words", exact=True).fill("A slip of the pen")
    expect(page.get_by_text("Saved today 14:05")).to_be_visible()
    headline = stage(page, "Desktop").get_by_role("textbox", name="Words of p1")
    expect(headline).to_have_text("A slip of the pen")
    page.get_by_role("button", name="Undo").click()
    expect(headline).to_have_text("Join the boat club")
    page.get_by_role("button", name="Redo").click()
    expect(headline).to_have_text("A slip of the pen")
    page.get_by_role("button", name="Undo").click()
    expect(headline).to_have_text("Join the boat club")


def show_after_two_seconds(page: Page) -> None:
    """Change one piece of the show sentence."""
    page.get_by_role("button", name="after 12 s").click()
    page.get_by_label("Moment 1: seconds on the page").fill("2")
    page.get_by_label("Moment 1: seconds on the page").press("Tab")
    page.keyboard.press("Escape")
    expect(page.get_by_role("button", name="after 2 s or at 40 % down")).to_be_visible()
    expect(page.get_by_text("Saved today 14:05")).to_be_visible()


def connect_the_site(page: Page, stack: Stack) -> None:
    """The snippet, and hosts in any spelling."""
    page.get_by_role("link", name="Business", exact=True).click()
    expect(page.get_by_label("Snippet").first).to_contain_text(f'<script async src="{stack.base_url}/e/')
    page.get_by_label("Address 3").fill("otter wick")
    page.get_by_role("button", name="Save the site").first.click()
    expect(page.get_by_role("alert")).to_contain_text("“otter wick” is not the address of a web site")
    page.get_by_label("Address 3").fill("HTTPS://WWW.Club.Otterwick-walk.example:8443/home/")
    page.get_by_role("button", name="Save the site").first.click()
    expect(page.get_by_label("Address 3")).to_have_value("club.otterwick-walk.example")


def change_the_promise(page: Page) -> None:
    """The promise is a plain form, and is two open hours again in the end."""
    page.get_by_role("link", name="Hours & channels", exact=True).click()
    for hours, said in (("3", "today by 17:05"), ("2", "today by 16:05")):
        page.get_by_label("We answer within").fill(hours)
        page.get_by_label("We answer within").press("Tab")
        expect(page.get_by_text(f"Somebody who asks now is answered {said}.")).to_be_visible()


def sign_up_as_a_stranger(stranger: BrowserContext, stack: Stack) -> None:
    """Refused, offered, taken, thanked."""
    page = stranger.new_page()
    page.goto(f"{stack.site_url}/")
    dialog = page.get_by_role("dialog", name="Join the boat club")
    expect(dialog).to_be_visible()
    later(page)
    dialog.get_by_label("Where do we write to?").fill("wren.halloran")
    dialog.get_by_label("First name").fill("Wren")
    dialog.get_by_role("button", name="Sign me up").click()
    expect(dialog.get_by_text("An email address has an @ in it")).to_be_visible()
    expect(dialog.get_by_text("Please tick this to go on.")).to_be_visible()
    expect(dialog.get_by_label("Where do we write to?")).to_be_focused()
    dialog.get_by_label("Where do we write to?").fill(STRANGER)
    dialog.get_by_label("Write to me about the boat club.").check()
    dialog.get_by_role("button", name="Sign me up").click()
    expect(page.get_by_text("We answer today by 16:05.")).to_be_visible()
    page.get_by_role("button", name="Back to the page").click()
    with page.expect_response(re.compile("/plan$")) as planned:
        page.goto(f"{stack.site_url}/contact")
    assert "boat-club-news" not in [one["slug"] for one in planned.value.json()["touchpoints"]]
    expect(page.get_by_role("dialog", name="Join the boat club")).to_have_count(0)


def work_the_list(page: Page, stack: Stack) -> None:
    """The person stands in their lane; the answer is mailed; it is their turn."""
    page.goto(f"{stack.base_url}/follow-up")
    item = page.get_by_role("link", name=re.compile("Wren.*Boat club news"))
    expect(item).to_contain_text("in 2 h")
    item.click()
    pane = page.get_by_role("region", name="Wren")
    for words in (STRANGER, "today 16:05", "Boat club news · / · desktop", "Where do we write to?",
                  "Ticked “Write to me about the boat club.”", "Was told: “We answer today by 16:05.”"):  # fmt: skip
        expect(pane.get_by_text(words).first).to_be_visible()
    pane.get_by_role("textbox", name="Answer to Wren").fill("Welcome, Wren. First meeting on Thursday.")
    page.keyboard.press("Control+Enter")
    expect(page.get_by_text("Your answer is on its way to Wren.")).to_be_visible()
    answer = mailed(stack, STRANGER, "From Otterwick Paddle Hire")
    assert "First meeting on Thursday" in answer["text"]
    waiting = page.get_by_role("link", name=re.compile("Wren.*Boat club news"))
    expect(waiting).to_contain_text("their turn")


def sign_up_again_in_capitals(stranger: BrowserContext, stack: Stack, page: Page) -> None:
    """The same person, a second event, no doubles: through the page of its own, opened by its link."""
    own = stranger.new_page()
    own.goto(f"{stack.base_url}/t/{stack.names.slug}/boat-club-news")
    own.get_by_label("Where do we write to?").fill(STRANGER.upper())
    own.get_by_label("Write to me about the boat club.").check()
    later(own)
    own.get_by_role("button", name="Sign me up").click()
    expect(own.get_by_text("We answer today by 16:05.")).to_be_visible()
    page.reload()
    item = page.get_by_role("link", name=re.compile("Wren.*Boat club news"))
    expect(item).to_have_count(1)
    expect(item).to_contain_text("in 2 h")
    item.click()
    pane = page.get_by_role("region", name="Wren")
    expect(pane.get_by_text("Signed up through")).to_have_count(2)


def test_a_strangers_email_reaches_the_list_with_an_honest_promise(
    page: Page, stranger: BrowserContext, stack: Stack
) -> None:
    page.goto(stack.base_url)
    page.get_by_label("Email").fill(stack.names.email("Morwenna"))
    page.get_by_label("Password").fill("not it")
    page.get_by_role("button", name="Sign in").click()
    expect(page.get_by_role("alert")).to_have_text("This email address and password do not belong together.")
    sign_in(page, stack)
    make_touchpoint(page)
    undo_and_redo(page)
    show_after_two_seconds(page)
    editor = page.url
    connect_the_site(page, stack)
    change_the_promise(page)
    page.goto(editor)
    page.get_by_role("button", name="Turn on").click()
    page.get_by_role("dialog").get_by_role("button", name="Turn on").click()
    expect(page.get_by_text("It is on: visitors get it within a second.")).to_be_visible()
    until_on(stack, "boat-club-news")
    sign_up_as_a_stranger(stranger, stack)
    thanks = mailed(stack, STRANGER, "Thank you for joining us")
    assert "Hello Wren," in thanks["text"]
    assert "We answer today by 16:05." in thanks["text"]
    work_the_list(page, stack)
    sign_up_again_in_capitals(stranger, stack, page)
    assert len([m for m in mails(stack, STRANGER) if m["subject"] == "From Otterwick Paddle Hire"]) == 1
    page.get_by_role("link", name="Business", exact=True).click()
    expect(
        page.get_by_text(re.compile(r"seen .* on /contact, from otterwick-walk\.localhost"))
    ).to_be_visible()
    page.get_by_role("link", name="Touchpoints", exact=True).click()
    page.get_by_role("button", name="Turn off Boat club news").click()
    expect(page.get_by_text("Boat club news is off.")).to_be_visible()
