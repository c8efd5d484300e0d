"""What is one's own: another address, another password, a second step, and where one is signed in."""

import re
import time

from allauth.mfa.totp.internal.auth import format_hotp_value, hotp_value
from playwright.sync_api import Browser, Page, expect

from scripts.stack import Stack

from .pages.mail import mailed
from .pages.steps import step

FIRST, SECOND = "wren@post.example", "wren.ash@post.example"
PASSWORD, NEXT = "a long enough one", "another long enough one"


def sign_in(page: Page, stack: Stack, email: str, password: str) -> None:
    """Fill in the sign-in sheet."""
    page.goto(f"{stack.base_url}/sign-in")
    page.get_by_label("Email").fill(email)
    page.get_by_label("Password").fill(password)
    page.get_by_role("button", name="Sign in").click()


def new_account(page: Page, stack: Stack) -> None:
    """Somebody with a business of their own."""
    page.goto(f"{stack.base_url}/sign-up")
    page.get_by_label("Email").fill(FIRST)
    page.get_by_label("Password").fill(PASSWORD)
    page.get_by_role("button", name="Sign up").click()
    expect(page.get_by_role("heading", name="Look in your mail")).to_be_visible()
    confirm = mailed(stack, FIRST, "Please confirm")
    page.goto(re.search(r"http\S+/verify/\S+", confirm["text"])[0])
    page.get_by_role("button", name="Confirm my address").click()
    page.get_by_label("What is it called?").fill("Wren Ash, joiner")
    page.get_by_label("Its web site").fill("wren.example")
    page.get_by_role("button", name="Go on to the first touchpoint").click()
    page.get_by_role("button", name="Cancel").click()


def test_address_password_second_step_and_sessions_are_ones_own_to_change(
    browser: Browser, stack: Stack
) -> None:
    here = browser.new_context(viewport={"width": 1280, "height": 800}).new_page()
    new_account(here, stack)
    here.get_by_role("button", name=re.compile("account of")).click()
    here.get_by_role("menuitem", name=re.compile("^You")).click()
    step("a second step is set up")
    steps = here.get_by_role("article", name="A second step when you sign in")
    steps.get_by_role("button", name="Set it up").click()
    expect(steps.get_by_role("img", name="QR code for your authenticator")).to_be_visible()
    secret = steps.locator("code").inner_text().replace(" ", "")
    code = steps.get_by_label("The code it shows now")
    code.fill("12345")
    steps.get_by_role("button", name="Turn on").click()
    expect(steps.get_by_text("This is not the code of just now.")).to_be_visible()
    code.fill(format_hotp_value(hotp_value(secret, int(time.time()) // 30)))
    steps.get_by_role("button", name="Turn on").click()
    steps.get_by_label("Your password, once more").fill("wrong")
    steps.get_by_role("button", name="Go on").click()
    expect(steps.get_by_text("This is not your password.")).to_be_visible()
    steps.get_by_label("Your password, once more").fill(PASSWORD)
    steps.get_by_role("button", name="Go on").click()
    codes = steps.get_by_label("Codes to keep").locator("li")
    expect(codes).to_have_count(10)
    kept = codes.all_inner_texts()
    steps.get_by_role("button", name="I have kept them").click()
    mailed(stack, FIRST, "second step")

    step("another address takes its place")
    address = here.get_by_role("article", name="Your address")
    address.get_by_label("Another address").fill(SECOND)
    address.get_by_role("button", name="Change it").click()
    expect(address.get_by_text("takes its place once")).to_be_visible()
    link = mailed(stack, SECOND, "confirm")
    here.goto(re.search(r"http\S+/verify/\S+", link["text"])[0])
    here.get_by_role("button", name="Confirm my address").click()
    expect(here.get_by_role("heading", name="Follow-up")).to_be_visible()
    mailed(stack, FIRST, "address")

    step("signed in on another device")
    there = browser.new_context(viewport={"width": 390, "height": 800}).new_page()
    sign_in(there, stack, SECOND, PASSWORD)
    there.get_by_label("Code of your authenticator").fill(kept[0])
    there.get_by_role("button", name="Sign in").click()
    expect(there.get_by_role("heading", name="Follow-up")).to_be_visible()

    step("signed out everywhere else")
    here.goto(f"{stack.base_url}/you")
    expect(here.get_by_text(f"You sign in with {SECOND}")).to_be_visible()
    sessions = here.get_by_role("article", name="Where you are signed in")
    expect(sessions.get_by_role("listitem")).to_have_count(2)
    sessions.get_by_role("button", name="Sign out everywhere else").click()
    expect(sessions.get_by_role("listitem")).to_have_count(1)
    there.reload()
    expect(there.get_by_role("heading", name="Sign in", exact=True)).to_be_visible()

    step("another password")
    password = here.get_by_role("article", name="Your password")
    password.get_by_label("The one you have").fill("wrong")
    password.get_by_label("The new one").fill(NEXT)
    password.get_by_role("button", name="Change it").click()
    expect(password.get_by_text("This is not your password.")).to_be_visible()
    password.get_by_label("The one you have").fill(PASSWORD)
    password.get_by_role("button", name="Change it").click()
    expect(here.get_by_text("Your new password holds from now on")).to_be_visible()
    sessions.get_by_role("button", name="Sign out everywhere", exact=True).click()
    expect(here.get_by_role("heading", name="Sign in", exact=True)).to_be_visible()
    sign_in(here, stack, SECOND, NEXT)
    here.get_by_label("Code of your authenticator").fill(kept[1])
    here.get_by_role("button", name="Sign in").click()
    expect(here.get_by_role("heading", name="Follow-up")).to_be_visible()
    for one in (here, there):
        one.context.close()
