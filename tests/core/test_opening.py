"""What an answer opens, and what in it looks like spam."""

from typing import Any

import pytest

from intavo.core.followup import Kind
from intavo.core.opening import kind_of, suspicion
from intavo.core.touchpoint import Document

SLOT = {"id": "p1", "kind": "field", "input": "slot", "name": "time", "label": "When?"}
SCORE = {"id": "p2", "kind": "score", "name": "score", "text": "How was it?", "low": 6}


def document(purpose: str, *parts: dict[str, Any], **more: Any) -> Document:
    """A touchpoint of this purpose."""
    steps = [{"id": "ask", "parts": list(parts)}]
    return Document.model_validate({"purpose": purpose, "stance": "in-page", "steps": steps, **more})


@pytest.mark.parametrize(
    ("one", "values", "kind"),
    [
        (document("sign-up"), {}, Kind.SIGN_UP),
        (document("inquiry"), {}, Kind.INQUIRY),
        (document("offer"), {}, None),
        (document("offer", after={"follow_up": True}), {}, Kind.INQUIRY),
        (document("inquiry", SLOT), {"time": "2026-11-24T15:30:00+00:00"}, Kind.CALL_BACK),
        (document("sign-up", SLOT), {"time": "2026-11-24T15:30:00+00:00"}, Kind.CALL_BACK),
        (document("inquiry", SLOT), {}, Kind.INQUIRY),
        (document("feedback", SCORE), {"score": "6"}, Kind.FEEDBACK),
        (document("feedback", SCORE), {"score": "7"}, None),
        (document("feedback", SCORE), {}, None),
        (document("feedback", SCORE, after={"follow_up": True}), {"score": "9"}, Kind.FEEDBACK),
    ],
)
def test_what_an_answer_opens(one: Document, values: dict[str, str], kind: Kind | None) -> None:
    assert kind_of(one, values) is kind


@pytest.mark.parametrize(
    ("guard", "trap", "elapsed", "why"),
    [
        ({}, "", 9000, None),
        ({}, "buy", 9000, "trap"),
        ({}, " \t", 9000, None),
        ({"trap": False}, "buy", 9000, None),
        ({"least_seconds": 2}, "", 1999, "too fast"),
        ({"least_seconds": 2}, "", 2000, None),
        ({"least_seconds": 2}, "", None, None),
        ({"least_seconds": 2}, "buy", 1, "trap"),
        ({"least_seconds": 0}, "", 0, None),
    ],
)
def test_what_looks_like_spam(guard: dict[str, Any], trap: str, elapsed: int | None, why: str | None) -> None:
    assert suspicion(document("inquiry", guard=guard), trap, elapsed) == why
