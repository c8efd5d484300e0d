"""A mailbox that is read by IMAP, tried against the stand-in."""

import socketserver
import threading
from collections.abc import Iterator
from contextlib import suppress
from typing import Any

import pytest

from intavo.followup.models import FollowUp
from intavo.mailin import mailbox
from intavo.mailin.mailbox import read_mailbox
from intavo.mailin.models import IncomingMail, Mailbox
from standins.imap import Box, Server

from .conftest import World

MAIL = (
    "From: Ève Lindqvist <eve@post.example>\r\nTo: hello@otterwick.example\r\nSubject: Boats\r\n"
    "Message-ID: <one@post.example>\r\nContent-Type: text/plain; charset=utf-8\r\n\r\nIs there a boat?\r\n"
).encode()


@pytest.fixture
def server(settings: Any) -> Iterator[Server]:
    settings.LOCAL_GATEWAYS = ["127.0.0.1"]
    with Server(Box("hello@otterwick.example", 'pad"dle \\ demo')) as running:
        yield running


def put(world: World, server: Server, **more: Any) -> Any:
    body = {
        "host": "127.0.0.1", "port": server.port, "user": "hello@otterwick.example", "password": 'pad"dle \\ demo',
        "folder": "INBOX", **more,
    }  # fmt: skip
    return world.console().put("/api/mailbox", body, content_type="application/json")


def test_what_is_new_in_a_mailbox_is_taken_in_once(otterwick: World, server: Server) -> None:
    answer = put(otterwick, server)
    assert answer.status_code == 200
    assert "password" not in answer.json()
    row = Mailbox.objects.get()
    assert "dle" not in row.password
    server.box.put(MAIL)
    server.box.put(b"no mail at all")
    assert read_mailbox(row.pk) == 2
    assert read_mailbox(row.pk) == 0
    assert FollowUp.objects.filter(excerpt="Is there a boat?").count() == 1
    # A job that died before it marked the mail as seen finds it again, and nothing is doubled.
    server.box.seen.clear()
    assert read_mailbox(row.pk) == 2
    assert IncomingMail.objects.filter(message_id__contains="one@post.example").count() == 1
    row.refresh_from_db()
    assert (row.wrong, row.read_at is not None) == ("", True)


@pytest.mark.parametrize(
    ("more", "field", "words"),
    [
        ({"password": "wrong"}, "host", "does not let this name in"),
        ({"folder": "Nowhere"}, "host", "no folder"),
        ({"port": 1}, "host", "does not answer"),
        ({"port": 70000}, "port", "65535"),
        ({"host": "not a host!"}, "host", "name of the mail host"),
        ({"host": "localhost", "port": 25}, "host", "inside this network"),
        ({"user": " "}, "user", "write something"),
    ],
)
def test_what_cannot_be_opened_is_refused_and_not_kept(
    otterwick: World, server: Server, more: dict[str, Any], field: str, words: str
) -> None:
    answer = put(otterwick, server, **more)
    assert answer.status_code == 422
    assert (answer.json()["errors"][0]["field"], words in answer.json()["errors"][0]["message"]) == (
        field,
        True,
    )
    assert not Mailbox.objects.exists()


def test_a_mailbox_that_is_away_says_so_to_its_owner_alone(otterwick: World, server: Server) -> None:
    put(otterwick, server)
    row = Mailbox.objects.get()
    server.box.password = "another"  # the stand-in's
    assert read_mailbox(row.pk) == 0
    assert "does not let this name in" in otterwick.console().get("/api/mailbox").json()["wrong"]
    assert otterwick.staff().get("/api/mailbox").status_code == 403
    assert otterwick.console().delete("/api/mailbox").status_code == 204
    assert otterwick.console().get("/api/mailbox").json() is None


@pytest.fixture
def dripping() -> Iterator[int]:
    """A host that goes on saying something for as long as anybody listens, and never ends its line."""
    stop = threading.Event()

    class Drip(socketserver.BaseRequestHandler):
        def handle(self) -> None:
            with suppress(OSError):
                while not stop.wait(0.05):
                    self.request.sendall(b"*")

    with socketserver.ThreadingTCPServer(("127.0.0.1", 0), Drip) as server:
        threading.Thread(target=server.serve_forever, daemon=True).start()
        yield server.server_address[1]
        stop.set()
        server.shutdown()


def test_a_mailbox_that_drips_is_left_in_time_and_keeps_nobody_else_from_theirs(
    otterwick: World, server: Server, dripping: int, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(mailbox, "TRIED_WITHIN", 0.5)
    monkeypatch.setattr(mailbox, "READ_WITHIN", 0.5)
    answer = put(otterwick, server, port=dripping)
    assert answer.status_code == 422
    assert "does not answer" in answer.json()["errors"][0]["message"]
    # As a job it is left as well, and the next one has the lane.
    assert put(otterwick, server).status_code == 200
    Mailbox.objects.update(port=dripping)
    assert read_mailbox(Mailbox.objects.get().pk) == 0
    assert "does not answer" in Mailbox.objects.get().wrong
    # One business tries one at a time, and a process no more than two.
    with mailbox.turn(otterwick.business.pk):
        busy = put(otterwick, server)
    assert (busy.status_code, busy.json()["errors"][0]["field"]) == (422, "host")
    with mailbox.turn(-1), mailbox.turn(-2):
        assert put(otterwick, server).status_code == 422
    assert put(otterwick, server).status_code == 200
