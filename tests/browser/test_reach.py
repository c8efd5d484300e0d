"""Reaching the business: the week drawn, what is told, channels, menu, conversation, messaging service, call-back."""

import io
import re

from PIL import Image
from playwright.sync_api import BrowserContext, Page, expect

from scripts.stack import Stack

from .pages.console import start, turn_on
from .pages.mail import mailed
from .pages.site import begin_talk, later
from .pages.steps import step


def picture() -> bytes:
    """A small picture as a file."""
    out = io.BytesIO()
    Image.new("RGB", (4, 4), "#336699").save(out, "PNG")
    return out.getvalue()


PICTURE = picture()


def at(page: Page, selector: str, share: float) -> tuple[float, float]:
    """A point on a row of the week, by its share of the row's width."""
    page.locator(selector).scroll_into_view_if_needed()
    box = page.locator(selector).bounding_box()
    assert box is not None
    return box["x"] + box["width"] * share, box["y"] + box["height"] / 2


def test_a_week_is_drawn_for_one_day_or_for_every_week_and_undone(owner: Page, stack: Stack) -> None:
    owner.goto(f"{stack.base_url}/hours")
    owner.get_by_role("button", name="+ Other hours").click()
    owner.get_by_label("What the other hours are called").fill("Slipway")
    owner.get_by_role("button", name="Add them").click()
    form = owner.locator("form[aria-label=Slipway]")
    line = form.get_by_label("The whole week in one line")
    line.fill("Mon–Fri 9-17:30, Sat 8-19")
    line.press("Enter")
    form.get_by_role("button", name="Save the hours").click()
    week = form.get_by_role("region", name="The week as it is")
    expect(week.get_by_text("11 h 00")).to_be_visible()

    step("a day is drawn")
    sunday = "form[aria-label=Slipway] [data-day='2026-11-29']"
    owner.mouse.move(*at(owner, sunday, 0.3))
    owner.mouse.down()
    owner.mouse.move(*at(owner, sunday, 0.5), steps=5)
    owner.mouse.up()
    week.get_by_label("What it is").fill("Winter race")
    week.get_by_role("button", name="This Sunday only, 29 Nov").click()
    expect(
        owner.get_by_text(re.compile("Sunday 29 Nov only: .* Nothing goes by these hours yet"))
    ).to_be_visible()
    expect(week.get_by_text("Winter race")).to_be_visible()

    step("an edge is moved")
    friday = week.get_by_role("slider", name="Friday 27 Nov, open")
    friday.focus()
    friday.press("Alt+ArrowRight")
    expect(friday).to_have_attribute("aria-valuetext", "09:00 to 17:45")
    week.get_by_role("button", name="Every Friday").click()
    expect(owner.get_by_text("Every Friday: 09:00–17:45.")).to_be_visible()
    expect(form.get_by_label("Friday to")).to_have_value("17:45")
    owner.get_by_role("button", name="Undo").last.click()
    expect(form.get_by_label("Friday to")).to_have_value("17:30")

    step("a day is written")
    week.get_by_role("button", name="Write the hours of Friday").click()
    week.get_by_label("Friday is open").fill("9-17:30, 20-00:30")
    week.get_by_label("Friday is open").press("Enter")
    week.get_by_role("button", name="Every Friday").click()
    expect(form.get_by_label("Friday to").last).to_have_value("00:30")
    week.get_by_role("button", name="Sunday 29 Nov as usual").click()
    expect(week.get_by_text("Winter race")).to_have_count(0)
    name = "form[aria-label=Slipway] [data-name='2026-11-{}']"
    owner.mouse.move(*at(owner, name.format(24), 0.5))
    owner.mouse.down()
    owner.mouse.move(*at(owner, name.format(26), 0.5), steps=6)
    owner.mouse.up()
    closing = week.get_by_role("group", name="Close these days")
    closing.get_by_label("What it is").fill("Boat repairs")
    closing.get_by_role("button", name="Close 24 Nov to 26 Nov").click()
    expect(week.get_by_text("Boat repairs")).to_have_count(3)
    expect(week.get_by_role("slider", name=re.compile("^(Tuesday|Wednesday|Thursday)"))).to_have_count(0)
    expect(owner.get_by_text(re.compile("^Closed.*24 Nov"))).to_be_visible()
    owner.get_by_role("button", name="Undo").last.click()
    expect(week.get_by_text("Boat repairs")).to_have_count(0)
    owner.locator(name.format(27)).focus()
    owner.keyboard.press("Shift+ArrowDown")
    expect(closing.get_by_role("button", name="Close 27 Nov to 28 Nov")).to_be_visible()
    closing.get_by_role("button", name="Leave it").click()
    owner.get_by_role("button", name="Delete them").locator("visible=true").click()


