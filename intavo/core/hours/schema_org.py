"""Hours as schema.org OpeningHoursSpecification, for the JSON-LD of a web page."""

from collections.abc import Iterable
from typing import Any

from .model import DAYS, WEEKDAYS, OpeningHours, Stretch, WeeklyStretch


def _times(stretch: Stretch) -> dict[str, str]:
    # 00:00 to 00:00 would say "closed"; a whole day is written to its last minute.
    at_midnight = "23:59" if stretch.from_ == "00:00" else "00:00"
    closes = at_midnight if stretch.to == "24:00" else stretch.to
    return {"opens": stretch.from_, "closes": closes}


def _weekly(week: Iterable[WeeklyStretch]) -> list[dict[str, Any]]:
    days: dict[tuple[str, str], list[str]] = {}
    for stretch in sorted(week, key=lambda s: (DAYS.index(s.day), s.start_minute)):
        times = _times(stretch)
        days.setdefault((times["opens"], times["closes"]), []).append(
            f"https://schema.org/{WEEKDAYS[DAYS.index(stretch.day)]}"
        )
    return [
        {"@type": "OpeningHoursSpecification", "dayOfWeek": names, "opens": opens, "closes": closes}
        for (opens, closes), names in days.items()
    ]


def opening_hours_specification(hours: OpeningHours) -> list[dict[str, Any]]:
    """The week and the exceptions as a list of OpeningHoursSpecification objects.

    Source: schema.org/OpeningHoursSpecification; a closed day opens and closes at 00:00, and a
    closing at or before the opening is on the next day.
    """
    rows = _weekly(hours.week)
    for one in hours.exceptions:
        valid = {"validFrom": one.first.isoformat(), "validThrough": one.last.isoformat()}
        named = {"description": one.label} if one.label else {}
        for times in [_times(s) for s in one.stretches] or [{"opens": "00:00", "closes": "00:00"}]:
            rows.append({"@type": "OpeningHoursSpecification", **valid, **named, **times})
    return rows
