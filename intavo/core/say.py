"""Times and lengths as people say them, in the business's zone and in a tongue; one without words says English."""

from dataclasses import dataclass
from datetime import date, datetime, timedelta
from zoneinfo import ZoneInfo


@dataclass(frozen=True, slots=True)
class Tongue:
    """A language (two letters) and a region (ISO 3166-1 alpha-2), as somebody is spoken to."""

    language: str = "en"
    region: str = "GB"


@dataclass(frozen=True, slots=True)
class _Wording:
    """The words of a language. `day` and `date` are said after today and tomorrow; `moment` joins a day and a time."""

    days: tuple[str, ...]
    months: tuple[str, ...]
    near: tuple[str, str]
    day: str
    date: str
    moment: str


ENGLISH = Tongue()
_WORDINGS = {
    "en": _Wording(
        ("Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday"),
        ("Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec"),
        ("today", "tomorrow"), "on {day}", "on {date}", "{day} {joined} {time}",
    )
}  # fmt: skip


def _wording(tongue: Tongue) -> _Wording:
    return _WORDINGS.get(tongue.language.split("-")[0].lower(), _WORDINGS["en"])


def short_date(day: date, tongue: Tongue = ENGLISH) -> str:
    """A date like "Sat 28 Nov"."""
    words = _wording(tongue)
    return f"{words.days[day.weekday()][:3]} {day.day} {words.months[day.month - 1]}"


def day_words(day: date, today: date, tongue: Tongue = ENGLISH) -> str:
    """A day as said on `today`: "today", "tomorrow", "on Saturday", "on Sat 5 Dec"."""
    ahead, words = (day - today).days, _wording(tongue)
    if ahead in {0, 1}:
        return words.near[ahead]
    if 1 < ahead < 7:
        return words.day.format(day=words.days[day.weekday()])
    return words.date.format(date=short_date(day, tongue))


def zone_words(zone: ZoneInfo) -> str:
    """A zone as said to people elsewhere: "London time"."""
    return f"{zone.key.rsplit('/', 1)[-1].replace('_', ' ')} time"


def moment_words(
    when: datetime, at: datetime, zone: ZoneInfo, joined: str, visitor_offset: int | None = None,
    tongue: Tongue = ENGLISH,
) -> str:  # fmt: skip
    """A moment as said at `at`, like "today by 15:25" or "on Saturday at 08:00".

    `joined` is the word before the time. `visitor_offset` is the visitor's offset from UTC in minutes
    (east positive); where it differs from the zone's, the zone is named.
    """
    local = when.astimezone(zone)
    day = day_words(local.date(), at.astimezone(zone).date(), tongue)
    words = _wording(tongue).moment.format(day=day, joined=joined, time=f"{local:%H:%M}")
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
    return "from tomorrow" if ahead == 1 else f"from {local.day} {_wording(ENGLISH).months[local.month - 1]}"


def length_words(length: timedelta) -> str:
    """A length like "1 h 20", "2 h" or "55 min", rounded down to minutes."""
    hours, minutes = divmod(int(length.total_seconds()) // 60, 60)
    if not hours:
        return f"{minutes} min"
    return f"{hours} h {minutes:02d}" if minutes else f"{hours} h"


def days_words(minutes: int) -> str:
    """A length of whole minutes with its days: "3 days 4 h", "1 h 30" or "45 min"."""
    days, rest = divmod(minutes, 24 * 60)
    if not days:
        return length_words(timedelta(minutes=minutes))
    hours, left = divmod(rest, 60)
    words = [f"{days} day" if days == 1 else f"{days} days"]
    words += [f"{hours} h"] if hours else []
    words += [f"{left} min"] if left else []
    return " ".join(words)
