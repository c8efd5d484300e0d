"""Time zones and countries with the names that people know, and what follows from a country. Source: CLDR, by
Babel.
"""

from dataclasses import dataclass
from functools import cache

from babel import Locale, UnknownLocaleError
from babel.core import get_global
from babel.dates import get_timezone_location
from babel.numbers import get_territory_currencies

from .tongues import base_of, home_of


@dataclass(frozen=True, slots=True)
class Zone:
    """A time zone: its IANA key, what it is called, and the country it lies in."""

    key: str
    name: str
    region: str


@dataclass(frozen=True, slots=True)
class Region:
    """A country: its two letters, its name, its currency, and the language that is spoken most there."""

    code: str
    name: str
    currency: str
    language: str


@cache
def zones() -> tuple[Zone, ...]:
    """Every zone that a place on land goes by, each once, by country and town."""
    names, aliases = _names(), get_global("zone_aliases")
    found = [
        Zone(key, _called(key, names[region]), region)
        for key, region in get_global("zone_territories").items()
        if region in names and key not in aliases
    ]
    return tuple(sorted(found, key=lambda one: one.name))


def _called(key: str, country: str) -> str:
    """ "United Kingdom", or with the town where a country has several: "United States: New York"."""
    said = get_timezone_location(key, locale="en").removesuffix(" Time")
    # Where a country has several, CLDR says it with the town in brackets; a country's own name may have some
    # too.
    inside = said.removeprefix(country).partition("(")[2].removesuffix(")")
    return f"{country}: {inside or get_timezone_location(key, locale='en', return_city=True)}"


@cache
def _names() -> dict[str, str]:
    known = {
        region for region in get_global("zone_territories").values() if len(region) == 2 and region.isalpha()
    }
    return {code: name for code, name in Locale("en").territories.items() if code in known - {"ZZ"}}


@cache
def regions() -> tuple[Region, ...]:
    """Every country that has a time, by its name; each once, and none without a name."""
    found = [Region(code, name, currency_of(code), language_of(code)) for code, name in _names().items()]
    return tuple(sorted(found, key=lambda one: one.name))


def region_of(zone: str) -> str | None:
    """The country that a zone lies in, its older names too; None where it lies in none."""
    key = get_global("zone_aliases").get(zone, zone)
    found = get_global("zone_territories").get(key)
    return found if found in _names() else None


def currency_of(region: str) -> str:
    """The currency that is used in a country now; USD where none is known."""
    found = get_territory_currencies(region)
    return str(found[-1]) if found else "USD"


@cache
def language_of(region: str) -> str:
    """The language that is spoken most in a region, by two letters; English where none is known."""
    found = home_of(region).language
    return found if found in languages() else "en"


def read_language(text: str) -> str:
    """A language's code of two letters from a tag (BCP 47); ValueError, in words for the owner, for none."""
    code = base_of(text.strip())
    if code not in languages():
        raise ValueError(f"“{text[:20]}” is no language that is known.")
    return code


@cache
def language_named(tag: str) -> str:
    """A language as it is called in English ("German (Austria)" of de-AT); the tag itself where none is
    known.

    `tag` is as browsers say it (BCP 47). Source: CLDR.
    """
    try:
        return Locale.parse(tag, sep="-").get_display_name("en") or tag
    except (ValueError, UnknownLocaleError):
        return tag


@cache
def languages() -> dict[str, str]:
    """Languages by their code of two letters, with their English names. Source: CLDR."""
    return {code: name for code, name in Locale("en").languages.items() if len(code) == 2}
