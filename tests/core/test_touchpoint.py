"""The document: what holds together, what visitors get, and how answers are checked."""

import json
from typing import Any

import pytest
from pydantic import ValidationError

from intavo.core.touchpoint import (
    STARTERS,
    AnswerErrors,
    Document,
    Known,
    check_answers,
    document_schema,
    for_visitors,
    ready_check,
)
from intavo.core.touchpoint.answers import Checked

PROTOCOL_EXAMPLE: dict[str, Any] = json.loads("""
{"version": 1, "purpose": "sign-up", "stance": "pop-up",
 "steps": [
  {"id": "ask", "parts": [
    {"id": "p1", "kind": "headline", "text": "The month's safe paddling hours, on one page"},
    {"id": "p2", "kind": "text", "html": "<p>Sent on the 1st.</p>", "on": ["desktop", "phone"]},
    {"id": "p3", "kind": "field", "input": "email", "name": "email", "label": "Your email", "required": true},
    {"id": "p4", "kind": "field", "input": "text", "name": "name", "label": "First name", "required": false, "hidden": true},
    {"id": "p5", "kind": "consent", "name": "news", "text": "Send me the monthly tide table.", "required": true},
    {"id": "p6", "kind": "button", "label": "Send me the tide table", "does": {"action": "send", "next": "thanks"}}]},
  {"id": "thanks", "parts": [{"id": "p7", "kind": "headline", "text": "Look in your mail"}, {"id": "p8", "kind": "reply"}]}],
 "look": {"place": "middle", "width": 560, "colours": {"card": "#ffffff", "text": "#1a2326", "button": "#ae4a12"}, "phone": {"place": "bottom"}},
 "leaving": {"cross": 0, "outside": true, "escape": true}}""")


def changed(**fields: Any) -> dict[str, Any]:
    """The example with fields replaced."""
    return json.loads(json.dumps(PROTOCOL_EXAMPLE)) | fields


def test_the_example_of_the_protocol_is_a_document_and_comes_back_as_it_was() -> None:
    document = Document.model_validate(PROTOCOL_EXAMPLE)
    assert Document.model_validate(document.model_dump(mode="json")) == document


@pytest.mark.parametrize(
    ("fields", "said"),
    [
        ({"leaving": {"cross": None}}, "close sign"),
        ({"leaving": {"cross": 6}}, "close sign"),
        ({"steps": PROTOCOL_EXAMPLE["steps"][:1]}, "thanks"),
        ({"steps": [PROTOCOL_EXAMPLE["steps"][0]] * 2}, "twice"),
        ({"look": {"colours": {"card": "red"}}}, "look.colours.card"),
        ({"stance": "hologram"}, "stance"),
        ({"surprise": 1}, "surprise"),
        ({"show": {"sentences": [{"moments": [[{"after": 1, "read": 2}]]}]}}, "show.sentences.0.moments"),
        ({"show": {"sentences": [{"devices": []}]}}, "show.sentences.0.devices"),
    ],
)
def test_a_document_that_cannot_work_is_refused_with_the_place(fields: dict, said: str) -> None:
    with pytest.raises(ValidationError) as refused:
        Document.model_validate(changed(**fields))
    first = refused.value.errors()[0]
    assert said in ".".join(map(str, first["loc"])) + " " + first["msg"]


def test_a_late_cross_is_fine_where_a_button_closes() -> None:
    steps = json.loads(json.dumps(PROTOCOL_EXAMPLE["steps"]))
    steps[0]["parts"].append({"id": "p9", "kind": "button", "label": "No", "does": {"action": "close"}})
    assert Document.model_validate(changed(leaving={"cross": None}, steps=steps)).leaving.cross is None


def test_rich_text_is_sanitised() -> None:
    steps = json.loads(json.dumps(PROTOCOL_EXAMPLE["steps"]))
    steps[0]["parts"][1]["html"] = (
        '<p onclick="x()">Hi <script>alert(1)</script><a href="javascript:x">you</a></p>'
    )
    html = Document.model_validate(changed(steps=steps)).model_dump()["steps"][0]["parts"][1]["html"]
    assert "script" not in html
    assert "onclick" not in html
    assert "Hi" in html


def test_visitors_get_no_rules_and_no_hidden_parts() -> None:
    seen = for_visitors(Document.model_validate(PROTOCOL_EXAMPLE))
    assert set(seen) == {
        "version",
        "purpose",
        "stance",
        "steps",
        "look",
        "leaving",
        "face",
        "spot",
        "then",
        "speech",
    }
    assert [part["id"] for part in seen["steps"][0]["parts"]] == ["p1", "p2", "p3", "p5", "p6"]


def answers(email: str = "ife@post.example", news: bool = True, step: str = "ask", **more: str) -> Checked:
    """What the example makes of answers."""
    document = Document.model_validate(PROTOCOL_EXAMPLE)
    return check_answers(document, step, {"email": email, **more}, {"news": news}, "GB")


def test_good_answers_are_trimmed_with_the_wording_that_was_agreed_to() -> None:
    checked = answers(" ife@post.example ", name="Ife", unknown="x")
    assert checked.values == {"email": "ife@post.example", "name": "Ife"}
    assert checked.agreed == {"news": "Send me the monthly tide table."}
    assert checked.next == "thanks"


@pytest.mark.parametrize(
    ("given", "fields"),
    [
        ({"email": ""}, ["answers.email"]),
        ({"email": "ife", "news": False}, ["answers.email", "consents.news"]),
        ({"email": "ife@post.example", "name": "x" * 301}, ["answers.name"]),
        ({"step": "nowhere"}, ["step"]),
    ],
)
def test_every_wrong_field_is_named(given: dict, fields: list[str]) -> None:
    with pytest.raises(AnswerErrors) as refused:
        answers(**given)
    assert [field for field, _ in refused.value.errors] == fields


def test_every_starter_can_be_turned_on_as_it_is_but_for_a_number_that_is_nobodys() -> None:
    for starter in STARTERS:
        stops = [one.message for one in ready_check(starter.document) if one.level == "stops"]
        assert all("starter's number" in message for message in stops), starter.key
        assert bool(stops) == (starter.key == "call")


def test_the_ready_check_names_what_stops_it_and_where() -> None:
    steps = json.loads(json.dumps(PROTOCOL_EXAMPLE["steps"]))
    steps[0]["parts"][2]["label"] = " "
    steps[0]["parts"][5]["label"] = ""
    found = ready_check(Document.model_validate(changed(steps=steps)), Known(has_site=False))
    assert {one.place for one in found if one.level == "stops"} == {"sites", "p3", "p6"}


def test_the_schema_names_every_kind_of_part() -> None:
    text = json.dumps(document_schema())
    assert all(
        f'"const": "{kind}"' in text for kind in ("headline", "text", "field", "consent", "button", "reply")
    )


@pytest.mark.parametrize(
    ("title", "twice"),
    [("Look in your mail", True), ("look in your mail!", True), ("Thank you", False), ("", False)],
)
def test_what_a_headline_says_is_not_said_again_by_the_reply_below_it(title: str, twice: bool) -> None:
    assert Document.model_validate(PROTOCOL_EXAMPLE).says_above_reply(title) is twice
    assert not Document.model_validate(PROTOCOL_EXAMPLE).says_above_reply(
        "The month's safe paddling hours, on one page"
    )
