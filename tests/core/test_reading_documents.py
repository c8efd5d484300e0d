"""What is read out of a document: legibility of each part, readiness, what the loader can draw, where clicks go."""

import json
import re
from typing import Any

import pytest
from pydantic import ValidationError

from intavo.core.legibility import Reading
from intavo.core.touchpoint import (
    STARTERS,
    Document,
    HouseStyle,
    Known,
    filled,
    for_visitors,
    href,
    needs_more,
    readings,
    ready_check,
    sanitised,
)
from intavo.core.touchpoint.parts import Does
from intavo.core.touchpoint.patterns import PagePattern

PLAIN: dict[str, Any] = json.loads(
    next(one.document for one in STARTERS if one.key == "news").model_dump_json()
)
PLAIN["steps"][0]["parts"] = [part for part in PLAIN["steps"][0]["parts"] if part["kind"] != "picture"]
PLAIN["steps"][0]["parts"][0]["text"] = "Safe paddling hours, once a month"
PLAIN["steps"][0]["parts"][1]["html"] = "<p>For the estuary and the coast.</p>"


def document(*parts: dict[str, Any], **more: Any) -> Document:
    """The plain sign-up with parts put before its own."""
    data = json.loads(json.dumps(PLAIN)) | more
    fresh = [{"id": f"n{number}", **part} for number, part in enumerate(parts)]
    data["steps"][0]["parts"] = fresh + data["steps"][0]["parts"]
    return Document.model_validate(data)


def button(**does: Any) -> dict[str, Any]:
    """A button that does something."""
    return {"kind": "button", "label": "Go", "does": does}


@pytest.mark.parametrize(
    ("part", "level", "said"),
    [
        ({"kind": "field", "input": "text", "name": "x"}, "stops", "A field has no label."),
        (
            {"kind": "field", "input": "choice", "name": "x", "label": "Which?"},
            "stops",
            "A field offers nothing to choose.",
        ),
        ({"kind": "consent", "name": "x"}, "stops", "The consent tick has no wording."),
        ({"kind": "button", "does": {"action": "close"}}, "stops", "A button has no words."),
        (
            {"kind": "question", "name": "x", "text": "Which?", "options": [{"value": "a"}]},
            "stops",
            "fewer than two choices",
        ),
        ({"kind": "headline"}, "look", "The headline is empty."),
        ({"kind": "picture"}, "look", "No picture is chosen."),
        ({"kind": "video", "asset": "as_00000000"}, "look", "A video has no description"),
        (button(action="page"), "look", "its address is empty"),
        (button(action="page", address="https://"), "look", "its address is empty"),
        (button(action="file"), "look", "none is chosen"),
        (button(action="touchpoint", touchpoint="gone"), "look", "opens “gone”, which is not there"),
    ],
)
def test_a_part_that_cannot_work_is_found_at_its_place(part: dict, level: str, said: str) -> None:
    found = [one for one in ready_check(document(part)) if one.place == "n0"]
    assert [(one.level, said in one.message) for one in found] == [(level, True)]
    assert not [
        one
        for one in ready_check(document({**part, "hidden": True}))
        if said in one.message and one.level == "stops"
    ]


@pytest.mark.parametrize(
    ("after", "known", "place", "level"),
    [
        ({"thank_you": {"send": True}}, Known(), "thank_you", "stops"),
        ({"confirm": {"on": True}}, Known(), "confirm", "stops"),
        ({"confirm": {"on": True, "subject": "S"}}, Known(mail_sender=False), "business", "stops"),
        ({"code": {"kind": "shared"}}, Known(), "code", "stops"),
        ({"code": {"kind": "each"}}, Known(), "code", "stops"),
        ({"code": {"kind": "each"}}, Known(codes_left=1, codes_all=10), "code", "look"),
        ({"thank_you": {"send": True, "subject": "S", "text": [{"slot": "file"}]}}, Known(), "file", "look"),
    ],
)
def test_what_comes_after_is_checked_too(after: dict, known: Known, place: str, level: str) -> None:
    found = [one for one in ready_check(document(after=after), known) if one.place != "thanks"]
    assert [(one.place, one.level) for one in found] == [(place, level)]


