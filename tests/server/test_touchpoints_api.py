"""Touchpoints as the console edits them: drafts, runs of changes, undo, turning on."""

import json
import re
from typing import Any

import jsonschema_rs
import pytest
from django.test import Client

from intavo import clock
from intavo.sites.models import Site, SitePage
from intavo.touchpoints.models import TouchpointRevision
from scripts.cluster import ROOT
from tests.recording import FILE

from .conftest import World


def made(client: Client, **body: Any) -> dict[str, Any]:
    """A new draft."""
    answer = client.post("/api/touchpoints", {"starter": "news"} | body, content_type="application/json")
    assert answer.status_code == 201
    return answer.json()


def worded(document: dict[str, Any], text: str) -> dict[str, Any]:
    """The document with another headline."""
    copy = json.loads(json.dumps(document))
    copy["steps"][0]["parts"][0]["text"] = text
    return copy


def save(
    client: Client, draft: dict[str, Any], text: str, run: str = "r1", status: int = 200
) -> dict[str, Any]:
    """Save the draft with another headline."""
    body = {"document": worded(draft["document"], text), "based_on": draft["number"], "run": run}
    answer = client.put(f"/api/touchpoints/{draft['id']}/draft", body, content_type="application/json")
    assert answer.status_code == status
    return answer.json()


def headline(draft: dict[str, Any]) -> str:
    """The headline of the first step."""
    return draft["document"]["steps"][0]["parts"][0]["text"]


def test_a_run_of_changes_is_one_revision_and_undo_goes_a_run_back(otterwick: World) -> None:
    client = otterwick.console()
    draft = made(client, name="Spring")
    first = headline(draft)
    for text in ("A", "Ab", "Abc"):
        draft = save(client, draft, text)
    draft = save(client, draft, "Xyz", run="r2")
    assert TouchpointRevision.objects.filter(touchpoint=draft["id"]).count() == 3
    back = [client.post(f"/api/touchpoints/{draft['id']}/undo").json() for _ in range(2)]
    assert [headline(one) for one in back] == ["Abc", first]
    assert client.post(f"/api/touchpoints/{draft['id']}/undo").status_code == 422
    assert headline(client.post(f"/api/touchpoints/{draft['id']}/redo").json()) == "Abc"


def test_a_change_after_undo_keeps_what_was_undone_out_of_its_way(otterwick: World) -> None:
    client = otterwick.console()
    draft = save(client, made(client), "A", run="r1")
    draft = client.post(f"/api/touchpoints/{draft['id']}/undo").json()
    draft = save(client, draft, "B", run="r1")
    assert headline(client.post(f"/api/touchpoints/{draft['id']}/undo").json()) != "A"


def test_the_later_of_two_members_is_told_and_nothing_is_overwritten(otterwick: World) -> None:
    owner, staff = otterwick.console(), otterwick.staff()
    draft = made(owner)
    save(staff, draft, "Theirs")
    problem = save(owner, draft, "Mine", status=409)
    assert "Sable Okonjo has changed" in problem["title"]
    assert headline(owner.get(f"/api/touchpoints/{draft['id']}").json()) == "Theirs"


def test_a_document_that_cannot_work_is_refused_with_its_place(otterwick: World) -> None:
    client = otterwick.console()
    draft = made(client)
    draft["document"]["leaving"]["cross"] = None
    draft["document"]["steps"][0]["parts"][5]["does"]["action"] = "send"
    problem = save(client, draft, "x", status=422)
    assert "close sign" in problem["errors"][0]["message"]


def test_turning_on_publishes_once_and_changes_wait_to_be_put_live(otterwick: World) -> None:
    client = otterwick.console()
    draft = made(client)
    site = Site.objects.get()
    before = site.revision
    draft = client.post(f"/api/touchpoints/{draft['id']}/on").json()
    assert (draft["state"], draft["live_number"], draft["changed_since_live"]) == ("live", 1, False)
    site.refresh_from_db()
    assert site.revision > before
    draft = save(client, draft, "New words", run="r9")
    assert draft["changed_since_live"]
    assert client.get("/api/day").json()["changed_since_live"] == 1
    client.post(f"/api/touchpoints/{draft['id']}/off")
    draft = client.post(f"/api/touchpoints/{draft['id']}/on").json()
    assert draft["live_number"] == 1
    draft = client.post(f"/api/touchpoints/{draft['id']}/live").json()
    assert (draft["live_number"], draft["changed_since_live"]) == (2, False)


