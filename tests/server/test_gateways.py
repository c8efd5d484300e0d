"""Gateways: what goes out is handed over once, what comes in is signed, and a gateway that is away loses nothing."""

import contextlib
import json
import socket
import threading
import time
from collections.abc import Callable, Iterator
from datetime import UTC, datetime
from functools import partial
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from typing import Any

import pytest
from django.conf import settings
from django.test import Client
from standardwebhooks import Webhook

from intavo.accounts.models import Business
from intavo.channels.actions import add_channel
from intavo.followup.models import FollowUp
from intavo.hours.actions import add_hours
from intavo.people.models import Person, TimelineEvent
from intavo.talks import gateways
from intavo.talks.gateways import GatewayAway, add_gateway, deliver
from intavo.talks.models import Delivery, Gateway, Message, Talk
from intavo.touchpoints import live
from intavo.touchpoints.models import short_code

from .conftest import World
from .test_collisions import at_once


class Service:
    """A service on loopback that takes messages, or answers as it is told."""

    def __init__(self, host: str = "127.0.0.1", port: int = 0) -> None:
        self.hosts: list[str | None] = []
        self.got: list[tuple[str | None, dict[str, Any]]] = []
        self.status = 200
        service = self

        class Takes(BaseHTTPRequestHandler):
            def do_POST(self) -> None:
                body = json.loads(self.rfile.read(int(self.headers["Content-Length"])))
                service.got.append((self.headers["Authorization"], body))
                service.hosts.append(self.headers["Host"])
                self.send_response(service.status)
                self.send_header("Content-Length", "0")
                self.end_headers()

            def log_message(self, *_: object) -> None:
                """Quietly."""

        self.server = ThreadingHTTPServer((host, port), Takes)
        threading.Thread(target=self.server.serve_forever, daemon=True).start()

    @property
    def address(self) -> str:
        return f"http://127.0.0.1:{self.server.server_port}"


@pytest.fixture
def service(monkeypatch: pytest.MonkeyPatch) -> Iterator[Service]:
    monkeypatch.setattr(settings, "LOCAL_GATEWAYS", ["127.0.0.1"])
    made = Service()
    yield made
    made.server.shutdown()
    made.server.server_close()


def call(gateway: Gateway, secret: str, body: dict[str, Any], id_: str = "msg_1") -> Any:
    text, at = json.dumps(body), datetime.now(UTC)
    signature = Webhook(secret).sign(id_, at, text)
    headers = {
        "webhook-id": id_,
        "webhook-timestamp": str(int(at.timestamp())),
        "webhook-signature": signature,
    }
    return Client().post(f"/g/{gateway.key}", text, content_type="application/json", headers=headers)


def message(id_: str, text: str | None, **more: Any) -> dict[str, Any]:
    sender = {"handle": "ife", "name": "Ife Dunmore"}
    return {"id": id_, "from": sender, "text": text, "ref": None, "at": "2026-11-24T14:05:00Z"} | more


def test_the_touchpoints_own_script_answers_there_and_the_code_is_taken_out(
    talking: World,
    service: Service,
) -> None:
    gateway, secret = add_gateway(talking.owner, name="Wherry", address=service.address, bearer="b-1")
    code = short_code(talking.touchpoint.public_id)
    assert call(gateway, secret, message("w1", f"Hello, I am looking at Trips. #{code}")).status_code == 200
    talk = Talk.objects.get()
    assert talk.touchpoint_id == talking.touchpoint.pk
    assert [row.text for row in talk.messages.order_by("n")] == [
        "Hello, I am looking at Trips.",
        "Hello. What is it about?",
    ]
    assert FollowUp.objects.get().excerpt == "Hello, I am looking at Trips."
    assert FollowUp.objects.get().person.name == "Ife Dunmore"
    for row in Delivery.objects.order_by("pk"):
        deliver(row.pk)
    bearer, sent = service.got[0]
    assert bearer == "Bearer b-1"
    assert (sent["to"], sent["text"], sent["in_reply_to"]) == ("ife", "Hello. What is it about?", "w1")
    assert [one["id"] for one in sent["choices"]] == ["c1", "c2", "c3"]
    call(gateway, secret, message("w2", None, choice="c1"))
    assert talk.messages.order_by("-n")[0].text == "Which day is it?"
    call(gateway, secret, message("w3", None, choice="gone"))
    assert Message.objects.filter(text="gone", source="them").exists()


