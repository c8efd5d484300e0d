"""The messaging stand-in "Wherry": a made-up service on loopback, and its bridge to Intavo as one gateway.

Addresses: `/to/<handle>?text=…` a page to write to a handle, `POST /messages` what the business answers (see
docs/gateway.md), `/talk.json?to=…&me=…` what was said so far, `POST /say` what a visitor writes. What cannot
be handed over yet is kept in a folder and tried again.
"""

import argparse
import contextlib
import json
import secrets
import threading
import time
import urllib.error
import urllib.request
from dataclasses import dataclass, field
from datetime import UTC, datetime
from html import escape
from http.server import ThreadingHTTPServer
from pathlib import Path
from typing import Any
from urllib.parse import parse_qs, unquote, urlsplit

from standardwebhooks import Webhook

from .http import Handler

_AGAIN = 1.0  # seconds between tries
_HERE = Path(__file__).parent


@dataclass
class Wherry:
    """What was said, kept in a folder, and the way to the business."""

    folder: Path
    call: str = ""
    secret: str = ""
    bearer: str = ""
    talks: dict[str, list[dict[str, Any]]] = field(default_factory=dict)
    lock: threading.Lock = field(default_factory=threading.Lock)

    def __post_init__(self) -> None:
        self.folder.mkdir(parents=True, exist_ok=True)
        with contextlib.suppress(OSError, ValueError):
            self.talks = json.loads((self.folder / "talks.json").read_text())

    def keep(self) -> None:
        """Write everything down."""
        (self.folder / "talks.json.new").write_text(json.dumps(self.talks))
        (self.folder / "talks.json.new").replace(self.folder / "talks.json")

    def add(self, who: str, message: dict[str, Any]) -> None:
        """Add to a talk; the same id again changes nothing."""
        with self.lock:
            rows = self.talks.setdefault(who, [])
            if all(one["id"] != message["id"] for one in rows):
                rows.append(message)
                self.keep()

    def waiting(self) -> list[tuple[str, dict[str, Any]]]:
        """What visitors wrote and was not handed over yet, in order."""
        with self.lock:
            return [(who, one) for who, rows in self.talks.items() for one in rows if one.get("waits")]

    def hand_over(self) -> None:
        """Try everything that waits; what is not taken stays."""
        held: set[str] = set()
        for who, one in self.waiting():
            if who in held:
                continue
            body = {
                "id": one["id"], "from": {"handle": who, "name": ""}, "ref": None, "at": one["at"],
                "to": one.get("to", ""),
                **({"choice": one["choice"]} if one.get("choice") else {"text": one["text"]}),
            }  # fmt: skip
            if self._post(body):
                with self.lock:
                    one["waits"] = False
                    self.keep()
            else:
                held.add(who)

    def _post(self, body: dict[str, Any]) -> bool:
        text, at = json.dumps(body), datetime.now(UTC)
        id_ = f"msg_{body['id']}"
        headers = {
            "content-type": "application/json", "webhook-id": id_,
            "webhook-timestamp": str(int(at.timestamp())),
            "webhook-signature": Webhook(self.secret).sign(id_, at, text),
        }  # fmt: skip
        request = urllib.request.Request(self.call, text.encode(), headers, method="POST")  # noqa: S310  # loopback
        try:
            with urllib.request.urlopen(request, timeout=5) as answer:  # noqa: S310
                return bool(200 <= answer.status < 300)
        except urllib.error.HTTPError as error:
            # What is refused for good is not tried for ever.
            return 400 <= error.code < 500 and error.code != 429
        except OSError:
            return False


def _page(handle: str, text: str) -> bytes:
    name = escape(handle, quote=True)
    style, script = ((_HERE / f"wherry.{kind}").read_text() for kind in ("css", "js"))
    return (
        "<!doctype html><html lang=en><meta charset=utf-8><meta name=viewport content='width=device-width'>"
        f'<title>Wherry: {name}</title><style>{style}</style><body data-to="{name}">'
        f"<header><h1>Wherry</h1><p>You write to <b>{name}</b></p></header><ol></ol><div id=choices></div>"
        f"<form><textarea rows=2 aria-label='Your message'>{escape(text)}</textarea>"
        "<button>Send</button></form>"
        f"<script>{script}</script></body></html>"
    ).encode()


def handler(wherry: Wherry) -> type[Handler]:
    """The service's addresses."""

    class Service(Handler):
        def do_GET(self) -> None:  # noqa: N802  # http.server's name
            parts = urlsplit(self.path)
            query = parse_qs(parts.query)
            if parts.path.startswith("/to/"):
                text = query.get("text", [""])[0]
                return self.say(200, "text/html; charset=utf-8", _page(unquote(parts.path[4:]), text))
            if parts.path == "/talk.json":
                rows = wherry.talks.get(query.get("me", [""])[0], [])
                said = {"messages": [{"from": one["from"], "text": one["text"]} for one in rows],
                        "choices": rows[-1].get("choices", []) if rows else []}  # fmt: skip
                return self.say(200, "application/json", json.dumps(said).encode())
            return self.say(200, "text/plain", b"Wherry")

        def do_POST(self) -> None:  # noqa: N802  # http.server's name
            try:
                body = json.loads(self.rfile.read(int(self.headers.get("Content-Length") or 0)))
                self._take(body if isinstance(body, dict) else {})
            except (ValueError, KeyError):
                self.say(422, "text/plain", b"this is no message")

        def _take(self, body: dict[str, Any]) -> None:
            if self.path == "/messages":
                if self.headers.get("Authorization") != f"Bearer {wherry.bearer}":
                    return self.say(401, "text/plain", b"who are you?")
                wherry.add(
                    str(body["to"]),
                    {
                        "id": str(body["id"]),
                        "from": "us",
                        "text": str(body["text"]),
                        "choices": body.get("choices", []),
                    },
                )
            elif self.path == "/say":
                wherry.add(
                    str(body["me"]),
                    {
                        "id": secrets.token_hex(8),
                        "from": "me",
                        "text": str(body["text"])[:4000],
                        "choice": body.get("choice"),
                        "to": str(body.get("to", "")),
                        "waits": True,
                        "at": datetime.now(UTC).isoformat(),
                    },
                )
            return self.say(200, "application/json", b"{}")

    return Service


def main() -> None:
    """Serve until it is stopped; what waits is tried every second."""
    arguments = argparse.ArgumentParser()
    arguments.add_argument("--port", type=int, required=True)
    arguments.add_argument("--keep", type=Path, required=True)
    arguments.add_argument("--call", default="", help="where the business's gateway takes messages")
    arguments.add_argument("--secret", default="", help="signs what is handed over")
    arguments.add_argument("--bearer", default="", help="what the business says who it is with")
    given = arguments.parse_args()
    wherry = Wherry(given.keep, given.call, given.secret, given.bearer)
    server = ThreadingHTTPServer(("127.0.0.1", given.port), handler(wherry))
    threading.Thread(target=server.serve_forever, daemon=True).start()
    while True:
        if wherry.call:
            wherry.hand_over()
        time.sleep(_AGAIN)


if __name__ == "__main__":
    main()
