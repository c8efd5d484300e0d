"""Looking back, turning into something else, several sites, order, copies, throwing away, files, house style, questions."""

import json
import threading
from typing import Any

import pytest
from django.conf import settings
from django.db import connection, transaction
from django.test import Client

from intavo.accounts.scope import held
from intavo.sites.actions import add_site
from intavo.touchpoints import live
from intavo.touchpoints.models import Touchpoint
from tests.waiting import until

from .conftest import Visitor, World
from .test_touchpoints_api import headline, made, save


def call(client: Client, method: str, path: str, body: Any = None, status: int = 200) -> Any:
    """One call of the API; its data."""
    answer = client.generic(method, f"/api{path}", json.dumps(body or {}), "application/json")
    assert answer.status_code == status, answer.content
    return answer.json() if answer.content else None


def test_every_version_is_dated_can_be_named_seen_and_returned_to(otterwick: World) -> None:
    client = otterwick.console()
    draft = made(client, name="Spring")
    for number, text in enumerate(("A", "B"), 1):
        draft = save(client, draft, text, run=f"r{number}")
    path = f"/touchpoints/{draft['id']}/revisions"
    assert [one["number"] for one in call(client, "get", path)] == [3, 2, 1]
    named = call(client, "put", f"{path}/2/name", {"name": " Before Easter "})
    assert named[1]["name"] == "Before Easter"
    seen = call(client, "get", f"{path}/2")
    assert seen["seen"]["steps"][0]["parts"][0]["text"] == "A"
    assert [one["words"] for one in seen["changes"]] == ["Headline: “A” becomes “B”"]
    back = call(client, "post", f"{path}/2/return")
    assert (headline(back), back["number"], back["can_undo"]) == ("A", 4, True)
    assert headline(call(client, "post", f"/touchpoints/{draft['id']}/undo")) == "B"


def test_a_named_version_is_not_written_over_by_the_same_run(otterwick: World) -> None:
    client = otterwick.console()
    draft = save(client, made(client), "A", run="r")
    call(client, "put", f"/touchpoints/{draft['id']}/revisions/{draft['number']}/name", {"name": "Keep"})
    assert save(client, draft, "AB", run="r")["number"] == draft["number"] + 1


def test_what_will_change_is_listed_until_it_is_live(otterwick: World) -> None:
    client = otterwick.console()
    draft = call(client, "get", f"/touchpoints/{otterwick.touchpoint.pk}")
    assert draft["changes"] == []
    draft = save(client, draft, "New words", run="x")
    assert [one["place"] for one in draft["changes"]] == ["p1"]
    assert call(client, "post", f"/touchpoints/{draft['id']}/live")["changes"] == []


def test_turning_into_something_else_is_one_step_that_can_be_undone(otterwick: World) -> None:
    client = otterwick.console()
    draft = made(client)
    turned = call(
        client, "post", f"/touchpoints/{draft['id']}/turn-into", {"purpose": "feedback", "stance": "card"}
    )
    assert (turned["purpose"], turned["stance"], headline(turned)) == ("feedback", "card", headline(draft))
    assert turned["look"]["place"] == "bottom-right"
    assert call(client, "post", f"/touchpoints/{draft['id']}/undo")["purpose"] == "sign-up"


def test_it_can_stand_on_several_sites_of_its_business_only(otterwick: World, other: World) -> None:
    client = otterwick.console()
    second = add_site(otterwick.owner, name="Shop", hosts=["shop.example"])
    path = f"/touchpoints/{otterwick.touchpoint.pk}/sites"
    both = call(client, "put", path, {"site_ids": [otterwick.site.pk, second.pk]})
    assert [one["name"] for one in both["sites"]] == ["Otterwick", "Shop"]
    visitor = Visitor(second.key, "https://shop.example")
    assert [one["slug"] for one in visitor.plan().json()["touchpoints"]] == ["news-of-otterwick"]
    refused = call(client, "put", path, {"site_ids": [other.site.pk]}, status=422)
    assert refused["errors"][0]["field"] == "site_ids"


