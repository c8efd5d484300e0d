"""What starters are built from: short ways to write parts, and the starter itself."""

from dataclasses import dataclass
from functools import cached_property
from typing import Any, Literal

from ..document import Document

Asks = Literal["nothing", "click", "address", "several"]
Data = dict[str, Any]


@dataclass(frozen=True, eq=False)
class Starter:
    """A starter: its key, its name for people, what it is for, how much it asks, and its document as data."""

    key: str
    name: str
    about: str
    asks: Asks
    data: Data

    @cached_property
    def document(self) -> Document:
        """The document, validated when it is first wanted."""
        return Document.model_validate(numbered(self.data))


def numbered(data: Data) -> Data:
    """The data with an id for every part that has none."""
    count = 0
    steps = []
    for step in data["steps"]:
        parts = []
        for part in step["parts"]:
            count += 1
            parts.append({"id": f"p{count}", **part})
        steps.append({**step, "parts": parts})
    return {**data, "steps": steps}


def step(id_: str, *parts: Data, name: str = "") -> Data:
    """A step."""
    return {"id": id_, "name": name, "parts": list(parts)}


def head(text: str, **more: Any) -> Data:
    """A headline."""
    return {"kind": "headline", "text": text, **more}


def text(*paragraphs: str, **more: Any) -> Data:
    """Rich text, a paragraph each."""
    return {"kind": "text", "html": "".join(f"<p>{one}</p>" for one in paragraphs), **more}


def picture(name: str, place: str = "above", **more: Any) -> Data:
    """One of the pictures that come with Intavo."""
    return {"kind": "picture", "asset": f"shipped-{name}", "place": place, **more}


def small(name: str, **more: Any) -> Data:
    """One of them at the beginning of a bar; phones have no room for it."""
    return picture(name, "inline", height=44, row="r1", share=10, on=["desktop"], **more)


def email(**more: Any) -> Data:
    """The email field."""
    return {
        "kind": "field",
        "input": "email",
        "name": "email",
        "label": "Your email",
        "required": True,
    } | more


def first_name(**more: Any) -> Data:
    """The field for a first name."""
    return {"kind": "field", "input": "name", "name": "name", "label": "First name"} | more


def phone(**more: Any) -> Data:
    """The phone field."""
    return {"kind": "field", "input": "phone", "name": "phone", "label": "Your phone number"} | more


def field(input_: str, name: str, label: str, **more: Any) -> Data:
    """Any field."""
    return {"kind": "field", "input": input_, "name": name, "label": label} | more


def consent(wording: str) -> Data:
    """The tick with what is agreed to."""
    return {"kind": "consent", "name": "news", "text": wording, "required": True}


def send(label: str, following: str | None = "thanks", **more: Any) -> Data:
    """The button that sends."""
    return {"kind": "button", "label": label, "does": {"action": "send", "next": following}} | more


def button(label: str, action: str, style: str = "main", **does: Any) -> Data:
    """Any other button."""
    return {"kind": "button", "label": label, "style": style, "does": {"action": action, **does}}


def close(label: str = "Back to the page") -> Data:
    """A button that closes."""
    return button(label, "close", "plain")


def option(value: str, label: str, following: str | None = None) -> Data:
    """One choice."""
    return {"value": value, "label": label, "next": following}


def thanks(title: str, *more: Data) -> Data:
    """The last step, which says when somebody answers."""
    return step("thanks", head(title), {"kind": "reply"}, *more, close(), name="Thanks")


def moments(*alternatives: Data) -> Data:
    """A show sentence that comes at any of these moments."""
    return {"moments": [[one] for one in alternatives]}


def show(*alternatives: Data, days: int | None = 7, answered: bool = True, **sentence: Any) -> Data:
    """All rules: any of the moments, at most once in so many days, not after an answer."""
    return {
        "sentences": [{**moments(*alternatives), **sentence}],
        "how_often": {"every": "page"}
        if days is None
        else {"every": "span", "span": {"n": days, "unit": "days"}},
        "until": {"answered": answered},
    }


def mail(subject: str, *words: str | Data) -> Data:
    """The mail straight after."""
    return {"send": True, "subject": subject, "text": list(words)}


def slot(name: str) -> Data:
    """A place in a mail that is filled when it is written."""
    return {"slot": name}
