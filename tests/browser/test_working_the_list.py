"""The walk of the list: what comes in while it is open, six worked by keyboard, hours that move, five thousand brought in,
the whole business out and into an empty one, and what is finished found again."""

import re
import urllib.request
from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import Browser, BrowserContext, Page, expect

from scripts.stack import Stack, mail_in_secret

from .conftest import mailed, sign_in
from .test_follow_up import asked

NAMES = ("Abel", "Bryn", "Cai", "Dilys", "Efa", "Ffion", "Gwil", "Hari")


def posted(stack: Stack, name: str, surname: str = "Walrus") -> None:
    """A mail that comes in from somebody new."""
    raw = (
        f"From: {name} {surname} <{name.lower()}.{surname.lower()}@post.example>\r\nTo: hello@otterwick.example\r\n"
        f"Subject: A {surname.lower()} tour\r\nMessage-ID: <{name}.{surname}@post.example>\r\n\r\n"
        f"Is there a {surname.lower()} tour for {name}?\r\n"
    ).encode()
    address = f"{stack.base_url}/in/mail/{mail_in_secret()}"
    request = urllib.request.Request(address, raw, {"Content-Type": "message/rfc822"}, method="POST")
    with urllib.request.urlopen(request) as answer:  # loopback only
        assert answer.status == 201


def walrus(page: Page, name: str) -> Any:
    """Somebody's row on the list."""
    return page.locator("[data-id]").filter(has_text=f"{name} Walrus")


def asks_for(page: Page, words: str, what: str) -> None:
    """Find or do something by its words, without a pointer."""
    page.keyboard.press("Control+k")
    expect(page.get_by_label("Find or do")).to_be_focused()
    page.keyboard.type(words)
    expect(page.get_by_role("option", name=re.compile(f"^{what}")).first).to_be_visible()
    page.keyboard.press("Enter")
    expect(page.get_by_label("Find or do")).to_have_count(0)


def test_eleven_come_in_and_six_are_worked_by_keyboard(
    owner: Page, stranger: BrowserContext, browser: Browser, stack: Stack
) -> None:
    held = owner.get_by_role("link", name=re.compile("Perpetua Lindqvist"))
    held.hover()
    before = held.bounding_box()
    for name in NAMES:
        posted(stack, name)
    visit = stranger.new_page()
    for name in ("Idris", "Jac", "Kyffin"):
        asked(visit, stack, f"{name} Walrus", f"Is there a walrus tour for {name}?")
    expect(owner.locator("[data-id]").filter(has_text="Walrus")).to_have_count(11, timeout=12_000)
    assert held.bounding_box() == before, "what is being read has moved"
    expect(walrus(owner, "Abel")).to_contain_text("in 2 h")
    owner.get_by_label("Search the list").fill("wálrus tour")
    expect(owner.locator("[data-id]")).to_have_count(11)

    # Answered with undo and sent after all, noted, put off, given, and four finished at once: no pointer is needed.
    keys = owner.keyboard
    walrus(owner, "Abel").focus()
    keys.press("Enter")
    box = owner.get_by_role("textbox", name=re.compile("^Answer to Abel"))
    expect(box).to_be_focused()
    keys.type("There is, in June.")
    keys.press("Control+Enter")
    owner.get_by_role("button", name="Undo").last.press("Enter")
    expect(owner.get_by_text("taken back before it went out")).to_be_visible()
    expect(box).to_have_value("There is, in June.")
    box.focus()
    keys.press("Control+Enter")
    expect(walrus(owner, "Abel")).to_contain_text("their turn")
    walrus(owner, "Bryn").focus()
    keys.press("Enter")
    owner.get_by_label("How", exact=True).select_option("as a note")
    owner.get_by_role("textbox", name=re.compile("^Answer to Bryn")).focus()
    keys.type("Rang; will ring again")
    keys.press("Control+Enter")
    expect(owner.get_by_text("The note is kept.")).to_be_visible()
    asks_for(owner, "put off until friday", "Put off until Friday")
    expect(walrus(owner, "Bryn")).to_contain_text("back Fri")
    walrus(owner, "Cai").focus()
    keys.press("Enter")
    expect(owner.get_by_role("heading", name="Cai Walrus")).to_be_visible()
    asks_for(owner, "give jory", "Give to Jory")
    expect(walrus(owner, "Cai")).to_contain_text("JT")
    keys.press("Escape")
    walrus(owner, "Dilys").focus()
    for _ in range(4):
        keys.press("x")
        keys.press("ArrowDown")
    bar = owner.get_by_role("region", name="What is done to all that are chosen")
    expect(bar).to_contain_text("4 chosen")
    bar.get_by_role("button", name="Finish").press("Enter")
    owner.get_by_role("menuitem", name="Not a fit").press("Enter")
    expect(owner.get_by_text("4 finished: not a fit.")).to_be_visible()
    expect(owner.locator("[data-id]")).to_have_count(7)
    owner.get_by_role("button", name="Undo").last.press("Enter")
    expect(owner.locator("[data-id]")).to_have_count(11)

    # What is asked for by its words is done to all that are chosen as well, not to the one that is open.
    walrus(owner, "Dilys").focus()
    for _ in range(2):
        keys.press("x")
        keys.press("ArrowDown")
    expect(bar).to_contain_text("2 chosen")
    asks_for(owner, "finish won", "Finish: won")
    expect(owner.get_by_text("2 finished: won.")).to_be_visible()
    expect(bar).to_have_count(0)
    expect(owner.locator("[data-id]")).to_have_count(9)
    owner.get_by_role("button", name="Undo").last.press("Enter")
    expect(owner.locator("[data-id]")).to_have_count(11)

    # What is finished is found again: by the filter, by a word, and in its touchpoint's table.
    address = owner.url
    owner.get_by_role("button", name="Show everything open").click()
    colleague = browser.new_context().new_page()
    sign_in(colleague, stack, "jory@otterwick.example")
    colleague.goto(address)
    expect(colleague.locator("[data-id]")).to_have_count(11)
    for name in (*NAMES, "Idris", "Jac", "Kyffin"):
        walrus(colleague, name).click()
        colleague.get_by_role("button", name=re.compile("^Finish")).click()
        colleague.get_by_role("menuitem", name="Won").click()
        expect(walrus(colleague, name)).to_have_count(0)
    colleague.context.close()
    owner.get_by_label("In which state").select_option("finished")
    owner.get_by_label("Search the list").fill("walrus")
    expect(owner.locator("[data-id]")).to_have_count(11)
    asks_for(owner, "kyffin walrus", "Kyffin Walrus")
    expect(owner.get_by_text("Finished: won").first).to_be_visible()
    owner.goto(f"{stack.base_url}/touchpoints")
    owner.get_by_role("row", name=re.compile("^Boathouse question")).get_by_role(
        "button", name="More"
    ).click()
    owner.get_by_role("menuitem", name="Its answers").click()
    expect(owner.get_by_role("row", name=re.compile("Is there a walrus tour for Kyffin"))).to_be_visible()