def test_the_same_message_is_taken_in_once_and_an_answer_goes_out_once(
    talking: World,
    service: Service,
) -> None:
    gateway, secret = add_gateway(talking.owner, name="Wherry", address=service.address, bearer="b")
    for _ in range(2):
        assert call(gateway, secret, message("w1", "Is it cold?")).status_code == 200
    assert Message.objects.filter(source="them").count() == 1
    followup = FollowUp.objects.get()
    body = json.dumps({"text": "Bring a jacket.", "key": "k", "then": "wait"})
    for _ in range(2):
        path = f"/api/follow-ups/{followup.pk}/answer"
        assert talking.console().post(path, body, content_type="application/json").status_code == 200
    sent = Delivery.objects.get(message__source="us")
    deliver(sent.pk)
    deliver(sent.pk)
    assert [one["text"] for _, one in service.got] == ["Bring a jacket."]
    assert call(gateway, secret, {"id": sent.uid, "delivered": True}).status_code == 200
    sent.refresh_from_db()
    assert sent.state == Delivery.DELIVERED


def test_ids_that_are_long_and_alike_are_two_messages(talking: World, service: Service) -> None:
    gateway, secret = add_gateway(talking.owner, name="Wherry", address=service.address, bearer="b")
    ids = [f"{'w' * 79}{number}" for number in range(2)]
    for id_ in ids:
        assert call(gateway, secret, message(id_, "Is it cold?")).status_code == 200
    assert Message.objects.filter(source="them").count() == 2
    for row in Delivery.objects.order_by("pk"):
        deliver(row.pk)
    assert {one["in_reply_to"] for _, one in service.got} <= {*ids}
    assert call(gateway, secret, message("w" * 81, "Is it cold?")).status_code == 422


@pytest.mark.parametrize(("bearer", "said"), [("", None), (" b-1\n", "Bearer b-1")])
def test_it_knows_us_by_what_was_agreed_or_by_nothing(
    talking: World, service: Service, bearer: str, said: str | None
) -> None:
    gateway, secret = add_gateway(talking.owner, name="Wherry", address=service.address, bearer=bearer)
    call(gateway, secret, message("w1", "Is it cold?"))
    deliver(Delivery.objects.get().pk)
    assert [heads for heads, _ in service.got] == [said]


@pytest.mark.parametrize("bearer", ["clé", "a b", "a\nb", "x" * 501])
def test_what_cannot_be_sent_to_it_is_refused_when_it_is_added(talking: World, bearer: str) -> None:
    body = {"name": "Wherry", "address": "https://bridge.example", "bearer": bearer}
    refused = talking.console().post("/api/gateways", body, "application/json")
    assert (refused.status_code, refused.json()["errors"][0]["field"]) == (422, "bearer")


def test_a_gateway_that_is_away_loses_nothing_and_is_said_so(talking: World, service: Service) -> None:
    gateway, secret = add_gateway(talking.owner, name="Wherry", address=service.address, bearer="b")
    call(gateway, secret, message("w1", "Is it cold?"))
    sent = Delivery.objects.get()
    service.status = 503
    with pytest.raises(GatewayAway):
        deliver(sent.pk)
    day = talking.console().get("/api/day").json()
    assert day["gateways_away"] == ["Wherry"]
    service.status = 200
    deliver(sent.pk)
    sent.refresh_from_db()
    assert sent.state == Delivery.ACCEPTED
    assert talking.console().get("/api/day").json()["gateways_away"] == []


