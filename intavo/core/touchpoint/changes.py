"""What differs between two documents, in the editor's words with before and after: what stands beside "put
live".
"""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Any

from .choices import CHOICES, chosen_words, value_words
from .document import Document
from .named import (
    COLOUR_NAMES,
    LOOK_VALUES,
    SENTENCE_PIECES,
    SHOW_PIECES,
    WHOLE_VALUES,
    said,
)
from .parts import CLICK_VALUES, KINDS, values_of
from .rules import Show

Data = dict[str, Any]


@dataclass(frozen=True, slots=True)
class Change:
    """One difference: its place in the document, and words for the owner."""

    place: str
    words: str


def changes(before: Document, after: Document) -> list[Change]:
    """Every difference, in the order in which they meet the eye."""
    old, new = before.model_dump(mode="json"), after.model_dump(mode="json")
    return [
        *_whats(old, new), *_steps(old, new), *_looks(old["look"], new["look"]),
        *_show(before.show, after.show), *_wholes(old, new),
    ]  # fmt: skip


def _arrow(old: Any, new: Any, field: str = "", steps: Mapping[str, str] | None = None) -> str:
    """Before and after in the editor's words; a step by its name, and what has only an id by what became of
    it.
    """
    if chosen := chosen_words(field, old, new):
        return chosen
    before, after = (
        _word(field, (steps or {}).get(one, one) if isinstance(one, str) else one) for one in (old, new)
    )
    return f"{before} → {after}"


def _word(field: str, value: Any) -> str:
    return value_words(field, value) or said(value)


def _whats(old: Data, new: Data) -> Iterator[Change]:
    for name, words in (("purpose", "What it is for"), ("stance", "How it stands"), ("language", "Language")):
        if old[name] != new[name]:
            yield Change(name, f"{words}: {_arrow(old[name], new[name], name)}")


def _name(part: Data) -> str:
    words, name = str(part.get("text") or part.get("label") or ""), KINDS[part["kind"]].CALLED
    return f"{name} “{words[:40]}{'…' if len(words) > 40 else ''}”" if words else name


def _parts(document: Data) -> dict[str, Data]:
    return {part["id"]: part for step in document["steps"] for part in step["parts"]}


def _steps(old: Data, new: Data) -> Iterator[Change]:
    before, after, names = _parts(old), _parts(new), _called(old) | _called(new)
    # Under one id, what is of another kind is another part.
    same = {id_ for id_ in before.keys() & after.keys() if before[id_]["kind"] == after[id_]["kind"]}
    yield from (Change(id_, f"{_name(part)}: new") for id_, part in after.items() if id_ not in same)
    yield from (Change(id_, f"{_name(part)}: gone") for id_, part in before.items() if id_ not in same)
    for id_, part in after.items():
        if id_ in same:
            # How the parts of a bar stand side by side comes with its stance.
            but = {"row", "share"} if old["stance"] != new["stance"] else set()
            yield from (Change(id_, words) for words in _part(before[id_], part, names, but))
    if [id_ for id_ in before if id_ in after] != [id_ for id_ in after if id_ in before]:
        yield Change("steps", "The order of the parts")
    yield from _step_names(old["steps"], new["steps"])


def _called(document: Data) -> dict[str, str]:
    return {step["id"]: step["name"] or step["id"] for step in document["steps"]}


def _step_names(old: list[Data], new: list[Data]) -> Iterator[Change]:
    before, after = ({step["id"]: step["name"] or step["id"] for step in one} for one in (old, new))
    for id_, name in after.items():
        if id_ not in before:
            yield Change(id_, f"Step “{name}”: new")
        elif before[id_] != name:
            yield Change(id_, f"Step “{before[id_]}” is called “{name}”")
    yield from (Change("steps", f"Step “{name}”: gone") for id_, name in before.items() if id_ not in after)
    if [one for one in before if one in after] != [one for one in after if one in before]:
        yield Change("steps", "The order of the steps")


