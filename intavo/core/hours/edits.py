"""Two changes of one set of hours put together, by the day of the week and by the odd day."""

from ..edits import put_together
from .model import DAYS, WEEKDAYS, HoursException, OpeningHours, WeeklyStretch
from .taking_in import said_stretches

_ZONE = "the time zone"
Part = str | tuple[WeeklyStretch, ...] | HoursException


def hours_together(
    base: OpeningHours, ours: OpeningHours, theirs: OpeningHours
) -> tuple[OpeningHours, tuple[str, ...]]:
    """The hours with what both changed since `base`, and in words what both changed differently, with what
    theirs is now: of that, ours is kept.

    Two odd days that fall on one date are such a change as well.
    """
    if base in (ours, theirs):
        return theirs if ours == base else ours, ()
    mine, others = _parts(ours), _parts(theirs)
    both = put_together(_parts(base), mine, others)
    clashes = list(both.clashes)
    odd = []
    for name, part in both.parts.items():
        if not isinstance(part, HoursException):
            continue
        if name not in mine and any(_meet(part, one) for one in ours.exceptions):
            clashes.append(name)
        else:
            odd.append(part)
    week = [one for day in WEEKDAYS for one in _week(both.parts[day])]
    found = OpeningHours(
        timezone=str(both.parts[_ZONE]),
        week=tuple(week),
        exceptions=tuple(sorted(odd, key=lambda one: one.first)),
    )
    return found, tuple(f"{name} ({_said(others.get(name))})" for name in clashes)


def _parts(hours: OpeningHours) -> dict[str, Part]:
    parts: dict[str, Part] = {_ZONE: hours.timezone}
    for day, name in zip(DAYS, WEEKDAYS, strict=True):
        parts[name] = tuple(one for one in hours.week if one.day == day)
    return parts | {_dates(one): one for one in hours.exceptions}


def _dates(odd: HoursException) -> str:
    """What an odd day is known by: a set has no two of them on one date."""
    return f"{odd.first}" if odd.first == odd.last else f"{odd.first} – {odd.last}"


def _said(part: Part | None) -> str:
    if isinstance(part, str):
        return part
    if isinstance(part, HoursException):
        return " ".join(filter(None, (part.label, said_stretches(part.stretches))))
    return "taken out" if part is None else said_stretches(part)


def _week(part: Part) -> tuple[WeeklyStretch, ...]:
    return part if isinstance(part, tuple) else ()


def _meet(odd: HoursException, other: HoursException) -> bool:
    return odd.first <= other.last and other.first <= odd.last
