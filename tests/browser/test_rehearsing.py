"""The page map, a rehearsal and the real page like it, and what holds for a whole site."""

import re

from playwright.sync_api import BrowserContext, Page, expect

from scripts.stack import Stack

from .pages.axe import violations
from .pages.mail import mailed
from .pages.site import on, settled


def test_the_page_map_explains_itself_and_leads_to_a_rehearsal(owner: Page, stack: Stack) -> None:
    owner.goto(f"{stack.base_url}/touchpoints")
    later = owner.get_by_role("button", name="Winter hire on /hire: later, from 1 Dec")
    later.click()
    why = owner.get_by_role("region", name="Why")
    expect(why.get_by_text("From 1 Dec 2026; next Tue 1 Dec, 00:00.").last).to_be_visible()
    assert violations(owner) == []
    owner.get_by_label("At which time").fill("2026-12-05T10:00")
    owner.get_by_label("At which time").press("Tab")
    expect(owner.get_by_role("button", name="Winter hire on /hire: shows, in turn")).to_be_visible()
    expect(
        owner.get_by_role("row", name=re.compile("^Tide table")).get_by_role("cell").nth(-2)
    ).to_contain_text("%")
    owner.get_by_role("link", name="Rehearse from here").click()
    track = owner.get_by_role("figure", name="Tracks")
    expect(track.get_by_text("Waits: after 6 s")).to_be_visible()
    expect(owner.get_by_role("heading", name=re.compile("Winter hire at 0:23"))).to_be_visible()


def test_a_rehearsal_says_why_and_when_again_compares_and_keeps_a_visitor(owner: Page, stack: Stack) -> None:
    owner.goto(f"{stack.base_url}/touchpoints/rehearse?path=/trips")
    tracks = owner.get_by_role("figure", name="Tracks")
    tracks.get_by_role("button", name="Tide table").click()
    expect(owner.get_by_role("heading", name=re.compile("Tide table at 0:23 — not showing"))).to_be_visible()
    expect(owner.get_by_text("free again Tue 1 Dec, 14:05").first).to_be_visible()
    moment = tracks.get_by_role("slider", name="Moment")
    for _ in range(8):
        moment.press("ArrowLeft")
    expect(owner.get_by_role("heading", name=re.compile("Tide table at 0:15 — on screen"))).to_be_visible()
    owner.get_by_role("button", name="+ Add something they do").click()
    owner.get_by_label("Deed 4: what").select_option("page")
    owner.get_by_label("Deed 4: url").fill("/hire")
    owner.get_by_label("Deed 4: url").press("Enter")
    expect(tracks.get_by_text("/hire", exact=True)).to_be_visible()
    owner.get_by_role("button", name="Compare with another visitor").click()
    expect(owner.get_by_role("figure")).to_have_count(2)
    owner.get_by_label("On the list").select_option("yes")
    owner.get_by_label("Name to keep this visitor by").fill("Maya, on a phone")
    owner.get_by_role("button", name="Keep", exact=True).click()
    expect(owner.get_by_text("Maya, on a phone is kept.")).to_be_visible()
    assert violations(owner) == []
    owner.reload()
    owner.get_by_label("Take a visitor you kept").select_option("Maya, on a phone")
    expect(owner.get_by_label("Device")).to_have_value("phone")
    expect(owner.get_by_label("On the list")).to_have_value("yes")


def test_the_real_page_behaves_as_for_that_visitor_and_counts_nothing(
    owner: Page, stranger: BrowserContext, stack: Stack
) -> None:
    on(stranger, stack, "/contact").close()
    owner.goto(f"{stack.base_url}/touchpoints/rehearse?path=/hire")
    owner.get_by_label("Arrives").fill("2026-12-05T10:00")
    owner.get_by_label("Arrives").press("Tab")
    with owner.context.expect_page() as opened:
        owner.get_by_role("button", name="Open the real page like this").click()
    page = opened.value
    sent: list[str] = []
    page.on("request", lambda one: sent.append(one.url))
    expect(page.get_by_text("Rehearsal: nothing is counted or sent.")).to_be_visible()
    expect(page.locator("[data-intavo-touchpoint=full-page] h2")).to_contain_text(
        "The boat is yours all winter"
    )
    settled(page)
    page.keyboard.press("Escape")
    page.evaluate("intavo.open('boathouse-question')")
    card = page.locator("[data-intavo-touchpoint=pop-up] .card")
    card.get_by_label("Your question").fill("Only rehearsed?")
    card.get_by_label("Your email").fill("nobody@post.example")
    card.get_by_role("button", name=re.compile("Send|Ask")).click()
    expect(card.get_by_role("heading", name=re.compile("Thank|We have"))).to_be_visible()
    assert not [url for url in sent if url.endswith(("/beats", "/intake"))]
    assert page.evaluate("Object.keys(localStorage).filter((one) => one.startsWith('intavo.')).length") == 0
    page.goto(f"{stack.site_url}/contact")
    page.get_by_role("button", name="End it").click()
    expect(page.get_by_text("Rehearsal: nothing is counted or sent.")).to_have_count(0)
    owner.goto(f"{stack.base_url}/follow-up")
    expect(owner.get_by_text("nobody@post.example")).to_have_count(0)


def test_whoever_keeps_the_site_is_told_how_and_another_host_is_added(
    owner: Page, stranger: BrowserContext, stack: Stack
) -> None:
    key = owner.request.get(f"{stack.base_url}/api/sites").json()[0]["key"]
    page = stranger.new_page()
    page.goto(stack.mail_url.replace("127.0.0.1", "localhost"))
    page.evaluate(
        "([url]) => fetch(url, {method: 'POST', body: JSON.stringify({page: {url: location.href}, device: 'desktop'})}).catch(() => 0)",
        [f"{stack.base_url}/e/{key}/plan"],
    )
    owner.goto(f"{stack.base_url}/business")
    expect(owner.get_by_text("which is not on the list: nothing shows there").first).to_be_visible()
    owner.get_by_text("How to put it in, or have somebody do it").first.click()
    owner.get_by_label("Address of whoever keeps your site").first.fill("kim@keeper")
    owner.get_by_role("button", name="Mail them how").first.click()
    expect(owner.get_by_role("alert").first).to_be_visible()
    owner.get_by_label("Address of whoever keeps your site").first.fill("kim@keeper.example")
    owner.get_by_role("button", name="Mail them how").first.click()
    expect(owner.get_by_text("This address has not confirmed anything to us")).to_be_visible()
    owner.get_by_role("button", name="Copy the text").first.click()
    expect(owner.get_by_text("Copied. Paste it into a mail of your own.")).to_be_visible()
    address = stack.names.email("Morwenna")
    owner.get_by_label("Address of whoever keeps your site").first.fill(address)
    owner.get_by_role("button", name="Mail them how").first.click()
    expect(owner.get_by_text(f"On its way to {address}.")).to_be_visible()
    mail = mailed(stack, address, "One line for")
    assert f"/e/{key}.js" in mail["text"]
