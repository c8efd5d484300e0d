"""From signing up to the first lead on the list, by the shortest honest way: clicks and fields are counted."""

import re
import threading
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer

from playwright.sync_api import Browser, Locator, Page, expect

from scripts.stack import Stack

from .pages.mail import hand_in, mailed
from .pages.site import AHEAD, later
from .pages.steps import step

MOST = 25


class Counted:
    """A page whose clicks and fields are counted."""

    def __init__(self, page: Page) -> None:
        self.page, self.count = page, 0

    def click(self, one: Locator) -> None:
        """One click."""
        self.count += 1
        one.click()

    def fill(self, label: str, text: str) -> None:
        """One field."""
        self.count += 1
        self.page.get_by_label(label).fill(text)


def own_site(line: str) -> ThreadingHTTPServer:
    """The owner's web site: one page that has the line in its head."""
    page = f"<!doctype html><html lang=en><head><title>Wren Bakes</title>{line}</head><body><main>Bread</main></body></html>"

    class Pages(BaseHTTPRequestHandler):
        def do_GET(self) -> None:
            self.send_response(200)
            self.send_header("Content-Type", "text/html")
            self.end_headers()
            self.wfile.write(page.encode())

        def log_message(self, *_: object) -> None:
            """Quietly."""

    server = ThreadingHTTPServer(("127.0.0.1", 0), Pages)
    threading.Thread(target=server.serve_forever, daemon=True).start()
    return server


def test_a_new_owner_has_the_first_lead_within_twenty_five(browser: Browser, stack: Stack) -> None:
    context = browser.new_context(
        timezone_id="Europe/Dublin", locale="en-IE", viewport={"width": 1280, "height": 800}
    )
    context.add_init_script(AHEAD)
    page = context.new_page()
    owner = Counted(page)
    page.goto(f"{stack.base_url}/sign-up")
    owner.fill("Email", "wren@wrenbakes.example")
    owner.fill("Password", "a long enough one")
    owner.click(page.get_by_role("button", name="Sign up"))
    expect(page.get_by_role("heading", name="Look in your mail")).to_be_visible()
    mail = mailed(stack, "wren@wrenbakes.example", "Please confirm your address")
    assert "Hello from" not in mail["text"]
    page.goto(re.search(r"http\S+/verify/\S+", mail["text"])[0])
    owner.click(page.get_by_role("button", name="Confirm my address"))
    owner.fill("What is it called?", "Wren Bakes")
    owner.fill("Its web site", "wrenbakes.localhost")
    expect(page.get_by_label("Where it is: its times go by it")).to_have_value("Europe/Dublin")
    expect(page.get_by_label("Its country")).to_have_value("IE")
    expect(page.get_by_text("prices are in EUR")).to_be_visible()
    owner.click(page.get_by_role("button", name="Go on to the first touchpoint"))
    owner.click(page.get_by_role("radio", name=re.compile("^A question to us")))
    owner.click(page.get_by_role("button", name="Start with this"))
    owner.click(page.get_by_role("button", name="Turn on"))
    owner.click(page.get_by_role("dialog").get_by_role("button", name="Turn on"))
    expect(page.get_by_text("It is on: visitors get it within a second.")).to_be_visible()
    owner.click(page.get_by_role("link", name="Follow-up", exact=True))
    steps = page.get_by_role("region", name="Until the first lead")
    expect(steps.get_by_text("1 of 6")).to_be_visible()
    owner.click(steps.get_by_role("link", name="Show me the line"))
    line = page.get_by_label("Snippet").inner_text()

    step("the line is on the site")
    site = own_site(line)
    home = f"http://wrenbakes.localhost:{site.server_port}"
    visit = context.new_page()
    with visit.expect_response(re.compile("/plan$")):
        visit.goto(f"{home}/")
    owner.click(page.get_by_role("link", name="Follow-up", exact=True))
    expect(steps.get_by_text("2 of 6")).to_be_visible()
    owner.click(steps.get_by_role("button", name="Nine to five is right"))
    expect(steps.get_by_role("link", name="Open my site")).to_have_attribute("href", home)
    step("the first lead comes in")
    visitor = Counted(visit)
    visit.evaluate("intavo.open('a-question-to-us')")
    expect(visit.locator("[data-intavo-touchpoint=pop-up]")).to_have_count(1)
    visitor.fill("What would you like to know?", "Do you bake on Mondays?")
    visitor.fill("Your email", "ash@post.example")
    later(visit)
    visitor.click(visit.get_by_role("button", name="Send my question"))
    expect(visit.get_by_text(re.compile("We answer"))).to_be_visible()
    item = page.get_by_role("link", name=re.compile("Do you bake on Mondays"))
    expect(item).to_be_visible()
    assert owner.count + visitor.count <= MOST
    owner.click(item)
    page.get_by_role("textbox", name=re.compile("^Answer to")).fill("We do, from seven.")
    page.get_by_role("button", name=re.compile("^Send")).click()

    step("an answer of theirs comes back")
    ours = mailed(stack, "ash@post.example", "Re:")
    hand_in(context.new_page(), stack, ours["name"], "answer", "Thank you, see you then.")
    page.get_by_role("link", name="Follow-up", exact=True).click()
    expect(page.get_by_role("region", name="Until the first lead")).to_have_count(0)
    expect(page.get_by_role("link", name=re.compile("Thank you, see you then"))).to_be_visible()
    site.shutdown()
    context.close()
