"""People in the console: sought by a sentence, joined and parted, brought in from a messy table, taken out, erased."""

import re
from pathlib import Path

from playwright.sync_api import Page, expect

from scripts.stack import Stack

from .pages.steps import step

ROWS = "Vorname;E-Mail;Gruppe\r\nJürgen;jurgen.fair@post.example;Messe\r\nZoë;zoe.fair@post.example;Messe\r\nOhne;;Messe\r\n"


def test_people_are_brought_in_sought_joined_taken_out_and_erased(
    owner: Page, stack: Stack, tmp_path: Path
) -> None:
    file = tmp_path / "fair.csv"
    file.write_bytes(ROWS.encode("windows-1252"))
    step("a file is brought in")
    owner.goto(f"{stack.base_url}/people")
    owner.get_by_role("link", name="Bring in …").click()
    owner.locator("input[type=file]").set_input_files(file)
    trial = owner.get_by_role("region", name="What taking it in would do")
    expect(trial).to_contain_text("2 new, 0 join")
    expect(trial).to_contain_text("1 refused; 0 of them agreed")
    owner.get_by_label("They agreed to news: where").fill("The sheet at the fair")
    owner.get_by_label("and when").fill("2026-11-01")
    owner.get_by_label("and when").press("Tab")
    expect(trial).to_contain_text("2 of them agreed")
    trial.get_by_role("button", name="Take 2 in").click()
    expect(owner.get_by_role("heading", name="It is in")).to_be_visible()
    with owner.expect_download() as given:
        owner.get_by_role("link", name="The refused rows, as a file").click()
    assert "Ohne" in Path(given.value.path()).read_text()

    step("people are sought, and taken out")
    owner.get_by_role("link", name="To your people").click()
    owner.get_by_label("Another condition").select_option(label="are tagged")
    owner.get_by_label("Which tag, 1").select_option("Messe")
    expect(owner.get_by_text("2 shown")).to_be_visible()
    owner.get_by_role("button", name="Keep as a group").click()
    owner.get_by_label("Its name").fill("From the fair")
    owner.get_by_role("button", name="Keep it").click()
    expect(owner.get_by_role("button", name="From the fair", exact=True)).to_have_attribute(
        "aria-pressed", "true"
    )
    owner.reload()
    expect(owner.get_by_text("2 shown")).to_be_visible()
    owner.get_by_role("button", name="Take out").click()
    with owner.expect_download() as taken:
        owner.get_by_role("menuitem", name="Cards for an address book").click()
    assert Path(taken.value.path()).read_text().count("BEGIN:VCARD") == 2

    step("two cards are joined and parted")
    owner.get_by_role("link", name="Jürgen").click()
    expect(owner.get_by_text("Brought in with fair.csv")).to_be_visible()
    owner.get_by_role("button", name="Join with another card …").click()
    owner.get_by_label(re.compile("^Which card is theirs")).fill("zoe.fair@")
    owner.get_by_role("button", name="Look and join …").click()
    dialog = owner.get_by_role("dialog")
    dialog.get_by_label("Zoë").check()
    dialog.get_by_role("button", name="Join them").click()
    expect(owner.get_by_role("heading", level=1, name="Zoë")).to_be_visible()
    owner.get_by_role("button", name="Make two again").click()
    expect(owner.get_by_role("heading", level=1, name="Jürgen")).to_be_visible()
    step("one is erased")
    owner.get_by_role("button", name="More", exact=True).click()
    owner.get_by_role("menuitem", name="Erase them …").click()
    ask = owner.get_by_role("alertdialog", name="Erase Jürgen?")
    expect(ask).to_contain_text("This cannot be undone")
    ask.get_by_role("button", name="Erase everything of theirs").click()
    owner.get_by_label("Find by name or address").fill("jurgen.fair@")
    expect(owner.get_by_text("Nobody is like that.")).to_be_visible()