KNOWN = Known(hosts=frozenset({"otterwick.example"}), paths=frozenset({"/", "/hire", "/trips"}))


@pytest.mark.parametrize(
    ("part", "said"),
    [
        (button(action="page", address="/hyre"), "none of the pages"),
        (button(action="page", address="https://www.otterwick.example/hyre?x=1"), "none of the pages"),
        (button(action="page", address="our prices"), "is no address"),
        (button(action="phone", address="12"), "is no phone number"),
        (button(action="mail", address="nobody@"), "is no mail address"),
        ({"kind": "text", "html": '<p><a href="/hyre">Here</a></p>'}, "none of the pages"),
        (button(action="page", address="/hire/"), ""),
        (button(action="page", address="hire"), ""),
        (button(action="page", address="example.org/x"), ""),
        (button(action="phone", address="07700 900123"), ""),
        ({"kind": "text", "html": '<p><a href="https://example.org">Here</a></p>'}, ""),
    ],
)
def test_a_click_that_leads_nowhere_known_is_found(part: dict, said: str) -> None:
    found = [one.message for one in ready_check(document(part), KNOWN) if one.place == "n0"]
    assert [said in one for one in found] == ([True] if said else [])


def test_a_click_that_leads_where_the_starters_did_is_found() -> None:
    starter = next(one for one in STARTERS if one.key == "price").document
    assert [one.place for one in ready_check(starter) if "where the starter's did" in one.message]
    left = document({**button(action="page", address="/"), "label": "See the days"})
    assert [one.place for one in ready_check(left) if "where the starter's did" in one.message] == ["n0"]


def test_a_button_that_sends_and_leads_nowhere_stops_it() -> None:
    sending = {"kind": "button", "id": "s", "label": "Send", "does": {"action": "send"}}
    asked = {"kind": "field", "id": "e", "input": "email", "name": "email", "label": "Email"}
    data = {"purpose": "sign-up", "steps": [{"id": "ask", "parts": [asked, sending]}]}
    stops = [one.place for one in ready_check(Document.model_validate(data)) if one.level == "stops"]
    assert stops == ["s"]
    elsewhere = Document.model_validate(data | {"after": {"page": "thank-you"}})
    assert not [one for one in ready_check(elsewhere) if one.level == "stops"]
    assert for_visitors(elsewhere)["then"]["page"] == "/thank-you"


def test_links_lead_where_their_address_was_meant_to() -> None:
    html = '<a href="www.example.org/suits">a</a><a href="hire">b</a><a href="java&#9;script:x">c</a>'
    assert re.findall(r'href="([^"]*)"', sanitised(html)) == ["https://www.example.org/suits", "/hire"]
    seen = for_visitors(document(button(action="page", address="hire")), home="https://otterwick.example")
    assert seen["steps"][0]["parts"][0]["does"]["href"] == "https://otterwick.example/hire"


@pytest.mark.parametrize(
    ("confirm", "words", "said"),
    [
        (True, "Here it is", "nothing tells them to look"),
        (True, "Look in your mail", ""),
        (False, "Please confirm it", "they are not asked to"),
        (False, "Thank you", ""),
    ],
)
def test_a_thanks_step_that_is_not_true_is_found(confirm: bool, words: str, said: str) -> None:
    data = json.loads(json.dumps(PLAIN))
    data["steps"][1]["parts"][0]["text"] = words
    data["after"]["confirm"] = {"on": confirm, "subject": "S"}
    found = [one.message for one in ready_check(Document.model_validate(data)) if one.place == "thanks"]
    assert [said in one for one in found] == ([True] if said else [])


def test_enough_codes_are_no_finding_and_what_cannot_be_read_is_one() -> None:
    assert ready_check(document(after={"code": {"kind": "each"}}), Known(codes_left=2, codes_all=10)) == []
    bad = Reading("p6", "Button", "button", "#aaaaaa", 2.3, 4.5, "#666666")
    assert [one.message for one in ready_check(document(), Known(readings=[bad]))] == [
        "Button is hard to read: 2.3 : 1."
    ]


