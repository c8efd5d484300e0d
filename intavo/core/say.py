"""Times and lengths as people say them, in the business's zone and in a tongue; dates and clocks are CLDR's.

Without a tongue it is English, with the clock and dates of whoever reads it (`READER`).
"""

from collections.abc import Iterable
from contextvars import ContextVar
from datetime import date, datetime, time, timedelta
from zoneinfo import ZoneInfo

from babel.dates import format_skeleton, format_time, get_day_names, get_timezone_location

from .tongues import ENGLISH as ENGLISH
from .tongues import Phrase, locale_of, own_locale_of, say, twelve_hours
from .tongues import Tongue as Tongue

# Who reads what is said where no tongue is given: a member of a business, by its region. Set for each
# request.
READER: ContextVar[Tongue] = ContextVar("reader", default=ENGLISH)
# By weekday, Monday first: other languages bend the name of the day behind "on".
_ON = (
    Phrase("on Monday"), Phrase("on Tuesday"), Phrase("on Wednesday"), Phrase("on Thursday"),
    Phrase("on Friday"), Phrase("on Saturday"), Phrase("on Sunday"),
)  # fmt: skip
_NEAR = (Phrase("today"), Phrase("tomorrow"))
_JOINED = {"by": Phrase("{day} by {time}"), "at": Phrase("{day} at {time}")}
_NARROW = str.maketrans({"\u202f": " ", "\xa0": " "})


def joined(words: Iterable[str], last: str = "and") -> str:
    """Words for the owner one after the other: "a, b and c"; nothing where there are none."""
    *others, end = list(words) or [""]
    return f"{', '.join(others)} {last} {end}" if others else end


def time_words(clock: time, tongue: Tongue | None = None) -> str:
    """A time of day on the region's clock: "15:25", "3:25 PM"."""
    tongue = tongue or READER.get()
    locale = locale_of(tongue)
    if locale.territory == tongue.region:
        made = format_time(clock, "short", locale=locale)
    else:
        made = format_skeleton(
            "hm" if twelve_hours(tongue.region) else "Hm",
            datetime.combine(date.min, clock),
            None,
            locale=locale,
        )
    return made.translate(_NARROW)


def short_date(day: date, tongue: Tongue | None = None) -> str:
    """A date like "Sat 28 Nov", in the order of the tongue's region."""
    tongue = tongue or READER.get()
    return format_skeleton("MMMEd", day, locale=locale_of(tongue)).translate(_NARROW)


def full_date(day: date, tongue: Tongue | None = None) -> str:
    """A date with its year: "28 Nov 2026"."""
    tongue = tongue or READER.get()
    return format_skeleton("yMMMd", day, locale=locale_of(tongue)).translate(_NARROW)


def date_only(day: date, tongue: Tongue | None = None) -> str:
    """A date without its weekday and year: "28 Nov"."""
    tongue = tongue or READER.get()
    return format_skeleton("MMMd", day, locale=locale_of(tongue)).translate(_NARROW)


def day_name(weekday: int, tongue: Tongue | None = None) -> str:
    """The name of a weekday (Monday is 0) as it stands by itself: "Saturday"."""
    tongue = tongue or READER.get()
    return str(get_day_names("wide", "stand-alone", locale=locale_of(tongue))[weekday])


def day_words(day: date, today: date, tongue: Tongue | None = None) -> str:
    """A day as said on `today`: "today", "tomorrow", "on Saturday", "on Sat 5 Dec"."""
    tongue = tongue or READER.get()
    ahead = (day - today).days
    if ahead in {0, 1}:
        return say(_NEAR[ahead], tongue)
    if 1 < ahead < 7:
        return say(_ON[day.weekday()], tongue)
    return say(Phrase("on {date}").key, tongue, date=short_date(day, tongue))


def zone_words(zone: ZoneInfo, tongue: Tongue | None = None) -> str:
    """A zone as said to people elsewhere: "London time"."""
    tongue = tongue or READER.get()
    city = get_timezone_location(zone, locale=locale_of(tongue), return_city=True)
    if tongue.spoken == "en":
        city = zone.key.rsplit("/", 1)[-1].replace("_", " ")
    return say(Phrase("{city} time").key, tongue, city=city)


