"""Several sets of hours taken as one that is open when any of them is."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from zoneinfo import ZoneInfo

from .model import OpeningHours


@dataclass(frozen=True, slots=True)
class EitherHours:
    """Open when any member is; speaks in the first member's zone."""

    members: tuple[OpeningHours, ...]

    @property
    def zone(self) -> ZoneInfo:
        """The first member's zone."""
        return self.members[0].zone


def any_of(
    sets: Mapping[int | None, OpeningHours] | Mapping[int | None, OpeningHours | EitherHours],
    follows: Iterable[int | None],
) -> OpeningHours | EitherHours:
    """The sets that are followed and are there, open when any of them is;
    the main ones (None) where none is.
    """
    found = [sets[one] for one in follows if one in sets]
    return found[0] if len(found) == 1 else either(*found) if found else sets[None]


def either(first: OpeningHours | EitherHours, *others: OpeningHours | EitherHours) -> EitherHours:
    """Hours that are open when any of these is, told in the zone of `first`."""
    members: list[OpeningHours] = []
    for one in (first, *others):
        members.extend(one.members if isinstance(one, EitherHours) else (one,))
    return EitherHours(tuple(members))
