"""Odd days that come in from elsewhere, laid over those that are there: what each would do."""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from datetime import timedelta

from .model import HoursException, OpeningHours, Stretch

_ONE_DAY = timedelta(days=1)


@dataclass(frozen=True, slots=True)
class Coming:
    """One that comes in: what it is, what was there on its days, and whether that is the same already."""

    exception: HoursException
    replaces: tuple[str, ...]
    usual: str
    known: bool


def taken_in(
    hours: OpeningHours, found: Iterable[HoursException]
) -> tuple[tuple[HoursException, ...], tuple[Coming, ...]]:
    """All odd days as they would be, in order, and what each that comes in would do.

    On its days it takes the place of what is there; the other days of a longer one stay as they are.
    """
    kept, coming = list(hours.exceptions), []
    for one in found:
        there = [each for each in kept if each.first <= one.last and each.last >= one.first]
        known = any(_same(each, one) for each in there)
        coming.append(Coming(one, tuple(dict.fromkeys(_called(each) for each in there)), _usual(hours, one), known))
        if not known:
            kept = [piece for each in kept for piece in _without(each, one)] + [one]
    return tuple(sorted(kept, key=lambda each: each.first)), tuple(coming)


def _same(there: HoursException, one: HoursException) -> bool:
    return there.first <= one.first and there.last >= one.last and there.stretches == one.stretches


def _without(there: HoursException, one: HoursException) -> Iterator[HoursException]:
    """What is left of one on the days that another does not take."""
    if there.last < one.first or there.first > one.last:
        yield there
        return
    if there.first < one.first:
        yield there.model_copy(update={"last": one.first - _ONE_DAY})
    if there.last > one.last:
        yield there.model_copy(update={"first": one.last + _ONE_DAY})


def _called(one: HoursException) -> str:
    return one.label or f"{one.first:%d.%m.%Y}"


def _usual(hours: OpeningHours, one: HoursException) -> str:
    """When the first of its days is open in other weeks."""
    plain = hours.model_copy(update={"exceptions": ()})
    stretches, _ = plain.stretches_starting_on(one.first)
    return said_stretches(stretches)


def said_stretches(stretches: Iterable[Stretch]) -> str:
    """ "09:00–12:00, 14:00–18:00", or "closed"."""
    return ", ".join(f"{each.from_}–{each.to}" for each in stretches) or "closed"
