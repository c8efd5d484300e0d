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
    hours: OpeningHours, fresh: Iterable[HoursException]
) -> tuple[tuple[HoursException, ...], tuple[Coming, ...]]:
    """All odd days as they would be, in order, and what each that comes in would do.

    On its days it takes the place of what is there; the other days of a longer one stay as they are.
    """
    kept, coming = list(hours.exceptions), []
    for one in fresh:
        there = [each for each in kept if each.first <= one.last and each.last >= one.first]
        known = any(_same(each, one) for each in there)
        coming.append(
            Coming(one, tuple(dict.fromkeys(_called(each) for each in there)), _usual(hours, one), known)
        )
        if not known:
            kept = [piece for each in kept for piece in _without(each, one)] + [one]
    return tuple(sorted(kept, key=lambda each: each.first)), tuple(coming)


def _same(there: HoursException, exception: HoursException) -> bool:
    return (
        there.first <= exception.first
        and there.last >= exception.last
        and there.stretches == exception.stretches
    )


def _without(there: HoursException, exception: HoursException) -> Iterator[HoursException]:
    """What is left of one on the days that another does not take."""
    if there.last < exception.first or there.first > exception.last:
        yield there
        return
    if there.first < exception.first:
        yield there.model_copy(update={"last": exception.first - _ONE_DAY})
    if there.last > exception.last:
        yield there.model_copy(update={"first": exception.last + _ONE_DAY})


def _called(exception: HoursException) -> str:
    return exception.label or f"{exception.first:%d.%m.%Y}"


def _usual(hours: OpeningHours, exception: HoursException) -> str:
    """When the first of its days is open in other weeks."""
    plain = hours.model_copy(update={"exceptions": ()})
    stretches, _ = plain.stretches_starting_on(exception.first)
    return said_stretches(stretches)


def said_stretches(stretches: Iterable[Stretch]) -> str:
    """ "09:00–12:00, 14:00–18:00", or "closed"."""
    return ", ".join(f"{each.from_}–{each.to}" for each in stretches) or "closed"
