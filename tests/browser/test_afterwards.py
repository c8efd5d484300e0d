"""What comes after, in real browsers: a video, the page to go to, the piece of work, who is greeted by name."""

import re
from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import Browser, BrowserContext, Page, expect

from scripts.stack import Stack

from .pages.console import saved, side, stage, start, turn_off, turn_on
from .pages.site import HOST, later, on, only, opened, settled


def sign_up(page: Page, slug: str, email: str) -> Any:
    """Fill in the news starter."""
    card = opened(page, slug, "pop-up")
    card.get_by_label("Your email").fill(email)
    card.get_by_label("First name").fill("Wilhelmina Ott")
    card.get_by_label("Send me the monthly news by email.").check()
    later(page)
    card.get_by_role("button", name="Keep me posted").click()
    return card


def test_they_go_to_the_page_that_was_chosen(owner: Page, stranger: BrowserContext, stack: Stack) -> None:
    editor = start(owner, stack, "News by email", "To a page")
    side(editor, "After")
    editor.get_by_label("They go to a page instead of the thanks step").fill(f"{stack.site_url}/lessons")
    editor.get_by_label("They go to a page instead of the thanks step").press("Tab")
    slug = turn_on(editor, stack)
    page = on(stranger, stack, "/contact")
    sign_up(page, slug, "one@post.example")
    page.wait_for_url("**/lessons")
    turn_off(editor)


def test_a_piece_of_work_is_done_by_the_browser_and_nothing_is_set_aside(
    owner: Page, stranger: BrowserContext, stack: Stack
) -> None:
    editor = start(owner, stack, "News by email", "With work")
    side(editor, "After")
    editor.get_by_text("Against spam").click()
    editor.get_by_label("their browser does a small piece of work first").check()
    slug = turn_on(editor, stack)
    page = on(stranger, stack, "/contact")
    sent: list[dict[str, Any]] = []
    page.on("request", lambda one: sent.append(one.post_data_json) if one.url.endswith("/intake") else None)
    card = sign_up(page, slug, "two@post.example")
    expect(card.get_by_role("heading", name="Thank you")).to_be_visible()
    assert sent[0]["work"]
    owner.goto(f"{stack.base_url}/quarantine")
    expect(owner.get_by_text("Nobody was told and nothing was given.")).to_be_visible()
    expect(owner.get_by_text("two@post.example")).to_have_count(0)
    owner.goto(f"{stack.base_url}/touchpoints")
    owner.get_by_role("button", name="Turn off With work").click()
    expect(owner.get_by_text("With work is off.")).to_be_visible()


def test_somebody_who_said_their_name_is_greeted_by_it(
    owner: Page, stranger: BrowserContext, stack: Stack
) -> None:
    editor = start(owner, stack, "News by email", "By name")
    editor.get_by_role("button", name=re.compile("^Headline")).click()
    editor.get_by_label("another wording where we know their name").check()
    slug = turn_on(editor, stack)
    page = on(stranger, stack, "/contact")
    card = sign_up(page, slug, "three@post.example")
    expect(card.get_by_role("heading", name="Thank you")).to_be_visible()
    page.keyboard.press("Escape")
    expect(page.locator(HOST.format("pop-up"))).to_have_count(0)
    again = opened(page, slug, "pop-up")
    expect(again.get_by_role("heading", name="Wilhelmina, news worth opening, once a month")).to_be_visible()
    turn_off(editor)


