"""A conversation's script as data: turns, each of which says something and offers, asks, hands over or goes
on.
"""

from collections.abc import Iterator
from functools import cache
from typing import Annotated, Literal, Self

from pydantic import BeforeValidator, Field, StringConstraints, model_validator

from ..replies import ReplySlotRun, runs_of
from ..tongues import ENGLISH, Phrase, Tongue, say
from ..values import Id, Model, as_runs

Asks = Literal["text", "email", "phone"]
Tag = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=60)]


Run = Annotated[str, Field(max_length=2000)] | ReplySlotRun
Line = Annotated[
    tuple[Run, ...],
    BeforeValidator(as_runs),
    Field(max_length=50),
]


class Choice(Model):
    """A reply that can be clicked: it tags, says, reaches the goal, starts a series, and leads on."""

    id: Id
    label: str = Field(min_length=1, max_length=60)
    tags: tuple[Tag, ...] = Field((), max_length=10)
    says: tuple[Line, ...] = Field((), max_length=5)
    next: Id | None = None
    goal: bool = False
    series: Id | None = None


class ScriptTurn(Model):
    """What is said, and then either choices, a question, a person, or the next turn; with none of them it
    ends.
    """

    id: Id
    says: tuple[Line, ...] = Field((), max_length=5)
    choices: tuple[Choice, ...] = Field((), max_length=8)
    asks: Asks | None = None
    may_skip: bool = False
    next: Id | None = None
    hands_over: bool = False
    goal: bool = False

    @property
    def waits(self) -> bool:
        """Whether it is the visitor's turn after it."""
        return bool(self.choices) or self.asks is not None

    @property
    def leads_to(self) -> tuple[str, ...]:
        """The turns that may come after it."""
        ways = [self.next, *(one.next for one in self.choices)]
        return tuple(dict.fromkeys(one for one in ways if one is not None))

    @property
    def ends(self) -> bool:
        """Whether the script can end with it."""
        return (
            self.hands_over
            or any(one.next is None for one in self.choices)
            or not (self.choices or self.next)
        )


class Script(Model):
    """The whole script; refused, with the turn named, where it cannot end or goes nowhere."""

    version: Literal[1] = 1
    start: Id
    turns: tuple[ScriptTurn, ...] = Field(min_length=1, max_length=60)

    @model_validator(mode="after")
    def _holds_together(self) -> Self:
        for place, words in self._faults():
            raise ValueError(f"turn “{place}”: {words}")
        return self

    def turn(self, id_: str) -> ScriptTurn | None:
        """A turn by its id."""
        return next((one for one in self.turns if one.id == id_), None)

    def _faults(self) -> Iterator[tuple[str, str]]:
        known = [one.id for one in self.turns]
        yield from ((id_, "there are two of this id") for id_ in known if known.count(id_) > 1)
        if self.start not in known:
            yield self.start, "the conversation begins with it, but it does not exist"
            return
        for one in self.turns:
            yield from ((one.id, words) for words in _about(one, set(known)))
        yield from (
            (one.id, "nobody ever gets here") for one in self.turns if one.id not in self._reached(self.start)
        )
        for one in self.turns:
            if not any(self.turn(id_).ends for id_ in self._reached(one.id)):  # type: ignore[union-attr]  # all are known
                yield one.id, "from here on the conversation cannot end"
        yield from (
            (one.id, "it goes on for ever without waiting for an answer")
            for one in self.turns
            if self._spins(one)
        )

    def _reached(self, start: str) -> set[str]:
        reached, waiting = {start}, [start]
        while waiting:
            turn = self.turn(waiting.pop())
            fresh = [one for one in (turn.leads_to if turn else ()) if one not in reached]
            reached.update(fresh)
            waiting += fresh
        return reached

    def _spins(self, begun: ScriptTurn) -> bool:
        seen: set[str] = set()
        turn: ScriptTurn | None = begun
        while turn is not None and not turn.waits and not turn.hands_over:
            if turn.id in seen:
                return True
            seen.add(turn.id)
            turn = self.turn(turn.next) if turn.next else None
        return False


def _about(turn: ScriptTurn, known: set[str]) -> Iterator[str]:
    yield from (f"it leads to “{way}”, which does not exist" for way in turn.leads_to if way not in known)
    ids = [choice.id for choice in turn.choices]
    yield from (f"two of its choices are “{id_}”" for id_ in dict.fromkeys(ids) if ids.count(id_) > 1)
    if sum([bool(turn.choices), turn.asks is not None, turn.hands_over]) > 1:
        yield "it offers choices, asks, or hands over: one of them"
    if turn.may_skip and turn.asks is None:
        yield "only a question can be skipped"
    if (turn.choices or turn.hands_over) and turn.next:
        yield "what comes next is said by its choices, or by the person"


FIRST = "how-to-reach-you"
_ONE_OF_US = Phrase("Thank you. One of us answers {promise}.")
_ADDRESS_FIRST = Phrase("Leave your email address first, so that our answer finds you.")


@cache
def straight(tongue: Tongue = ENGLISH) -> Script:
    """The script of a conversation that has none of its own: a word, and then a person."""
    word = ScriptTurn(id="word", asks="text", next="hand")
    return Script(
        start="word",
        turns=(word, ScriptTurn(id="hand", says=(runs_of(say(_ONE_OF_US, tongue)),), hands_over=True)),
    )


STRAIGHT = straight()


def with_address_first(script: Script, tongue: Tongue = ENGLISH) -> Script:
    """The script with a question for an address before it, which can be passed over: for while nobody is
    there.
    """
    first = ScriptTurn(
        id=FIRST, says=((say(_ADDRESS_FIRST, tongue),),), asks="email", may_skip=True, next=script.start
    )
    return Script(start=FIRST, turns=(first, *script.turns))
