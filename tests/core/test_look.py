"""What a look comes to: stance, house style, own values, phone; own CSS; what the loader can draw."""

import json
from typing import Any

import pytest
from pydantic import ValidationError

from intavo.core.touchpoint import (
    STARTERS,
    Document,
    HouseStyle,
    Known,
    Look,
    departures,
    for_visitors,
    needs_more,
    readings,
    ready_check,
    resolved,
)
from intavo.core.touchpoint.css import check_selector, checked_css

HOUSE = HouseStyle.model_validate(
    {
        "font": {"source": "site", "name": "Georgia"},
        "corners": 3,
        "colours": {"button": "#a83a1f", "card": "#fffaf0"},
    }
)


def look(**values: Any) -> Look:
    """A look with these values."""
    return Look.model_validate(values)


def test_what_is_left_open_follows_the_house_and_own_values_depart() -> None:
    own = look(corners=20, colours={"button": "#003344"})
    found = resolved(own, "pop-up", HOUSE)
    assert (found.font.name, found.corners, found.colours.card, found.colours.button) == (
        "Georgia",
        20,
        "#fffaf0",
        "#003344",
    )
    assert departures(own, HOUSE) == ["corners", "colours.button"]
    assert departures(look(corners=3), HOUSE) == []


def test_a_headline_follows_the_text_where_the_text_departs() -> None:
    house = HouseStyle.model_validate(
        {"colours": {"headline": "#3b2a1a", "text": "#3b2a1a", "button_hover": "#7a2a1a"}}
    )
    dark = Look.model_validate({"colours": {"card": "#101010", "text": "#ffffff", "button": "#ffd166"}})
    colours = resolved(dark, "bar", house).colours
    assert (colours.headline, colours.cross, colours.button_hover) == ("#ffffff", "#ffffff", "#ffd166")
    phone = Look.model_validate({"phone": {"colours": {"text": "#eeeeee"}}})
    assert resolved(phone, "bar", house).phone.colours.headline == "#eeeeee"
    assert resolved(phone, "bar", house).colours.headline == "#3b2a1a"


def test_a_look_that_does_not_follow_has_nothing_of_the_house() -> None:
    found = resolved(look(house=False), "pop-up", HOUSE)
    assert (found.font.source, found.colours.card) == ("system", "#ffffff")


def test_a_phone_differs_only_where_it_is_said_or_where_the_stance_wants_it() -> None:
    found = resolved(look(width=700, phone={"width": 300, "colours": {"card": "#eeeeee"}}), "card")
    assert (found.width, found.phone.width) == (700, 300)
    assert (found.colours.card, found.phone.colours.card) == ("#ffffff", "#eeeeee")
    assert (found.place, found.phone.place) == ("bottom-right", "bottom")
    assert found.phone.shadow == found.shadow


@pytest.mark.parametrize(
    ("stance", "wanted", "place", "phone"),
    [("bar", "bottom", "bottom", "bottom"), ("bar", "middle", "top", "top"), ("side-panel", "left", "left", "left"),
     ("button", "top-left", "top-left", "top-left"), ("pop-up", "top-left", "top-left", "bottom")],
)  # fmt: skip
def test_a_place_is_taken_where_the_stance_can_stand_there(
    stance: Any, wanted: str, place: str, phone: str
) -> None:
    found = resolved(look(place=wanted), stance)
    assert (found.place, found.phone.place) == (place, phone)


@pytest.mark.parametrize(
    ("css", "said"),
    [("@import 'x';", "@import cannot be used"), (".a{background:url(https://x.example/a.png)}", "url reaches outside"),
     (".a[{color:red}", "line 1"), (".a >> b{color:red}", "cannot be read"), ("\n\n.a{color}", "line 3"), ("@font-face{src:x}", "@font-face")],
)  # fmt: skip
def test_css_that_reaches_outside_or_cannot_be_read_is_refused_with_its_line(css: str, said: str) -> None:
    with pytest.raises(ValueError, match=said):
        checked_css(css)


def test_good_css_stays_as_it_is() -> None:
    css = ":host .card{letter-spacing:.01em}\n@media (max-width:600px){h2{font-size:20px}}"
    assert look(css=css).css == css
    with pytest.raises(ValueError, match="selector is missing"):
        check_selector(" ")


def test_the_loader_draws_a_plain_pop_up_and_card_by_itself() -> None:
    data = next(one.document for one in STARTERS if one.key == "news").model_dump(mode="json")
    data["steps"][0]["parts"] = [part for part in data["steps"][0]["parts"] if part["kind"] != "picture"]
    plain = Document.model_validate(data)
    assert not needs_more(plain)
    for change in ({"stance": "side-panel"}, {"look": {"font": {"source": "shipped", "name": "Nunito"}}}):
        assert needs_more(Document.model_validate(data | change))
    assert not needs_more(Document.model_validate(data | {"stance": "card"}))
    assert needs_more(Document.model_validate(data | {"stance": "bar"}))
    assert needs_more(plain, HOUSE)


def test_texts_are_judged_on_the_pixels_of_the_picture_behind_them() -> None:
    welcome = next(one.document for one in STARTERS if one.key == "welcome")
    dark, light = [[(10, 20, 30)] * 4] * 4, [[(240, 240, 240)] * 4] * 4

    def worst(pixels: Any, wash: int) -> float:
        data = json.loads(welcome.model_dump_json())
        data["steps"][0]["parts"][0]["wash"] = wash
        found = readings(Document.model_validate(data), {"shipped-hills": pixels})
        assert {one.what for one in found} >= {"Headline on picture", "Text on picture"}
        return min(one.ratio for one in found if "picture" in one.what)

    assert worst(dark, 0) > 4.5
    assert worst(light, 0) < 2
    assert worst(light, 95) > 4.5


