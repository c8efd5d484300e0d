"""The follow-up list as the console gets it, and working it."""

from typing import Any

import pytest
from django.test import Client

from intavo import clock
from intavo.followup.models import FollowUp, PromiseCounted
from intavo.intake.models import Submission
from intavo.mail.models import OutgoingMail
from intavo.people.models import Person, PersonTag

from .conftest import Visitor, World, sending


def arrive(visitor: Visitor, world: World, monkeypatch: pytest.MonkeyPatch, times: dict[str, str]) -> None:
    """People by name who signed up at a time (24 Nov 2026 unless a date is given)."""
    for number, (name, time) in enumerate(times.items(), start=Submission.objects.count() + 1):
        monkeypatch.setenv("INTAVO_NOW", f"{time if 'T' in time else f'2026-11-24T{time}'}:00+00:00")
        answers = {"email": f"{name.lower().replace(' ', '.')}@post.example", "name": name}
        assert visitor.post("intake", sending(world.touchpoint, number, answers=answers)).status_code == 201
    monkeypatch.setenv("INTAVO_NOW", "2026-11-24T14:05:00+00:00")


def lanes(client: Client) -> dict[str, list[str]]:
    """Names by lane."""
    found = client.get("/api/follow-ups").json()["lanes"]
    return {lane["lane"]: [item["called"] for item in lane["items"]] for lane in found if lane["items"]}


@pytest.fixture
def four(visitor: Visitor, otterwick: World, monkeypatch: pytest.MonkeyPatch) -> World:
    people = {"Late": "11:00", "Soon": "13:25", "Sooner": "13:00", "Tomorrow": "14:05"}
    arrive(visitor, otterwick, monkeypatch, people)
    FollowUp.objects.filter(person__name="Tomorrow").update(due="2026-11-25T09:30:00Z")
    return otterwick


def post(client: Client, name: str, what: str, **body: Any) -> Any:
    """Do something with the follow-up of the person with this name."""
    pk = FollowUp.objects.get(person__name=name).pk
    return client.post(f"/api/follow-ups/{pk}/{what}", body, content_type="application/json")


def test_each_stands_in_its_lane_by_due_time(four: World) -> None:
    assert lanes(four.console()) == {
        "late": ["Late"],
        "before-closing": ["Sooner", "Soon"],
        "next-opening": ["Tomorrow"],
    }


def test_lengths_are_open_time(four: World) -> None:
    found = four.console().get("/api/follow-ups").json()
    items = {item["called"]: item for lane in found["lanes"] for item in lane["items"]}
    assert items["Late"]["late_minutes"] == 65
    assert items["Soon"]["left_minutes"] == 80
    assert items["Tomorrow"]["left_minutes"] == 205 + 30
    assert found["ruler"]["closes"] == "2026-11-24T17:30:00Z"
    assert found["ruler"]["opens"] == "2026-11-25T09:00:00Z"


def test_the_list_costs_the_same_queries_for_few_and_for_many(
    visitor: Visitor, otterwick: World, monkeypatch: pytest.MonkeyPatch, django_assert_max_num_queries: Any
) -> None:
    arrive(visitor, otterwick, monkeypatch, {f"P{n}": "13:25" for n in range(30)})
    client = otterwick.console()
    with django_assert_max_num_queries(16):
        client.get("/api/follow-ups")


