"""Zones and countries as people know them."""

from zoneinfo import available_timezones

import pytest

from intavo.core.places import currency_of, language_named, region_of, regions, zones


def test_every_zone_and_country_stands_once_with_a_name_and_can_be_used() -> None:
    for found in (zones(), regions()):
        names = [one.name for one in found]
        assert names == sorted(names)
        assert len(names) == len(set(names))
        assert all(name.strip() and "Pseudo" not in name and "Unknown" not in name for name in names)
    assert {one.key for one in zones()} <= available_timezones()
    assert {one.region for one in zones()} == {one.code for one in regions()}


@pytest.mark.parametrize(
    ("zone", "region", "currency"),
    [
        ("Europe/London", "GB", "GBP"), ("America/New_York", "US", "USD"), ("Asia/Calcutta", "IN", "INR"),
        ("Europe/Berlin", "DE", "EUR"), ("Australia/Sydney", "AU", "AUD"), ("Europe/Dublin", "IE", "EUR"),
    ],
)  # fmt: skip
def test_country_and_currency_follow_the_zone(zone: str, region: str, currency: str) -> None:
    assert region_of(zone) == region
    assert currency_of(region) == currency


def test_a_zone_without_a_place_has_no_country() -> None:
    assert region_of("Etc/UTC") is None
    assert region_of("nowhere") is None


def test_no_place_is_called_by_half_of_its_countrys_name() -> None:
    assert not [zone.name for zone in zones() if zone.name.count("(") != zone.name.count(")")]


@pytest.mark.parametrize(
    ("tag", "name"),
    [
        ("de", "German"), ("de-AT", "German (Austria)"), ("PT-br", "Portuguese (Brazil)"), ("gsw", "Swiss German"),
        ("qqq", "qqq"), ("de-1234567", "de-1234567"), ("xx-YY", "xx-YY"),
    ],
)  # fmt: skip
def test_a_language_is_called_as_people_call_it(tag: str, name: str) -> None:
    assert language_named(tag) == name