def test_on_a_video_only_what_can_be_read_on_every_picture_of_it_passes() -> None:
    data = next(one.document for one in STARTERS if one.key == "terms").model_dump(mode="json")
    data["look"]["background"] = {
        "kind": "video",
        "asset": "as_0123456789",
        "wash": 0,
        "wash_colour": "#ffffff",
    }
    bare = [one for one in readings(Document.model_validate(data), {}) if one.what == "Text on video"]
    data["look"]["background"]["wash"] = 90
    washed = [one for one in readings(Document.model_validate(data), {}) if one.what == "Text on video"]
    assert (bare[0].passes, washed[0].passes) == (False, True)


def test_buttons_follow_the_text_until_they_have_a_font_and_a_size_of_their_own() -> None:
    follows = resolved(
        look(font={"source": "shipped", "name": "Nunito"}, size=18, phone={"size": 15}), "pop-up"
    )
    assert (follows.button_font.name, follows.button_size, follows.phone.button_size) == ("Nunito", 18, 15)
    own = resolved(look(size=18, button_size=22, button_font={"source": "system", "name": "mono"}), "pop-up")
    assert (own.button_font.name, own.button_size, own.font.name, own.size) == ("mono", 22, "sans", 18)


def test_a_button_stands_as_far_from_the_foot_as_from_the_side_until_it_is_told_otherwise() -> None:
    follows = resolved(look(edge=40), "button")
    assert (follows.edge_y, follows.phone.edge_y) == (40, follows.phone.edge)
    own = resolved(look(edge=40, edge_y=0, phone={"edge_y": 90}), "button")
    assert (own.edge, own.edge_y, own.phone.edge_y) == (40, 0, 90)


def test_on_a_see_through_card_only_what_can_be_read_on_every_page_passes() -> None:
    data = next(one.document for one in STARTERS if one.key == "terms").model_dump(mode="json")

    def text(clear: int, strength: int) -> Any:
        data["look"] |= {"card_clear": clear, "backdrop": {"strength": strength, "asset": None}}
        return next(
            one for one in readings(Document.model_validate(data), {}) if one.what.startswith("Text on")
        )

    assert (text(0, 0).what, text(0, 0).passes) == ("Text on card", True)
    assert (text(60, 0).what, text(60, 0).passes) == ("Text on see-through card", False)
    assert text(5, 0).passes
    # What covers the page behind makes it surer what shines through.
    assert text(30, 95).ratio > text(30, 0).ratio


def test_the_words_of_a_see_through_button_are_held_against_the_button_as_it_stands_there() -> None:
    data = next(one.document for one in STARTERS if one.key == "news").model_dump(mode="json")
    data["look"] |= {
        "button_clear": 80,
        "colours": {"card": "#ffffff", "button": "#0e4f57", "button_text": "#ffffff"},
    }
    found = next(
        one for one in readings(Document.model_validate(data), {}) if one.what == "See-through button"
    )
    assert (found.role, found.passes) == ("button_text", False)
    assert found.better is not None
    data["look"]["colours"]["button_text"] = found.better
    mended = readings(Document.model_validate(data), {})
    assert next(one for one in mended if one.what == "See-through button").passes
    assert needs_more(Document.model_validate(data))


def test_visitors_get_the_look_resolved_and_the_addresses_of_clicks() -> None:
    call = next(one.document for one in STARTERS if one.key == "call")
    seen = for_visitors(call, HOUSE, "GB")
    assert seen["look"]["colours"]["button"] == "#a83a1f"
    assert seen["look"]["phone"]["place"] == "bottom-right"
    assert seen["face"]["does"]["href"] == "tel:+441632960000"


def test_a_logo_is_the_one_of_the_house_style_and_nothing_stands_where_there_is_none() -> None:
    logo = {"id": "logo", "kind": "picture", "asset": "house-logo", "description": "Our logo"}
    data = next(one.document for one in STARTERS if one.key == "terms").model_dump(mode="json")
    data["steps"][0]["parts"].insert(0, logo)
    document = Document.model_validate(data)
    seen = for_visitors(document, HOUSE.model_copy(update={"logo": "as_0123456789"}))
    assert seen["steps"][0]["parts"][0]["asset"] == "as_0123456789"
    without = for_visitors(document, HOUSE)
    assert "logo" not in [part["id"] for part in without["steps"][0]["parts"]]
    assert "house-logo" not in document.assets()
    said = [one.message for one in ready_check(document, Known(has_logo=False)) if one.place == "logo"]
    assert said == ["The logo is asked for, but the site's house style has none."]
    assert not [one for one in ready_check(document, Known()) if one.place == "logo"]


@pytest.mark.parametrize("address", ["javascript:alert(1)", "data:text/html,x", " JAVASCRIPT:x"])
def test_a_click_never_runs_a_script(address: str) -> None:
    data = next(one.data for one in STARTERS if one.key == "call")
    with pytest.raises(ValidationError, match="begins with https"):
        Document.model_validate(
            {
                **data,
                "steps": [{"id": "ask", "parts": []}],
                "face": {"label": "x", "does": {"action": "page", "address": address}},
            }
        )
