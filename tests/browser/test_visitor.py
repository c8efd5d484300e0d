"""What a visitor meets: leaving it, focus, phones, refusals of storage, lost connections."""

import re
import signal

import psycopg
import pytest
from playwright.sync_api import Browser, BrowserContext, Page, expect

from scripts.stack import Stack

from .conftest import SECOND, mailed

TIDE = "The month’s safe paddling hours, on one page"
ON_TRIPS = "/trips"


def arrive(context: BrowserContext, stack: Stack, path: str = ON_TRIPS) -> Page:
    """On a page with a clock that can be moved on."""
    page = context.new_page()
    page.clock.install()
    with page.expect_response(re.compile("/plan$")):
        page.goto(f"{stack.site_url}{path}")
    # What the plan asks for besides is there too, and its moments are watched.
    page.wait_for_load_state("networkidle")
    return page


def popped_up(context: BrowserContext, stack: Stack) -> Page:
    """Twelve seconds later."""
    page = arrive(context, stack)
    page.clock.run_for(8_000)
    expect(page.get_by_role("dialog")).to_have_count(0)
    page.clock.run_for(4_500)
    expect(page.get_by_role("dialog", name=TIDE)).to_be_visible()
    return page


@pytest.mark.parametrize("way", ["cross", "escape", "outside"])
def test_it_can_be_left_and_does_not_come_back_on_the_next_page(
    stranger: BrowserContext, stack: Stack, way: str
) -> None:
    page = popped_up(stranger, stack)
    if way == "cross":
        page.get_by_role("dialog").get_by_role("button", name="Close").click()
    elif way == "escape":
        page.keyboard.press("Escape")
    else:
        page.mouse.click(20, 400)
    expect(page.get_by_role("dialog")).to_have_count(0)
    page.clock.run_for(2_000)
    with page.expect_response(re.compile("/plan$")) as planned:
        page.goto(f"{stack.site_url}/trips/sunrise")
    assert "tide-table" not in [one["slug"] for one in planned.value.json()["touchpoints"]]


def test_focus_goes_in_stays_in_and_comes_back(stranger: BrowserContext, stack: Stack) -> None:
    page = arrive(stranger, stack)
    link = page.get_by_role("link", name="Lessons")
    link.focus()
    page.clock.run_for(12_500)
    dialog = page.get_by_role("dialog", name=TIDE)
    expect(dialog.get_by_role("heading", name=TIDE)).to_be_focused()
    inside = "!!document.activeElement.shadowRoot?.activeElement?.closest('dialog')"
    for _ in range(9):
        page.keyboard.press("Tab")
        assert page.evaluate(inside)
    page.keyboard.press("Shift+Tab")
    assert page.evaluate(inside)
    page.keyboard.press("Escape")
    expect(link).to_be_focused()


def test_scrolling_to_two_fifths_brings_it_sooner(stranger: BrowserContext, stack: Stack) -> None:
    page = arrive(stranger, stack)
    page.mouse.wheel(0, 900)
    expect(page.get_by_role("dialog", name=TIDE)).to_be_visible()


@pytest.mark.parametrize(("width", "height"), [(320, 560), (390, 780)])
def test_it_fits_a_phone(browser: Browser, stack: Stack, width: int, height: int) -> None:
    context = browser.new_context(viewport={"width": width, "height": height}, has_touch=True, is_mobile=True)
    page = popped_up(context, stack)
    page.clock.run_for(500)
    page.wait_for_timeout(500)  # the arrival is an animation
    box = page.get_by_role("dialog").bounding_box()
    assert box is not None
    assert box["x"] >= 0
    assert box["x"] + box["width"] <= width
    assert box["y"] >= 0
    assert box["y"] + box["height"] <= height
    assert page.evaluate("document.documentElement.scrollWidth <= innerWidth")
    context.close()


def test_where_storage_is_refused_it_never_comes_by_itself(browser: Browser, stack: Stack) -> None:
    context = browser.new_context()
    context.add_init_script(
        "Object.defineProperty(window,'localStorage',{get(){throw new Error('refused')}})"
    )
    page = arrive(context, stack)
    page.clock.run_for(60_000)
    expect(page.get_by_role("dialog")).to_have_count(0)
    page.evaluate("intavo.open('tide-table')")
    expect(page.get_by_role("dialog", name=TIDE)).to_be_visible()
    context.close()


