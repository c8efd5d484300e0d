"""Public holidays to pick exceptions from."""

import holidays

from .model import HoursException


def parts_of(region: str) -> tuple[tuple[str, str], ...]:
    """The parts of a country that have holidays of their own, as (code, name); none where it is not known."""
    try:
        country = holidays.country_holidays(region)
    except NotImplementedError:
        return ()
    names = {code: name for name, code in getattr(country, "subdivisions_aliases", {}).items()}
    found = ((code, names.get(code, code)) for code in country.subdivisions)
    return tuple(sorted(found, key=lambda one: one[1]))


def public_holidays(
    region: str, years: tuple[int, ...], subdivision: str | None = None, language: str = ""
) -> tuple[HoursException, ...]:
    """A country's public holidays as closed days, in order of date.

    `region` is an ISO 3166-1 alpha-2 code; `subdivision` one of its parts (like "ENG"). They are called as
    in `language` (ISO 639-1), where their names are known in it, else as in the country. A place that is not
    known raises ValueError. Source: the holidays package.
    """
    try:
        country = holidays.country_holidays(region)
        spoken = (one for one in country.supported_languages if one.split("_")[0] == language)
        called = next(spoken, country.default_language)
        found = holidays.country_holidays(region, subdiv=subdivision, years=years, language=called)
    except NotImplementedError as error:
        where = f"{region}, {subdivision}" if subdivision else region
        raise ValueError(f"no public holidays are known for {where}") from error
    return tuple(
        HoursException(first=day, last=day, label=str(label), holiday=True)
        for day, label in sorted(found.items())
    )
