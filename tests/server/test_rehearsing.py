"""The page map, rehearsals, visitors that are kept, and links into the real site."""

import base64
import json
import re
import time
from datetime import UTC, datetime, timedelta
from typing import Any

import pytest
from django.test import Client

from intavo.accounts.actor import visitor_of
from intavo.results.actions import SaidBeat, fold_beats, keep_beats
from intavo.results.models import Beat, HourlyTally
from intavo.touchpoints import live
from intavo.touchpoints.actions import make, save_draft, turn_on
from intavo.visitor import counting

from .conftest import World
from .test_site_rules import ORIGIN, plan

NOW = "2026-11-24T14:05:00Z"


def post(world: World, to: str, **body: Any) -> Any:
    """Ask the console's API."""
    body = {"site_id": world.site.pk, "visitor": {"at": NOW}} | body
    return world.console().post(f"/api/{to}", json.dumps(body), "application/json")


def token_in(url: str) -> str:
    """What a link of a rehearsal says, packed in letters, digits and strokes."""
    packed = re.fullmatch(r"[^#]+#intavo_as_([\w-]+)", url)
    assert packed
    return base64.urlsafe_b64decode(packed[1] + "===").decode()


def shown(world: World, name: str, show: dict[str, Any], on: bool = True) -> int:
    """A pop-up with these rules."""
    row = make(world.owner, starter="news", name=name)
    document = json.loads(json.dumps(row.draft.document)) | {"show": show}
    save_draft(world.owner, touchpoint_id=row.pk, document=document, based_on=1)
    if on:
        turn_on(world.owner, touchpoint_id=row.pk)
    live._sites.clear()
    return row.pk


def seen(world: World, *paths: str) -> None:
    """Pages that the script has seen."""
    for path in paths:
        counting.tally.forget()
        plan(world, path)


def test_the_page_map_says_where_who_gets_what_and_why_not(otterwick: World) -> None:
    seen(otterwick, "/trips", "/trips/sunrise", "/hire")
    some = shown(otterwick, "Some", {"sentences": [{"pages": [{"kind": "exact", "path": "/trips/sunrise"}]}]})
    later = shown(otterwick, "Later", {"sentences": [{"during": {"first": "2026-12-01"}}]})
    known = shown(otterwick, "Known", {"sentences": [{"who": [{"kind": "been"}]}]})
    asked = shown(otterwick, "Asked", {"sentences": [{"moments": []}]})
    draft = shown(otterwick, "Draft", {}, on=False)
    found = post(otterwick, "page-map").json()
    assert [(one["label"], one["paths"]) for one in found["columns"]] == [
        ("/trips…", ["/trips", "/trips/sunrise"]),
        ("/hire", ["/hire"]),
    ]
    cells = {row["id"]: [(cell["shows"], cell["words"]) for cell in row["cells"]] for row in found["rows"]}
    assert cells[otterwick.touchpoint.pk] == [("yes", ""), ("yes", "")]
    assert cells[some] == [("turn", "1 of 2, in turn"), ("no", "")]
    assert cells[later] == [("later", "from 1 Dec"), ("later", "from 1 Dec")]
    assert cells[known] == [("no", ""), ("no", "")]
    assert cells[asked] == [("asked", "if opened"), ("asked", "if opened")]
    assert cells[draft] == [("no", ""), ("no", "")]
    assert next(row for row in found["rows"] if row["id"] == some)["cells"][0]["on"] == ["/trips/sunrise"]
    [page] = post(otterwick, "page-map/why", touchpoint_id=known, column=1).json()
    assert (page["path"], page["shows"]) == ("/hire", False)
    assert next(one["words"] for one in page["reasons"] if not one["passed"]) == (
        "They are here for the first time; it is for those who have been here before."
    )
    pages = post(otterwick, "page-map/why", touchpoint_id=some, column=0).json()
    assert [(one["path"], one["shows"]) for one in pages] == [("/trips", False), ("/trips/sunrise", True)]
    assert post(otterwick, "page-map/why", touchpoint_id=known, column=2).status_code == 422
    assert post(otterwick, "page-map/why", touchpoint_id=10**9, column=0).status_code == 422
    again = post(
        otterwick, "page-map", visitor={"at": "2026-12-02T10:00:00Z", "visits": 3, "drafts": True}
    ).json()
    shows = {row["id"]: row["cells"][1]["shows"] for row in again["rows"]}
    assert (shows[later], shows[known], shows[draft]) == ("turn", "turn", "turn")


