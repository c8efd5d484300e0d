"""Making a touchpoint in the console: starters, parts, steps, look, history, what comes after, the open file."""

import json
import re
from pathlib import Path

import pytest
from PIL import Image
from playwright.sync_api import Page, expect

from scripts.stack import Stack

from .pages.console import saved, side, stage, start


def test_a_part_is_dragged_to_another_place(owner: Page, stack: Stack) -> None:
    editor = start(owner, stack, "News by email", "Dragged")
    names = editor.get_by_role("list", name="Parts of this step").locator("[data-handle]")
    grips = editor.locator("[data-grip]")
    grips.nth(1).drag_to(grips.nth(0))
    expect(names.first).to_contain_text("Text")
    saved(editor)
    editor.reload()
    expect(names.first).to_contain_text("Text")


def test_another_stance_keeps_words_and_colours(owner: Page, stack: Stack) -> None:
    editor = start(owner, stack, "News by email", "Stances")
    desktop = stage(editor, "Desktop")
    desktop.get_by_role("textbox", name="Words of p1").fill("Kept words")
    saved(editor)
    for stance in ("card", "bar", "side-panel", "full-page", "in-page", "button", "pop-up"):
        editor.get_by_label("How it stands").select_option(stance)
        expect(
            desktop.locator(f"[data-stance={stance}], [data-intavo-touchpoint=stage]").first
        ).to_be_attached()
        expect(desktop.get_by_role("textbox", name="Words of p1")).to_have_text("Kept words")
    editor.get_by_label("What it is for").select_option("notice")
    expect(editor.get_by_role("button", name=re.compile("Email field.*hidden"))).to_be_visible()
    expect(desktop.get_by_text("Kept words")).to_be_visible()


def test_a_bad_contrast_is_mended_with_one_click(owner: Page, stack: Stack) -> None:
    editor = start(owner, stack, "News by email", "Shades")
    side(editor, "Look")
    editor.get_by_text("Colours", exact=True).click()
    editor.get_by_label("Button", exact=True).fill("#e8a070")
    line = editor.get_by_label("Legibility")
    expect(line).to_contain_text(re.compile(r"covers \d+ % of the screen"))
    expect(line.get_by_role("button", name=re.compile(r"^Button \d"))).to_be_visible()
    line.get_by_role("button", name=re.compile("^use #")).first.click()
    expect(line.get_by_role("button", name=re.compile(r"^Button \d"))).to_have_count(0)


def test_two_wordings_are_seen_on_the_stage(owner: Page, stack: Stack) -> None:
    editor = start(owner, stack, "News by email", "Wordings")
    editor.get_by_role("button", name=re.compile("^Headline")).click()
    editor.get_by_label("another wording where we know their name").check()
    editor.get_by_label("as somebody whose name we know").check()
    expect(stage(editor, "Desktop").get_by_text("Ife, news worth opening")).to_be_visible()
    editor.get_by_label("as somebody whose name we know").uncheck()
    expect(stage(editor, "Desktop").get_by_role("textbox", name="Words of p1")).to_have_text(
        "News worth opening, once a month"
    )


def test_looking_back_and_returning(owner: Page, stack: Stack) -> None:
    editor = start(owner, stack, "News by email", "Versions")
    words = stage(editor, "Desktop").get_by_role("textbox", name="Words of p1")
    words.fill("Second words")
    saved(editor)
    editor.get_by_role("button", name="Look back").click()
    editor.get_by_role("button", name=re.compile("From the starter")).click()
    then = editor.frame_locator('iframe[title="Desktop then"]')
    expect(then.get_by_text("News worth opening")).to_be_visible()
    expect(editor.get_by_text("becomes “Second words”")).to_be_visible()
    editor.get_by_label("Name of this version").fill("As it began")
    editor.get_by_label("Name of this version").press("Tab")
    expect(editor.get_by_role("button", name=re.compile("^As it began"))).to_be_visible()
    editor.get_by_role("button", name="Go back to this one").click()
    expect(words).to_have_text("News worth opening, once a month")
    editor.get_by_role("button", name="Undo").click()
    expect(words).to_have_text("Second words")


def test_what_will_change_is_listed_before_it_is_live(owner: Page, stack: Stack) -> None:
    owner.goto(f"{stack.base_url}/touchpoints")
    owner.get_by_role("link", name="Winter hire").click()
    owner.get_by_role("button", name="Put live · 1 change").click()
    dialog = owner.get_by_role("dialog")
    expect(dialog).to_contain_text("“The boat is yours all winter” becomes “A boat of your own, all winter”")
    dialog.get_by_role("button", name="Not yet").click()
    expect(owner.get_by_text("changed since it went live").first).to_be_visible()


