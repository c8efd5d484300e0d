"""Every rule of a show sentence by itself: pages, visitors, times, how often, whose turn."""

from datetime import date, timedelta
from typing import Any

import pytest
from pydantic import ValidationError

from intavo.core.say import from_words
from intavo.core.showing import Around, Compiled, TouchpointState, Visit, decide, plan, with_groups
from intavo.core.touchpoint import STARTERS, Document, Known, PagePattern, Sentence, Show, ready_check

from .hours_examples import LONDON, at

NOW = at("2026-11-24T14:05")  # a Tuesday
AROUND = Around(
    search=frozenset({"findit.example"}),
    social=frozenset({"chatter.example"}),
    search_media=frozenset({"cpc"}),
    social_media=frozenset({"social"}),
    hosts=frozenset({"otterwick.example"}),
    sites={"main": frozenset({"otterwick.example"}), "shop": frozenset({"shop.otterwick.example"})},
)


def one(
    around: Around = AROUND, sentences: list[dict[str, Any]] | None = None, id_: str = "tp_1", **show: Any
) -> Compiled:
    """A touchpoint with these rules."""
    rules = Show.model_validate({"sentences": sentences or [{}], **show})
    hosts = frozenset({"otterwick.example", "shop.otterwick.example"})
    return Compiled(
        id_, TouchpointState.LIVE, hosts, rules, LONDON, around=around, mates=frozenset({"tp_1", "tp_2"})
    )


def seen(
    path: str = "/trips",
    device: str = "desktop",
    host: str = "otterwick.example",
    page: dict | None = None,
    memory: dict | None = None,
    **visitor: Any,
) -> Visit:
    """A page view."""
    said = {
        "page": {"url": f"https://{host}{path}", **(page or {})},
        "device": device,
        "visitor": visitor,
        "memory": memory or {},
    }
    return Visit.model_validate(said)


def ago(**length: float) -> str:
    """An instant before now."""
    return (NOW - timedelta(**length)).isoformat()


def pages(kind: str, path: str, **more: Any) -> dict[str, Any]:
    """A sentence for these pages."""
    return {"pages": [{"kind": kind, "path": path, **more}]}


@pytest.mark.parametrize(
    ("sentence", "yes", "no"),
    [
        (pages("exact", "trips/"), "/Trips/#x", "/trips/sunrise"),
        (pages("below", "/trips"), "/trips/sunrise?a=1", "/trips-2026"),
        (pages("contains", "sunrise"), "/trips/SUNRISE-tour", "/trips"),
        (pages("glob", "/trips/*"), "/trips/sunrise", "/trips/a/b"),
        (pages("glob", "/trips/**"), "/trips/a/b", "/trip/a"),
        (pages("glob", "/trip?"), "/trips", "/trip"),
        (pages("regex", r"^/20\d\d/"), "/2026/11", "/about/2026"),
        (pages("exact", "/shop?colour=Red", query=True), "/shop/?colour=red", "/shop"),
        (pages("contains", "colour=red", query=True), "/shop?x=1&colour=RED", "/shop/colour"),
        (pages("exact", "/café"), "/caf%C3%A9", "/cafe"),
        ({"not_pages": [{"kind": "below", "path": "/hire"}]}, "/trips", "/hire/winter"),
        ({"landing": [{"kind": "exact", "path": "/"}]}, "/", "/trips"),
        ({"not_landing": [{"kind": "exact", "path": "/trips"}]}, "/hire", "/trips"),
    ],
)  # fmt: skip
def test_pages(sentence: dict[str, Any], yes: str, no: str) -> None:
    touchpoint = one(sentences=[sentence])
    assert decide(touchpoint, seen(yes), NOW).shows
    verdict = decide(touchpoint, seen(no), NOW)
    assert verdict.stopped_by is not None
    assert verdict.stopped_by.name == "where"
    assert not plan([touchpoint], seen(no), NOW)


def test_the_landing_page_is_the_visits_first() -> None:
    touchpoint = one(sentences=[{"landing": [{"kind": "exact", "path": "/groups"}]}])
    assert decide(touchpoint, seen("/trips", first_page="https://otterwick.example/groups"), NOW).shows
    verdict = decide(touchpoint, seen("/groups", first_page="https://otterwick.example/trips"), NOW)
    assert verdict.stopped_by.sentence == "They came in on /trips, which is not among /groups."


def test_kinds_are_what_the_page_says_of_itself() -> None:
    touchpoint = one(sentences=[{"kinds": ["Article", "product"], "not_kinds": ["sold out"]}])
    assert decide(touchpoint, seen(page={"kinds": ["ARTICLE", "news"]}), NOW).shows
    none = decide(touchpoint, seen(), NOW).stopped_by
    assert none.sentence == "The page says nothing of its kind; it is for article or product."
    out = decide(touchpoint, seen(page={"kinds": ["product", "Sold out"]}), NOW).stopped_by
    assert out.sentence == "The page says that it is product and sold out, which is left out."