def test_a_visit_is_played_and_says_why_and_until_when(otterwick: World) -> None:
    deeds = [
        {"at": 0, "do": "page", "url": "/trips"},
        {"at": 20, "do": "close"},
        {"at": 26, "do": "page", "url": "/hire"},
    ]
    found = post(otterwick, "rehearsals", deeds=deeds, length=40).json()
    [track] = found["tracks"]
    did = [(one["start"], one["end"], one["doing"]) for one in track["stretches"]]
    assert did == [(0, 12, "waits"), (12, 20, "on screen"), (20, 40, "kept back")]
    stopped = next(one for one in track["stretches"][2]["reasons"] if not one["passed"])
    assert (stopped["name"], stopped["when"]) == ("how often", "2026-12-01T14:05:12Z")
    assert [(one["start"], one["path"], one["visit"]) for one in found["pages"]] == [
        (0, "/trips", 1),
        (26, "/hire", 1),
    ]
    refused = post(
        otterwick, "rehearsals", deeds=[{"at": 0, "do": "page", "url": "/"}, {"at": 3, "do": "dance"}]
    )
    assert refused.status_code == 422
    assert refused.json()["errors"][0]["field"] == "deeds.1"


def test_a_visitor_is_kept_written_anew_and_forgotten(otterwick: World, other: World) -> None:
    console = otterwick.console()
    for visits in (1, 4):
        body = {"name": " Maya ", "document": {"visits": visits}}
        answer = console.post("/api/rehearsal-visitors", json.dumps(body), "application/json")
        assert answer.status_code == 201
    assert [(one["name"], one["document"]) for one in console.get("/api/rehearsal-visitors").json()] == [
        ("Maya", {"visits": 4})
    ]
    assert (
        console.post(
            "/api/rehearsal-visitors", json.dumps({"name": " ", "document": {}}), "application/json"
        ).status_code
        == 422
    )
    assert other.console().get("/api/rehearsal-visitors").json() == []
    assert other.console().delete(f"/api/rehearsal-visitors/{answer.json()['id']}").status_code == 404
    assert console.delete(f"/api/rehearsal-visitors/{answer.json()['id']}").status_code == 204


def test_a_link_makes_the_real_plan_that_of_its_visitor_and_nothing_is_counted(
    otterwick: World, other: World
) -> None:
    shown(otterwick, "Later", {"sentences": [{"during": {"first": "2026-12-01"}, "who": [{"kind": "been"}]}]})
    visitor = {"at": "2026-12-02T10:00:00Z", "visits": 3}
    assert post(otterwick, "rehearsals/link").json()["errors"][0]["field"] == "site"
    seen(otterwick, "/hire")
    url = post(otterwick, "rehearsals/link", visitor=visitor, path="/trips").json()["url"]
    address, token = url.partition("#")[0], token_in(url)
    assert address == "https://www.otterwick.example/trips"

    def as_they(key: str, said: str, origin: dict[str, str]) -> Any:
        body = {"page": {"url": f"{origin['origin']}/trips"}, "device": "desktop", "rehearsal": said}
        return Client().post(f"/e/{key}/plan", json.dumps(body), "text/plain", headers=origin)

    before = otterwick.site.pages.count()
    found = as_they(otterwick.site.key, token, ORIGIN).json()
    assert found["now"] == "2026-12-02T10:00:00Z"
    assert "later" in {one["slug"] for one in found["touchpoints"]}
    assert otterwick.site.pages.count() == before
    assert "later" not in {one["slug"] for one in plan(otterwick).json()["touchpoints"]}
    for key, said, origin in (
        (otterwick.site.key, token[:-2] + "xx", ORIGIN),
        (other.site.key, token, {"origin": "https://heronsgate.example"}),
    ):
        refused = as_they(key, said, origin)
        assert (refused.status_code, refused.json()["errors"][0]["field"]) == (422, "rehearsal")


def asking(world: World, promise: int = 60) -> tuple[int, str]:
    """A draft of a question that is never on."""
    row = make(world.owner, starter="question", name="Asking")
    document = json.loads(json.dumps(row.draft.document))
    document["after"]["promise_minutes"] = promise
    document["show"]["sentences"][0]["moments"] = []
    row = save_draft(world.owner, touchpoint_id=row.pk, document=document, based_on=1)
    return row.pk, row.public_id