@pytest.mark.parametrize(
    ("group", "known", "said"),
    [("", None, []), ("", {"Hire", ""}, []), ("Hire", {"Hire"}, []),
     ("", set(), ["It shows questions & answers, but there are none yet: visitors see nothing."]),
     ("Trips", {"Hire"}, ["There are no questions & answers of the group “Trips”."])],
)  # fmt: skip
def test_questions_and_answers_that_are_not_there_are_found(
    group: str, known: set[str] | None, said: list[str]
) -> None:
    data = json.loads(json.dumps(PLAIN))
    data["steps"][0]["parts"].append({"id": "qa", "kind": "questions", "group": group})
    around = Known(questions=None if known is None else frozenset(known))
    found = [one.message for one in ready_check(Document.model_validate(data), around) if one.place == "qa"]
    assert found == said


def test_words_that_are_still_the_starters_are_pointed_out() -> None:
    for key, place in (("news", "p1"), ("question", "p1"), ("empty", "p1")):
        starter = next(one.document for one in STARTERS if one.key == key)
        [found] = [one for one in ready_check(starter) if "the starter's words" in one.message]
        assert (found.level, found.place) == ("look", place)
    assert not [one for one in ready_check(document()) if "starter's" in one.message]
    hidden = document({"kind": "headline", "text": "News worth opening, once a month", "hidden": True})
    assert not [one for one in ready_check(hidden) if "starter's" in one.message]


def test_a_starters_number_stops_it() -> None:
    starter = next(one.document for one in STARTERS if one.key == "call")
    stops = [one for one in ready_check(starter) if "the starter's number" in one.message]
    assert [(one.level, one.place) for one in stops] == [("stops", "face")]
    data = starter.model_dump(mode="json")
    data["face"]["does"]["address"] = "+44 1632 960417"
    assert not [one for one in ready_check(Document.model_validate(data)) if "number" in one.message]


@pytest.mark.parametrize(
    ("purpose", "follow_up", "stops"),
    [("notice", False, True), ("offer", False, True), ("notice", True, False), ("sign-up", False, False)],
)
def test_an_address_that_nobody_would_hear_of_stops_it(purpose: str, follow_up: bool, stops: bool) -> None:
    data = json.loads(json.dumps(PLAIN)) | {"purpose": purpose}
    data["after"] = data.get("after", {}) | {"follow_up": follow_up}
    found = [one for one in ready_check(Document.model_validate(data)) if "nobody would hear" in one.message]
    assert [one.level for one in found] == (["stops"] if stops else [])


def test_what_waits_and_with_whom_it_takes_turns_is_said() -> None:
    shares = [("Group booking", 3), ("Winter hire", 1)]
    found = ready_check(document(), Known(waits="changed", shares=shares, said_closed=False))
    assert [(one.level, one.message, one.place) for one in found] == [
        ("look", "It was changed since it went live.", "switch"),
        (
            "fine",
            "It shares up to 3 pages with “Group booking” and “Winter hire”: they take turns, in your order.",
            "others",
        ),
    ]
    asking = ready_check(document(after={"follow_up": True}), Known(said_closed=False))
    assert [(one.message, one.place) for one in asking] == [
        ("Nothing is said to those who send it while you are closed.", "hours")
    ]


def test_a_picture_that_is_missing_or_boxed_is_pointed_out() -> None:
    one = document({"kind": "picture", "asset": "as_12345678", "description": "A boat"})
    messages = [
        [found.message for found in ready_check(one, known)]
        for known in (
            Known(missing=frozenset({"as_12345678"})),
            Known(boxed=frozenset({"as_12345678"})),
            Known(),
        )
    ]
    assert messages == [
        ["A picture is not in your library."],
        ["A picture is boxed in a background of its own."],
        [],
    ]


