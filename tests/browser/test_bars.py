"""Bars on pages that are not ours, and a page that is held: what they move aside, and what they cover."""

import re
from typing import Any

import pytest
from playwright.sync_api import BrowserContext, expect

from scripts.stack import Stack

from .pages.site import on_a_page, planned, until_still

_NAV = "<div id=theirs style='{}background:#246;height:64px;z-index:9'>Menu</div>"
_LONG = "<div style='height:3000px'></div>"


@pytest.mark.parametrize(
    ("nav", "css"),
    [
        ("position:fixed;top:0;left:0;right:0;", ""),
        ("position:fixed;top:18px;left:20px;width:300px;", ""),
        ("position:sticky;top:0;", ""),
        ("position:absolute;top:0;left:0;right:0;", ""),
        (
            "position:fixed;top:0;left:0;right:0;transition:all .3s;",
            "html{height:100%} body{min-height:100%;padding-top:64px}",
        ),
        ("", "body{position:absolute;top:0;left:0;right:0}"),
        ("", "body{float:left;width:100%}"),
        ("", "html{display:grid} body{display:flex;flex-direction:column}"),
    ],
)
def test_a_bar_at_the_top_covers_nothing_of_the_page(
    stranger: BrowserContext, stack: Stack, nav: str, css: str
) -> None:
    page = on_a_page(stranger, stack, css=css, body=_NAV.format(nav) + _LONG)
    before = page.locator("#theirs").bounding_box()
    page.evaluate("intavo.open('group-booking')")
    bar = page.locator("[data-intavo-touchpoint=bar] .card")
    expect(bar).to_be_visible()

    def clear() -> bool:
        one, other = bar.bounding_box(), page.locator("#theirs").bounding_box()
        assert one is not None
        assert other is not None
        return other["y"] >= one["y"] + one["height"] - 1 or other["y"] + other["height"] <= 0

    until_still(page)
    assert clear()
    page.mouse.wheel(0, 900)
    page.wait_for_function("scrollY > 0")
    until_still(page)
    assert clear()
    page.mouse.wheel(0, -900)
    page.wait_for_function("scrollY === 0")
    bar.get_by_role("button", name="Close").click()
    expect(bar).to_have_count(0)
    until_still(page)
    assert page.locator("#theirs").bounding_box() == before


def test_a_bar_at_the_foot_stands_under_what_small_of_the_page_stays_there(
    stranger: BrowserContext, stack: Stack
) -> None:
    def at_the_foot(plan: dict[str, Any]) -> None:
        for entry in plan["touchpoints"]:
            entry["document"]["look"]["place"] = "bottom"

    planned(stranger, at_the_foot)
    css = "#theirs{position:fixed;right:16px;bottom:8px;width:40px;height:40px;background:#246}"
    page = on_a_page(stranger, stack, css=css, body=f"<a id=theirs></a>{_LONG}")
    before = page.locator("#theirs").bounding_box()
    page.evaluate("intavo.open('group-booking')")
    bar = page.locator("[data-intavo-touchpoint=bar] .card")
    expect(bar).to_be_visible()
    until_still(page)
    one, other = bar.bounding_box(), page.locator("#theirs").bounding_box()
    assert one is not None
    assert other is not None
    assert other["y"] + other["height"] <= one["y"]
    bar.get_by_role("button", name="Close").click()
    expect(bar).to_have_count(0)
    assert page.locator("#theirs").bounding_box() == before


def test_where_the_page_cannot_be_moved_aside_the_bar_lies_over_it_and_says_so(
    stranger: BrowserContext, stack: Stack
) -> None:
    css = "html,body{height:100%;margin:0;overflow:hidden} #app{height:100vh;overflow:auto}"
    page = on_a_page(stranger, stack, css=css, body=f"<div id=app>{_NAV.format('')}{_LONG}</div>")
    with page.expect_response(re.compile("/beats$")) as told:
        page.evaluate("intavo.open('group-booking')")
    assert "over" in [one["what"] for one in told.value.request.post_data_json]
    assert page.evaluate("document.documentElement.style.paddingTop") == ""
    box = page.locator("[data-intavo-touchpoint=bar] .card").bounding_box()
    assert box is not None
    assert box["y"] >= 0


def test_holding_the_page_moves_nothing_aside(stranger: BrowserContext, stack: Stack) -> None:
    page = on_a_page(
        stranger,
        stack,
        css="html{overflow-y:scroll} body{overflow-x:hidden}",
        body=f"<div id=theirs style='position:sticky;top:0;height:40px'>Menu</div>{_LONG}",
    )
    page.evaluate("scrollTo(0, 600)")
    before = page.locator("#theirs").bounding_box()
    page.evaluate("intavo.open('boathouse-question')")
    expect(page.get_by_role("dialog")).to_be_visible()
    assert page.locator("#theirs").bounding_box() == before
    page.keyboard.press("Escape")
    expect(page.get_by_role("dialog")).to_have_count(0)
    assert page.evaluate("document.documentElement.style.cssText + document.body.style.cssText") == ""


@pytest.mark.parametrize("place", ["top", "bottom"])
def test_scrolling_with_a_bar_asks_the_page_little(
    stranger: BrowserContext, stack: Stack, place: str
) -> None:
    def at(plan: dict[str, Any]) -> None:
        for entry in plan["touchpoints"]:
            entry["document"]["look"]["place"] = place

    planned(stranger, at)
    page = on_a_page(stranger, stack, body=_NAV.format("position:sticky;top:0;") + _LONG)
    page.evaluate("intavo.open('group-booking')")
    expect(page.locator("[data-intavo-touchpoint=bar] .card")).to_be_visible()
    until_still(page)
    at_once, after = page.evaluate("""async () => {
      let asked = 0
      const { elementsFromPoint } = Document.prototype
      Document.prototype.elementsFromPoint = function (...at) { asked += 1; return elementsFromPoint.apply(this, at) }
      const turn = () => dispatchEvent(new Event('scroll'))
      turn()
      const once = asked
      for (let more = 0; more < 40; more += 1) turn()
      const many = asked
      while (asked === many) await new Promise((done) => setTimeout(done, 20))
      return [once, many]
    }""")
    assert at_once > 0
    assert after == at_once
