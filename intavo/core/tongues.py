"""Which tongue somebody is spoken to in, and the words that ship in it; English is the key of every
catalogue.
"""

import gettext
from collections.abc import Iterable
from dataclasses import dataclass
from functools import cache
from pathlib import Path
from typing import Literal

from babel import Locale, UnknownLocaleError

LOCALES = Path(__file__).resolve().parent.parent / "locale"
# Languages whose catalogue is whole; a test counts.
SPOKEN = ("en", "de", "fr", "es", "it", "nl", "pt", "pl", "ar")


Direction = Literal["ltr", "rtl"]


@dataclass(frozen=True, slots=True)
class Tongue:
    """A language (two letters) and a region (ISO 3166-1 alpha-2), as somebody is spoken to."""

    language: str = "en"
    region: str = "GB"

    @property
    def spoken(self) -> str:
        """The language in which our own words are said: English where there are none in this one."""
        own = base_of(self.language)
        return own if own in SPOKEN else "en"

    @property
    def is_ours(self) -> bool:
        """Whether we have words in this language; where not, times are said by figures alone."""
        return base_of(self.language) in SPOKEN

    @property
    def ours(self) -> "Tongue":
        """What a whole sentence of ours is said in: this tongue, or English where we have no words in it."""
        return self if self.is_ours else Tongue(self.spoken, self.region)

    @property
    def direction(self) -> Direction:
        """ "rtl" for what is read from the right, else "ltr"."""
        return direction_of(self.language)


ENGLISH = Tongue()


class Phrase(str):
    """Words of ours: in English as they stand, and said in another tongue by `in_tongue`.

    `key` stands in every catalogue; `values` fill its places, words of ours among them in their tongue.
    `english` says more, where only English can.
    """

    key: str
    values: dict[str, object]

    def __new__(cls, key: str, english: str = "", **values: object) -> "Phrase":
        phrase = super().__new__(cls, english or (key.format(**values) if values else key))
        phrase.key, phrase.values = key, values
        return phrase

    def __str__(self) -> str:
        return self


def base_of(language: str) -> str:
    """The language of a tag (BCP 47) without its region, in small letters: "de" for "de-AT"."""
    return language.replace("_", "-").split("-")[0].lower()


def tongue_of(languages: Iterable[str], region: str) -> Tongue:
    """The first of these languages that is named, with the region; English where none is."""
    return Tongue(next((base_of(one) for one in languages if one), "en"), region)


def say(key: str, tongue: Tongue, **values: object) -> str:
    """Words of ours in a tongue, their places filled; in English where the catalogue has none."""
    found = _catalogue(tongue.spoken).gettext(key) if key else ""
    filled = {name: in_tongue(one, tongue) if isinstance(one, str) else one for name, one in values.items()}
    return found.format(**filled) if filled else found


def in_tongue(message: str, tongue: Tongue) -> str:
    """A text in a tongue, if it is one of ours; another stays as it is."""
    if not isinstance(message, Phrase) or tongue.spoken == "en":
        return message
    return say(message.key, tongue, **message.values)


@cache
def _catalogue(language: str) -> gettext.NullTranslations:
    return gettext.translation("intavo", LOCALES, [language], fallback=True)


def locale_of(tongue: Tongue) -> Locale:
    """How the tongue writes dates and numbers, by CLDR: of its region where that is known, else the
    language's own.
    """
    return _locale(tongue.spoken, tongue.region)


def own_locale_of(tongue: Tongue) -> Locale:
    """The same in languages that we have no words in as well."""
    return _locale(base_of(tongue.language), tongue.region)


@cache
def _locale(language: str, region: str) -> Locale:
    for name in (f"{language}_{region}", language):
        try:
            return Locale.parse(name)
        except (UnknownLocaleError, ValueError):
            continue
    return Locale("en", "GB")


@cache
def home_of(region: str) -> Locale:
    """The locale of the language that is spoken most in a region; British English where nothing is known of
    it.
    """
    try:
        return Locale.parse(f"und_{region}")
    except (UnknownLocaleError, ValueError):
        return Locale("en", "GB")


@cache
def direction_of(language: str) -> Direction:
    """ "rtl" for a language that is read from the right, else "ltr"; by CLDR."""
    try:
        return "rtl" if Locale.parse(base_of(language)).text_direction == "rtl" else "ltr"
    except (UnknownLocaleError, ValueError):
        return "ltr"


@cache
def twelve_hours(region: str) -> bool:
    """Whether clocks show twelve hours in a region, by CLDR."""
    return "h" in home_of(region).time_formats["short"].pattern.replace("'h'", "")
