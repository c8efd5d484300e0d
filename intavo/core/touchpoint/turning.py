"""Turning a touchpoint into another purpose or stance: words and look are kept."""

from typing import Any

from .document import Document, Purpose
from .look import INTERRUPTING, PLACES, Stance

_EMAIL = {"kind": "field", "input": "email", "name": "email", "label": "Your email", "required": True}
_CONSENT = {"kind": "consent", "name": "news", "text": "Yes, write to me by email.", "required": True}
_QUESTION = {"kind": "field", "input": "long", "name": "question", "label": "Your question", "required": True}
_SEND = {"kind": "button", "label": "Send", "does": {"action": "send", "next": None}}
_CALL = {"kind": "button", "label": "Call us", "does": {"action": "phone"}}
_WRITE = {"kind": "button", "label": "Write to us", "does": {"action": "page", "tab": "new"}}
_PRICE = {"kind": "price", "now": "20", "old": "25"}
_CHOICE = {
    "kind": "question", "name": "choice", "text": "Which is it?",
    "options": [{"value": "one", "label": "This"}, {"value": "other", "label": "That"}],
}  # fmt: skip
_SCORE = {"kind": "score", "name": "score", "text": "How was it?"}
_TEXT = {"kind": "text", "html": "<p>What you want to say.</p>"}
_NEEDS: dict[Purpose, tuple[dict[str, Any], ...]] = {
    "sign-up": (_EMAIL, _CONSENT, _SEND), "inquiry": (_QUESTION, _EMAIL, _SEND), "call": (_CALL,),
    "message": (_WRITE,), "offer": (_PRICE,), "question": (_CHOICE,), "feedback": (_SCORE,), "notice": (_TEXT,),
}  # fmt: skip
# What a purpose has no use for is hidden, never thrown away.
_FORM = {"field", "consent", "send"}
_HIDES: dict[Purpose, set[str]] = {
    "sign-up": {"field:long"}, "inquiry": {"consent"}, "call": _FORM, "message": _FORM, "offer": set(),
    "question": _FORM, "feedback": {"consent"}, "notice": _FORM | {"price", "question", "score"},
}  # fmt: skip


def _key(part: dict[str, Any]) -> str:
    """What a part is, as the tables above name it."""
    if part["kind"] == "field":
        return f"field:{part['input']}"
    return str(part["does"]["action"] if part["kind"] == "button" else part["kind"])


def with_purpose(document: Document, purpose: Purpose) -> Document:
    """The document for another purpose: what it needs is added or comes back, what it does not is hidden."""
    data = document.model_dump(mode="json") | {"purpose": purpose}
    parts: list[dict[str, Any]] = data["steps"][0]["parts"]
    for part in parts:
        if {part["kind"], _key(part)} & _HIDES[purpose]:
            part["hidden"] = True
    for needed in _NEEDS[purpose]:
        known = next((part for part in parts if _key(part) == _key(needed)), None)
        if known is not None:
            known["hidden"] = False
        else:
            _add(data, parts, needed)
    data["after"]["follow_up"] = purpose == "inquiry" or (purpose != "notice" and data["after"]["follow_up"])
    return Document.model_validate(data)


def _add(data: dict[str, Any], parts: list[dict[str, Any]], needed: dict[str, Any]) -> None:
    """Put a needed part before the buttons, or a button at the end, with an id and a name that are free."""
    every = [part for step in data["steps"] for part in step["parts"]]
    fresh = {**needed, "id": _free("p", {part["id"] for part in every})}
    if "name" in fresh:
        names = {part.get("name") for part in every}
        fresh["name"] = fresh["name"] if fresh["name"] not in names else _free(f"{fresh['name']}_", names)
    if needed is _SEND:
        later = data["steps"][1:]
        fresh["does"] = {"action": "send", "next": later[-1]["id"] if later else None}
    at = len(parts) if needed["kind"] == "button" else _first_button(parts)
    parts.insert(at, fresh)


def _first_button(parts: list[dict[str, Any]]) -> int:
    return next((at for at, part in enumerate(parts) if part["kind"] == "button"), len(parts))


def _free(stem: str, taken: set[Any]) -> str:
    return next(name for number in range(1, 10_000) if (name := f"{stem}{number}") not in taken)


def with_stance(document: Document, stance: Stance) -> Document:
    """The document in another stance: a place that it cannot take follows again, and it can be closed."""
    data = document.model_dump(mode="json") | {"stance": stance}
    for look in (data["look"], data["look"]["phone"]):
        if look["place"] is not None and look["place"] not in PLACES[stance]:
            look["place"] = None
    if stance in INTERRUPTING and data["leaving"]["cross"] is None:
        data["leaving"]["cross"] = 0
    if stance == "button" and not data["face"]["label"]:
        data["face"]["label"] = _short(document)
    return Document.model_validate(data)


def _short(document: Document) -> str:
    headline = next((part.text for part in document.parts() if part.kind == "headline"), "")
    return headline if 0 < len(headline) <= 30 else "Ask us"
