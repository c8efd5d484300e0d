"""Two changes of one thing, each made from the same earlier one, put together part by part."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Generic, TypeVar

Part = TypeVar("Part")


@dataclass(frozen=True, slots=True)
class Together(Generic[Part]):
    """The parts of both; of those in `clashes`, which both changed and differently, ours."""

    parts: dict[str, Part]
    clashes: tuple[str, ...]


def put_together(
    base: Mapping[str, Part], ours: Mapping[str, Part], theirs: Mapping[str, Part]
) -> Together[Part]:
    """What `ours` and `theirs` made of `base`, both kept: a part that one of them left as it was is the
    other's. A part that is not there is one that was taken away. In the order of ours, then of theirs.
    """
    parts: dict[str, Part] = {}
    clashes = []
    for name in dict.fromkeys([*ours, *theirs, *base]):
        was, mine, other = base.get(name), ours.get(name), theirs.get(name)
        if mine != was and other not in (was, mine):
            clashes.append(name)
        kept = other if mine == was else mine
        if kept is not None:
            parts[name] = kept
    return Together(parts, tuple(clashes))
