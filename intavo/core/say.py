"""Times and lengths as people say them, in English and in the business's zone."""

from datetime import date, datetime, timedelta
from zoneinfo import ZoneInfo

_DAYS = ("Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday")
_MONTHS = ("Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec")


def short_date(day: date) -> str:
    """A date like "Sat 28 Nov"."""
    return f"{_DAYS[day.weekday()][:3]} {day.day} {_MONTHS[day.month - 1]}"


def day_words(day: date, today: date) -> str:
    """A day as said on `today`: "today", "tomorrow", "on Saturday", "on Sat 5 Dec"."""
    ahead = (day - today).days
    if ahead == 0:
        return "today"
    if ahead == 1:
        return "tomorrow"
    return f"on {_DAYS[day.weekday()]}" if 1 < ahead < 7 else f"on {short_date(day)}"


def zone_words(zone: ZoneInfo) -> str:
    """A zone as said to people elsewhere: "London time"."""
    return f"{zone.key.rsplit('/', 1)[-1].replace('_', ' ')} time"


def moment_words(when: datetime, at: datetime, zone: ZoneInfo, joined: str, visitor_offset: int | None = None) -> str:
    """A moment as said at `at`, like "today by 15:25" or "on Saturday at 08:00".

    `joined` is the word before the time. `visitor_offset` is the visitor's offset from UTC in minutes
    (east positive); where it differs from the zone's, the zone is named.
    """
    local = when.astimezone(zone)
    words = f"{day_words(local.date(), at.astimezone(zone).date())} {joined} {local:%H:%M}"
    offset = local.utcoffset()
    if visitor_offset is None or offset is None or offset == timedelta(minutes=visitor_offset):
        return words
    return f"{words} ({zone_words(zone)})"


def stamp(when: datetime, zone: ZoneInfo) -> str:
    """A moment in full, like "Sat 28 Nov, 08:00"."""
    local = when.astimezone(zone)
    return f"{short_date(local.date())}, {local:%H:%M}"


def near_words(when: datetime, at: datetime, zone: ZoneInfo) -> str:
    """A moment beside others, as said at `at`: "21:00 today", "08:00 tomorrow", else in full."""
    local = when.astimezone(zone)
    ahead = (local.date() - at.astimezone(zone).date()).days
    return f"{local:%H:%M} {('today', 'tomorrow')[ahead]}" if ahead in {0, 1} else stamp(when, zone)


def from_words(when: datetime, at: datetime, zone: ZoneInfo) -> str:
    """From when on, as short as it can be said at `at`: "from 21:00 today", "from tomorrow", "from 1 Dec"."""
    local = when.astimezone(zone)
    ahead = (local.date() - at.astimezone(zone).date()).days
    if ahead in {0, 1} and (local.hour or local.minute or not ahead):
        return f"from {near_words(when, at, zone)}"
    return "from tomorrow" if ahead == 1 else f"from {local.day} {_MONTHS[local.month - 1]}"


def length_words(length: timedelta) -> str:
    """A length like "1 h 20", "2 h" or "55 min", rounded down to minutes."""
    hours, minutes = divmod(int(length.total_seconds()) // 60, 60)
    if not hours:
        return f"{minutes} min"
    return f"{hours} h {minutes:02d}" if minutes else f"{hours} h"