def test_a_picture_is_uploaded_placed_and_described(owner: Page, stack: Stack, tmp_path: Path) -> None:
    Image.new("RGB", (900, 600), "#4477aa").save(tmp_path / "boat.png")
    (tmp_path / "bad.svg").write_text("<svg xmlns='http://www.w3.org/2000/svg'/>")
    editor = start(owner, stack, "Start empty", "Pictures")
    editor.get_by_role("button", name="+ Add a part").click()
    editor.get_by_role("menuitem", name="Picture").click()
    editor.get_by_role("button", name="Choose a picture").click()
    editor.locator("input[type=file]").set_input_files(tmp_path / "bad.svg")
    expect(editor.get_by_role("alert")).to_contain_text("An SVG can carry programs")
    editor.locator("input[type=file]").set_input_files(tmp_path / "boat.png")
    image = stage(editor, "Desktop").locator(".art img")
    expect(image).to_be_visible()
    saved(editor)
    expect(editor.get_by_role("button", name=re.compile("A picture has no description"))).to_be_visible()
    editor.get_by_label("What is on it, for those who do not see it").fill("A blue boat")
    editor.get_by_label("Where it stands").select_option("beside")
    expect(stage(editor, "Desktop").locator(".beside-it")).to_have_count(1)
    focus = editor.get_by_role("button", name=re.compile("^Focus at"))
    focus.focus()
    editor.keyboard.press("ArrowLeft")
    expect(editor.get_by_role("button", name=re.compile("^Focus at 45 %"))).to_be_visible()
    saved(editor)


def test_codes_tags_and_confirmation_are_set_where_they_belong(owner: Page, stack: Stack) -> None:
    editor = start(owner, stack, "News with a code", "Codes")
    side(editor, "After")
    editor.get_by_label("Code", exact=True).select_option("each")
    expect(editor.get_by_role("button", name=re.compile("There are no codes left"))).to_be_visible()
    editor.get_by_label("More codes, one a line, or from a CSV file").fill("A1\nA2\nA1")
    editor.get_by_role("button", name="Add these").click()
    expect(editor.get_by_text("2 of 2 codes are left.")).to_be_visible()
    editor.get_by_label("They get these tags").fill("spring, boats, spring")
    editor.get_by_label("They confirm by mail first").check()
    expect(editor.get_by_label("Subject of that mail")).to_have_value("Please confirm your address")
    side(editor, "Content")
    expect(editor.get_by_role("button", name="Look in your mail", exact=True)).to_be_visible()
    side(editor, "After")
    editor.get_by_label("Subject of that mail").fill("Is it you?")
    page_to_go = editor.get_by_label("They go to a page instead of the thanks step")
    page_to_go.fill("javascript:x")
    page_to_go.press("Tab")
    expect(editor.get_by_text("and never with “javascript:”").first).to_be_visible()
    page_to_go.fill("thank-you")
    page_to_go.press("Tab")
    expect(editor.get_by_text("a page of your site: /thank-you")).to_be_visible()
    saved(editor)
    editor.get_by_role("button", name="Make one", exact=True).click()
    expect(editor.get_by_label("Secret address")).to_contain_text("/csv/")
    editor.reload()
    side(editor, "After")
    expect(editor.get_by_label("They get these tags")).to_have_value("spring, boats")


@pytest.mark.parametrize("broken", [False, True])
def test_a_file_goes_out_and_comes_back(owner: Page, stack: Stack, tmp_path: Path, broken: bool) -> None:
    start(owner, stack, "Pass it on", "To a file")
    owner.get_by_role("button", name="More", exact=True).click()
    with owner.expect_download() as download:
        owner.get_by_role("menuitem", name="Save it as a file").click()
    path = tmp_path / download.value.suggested_filename
    assert re.fullmatch(r"to-a-file(-\d+)?\.touchpoint\.json", path.name)
    download.value.save_as(path)
    if broken:
        data = json.loads(path.read_text())
        data["steps"][0]["parts"][1]["words"] = 7
        path.write_text(json.dumps(data))
    owner.goto(f"{stack.base_url}/touchpoints?new")
    owner.locator('input[type=file][accept=".json"]').set_input_files(path)
    if broken:
        expect(owner.get_by_role("alert")).to_contain_text("steps.0.parts.1.words: Please write words here.")
    else:
        owner.wait_for_url(re.compile(r"/touchpoints/\d+$"))
        expect(stage(owner, "Desktop").get_by_text("Somebody should read this")).to_be_visible()
