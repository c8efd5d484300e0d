"""A script played turn by turn: values in, a turn out; nothing is remembered but the state that is given
back.
"""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Any

from ..people import email_address, phone_number
from ..replies import ReplySlot, fill
from ..tongues import Phrase
from .script import Choice, Script, ScriptTurn

SKIP = "skip"
_AGAIN = {
    "email": Phrase("That does not look like an email address. Would you write it once more?"),
    "phone": Phrase("That does not look like a phone number. Would you write it once more?"),
}
_RATHER_NOT = Phrase("Rather not")


@dataclass(frozen=True, slots=True)
class Tagged:
    """The visitor's choice gives these tags."""

    tags: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Address:
    """They left an address: "email" or "phone", as it is matched and as it was typed."""

    kind: str
    key: str
    shown: str


@dataclass(frozen=True, slots=True)
class HandOver:
    """From here on a person answers."""


@dataclass(frozen=True, slots=True)
class Series:
    """A series of letters begins."""

    id: str


@dataclass(frozen=True, slots=True)
class Goal:
    """The goal is reached."""


Effect = Tagged | Address | HandOver | Series | Goal


@dataclass(frozen=True, slots=True)
class Offer:
    """A reply that can be clicked."""

    id: str
    label: str


@dataclass(frozen=True, slots=True)
class Turn:
    """What is said now, what the visitor may click or is asked for, what came of it, and where it stands
    (JSON).
    """

    state: dict[str, Any]
    messages: tuple[str, ...] = ()
    choices: tuple[Offer, ...] = ()
    asks: str | None = None
    effects: tuple[Effect, ...] = ()


def begin(script: Script | Mapping[str, Any], words: Mapping[ReplySlot, str]) -> Turn:
    """The first turn. `words` fills the slots; one that nothing is known for has words that are always
    true.
    """
    script = _read(script)
    return _go(script, script.start, words, [], [])


def take(
    script: Script | Mapping[str, Any],
    state: Mapping[str, Any],
    said: Mapping[str, Any],
    words: Mapping[ReplySlot, str],
    region: str = "GB",
) -> Turn:
    """The turn after what the visitor has said: {"text": …}, {"choice": id} or {"address": {"email": …}}.

    A text where choices stand is for a person. An address that does not hold is asked for once more, and then
    taken as a text. A state that the script does not know any more, or one that was handed over, stays with
    the person. ValueError for a choice that is not offered, and for what says nothing.
    """
    script = _read(script)
    turn = script.turn(str(state.get("at", "")))
    if "choice" in said:
        return _chosen(script, turn, state, str(said["choice"]), words)
    text = _text_of(said)
    if turn is None or state.get("handed"):
        return Turn({**state, "handed": True}, effects=() if state.get("handed") else (HandOver(),))
    if turn.choices or turn.asks is None:
        return _to_a_person(script, words)
    if turn.asks == "text":
        return _on(script, turn, words, [])
    found = _address(turn.asks, text, region)
    if found is None and not state.get("again"):
        return Turn({"at": turn.id, "again": True}, (_AGAIN[turn.asks],), _offers(turn), turn.asks)
    return _on(script, turn, words, [found] if found else [])


def _read(script: Script | Mapping[str, Any]) -> Script:
    return script if isinstance(script, Script) else Script.model_validate(script)


def _text_of(said: Mapping[str, Any]) -> str:
    address = said.get("address")
    text = next(iter(address.values()), "") if isinstance(address, Mapping) else said.get("text")
    if not isinstance(text, str) or not text.strip():
        raise ValueError("nothing was said")
    return text.strip()


def _address(kind: str, text: str, region: str) -> Address | None:
    try:
        found = email_address(text) if kind == "email" else phone_number(text, region)
    except ValueError:
        return None
    return Address(kind, found.key, found.shown)


def _chosen(
    script: Script,
    turn: ScriptTurn | None,
    state: Mapping[str, Any],
    id_: str,
    words: Mapping[ReplySlot, str],
) -> Turn:
    if turn is None or state.get("handed"):
        raise ValueError(f"“{id_}” is not offered any more")
    if id_ == SKIP and turn.may_skip:
        return _on(script, turn, words, [])
    choice = next((one for one in turn.choices if one.id == id_), None)
    if choice is None:
        raise ValueError(f"“{id_}” is not offered here")
    messages = [fill(line, words) for line in choice.says]
    effects = list(_effects(choice))
    if choice.next is None:
        return Turn({"at": turn.id, "done": True}, tuple(messages), _offers(turn), None, tuple(effects))
    return _go(script, choice.next, words, messages, effects)


def _effects(choice: Choice) -> Iterable[Effect]:
    if choice.tags:
        yield Tagged(choice.tags)
    if choice.series:
        yield Series(choice.series)
    if choice.goal:
        yield Goal()


def _on(script: Script, turn: ScriptTurn, words: Mapping[ReplySlot, str], effects: list[Effect]) -> Turn:
    if turn.next is None:
        return Turn({"at": turn.id, "handed": True}, effects=(*effects, HandOver()))
    return _go(script, turn.next, words, [], effects)


def _to_a_person(script: Script, words: Mapping[ReplySlot, str]) -> Turn:
    """With the words of the turn that hands over, where the script has one."""
    turn = next((one for one in script.turns if one.hands_over), None)
    if turn is None:
        return Turn({"at": "", "handed": True}, effects=(HandOver(),))
    return _go(script, turn.id, words, [], [])


def _go(
    script: Script, id_: str, words: Mapping[ReplySlot, str], messages: list[str], effects: list[Effect]
) -> Turn:
    """On to a turn, and through every one that waits for nothing."""
    turn = script.turn(id_)
    while turn is not None:
        messages += [fill(line, words) for line in turn.says]
        effects += [Goal()] if turn.goal else []
        if turn.hands_over:
            said = _kept(messages)
            return Turn({"at": turn.id, "handed": True}, said, effects=(*effects, HandOver()))
        if turn.waits or turn.next is None:
            return Turn({"at": turn.id}, _kept(messages), _offers(turn), turn.asks, tuple(effects))
        turn = script.turn(turn.next)
    return Turn({"at": "", "handed": True}, _kept(messages), effects=(*effects, HandOver()))


def _kept(messages: list[str]) -> tuple[str, ...]:
    return tuple(one for one in messages if one)


def _offers(turn: ScriptTurn) -> tuple[Offer, ...]:
    skip = (Offer(SKIP, _RATHER_NOT),) if turn.may_skip else ()
    return tuple(Offer(one.id, one.label) for one in turn.choices) + skip
