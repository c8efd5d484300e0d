"""Gateways: what goes out is handed over once, what comes in is signed, and a gateway that is away loses nothing."""

import json
import threading
from collections.abc import Iterator
from datetime import UTC, datetime
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from typing import Any

import pytest
from django.conf import settings
from django.test import Client
from standardwebhooks import Webhook

from intavo.followup.models import FollowUp
from intavo.talks.gateways import GatewayAway, add_gateway, deliver
from intavo.talks.models import Delivery, Gateway, Message, Talk
from intavo.touchpoints.models import short_code

from .conftest import World


class Service:
    """A service on loopback that takes messages, or answers as it is told."""

    def __init__(self) -> None:
        self.got: list[tuple[str | None, dict[str, Any]]] = []
        self.status = 200
        service = self

        class Takes(BaseHTTPRequestHandler):
            def do_POST(self) -> None:
                body = json.loads(self.rfile.read(int(self.headers["Content-Length"])))
                service.got.append((self.headers["Authorization"], body))
                self.send_response(service.status)
                self.send_header("Content-Length", "0")
                self.end_headers()

            def log_message(self, *_: object) -> None:
                """Quietly."""

        self.server = ThreadingHTTPServer(("127.0.0.1", 0), Takes)
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
