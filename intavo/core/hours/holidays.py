"""Public holidays to pick exceptions from."""

import holidays

from .model import HoursException


def public_holidays(region: str, years: tuple[int, ...], subdivision: str | None = None) -> tuple[HoursException, ...]:
    """A country's public holidays as closed days, in order of date.

    `region` is an ISO 3166-1 alpha-2 code; `subdivision` one of its parts (like "ENG"). A place that
    is not known raises ValueError. Source: the holidays package.
    """
    try:
        found = holidays.country_holidays(region, subdiv=subdivision, years=years)
    except NotImplementedError as error:
        raise ValueError(f"no public holidays are known for {region}") from error
    return tuple(
        HoursException(first=day, last=day, label=str(label), holiday=True) for day, label in sorted(found.items())
    )