def test_pages_follow_one_another_by_key(four: World, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr("intavo.followup.list_api.PAGE", 3)
    client = four.console()
    first = client.get("/api/follow-ups").json()
    second = client.get("/api/follow-ups", {"after": first["after"]}).json()
    names = [i["called"] for page in (first, second) for lane in page["lanes"] for i in lane["items"]]
    assert names == ["Late", "Sooner", "Soon", "Tomorrow"]
    assert second["after"] is None


@pytest.mark.parametrize("only", [{}, {"q": "walrus"}])
def test_a_page_that_is_read_anew_keeps_its_last_row_whatever_came_before_it(
    visitor: Visitor, otterwick: World, monkeypatch: pytest.MonkeyPatch, only: dict[str, str]
) -> None:
    monkeypatch.setattr("intavo.followup.list_api.PAGE", 3)
    monkeypatch.setattr("intavo.followup.list_api.LONGEST_PAGE", 6)
    client = otterwick.console()

    def page(**where: str) -> tuple[list[str], dict[str, str]]:
        found = client.get("/api/follow-ups", {**only, **where}).json()
        return [one["called"].split()[0] for lane in found["lanes"] for one in lane["items"]], found

    arrive(visitor, otterwick, monkeypatch, {f"L{n} Walrus": f"13:2{n}" for n in range(2)})
    names, shown = page()
    assert (names, shown["after"]) == (["L0", "L1"], None)
    arrive(visitor, otterwick, monkeypatch, {f"E{n} Walrus": f"12:5{n}" for n in range(2)})
    assert page()[0] == ["E0", "E1", "L0"]
    again, grown = page(through=shown["through"])
    assert (again, grown["through"], grown["after"]) == (["E0", "E1", "L0", "L1"], shown["through"], None)
    arrive(visitor, otterwick, monkeypatch, {"Z Walrus": "13:29"})
    again, grown = page(through=shown["through"])
    assert (again, grown["after"]) == (["E0", "E1", "L0", "L1"], shown["through"])
    assert page(after=grown["after"])[0] == ["Z"]
    arrive(visitor, otterwick, monkeypatch, {f"A{n} Walrus": f"12:4{n}" for n in range(3)})
    again, grown = page(through=shown["through"])
    assert again == ["A0", "A1", "A2", "E0", "E1", "L0"], "no page is longer than the longest"
    assert page(after=grown["after"])[0] == ["L1", "Z"]
    # What is done from it makes room for those that come after.
    for name in ("A0", "A1", "A2", "E0", "E1"):
        post(client, f"{name} Walrus", "finish", outcome="answered")
    assert page(through=shown["through"])[0] == ["L0", "L1", "Z"]


@pytest.mark.parametrize(
    "after", ["abc|5", "|", "5", "2026-11-24T14:05:00|5", "|-5", "|²", "|" + "9" * 30, "\x00|1", "x"]
)
def test_a_key_that_no_page_gave_is_refused_by_name(otterwick: World, after: str) -> None:
    for field in ("after", "through"):
        answer = otterwick.console().get("/api/follow-ups", {field: after})
        assert (answer.status_code, answer.json()["errors"][0]["field"]) == (422, field)


def test_an_answer_is_mailed_once_however_often_it_is_sent(four: World) -> None:
    client = four.console()
    before = OutgoingMail.objects.count()
    for _ in range(2):
        answer = post(client, "Soon", "answer", text="Yes, we do.", key="k1", then="wait")
        assert answer.status_code == 200
    assert OutgoingMail.objects.count() == before + 1
    assert answer.json()["state"] == "for-them"
    kinds = [event["kind"] for event in answer.json()["timeline"]]
    assert kinds == ["signed up", "answered", "waiting"]
    assert PromiseCounted.objects.get().kept


def test_an_answer_without_words_is_refused_by_name(four: World) -> None:
    answer = post(four.console(), "Soon", "answer", text="  ", key="k", then="wait")
    assert answer.status_code == 422
    assert answer.json()["errors"][0]["field"] == "text"


def test_finishing_late_breaks_the_promise_and_undo_takes_both_back(four: World) -> None:
    client = four.console()
    assert post(client, "Late", "finish", outcome="answered").status_code == 200
    assert not PromiseCounted.objects.get().kept
    assert "late" not in lanes(client)
    assert post(client, "Late", "take-up").json()["due"] == "2026-11-24T13:00:00Z"
    assert lanes(client)["late"] == ["Late"]
    assert not PromiseCounted.objects.exists()


def test_put_off_stands_at_the_foot_and_comes_back_by_itself(
    four: World, monkeypatch: pytest.MonkeyPatch
) -> None:
    client = four.console()
    assert post(client, "Soon", "put-off", until="2026-11-24T13:00:00Z").status_code == 422
    assert post(client, "Soon", "put-off", until="2026-11-24T15:00:00Z").status_code == 200
    assert [item["called"] for item in client.get("/api/follow-ups").json()["put_off"]] == ["Soon"]
    monkeypatch.setenv("INTAVO_NOW", "2026-11-24T15:00:00+00:00")
    assert "Soon" in lanes(client)["before-closing"]


def test_their_next_message_brings_it_back(four: World, visitor: Visitor) -> None:
    client = four.console()
    post(client, "Soon", "wait")
    assert [item["called"] for item in client.get("/api/follow-ups").json()["waiting"]] == ["Soon"]
    again = sending(four.touchpoint, 50, answers={"email": "SOON@post.example"})
    visitor.post("intake", again)
    assert FollowUp.objects.get(person__name="Soon").due.isoformat() == "2026-11-24T16:05:00+00:00"
    assert "Soon" in lanes(client)["before-closing"]


def test_a_finished_one_that_is_open_anew_cannot_be_taken_up(four: World, visitor: Visitor) -> None:
    client = four.console()
    pk = FollowUp.objects.get(person__name="Soon").pk
    post(client, "Soon", "finish", outcome="won")
    visitor.post("intake", sending(four.touchpoint, 51, answers={"email": "soon@post.example"}))
    answer = client.post(f"/api/follow-ups/{pk}/take-up")
    assert answer.status_code == 422
    assert "another open" in answer.json()["title"]


@pytest.mark.parametrize(
    ("now", "until", "late", "before"),
    [
        ("2026-11-24T14:05:00+00:00", "open till 17:30", 1, 2),
        ("2026-11-24T18:00:00+00:00", "closed, opens tomorrow at 09:00", 3, 0),
        ("2026-11-25T00:05:00+00:00", "closed, opens today at 09:00", 3, 0),
        ("2026-11-25T09:00:00+00:00", "open till 17:30", 3, 1),
        ("2026-11-27T17:30:00+00:00", "closed, opens on Monday at 09:00", 4, 0),
    ],
)
def test_the_day_line_is_right_at_every_hour(
    four: World, monkeypatch: pytest.MonkeyPatch, now: str, until: str, late: int, before: int
) -> None:
    monkeypatch.setenv("INTAVO_NOW", now)
    day = four.console().get("/api/day").json()
    assert (day["until"], day["late"], day["before_closing"]) == (until, late, before)
    assert day["start"] <= now.replace("+00:00", "Z") < day["end"]


@pytest.mark.parametrize(
    ("now", "said"),
    [
        ("2026-11-24T05:30:00+00:00", "tomorrow at 09:00"),
        ("2026-11-24T14:05:00+00:00", "tomorrow at 09:00"),
        ("2026-11-24T20:00:00+00:00", "tomorrow at 09:00"),
        ("2026-11-27T05:30:00+00:00", "on Monday at 09:00"),
    ],
)
def test_the_reply_on_the_day_line_is_true_after_todays_closing(
    otterwick: World, monkeypatch: pytest.MonkeyPatch, now: str, said: str
) -> None:
    monkeypatch.setenv("INTAVO_NOW", now)
    assert f"We open again {said}" in otterwick.console().get("/api/day").json()["after_reply"]


def test_a_person_is_found_by_name_or_address(four: World) -> None:
    client = four.console()
    assert [one["name"] for one in client.get("/api/find", {"q": "soone"}).json()] == ["Sooner"]
    assert [one["name"] for one in client.get("/api/find", {"q": "LATE@post"}).json()] == ["Late"]
    assert client.get("/api/find", {"q": " "}).json() == []
    # Where the words stand is said, and they are marked.
    person = Person.objects.get(name="Late")
    PersonTag.objects.create(
        business_id=person.business_id, person=person, tag="Spring fleet", given_at=clock.now()
    )
    places = {
        q: [(one["where"], one["text"]) for one in client.get("/api/find", {"q": q}).json()]
        for q in ("lat", "LATE@", "fleet")
    }
    assert places == {
        "lat": [("name", "\ue000Lat\ue001e")],
        "LATE@": [("address", "\ue000late@\ue001post.example")],
        "fleet": [("tag", "Spring \ue000fleet\ue001")],
    }


def test_the_list_comes_beside_the_code_that_shows_it(four: World) -> None:
    client = four.console()
    assert "/api/follow-ups?after=" in client.get("/follow-up")["Link"]
    assert "/api/follow-ups?after=" in client.get("/")["Link"]
    for other in (client.get("/people"), client.get("/follow-up?kind=inquiry"), Client().get("/follow-up")):
        assert other.status_code == 200
        assert not other.has_header("Link")
