"""The visitor's protocol: who may call, how much, how often, and what comes back."""

import gzip
import json
from typing import Any

import pytest
from cachetools import LRUCache
from django.db import connection
from django.test import Client
from django.test.utils import CaptureQueriesContext

from intavo.results.models import RefusedBeats
from intavo.sites.models import Site
from intavo.touchpoints import live
from intavo.touchpoints.actions import make, put_live, save_draft, turn_off, turn_on
from intavo.visitor import views
from intavo.visitor.limits import Window

from .conftest import Visitor, World, sending

PROBLEM = "application/problem+json"


@pytest.mark.parametrize(
    ("origin", "status"),
    [
        ("https://otterwick.example", 200),
        ("http://www.otterwick.example:8080", 200),
        ("http://127.0.0.1:8400", 200),
        ("https://elsewhere.example", 403),
        ("null", 403),
        (None, 403),
    ],
)
def test_only_the_sites_own_hosts_and_intavos_may_call(
    visitor: Visitor, origin: str | None, status: int
) -> None:
    answer = visitor.post(
        "plan", {"page": {"url": "https://otterwick.example/"}, "device": "phone"}, HTTP_ORIGIN=origin
    )
    assert answer.status_code == status
    assert "Origin" in answer["Vary"].split(", ")
    assert answer.get("Access-Control-Allow-Origin") == (origin if status == 200 else None)
    assert "Access-Control-Allow-Credentials" not in answer


def test_errors_too_carry_the_origin(visitor: Visitor) -> None:
    for answer in (
        visitor.post("plan", "{"),
        visitor.post("intake", "x" * 70_000),
        visitor.post("beats", "{}"),
    ):
        assert answer.status_code in {413, 422}
        assert answer["Access-Control-Allow-Origin"] == visitor.origin
        assert answer["Content-Type"] == PROBLEM


def test_a_preflight_is_answered(visitor: Visitor) -> None:
    answer = Client().options(f"/e/{visitor.key}/intake", HTTP_ORIGIN=visitor.origin)
    assert answer.status_code == 204
    assert "POST" in answer["Access-Control-Allow-Methods"]
    assert Client().options(f"/e/{visitor.key}/intake", HTTP_ORIGIN="https://x.example").status_code == 403


def test_an_unknown_key_is_404_and_size_comes_before_everything(db: None) -> None:
    nobody = Visitor("nosuchkey")
    assert nobody.plan().status_code == 404
    assert nobody.post("plan", "x" * 65_537).status_code == 413


@pytest.mark.parametrize(
    ("body", "field"),
    [
        ({}, "page"),
        ({"page": {"url": "https://otterwick.example/"}, "device": "fridge"}, "device"),
        ({"page": {"url": 4}, "device": "phone"}, "page.url"),
        ({"page": {"url": "x"}, "device": "phone", "visitor": {"utc_offset": "far"}}, "visitor.utc_offset"),
        ("not json", "body"),
    ],
)
def test_a_plan_that_cannot_be_read_is_422_with_the_field(visitor: Visitor, body: object, field: str) -> None:
    answer = visitor.post("plan", body)
    assert answer.status_code == 422
    assert field in [error["field"] for error in answer.json()["errors"]]


@pytest.mark.parametrize("id_", ["\x00" * 12, "\ud800" * 12, "short", 5, None, ["a"], {}, "x" * 81])
def test_an_id_that_cannot_be_kept_is_refused_by_name(
    visitor: Visitor, otterwick: World, id_: object
) -> None:
    answer = visitor.post("intake", sending(otterwick.touchpoint, id=id_))
    assert (answer.status_code, answer.json()["errors"][0]["field"]) == (422, "id")


@pytest.mark.parametrize(
    "path", ["/e/%00.js", "/csv/%00.csv", "/m/%00/x", "/e/%00/plan", "/t/%00/x", "/%00", "/api/%00"]
)
def test_an_address_with_a_nul_leads_nowhere(db: None, path: str) -> None:
    assert Client(raise_request_exception=False).get(path).status_code == 404


def test_the_plan_holds_what_may_show_and_what_is_said(visitor: Visitor, otterwick: World) -> None:
    plan = visitor.plan("/trips").json()
    assert (plan["now"], plan["visit_minutes"]) == ("2026-11-24T14:05:00Z", 30)
    assert plan["hours"]["situation"] == "open"
    assert plan["hours"]["until"] == "2026-11-24T17:30:00Z"
    assert plan["hours"]["says"]["text"] == "We answer today by 16:05."
    [entry] = plan["touchpoints"]
    assert entry["id"] == otterwick.touchpoint.public_id
    assert entry["moments"] == [[{"after": 12}], [{"read": 40}]]
    assert "after" not in entry["document"]
    assert "show" not in entry["document"]
    assert plan["touchpoints"][0]["valid_until"] == "2026-11-24T17:30:00Z"