@pytest.mark.parametrize(
    ("change", "more"),
    [
        ({}, False),
        ({"stance": "card"}, False),
        ({"stance": "button", "face": {"label": "x"}}, True),
        ({"leaving": {"after": 20}}, True),
        ({"guard": {"work": True}}, True),
        ({"look": {"arrival": "grow"}}, True),
        ({"look": {"phone": {"cross": {"style": "word"}}}}, True),
        ({"look": {"background": {"kind": "picture", "asset": "as_12345678"}}}, True),
        ({"look": {"backdrop": {"strength": 10}}}, False),
    ],
)
def test_what_the_loader_cannot_draw_needs_the_second_file(change: dict, more: bool) -> None:
    assert needs_more(document(**change)) is more


@pytest.mark.parametrize(
    ("part", "more"),
    [
        ({"kind": "line"}, True),
        ({"kind": "field", "input": "date", "name": "x", "label": "X"}, False),
        ({"kind": "field", "input": "several", "name": "x", "label": "X"}, True),
        ({"kind": "headline", "text": "X", "row": "r1"}, True),
        ({"kind": "headline", "text": "X", "align": "middle"}, True),
        (button(action="back"), True),
        (button(action="page", address="/"), False),
    ],
)
def test_a_part_may_need_the_second_file_unless_it_is_hidden(part: dict, more: bool) -> None:
    assert needs_more(document(part)) is more
    assert not needs_more(document({**part, "hidden": True}))


def roles(one: Document, **more: Any) -> dict[str, float]:
    """Ratios by what is read, on a desktop."""
    return {found.what: found.ratio for found in readings(one, {}, **more)}


def test_each_kind_of_text_is_judged_on_what_is_behind_it() -> None:
    found = roles(
        document(
            look={"colours": {"card": "#ffffff", "text": "#777777", "button": "#000000", "field": "#777777"}}
        )
    )
    assert found["Text on card"] == pytest.approx(4.47, abs=0.02)
    assert found["Button"] == 21
    assert found["Words in the field"] < 4.5
    assert {"Consent on card", "Label on card", "Close sign on card", "Edge of the field"} <= set(found)


def test_a_gradient_is_as_good_as_its_worst_end() -> None:
    gradient = {"kind": "gradient", "start": "#ffffff", "end": "#1a2326"}
    found = roles(document(look={"background": gradient, "colours": {"text": "#1a2326"}}))
    assert found["Text on gradient"] < 2


def test_a_colour_of_its_own_and_the_phones_colours_count() -> None:
    one = document(
        {"kind": "text", "html": "<p>x</p>", "colour": "#eeeeee"},
        look={"phone": {"colours": {"card": "#000000"}}},
    )
    on_desktop = next(found for found in readings(one, {}) if found.part == "n0")
    on_phone = next(found for found in readings(one, {}, phone=True) if found.part == "n0")
    assert (on_desktop.role, on_desktop.passes, on_phone.passes) == ("part", False, True)
    assert on_desktop.better is not None


def test_the_house_style_is_what_a_text_stands_on() -> None:
    house = HouseStyle.model_validate({"colours": {"card": "#1a2326"}})
    assert not all(one.passes for one in readings(document(), {}, house))
    assert all(one.passes for one in readings(document(), {}))


def test_in_the_page_and_buttons_have_no_close_sign_to_judge() -> None:
    for stance in ("in-page", "button"):
        assert not [what for what in roles(document(stance=stance, face={"label": "x"})) if "Close" in what]


@pytest.mark.parametrize(
    ("does", "goes"),
    [
        ({"action": "page", "address": "/trips"}, "/trips"),
        ({"action": "mail", "address": "hello@otterwick.example"}, "mailto:hello@otterwick.example"),
        ({"action": "phone", "address": "01632 960417"}, "tel:+441632960417"),
        ({"action": "phone", "address": "nobody"}, ""),
        ({"action": "file", "asset": "as_12345678"}, "/m/as_12345678/file"),
        ({"action": "close", "address": "/x"}, ""),
    ],
)
def test_a_click_goes_where_it_says(does: dict, goes: str) -> None:
    assert href(Does.model_validate(does), "GB") == goes