def moment_words(
    when: datetime,
    at: datetime,
    zone: ZoneInfo,
    joined: str,
    tongue: Tongue | None = None,
    visitor_offset: int | None = None,
) -> str:
    """A moment as said at `at`, like "today by 15:25" or "on Saturday at 08:00".

    `joined` is "by" or "at". `visitor_offset` is the visitor's offset from UTC in minutes
    (east positive); where it differs from the zone's, the zone is named. By midnight is the end of a day,
    not the beginning of the next.
    """
    tongue = tongue or READER.get()
    local, today = when.astimezone(zone), at.astimezone(zone).date()
    if joined == "by" and is_midnight(local) and local.date() > today:
        words = _by_midnight(local.date() - timedelta(days=1), today, tongue)
    else:
        key = _JOINED[joined].key if joined in _JOINED else f"{{day}} {joined} {{time}}"
        day = day_words(local.date(), today, tongue)
        words = say(key, tongue, day=day, time=time_words(local.time(), tongue))
    offset = local.utcoffset()
    if visitor_offset is None or offset is None or offset == timedelta(minutes=visitor_offset):
        return words
    return f"{words} ({zone_words(zone, tongue)})"


def is_midnight(local: datetime) -> bool:
    """Whether a clock on the wall shows 00:00."""
    return not (local.hour or local.minute)


def _by_midnight(day: date, today: date, tongue: Tongue) -> str:
    if day == today:
        return say(Phrase("by midnight").key, tongue)
    return say(Phrase("{day} by midnight").key, tongue, day=day_words(day, today, tongue))


def figures(
    when: datetime, zone: ZoneInfo, tongue: Tongue, visitor_offset: int | None = None, day: bool = True
) -> str:
    """A moment with no word of ours in it, as any language writes it: "Maw, 24 Tach 16:05"; its time alone
    without `day`. The zone is named as for `moment_words`.
    """
    locale, local = own_locale_of(tongue), when.astimezone(zone)
    words = format_time(local.time(), "short", locale=locale)
    if day:
        date = format_skeleton("MMMEd", local.date(), locale=locale)
        words = str(locale.datetime_formats["medium"]).format(words, date)
    offset = local.utcoffset()
    if visitor_offset is not None and offset is not None and offset != timedelta(minutes=visitor_offset):
        words = f"{words} ({get_timezone_location(zone, locale=locale)})"
    return words.translate(_NARROW)


def beside_words(
    when: datetime, ours: ZoneInfo, theirs: ZoneInfo | None, tongue: Tongue | None = None
) -> tuple[date, str]:
    """The day and the time of a moment for somebody elsewhere: by their own clock, with ours beside it where
    it differs: "10:00 (09:00 London time)", and with our day where that is another. `theirs` is None where it
    is not known: then it is our day and time.
    """
    tongue = tongue or READER.get()
    here = when.astimezone(ours)
    there = when.astimezone(theirs or ours)
    if here.utcoffset() == there.utcoffset():
        return here.date(), time_words(here.time(), tongue)
    words = time_words(here.time(), tongue)
    if here.date() != there.date():
        words = f"{short_date(here.date(), tongue)}, {words}"
    return there.date(), f"{time_words(there.time(), tongue)} ({words} {zone_words(ours, tongue)})"


def day_and_time(local: datetime, tongue: Tongue | None = None) -> str:
    """A date and a time of day as a clock on the wall shows them, put together as the language does: "Sat 28
    Nov, 08:00".
    """
    tongue = tongue or READER.get()
    day, clock = short_date(local.date(), tongue), time_words(local.time(), tongue)
    return str(locale_of(tongue).datetime_formats["medium"]).format(clock, day)


def stamp(when: datetime, zone: ZoneInfo, tongue: Tongue | None = None) -> str:
    """A moment in full, like "Sat 28 Nov, 08:00"."""
    return day_and_time(when.astimezone(zone), tongue)


def near_words(when: datetime, at: datetime, zone: ZoneInfo, tongue: Tongue | None = None) -> str:
    """A moment beside others, as said to a member at `at`: "21:00 today", "08:00 tomorrow", else in full."""
    tongue = tongue or READER.get()
    local = when.astimezone(zone)
    ahead = (local.date() - at.astimezone(zone).date()).days
    if ahead not in {0, 1}:
        return stamp(when, zone, tongue)
    return f"{time_words(local.time(), tongue)} {_NEAR[ahead]}"


def from_words(when: datetime, at: datetime, zone: ZoneInfo, tongue: Tongue | None = None) -> str:
    """From when on, as short as it can be said to a member: "from 21:00 today", "from tomorrow", "from 1
    Dec".
    """
    tongue = tongue or READER.get()
    local = when.astimezone(zone)
    ahead = (local.date() - at.astimezone(zone).date()).days
    if ahead in {0, 1} and (local.hour or local.minute or not ahead):
        return f"from {near_words(when, at, zone, tongue)}"
    return "from tomorrow" if ahead == 1 else f"from {date_only(local.date(), tongue)}"


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
