"""One stack for all tests, a business in it for each module, and real Chromium with one warm cache for each worker."""

import fcntl
from collections.abc import Callable, Generator, Iterator
from typing import Any

import pytest
from playwright.sync_api import Browser, BrowserContext, Page, expect
from pytest_django.plugin import DjangoDbBlocker

from demo.business import OWNER, Names
from scripts.stack import CHROMIUM, CHROMIUM_FLAGS, RUN, Stack
from tests.signing import Cookies, cookies_of
from tests.stacks import add_copy, describe, described, new_stack, running, write_pattern

from .pages.site import AHEAD
from .pages.steps import last_step

BASE_PORT = 8600
PATTERN = RUN / "tests-pattern.zip"
# What is to come about is waited for on a busy machine, too; how fast it is, is measured elsewhere.
expect.set_options(timeout=45_000)
# Modules that take longest go first, so that no worker is left with one of them alone at the end.
LONGEST = (
    "test_vectors", "test_outages", "test_console", "test_stances", "test_hosts", "test_making", "test_in_and_out",
    "test_afterwards", "test_reach", "test_editing", "test_together", "test_first_quarter", "test_hours_place",
    "test_working_the_list", "test_follow_up", "test_walk", "test_whole_business", "test_showing", "test_coming",
)  # fmt: skip
_whole: list[tuple[Stack, Any]] = []


def pytest_collection_modifyitems(items: list[pytest.Item]) -> None:
    """Every test here is marked, and the longest modules come first."""
    for item in items:
        if "tests/browser" in item.path.as_posix():
            item.add_marker("browser")
    order = {name: at for at, name in enumerate(LONGEST)}
    items.sort(key=lambda item: order.get(item.path.stem, len(order)))


def whole() -> Stack:
    """The stack of this run, started when it is first asked for."""
    if not _whole:
        PATTERN.unlink(missing_ok=True)
        going = running(new_stack("browser", BASE_PORT, INTAVO_TAKEN_BACK_SECONDS="1"))
        _whole.append((going.__enter__(), going))
    return _whole[0][0]


@pytest.hookimpl(optionalhook=True)
def pytest_configure_node(node: Any) -> None:
    """Each worker is told where the stack is."""
    node.workerinput["stack"] = describe(whole())


def pytest_unconfigure() -> None:
    """The stack ends with the run."""
    while _whole:
        _whole.pop()[1].__exit__(None, None, None)


@pytest.hookimpl(wrapper=True)
def pytest_runtest_makereport(item: pytest.Item, call: pytest.CallInfo[None]) -> Generator[None, Any, Any]:
    """A long walk that failed says which of its steps it was at."""
    report = yield
    at = last_step() if call.when == "call" else ""
    if at and report.failed:
        report.sections.append(("the step it was at", at))
    return report


@pytest.fixture(scope="session")
def browser_type_launch_args() -> dict[str, Any]:
    """Debian's Chromium."""
    return {"executable_path": CHROMIUM, "args": [*CHROMIUM_FLAGS]}


@pytest.fixture(scope="module")
def business_names(request: pytest.FixtureRequest) -> Names:
    """What the business of this module is called by: its module."""
    return Names(request.path.stem.removeprefix("test_").replace("_", "-"))


@pytest.fixture(scope="session")
def running_stack(request: pytest.FixtureRequest, django_db_blocker: DjangoDbBlocker) -> Stack:
    """Everything running, with a business in it of which those of the modules are copies."""
    told = getattr(request.config, "workerinput", {}).get("stack")
    stack = described(told) if told else whole()
    with PATTERN.with_suffix(".lock").open("w") as lock:
        fcntl.flock(lock, fcntl.LOCK_EX)
        if not PATTERN.exists():
            write_pattern(stack, PATTERN, django_db_blocker)
    return stack


@pytest.fixture(scope="module")
def stack(running_stack: Stack, business_names: Names, django_db_blocker: DjangoDbBlocker) -> Stack:
    """Everything running, with a business of this module's own; the clock stands at 14:05."""
    return add_copy(running_stack, business_names, django_db_blocker, PATTERN)


@pytest.fixture(scope="module")
def signed_in(stack: Stack) -> Cookies:
    """The cookies of the owner, who has signed in."""
    return cookies_of(stack, OWNER)


@pytest.fixture(scope="session")
def console(browser: Browser) -> Iterator[BrowserContext]:
    """Where the console is opened: what was fetched once stays in its cache. Nothing is kept for without a network."""
    context = browser.new_context(service_workers="block")
    yield context
    context.close()


@pytest.fixture
def owner(console: BrowserContext, stack: Stack, signed_in: Cookies) -> Iterator[Page]:
    """A blank page with the owner signed in."""
    console.clear_cookies()
    console.add_cookies(signed_in)
    page = console.new_page()
    wire = console.new_cdp_session(page)
    kinds = "local_storage,indexeddb,cache_storage"
    wire.send("Storage.clearDataForOrigin", {"origin": stack.base_url, "storageTypes": kinds})
    wire.detach()
    yield page
    console.unroute_all(behavior="ignoreErrors")
    for one in console.pages:
        one.close()


@pytest.fixture
def other_device(browser: Browser, stack: Stack) -> Iterator[Callable[..., Page]]:
    """Opens a page on another device, signed in: the owner's, or that of the member who is named."""
    contexts = []

    def opened(person: str = OWNER, **how: Any) -> Page:
        context = browser.new_context(**({"service_workers": "block"} | how))
        contexts.append(context)
        context.add_cookies(cookies_of(stack, person))
        return context.new_page()

    yield opened
    for context in contexts:
        context.close()


@pytest.fixture
def visitor(browser: Browser) -> Iterator[Callable[..., BrowserContext]]:
    """Makes browsers that have never been on the site, as they are described."""
    contexts = []

    def made(**how: Any) -> BrowserContext:
        context = browser.new_context(**({"viewport": {"width": 1280, "height": 800}} | how))
        context.add_init_script(AHEAD)
        contexts.append(context)
        return context

    yield made
    for context in contexts:
        context.close()


@pytest.fixture
def stranger(visitor: Callable[..., BrowserContext]) -> BrowserContext:
    """A browser that has never been on the site."""
    return visitor()