def test_a_link_opens_it_on_any_page_and_the_page_is_told(stranger: BrowserContext, stack: Stack) -> None:
    page = arrive(stranger, stack, "/contact")
    page.evaluate(
        """() => { window.told = []; intavo.on('closed', (d) => told.push(d.touchpoint));
        document.body.insertAdjacentHTML('afterbegin', '<a href="#intavo=boathouse-question">Ask</a>') }"""
    )
    page.get_by_role("link", name="Ask", exact=True).click()
    expect(page.get_by_role("dialog", name="Something you want to know?")).to_be_visible()
    page.keyboard.press("Escape")
    assert page.evaluate("told") == ["boathouse-question"]


def test_privacy_control_sends_no_id_and_no_beats(browser: Browser, stack: Stack) -> None:
    context = browser.new_context()
    context.add_init_script("Object.defineProperty(navigator,'globalPrivacyControl',{get:()=>true})")
    sent: list[str] = []
    context.on("request", lambda request: sent.append(request.url))
    page = context.new_page()
    page.clock.install()
    with page.expect_request(re.compile("/plan$")) as planned:
        page.goto(f"{stack.site_url}/trips")
    assert planned.value.post_data_json["visitor"]["id"] is None
    page.wait_for_load_state("networkidle")
    page.clock.run_for(20_000)
    expect(page.get_by_role("dialog")).to_be_visible()
    page.keyboard.press("Escape")
    page.clock.run_for(5_000)
    assert not [url for url in sent if url.endswith("/beats")]
    context.close()


def test_what_was_seen_and_closed_is_reported(stranger: BrowserContext, stack: Stack) -> None:
    told: list[tuple[str, int]] = []
    stranger.on(
        "response",
        lambda answer: (
            told.extend((beat["what"], answer.status) for beat in answer.request.post_data_json)
            if answer.url.endswith("/beats")
            else None
        ),
    )
    page = popped_up(stranger, stack)
    page.wait_for_timeout(300)
    page.clock.run_for(1_500)
    page.keyboard.press("Escape")
    # Together or one after the other, as fast as the machine is.
    for _ in range(40):
        page.clock.run_for(500)
        page.wait_for_timeout(50)
        if len(set(told)) > 1:
            break
    assert set(told) >= {("seen", 202), ("closed", 202)}


def test_consent_is_waited_for(stranger: BrowserContext, stack: Stack) -> None:
    page = stranger.new_page()
    page.add_init_script(
        """new MutationObserver(() => document.querySelector('script[src*="/e/"]')?.setAttribute('data-consent', 'wait'))
        .observe(document, {childList: true, subtree: true})"""
    )
    asked: list[str] = []
    page.on("request", lambda request: asked.append(request.url))
    page.goto(f"{stack.site_url}/trips")
    page.wait_for_function("window.intavo")
    assert page.evaluate("localStorage.length") == 0
    assert not [url for url in asked if url.endswith("/plan")]
    with page.expect_response(re.compile("/plan$")):
        page.evaluate("intavo.consent(true)")


def fill(page: Page, email: str) -> None:
    """Fill in the tide table's form and send it."""
    dialog = page.get_by_role("dialog")
    page.clock.run_for(2_000)  # nobody types faster
    dialog.get_by_label("Your email").fill(email)
    dialog.get_by_label("Send me the monthly tide table.").check()
    dialog.get_by_role("button", name="Send me the tide table").click()


def confirm_by_mail(page: Page, stack: Stack, address: str) -> None:
    """Open the link of the mail, and press the button."""
    mail = mailed(page, stack, address, "Please confirm: the tide table")
    page.goto(re.search(r"http\S+/c/\S+", mail["text"])[0])
    page.get_by_role("button", name="Send me the tide table").click()
    expect(page.get_by_role("heading", name="Thank you, that is confirmed")).to_be_visible()


