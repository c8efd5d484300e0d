"""The Hours place: a week in one line, odd days that come in, and what somebody would be told."""

import re
from collections.abc import Callable
from contextlib import AbstractContextManager

from playwright.sync_api import Page, expect

from scripts.stack import Stack

from .pages.steps import step

CALENDAR = (
    "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nBEGIN:VEVENT\r\nDTSTART;VALUE=DATE:20270104\r\nDTEND;VALUE=DATE:20270109\r\n"
    "SUMMARY:Refit\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n"
)


def test_an_owner_writes_the_week_brings_in_days_and_looks_at_what_is_told(owner: Page, stack: Stack) -> None:
    owner.goto(f"{stack.base_url}/hours")
    owner.get_by_role("button", name="+ Other hours").click()
    owner.get_by_label("What the other hours are called").fill("Workshop")
    owner.get_by_role("button", name="Add them").click()
    form = owner.locator("form[aria-label=Workshop]")
    step("They begin like those that were shown, with the odd days that are to come")
    odd_days = form.get_by_label("What it is")
    expect(odd_days.first).to_be_visible()
    expect(form.get_by_label("Friday from")).not_to_have_count(0)
    before = odd_days.count()
    line = form.get_by_label("The whole week in one line")
    line.fill("Mon–Fri 9-17:30, sat by appointment")
    line.press("Enter")
    expect(form.get_by_text("Not read: “sat by appointment”")).to_be_visible()
    line.fill("Mon–Fri 9-17:30, fri also 20-00:30, Sat 8-19")
    form.get_by_role("button", name="Read it").click()
    expect(form.get_by_text("open on 6 days of the week")).to_be_visible()
    expect(form.get_by_label("Friday to").last).to_have_value("00:30")

    form.get_by_role("button", name="Bring in a calendar …").click()
    form.locator("input[type=file]").set_input_files(
        {"name": "odd.ics", "mimeType": "text/calendar", "buffer": b"name,date"}
    )
    expect(form.get_by_text("line 1 cannot be read. Nothing was changed.")).to_be_visible()
    form.locator("input[type=file]").set_input_files(
        {"name": "refit.ics", "mimeType": "text/calendar", "buffer": CALENDAR.encode()}
    )
    would = form.get_by_role("list", name="What it would do")
    expect(would).to_contain_text(re.compile("Mon 4 Jan – Fri 8 Jan 2027.*closes: Refit"))
    expect(would).to_contain_text("usually 09:00–17:30")
    form.get_by_role("button", name="Take them").click()
    expect(owner.get_by_text("Taken: one odd day")).to_be_visible()
    owner.get_by_role("button", name="Undo").last.click()
    expect(odd_days).to_have_count(before)
    form.get_by_role("button", name="Bring in a calendar …").click()
    form.locator("input[type=file]").set_input_files(
        {"name": "refit.ics", "mimeType": "text/calendar", "buffer": CALENDAR.encode()}
    )
    form.get_by_role("button", name="Take them").click()
    form.get_by_role("button", name="Public holidays …").click()
    form.get_by_role("checkbox", name=re.compile("^Good Friday")).first.check()
    form.get_by_role("button", name="Close on these days").click()
    expect(owner.get_by_text("Closed on one odd day")).to_be_visible()
    expect(odd_days).to_have_count(before + 2)
    owner.reload()
    owner.get_by_role("button", name="Workshop", exact=True).click()
    expect(odd_days).to_have_count(before + 2)

    would_see = owner.get_by_role("region", name="What would they see at …")
    would_see.get_by_label("By which hours").select_option("Workshop")
    would_see.get_by_label("Day").fill("2027-01-05")
    would_see.get_by_label("Time").fill("11.40am")
    would_see.get_by_role("button", name="Look").click()
    expect(would_see.get_by_text("“Refit” closes it that day")).to_be_visible()
    would_see.get_by_label("Day").fill("2027-01-15")
    would_see.get_by_label("Time").fill("11.40 pm")
    would_see.get_by_label("nobody is at the counter").check()
    would_see.get_by_role("button", name="Look").click()
    expect(would_see.get_by_text("it is open: every Friday from 20:00 to 00:30.")).to_be_visible()
    expect(would_see.get_by_text("Everybody is away from the counter")).to_be_visible()
    would_see.get_by_role("button", name="Go there").first.click()
    expect(owner.locator(":focus")).to_have_attribute("id", re.compile(r"hours-\d+"))

    owner.get_by_role("button", name="Delete them").locator("visible=true").click()
    expect(owner.get_by_role("button", name="Workshop", exact=True)).to_have_count(0)


def saved(page: Page) -> AbstractContextManager[object]:
    """Until the server has kept it: what the form shows may come sooner."""
    return page.expect_response(lambda answer: answer.request.method == "PUT" and answer.ok)


