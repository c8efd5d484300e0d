"""Two members at one follow-up: who reads, who writes, what each has begun, and who is told before an answer goes."""

from datetime import timedelta
from typing import Any

import pytest
from django.test import Client

from intavo import clock
from intavo.followup.models import FollowUp
from intavo.people.models import TimelineEvent

from .conftest import Visitor, World, sending


@pytest.fixture
def two(otterwick: World, visitor: Visitor) -> tuple[Client, Client, int]:
    """Two members' consoles, and a follow-up."""
    visitor.post("intake", sending(otterwick.touchpoint))
    return otterwick.console(), otterwick.staff(), FollowUp.objects.get().pk


def sit(client: Client, followup: int, **said: Any) -> list[dict[str, Any]]:
    answer = client.post(f"/api/follow-ups/{followup}/desk", said, content_type="application/json")
    assert answer.status_code == 200
    found: list[dict[str, Any]] = answer.json()
    return found


def test_each_is_told_who_else_reads_and_writes(
    two: tuple[Client, Client, int], monkeypatch: pytest.MonkeyPatch
) -> None:
    ours, theirs, one = two
    assert sit(theirs, one) == []
    assert sit(ours, one) == [{"name": "Sable Okonjo", "writing": False}]
    sit(theirs, one, draft="Yes, ", writing=True)
    assert client_sees(ours, one)["others"] == [{"name": "Sable Okonjo", "writing": True}]
    assert theirs.delete(f"/api/follow-ups/{one}/desk").status_code == 204
    assert sit(ours, one) == []
    sit(theirs, one, writing=True)
    later = clock.now() + timedelta(seconds=30)
    monkeypatch.setattr(clock, "now", lambda: later)
    assert sit(ours, one) == [], "whoever has gone without a word is still said to be there"


def client_sees(client: Client, one: int) -> dict[str, Any]:
    found: dict[str, Any] = client.get(f"/api/follow-ups/{one}").json()
    return found


def test_what_is_begun_is_found_again_by_its_writer_alone_until_it_is_sent(
    two: tuple[Client, Client, int],
) -> None:
    ours, theirs, one = two
    sit(ours, one, draft="We do, from", writing=True)
    sit(ours, one)
    assert client_sees(ours, one)["draft"] == "We do, from"
    assert client_sees(theirs, one)["draft"] == ""
    assert (ours.get("/api/follow-ups").json()["begun"], theirs.get("/api/follow-ups").json()["begun"]) == (
        [one],
        [],
    )
    said = answer(ours, one, "We do, from ten.")
    assert (said.status_code, said.json()["draft"]) == (200, "")
    assert ours.get("/api/follow-ups").json()["begun"] == []


def answer(client: Client, one: int, text: str, **more: Any) -> Any:
    body = {"text": text, "key": text, "then": "keep", **more}
    return client.post(f"/api/follow-ups/{one}/answer", body, content_type="application/json")


def test_of_two_answers_the_second_is_told_before_it_goes(two: tuple[Client, Client, int]) -> None:
    ours, theirs, one = two
    seen = client_sees(ours, one)["timeline"][-1]["id"]
    assert answer(theirs, one, "Yes, from ten.", seen=seen).status_code == 200
    refused = answer(ours, one, "No, sorry.", seen=seen)
    assert refused.status_code == 422
    assert refused.json()["errors"] == [
        {"field": "seen", "message": "Sable Okonjo has answered meanwhile: “Yes, from ten.”"}
    ]
    now = max(event["id"] for event in client_sees(ours, one)["timeline"])
    assert answer(ours, one, "No, sorry.", seen=now).status_code == 200
    assert answer(theirs, one, "And bring a coat.", seen=seen).status_code == 422
    kinds = [event["kind"] for event in client_sees(ours, one)["timeline"]]
    assert kinds.count("answered") == 2


def offline(client: Client, one: int, what: str, once: str, seen: int, **body: Any) -> Any:
    """What a device did without a network, handed in when it is back."""
    headers = {"X-Intavo-Once": once, "X-Intavo-Seen": str(seen)}
    return client.post(
        f"/api/follow-ups/{one}/{what}", body, content_type="application/json", headers=headers
    )