def test_a_slip_is_offered_and_taken(stranger: BrowserContext, stack: Stack) -> None:
    page = popped_up(stranger, stack)
    fill(page, "nell@otterwik.example")
    page.get_by_role("button", name="Use nell@otterwick.example").click()
    expect(page.get_by_text("We write to nell@otterwick.example.")).to_be_visible()
    mailed(page, stack, "nell@otterwick.example", "tide table")


def test_what_was_not_acknowledged_is_sent_again_when_the_server_is_back(
    stranger: BrowserContext, stack: Stack, owner: Page
) -> None:
    page = popped_up(stranger, stack)
    stack.stop_one("web", signal.SIGKILL)
    try:
        fill(page, "isolde@post.example")
        expect(page.get_by_text("What you wrote is kept and sent later.")).to_be_visible()
    finally:
        stack.start_web()
        stack.wait(f"{stack.base_url}/healthz")
    for _ in range(20):
        page.clock.run_for(10_000)
        if page.get_by_role("heading", name="Look in your mail").is_visible():
            break
        page.wait_for_timeout(200)
    expect(page.get_by_role("heading", name="Look in your mail")).to_be_visible()
    confirm_by_mail(owner, stack, "isolde@post.example")
    owner.goto(f"{stack.base_url}/follow-up")
    expect(owner.get_by_role("link", name=re.compile("isolde@post.example"))).to_have_count(1)


def test_a_change_is_seen_by_every_process_within_a_second(owner: Page, stack: Stack, second: str) -> None:
    slug, plan = "boathouse-question", {"page": {"url": f"{stack.site_url}/hire"}, "device": "desktop"}

    def seen(base: str) -> bool:
        address = f"{base}/e/0tterwick0demo01/plan"
        answer = owner.request.post(address, data=plan, headers={"Origin": stack.site_url})
        return slug in [one["slug"] for one in answer.json()["touchpoints"]]

    assert seen(stack.base_url)
    assert seen(second)
    assert SECOND in stack.processes
    owner.get_by_role("link", name="Touchpoints", exact=True).click()
    for button, there in (("Turn off Boathouse question", False), ("Turn on Boathouse question", True)):
        with owner.expect_response(re.compile(r"/(on|off)$")):
            owner.get_by_role("button", name=button).click()
        owner.wait_for_timeout(1_050)
        assert (seen(stack.base_url), seen(second)) == (there, there)


def test_the_hosted_page_is_drawn_by_the_same_code(stranger: BrowserContext, stack: Stack) -> None:
    page = stranger.new_page()
    page.goto(f"{stack.base_url}/t/otterwick/tide-table")
    card = page.locator("[data-intavo-touchpoint=inline]")
    expect(card.get_by_role("heading", name=TIDE)).to_be_visible()
    assert page.locator("form[method=post]").count() == 0


def test_what_was_filled_in_before_the_script_came_stands_in_what_it_draws(
    stranger: BrowserContext, stack: Stack
) -> None:
    page, held = stranger.new_page(), []
    page.route("**/plan", lambda route: held.append(route))
    page.goto(f"{stack.base_url}/t/otterwick/tide-table")
    page.get_by_label("Send me the monthly tide table.").check()
    page.get_by_label("Your email").fill("slow@post.example")
    expect(page.locator("[data-intavo-touchpoint=inline]")).to_have_count(0)
    held[0].continue_()
    card = page.locator("[data-intavo-touchpoint=inline]")
    expect(card.get_by_label("Your email")).to_have_value("slow@post.example")
    expect(card.get_by_label("Your email")).to_be_focused()
    expect(card.get_by_label("Send me the monthly tide table.")).to_be_checked()
    expect(page.locator("form[method=post]")).to_have_count(0)


def test_connections_that_the_database_has_cut_are_noticed_by_nobody(
    browser: Browser, owner: Page, stack: Stack
) -> None:
    """As after the database began anew: nobody is answered that it is away, and no mail waits for another try."""

    def signed_up(email: str) -> None:
        context = browser.new_context()
        fill(popped_up(context, stack), email)
        mailed(owner, stack, email, "Please confirm: the tide table")
        context.close()

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
        tries = database.execute(
            "SELECT attempts, status FROM procrastinate_jobs WHERE task_name = 'send_mail' ORDER BY id DESC LIMIT 1"
        ).fetchone()
    assert tries == (1, "succeeded")