def test_the_order_decides_the_plan(otterwick: World, visitor: Visitor) -> None:
    client = otterwick.console()
    second = made(client, name="Second")
    call(client, "post", f"/touchpoints/{second['id']}/on")
    call(client, "put", "/touchpoints/order", {"touchpoint_ids": [second["id"]]}, status=204)
    assert [one["slug"] for one in visitor.plan().json()["touchpoints"]] == ["second", "news-of-otterwick"]
    assert [one["name"] for one in call(client, "get", "/touchpoints")] == ["Second", "News of Otterwick"]


def test_one_that_is_thrown_away_is_gone_from_the_site_and_can_be_had_back(
    otterwick: World, visitor: Visitor
) -> None:
    client = otterwick.console()
    path = f"/touchpoints/{otterwick.touchpoint.pk}"
    call(client, "delete", path, status=204)
    assert visitor.plan().json()["touchpoints"] == []
    assert call(client, "get", "/touchpoints") == []
    call(client, "get", path, status=404)
    assert call(client, "post", f"{path}/bring-back", {"on": True})["state"] == "live"
    Visitor(otterwick.site.key).plan()
    assert Touchpoint.objects.get().deleted_at is None


def test_a_copy_is_a_draft_of_its_own(otterwick: World) -> None:
    client = otterwick.console()
    copied = call(client, "post", f"/touchpoints/{otterwick.touchpoint.pk}/copy", status=201)
    assert (copied["name"], copied["slug"], copied["state"]) == (
        "News of Otterwick (copy)",
        "news-of-otterwick-copy",
        "draft",
    )
    original = call(client, "get", f"/touchpoints/{otterwick.touchpoint.pk}")
    assert copied["document"] == original["document"]


def test_a_file_goes_out_and_comes_in_and_a_bad_one_names_its_places(otterwick: World) -> None:
    client = otterwick.console()
    answer = client.get(f"/api/touchpoints/{otterwick.touchpoint.pk}/file")
    assert answer["Content-Disposition"] == 'attachment; filename="news-of-otterwick.touchpoint.json"'
    taken = call(
        client,
        "post",
        "/touchpoints/from-file",
        {"text": answer.content.decode(), "name": "Again"},
        status=201,
    )
    assert (taken["name"], headline(taken)) == ("Again", "News worth opening, once a month")
    broken = json.loads(answer.content)
    broken["steps"][0]["parts"][0]["size"] = "huge"
    broken["look"]["width"] = 5
    errors = call(client, "post", "/touchpoints/from-file", {"text": json.dumps(broken)}, status=422)[
        "errors"
    ]
    assert [one["field"] for one in errors] == ["file.steps.0.parts.0.size", "file.look.width"]
    newer = call(client, "post", "/touchpoints/from-file", {"text": '{"version": 2}'}, status=422)["errors"]
    assert "version 2; this Intavo knows version 1" in newer[0]["message"]


def test_the_house_style_reaches_visitors_and_what_departs_is_marked(
    otterwick: World, visitor: Visitor
) -> None:
    client = otterwick.console()
    house = {"colours": {"button": "#a83a1f"}, "corners": 3}
    call(client, "put", f"/sites/{otterwick.site.pk}/house", {"house": house})
    live._sites.clear()
    look = visitor.plan().json()["touchpoints"][0]["document"]["look"]
    assert (look["colours"]["button"], look["corners"]) == ("#a83a1f", 3)
    draft = call(client, "get", f"/touchpoints/{otterwick.touchpoint.pk}")
    draft["document"]["look"]["corners"] = 30
    body = {"document": draft["document"], "based_on": draft["number"]}
    assert call(client, "put", f"/touchpoints/{draft['id']}/draft", body)["departures"] == ["corners"]
    wrong = call(client, "put", f"/sites/{otterwick.site.pk}/house", {"house": {"corners": 900}}, status=422)
    assert wrong["errors"][0]["field"] == "house.corners"