def test_the_plan_says_after_hours_when_closed(visitor: Visitor, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setenv("INTAVO_NOW", "2026-11-24T20:00:00+00:00")
    hours = visitor.plan().json()["hours"]
    assert (hours["situation"], hours["until"]) == ("after-hours", "2026-11-25T09:00:00Z")
    assert "tomorrow at 09:00" in hours["says"]["text"]


def test_the_plan_costs_no_query_once_the_site_is_known(
    visitor: Visitor, django_assert_num_queries: Any
) -> None:
    visitor.plan()
    with django_assert_num_queries(0):
        visitor.plan()


def test_a_change_is_seen_within_a_second(visitor: Visitor, otterwick: World) -> None:
    assert len(visitor.plan().json()["touchpoints"]) == 1
    turn_off(otterwick.owner, touchpoint_id=otterwick.touchpoint.pk)
    live._sites[visitor.key].checked -= 1.0
    assert visitor.plan().json()["touchpoints"] == []


def test_where_the_script_was_last_seen_is_noted(visitor: Visitor, otterwick: World) -> None:
    visitor.plan("/trips/sunrise?x=1")
    site = Site.objects.get(pk=otterwick.site.pk)
    assert (site.seen_host, site.seen_path) == ("otterwick.example", "/trips/sunrise")


def test_the_loader_is_served_with_a_tag(visitor: Visitor) -> None:
    answer = Client().get(f"/e/{visitor.key}.js")
    assert answer.status_code == 200
    assert answer["Content-Type"].startswith("text/javascript")
    again = Client().get(f"/e/{visitor.key}.js", HTTP_IF_NONE_MATCH=answer["ETag"])
    assert again.status_code == 304
    assert Client().get("/e/nosuchkey.js").status_code == 404


def test_the_same_id_is_answered_with_the_same_bytes_whatever_else_it_says(
    visitor: Visitor, otterwick: World
) -> None:
    first = visitor.post("intake", sending(otterwick.touchpoint))
    again = visitor.post(
        "intake", sending(otterwick.touchpoint, answers={"email": "else@post.example"}, revision=99)
    )
    assert (first.status_code, again.status_code) == (201, 200)
    assert again.content == first.content


def test_a_422_names_the_field_and_does_not_use_the_id_up(visitor: Visitor, otterwick: World) -> None:
    wrong = visitor.post("intake", sending(otterwick.touchpoint, answers={"email": "ife"}, consents={}))
    assert wrong.status_code == 422
    assert [e["field"] for e in wrong.json()["errors"]] == ["answers.email", "consents.news"]
    assert visitor.post("intake", sending(otterwick.touchpoint)).status_code == 201


def test_answers_are_held_against_the_revision_that_was_seen(visitor: Visitor, otterwick: World) -> None:
    row = otterwick.touchpoint
    seen = row.live.number
    document = dict(row.draft.document)
    document["steps"][0]["parts"][3]["required"] = True
    save_draft(otterwick.owner, touchpoint_id=row.pk, document=document, based_on=row.draft.number)
    row = put_live(otterwick.owner, touchpoint_id=row.pk)
    nameless = {"email": "ife@post.example"}
    assert visitor.post("intake", sending(row, 1, revision=seen, answers=nameless)).status_code == 201
    refused = visitor.post("intake", sending(row, 2, answers=nameless))
    assert [e["field"] for e in refused.json()["errors"]] == ["answers.name"]


def test_a_draft_that_was_never_live_takes_no_answers(visitor: Visitor, otterwick: World) -> None:
    row = otterwick.touchpoint
    refused = visitor.post("intake", sending(row, revision=row.live.number + 7))
    assert refused.json()["errors"][0]["field"] == "revision"
    unknown = visitor.post("intake", sending(row) | {"touchpoint": "tp_none"})
    assert unknown.json()["errors"][0]["field"] == "touchpoint"


def test_a_touchpoint_of_another_business_takes_no_answers_here(visitor: Visitor, other: World) -> None:
    assert visitor.post("intake", sending(other.touchpoint)).status_code == 422


def test_too_many_are_429_with_the_seconds_to_wait(visitor: Visitor, otterwick: World, settings: Any) -> None:
    settings.INTAKE_A_MINUTE = 2
    codes = [visitor.post("intake", sending(otterwick.touchpoint, n)) for n in range(1, 4)]
    assert [one.status_code for one in codes] == [201, 201, 429]
    assert 1 <= int(codes[2]["Retry-After"]) <= 60


def test_a_window_lets_so_many_through_a_minute_for_each_address() -> None:
    window = Window(2)
    assert [window.wait((1, "a"), now) for now in (0, 1, 2, 59.5, 60)] == [0, 0, 58, 1, 0]
    assert window.wait((1, "b"), 2) == 0


def test_beats_are_202_and_what_is_refused_is_counted(visitor: Visitor, otterwick: World) -> None:
    good: dict[str, Any] = {"id": "abcdefgh", "touchpoint": otterwick.touchpoint.public_id, "revision": 2, "variant": None,
            "what": "seen", "page": {"url": "https://otterwick.example/"}, "device": "phone",
            "at": "2026-11-24T14:05:12Z"}  # fmt: skip
    forged: list[dict[str, Any]] = [
        {"what": "danced"},
        {"touchpoint": "tp_none"},
        {"revision": 77},
        {"page": {"url": "https://x.example/"}},
    ]
    answer = visitor.post("beats", [good, *(good | one for one in forged), 4])
    assert answer.status_code == 202
    assert answer.json() == {"kept": 1, "refused": 5}
    assert dict(RefusedBeats.objects.values_list("why", "count")) == {
        "unreadable": 2,
        "touchpoint": 1,
        "revision": 1,
        "page": 1,
    }
    told = otterwick.console().get(f"/api/sites/{otterwick.site.pk}/refused").json()
    assert told[0] == {"why": "could not be read", "count": 2}
    assert len(told) == 4


def test_one_client_says_no_more_of_a_kind_than_visitors_do(
    visitor: Visitor, otterwick: World, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(views, "_BEATS", Window(3))
    beat = {"touchpoint": otterwick.touchpoint.public_id, "revision": 2, "device": "phone", "at": "2026-11-24T14:05:12Z",
            "page": {"url": "https://otterwick.example/"}}  # fmt: skip
    many = [beat | {"id": f"seen-{n:04}", "what": "seen"} for n in range(8)]
    assert visitor.post("beats", [*many, beat | {"id": "goal-0001", "what": "goal"}]).json() == {
        "kept": 4,
        "refused": 5,
    }
    assert visitor.post("beats", many[:1], REMOTE_ADDR="203.0.113.4").json() == {"kept": 1, "refused": 0}


def test_a_click_finds_a_touchpoint_whose_sentence_does_not_hold(visitor: Visitor, otterwick: World) -> None:
    row = otterwick.touchpoint
    remembered: dict[str, Any] = {
        "memory": {row.public_id: {"shown": 1, "last_shown": "2026-11-24T13:00:00Z"}}
    }
    assert visitor.plan(**remembered).json()["touchpoints"] == []
    [entry] = visitor.plan(**remembered, open=row.slug).json()["touchpoints"]
    assert entry["moments"] == []


def many_live(world: World, count: int, *starters: str) -> None:
    """So many more touchpoints of these starters that stand on every page."""
    for number in range(count):
        row = make(world.owner, starter=starters[number % len(starters)], name=f"Number {number}")
        assert row.draft is not None
        document = dict(row.draft.document)
        for sentence in document["show"]["sentences"]:
            sentence["pages"] = [{"kind": "below", "path": "/"}]
        save_draft(world.owner, touchpoint_id=row.pk, document=document, based_on=row.draft.number)
        turn_on(world.owner, touchpoint_id=row.pk)


def test_twenty_touchpoints_on_a_page_are_twelve_kilobytes_as_sent(
    visitor: Visitor, otterwick: World
) -> None:
    many_live(
        otterwick, 19, "news", "question", "contact", "group", "announcement", "countdown", "score", "links"
    )
    live._sites.clear()
    answer = visitor.post(
        "plan",
        {"page": {"url": "https://otterwick.example/"}, "device": "desktop"},
        HTTP_ACCEPT_ENCODING="gzip",
    )
    assert len(json.loads(gzip.decompress(answer.content))["touchpoints"]) == 20
    assert len(answer.content) <= 12 * 1024


def test_a_site_is_read_by_as_many_statements_whatever_stands_on_it(
    visitor: Visitor, otterwick: World
) -> None:
    def reads(touchpoints: int) -> int:
        live._sites.clear()
        with CaptureQueriesContext(connection) as asked:
            assert len(visitor.plan().json()["touchpoints"]) == touchpoints
        # What was counted meanwhile is written down when its time has come.
        return sum(one["sql"].startswith("SELECT") for one in asked)

    visitor.plan()
    few = reads(1)
    many_live(otterwick, 6, "news", "announcement")
    assert reads(7) == few


def test_sites_that_nobody_asks_for_are_let_go(
    visitor: Visitor, other: World, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(live, "_sites", LRUCache(1))
    assert visitor.plan().status_code == 200
    elsewhere = Visitor(other.site.key, "https://heronsgate.example")
    assert elsewhere.plan().status_code == 200
    assert list(live._sites) == [other.site.key]
    assert len(visitor.plan().json()["touchpoints"]) == 1


def test_whoever_waits_for_anothers_reading_of_a_site_reads_it_at_last(
    visitor: Visitor, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(live, "_PATIENCE", 0.05)
    lock = live._reading[hash(visitor.key) % len(live._reading)]
    with lock:
        assert visitor.plan().status_code == 200
    assert not lock.locked()
