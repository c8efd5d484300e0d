"""A thousand brought in from a messy table, the whole business out and into an empty one, and all of it undone."""

import re
from pathlib import Path

import pytest
from playwright.sync_api import Browser, Page, expect

from scripts.stack import Stack

from .pages.mail import mailed
from .pages.steps import step


def messy(rows: int) -> bytes:
    """A table of people as a till writes it: semicolons, Windows-1252, every tenth doubled, every fiftieth broken."""
    lines = ["Name;E-Mail;Telefon;Gruppe"]
    for number in range(rows):
        if number % 50 == 49:
            lines.append(f"Broken {number};not an address;;Regatta")
            continue
        which = number - 1 if number % 10 == 9 else number
        lines.append(f'"Jürgen; {which}";regatta{which}@hill.example;01632 {960000 + which % 999};Regatta')
    return "\r\n".join(lines).encode("windows-1252")


@pytest.fixture
def newcomer(browser: Browser, stack: Stack) -> Page:
    """The owner of a business in which nothing was done yet."""
    page = browser.new_context().new_page()
    page.goto(f"{stack.base_url}/sign-up")
    page.get_by_label("Email").fill("wren@estuary.example")
    page.get_by_label("Password").fill("a long enough pass phrase")
    page.get_by_role("button").last.click()
    link = re.search(r"http\S+/verify/\S+", mailed(stack, "wren@estuary.example", "confirm")["text"])
    assert link is not None
    page.goto(link[0])
    page.get_by_role("button", name="Confirm my address").click()
    page.wait_for_url("**/welcome")
    page.get_by_label("What is it called?").fill("Estuary Tours")
    page.get_by_label("Its web site").fill("estuary.example")
    page.get_by_role("button", name="Go on").click()
    page.wait_for_url("**/touchpoints**")
    return page


def test_a_thousand_are_brought_in_and_the_whole_business_is_made_anew(
    owner: Page, newcomer: Page, stack: Stack, tmp_path: Path
) -> None:
    file = tmp_path / "regatta.csv"
    file.write_bytes(messy(1_000))
    owner.goto(f"{stack.base_url}/people/bring-in")
    owner.locator("input[type=file]").set_input_files(file)
    trial = owner.get_by_role("region", name="What taking it in would do")
    expect(trial).to_contain_text("20 refused")
    trial.get_by_role("button", name=re.compile("^Take .* in$")).click()
    expect(owner.get_by_role("heading", name="It is in")).to_be_visible(timeout=60_000)
    with owner.expect_download() as given:
        owner.get_by_role("link", name="The refused rows, as a file").click()
    assert Path(given.value.path()).read_text().count("not an address") == 20

    owner.goto(f"{stack.base_url}/business")
    owner.get_by_role("button", name="Make a copy").click()
    with owner.expect_download() as copy:
        owner.get_by_role("link", name="Take it").click(timeout=60_000)
    newcomer.goto(f"{stack.base_url}/business")
    newcomer.get_by_label("The copy").set_input_files(Path(copy.value.path()))
    expect(newcomer.get_by_text(re.compile(r"[0-9]{3} people, .* are here"))).to_be_visible(timeout=90_000)
    expect(newcomer.get_by_text("The line on your site has a new key")).to_be_visible()
    for path, what in (("/follow-up", "Rosalind Achterberg"), ("/touchpoints", "Tide table")):
        newcomer.goto(f"{stack.base_url}{path}")
        expect(newcomer.get_by_text(what).first).to_be_visible()
    counted = []
    for page in (owner, newcomer):
        page.goto(f"{stack.base_url}/people")
        counted.append(page.get_by_text(re.compile("[0-9] shown$")).inner_text())
    assert counted[0] == counted[1]
    newcomer.context.close()

    step("What was brought in is undone as a whole")
    owner.goto(f"{stack.base_url}/people/bring-in")
    owner.get_by_role("link", name=re.compile("regatta.csv")).first.click()
    owner.get_by_role("button", name="Undo it …").click()
    owner.get_by_role("button", name="Take them all out again").click()
    expect(owner.get_by_role("heading", name="It is undone")).to_be_visible(timeout=60_000)