def test_hours_and_a_channel_that_are_open_on_two_devices(
    owner: Page, other_device: Callable[..., Page], stack: Stack
) -> None:
    owner.goto(f"{stack.base_url}/hours")
    owner.get_by_role("button", name="+ Other hours").click()
    owner.get_by_label("What the other hours are called").fill("Ferry")
    owner.get_by_role("button", name="Add them").click()
    ours = owner.locator("form[aria-label=Ferry]")
    ours.get_by_label("The whole week in one line").fill("mon-fri 9-17")
    ours.get_by_role("button", name="Read it").click()
    expect(ours.get_by_text("not saved yet")).to_be_visible()
    ours.get_by_role("button", name="Save the hours").click()
    expect(ours.get_by_role("button", name="Save the hours")).to_be_disabled()
    phone = other_device(viewport={"width": 390, "height": 800})
    phone.goto(f"{stack.base_url}/hours")
    phone.get_by_role("button", name="Ferry", exact=True).click()
    theirs = phone.locator("form[aria-label=Ferry]")
    expect(theirs.get_by_label("Tuesday to")).to_have_value("17:00")
    ours.get_by_label("Monday to").fill("12:00")
    with saved(owner):
        ours.get_by_role("button", name="Save the hours").click()
    step("The other has not looked since: its own day is saved beside that")
    theirs.get_by_label("Tuesday to").fill("15:00")
    theirs.get_by_role("button", name="Save the hours").click()
    expect(theirs.get_by_label("Monday to")).to_have_value("12:00")
    expect(theirs.get_by_label("Tuesday to")).to_have_value("15:00")
    step("The same day of both is a question, and what was typed stays until it is answered")
    ours.get_by_label("Tuesday to").fill("18:00")
    ours.get_by_role("button", name="Save the hours").click()
    asked = ours.get_by_role("alert")
    expect(asked).to_contain_text("Somebody else has changed the same meanwhile: Tuesday (09:00–15:00).")
    expect(ours.get_by_label("Tuesday to")).to_have_value("18:00")
    with saved(owner):
        asked.get_by_role("button", name="Save mine in its place").click()
    expect(asked).to_have_count(0)
    expect(ours.get_by_label("Monday to")).to_have_value("12:00")
    theirs.get_by_label("Tuesday to").fill("16:00")
    theirs.get_by_role("button", name="Save the hours").click()
    theirs.get_by_role("button", name="Take what stands there").click()
    expect(theirs.get_by_label("Tuesday to")).to_have_value("18:00")
    expect(theirs.get_by_text("not saved yet")).to_have_count(0)

    channels = []
    for page in (owner, phone):
        page.goto(f"{stack.base_url}/hours/channels")
        channels.append(page.locator("form", has=page.get_by_role("button", name="Save the channel")))
    for form, changed in zip(channels, ("Ring the boathouse", "Phone the boathouse"), strict=True):
        name = form.get_by_label("What visitors read")
        before = name.input_value()
        name.fill(changed)
        with form.page.expect_response(lambda answer: answer.request.method == "PUT"):
            form.get_by_role("button", name="Save the channel").click()
    second = channels[1].get_by_role("alert")
    expect(second).to_contain_text("the same meanwhile: what visitors read.")
    second.get_by_role("button", name="Take what stands there").click()
    name = channels[1].get_by_label("What visitors read")
    expect(name).to_have_value("Ring the boathouse")
    phone.close()
    owner.get_by_role("button", name="Undo").last.click()
    expect(channels[0].get_by_label("What visitors read")).to_have_value(before)
    owner.goto(f"{stack.base_url}/hours")
    owner.get_by_role("button", name="Ferry", exact=True).click()
    owner.get_by_role("button", name="Delete them").locator("visible=true").click()
    expect(owner.get_by_role("button", name="Ferry", exact=True)).to_have_count(0)


def test_a_reply_that_is_open_twice_and_is_taken_back_shows_at_once(owner: Page, stack: Stack) -> None:
    other = owner.context.new_page()
    cells = []
    for page in (owner, other):
        page.goto(f"{stack.base_url}/hours/told")
        cells.append(page.get_by_role("button", name="Change: Open, Everywhere, unless changed"))
        cells[-1].click()
    before = cells[0].inner_text()
    for page, said in ((owner, "Hello there"), (other, "Good day")):
        page.get_by_role("textbox", name="Title").fill(said)
    other.get_by_label("What the button says").fill("Ask away")
    owner.get_by_role("button", name="Save", exact=True).click()
    expect(cells[0]).to_contain_text("Hello there")
    other.get_by_role("button", name="Save", exact=True).click()
    asked = other.get_by_role("alert")
    expect(asked).to_contain_text("Somebody else has changed the same meanwhile: the title.")
    asked.get_by_role("button", name="Take what stands there").click()
    expect(other.get_by_role("textbox", name="Title")).to_have_text("Hello there")
    other.get_by_label("What the button says").fill("Ask away")
    other.get_by_role("button", name="Save", exact=True).click()
    expect(cells[1]).to_contain_text("Ask away")
    # The form that offered it is closed; each takes back their own.
    other.get_by_role("button", name="Undo").click()
    expect(cells[1]).not_to_contain_text("Ask away")
    other.close()
    owner.get_by_role("button", name="Undo").click()
    expect(cells[0]).to_have_text(before, use_inner_text=True)