def test_what_is_told_differs_by_channel_and_language_and_says_why(owner: Page, stack: Stack) -> None:
    owner.goto(f"{stack.base_url}/hours/told")
    owner.get_by_role("button", name="Change: After hours, Harbour chat").click()
    form = owner.get_by_role("form", name=re.compile("What is said: After hours"))
    form.get_by_label("What the button says").fill("Leave us a line")
    form.get_by_role("button", name="Save").click()
    expect(owner.get_by_role("button", name="Change: After hours, Harbour chat")).to_contain_text(
        "Leave us a line"
    )
    expect(owner.get_by_role("button", name="Change: Holiday, Harbour chat")).to_contain_text("as everywhere")
    would = owner.get_by_role("region", name="What would they see at …")
    would.get_by_label("Day").fill("2026-11-27")
    would.get_by_label("Time").fill("23:40")
    would.get_by_label("Where").select_option("Harbour chat")
    would.get_by_role("button", name="Look").click()
    expect(would.get_by_text("every Friday from 20:00 to 00:30")).to_be_visible()
    would.get_by_label("Time").fill("18:40")
    would.get_by_role("button", name="Look").click()
    expect(would.get_by_text("We are ashore.")).to_be_visible()
    would.get_by_role("button", name="Go there").last.click()
    owner.get_by_label("Language").first.select_option("cy")
    cell = owner.get_by_role("button", name="Change: Holiday, Everywhere, unless changed")
    expect(cell).to_contain_text("in English: nothing is written here")
    expect(owner.get_by_role("button", name="Change: Open, Everywhere, unless changed")).to_contain_text(
        "Diolch"
    )


def made(owner: Page, pasted: str, taken_for: str) -> None:
    """A channel from something pasted."""
    owner.get_by_role("button", name="+ Channel").click()
    owner.get_by_label(re.compile("^Paste or type")).fill(pasted)
    owner.get_by_role("button", name="Read it").click()
    expect(owner.get_by_role("status").filter(has_text="Taken for")).to_contain_text(taken_for)
    owner.get_by_role("button", name="Make the channel").click()


def test_channels_are_made_by_pasting_and_tried_and_deleted(owner: Page, stack: Stack) -> None:
    owner.goto(f"{stack.base_url}/hours/channels")
    made(owner, "01632 960 777", "phone")
    form = owner.get_by_role("region", name="Call us").last
    expect(form.get_by_role("link", name="Try it")).to_have_attribute("href", "tel:+441632960777")
    form.get_by_label("What visitors read").fill("Ring the slip")
    form.get_by_label("While closed").select_option("hide")
    form.get_by_role("button", name="Save the channel").click()
    slip = owner.get_by_role("region", name="Ring the slip")
    expect(slip.get_by_text("It is not shown.")).to_have_count(3)
    code = slip.get_by_role("link", name="QR code, SVG").get_attribute("href")
    assert code is not None
    assert owner.request.get(code).text().startswith("<?xml")
    short = code.removesuffix(".svg")
    followed = owner.request.get(f"{short}?at=van")
    assert "tel:+441632960777" in followed.text()
    owner.reload()
    expect(slip.get_by_text("van 1")).to_be_visible()
    slip.get_by_label("Number").fill("12")
    slip.get_by_role("button", name="Save the channel").click()
    expect(slip.get_by_text(re.compile("too few or too many digits")).first).to_be_visible()
    slip.get_by_role("button", name="Delete").click()
    expect(owner.get_by_text("“Ring the slip” is deleted.")).to_be_visible()
    owner.get_by_role("button", name="Undo").click()
    expect(owner.get_by_role("button", name="Ring the slip", exact=True)).to_be_visible()
    made(owner, "https://wherry.localhost/to/you?text=hello%20there", "link")
    expect(owner.get_by_role("region", name="Chat with us").first).to_be_visible()
    owner.get_by_role("button", name="+ Channel").click()
    owner.get_by_label(re.compile("^Paste or type")).fill("3 Harbour Road, Otterwick")
    owner.get_by_role("button", name="Read it").click()
    owner.get_by_label(re.compile("^A map that shows it")).fill("map.example/place/7")
    owner.get_by_role("button", name="Make the channel").click()
    found = owner.get_by_role("region", name="Find us").last
    expect(found.get_by_role("link", name="Try it")).to_have_attribute("href", "https://map.example/place/7")
    expect(found.get_by_label("Place, as coordinates or a street")).to_have_value("3 Harbour Road, Otterwick")


