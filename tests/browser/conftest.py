"""The whole stack as processes, with two web servers, and real Chromium."""

import json
import os
import re
import shutil
import urllib.request
from collections.abc import Iterator
from typing import Any

import psycopg
import pytest
from playwright.sync_api import Browser, BrowserContext, FrameLocator, Page, expect

from scripts.cluster import free_port, uploads_of
from scripts.stack import CHROMIUM, CHROMIUM_FLAGS, RUN, Ports, Stack

NOW = "2026-11-24T14:05:00+00:00"
SECOND = "second web server"
# What is to come about is waited for on a busy machine, too; how fast it is, is measured elsewhere.
expect.set_options(timeout=20_000)


def pytest_collection_modifyitems(items: list[pytest.Item]) -> None:
    """Every test here is marked."""
    for item in items:
        if "tests/browser" in item.path.as_posix():
            item.add_marker("browser")


@pytest.fixture(scope="session")
def browser_type_launch_args() -> dict[str, Any]:
    """Debian's Chromium."""
    return {"executable_path": CHROMIUM, "args": [*CHROMIUM_FLAGS]}


@pytest.fixture(scope="session")
def running(worker_id: str) -> Iterator[tuple[Stack, int]]:
    """Everything running on a fresh database with the demo data, and its last follow-up."""
    name = f"intavo_browser_{worker_id}"
    url = re.sub(r"/\w+$", f"/{name}", os.environ["DATABASE_URL"])
    with psycopg.connect(re.sub(r"/\w+$", "/postgres", url), autocommit=True) as connection:
        connection.execute(f"DROP DATABASE IF EXISTS {name} WITH (FORCE)")
        connection.execute(f"CREATE DATABASE {name}")
    shutil.rmtree(uploads_of(url), ignore_errors=True)
    env = {
        "INTAVO_NOW": NOW,
        "INTAVO_PLAN_RATE": "10000",
        "INTAVO_INTAKE_RATE": "10000",
        "INTAVO_DB_POOL": "true",
    }
    log = RUN / f"browser-tests-{worker_id}.log"
    log.unlink(missing_ok=True)
    stack = Stack(url, Ports.free_from(9600 if worker_id == "gw1" else 8600), env, log)
    try:
        stack.manage("migrate", "--verbosity", "0", "--skip-checks")
        stack.manage("load_demo", "--skip-checks")
        with psycopg.connect(url) as connection:
            row = connection.execute("SELECT max(id) FROM followup_followup").fetchone()
        stack.start()
        forget_mail(stack)
        assert row
        yield stack, row[0]
    finally:
        stack.stop()


@pytest.fixture(scope="session")
def stack(running: tuple[Stack, int]) -> Stack:
    """Everything running on a fresh database with the demo data; the clock stands at 14:05. One for each worker."""
    return running[0]


@pytest.fixture(scope="module")
def tidy(running: tuple[Stack, int]) -> None:
    """What other files left on the list is off it: its first page would be full of that."""
    stack, last = running
    with psycopg.connect(stack.database) as connection:
        connection.execute(
            "UPDATE followup_followup SET state = 'finished', outcome = 'answered', finished_at = %s, back_at = NULL"
            " WHERE id > %s AND state <> 'finished'"
            " AND business_id = (SELECT business_id FROM followup_followup WHERE id = %s)",
            [NOW, last, last],
        )


@pytest.fixture(scope="session")
def second(stack: Stack, worker_id: str) -> Iterator[str]:
    """The address of a second web server process on the same database."""
    port = free_port(9700 if worker_id == "gw1" else 8700)
    stack.start_web(SECOND, port)
    stack.wait(f"http://127.0.0.1:{port}/healthz")
    yield f"http://127.0.0.1:{port}"
    if SECOND in stack.processes:
        stack.stop_one(SECOND)


def forget_mail(stack: Stack) -> None:
    """Empty the mail stand-in."""
    urllib.request.urlopen(urllib.request.Request(f"{stack.mail_url}/forget", method="POST"))


def mails(stack: Stack, to: str) -> list[dict[str, Any]]:
    """What the mail stand-in holds for an address, newest first."""
    with urllib.request.urlopen(f"{stack.mail_url}/mails.json") as answer:
        return [mail for mail in json.load(answer) if to in mail["to"]]


def mailed(page: Page, stack: Stack, to: str, subject: str) -> dict[str, Any]:
    """Wait for a mail, which comes through a job."""
    for _ in range(250):
        found = [mail for mail in mails(stack, to) if subject in mail["subject"]]
        if found:
            return found[0]
        page.wait_for_timeout(100)
    raise AssertionError(f"no mail “{subject}” to {to}")


def sign_in(page: Page, stack: Stack, email: str = "morwenna@otterwick.example") -> None:
    """Sign in through the form, as the owner or another member."""
    page.goto(f"{stack.base_url}/sign-in")
    page.get_by_label("Email").fill(email)
    page.get_by_label("Password").fill("paddle-demo")
    page.get_by_role("button", name="Sign in").click()
    page.wait_for_url("**/follow-up**")


@pytest.fixture(scope="session")
def signed_in(browser: Browser, stack: Stack) -> list[Any]:
    """The cookies of the owner, who has signed in through the form."""
    context = browser.new_context()
    sign_in(context.new_page(), stack)
    cookies = context.cookies()
    context.close()
    return cookies


@pytest.fixture
def owner(page: Page, stack: Stack, signed_in: list[Any], tidy: None) -> Page:
    """The console with the owner signed in."""
    page.context.add_cookies(signed_in)
    page.goto(f"{stack.base_url}/follow-up")
    page.get_by_role("heading", name="Follow-up").wait_for()
    return page


@pytest.fixture
def stranger(browser: Browser) -> Iterator[BrowserContext]:
    """A browser that has never been on the site."""
    context = browser.new_context(viewport={"width": 1280, "height": 800})
    yield context
    context.close()


def stage(page: Page, which: str) -> FrameLocator:
    """One of the two frames of the editor's stage."""
    return page.frame_locator(f'iframe[title="{which}"]')


def side(page: Page, name: str) -> None:
    """One of the three parts of the editor's left column: Content, Look or After."""
    page.get_by_role("tab", name=name, exact=True).click()
