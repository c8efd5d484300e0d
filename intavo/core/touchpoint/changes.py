"""What differs between two documents, in words: the list that stands beside "put live"."""

from dataclasses import dataclass
from typing import Any

from .document import Document


@dataclass(frozen=True, slots=True)
class Change:
    """One difference: its place in the document, and words for the owner."""

    place: str
    words: str


PART_NAMES = {
    "headline": "Headline", "text": "Text", "picture": "Picture", "video": "Video", "field": "Field",
    "consent": "Consent tick", "button": "Button", "price": "Price", "code": "Code", "countdown": "Countdown",
    "question": "Question", "score": "Score", "links": "Links", "share": "Share", "hours": "Hours",
    "questions": "Questions & answers", "markup": "Foreign markup", "line": "Line", "space": "Space",
    "reply": "When somebody answers",
}  # fmt: skip
_WHOLES = {
    "purpose": "What it is for", "stance": "How it stands", "leaving": "How it is closed", "show": "Show sentence",
    "after": "What comes after", "guard": "Guard against spam", "face": "The button itself", "spot": "Its spot",
}  # fmt: skip


def changes(before: Document, after: Document) -> list[Change]:
    """Every difference, in the order in which they meet the eye."""
    old, new = before.model_dump(mode="json"), after.model_dump(mode="json")
    return [*_steps(old, new), *_looks(old["look"], new["look"]), *_wholes(old, new)]


def _name(part: dict[str, Any]) -> str:
    words = str(part.get("text") or part.get("label") or "")
    return (
        f"{PART_NAMES[part['kind']]} “{words[:40]}{'…' if len(words) > 40 else ''}”"
        if words
        else PART_NAMES[part["kind"]]
    )


def _parts(document: dict[str, Any]) -> dict[str, dict[str, Any]]:
    return {part["id"]: part for step in document["steps"] for part in step["parts"]}


def _steps(old: dict[str, Any], new: dict[str, Any]) -> list[Change]:
    before, after = _parts(old), _parts(new)
    found = [Change(id_, f"{_name(part)}: new") for id_, part in after.items() if id_ not in before]
    found += [Change(id_, f"{_name(part)}: gone") for id_, part in before.items() if id_ not in after]
    for id_, part in after.items():
        if id_ in before and before[id_] != part:
            found.append(Change(id_, _part_words(before[id_], part)))
    old_order = [id_ for id_ in before if id_ in after]
    if old_order != [id_ for id_ in after if id_ in before]:
        found.append(Change("steps", "The order of the parts"))
    names_before, names_after = ([(s["id"], s["name"]) for s in one["steps"]] for one in (old, new))
    if names_before != names_after:
        found.append(Change("steps", "The steps"))
    return found


def _part_words(old: dict[str, Any], new: dict[str, Any]) -> str:
    if old["hidden"] != new["hidden"]:
        return f"{_name(new)}: {'hidden' if new['hidden'] else 'shown again'}"
    for field in ("text", "label"):
        if old.get(field) != new.get(field):
            return f"{PART_NAMES[new['kind']]}: “{old.get(field, '')[:60]}” becomes “{new.get(field, '')[:60]}”"
    return f"{_name(new)}: changed"


def _looks(old: dict[str, Any], new: dict[str, Any]) -> list[Change]:
    flat = [{f"{name}.{part}" if part else name: said for name, value in one.items() for part, said in _flat(value)}
            for one in (old, new)]  # fmt: skip
    names = sorted(name for name in flat[0].keys() | flat[1].keys() if flat[0].get(name) != flat[1].get(name))
    return [Change("look", f"Look: {_plain(name)}") for name in names]


def _flat(value: Any) -> list[tuple[str, Any]]:
    if not isinstance(value, dict):
        return [("", value)]
    return [(f"{key}.{part}" if part else key, said) for key, inner in value.items() for part, said in _flat(inner)]


def _plain(name: str) -> str:
    return name.replace("phone.", "on phones, ").replace("colours.", "colour of ").replace("_", " ").replace(".", " ")


def _wholes(old: dict[str, Any], new: dict[str, Any]) -> list[Change]:
    return [Change(name, words) for name, words in _WHOLES.items() if old[name] != new[name]]
