"""What people tells the apps above it."""

from dataclasses import dataclass, field
from typing import Any

from intavo.accounts.actor import Actor
from intavo.core.effects import Effect


@dataclass(frozen=True, slots=True)
class Erasing:
    """Somebody who is about to be erased, with every spelling of their addresses."""

    business_id: int
    person_id: int
    spellings: tuple[str, ...]


@dataclass
class Merging:
    """Two cards that are about to be one; what an app has to know to undo it goes into `record` under its
    name.
    """

    actor: Actor
    kept_id: int
    gone_id: int
    record: dict[str, Any] = field(default_factory=dict)


@dataclass
class Searching:
    """Words that are looked for, as a query is `asked`; an app adds whom it found them with, where, and
    around what: that only where `whom` names those of whom it is wanted.
    """

    asked: dict[str, Any]
    found: list[tuple[int, str, str]] = field(default_factory=list)


words_sought: Effect[Searching] = Effect("words are looked for")
person_erased: Effect[Erasing] = Effect("somebody is about to be erased")
people_held: Effect[Merging] = Effect("two cards are about to be held fast: what hangs on them comes first")
people_merged: Effect[Merging] = Effect("two cards are about to be one")
people_split: Effect[Merging] = Effect("one card is two again")
people_changed: Effect[tuple[Actor, int]] = Effect("something of a person's card changed (who, whose)")
