"""Turning a touchpoint into another purpose or stance: words and look are kept."""

from collections.abc import Sequence
from typing import Any

from ..tongues import SPOKEN, Phrase, Tongue, say
from .document import Document, Purpose
from .look import INTERRUPTING, PLACES, Stance

_EMAIL = {"kind": "field", "input": "email", "name": "email", "label": "Your email", "required": True}
_CONSENT = {"kind": "consent", "name": "news", "text": Phrase("Yes, write to me by email."), "required": True}
_QUESTION = {
    "kind": "field",
    "input": "long",
    "name": "question",
    "label": Phrase("Your question"),
    "required": True,
}
_SEND = {"kind": "button", "label": "Send", "does": {"action": "send", "next": None}}
_CALL = {"kind": "button", "label": "Call us", "does": {"action": "phone"}}
_WRITE = {"kind": "button", "label": "Write to us", "does": {"action": "page", "tab": "new"}}
_PRICE = {"kind": "price", "now": "20", "old": "25"}
_CHOICE = {
    "kind": "question", "name": "choice", "text": Phrase("Which is it?"),
    "options": [{"value": "one", "label": Phrase("This")}, {"value": "other", "label": Phrase("That")}],
}  # fmt: skip
_SCORE = {"kind": "score", "name": "score", "text": Phrase("How was it?")}
_TEXT = {"kind": "text", "html": "<p>What you want to say.</p>"}
_BACK = {"kind": "button", "label": "Back to the page", "style": "plain", "does": {"action": "close"}}
# The reply of an inquiry thanks in its own headline, the owner's.
_TOLD = {"inquiry": Phrase("It has reached us")}
_LOOK: dict[str, Any] = {"kind": "headline", "text": "Look in your mail"}
_LOOK_IN_ANY = [[say(_LOOK["text"], Tongue(language))] for language in SPOKEN]
_CONFIRM = Phrase("You left your address with us. Press the button behind this link, and it is done.")
_CODE = {"kind": "code", "label": "Your code"}
_NEEDS: dict[Purpose, tuple[dict[str, Any], ...]] = {
    "sign-up": (_EMAIL, _CONSENT, _SEND), "inquiry": (_QUESTION, _EMAIL, _SEND), "call": (_CALL,),
    "message": (_WRITE,), "offer": (_PRICE,), "question": (_CHOICE,), "feedback": (_SCORE,),
    "notice": (_TEXT,),
}  # fmt: skip
# What a purpose has no use for is hidden, never thrown away.
_FORM = {"field", "consent", "send"}
_HIDES: dict[Purpose, set[str]] = {
    "sign-up": {"field:long"}, "inquiry": {"consent"}, "call": _FORM, "message": _FORM, "offer": set(),
    "question": _FORM, "feedback": {"consent"}, "notice": _FORM | {"price", "question", "score"},
}  # fmt: skip


def thanking(purpose: str, *more: dict[str, Any]) -> list[dict[str, Any]]:
    """What stands on a step that thanks for an answer."""
    return [{"kind": "headline", "text": _TOLD.get(purpose, "Thank you")}, *more, {"kind": "reply"}, _BACK]


def following() -> list[dict[str, Any]]:
    """What a step that comes next begins with."""
    return [{"kind": "headline", "text": Phrase("And then")}]


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
    _lead_on(data)
    data["after"]["follow_up"] = purpose == "inquiry" or (purpose != "notice" and data["after"]["follow_up"])
    return Document.model_validate(data)


def _lead_on(data: dict[str, Any]) -> None:
    """Whatever sends leads somewhere: to the last step, or to a step that thanks, which is added."""
    if data["after"]["page"]:
        return
    for does in _sending(data):
        if does["next"] is None:
            later = data["steps"][1:]
            does["next"] = (
                later[-1]["id"] if later else _add_step(data, "thanks", "Thanks", thanking(data["purpose"]))
            )


def _sending(data: dict[str, Any]) -> list[dict[str, Any]]:
    """What every button that sends does."""
    parts = (part for step in data["steps"] for part in step["parts"])
    return [part["does"] for part in parts if part["kind"] == "button" and part["does"]["action"] == "send"]


def _add_step(data: dict[str, Any], stem: str, name: str, patterns: Sequence[dict[str, Any]]) -> str:
    """A step at the end, with parts whose ids are free; gives back its id."""
    ids = {step["id"] for step in data["steps"]}
    id_ = stem if stem not in ids else _free(stem, ids)
    parts = [part for step in data["steps"] for part in step["parts"]]
    taken = {part["id"] for part in parts}
    fresh: list[dict[str, Any]] = []
    for pattern in patterns:
        made = {**pattern, "id": _free("p", taken)}
        taken.add(made["id"])
        fresh.append(made)
    data["steps"].append({"id": id_, "name": name, "parts": fresh})
    return id_