def _part(old: Data, new: Data, steps: Mapping[str, str], but: set[str]) -> Iterator[str]:
    """Each value of a part that differs; words are said by the part's name alone."""
    if old["hidden"] != new["hidden"]:
        yield f"{_name(new)}: {'hidden' if new['hidden'] else 'shown again'}"
    for field in ("text", "label"):
        if old.get(field) != new.get(field):
            name = KINDS[new["kind"]].CALLED
            yield f"{name}: “{str(old.get(field, ''))[:60]}” becomes “{str(new.get(field, ''))[:60]}”"
    if old.get("does") != new.get("does"):
        for field, words in CLICK_VALUES.items():
            did, does = old["does"].get(field), new["does"].get(field)
            if did != does:
                yield f"{_name(new)}, {words}: {_arrow(did, does, field, steps)}"
    for field, words in values_of(new["kind"]).items():
        if field in new and field not in but and old.get(field) != new[field]:
            yield f"{_name(new)}, {words}: {_arrow(_plain(old.get(field)), _plain(new[field]), field)}"


def _plain(value: Any) -> Any:
    """Rich text by its words."""
    if not isinstance(value, str) or "<" not in value:
        return value
    words = "".join(piece.rpartition(">")[2] for piece in value.replace("<", "\n<").split("\n"))
    return " ".join(words.split())


def _looks(old: Data, new: Data) -> Iterator[Change]:
    yield from _look(old, new, "", "as the house style" if new["house"] else "as usual")
    yield from _look(old["phone"], new["phone"], ", on phones", "as elsewhere")


def _look(old: Data, new: Data, where: str, follows: str) -> Iterator[Change]:
    for name, words in LOOK_VALUES.items():
        if name in new and old[name] != new[name]:
            arrow = "changed" if name == "css" else _look_arrow(name, old[name], new[name], follows)
            yield Change("look", f"{words}{where}: {arrow}")
    for role, words in COLOUR_NAMES.items():
        if (before := old["colours"][role]) != (after := new["colours"][role]):
            yield Change("look", f"Colour of “{words}”{where}: {_look_arrow('', before, after, follows)}")


def _look_arrow(name: str, old: Any, new: Any, follows: str) -> str:
    """What is not given follows; of several values only those that differ are said."""
    if isinstance(old, dict) and isinstance(new, dict):
        old, new = ({key: one[key] for key in new if old.get(key) != new[key]} for one in (old, new))
    before, after = (follows if one is None else _look_words(name, one) for one in (old, new))
    return f"{before} → {after}"


def _look_words(name: str, value: Any) -> str:
    if not isinstance(value, dict):
        return _word(f"look.{name}", value)
    if name == "cross" and value.get("style") == "sign":
        value = {key: one for key, one in value.items() if key != "word"}
    pieces = (
        _word(f"look.{name}.{key}", one)
        if f"look.{name}.{key}" in CHOICES
        else f"{key.replace('_', ' ')} {said(one)}"
        for key, one in value.items()
        if one not in (None, "", []) and key != "asset"
    )
    return ", ".join(pieces) or "another picture"


def _show(old: Show, new: Show) -> Iterator[Change]:
    if len(old.sentences) != len(new.sentences):
        yield Change("show", f"The show sentence: {len(old.sentences)} of them → {len(new.sentences)}")
    for before, after in zip(old.sentences, new.sentences, strict=False):
        pieces = [
            (name, say(before), say(after)) for name, say in SENTENCE_PIECES if say(before) != say(after)
        ]
        yield from (Change("show", f"The show sentence, {name}: {was} → {now}") for name, was, now in pieces)
        # Such as other opening hours, or a query that counts: nothing changes without a word.
        if before != after and not pieces:
            yield Change("show", "The show sentence: something that its words leave out")
    for name, tell in SHOW_PIECES:
        if tell(old) != tell(new):
            yield Change("show", f"The show sentence, {name}: {tell(old)} → {tell(new)}")


def _wholes(old: Data, new: Data) -> Iterator[Change]:
    steps = _called(old) | _called(new)
    for whole, values in WHOLE_VALUES.items():
        before, after = _flat(old[whole]), _flat(new[whole])
        for name, words in values.items():
            if before.get(name) != after.get(name):
                yield Change(whole, f"{words}: {_arrow(before.get(name), after.get(name), name, steps)}")


def _flat(whole: Data) -> Data:
    """The values of a whole by dotted names; what a click does stays in one piece."""
    flat: Data = {}
    for name, value in whole.items():
        if isinstance(value, dict) and name != "does":
            flat |= {f"{name}.{inner}": one for inner, one in value.items()}
        else:
            flat[name] = value
    return flat