def test_groups_of_pages_are_written_out_and_an_unknown_one_stands_for_nothing() -> None:
    show = Show.model_validate({"sentences": [pages("group", "Quiet water")]})
    groups = {
        "quiet water": (PagePattern(kind="exact", path="/lessons"), PagePattern(kind="below", path="/trips"))
    }
    for known, path, shows in (
        (groups, "/trips/sunrise", True),
        (groups, "/hire", False),
        ({}, "/lessons", False),
    ):
        touchpoint = Compiled(
            "tp_1", TouchpointState.LIVE, frozenset({"otterwick.example"}), with_groups(show, known), LONDON
        )
        assert decide(touchpoint, seen(path), NOW).shows is shows


WHO = [
    ({"kind": "been"}, {"visits": 2}, {"visits": 1}),
    ({"kind": "visits", "least": 3}, {"visits": 3}, {"visits": 2}),
    ({"kind": "visits", "most": 3}, {"visits": 3}, {"visits": 4}),
    ({"kind": "pages", "least": 2}, {"pages_this_visit": 2, "pages_ever": 2}, {"pages_this_visit": 1, "pages_ever": 9}),
    ({"kind": "pages", "least": 5, "span": "ever"}, {"pages_ever": 5}, {"pages_ever": 4, "pages_this_visit": 5}),
    ({"kind": "arrival", "ways": ["typed"]}, {"arrival": {}}, {"arrival": {"referrer": "https://other.example/"}}),
    ({"kind": "arrival", "ways": ["search"]}, {"arrival": {"referrer": "https://www.uk.findit.example/q"}},
     {"arrival": {"referrer": "https://notfindit.example/q"}}),
    ({"kind": "arrival", "ways": ["search"]}, {"arrival": {"url": "https://otterwick.example/?utm_medium=CPC"}}, {"arrival": {}}),
    ({"kind": "arrival", "ways": ["social"]}, {"arrival": {"referrer": "https://chatter.example/a"}}, {"arrival": {}}),
    ({"kind": "arrival", "ways": ["elsewhere", "here"]}, {"arrival": {"referrer": "https://www.otterwick.example/"}},
     {"arrival": {"referrer": "https://chatter.example"}}),
    ({"kind": "referrer", "address": {"how": "contains", "text": "club.example/kayak"}},
     {"arrival": {"referrer": "https://www.club.example/Kayak/links"}}, {"arrival": {"referrer": "https://club.example/"}}),
    ({"kind": "campaign", "tag": "utm_campaign", "value": {"how": "glob", "text": "spring-*"}},
     {"arrival": {"url": "https://otterwick.example/?utm_campaign=Spring-2026"}}, {"arrival": {"url": "https://otterwick.example/?x=spring-1"}}),
    ({"kind": "language", "languages": ["de", "en"]}, {"language": "en-GB"}, {"language": "eng"}),
    ({"kind": "on_list"}, {"on_list": True}, {"on_list": False}),
    ({"kind": "tag", "tags": ["Kayak", "canoe"]}, {"tags": ["CANOE"]}, {"tags": ["boat"]}),
]  # fmt: skip


@pytest.mark.parametrize(("piece", "yes", "no"), WHO)
def test_who_and_the_other_way_round(piece: dict[str, Any], yes: dict[str, Any], no: dict[str, Any]) -> None:
    for unless in (False, True):
        touchpoint = one(sentences=[{"who": [piece | {"unless": unless}]}])
        for visitor, holds in ((yes, True), (no, False)):
            verdict = decide(touchpoint, seen(**visitor), NOW)
            assert verdict.shows is (holds is not unless)
            assert bool(plan([touchpoint], seen(**visitor), NOW)) is verdict.shows
            who = next(check for check in verdict.checks if check.name == "who")
            assert who.passed is verdict.shows
            assert who.sentence.endswith(".")


def test_signed_in_is_what_the_page_says() -> None:
    touchpoint = one(sentences=[{"who": [{"kind": "signed_in", "unless": True}]}])
    assert decide(touchpoint, seen(), NOW).shows
    assert decide(touchpoint, seen(page={"signed_in": True}), NOW).stopped_by.sentence == (
        "They are signed in; it is for those who are not signed in."
    )


def test_a_sentence_may_be_for_one_of_its_sites() -> None:
    touchpoint = one(sentences=[{"sites": ["shop"]}])
    assert decide(touchpoint, seen(host="www.shop.otterwick.example"), NOW).shows
    assert decide(touchpoint, seen(), NOW).stopped_by.name == "site"


