"""What a copy in another language still says in the words of the one that it is a copy of."""

from typing import Any

import pytest

from intavo.core.touchpoint import Document, Known, ready_check
from intavo.core.touchpoint.copied import still_said, texts_of

HEADLINE = {"id": "p1", "kind": "headline", "text": "Kayaks for the whole summer"}
TEXT = {"id": "p2", "kind": "text", "html": "<p>Hire by the day,<br>or by the week.</p>"}
EMAIL = {"id": "p3", "kind": "field", "input": "email", "name": "email", "label": "Email"}
CHOICE = {
    "id": "p4", "kind": "question", "name": "boat", "text": "Which one?",
    "options": [{"value": "a", "label": "A boat for two"}, {"value": "b", "label": "One"}],
}  # fmt: skip
SEND = {"id": "p5", "kind": "button", "label": "Send", "does": {"action": "send", "next": "s2"}}
PARTS: list[dict[str, Any]] = [HEADLINE, TEXT, EMAIL, CHOICE, SEND]


def document(*parts: dict[str, Any], language: str = "", **more: Any) -> Document:
    """An inquiry with these parts."""
    steps = [
        {"id": "s1", "parts": list(parts)},
        {"id": "s2", "parts": [{"id": "q1", "kind": "headline", "text": "Thanks"}]},
    ]
    return Document.model_validate(
        {"purpose": "inquiry", "stance": "pop-up", "steps": steps, "language": language, **more}
    )


MAIL = {"send": True, "subject": "Your kayaks this summer", "text": ["We look forward to it."]}


@pytest.mark.parametrize(
    ("change", "left"),
    [
        ({}, ["p1", "p2", "p4"]),
        ({"p1": {"text": "Kajaks für den ganzen Sommer"}}, ["p2", "p4"]),
        ({"p2": {"html": "<div>Hire by the <b>day,</b></div> or by the week."}}, ["p1", "p2", "p4"]),
        ({"p1": {"hidden": True}, "p4": {"hidden": True}}, ["p2"]),
        ({"p4": {"options": [{"value": "a", "label": "Ein Boot für zwei"}]}}, ["p1", "p2"]),
    ],
)
def test_texts_of_some_length_are_found_where_they_stand(change: dict[str, Any], left: list[str]) -> None:
    parts = [part | change.get(part["id"], {}) for part in PARTS]
    assert still_said(document(*parts, language="de"), texts_of(document(*PARTS))) == left


@pytest.mark.parametrize(("mail", "left"), [(MAIL, ["thank_you", "thank_you"]), (MAIL | {"send": False}, [])])
def test_a_mail_counts_where_it_is_sent(mail: dict[str, Any], left: list[str]) -> None:
    original = texts_of(document(EMAIL, SEND, after={"thank_you": MAIL}))
    assert still_said(document(EMAIL, SEND, language="de", after={"thank_you": mail}), original) == left


def test_the_ready_check_says_so_of_a_copy_in_another_language() -> None:
    before = texts_of(document(*PARTS))
    copy = document(*PARTS, language="de")

    def said(known: Known) -> list[tuple[str, str]]:
        return [(one.message, one.place) for one in ready_check(copy, known) if "still as in" in one.message]

    assert said(Known(original=("Hire", "", before))) == [
        ("3 texts are still as in “Hire”: write them in German.", "p1")
    ]
    one = texts_of(document(HEADLINE, SEND))
    assert said(Known(original=("Hire", "en", one))) == [
        ("A text is still as in “Hire”: write it in German.", "p1")
    ]
    assert said(Known(original=("Hire", "de", before))) == []
    assert said(Known()) == []
