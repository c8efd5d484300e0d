"""While parts of Intavo are away, and when they are back: on a stack of this module's own, whose parts can be stopped."""

import re
import signal
from collections.abc import Callable, Iterator
from functools import partial

import psycopg
import pytest
from playwright.sync_api import BrowserContext, Page, expect
from pytest_django.plugin import DjangoDbBlocker

from demo.business import Names
from scripts.ports import claim_port
from scripts.stack import Stack
from tests.stacks import add_business, new_stack, running
from tests.waiting import until

from .pages.console import follow_up
from .pages.mail import mailed, mails
from .pages.site import begin_talk, confirm_by_mail, fill_in_tide_table, planned_slugs, popped_up

SECOND = "second web server"


@pytest.fixture(scope="module")
def stack(business_names: Names, django_db_blocker: DjangoDbBlocker) -> Iterator[Stack]:
    """A whole one: an answer can be taken back for the ten seconds that it can be in earnest."""
    with running(own := new_stack("outages", 8700)):
        stack = add_business(own, business_names, django_db_blocker)
        stack.stop_one("messaging stand-in")
        stack.start_wherry()
        yield stack


def away(stack: Stack, how: signal.Signals = signal.SIGTERM) -> None:
    """The application goes; the server in front stays."""
    stack.stop_one("web", how)


def back(stack: Stack) -> None:
    """It is back, and answers."""
    stack.start_web()
    stack.wait(f"{stack.base_url}/healthz")


def test_an_answer_is_taken_back_by_keyboard_and_sent_after_all(owner: Page, stack: Stack) -> None:
    follow_up(owner, stack)
    owner.get_by_role("link", name=re.compile("Tomasz Wielgosz")).click()
    box = owner.get_by_role("textbox", name=re.compile("^Answer to Tomasz"))
    box.fill("We do, from age eight.")
    box.press("Control+Enter")
    expect(box).to_have_value("")
    owner.get_by_role("button", name="Undo").last.press("Enter")
    expect(owner.get_by_text("taken back before it went out")).to_be_visible()
    expect(box).to_have_value("We do, from age eight.")
    expect(box).to_be_focused()
    box.press("Control+Enter")
    expect(owner.get_by_text("Now it is their turn").last).to_be_visible()
    sent = mailed(stack, "tomasz@fen-letters.example", "Re: your question")
    assert sent["text"].count("We do, from age eight.") == 1
    assert len(mails(stack, "tomasz@fen-letters.example")) == 1


def test_what_was_not_acknowledged_is_sent_again_when_the_server_is_back(
    stranger: BrowserContext, stack: Stack, owner: Page
) -> None:
    page = popped_up(stranger, stack)
    away(stack, signal.SIGKILL)
    try:
        fill_in_tide_table(page, "isolde@post.example")
        expect(page.get_by_text("What you wrote is kept and sent later.")).to_be_visible()
    finally:
        back(stack)

    def sent() -> bool:
        page.clock.run_for(10_000)
        return page.get_by_role("heading", name="Look in your mail").is_visible()

    until(sent, "it is sent again")
    expect(page.get_by_role("heading", name="Look in your mail")).to_be_visible()
    confirm_by_mail(owner, stack, "isolde@post.example")
    owner.goto(f"{stack.base_url}/follow-up")
    expect(owner.get_by_role("link", name=re.compile("isolde@post.example"))).to_have_count(1)


def test_a_change_is_seen_by_every_process_within_a_second(owner: Page, stack: Stack) -> None:
    port = claim_port(8790)
    stack.start_web(SECOND, port)
    second = f"http://127.0.0.1:{port}"
    stack.wait(f"{second}/healthz")

    def seen(base: str) -> bool:
        return "boathouse-question" in planned_slugs(stack, base)

    def everywhere(there: bool) -> bool:
        return [seen(base) for base in (stack.base_url, second)] == [there, there]

    assert everywhere(True)
    owner.goto(f"{stack.base_url}/touchpoints")
    for button, there in (("Turn off Boathouse question", False), ("Turn on Boathouse question", True)):
        with owner.expect_response(re.compile(r"/(on|off)$")):
            owner.get_by_role("button", name=button).click()
        # Looked up at most once a second; the rest is what a busy machine takes.
        until(partial(everywhere, there), "every process has seen it", seconds=10)
    stack.stop_one(SECOND)