def test_what_stops_it_is_said_and_it_stays_off(otterwick: World) -> None:
    client = otterwick.console()
    draft = made(client)
    draft["document"]["steps"][0]["parts"][5]["label"] = ""
    draft = save(client, draft, "x")
    answer = client.post(f"/api/touchpoints/{draft['id']}/on")
    assert answer.status_code == 422
    assert answer.json()["errors"] == [{"field": "p6", "message": "A button has no words."}]
    assert client.get(f"/api/touchpoints/{draft['id']}").json()["state"] == "draft"


def test_one_whose_dates_are_past_has_ended_and_is_not_turned_on_again(
    otterwick: World, monkeypatch: pytest.MonkeyPatch
) -> None:
    client = otterwick.console()
    draft = made(client)
    draft["document"]["show"]["sentences"][0]["during"] = {"last": "2026-11-30"}
    draft = save(client, draft, "Until the end of the month")
    client.post(f"/api/touchpoints/{draft['id']}/on")
    assert client.get("/api/day").json()["ended"] == 0
    monkeypatch.setenv("INTAVO_NOW", "2026-12-01T09:00:00+00:00")
    assert client.get("/api/day").json()["ended"] == 1
    assert next(one for one in client.get("/api/touchpoints").json() if one["id"] == draft["id"])["over"]
    client.post(f"/api/touchpoints/{draft['id']}/off")
    refused = client.post(f"/api/touchpoints/{draft['id']}/on")
    assert refused.status_code == 422
    assert refused.json()["errors"] == [
        {"field": "show", "message": "Its dates are past: it shows to nobody any more."}
    ]


def test_the_ready_check_knows_the_pages_of_the_site_and_the_others_on_them(otterwick: World) -> None:
    client = otterwick.console()
    draft = made(client)

    def found() -> set[tuple[str, str]]:
        said = client.get(f"/api/touchpoints/{draft['id']}").json()["findings"]
        return {(one["place"], one["message"]) for one in said}

    assert ("switch", "It is made, but not on.") in found()
    assert "others" not in {place for place, _ in found()}
    for path, views in (("/trips", 9), ("/hire", 4)):
        SitePage.objects.create(
            business_id=otterwick.owner.business_id,
            site=otterwick.site,
            path=path,
            views=views,
            kinds=[],
            seen_at=clock.now(),
        )
    name = otterwick.touchpoint.name
    assert ("others", f"It shares up to 2 pages with “{name}”: they take turns, in your order.") in found()
    draft["document"]["show"]["sentences"][0]["pages"] = [{"kind": "exact", "path": "/hire"}]
    draft = save(client, draft, "Only for hire")
    assert ("others", f"It shares a page with “{name}”: they take turns, in your order.") in found()
    assert client.get(f"/api/touchpoints/{draft['id']}").json()["example_page"] == "/hire"


def test_the_short_name_is_made_from_the_name_and_always_free(otterwick: World) -> None:
    client = otterwick.console()
    names = ("Tide table!", "Tide Table", "潮の表", "潮の表")
    assert [made(client, name=name)["slug"] for name in names] == [
        "tide-table",
        "tide-table-2",
        "touchpoint",
        "touchpoint-2",
    ]


def test_an_unknown_starter_is_refused_by_name(otterwick: World) -> None:
    answer = otterwick.console().post(
        "/api/touchpoints", {"starter": "nope"}, content_type="application/json"
    )
    assert answer.status_code == 422
    assert answer.json()["errors"][0]["field"] == "starter"


def test_the_schema_in_the_docs_takes_what_a_draft_is_saved_as(otterwick: World) -> None:
    client = otterwick.console()
    draft = made(client, starter="score", name="By the schema")
    file = json.loads(b"".join(client.get(f"/api/touchpoints/{draft['id']}/file")))
    schema = json.loads((ROOT / "docs" / "touchpoint.schema.json").read_text())
    jsonschema_rs.validator_for(schema).validate(file)


def test_what_the_component_tests_answer_with_is_what_the_api_says_it_is() -> None:
    """Recorded by `make recorded`; each body is held against the schema of its operation."""
    openapi = json.loads((ROOT / "docs" / "openapi.json").read_text())
    recorded = json.loads(FILE.read_text())
    known = {
        re.compile(re.sub(r"\{\w+\}", "[^/]+", path)): operations
        for path, operations in openapi["paths"].items()
    }
    assert len(recorded) > 50
    # Each is told only the words that it shows; the description names all that there are.
    openapi["components"]["schemas"]["Speech"]["properties"]["words"].pop("required")
    for address, body in recorded.items():
        method, _, path = address.rpartition(" ")
        operations = next(found for pattern, found in known.items() if pattern.fullmatch(path))
        schema = operations[(method or "get").lower()]["responses"]["200"]["content"]["application/json"][
            "schema"
        ]
        jsonschema_rs.validator_for(schema | {"components": openapi["components"]}).validate(body)