def test_what_the_service_refuses_is_given_up_and_stands_on_the_timeline(
    talking: World,
    service: Service,
) -> None:
    gateway, secret = add_gateway(talking.owner, name="Wherry", address=service.address, bearer="b")
    call(gateway, secret, message("w1", "Is it cold?"))
    service.status = 410
    deliver(Delivery.objects.get().pk)
    timeline = talking.console().get(f"/api/follow-ups/{FollowUp.objects.get().pk}").json()["timeline"]
    assert (timeline[-1]["kind"], timeline[-1]["data"]["reason"]) == ("not delivered", "Wherry answered 410")


@pytest.mark.parametrize(
    "body", [{"id": "x"}, {"id": "x", "from": {"handle": "a"}}, {"from": {"handle": "a"}, "text": "b"}, [], {"id": "x", "from": {"handle": "a"}, "text": " "},
             {"id": "x", "from": {"handle": "a"}, "text": "b", "at": "9999-12-31T23:59:59-14:00"}, {"id": "nobody", "delivered": True}]
)  # fmt: skip
def test_what_is_no_message_is_refused(talking: World, service: Service, body: Any) -> None:
    gateway, secret = add_gateway(talking.owner, name="Wherry", address=service.address, bearer="b")
    assert call(gateway, secret, body).status_code == 422
    assert not Talk.objects.exists()


def test_unsigned_wrongly_signed_and_unknown_are_turned_away(talking: World, service: Service) -> None:
    gateway, secret = add_gateway(talking.owner, name="Wherry", address=service.address, bearer="b")
    wrong = "whsec_" + "A" * 32
    assert call(gateway, wrong, message("w1", "Hello")).status_code == 401
    assert Client().post(f"/g/{gateway.key}", "{}", content_type="application/json").status_code == 401
    assert Client().get(f"/g/{gateway.key}").status_code == 405
    gateway.key = "guessed"
    assert call(gateway, secret, message("w1", "Hello")).status_code == 404
    assert not Talk.objects.exists()


def test_a_gateway_on_this_machine_is_never_called(
    talking: World, service: Service, monkeypatch: pytest.MonkeyPatch
) -> None:
    gateway, secret = add_gateway(talking.owner, name="Wherry", address=service.address, bearer="b")
    call(gateway, secret, message("w1", "Hello"))
    monkeypatch.setattr(settings, "LOCAL_GATEWAYS", [])
    deliver(Delivery.objects.get().pk)
    assert Delivery.objects.get().state == Delivery.FAILED
    assert service.got == []


def test_one_that_is_deleted_keeps_what_was_said_and_can_be_had_back(
    talking: World, service: Service
) -> None:
    gateway, secret = add_gateway(talking.owner, name="Wherry", address=service.address, bearer="b")
    call(gateway, secret, message("w1", "Is it cold?"))
    console = talking.console()
    service.status = 503
    with pytest.raises(GatewayAway):
        deliver(Delivery.objects.get().pk)
    assert console.delete(f"/api/gateways/{gateway.pk}").status_code == 204
    assert console.get("/api/gateways").json() == []
    assert console.get("/api/day").json()["gateways_away"] == []
    assert call(gateway, secret, message("w2", "And windy?"), "msg_2").status_code == 404
    followup = FollowUp.objects.get()
    talk = console.get(f"/api/follow-ups/{followup.pk}/talk").json()
    assert talk["messages"][0]["text"] == "Is it cold?"
    # What was on its way is given up, and said; nothing more can be answered there.
    deliver(Delivery.objects.get().pk)
    assert (Delivery.objects.get().state, Delivery.objects.get().reason) == ("failed", "Wherry was deleted")
    ways = [one["key"] for one in console.get(f"/api/follow-ups/{followup.pk}").json()["ways"]]
    assert "talk" not in ways
    again, _ = add_gateway(talking.owner, name="wherry", address=service.address, bearer="b")
    taken = console.post(f"/api/gateways/{gateway.pk}/back")
    assert (taken.status_code, taken.json()["errors"][0]["field"]) == (422, "name")
    console.delete(f"/api/gateways/{again.pk}")
    assert console.post(f"/api/gateways/{gateway.pk}/back").json()["name"] == "Wherry"
    assert call(gateway, secret, message("w2", "And windy?"), "msg_2").status_code == 200
    assert Talk.objects.get().messages.filter(source="them").count() == 2