def test_what_is_said_while_the_server_is_away_arrives_in_its_order(
    owner: Page, stranger: BrowserContext, stack: Stack
) -> None:
    page = stranger.new_page()
    begin_talk(page, stack, "una@lane.example")
    follow_up(owner, stack)
    owner.get_by_text("una@lane.example").first.click()
    expect(owner.get_by_role("log", name="What was said")).to_contain_text("Saturday, the early lesson")
    away(stack)
    page.get_by_label("Write to us").fill("Yes, please.")
    page.get_by_role("button", name="Send", exact=True).click()
    page.get_by_label("Write to us").fill("For two.")
    page.get_by_role("button", name="Send", exact=True).click()
    expect(page.get_by_text("No connection just now.")).to_be_visible()
    back(stack)
    expect(owner.get_by_role("log", name="What was said")).to_contain_text(
        re.compile("Yes, please.*For two.", re.DOTALL)
    )


def test_the_messaging_service_gets_the_script_and_the_answer_even_after_it_was_away(
    owner: Page, stack: Stack, stranger: BrowserContext
) -> None:
    page = stranger.new_page()
    page.goto(f"{stack.site_url}/contact")
    page.get_by_role("button", name="Reach us").click()
    page.get_by_role("button", name=re.compile("Chat with us")).click()
    with stranger.expect_page() as opened:
        page.get_by_role("link", name=re.compile("Jory")).click()
    wherry = opened.value
    expect(wherry.get_by_label("Your message")).to_have_value(
        re.compile(r"^Hello, I am looking at Contact.* #\w{4}$")
    )
    wherry.get_by_role("button", name="Send").click()
    expect(wherry.get_by_role("listitem").last).to_contain_text("One of us answers")

    owner.goto(f"{stack.base_url}/follow-up")
    owner.get_by_text("“Hello, I am looking at Contact").first.click()
    expect(owner.get_by_text("through Wherry")).to_be_visible()
    stack.stop_one("messaging stand-in")
    owner.locator("#answer").fill("What would you like to know?")
    owner.get_by_role("button", name=re.compile("^Send")).click()
    expect(owner.get_by_text("on its way").first).to_be_visible()
    stack.start_wherry()
    stack.wait(f"http://127.0.0.1:{stack.ports.wherry}/")
    expect(wherry.get_by_role("listitem").last).to_contain_text("What would you like to know?")


def test_connections_that_the_database_has_cut_are_noticed_by_nobody(
    visitor: Callable[..., BrowserContext], owner: Page, stack: Stack
) -> None:
    """As after the database began anew: nobody is answered that it is away, and no mail waits for another try."""

    def signed_up(email: str) -> None:
        fill_in_tide_table(popped_up(visitor(), stack), email)
        mailed(stack, email, "Please confirm: the tide table")

    signed_up("ida@post.example")
    with psycopg.connect(stack.database, autocommit=True) as database:
        cut = database.execute(
            "SELECT pg_terminate_backend(pid) FROM pg_stat_activity"
            " WHERE datname = current_database() AND pid <> pg_backend_pid()"
            " AND state = 'idle' AND query NOT ILIKE '%procrastinate%'"
        ).fetchall()
        assert cut
        answers = [owner.request.get(f"{stack.base_url}/api/touchpoints").status for _ in range(20)]
        assert answers == [200] * len(answers)
        signed_up("ivo@post.example")
        last = "SELECT attempts, status FROM procrastinate_jobs WHERE task_name = 'send_mail' ORDER BY id DESC LIMIT 1"
        # The mail is there a moment before its job is put down as done.
        until(lambda: (database.execute(last).fetchone() or ("", "doing"))[1] != "doing", "its job is done")
        tries = database.execute(last).fetchone()
    assert tries == (1, "succeeded")
