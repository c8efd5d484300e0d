"""The mail stand-in: takes mail by SMTP, keeps it in a folder, and shows it on a page.

Addresses: `/` the list, `/mails/<name>` one mail, `/mails/<name>.eml` its source,
`/mails/<name>/<file>` what is attached to it, `/mails.json` all as
JSON (newest first), `POST /forget` empties it.
"""

import argparse
import json
import re
import threading
from dataclasses import dataclass
from email import message_from_bytes, policy
from email.message import EmailMessage
from html import escape
from http.server import ThreadingHTTPServer
from pathlib import Path
from urllib.parse import quote, unquote

from aiosmtpd.controller import Controller
from aiosmtpd.smtp import SMTP, Envelope, Session

from .http import Handler

_LINK = re.compile(r"https?://[^\s<>\"]+")
_STYLE = """
body{margin:0;background:#f6f4ef;color:#22201b;font:15px/1.5 Georgia,serif}
header{padding:18px 28px;background:#3a3550;color:#fff}header a{color:#fff}h1{margin:0;font-size:1.2rem}
main{max-width:52rem;margin:0 auto;padding:20px 28px}a{color:#3a3550}
table{width:100%;border-collapse:collapse;background:#fff}
th,td{padding:8px 12px;border-bottom:1px solid #e2ded3;text-align:left}
pre{padding:18px 20px;background:#fff;white-space:pre-wrap;overflow-wrap:anywhere;font:inherit}
dl{display:grid;grid-template-columns:7rem 1fr}dd{margin:0}
"""


@dataclass(frozen=True, slots=True)
class Kept:
    """One mail as it was taken in."""

    name: str
    message: EmailMessage

    @property
    def text(self) -> str:
        """The plain text of the body."""
        body = self.message.get_body(("plain", "html"))
        return body.get_content() if body else ""

    @property
    def files(self) -> dict[str, bytes]:
        """What is attached, by its file name."""
        found: dict[str, bytes] = {}
        for at, part in enumerate(self.message.iter_attachments(), 1):
            content = part.get_content()
            found[part.get_filename() or f"file-{at}"] = content.encode() if isinstance(content, str) else content
        return found

    def said(self) -> dict[str, object]:
        """What the JSON list says of it."""
        headers = {key: str(value) for key, value in self.message.items()}
        return {
            "name": self.name, "to": str(self.message["To"]), "from": str(self.message["From"]),
            "subject": str(self.message["Subject"]), "text": self.text, "headers": headers,
            "files": list(self.files),
        }  # fmt: skip


class Box:
    """The folder the mails are kept in; a number counts them up."""

    def __init__(self, folder: Path) -> None:
        self.folder = folder
        self._lock = threading.Lock()
        folder.mkdir(parents=True, exist_ok=True)

    def keep(self, content: bytes) -> None:
        """Keep one mail."""
        with self._lock:
            numbers = [int(path.stem) for path in self.folder.glob("*.eml")]
            (self.folder / f"{max(numbers, default=0) + 1:06d}.eml").write_bytes(content)

    def all(self) -> list[Kept]:
        """Every mail, newest first."""
        return [self._read(path) for path in sorted(self.folder.glob("*.eml"), reverse=True)]

    def one(self, name: str) -> Kept | None:
        """The mail with this name."""
        path = self.folder / f"{name}.eml"
        return self._read(path) if name.isdigit() and path.exists() else None

    def forget(self) -> None:
        """Throw all away."""
        for path in self.folder.glob("*.eml"):
            path.unlink()

    @staticmethod
    def _read(path: Path) -> Kept:
        message = message_from_bytes(path.read_bytes(), policy=policy.default)
        assert isinstance(message, EmailMessage)
        return Kept(path.stem, message)


class Taker:
    """What aiosmtpd calls for each mail."""

    def __init__(self, box: Box) -> None:
        self.box = box

    async def handle_DATA(self, server: SMTP, session: Session, envelope: Envelope) -> str:  # noqa: N802  # aiosmtpd's name
        """Keep the mail and say so."""
        self.box.keep(envelope.original_content or b"")
        return "250 kept"


