"""Two changes of one thing, each made from the same earlier one, put together part by part."""

from collections.abc import Hashable, Iterable, Mapping
from dataclasses import dataclass
from typing import Generic, TypeVar

Part = TypeVar("Part")
Item = TypeVar("Item", bound=Hashable)


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


def lists_together(base: Iterable[Item], ours: Iterable[Item], theirs: Iterable[Item]) -> tuple[Item, ...]:
    """A list that holds nothing twice, with what either put in and without what either took out: nothing can
    clash. In the order of ours, then of theirs.
    """
    was, mine, other = (dict.fromkeys(each) for each in (base, ours, theirs))
    return tuple(one for one in mine | other if one in (other if (one in mine) == (one in was) else mine))
