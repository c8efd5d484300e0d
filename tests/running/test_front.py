"""The server in front, as slow, greedy and unlucky clients meet it."""

import contextlib
import json
import re
import socket
import time
import urllib.request
from collections.abc import Iterator
from urllib.error import HTTPError

import psycopg
import pytest

from scripts.cluster import ROOT
from scripts.front import EACH, RULES
from scripts.stack import Stack
from tests.waiting import until

pytestmark = pytest.mark.xdist_group("the stack")

PLAN = json.dumps({"page": {"url": "https://otterwick.example/hire"}, "device": "desktop"}).encode()


# Seconds, on the slowest of machines: whoever waited for what is away would wait for as long as it is.
SOON = 20


def asked(
    stack: Stack, path: str = "/e/0tterwick0demo01/plan", body: bytes | None = PLAN
) -> tuple[int, dict[str, str]]:
    """The status and the heads of an answer."""
    headers = {"Origin": "https://otterwick.example", "Content-Type": "text/plain"}
    request = urllib.request.Request(stack.base_url + path, body, headers)
    try:
        with urllib.request.urlopen(request, timeout=2 * SOON) as answer:
            return answer.status, dict(answer.headers)
    except HTTPError as error:
        return error.code, dict(error.headers)


def test_every_head_that_the_application_reads_goes_on() -> None:
    read = re.compile(r"headers(?:\.get\(|\[)\s*\"([A-Za-z-]+)\"")
    asked = {
        name
        for path in (ROOT / "intavo").rglob("*.py")
        if "standins" not in path.parts
        for name in read.findall(path.read_text())
    }
    named = set(re.findall(r"proxy_set_header (\S+)", RULES.read_text()))
    made_by_it = {"Content-Length", "X-Request-ID"}
    assert {"Origin", "Range"} <= asked
    assert asked - made_by_it <= named


@contextlib.contextmanager
def held(stack: Stack, count: int) -> Iterator[list[socket.socket]]:
    """So many clients who announced a body and sent one byte of it."""
    with contextlib.ExitStack() as closing:
        clients = []
        for _ in range(count):
            client = closing.enter_context(
                socket.create_connection(("127.0.0.1", stack.ports.web), timeout=5)
            )
            client.sendall(
                b"POST /e/0tterwick0demo01/intake HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Type: text/plain\r\n"
                b"Origin: https://otterwick.example\r\nContent-Length: 500\r\n\r\n{"
            )
            clients.append(client)
        yield clients


def test_two_hundred_clients_who_do_not_go_on_hold_up_nobody_and_are_let_go(stack: Stack) -> None:
    with held(stack, 200) as clients:
        assert [asked(stack)[0] for _ in range(10)] == [200] * 10
        give_up = time.monotonic() + 20
        clients[0].settimeout(20)
        with contextlib.suppress(ConnectionResetError):
            assert clients[0].recv(100) == b""
        assert time.monotonic() < give_up


def test_one_address_takes_no_more_than_its_share_of_the_connections(stack: Stack) -> None:
    with held(stack, EACH):
        # Whoever takes the last place is let in before that; the next is told.
        until(lambda: asked(stack)[0] == 429, "its share is taken")
        status, heads = asked(stack)
        assert (status, heads["Content-Type"]) == (429, "application/problem+json")
        assert heads["Retry-After"] == "2"
    until(lambda: asked(stack)[0] == 200, "they are let go")


@pytest.mark.parametrize(
    ("path", "most"),
    [("/e/0tterwick0demo01/intake", 3), ("/api/me", 3), ("/in/mail/x", 26), ("/api/library", 61)],
)
def test_what_is_too_large_is_refused_by_what_it_says_of_itself(stack: Stack, path: str, most: int) -> None:
    with socket.create_connection(("127.0.0.1", stack.ports.web), timeout=5) as client:
        length = most * 1024 * 1024 + 1
        client.sendall(
            f"POST {path} HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Length: {length}\r\n\r\n".encode()
        )
        said = client.recv(4096).decode()
    assert said.startswith("HTTP/1.1 413")
    assert '"title":"This is too large."' in said


def test_while_the_database_hangs_nobody_waits_for_it(stack: Stack) -> None:
    """A lock on what is asked stands for a database that takes everything and answers nothing."""
    unknown = "/e/0tterwick0demo99/plan"
    with psycopg.connect(stack.database) as holder:
        holder.execute("LOCK TABLE sites_site, procrastinate_workers IN ACCESS EXCLUSIVE MODE")
        for path, body in (("/healthz", None), (unknown, PLAN)):
            begun = time.monotonic()
            status, heads = asked(stack, path, body)
            assert (path, status, heads.get("Retry-After")) == (path, 503, "2")
            assert time.monotonic() - begun < SOON
    assert asked(stack, unknown)[0] == 404
    stack.wait(f"{stack.base_url}/healthz")


def test_while_the_application_is_away_it_is_said_and_that_it_passes(stack: Stack) -> None:
    stack.stop_one("web")
    try:
        begun = time.monotonic()
        status, heads = asked(stack, "/healthz", None)
        assert (status, heads["Retry-After"], heads["Cache-Control"]) == (503, "2", "no-store")
        assert time.monotonic() - begun < SOON
    finally:
        stack.start_web()
        stack.wait(f"{stack.base_url}/healthz")
    assert asked(stack)[0] == 200


@pytest.mark.parametrize(
    ("address", "heads"),
    [
        *(("", f"Accept-Encoding: a{chr(code)}b\r\n") for code in (*range(1, 9), *range(14, 32), 0x7F)),
        ("", "X-Unknown: a\x7fb\r\n"),
        ("", "".join(f"X-{number}: 1\r\n" for number in range(500))),
        ("", "Accept: é\r\nAccept-Language: \tde\r\n"),
        *((odd, "") for odd in ("?a=<", '?"', ">", "`", "?é", "\x80", "%zz", "\x7f")),
    ],
)
def test_odd_addresses_and_heads_before_a_large_body_are_no_fault_of_ours(
    stack: Stack, address: str, heads: str
) -> None:
    body = b"1" * 600_000
    with socket.create_connection(("127.0.0.1", stack.ports.web), timeout=10) as client:
        client.sendall(
            f"POST /e/0tterwick0demo01/helped{address} HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Type: text/plain\r\n"
            f"Connection: close\r\nContent-Length: {len(body)}\r\n{heads}\r\n".encode("latin-1")
        )
        with contextlib.suppress(ConnectionError):
            client.sendall(body)
        said = client.recv(4096).decode()
    assert said[:12] in ("HTTP/1.1 400", "HTTP/1.1 413", "HTTP/1.1 403")
