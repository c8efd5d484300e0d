"""The show sentence in words, as the editor, the history and the reasons of a verdict have it."""

from typing import Any

import pytest

from intavo.core.say import READER, Tongue
from intavo.core.touchpoint import Show, show_words

HOURS = {7: "Café hours"}


def words(**sentence: Any) -> Any:
    show = Show.model_validate({"sentences": [sentence]})
    return show_words(show, HOURS)["sentences"][0]


def page(kind: str, path: str) -> dict[str, str]:
    return {"kind": kind, "path": path}


def exactly(*paths: str) -> list[dict[str, str]]:
    return [page("exact", path) for path in paths]


@pytest.mark.parametrize(
    ("sentence", "said"),
    [
        ({}, "on every page"),
        ({"pages": [page("below", "/trips")]}, "on /trips and below"),
        ({"pages": [page("below", "/")]}, "on /"),
        ({"pages": exactly("/a", "/b")}, "on /a and /b"),
        ({"not_pages": exactly("/contact")}, "on every page but /contact"),
        ({"pages": exactly("/a", "/b", "/c", "/d")}, "on /a, /b and 2 more"),
        (
            {"pages": [page("contains", "tide"), page("group", "Quiet")]},
            "on pages with “tide” and the pages “Quiet”",
        ),
        ({"kinds": ["article"], "not_kinds": ["news"]}, "on pages of the kind article but the kind news"),
        ({"pages": exactly("/a"), "kinds": ["news"]}, "on /a, if they are pages of the kind news"),
        ({"landing": exactly("/")}, "on every page, when they came in on /"),
        ({"not_landing": exactly("/x")}, "on every page, unless they came in on /x"),
    ],
)
def test_where(sentence: dict[str, Any], said: str) -> None:
    assert words(**sentence)["where"] == said


@pytest.mark.parametrize(
    ("pieces", "said"),
    [
        ([], "anyone, on any device"),
        ([{"kind": "been", "unless": True}], "people who are here for the first time"),
        ([{"kind": "visits", "least": 2, "most": 5}], "people who are on at least 2 and at most 5 visits"),
        (
            [{"kind": "arrival", "ways": ["search", "social"], "unless": True}],
            "people who did not come from a search site or from a social site",
        ),
        (
            [{"kind": "on_list", "unless": True}, {"kind": "signed_in"}],
            "people who are not on your list and are signed in",
        ),
        (
            [{"kind": "pages", "least": 3, "span": "visit"}],
            "people who have seen at least 3 pages in this visit",
        ),
        (
            [{"kind": "language", "languages": ["de", "fr-CH"], "unless": True}],
            "people who do not read German or French (Switzerland)",
        ),
        ([{"kind": "tag", "tags": ["boat", "oar"]}], "people who have the tag “boat” or “oar”"),
        (
            [{"kind": "campaign", "tag": "utm_campaign", "value": {"how": "exact", "text": "spring"}}],
            "people who came with utm_campaign “spring”",
        ),
    ],
)
def test_to_whom(pieces: list[dict[str, Any]], said: str) -> None:
    assert words(who=pieces)["who"] == said


def test_on_which_devices() -> None:
    assert words(devices=["desktop", "tablet"])["who"] == "anyone on a desktop or tablet"
    assert (
        words(devices=["phone"], who=[{"kind": "been"}])["who"]
        == "people on a phone who have been here before"
    )


@pytest.mark.parametrize(
    ("moments", "said"),
    [
        ([[{"after": 12}], [{"read": 40}]], "after 12 s or at 40 % down"),
        ([[{"after": 5}, {"clicks": 1}]], "after 5 s and after 1 click"),
        ([[{"clicks": 3}], [{"idle": 30}], [{"up": 20}]], "after 3 clicks, after 30 s of doing nothing or back up at 20 %"),
        ([[{"leave": True}]], "when they are about to leave"),
        ([[{"view": "footer"}], [{"click": "main a"}]], "when “footer” is in view or at a click on “main a”"),
        ([], "never by itself"),
    ],
)  # fmt: skip
def test_at_which_moments(moments: list[Any], said: str) -> None:
    assert words(moments=moments)["moments"] == said


@pytest.mark.parametrize(
    ("during", "said"),
    [
        ({}, "at any time"),
        (
            {"first": "2026-12-01", "days": ["sat", "sun"], "start": "18:00", "end": "22:00", "only": "open"},
            "from 1 Dec 2026, on Sat and Sun, between 18:00 and 22:00, while you are open",
        ),
        ({"first": "2026-12-01", "last": "2026-12-24"}, "from 1 Dec 2026 to 24 Dec 2026"),
        ({"first": "2026-12-01", "last": "2026-12-01"}, "on 1 Dec 2026"),
        (
            {"last": "2027-01-02", "last_time": "12:00", "clock": "visitor"},
            "to 2 Jan 2027, 12:00, by their own clock",
        ),
        ({"only": "closed", "hours": 7}, "while Café hours is closed"),
        ({"only": "closed", "hours": 8}, "while you are closed"),
    ],
)
def test_during_which_times(during: dict[str, Any], said: str) -> None:
    assert words(during=during)["during"] == said


def test_dates_and_times_follow_the_readers_region() -> None:
    before = READER.set(Tongue("en", "US"))
    try:
        during = {"first": "2026-12-01", "start": "18:00", "end": "22:00"}
        assert words(during=during)["during"] == "from Dec 1, 2026, between 6:00 PM and 10:00 PM"
    finally:
        READER.reset(before)


@pytest.mark.parametrize(
    ("show", "often", "until"),
    [
        ({}, "at most once in 7 days", "until they answer"),
        (
            {
                "how_often": {"every": "visit", "most": 3, "after_closed": {"n": 1, "unit": "hours"}},
                "alone": True, "until": {"answered": False},
            },
            "at most once a visit, at most 3 times ever, not for an hour once closed, only if nothing else interrupted",
            "also after they answer",
        ),
        (
            {"how_often": {"every": "moment", "most": 1}, "until": {"group": True}, "group": "News"},
            "each time its moment comes, at most 1 time ever", "until they answer this or another of “News”",
        ),
        ({"how_often": {"every": "page"}}, "on every page view", "until they answer"),
    ],
)  # fmt: skip
def test_how_often_and_until(show: dict[str, Any], often: str, until: str) -> None:
    said = show_words(Show.model_validate(show), {})
    assert (said["often"], said["until"]) == (often, until)
