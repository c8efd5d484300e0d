"""The mail stand-in: what Intavo sent, and what comes back."""

import json
import urllib.request
from typing import Any

from playwright.sync_api import Page, expect

from scripts.stack import Stack, mail_in_secret
from tests.waiting import until


def mails(stack: Stack, to: str) -> list[dict[str, Any]]:
    """What the mail stand-in holds for an address, newest first."""
    with urllib.request.urlopen(f"{stack.mail_url}/mails.json") as answer:
        return [mail for mail in json.load(answer) if to in mail["to"]]


def mailed(stack: Stack, to: str, subject: str) -> dict[str, Any]:
    """Wait for a mail, which comes through a job; the newest of its subject."""
    return until(
        lambda: [mail for mail in mails(stack, to) if subject in mail["subject"]],
        f"a mail “{subject}” to {to}",
    )[0]


def hand_in(page: Page, stack: Stack, mail: str, how: str, words: str = "") -> None:
    """What comes back to a mail, through the mail stand-in."""
    page.goto(f"{stack.mail_url}/mails/{mail}")
    page.get_by_label("What").select_option(how)
    page.get_by_label("Words").fill(words)
    page.get_by_role("button", name="Hand it in").click()
    expect(page.get_by_text("Intavo said 201")).to_be_visible()


def posted(stack: Stack, name: str, surname: str = "Walrus") -> None:
    """A mail that comes in from somebody new."""
    raw = (
        f"From: {name} {surname} <{name.lower()}.{surname.lower()}@post.example>\r\nTo: {stack.names.email('hello')}\r\n"
        f"Subject: A {surname.lower()} tour\r\nMessage-ID: <{name}.{surname}@{stack.names.host}>\r\n\r\n"
        f"Is there a {surname.lower()} tour for {name}?\r\n"
    ).encode()
    address = f"{stack.base_url}/in/mail/{mail_in_secret()}"
    request = urllib.request.Request(address, raw, {"Content-Type": "message/rfc822"}, method="POST")
    with urllib.request.urlopen(request) as answer:  # loopback only
        assert answer.status == 201