def test_whoever_sends_it_is_told_when_and_that_nobody_is_at_the_counter(otterwick: World) -> None:
    id_, _ = asking(otterwick)
    deeds = [{"at": 0, "do": "page", "url": "/trips"}, {"at": 4, "do": "open", "touchpoint": "asking"}]

    def said(**visitor: Any) -> list[str]:
        body = {"visitor": {"at": NOW, "drafts": True} | visitor}
        played = post(otterwick, "rehearsals", deeds=deeds, length=20, **body).json()
        stretches = next(one for one in played["tracks"] if one["id"] == id_)["stretches"]
        return [one["said"] for one in stretches if one["doing"] == "on screen"]

    assert said() == ["Thank you. We answer today by 15:05."]
    assert said(at_counter=False) == [
        "Thank you. We are away from the counter just now. We answer today by 15:05."
    ]
    assert said(at="2026-11-24T20:00:00Z") == [
        "We are closed just now. We open again tomorrow at 09:00 and answer tomorrow by 10:00."
    ]


def test_a_link_with_drafts_gives_what_is_not_on_and_what_its_parts_need_at_that_time(
    otterwick: World,
) -> None:
    _, public = asking(otterwick)
    seen(otterwick, "/hire")

    def linked(**visitor: Any) -> str:
        made = post(otterwick, "rehearsals/link", visitor={"at": "2026-11-24T20:00:00Z"} | visitor).json()[
            "url"
        ]
        return token_in(made)

    def said(to: str, **body: Any) -> Any:
        return Client().post(f"/e/{otterwick.site.key}/{to}", json.dumps(body), "text/plain", headers=ORIGIN)

    def slugs(token: str) -> set[str]:
        page = {"url": "https://otterwick.example/"}
        found = said("plan", page=page, device="desktop", open="asking", rehearsal=token).json()
        return {one["slug"] for one in found["touchpoints"]}

    drafts = linked(drafts=True)
    assert "asking" in slugs(drafts)
    assert "asking" not in slugs(linked())
    more = said("more", touchpoint=public, revision=2, rehearsal=drafts).json()
    assert more["says"]["title"] == "We are closed just now"
    assert said("more", touchpoint=public, revision=2).status_code == 422
    assert (
        said("more", touchpoint=public, revision=99, rehearsal=drafts).json()["errors"][0]["field"]
        == "revision"
    )
    refused = said("more", touchpoint=public, revision=2, rehearsal=drafts[:-2] + "xx")
    assert (refused.status_code, refused.json()["errors"][0]["field"]) == (422, "rehearsal")


def test_a_link_is_good_for_an_hour(otterwick: World, monkeypatch: pytest.MonkeyPatch) -> None:
    seen(otterwick, "/hire")
    token = token_in(post(otterwick, "rehearsals/link").json()["url"])
    body = {"page": {"url": "https://otterwick.example/"}, "device": "desktop", "rehearsal": token}
    real = time.time
    for later, status in ((3500, 200), (3700, 422)):
        monkeypatch.setattr(time, "time", lambda later=later: real() + later)
        assert (
            Client()
            .post(f"/e/{otterwick.site.key}/plan", json.dumps(body), "text/plain", headers=ORIGIN)
            .status_code
            == status
        )


def test_beats_are_folded_into_hours_and_doubles_count_once(otterwick: World) -> None:
    at = datetime(2026, 11, 24, 14, 5, tzinfo=UTC)
    public = otterwick.touchpoint.public_id

    def beat(number: int, what: str) -> SaidBeat:
        page = {"url": "https://otterwick.example/trips"}
        return SaidBeat.model_validate(
            {
                "id": f"beat-{number:04}",
                "touchpoint": public,
                "revision": 1,
                "what": what,
                "page": page,
                "device": "phone",
                "at": NOW,
            }
        )

    for when, numbers in ((at - timedelta(hours=1), range(3)), (at, range(2, 5))):
        keep_beats(
            visitor_of(otterwick.owner.business_id),
            site_id=otterwick.site.pk,
            at=when,
            beats=[beat(n, "seen") for n in numbers] + [beat(100, "goal")],
        )
    for _ in range(2):
        fold_beats(at)
        rows = HourlyTally.objects.order_by("hour", "what").values_list("hour", "what", "count")
        assert [(hour.hour, what, count) for hour, what, count in rows] == [
            (13, "goal", 1),
            (13, "seen", 3),
            (14, "seen", 2),
        ]
    assert Beat.objects.count() == 8
    # While no worker ran for a night, reports came all the same.
    HourlyTally.objects.filter(hour__hour=14).delete()
    fold_beats(at + timedelta(hours=16))
    assert [one.count for one in HourlyTally.objects.order_by("hour", "what")] == [1, 3, 2]
    seen(otterwick, "/trips")
    [row] = post(otterwick, "page-map").json()["rows"]
    assert (row["seen"], row["goals"], row["rate"]) == (5, 1, 0.2)
