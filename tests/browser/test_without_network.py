"""On a phone, at the water: read, answered and worked without a network, and sent once when it is back."""

import re
from collections.abc import Callable

from playwright.sync_api import BrowserContext, Page, expect

from scripts.stack import Stack

from .pages.console import follow_up
from .pages.mail import mailed, mails
from .pages.site import asked
from .pages.steps import step

_KEPT = """() => new Promise((done) => {
  const open = indexedDB.open('intavo')
  open.onsuccess = () => {
    const all = open.result.transaction('kept').objectStore('kept').getAllKeys()
    all.onsuccess = () => done(all.result)
  }
})"""

_READ = """() => new Promise((done) => {
  const open = indexedDB.open('intavo')
  open.onsuccess = () => {
    const read = open.result.transaction('kept').objectStore('kept').get('queries')
    read.onsuccess = () => done(JSON.stringify(read.result ?? ''))
  }
})"""


def ready(page: Page) -> None:
    """Until the application is kept on the device, with what is on the screen."""
    page.evaluate("navigator.serviceWorker.ready.then(() => true)")
    page.wait_for_function("caches.keys().then((names) => names.some((one) => one.includes('precache')))")
    # What was read is written down a moment after it was.
    page.wait_for_function(f"({_READ})().then((text) => text.includes('Wanda') && text.includes('Ferelith'))")
    page.wait_for_load_state("networkidle")


def test_it_is_worked_without_a_network_and_sent_once(
    owner: Page, stranger: BrowserContext, other_device: Callable[..., Page], stack: Stack
) -> None:
    visit = stranger.new_page()
    for name in ("Wanda Szpak", "Ferelith Moon"):
        asked(visit, stack, name, f"Is the estuary safe for {name.split()[0]}?")
    phone = other_device(viewport={"width": 390, "height": 800}, has_touch=True, service_workers="allow")
    context = phone.context
    follow_up(phone, stack)
    for name in ("Wanda Szpak", "Ferelith Moon"):
        phone.get_by_role("link", name=re.compile(name)).click()
        expect(phone.get_by_role("heading", name=name)).to_be_visible()
        phone.get_by_role("button", name="← List").click()
    ready(phone)

    context.set_offline(True)
    phone.goto(f"{stack.base_url}/follow-up")
    expect(phone.get_by_text("No connection.")).to_be_visible()
    expect(phone.get_by_text(re.compile("The list is as it was today 14:"))).to_be_visible()
    phone.get_by_role("link", name=re.compile("Wanda Szpak")).click()
    expect(phone.get_by_text("Is the estuary safe for Wanda?", exact=True)).to_be_visible()
    box = phone.get_by_role("textbox", name=re.compile("^Answer to Wanda"))
    box.fill("It is, at low tide.")
    phone.get_by_role("button", name=re.compile("^Send")).click()
    expect(phone.get_by_text("There is no connection. It is kept on this device")).to_be_visible()
    expect(box).to_have_value("")
    waits = phone.get_by_role("list", name="Waiting for a connection")
    expect(waits).to_contain_text("It is, at low tide.")
    phone.get_by_label("How", exact=True).select_option("as a note")
    box.fill("Told at the slipway")
    phone.get_by_role("button", name=re.compile("^Keep$|^Keep Ctrl")).click()
    expect(waits).to_contain_text("Told at the slipway")
    phone.get_by_role("button", name="← List").click()
    phone.get_by_role("link", name=re.compile("Ferelith Moon")).first.click()
    phone.get_by_role("button", name="Put off").click()
    phone.get_by_role("button", name=re.compile("^In a week")).click()
    expect(phone.get_by_role("list", name="Waiting for a connection").get_by_role("listitem")).to_have_count(
        1
    )
    step("It is still there after the application was closed")
    phone.goto(f"{stack.base_url}/follow-up")
    expect(phone.get_by_role("list", name="Done here, not sent yet").get_by_role("listitem")).to_have_count(3)

    step("Meanwhile a colleague finishes one of the two; nothing of it is overwritten")
    follow_up(owner, stack)
    owner.get_by_role("link", name=re.compile("Ferelith Moon")).click()
    owner.get_by_role("button", name=re.compile("^Finish")).click()
    owner.get_by_role("menuitem", name="Not a fit").click()
    expect(owner.get_by_text("Finished: not a fit.")).to_be_visible()

    context.set_offline(False)
    told = phone.get_by_role("list", name="Done here, not sent yet").get_by_role("listitem")
    expect(told).to_have_count(1)
    expect(told).to_contain_text("This follow-up is finished already")
    told.get_by_role("button", name="Throw it away").click()
    expect(told).to_have_count(0)
    phone.get_by_role("link", name=re.compile("Wanda Szpak")).click()
    happened = phone.get_by_role("region", name="What happened")
    expect(happened.get_by_text("It is, at low tide.")).to_have_count(1)
    expect(happened.get_by_text("Told at the slipway")).to_have_count(1)
    # A browser that plays being offline may let a request through whose answer it then keeps back: sent once, still.
    mailed(stack, "wanda@post.example", "Re: your question")
    assert len(mails(stack, "wanda@post.example")) == 2

    step("Whoever signs out leaves nothing behind")
    assert "queries" in phone.evaluate(_KEPT)
    phone.get_by_role("button", name=re.compile("account of")).click()
    phone.get_by_role("menuitem", name="Sign out").click()
    phone.wait_for_url("**/sign-in**")
    assert phone.evaluate(_KEPT) == []