def test_hours_that_change_move_due_times_and_say_which(owner: Page) -> None:
    owner.get_by_role("link", name="Hours & channels").click()
    try:
        owner.get_by_label("Tuesday to").first.fill("14:30")
        owner.get_by_label("Tuesday to").first.press("Tab")
        moves = owner.get_by_role("status").filter(has_text="when you save")
        expect(moves).to_contain_text("Ife Dunmore")
        owner.get_by_role("button", name="Save the hours").click()
        expect(owner.get_by_text(re.compile("due times? (has|have) moved")).first).to_be_visible()
        owner.get_by_role("link", name="Follow-up").first.click()
        expect(owner.get_by_role("link", name=re.compile("Ife Dunmore"))).to_contain_text("tomorrow")
    finally:
        owner.get_by_role("link", name="Hours & channels").click()
        owner.get_by_label("Tuesday to").first.fill("17:30")
        owner.get_by_label("Tuesday to").first.press("Tab")
        owner.get_by_role("button", name="Save the hours").click()
        expect(owner.get_by_text(re.compile("due times? (has|have) moved")).last).to_be_visible()
    owner.get_by_role("link", name="Follow-up").first.click()
    expect(owner.get_by_role("link", name=re.compile("Ife Dunmore"))).to_contain_text("in 1 h 20")


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
    link = re.search(r"http\S+/verify/\S+", mailed(page, stack, "wren@estuary.example", "confirm")["text"])
    assert link is not None
    page.goto(link[0])
    page.get_by_role("button", name="Confirm my address").click()
    page.wait_for_url("**/welcome")
    page.get_by_label("What is it called?").fill("Estuary Tours")
    page.get_by_label("Its web site").fill("estuary.example")
    page.get_by_role("button", name="Go on").click()
    page.wait_for_url("**/touchpoints**")
    return page


def test_five_thousand_are_brought_in_and_the_whole_business_is_made_anew(
    owner: Page, newcomer: Page, stack: Stack, tmp_path: Path
) -> None:
    file = tmp_path / "regatta.csv"
    file.write_bytes(messy(5_000))
    owner.goto(f"{stack.base_url}/people/bring-in")
    owner.locator("input[type=file]").set_input_files(file)
    trial = owner.get_by_role("region", name="What taking it in would do")
    expect(trial).to_contain_text("100 refused", timeout=30_000)
    trial.get_by_role("button", name=re.compile("^Take .* in$")).click()
    expect(owner.get_by_role("heading", name="It is in")).to_be_visible(timeout=60_000)
    with owner.expect_download() as given:
        owner.get_by_role("link", name="The refused rows, as a file").click()
    assert Path(given.value.path()).read_text().count("not an address") == 100

    owner.goto(f"{stack.base_url}/business")
    owner.get_by_role("button", name="Make a copy").click()
    with owner.expect_download() as copy:
        owner.get_by_role("link", name="Take it").click(timeout=60_000)
    newcomer.goto(f"{stack.base_url}/business")
    newcomer.get_by_label("The copy").set_input_files(Path(copy.value.path()), timeout=10_000)
    expect(newcomer.get_by_text(re.compile(r"[0-9],[0-9]{3} people, .* are here"))).to_be_visible(
        timeout=90_000
    )
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

    # What was brought in is undone as a whole.
    owner.goto(f"{stack.base_url}/people/bring-in")
    owner.get_by_role("link", name=re.compile("regatta.csv")).first.click()
    owner.get_by_role("button", name="Undo it …").click()
    owner.get_by_role("button", name="Take them all out again").click()
    expect(owner.get_by_role("heading", name="It is undone")).to_be_visible(timeout=60_000)
