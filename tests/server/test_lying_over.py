"""A bar that could not move a page aside says so once, and the owner reads it; and a plan for the places of a page."""

from typing import Any

import pytest

from intavo.accounts.actor import visitor_of
from intavo.results.models import Beat
from intavo.touchpoints import live
from intavo.touchpoints.actions import make, note_lying_over, put_live, save_draft, turn_off, turn_on
from intavo.touchpoints.models import LyingOver, Touchpoint

from .conftest import Visitor, World


@pytest.fixture
def bar(otterwick: World) -> Touchpoint:
    row = make(otterwick.owner, starter="news", name="Bar")
    document = dict(row.draft.document) | {"stance": "bar"}
    save_draft(otterwick.owner, touchpoint_id=row.pk, document=document, based_on=1)
    return turn_on(otterwick.owner, touchpoint_id=row.pk)


def over(bar: Touchpoint, path: str, number: int | None = None) -> dict[str, Any]:
    page = {"url": f"https://otterwick.example{path}"}
    return {
        "id": f"beat-{path}-{number}", "touchpoint": bar.public_id, "revision": number or bar.live.number,
        "variant": None, "what": "over", "page": page, "device": "phone", "at": "2026-11-24T14:05:00Z",
    }  # fmt: skip


def said(world: World, row: Touchpoint) -> list[str]:
    findings = world.console().get(f"/api/touchpoints/{row.pk}").json()["findings"]
    return [one["message"] for one in findings if "lies over" in one["message"]]


def test_where_a_bar_lies_over_the_page_is_found_by_the_ready_check(
    visitor: Visitor, otterwick: World, other: World, bar: Touchpoint
) -> None:
    assert said(otterwick, bar) == []
    stranger = over(bar, "/trips") | {"page": {"url": "https://elsewhere.example/x"}}
    answer = visitor.post("beats", [over(bar, "/menu"), over(bar, "/MENU/"), stranger])
    assert (answer.status_code, answer.json()) == (202, {"kept": 2, "refused": 1})
    assert said(otterwick, bar) == ["It could not move the page aside on /menu: there it lies over the page."]
    assert not Beat.objects.filter(touchpoint=bar.public_id).exists(), "it is in no figure"
    visitor.post("beats", [over(bar, f"/p{n}") for n in range(30)])
    [words] = said(otterwick, bar)
    assert words.startswith("It could not move the page aside on /menu, /p0, /p1 and 17 more:")
    note_lying_over(visitor_of(other.owner.business_id), public_id=bar.public_id, revision=1, page="/x")
    assert not LyingOver.objects.filter(page="/x").exists(), "of another business nothing is written"


def test_a_newer_look_is_not_blamed_for_the_one_before(
    visitor: Visitor, otterwick: World, bar: Touchpoint
) -> None:
    visitor.post("beats", [over(bar, "/menu")])
    document = dict(bar.live.document)
    document["look"] = document["look"] | {"pushes": False}
    save_draft(otterwick.owner, touchpoint_id=bar.pk, document=document, based_on=bar.live.number)
    assert said(otterwick, bar) == []
    row = put_live(otterwick.owner, touchpoint_id=bar.pk)
    assert said(otterwick, row) == []
    visitor.post("beats", [over(row, "/hire")])
    assert said(otterwick, row) == ["It could not move the page aside on /hire: there it lies over the page."]


def test_what_the_page_has_places_for_stands_in_the_plan(
    visitor: Visitor, otterwick: World, bar: Touchpoint
) -> None:
    document = dict(bar.live.document)
    sentence = document["show"]["sentences"][0] | {"pages": [{"kind": "exact", "path": "/nowhere"}]}
    document["show"] = document["show"] | {"sentences": [sentence]}
    save_draft(otterwick.owner, touchpoint_id=bar.pk, document=document, based_on=bar.live.number)
    put_live(otterwick.owner, touchpoint_id=bar.pk)

    def planned(**more: Any) -> list[tuple[str, bool]]:
        found = visitor.plan("/trips", **more).json()["touchpoints"]
        return [(one["slug"], bool(one["moments"])) for one in found if one["slug"] == bar.slug]

    assert planned() == []
    assert planned(slots=[bar.slug, "nothing-of-this-name"]) == [(bar.slug, False)]
    turn_off(otterwick.owner, touchpoint_id=bar.pk)
    live._sites[visitor.key].checked -= 1.0
    assert planned(slots=[bar.slug]) == []
    for wrong in (["x" * 101], ["x"] * 51, "x", [1]):
        refused = visitor.plan("/trips", slots=wrong)
        assert refused.status_code == 422
        assert refused.json()["errors"][0]["field"].startswith("slots")