def test_the_sentence_that_comes_furthest_is_explained() -> None:
    touchpoint = one(
        sentences=[pages("exact", "/hire"), {**pages("exact", "/trips"), "who": [{"kind": "been"}]}]
    )
    assert decide(touchpoint, seen(), NOW).stopped_by.sentence == (
        "They are here for the first time; it is for those who have been here before."
    )


@pytest.mark.parametrize(
    ("often", "memory", "visitor", "free"),
    [
        ({"every": "page"}, {"last_shown": ago(minutes=1)}, {}, None),
        ({"every": "visit"}, {"last_shown": ago(minutes=1)}, {"visit_started": ago(minutes=5)}, timedelta(minutes=30)),
        ({"every": "visit"}, {"last_shown": ago(hours=2)}, {"visit_started": ago(minutes=5)}, None),
        ({"every": "span", "span": {"n": 10, "unit": "minutes"}}, {"last_shown": ago(minutes=4)}, {}, timedelta(minutes=6)),
        ({"every": "span", "span": {"n": 1, "unit": "hours"}}, {"last_shown": ago(minutes=60)}, {}, None),
        ({"every": "page", "after_closed": {"n": 2, "unit": "days"}}, {"last_closed": ago(days=1)}, {}, timedelta(days=1)),
        ({"every": "span", "span": {"n": 1, "unit": "hours"}, "after_closed": {"n": 3, "unit": "hours"}},
         {"last_shown": ago(minutes=30), "last_closed": ago(minutes=29)}, {}, timedelta(hours=3, minutes=-29)),
    ],
)  # fmt: skip
def test_how_often(
    often: dict[str, Any], memory: dict[str, Any], visitor: dict[str, Any], free: timedelta | None
) -> None:
    verdict = decide(one(how_often=often), seen(memory={"tp_1": {"shown": 1, **memory}}, **visitor), NOW)
    check = next(check for check in verdict.checks if check.name == "how often")
    assert (verdict.shows, check.when) == (free is None, None if free is None else NOW + free)
    assert check.sentence.endswith(".")


def test_at_most_so_many_times_ever_until_past_showings_are_forgotten() -> None:
    touchpoint = one(how_often={"every": "page", "most": 3})
    assert decide(touchpoint, seen(memory={"tp_1": {"shown": 2, "last_shown": ago(days=9)}}), NOW).shows
    verdict = decide(touchpoint, seen(memory={"tp_1": {"shown": 3}}), NOW)
    assert verdict.stopped_by.sentence == "At most 3 times ever; that was 3."
    forgotten = Compiled(
        "tp_1", TouchpointState.LIVE, touchpoint.hosts, touchpoint.show, LONDON, generation=2
    )
    assert decide(forgotten, seen(memory={"tp_1": {"shown": 3}}), NOW).shows


def test_not_after_an_answer_of_its_group() -> None:
    memory = {"tp_2": {"answered": ago(days=3)}}
    assert decide(one(until={"group": False}), seen(memory=memory), NOW).shows
    verdict = decide(one(until={"answered": False, "group": True}, group="News"), seen(memory=memory), NOW)
    assert verdict.stopped_by.sentence == "They have answered another one of “News”."


def test_alone_and_the_cap_of_a_visit() -> None:
    capped = one(Around(most_interruptions=2))
    assert decide(capped, seen(interruptions=1), NOW).shows
    assert (
        decide(capped, seen(interruptions=2), NOW).stopped_by.sentence
        == "This site interrupts a visit at most 2 times; it has."
    )
    alone = one(alone=True)
    assert decide(alone, seen(), NOW).shows
    assert decide(alone, seen(interruptions=1), NOW).stopped_by.name == "turn"


def test_the_first_shape_of_how_often_is_still_read() -> None:
    assert Show.model_validate({"how_often": {"once_in_days": 3}}).how_often.span.length == timedelta(days=3)
    assert Show.model_validate({"how_often": {"once_in_days": None}}).how_often.every == "page"