def test_it_goes_by_itself_but_not_while_somebody_is_in_it(
    owner: Page, stranger: BrowserContext, stack: Stack
) -> None:
    editor = start(owner, stack, "News by email", "Going")
    side(editor, "Look")
    editor.get_by_text("How it is closed").click()
    editor.get_by_label("Seconds until it goes by itself").fill("2")
    editor.get_by_label("Seconds until it goes by itself").press("Tab")
    slug = turn_on(editor, stack)
    page = stranger.new_page()
    only(page, slug)
    page.clock.install()
    with page.expect_response(re.compile("/plan$")):
        page.goto(f"{stack.site_url}/contact")
    page.wait_for_load_state("networkidle")
    card = opened(page, slug, "pop-up")
    card.get_by_label("Your email").focus()
    page.clock.run_for(3_200)
    expect(page.locator(HOST.format("pop-up"))).to_have_count(1)
    card.hover()
    card.locator("h2").evaluate("one => one.focus()")
    page.clock.run_for(3_200)
    expect(page.locator(HOST.format("pop-up"))).to_have_count(1)
    page.mouse.move(5, 5)
    page.clock.run_for(5_000)
    expect(page.locator(HOST.format("pop-up"))).to_have_count(0)
    turn_off(editor)


@pytest.fixture
def film(owner: Page, stack: Stack, tmp_path: Path) -> Path:
    """A second of moving colours, made by the browser itself."""
    owner.goto(f"{stack.base_url}/healthz")
    data = owner.evaluate(
        """async () => {
          const canvas = document.createElement('canvas'); canvas.width = 160; canvas.height = 90
          const context = canvas.getContext('2d')
          const recorder = new MediaRecorder(canvas.captureStream(20), {mimeType: 'video/webm'})
          const pieces = []; recorder.ondataavailable = (event) => pieces.push(event.data)
          recorder.start()
          for (let at = 0; at < 20; at++) {
            context.fillStyle = `hsl(${at * 18} 60% 50%)`; context.fillRect(0, 0, 160, 90)
            await new Promise((next) => setTimeout(next, 50))
          }
          const done = new Promise((next) => (recorder.onstop = next)); recorder.stop(); await done
          return [...new Uint8Array(await new Blob(pieces).arrayBuffer())]
        }"""
    )
    path = tmp_path / "film.webm"
    path.write_bytes(bytes(data))
    return path


def test_a_video_is_uploaded_and_gets_its_first_picture(owner: Page, stack: Stack, film: Path) -> None:
    editor = start(owner, stack, "Start empty", "Moving")
    editor.get_by_role("button", name="+ Add a part").click()
    editor.get_by_role("menuitem", name="Video").click()
    editor.get_by_role("button", name="Choose a video").click()
    editor.locator("input[type=file]").set_input_files(film)
    player = stage(editor, "Desktop").locator("video")
    expect(player).to_have_attribute("poster", re.compile("/m/as_"))
    assert not player.evaluate("one => one.muted")
    saved(editor)


def test_a_film_over_the_page_stands_still_for_those_who_ask_for_less_motion(
    owner: Page, browser: Browser, stack: Stack, film: Path
) -> None:
    editor = start(owner, stack, "A text to read", "Film")
    side(editor, "Look")
    editor.get_by_text("Background and what lies behind").click()
    editor.get_by_role("button", name="Video over the page").click()
    editor.locator("input[type=file]").set_input_files(film)
    expect(stage(editor, "Desktop").locator(".backdrop video")).to_have_count(1)
    editor.get_by_label("Background", exact=True).select_option("video")
    editor.get_by_role("button", name="Choose a video").click()
    editor.get_by_role("dialog").get_by_role("button", name=film.name, exact=True).first.click()
    expect(editor.get_by_text("on video").first).to_be_visible()
    slug = turn_on(editor, stack)
    motions: tuple[tuple[Any, bool], ...] = (("no-preference", False), ("reduce", True))
    for motion, still in motions:
        context = browser.new_context(reduced_motion=motion)
        page = on(context, stack, "/contact")
        opened(page, slug, "side-panel")
        films = page.locator(f"{HOST.format('side-panel')} video")
        expect(films).to_have_count(2)
        # Long enough for a second picture of it, where there is one.
        settled(page)
        assert films.evaluate_all("all => all.map(one => one.paused)") == [still, still]
        context.close()
    turn_off(editor)