def test_words_are_filled_and_an_unknown_slot_says_nothing() -> None:
    one = document(
        after={
            "thank_you": {
                "send": True,
                "subject": "S",
                "text": ["Hello ", {"slot": "first_name"}, {"slot": "code"}],
            }
        }
    )
    assert filled(one.after.thank_you.text, {"first_name": "Ife"}) == "Hello Ife"
    assert document(
        after={"thank_you": {"send": True, "subject": "S", "text": "Plain"}}
    ).after.thank_you.text == ("Plain",)


@pytest.mark.parametrize(
    ("html", "clean"),
    [
        ('<p onclick="x()">a<script>b</script></p>', "<p>a</p>"),
        ('<span data-slot="first_name">x</span>', '<span data-slot="first_name">x</span>'),
        ('<span data-slot="password">x</span>', "<span>x</span>"),
        ('<img src="https://x.example/t.gif" alt="a">', '<img alt="a">'),
        ('<img src="/m/as_1/960.webp" alt="a">', '<img src="/m/as_1/960.webp" alt="a">'),
        ('<a href="javascript:x">a</a>', '<a rel="noopener noreferrer">a</a>'),
    ],
)
def test_rich_text_keeps_only_what_a_text_may_hold(html: str, clean: str) -> None:
    assert sanitised(html) == clean


@pytest.mark.parametrize(
    ("change", "said"),
    [
        ({"look": {"height": 20}}, "80 to 2000"),
        ({"after": {"page": "javascript:x"}}, "begins with https"),
        ({"after": {"thank_you": {"reply_to": "nobody"}}}, "has an @ in it"),
        ({"spot": {"selector": "main >> p"}}, "cannot be read"),
        ({"leaving": {"cross": None}}, "close sign within 5 seconds"),
        ({"leaving": {"cross": 6}, "stance": "full-page"}, "close sign within 5 seconds"),
    ],
)
def test_what_cannot_work_is_refused_in_words(change: dict, said: str) -> None:
    with pytest.raises(ValidationError, match=said):
        document(**change)


@pytest.mark.parametrize("stance", ["bar", "in-page", "button"])
def test_what_does_not_interrupt_may_stay_without_a_close_sign(stance: str) -> None:
    assert document(stance=stance, leaving={"cross": None}).leaving.cross is None


@pytest.mark.parametrize(
    ("part", "said"),
    [
        ({"kind": "countdown"}, "to a moment, or for so many minutes"),
        ({"kind": "countdown", "minutes": 5, "to": "2026-12-01T00:00:00Z"}, "to a moment, or for so many minutes"),
        ({"kind": "countdown", "to": "2026-12-01T00:00:00"}, "timezone"),
        ({"kind": "price", "now": "-3"}, "pattern"),
        ({"kind": "price", "now": "3", "currency": "pounds"}, "pattern"),
        ({"kind": "field", "input": "number", "name": "n", "least": 5, "most": 2}, "least is more than the most"),
        ({"kind": "field", "input": "choice", "name": "c", "options": [{"value": "a"}, {"value": "a"}]}, "two choices are the same"),
        ({"kind": "question", "name": "q", "options": [{"value": "a", "next": "nowhere"}]}, "leads to the step “nowhere”"),
        ({"kind": "score", "name": "s", "bands": [{"least": 0, "most": 3, "next": "nowhere"}]}, "leads to the step “nowhere”"),
        ({"kind": "picture", "asset": "../../etc"}, "pattern"),
    ],
)  # fmt: skip
def test_a_part_that_makes_no_sense_is_refused(part: dict, said: str) -> None:
    with pytest.raises(ValidationError, match=said):
        document(part)


@pytest.mark.parametrize("kind", [[], {}, [None], 5])
def test_a_kind_that_is_no_word_is_refused_and_breaks_nothing(kind: object) -> None:
    with pytest.raises(ValidationError):
        PagePattern.model_validate({"kind": kind, "path": "/trips"})