@pytest.mark.parametrize(
    ("sentence", "place", "said"),
    [
        (pages("regex", "(?=x)"), "pages.0.path", "this regular expression cannot be read"),
        (pages("exact", "two words"), "pages.0.path", "has no spaces"),
        ({"who": [{"kind": "visits"}]}, "who.0.visits", "say at least or at most"),
        ({"who": [{"kind": "referrer", "address": {"how": "regex", "text": "("}}]}, "who.0.referrer.address", "cannot be read"),
        ({"who": [{"kind": "language", "languages": ["english!"]}]}, "who.0.language.languages.0", "pattern"),
        ({"moments": [[{"view": "div["}]]}, "moments.0.0.view", "cannot be read"),
        ({"moments": [[{"click": "a", "after": 3}]]}, "moments.0.0", "a moment is one thing"),
        ({"during": {"first": "2026-12-05", "last": "2026-12-01"}}, "during", "it would end on Tue 1 Dec, before it starts on Sat 5 Dec"),
        ({"during": {"start": "09:00"}}, "during", "need a beginning and an end"),
        ({"during": {"start": "09:00", "end": "09:00"}}, "during", "same time"),
    ],
)  # fmt: skip
def test_bad_rules_are_refused_with_their_place(sentence: dict[str, Any], place: str, said: str) -> None:
    with pytest.raises(ValidationError) as refused:
        Sentence.model_validate(sentence)
    error = refused.value.errors()[0]
    assert ".".join(str(part) for part in error["loc"]) == place
    assert said in error["msg"]


def test_a_regular_expression_never_takes_long() -> None:
    pattern = PagePattern(kind="regex", path="^(/a+)+$")
    assert not pattern.matches("/" + "a" * 3000 + "!")


def begun(show: Show) -> date | None:
    """The London date on which it begins, if that is still to come."""
    at = show.begins(NOW, LONDON)
    return at.astimezone(LONDON).date() if at else None


def test_what_is_on_today_only_from_a_later_hour_says_from_when() -> None:
    show = Show.model_validate({"sentences": [{"during": {"start": "21:00", "end": "23:00"}}]})
    at = show.begins(NOW, LONDON)
    assert at is not None
    assert from_words(at, NOW, LONDON) == "from 21:00 today"
    assert from_words(at + timedelta(days=1), NOW, LONDON) == "from 21:00 tomorrow"
    assert from_words(at + timedelta(days=1, hours=3), NOW, LONDON) == "from 26 Nov"


@pytest.mark.parametrize(
    ("sentences", "over", "begins"),
    [
        ([{}], False, None),
        ([{"during": {"first": "2026-12-01"}}], False, date(2026, 12, 1)),
        ([{"during": {"first": "2026-12-01"}}, {}], False, None),
        ([{"during": {"first": "2027-01-01"}}, {"during": {"first": "2026-12-01", "last": "2026-12-02"}}], False, date(2026, 12, 1)),
        ([{"during": {"last": "2026-11-23"}}], True, None),
        ([{"during": {"last": "2026-11-24"}}], False, None),
        ([{"during": {"last": "2026-11-01"}}, {"during": {"first": "2026-12-01"}}], False, date(2026, 12, 1)),
    ],
)  # fmt: skip
def test_what_has_ended_and_what_is_still_to_come(
    sentences: list[dict[str, Any]], over: bool, begins: date | None
) -> None:
    show = Show.model_validate({"sentences": sentences})
    assert (show.over(NOW.date()), begun(show)) == (over, begins)


@pytest.mark.parametrize(
    ("show", "stance", "known", "said"),
    [
        ({"sentences": [{"during": {"last": "2026-11-01"}}]}, "card", {}, ("stops", "Its dates are past: it shows to nobody any more.")),
        ({"sentences": [{"during": {"last": "2026-11-01"}}, {}]}, "card", {}, ("look", "The dates of one of its sentences are past.")),
        ({}, "card", {"pages": 11, "matching": 0}, ("look", "It is for none of the 11 pages that were seen on the site.")),
        ({"sentences": [{"moments": [[{"after": 1}]]}]}, "card", {}, ("look", "It interrupts after 1 s, before anybody has read a word.")),
        ({"how_often": {"every": "moment"}}, "card", {}, ("look", "It comes back 12 s after it was closed, again and again.")),
        ({"until": {"answered": False}}, "card", {}, ("look", "It comes back to those who have answered it.")),
        ({}, "full-page", {}, ("look", "On a phone it covers the whole screen, by itself.")),
    ],
)  # fmt: skip
def test_the_ready_check_looks_at_the_rules(
    show: dict[str, Any], stance: str, known: dict[str, Any], said: tuple[str, str]
) -> None:
    data = next(one.document for one in STARTERS if one.key == "news").model_dump(mode="json") | {
        "show": show,
        "stance": stance,
    }
    given: dict[str, Any] = {"today": NOW.date(), "pages": 11, "matching": 3}
    around = Known(**given | known)
    found = [
        (one.level, one.message)
        for one in ready_check(Document.model_validate(data), around)
        if one.place == "show"
    ]
    assert said in found
    calm = data | {"show": {}, "stance": "bar"}
    assert not [
        one
        for one in ready_check(Document.model_validate(calm), Known(today=NOW.date(), pages=11, matching=3))
        if one.place == "show"
    ]