@pytest.mark.django_db(transaction=True, available_apps=settings.INSTALLED_APPS)
def test_the_first_words_of_one_that_come_at_once_are_one_conversation(
    talking: World, service: Service
) -> None:
    gateway, secret = add_gateway(talking.owner, name="Wherry", address=service.address, bearer="b")

    def wrote(number: int) -> int:
        return int(
            call(gateway, secret, message(f"w{number}", f"Word {number}"), f"msg_{number}").status_code
        )

    assert at_once([partial(wrote, number) for number in range(6)]) == [200] * 6
    assert Talk.objects.get().messages.filter(source="them").count() == 6
    assert FollowUp.objects.get().person == Person.objects.get()


@pytest.mark.django_db(transaction=True, available_apps=settings.INSTALLED_APPS)
def test_one_is_answered_joined_and_written_to_at_once(talking: World, service: Service) -> None:
    gateway, secret = add_gateway(talking.owner, name="Wherry", address=service.address, bearer="b")
    call(gateway, secret, message("w0", "Hello"))
    followup = FollowUp.objects.get()
    other = Person.objects.create(business_id=gateway.business_id, name="Ife", created_at=followup.opened_at)

    def wrote(number: int) -> int:
        return int(
            call(gateway, secret, message(f"w{number}", f"Word {number}"), f"msg_{number}").status_code
        )

    def answered(number: int) -> int:
        body = {"text": f"Answer {number}", "key": f"k{number}", "then": "keep"}
        path = f"/api/follow-ups/{followup.pk}/answer"
        return talking.console().post(path, body, content_type="application/json").status_code

    def joined() -> int:
        path = f"/api/people/{other.pk}/join"
        body = {"gone_id": followup.person_id}
        return talking.console().post(path, body, content_type="application/json").status_code

    jobs: list[Callable[[], int]] = [
        joined,
        *(partial(wrote, number) for number in range(1, 5)),
        *(partial(answered, n) for n in range(4)),
    ]
    statuses = at_once(jobs)
    assert statuses == [200] * len(jobs)
    words = Talk.objects.get().messages.order_by("n")
    assert [row.n for row in words] == list(range(1, words.count() + 1))
    assert (words.filter(source="them").count(), words.filter(source="us").count()) == (5, 4)


class Names:
    """Where a name leads: first to one place, then to another."""

    def __init__(self, *places: str) -> None:
        self.places, self.real = list(places), socket.getaddrinfo

    def __call__(self, host: Any, port: Any, *about: Any, **more: Any) -> Any:
        name = host.decode() if isinstance(host, bytes) else host
        if name == "bridge.example":
            name = self.places.pop(0) if len(self.places) > 1 else self.places[0]
        return self.real(name, port, *about, **more)


def test_a_name_that_leads_elsewhere_once_it_was_checked_is_called_where_it_was_checked(
    talking: World, service: Service, monkeypatch: pytest.MonkeyPatch
) -> None:
    port = service.server.server_port
    address = f"http://bridge.example:{port}"
    gateway, secret = add_gateway(talking.owner, name="Wherry", address=address, bearer="b")
    call(gateway, secret, message("w1", "Hello"))
    inside = Service("127.0.0.2", port)
    monkeypatch.setattr(socket, "getaddrinfo", Names("127.0.0.1", "127.0.0.2"))
    monkeypatch.setattr(gateways, "_outside", lambda address: str(address) == "127.0.0.1")
    try:
        deliver(Delivery.objects.get().pk)
    finally:
        inside.server.shutdown()
        inside.server.server_close()
    assert (len(service.got), inside.got) == (1, [])
    assert service.hosts == [f"bridge.example:{port}"]
    # Where it leads inside at once, nothing is called at all.
    Delivery.objects.update(state=Delivery.WAITING)
    monkeypatch.setattr(socket, "getaddrinfo", Names("127.0.0.2"))
    deliver(Delivery.objects.get().pk)
    assert len(service.got) == 1
    assert "may be called" in Delivery.objects.get(state=Delivery.FAILED).reason


