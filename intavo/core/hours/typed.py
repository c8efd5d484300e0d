"""Times of day as people type them."""

import re
from itertools import dropwhile

# The console reads by the same four. Groups: the hour, the minute in one of two ways, "a" or "p".
CLOCK_PATTERN = r"^([0-9]{1,2})(?:\s*[:.hu]\s*([0-9]{2})?|([0-9]{2}))?\s*(?:([ap])\.?\s*m?\.?)?$"
NAMED_TIMES = {
    **dict.fromkeys(
        ("noon", "midday", "mittag", "mittags", "midi", "mediodía", "mediodia", "mezzogiorno", "middag",
         "meio-dia", "meio dia", "południe", "poludnie"), "12:00"),
    **dict.fromkeys(
        ("midnight", "mitternacht", "minuit", "medianoche", "mezzanotte", "middernacht", "meia-noite",
         "meia noite", "północ", "polnoc"), "24:00"),
}  # fmt: skip
# What people say before a time, and after its hour for "h", in the languages that visitors are spoken to in.
SAID_BEFORE = ("at", "um", "à", "a", "las", "alle", "ore", "om", "às", "as", "o", "godz.", "godz")
SAID_WITHIN = (
    "o'clock", "o’clock", "hrs", "uhr", "heures", "heure", "hora", "horas", "uur", "godz.", "godz", "godzina",
)  # fmt: skip
_CLOCK = re.compile(CLOCK_PATTERN, re.ASCII)
_TOUCHING = re.compile(r"([0-9])([^\W\d_])")


def read_clock(text: str) -> str:
    """ "8:30", "9am", "9.30", "0900", "5 pm" or "24:00" as "HH:MM" with two digits each.

    Raises ValueError that quotes what cannot be read as a time of day.
    """
    words = _TOUCHING.sub(r"\1 \2", text.lower()).split()
    given = " ".join("h" if one in SAID_WITHIN else one for one in dropwhile(SAID_BEFORE.__contains__, words))
    if given in NAMED_TIMES:
        return NAMED_TIMES[given]
    found = _CLOCK.match(given)
    if found is None:
        raise ValueError(f"“{text.strip()[:30]}” is not a time; write it like 9:30 or 5pm")
    hour, minute, half = int(found[1]), int(found[2] or found[3] or 0), found[4]
    if half and not 1 <= hour <= 12:
        raise ValueError(f"“{text.strip()[:30]}” is not a time; with am and pm the hours go from 1 to 12")
    if half:
        hour = hour % 12 + (12 if half == "p" else 0)
    if minute > 59 or hour > 24 or (hour == 24 and minute):
        raise ValueError(f"“{text.strip()[:30]}” is not a time of day")
    return f"{hour:02d}:{minute:02d}"