def test_what_a_device_did_without_a_network_is_done_once(two: tuple[Client, Client, int]) -> None:
    ours, _, one = two
    seen = client_sees(ours, one)["timeline"][-1]["id"]
    for _ in range(2):
        assert offline(ours, one, "note", "a1", seen, text="Rang; nobody there").status_code == 200
        assert offline(ours, one, "answer", "a2", seen, text="Yes.", key="a2", then="keep").status_code == 200
        assert offline(ours, one, "put-off", "a3", seen, until="2026-11-25T10:00:00Z").status_code == 200
    kinds = [event["kind"] for event in client_sees(ours, one)["timeline"]]
    assert kinds == ["signed up", "noted", "answered", "put off"]


def test_what_a_colleague_did_meanwhile_is_told_and_not_overwritten(two: tuple[Client, Client, int]) -> None:
    ours, theirs, one = two
    seen = client_sees(ours, one)["timeline"][-1]["id"]
    done = theirs.post(f"/api/follow-ups/{one}/finish", {"outcome": "won"}, content_type="application/json")
    assert done.status_code == 200
    refused = offline(ours, one, "put-off", "b1", seen, until="2026-11-25T10:00:00Z")
    assert refused.status_code == 422
    assert refused.json()["errors"] == [
        {"field": "seen", "message": "Sable Okonjo has finished it meanwhile."}
    ]
    assert client_sees(ours, one)["state"] == "finished"
    # What was refused is not taken for done: with what is known by now it is asked anew.
    now = client_sees(ours, one)["timeline"][-1]["id"]
    again = offline(ours, one, "put-off", "b1", now, until="2026-11-25T10:00:00Z")
    assert "finished already" in again.json()["errors"][0]["message"]
    assert offline(ours, one, "note", "b2", now, text="Too late then").status_code == 200


def test_a_device_that_says_nothing_sensible_is_refused(two: tuple[Client, Client, int]) -> None:
    ours, _, one = two
    headers = {"X-Intavo-Seen": "soon"}
    answered = ours.post(f"/api/follow-ups/{one}/wait", content_type="application/json", headers=headers)
    assert (answered.status_code, answered.json()["errors"][0]["field"]) == (422, "X-Intavo-Seen")


def test_what_a_device_calls_what_it_does_is_never_cut(two: tuple[Client, Client, int]) -> None:
    ours, _, one = two
    seen, name = client_sees(ours, one)["timeline"][-1]["id"], "n" * 63
    for last in "ab":
        assert offline(ours, one, "note", f"{name}{last}", seen, text=f"Note {last}").status_code == 200
        answered = offline(
            ours, one, "answer", "", seen, text=f"Yes {last}", key=f"{name}{last}", then="keep"
        )
        assert answered.status_code == 200
    kinds = [event["kind"] for event in client_sees(ours, one)["timeline"]]
    assert (kinds.count("noted"), kinds.count("answered")) == (2, 2)
    long = offline(ours, one, "note", f"{name}ab", seen, text="Note")
    assert (long.status_code, long.json()["errors"][0]["field"]) == (422, "X-Intavo-Once")
    for key in ("", f"{name}ab"):
        refused = offline(ours, one, "answer", "", seen, text="Yes", key=key, then="keep")
        assert (refused.status_code, refused.json()["errors"][0]["field"]) == (422, "key")


def test_the_answer_to_such_a_question_is_proposed(two: tuple[Client, Client, int], otterwick: World) -> None:
    ours, _, one = two
    assert ours.get(f"/api/follow-ups/{one}/proposed").json() is None
    question = {"group": "", "question": "Do you hire wetsuits for children?", "answer": "From age six."}
    assert ours.post("/api/questions", question, content_type="application/json").status_code == 201
    event = TimelineEvent.objects.get()
    event.kind, event.data = (
        "asked",
        event.data | {"followup": one, "text": "Are there wetsuits for hire, for a child?"},
    )
    event.save()
    assert ours.get(f"/api/follow-ups/{one}/proposed").json() == {
        "question": "Do you hire wetsuits for children?",
        "words": "From age six.",
    }