def test_the_contact_menu_says_who_is_there_and_counts_the_channel(
    owner: Page, stack: Stack, stranger: BrowserContext
) -> None:
    page = stranger.new_page()
    page.goto(f"{stack.site_url}/contact")
    page.get_by_role("button", name="Reach us").click()
    menu = page.locator(".ways.rows")
    expect(menu.get_by_role("link", name=re.compile("Call us"))).to_have_attribute(
        "href", "tel:+441632960123"
    )
    expect(menu.get_by_text("Text us")).to_have_count(0)
    menu.get_by_role("button", name=re.compile("Chat with us")).click()
    expect(menu.get_by_role("link", name=re.compile("Jory"))).to_contain_text("trips and tides")
    with page.expect_request(re.compile("/beats$")) as beats:
        menu.get_by_role("link", name=re.compile("Call us")).evaluate(
            "e => e.addEventListener('click', x => x.preventDefault())"
        )
        menu.get_by_role("link", name=re.compile("Call us")).click()
    assert re.search(
        r'"what":"clicked"[^}]*"channel":"ch_|"channel":"ch_[^}]*"what":"clicked"',
        beats.value.post_data or "",
    )

    owner.goto(f"{stack.base_url}/hours")
    owner.get_by_role("button", name="At the counter").click()
    owner.get_by_role("menuitem", name="until we open next").click()
    expect(owner.get_by_role("button", name=re.compile("Back 09:00"))).to_be_visible()
    owner.get_by_role("button", name=re.compile("Back 09:00")).click()
    owner.get_by_role("menuitem", name="I am at the counter").click()
    expect(owner.get_by_role("button", name="At the counter")).to_be_visible()


def test_a_stranger_and_the_owner_talk_and_it_survives_pages(
    owner: Page, stack: Stack, stranger: BrowserContext
) -> None:
    page = stranger.new_page()
    begin_talk(page, stack, "tamsin@lane.example")
    log = page.get_by_role("log", name="Conversation")

    owner.goto(f"{stack.base_url}/follow-up")
    owner.get_by_text("tamsin@lane.example").first.click()
    expect(owner.get_by_role("log", name="What was said")).to_contain_text("Saturday, the early lesson")
    owner.locator("#answer").fill("Eight o’clock is free. Shall I book it?")
    expect(page.get_by_text("Somebody is writing …")).to_be_visible()
    owner.get_by_role("button", name=re.compile("^Send")).click()
    expect(log).to_contain_text("Eight o’clock is free.")
    with page.expect_file_chooser() as choosing:
        page.get_by_role("button", name="Add a picture or PDF").click()
    choosing.value.set_files({"name": "dent.png", "mimeType": "image/png", "buffer": PICTURE})
    expect(log.get_by_role("link", name="dent.png").get_by_role("presentation")).to_have_js_property(
        "naturalWidth", 4
    )
    theirs = owner.get_by_role("log", name="What was said").get_by_role("link", name="dent.png")
    expect(theirs.get_by_role("presentation")).to_have_js_property("naturalWidth", 4)

    page.goto(f"{stack.site_url}/trips")
    page.goto(f"{stack.site_url}/lessons")
    page.get_by_role("button", name=re.compile("Talk to us")).click()
    log = page.get_by_role("log", name="Conversation")
    expect(log).to_contain_text("Eight o’clock is free.")
    expect(owner.get_by_text("on the page now")).to_be_visible()


def test_a_call_is_booked_moved_and_cancelled(owner: Page, stack: Stack, stranger: BrowserContext) -> None:
    editor = start(owner, stack, "Call me back", "Ring me")
    editor.get_by_role("button", name="+ Add a part").click()
    editor.get_by_role("menuitem", name="Email field").click()
    turn_on(editor, stack)
    page = stranger.new_page()
    page.goto(f"{stack.base_url}/t/{stack.names.slug}/ring-me")
    # The plain form gives way to the script's.
    page.locator("[data-intavo-touchpoint] select").first.select_option(index=1)
    page.get_by_label(re.compile("phone number")).fill("07700 900 456")
    page.get_by_label(re.compile("Your email")).fill("wyn@quay.example")
    # Nobody fills it in within three seconds but a machine.
    later(page)
    page.get_by_role("button", name="Call me then").click()
    expect(page.get_by_text(re.compile("^We call you .* at "))).to_be_visible()
    mail = mailed(stack, "wyn@quay.example", "is booked")
    assert mail["files"] == ["call.ics"]
    link = re.search(r"http://\S+/b/\w+", mail["text"])
    assert link is not None
    page.goto(link[0])
    page.get_by_label("Move it to").select_option(index=2)
    page.get_by_role("button", name="Move it").click()
    expect(page.get_by_text("It is moved.")).to_be_visible()
    page.get_by_role("button", name="Cancel the call").click()
    expect(page.get_by_text("Nobody calls.")).to_be_visible()
    mailed(stack, "wyn@quay.example", "is cancelled")
