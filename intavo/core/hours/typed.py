"""Times of day as people type them."""

import re

_CLOCK = re.compile(
    r"^(?P<h>[0-9]{1,2})(?:\s*[:.h]\s*(?P<m>[0-9]{2})?|(?P<mm>[0-9]{2}))?\s*(?P<half>[ap])?\.?\s*(?:m\.?)?$"
)
_NAMED = {"noon": "12:00", "midday": "12:00", "midnight": "24:00"}


def read_clock(text: str) -> str:
    """ "8:30", "9am", "9.30", "0900", "5 pm" or "24:00" as "HH:MM" with two digits each.

    Raises ValueError that quotes what cannot be read as a time of day.
    """
    given = " ".join(text.casefold().replace("o'clock", "").replace("uhr", "").split())
    if given in _NAMED:
        return _NAMED[given]
    found = _CLOCK.match(given)
    if found is None:
        raise ValueError(f"“{text.strip()[:30]}” is not a time; write it like 9:30 or 5pm")
    hour, minute, half = int(found["h"]), int(found["m"] or found["mm"] or 0), found["half"]
    if half and not 1 <= hour <= 12:
        raise ValueError(f"“{text.strip()[:30]}” is not a time; with am and pm the hours go from 1 to 12")
    if half:
        hour = hour % 12 + (12 if half == "p" else 0)
    if minute > 59 or hour > 24 or (hour == 24 and minute):
        raise ValueError(f"“{text.strip()[:30]}” is not a time of day")
    return f"{hour:02d}:{minute:02d}"