def _page(title: str, body: str) -> str:
    return (
        f"<!doctype html><html lang=en><meta charset=utf-8><meta name=viewport content='width=device-width'>"
        f"<title>{escape(title)}</title><style>{_STYLE}</style>"
        f"<header><h1><a href='/'>Mail stand-in</a></h1>Mail that would have gone out into the world</header>"
        f"<main>{body}</main></html>"
    )


def list_page(mails: list[Kept]) -> str:
    """The list as a page."""
    rows = "".join(
        f"<tr><td>{escape(str(m.message['Date'] or ''))}<td>{escape(str(m.message['To']))}"
        f"<td><a href='/mails/{m.name}'>{escape(str(m.message['Subject']))}</a>"
        for m in mails
    )
    table = f"<table><tr><th>Date<th>To<th>Subject{rows}</table>"
    return _page("Mail stand-in", table if mails else "<p>No mail yet. What Intavo sends can be read here.</p>")


def mail_page(mail: Kept) -> str:
    """One mail as a page; addresses in it can be followed."""
    names = ("From", "To", "Date", "Subject", "Message-ID", "In-Reply-To")
    heads = "".join(
        f"<dt>{name}<dd>{escape(str(mail.message[name]))}" for name in names if mail.message[name] is not None
    )
    text = _LINK.sub(lambda found: f'<a href="{found[0]}">{found[0]}</a>', escape(mail.text))
    source = f"<p><a href='/mails/{mail.name}.eml'>Source</a>"
    files = "".join(
        f"<li><a href='/mails/{mail.name}/{quote(name)}'>{escape(name)}</a> ({len(data)} bytes)"
        for name, data in mail.files.items()
    )
    attached = f"<h2>Attached</h2><ul>{files}</ul>" if files else ""
    return _page(str(mail.message["Subject"]), f"<dl>{heads}</dl><pre>{text}</pre>{attached}{source}")


def handler(box: Box) -> type[Handler]:
    """The HTTP side over a box."""

    class Mails(Handler):
        def do_GET(self) -> None:  # noqa: N802  # http.server's name
            path = unquote(self.path.partition("?")[0])
            if path == "/":
                self.say(200, "text/html; charset=utf-8", list_page(box.all()).encode())
            elif path == "/mails.json":
                said = json.dumps([mail.said() for mail in box.all()], ensure_ascii=False)
                self.say(200, "application/json", said.encode())
            else:
                self._one(path.removeprefix("/mails/"))

        def _one(self, name: str) -> None:
            name, _, file = name.partition("/")
            mail = box.one(name.removesuffix(".eml"))
            if mail is None or (file and file not in mail.files):
                self.say(404, "text/plain", b"no such mail")
            elif file:
                self.say(200, "text/plain; charset=utf-8", mail.files[file])
            elif name.endswith(".eml"):
                self.say(200, "text/plain; charset=utf-8", mail.message.as_bytes())
            else:
                self.say(200, "text/html; charset=utf-8", mail_page(mail).encode())

        def do_POST(self) -> None:  # noqa: N802  # http.server's name
            if self.path == "/forget":
                box.forget()
            self.say(204 if self.path == "/forget" else 404, "text/plain", b"")

    return Mails


def main() -> None:
    """Serve until stopped."""
    words = argparse.ArgumentParser(description=__doc__)
    words.add_argument("--http", type=int, required=True)
    words.add_argument("--smtp", type=int, required=True)
    words.add_argument("--keep", type=Path, required=True)
    said = words.parse_args()
    box = Box(said.keep)
    Controller(Taker(box), hostname="127.0.0.1", port=said.smtp, enable_SMTPUTF8=True).start()
    ThreadingHTTPServer(("127.0.0.1", said.http), handler(box)).serve_forever()


if __name__ == "__main__":
    main()
