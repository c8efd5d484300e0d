"""Signing in through the form."""

from playwright.sync_api import Page

from demo.business import OWNER, PASSWORD
from scripts.stack import Stack


def sign_in(page: Page, stack: Stack, person: str = OWNER) -> None:
    """Sign in through the form."""
    fill_in(page, stack, stack.names.email(person), PASSWORD)
    page.wait_for_url("**/follow-up**")


def fill_in(page: Page, stack: Stack, email: str, password: str) -> None:
    """Fill in the sign-in sheet."""
    page.goto(f"{stack.base_url}/sign-in")
    page.get_by_label("Email").fill(email)
    page.get_by_label("Password").fill(password)
    page.get_by_role("button", name="Sign in").click()