def with_confirmation(document: Document, on: bool) -> Document:
    """The document with double opt-in or without: what it says after sending is made true, and nothing is
    thrown away.

    With it, sending leads to a step that asks to look in the mail, and the step that came so far stands on
    the page behind the mail's link. Without it, sending leads there again, or to a step that thanks.
    """
    if document.after.confirm.on == on:
        return document
    data = document.model_dump(mode="json")
    confirm, sending = data["after"]["confirm"], _sending(data)
    confirm["on"] = on
    so_far = next((does["next"] for does in sending if does["next"]), None)
    if on:
        confirm["subject"] = confirm["subject"] or "Please confirm your address"
        confirm["text"] = confirm["text"] or [_CONFIRM]
        confirm["next"] = so_far
        leads = _add_step(data, "mail", "Look in your mail", [_LOOK, _asks_to_look(document), _BACK])
    elif confirm["next"] is not None:
        leads, confirm["next"] = confirm["next"], None
        _drop_unchanged(data, so_far)
    else:
        code = [_CODE] if document.after.code.kind != "none" and document.after.code.show else []
        leads = _add_step(data, "thanks", "Thanks", thanking(document.purpose, *code))
    for does in sending:
        if does["next"] in {None, so_far}:
            does["next"] = leads
    return Document.model_validate(data)


_LINK_IN_IT = {
    "": Phrase("<p>There is a link in it to confirm that it was you.</p>"),
    "code": Phrase("<p>There is a link in it to confirm that it was you. The code comes right after.</p>"),
    "file": Phrase("<p>There is a link in it to confirm that it was you. The file comes right after.</p>"),
}


def _asks_to_look(document: Document) -> dict[str, Any]:
    after = document.after
    given = "code" if after.code.kind != "none" else "file" if after.file.asset or after.file.label else ""
    return _TEXT | {"html": str(_LINK_IN_IT[given])}


def _drop_unchanged(data: dict[str, Any], id_: str | None) -> None:
    """Takes out the step that asks to look in the mail, unless its words were changed."""
    step = next((one for one in data["steps"] if one["id"] == id_), None)
    if step and [part.get("text") for part in step["parts"] if part["kind"] == "headline"] in _LOOK_IN_ANY:
        data["steps"].remove(step)


def _add(data: dict[str, Any], parts: list[dict[str, Any]], needed: dict[str, Any]) -> None:
    """Put a needed part before the buttons, or a button at the end, with an id and a name that are free."""
    every = [part for step in data["steps"] for part in step["parts"]]
    fresh = {**needed, "id": _free("p", {part["id"] for part in every})}
    if "name" in fresh:
        names = {part.get("name") for part in every}
        fresh["name"] = fresh["name"] if fresh["name"] not in names else _free(f"{fresh['name']}_", names)
    if needed is _SEND:
        fresh["does"] = {"action": "send", "next": None}
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
    if (stance == "card") is not (document.stance == "card"):
        # Beside a card the page is used; over the page, a click beside it means to be rid of it.
        data["leaving"]["outside"] = stance != "card"
    _rows_for(data, stance)
    if stance in INTERRUPTING and data["leaving"]["cross"] is None:
        data["leaving"]["cross"] = 0
    if stance == "button" and not data["face"]["label"]:
        data["face"]["label"] = _short(document)
    return Document.model_validate(data)


_IN_A_BAR = "bar"
_SHARES = {
    "headline": 35,
    "text": 45,
    "picture": 10,
    "field": 25,
    "price": 20,
    "countdown": 25,
    "code": 25,
    "button": 20,
}


def _rows_for(data: dict[str, Any], stance: Stance) -> None:
    """A form that becomes a bar is one line, in the shares that suit its parts; anything else has no such
    line.
    """
    for step in data["steps"]:
        for part in step["parts"]:
            around = part["kind"] == "picture" and part["place"] != "inline"
            if stance == "bar" and part["row"] is None and part["kind"] in _SHARES and not around:
                part["row"], part["share"] = _IN_A_BAR, _SHARES[part["kind"]]
            elif stance != "bar" and part["row"] == _IN_A_BAR:
                part["row"], part["share"] = None, 100


def _short(document: Document) -> str:
    headline = next((part.text for part in document.parts() if part.kind == "headline"), "")
    return headline if 0 < len(headline) <= 30 else "Ask us"