def test_a_service_that_answers_for_ever_is_waited_for_no_longer_than_others(
    talking: World, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(settings, "LOCAL_GATEWAYS", ["127.0.0.1"])
    monkeypatch.setattr(gateways, "TIMEOUT", 0.6)
    slow = socket.create_server(("127.0.0.1", 0))

    ended = threading.Event()

    def drips() -> None:
        with contextlib.suppress(OSError):
            taken, _ = slow.accept()
            taken.sendall(b"HTTP/1.1 200 OK\r\n")
            while not ended.wait(0.05):
                taken.sendall(b"X-More: 1\r\n")

    threading.Thread(target=drips, daemon=True).start()
    address = f"http://127.0.0.1:{slow.getsockname()[1]}"
    gateway, secret = add_gateway(talking.owner, name="Wherry", address=address, bearer="b")
    call(gateway, secret, message("w1", "Hello"))
    began = time.monotonic()
    with pytest.raises(GatewayAway, match="too long"):
        deliver(Delivery.objects.get().pk)
    assert time.monotonic() - began < 30
    slow.close()


def test_what_comes_by_a_channel_is_promised_by_its_hours_and_goes_to_whom_it_was_written_to(
    talking: World, service: Service, monkeypatch: pytest.MonkeyPatch
) -> None:
    gateway, secret = add_gateway(talking.owner, name="Wherry", address=service.address, bearer="b-1")
    week = [{"day": "tue", "from": "19:00", "to": "22:00"}]
    hours = {"timezone": "Europe/London", "week": week, "exceptions": []}
    evening = add_hours(talking.owner, name="Evening", document=hours)
    people = [
        {"name": "Jory", "handle": "jory", "member": talking.owner.member_id},
        {"name": "Kit", "handle": "kit"},
    ]
    link = {"kind": "message-link", "template": "https://w.example/to/{handle}{?text}", "gateway": gateway.pk}
    document = link | {"label": "Evening chat", "handle": "otter", "hours": [evening.pk], "people": people}
    channel = add_channel(talking.owner, document=document)
    Business.objects.update(promise_minutes=60)
    live._sites.clear()
    rows = FollowUp.objects.select_related("person").order_by("-pk")

    def asked(handle: str, **more: Any) -> FollowUp:
        sender = {"handle": handle, "name": handle.title()}
        assert (
            call(
                gateway, secret, message(f"m-{handle}", "Are you there?", **more) | {"from": sender}
            ).status_code
            == 200
        )
        return rows[0]

    # It is 14:05; the main hours go on till 17:30.
    only = asked("ann")
    assert (only.due, only.page, only.member_id) == (
        datetime(2026, 11, 24, 20, tzinfo=UTC),
        "Evening chat",
        None,
    )
    assert Talk.objects.get(handle="ann").messages.filter(source="script").exists()
    met = talking.console().get("/api/channels").json()["channels"][0]
    assert met["situation"] != "open"
    assert asked("ben", to="jory").member_id == talking.owner.member_id
    assert asked("cat", to="kit").member_id is None
    given = TimelineEvent.objects.get(kind="given")
    assert (given.data["to"], given.data["by_rule"]) == ("Owner of Otterwick", False)
    add_channel(talking.owner, document=link | {"label": "Other", "handle": "otter2"})
    live._sites.clear()
    assert asked("dan", to="otter").page == "Evening chat"
    # Of two, none is meant where nobody says which.
    unsaid = asked("eve")
    assert (unsaid.page, unsaid.due) == ("Wherry", datetime(2026, 11, 24, 15, 5, tzinfo=UTC))
    assert channel.public_id == Talk.objects.get(handle="dan").channel