def test_questions_are_kept_sanitised_ordered_shown_and_counted(otterwick: World, visitor: Visitor) -> None:
    client = otterwick.console()
    answer = '<p onclick="x()">Yes.<script>x</script> <img src="https://x.example/t.png" alt="map"></p>'
    first = call(
        client, "post", "/questions", {"question": "Dogs?", "answer": answer, "group": "Hire"}, status=201
    )
    second = call(client, "post", "/questions", {"question": "Rain?", "answer": "<p>We go.</p>"}, status=201)
    assert first["answer"] == '<p>Yes. <img alt="map"></p>'
    call(client, "put", "/questions/order", {"question_ids": [second["id"], first["id"]]})
    wrong = call(client, "post", "/questions", {"question": " ", "answer": ""}, status=422)
    assert [one["field"] for one in wrong["errors"]] == ["question", "answer"]
    shown = made(client, starter="contact", name="Ask")
    live_one = call(client, "post", f"/touchpoints/{shown['id']}/on")
    body = {"touchpoint": live_one["public_id"], "revision": live_one["live_number"]}
    found = visitor.post("more", body).json()
    assert [one["question"] for one in found["questions"]] == ["Rain?", "Dogs?"]
    assert found["hours"]["open"] is True
    assert visitor.post("helped", {"question": first["id"], "helped": True}).status_code == 204
    assert visitor.post("helped", {"question": 999_999, "helped": True}).status_code == 422
    assert [one["helped"] for one in call(client, "get", "/questions")] == [0, 1]


def test_what_is_hard_to_read_is_said_with_the_shade_that_passes(otterwick: World) -> None:
    client = otterwick.console()
    draft = call(client, "get", f"/touchpoints/{otterwick.touchpoint.pk}")
    draft["document"]["look"]["colours"]["button"] = "#d9742c"
    draft = call(
        client,
        "put",
        f"/touchpoints/{draft['id']}/draft",
        {"document": draft["document"], "based_on": draft["number"]},
    )
    bad = [one for one in draft["readings"] if not one["passes"] and not one["phone"]]
    assert [(one["what"], one["role"]) for one in bad] == [("Button", "button")]
    draft["document"]["look"]["colours"]["button"] = bad[0]["better"]
    draft = call(
        client,
        "put",
        f"/touchpoints/{draft['id']}/draft",
        {"document": draft["document"], "based_on": draft["number"]},
    )
    assert all(one["passes"] for one in draft["readings"])
    assert call(client, "get", "/covered?width=375&height=333.5")["share"] == 0.5


@pytest.mark.django_db(transaction=True, available_apps=settings.INSTALLED_APPS)
def test_what_is_changed_while_another_waits_for_it_is_seen_by_the_one_who_waited(otterwick: World) -> None:
    draft = made(otterwick.console(), name="Spring")
    for number, text in enumerate("ABCD", 1):
        draft = save(otterwick.console(), draft, text, run=f"r{number}")
    statuses: list[int] = []
    client = [otterwick.console() for _ in range(8)]

    def change(which: int, what: str) -> None:
        answer = client[which].post(f"/api/touchpoints/{draft['id']}/{what}", {}, "application/json")
        statuses.append(answer.status_code)
        connection.close()

    ways = ("undo", "redo", "live", "undo", "redo", "live", "undo", "on")
    threads = [threading.Thread(target=change, args=one) for one in enumerate(ways)]
    for one in threads:
        one.start()
    for one in threads:
        one.join()
    assert len(statuses) == len(ways)
    assert set(statuses) <= {200, 422}
    now = call(otterwick.console(), "get", f"/touchpoints/{draft['id']}")
    assert now["document"]["steps"]


@pytest.mark.django_db(transaction=True, available_apps=settings.INSTALLED_APPS)
def test_a_row_that_was_waited_for_comes_with_what_stands_beside_it_now(otterwick: World) -> None:
    draft = made(otterwick.console(), name="Spring")
    waits = threading.Event()
    seen: list[Any] = []

    def wait() -> None:
        with transaction.atomic():
            waits.set()
            row = held(Touchpoint.objects.select_related("draft").filter(pk=draft["id"]))
            assert row is not None
            seen.append(headline({"document": row.draft.document}) if row.draft else None)
        connection.close()

    with transaction.atomic():
        save(otterwick.console(), draft, "Changed", run="r1")
        other = threading.Thread(target=wait)
        other.start()
        assert waits.wait(5)
        until(waiting, "the other waits", every=0.01)
    other.join()
    assert seen == ["Changed"]


def waiting() -> bool:
    """Whether anybody waits for a row that is held."""
    with connection.cursor() as cursor:
        cursor.execute("SELECT count(*) FROM pg_locks WHERE NOT granted")
        row = cursor.fetchone()
    return bool(row and row[0])
