"""The mail stand-in: takes mail by SMTP, keeps it in a folder, and shows it on a page.

Addresses: `/` the list (`?before=<name>` goes on), `/mails/<name>` one mail, `/mails/<name>.eml` its source,
`/mails/<name>/<file>` what is attached to it, `/mails.json` all as JSON (newest first), `POST /forget`
empties it. `POST /mails/<name>/answer` (a form: `how`, `text`, `from`) hands an answer in to Intavo as a mail
host would: what somebody wrote, an automatic reply, or a report that the mail came back or was called spam.
"""

import argparse
import json
import re
import threading
from dataclasses import dataclass
from email import message_from_bytes, policy
from email.message import EmailMessage
from email.utils import formatdate, make_msgid, parseaddr
from html import escape
from http.server import ThreadingHTTPServer
from pathlib import Path
from urllib.error import HTTPError, URLError
from urllib.parse import parse_qs, quote, unquote
from urllib.request import Request, urlopen

from aiosmtpd.controller import Controller
from aiosmtpd.smtp import SMTP, Envelope, Session

from .http import Handler

ON_A_PAGE = 100
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
        files: dict[str, bytes] = {}
        for at, part in enumerate(self.message.iter_attachments(), 1):
            content = part.get_content()
            files[part.get_filename() or f"file-{at}"] = (
                content.encode() if isinstance(content, str) else content
            )
        return files

    def said(self) -> dict[str, object]:
        """What the JSON list says of it."""
        headers = {key: str(value) for key, value in self.message.items()}
        return {
            "name": self.name, "to": str(self.message["To"]), "from": str(self.message["From"]),
            "subject": str(self.message["Subject"]), "text": self.text, "headers": headers,
            "files": list(self.files),
        }  # fmt: skip


class Box:
    """The folder the mails are kept in; a number counts them up. Each is read once,
    however many there are.
    """

    def __init__(self, folder: Path) -> None:
        self.folder = folder
        self._lock = threading.Lock()
        folder.mkdir(parents=True, exist_ok=True)
        self._last = max((int(path.stem) for path in folder.glob("*.eml")), default=0)
        self._said: dict[str, str] = {}

    def keep(self, content: bytes) -> None:
        """Keep one mail; it is seen whole or not at all."""
        with self._lock:
            self._last += 1
            path = self.folder / f"{self._last:06d}.eml"
            coming = path.with_suffix(".part")
            coming.write_bytes(content)
            coming.replace(path)

    def names(self, before: str = "") -> list[str]:
        """What they are called, newest first; those before one of them."""
        names = sorted((path.stem for path in self.folder.glob("*.eml")), key=int, reverse=True)
        return [name for name in names if int(name) < int(before)] if before.isdecimal() else names

    def as_json(self) -> str:
        """Every mail, newest first, as a JSON list."""
        return f"[{','.join(filter(None, map(self._told, self.names())))}]"

    def _told(self, name: str) -> str:
        if name not in self._said and (kept := self.one(name)):
            self._said[name] = json.dumps(kept.said(), ensure_ascii=False)
        return self._said.get(name, "")

    def one(self, name: str) -> Kept | None:
        """The mail with this name."""
        path = self.folder / f"{name}.eml"
        if not name.isdecimal() or not path.exists():
            return None
        message = message_from_bytes(path.read_bytes(), policy=policy.default)
        assert isinstance(message, EmailMessage)
        return Kept(name, message)

    def forget(self) -> None:
        """Throw all away."""
        with self._lock:
            for path in self.folder.glob("*.eml"):
                path.unlink()
            self._said = {}


class Taker:
    """What aiosmtpd calls for each mail."""

    def __init__(self, box: Box) -> None:
        self.box = box

    async def handle_DATA(self, server: SMTP, session: Session, envelope: Envelope) -> str:  # noqa: N802  # aiosmtpd's name
        """Keep the mail and say so."""
        self.box.keep(envelope.original_content or b"")
        return "250 kept"


def answer_to(kept: Kept, how: str, text: str, sender: str) -> bytes:
    """The mail that comes back: an "answer", an "away" note, "gone" or "full" (a bounce), or "spam" (a
    complaint).
    """
    sent = kept.message
    made = EmailMessage(policy=policy.SMTP)
    own = sender or parseaddr(str(sent["To"]))[1]
    report = how in {"gone", "full", "spam"}
    made["From"] = "Mail Delivery <mailer-daemon@post.example>" if report else own
    made["To"] = str(sent["From"] if report else sent["Reply-To"] or sent["From"])
    made["Date"], made["Message-ID"] = formatdate(), make_msgid(domain="post.example")
    if report:
        body = _as_report(made, kept, how)
        return made.as_bytes().rstrip() + b"\r\n" + body.encode()
    made["Subject"] = f"{'Away: ' if how == 'away' else 'Re: '}{re.sub('^Re: ', '', str(sent['Subject']))}"
    made["In-Reply-To"] = made["References"] = str(sent["Message-ID"])
    if how == "away":
        made["Auto-Submitted"] = "auto-replied"
    quoted = "\n".join(f"> {line}".rstrip() for line in kept.text.strip().split("\n"))
    made.set_content(
        f"{text or 'I am away until Monday.'}\n\nOn {sent['Date']}, {sent['From']} wrote:\n{quoted}\n"
    )
    return made.as_bytes()


def _as_report(message: EmailMessage, kept: Kept, how: str) -> str:
    """The last heads of a report and its three parts; addresses in any letters stand in it as they are (RFC
    6533).
    """
    to, spam = parseaddr(str(kept.message["To"]))[1], how == "spam"
    message["Subject"] = "Complaint about a mail" if spam else "Your mail could not be delivered"
    kind = "feedback-report" if spam else "delivery-status"
    status = "5.1.1" if how == "gone" else "4.2.2"
    failed = (f"Final-Recipient: rfc822; {to}", "Action: failed", f"Status: {status}")
    back = ("Reporting-MTA: dns; post.example", "", *failed)
    called = ("Feedback-Type: abuse", "User-Agent: stand-in/1", "Version: 1", f"Original-Rcpt-To: <{to}>")
    fields = "".join(f"{line}\r\n" for line in (called if spam else back))
    heads = "".join(
        f"{name}: {kept.message[name]}\r\n" for name in ("From", "To", "Message-ID") if kept.message[name]
    )
    bound = "stand-in-report"
    head = (
        f'MIME-Version: 1.0\r\nContent-Type: multipart/report; report-type={kind}; boundary="{bound}"\r\n\r\n'
    )
    parts = (
        ("text/plain", "This mail could not be delivered.\r\n"), (f"message/{kind}", fields),
        ("text/rfc822-headers", heads),
    )  # fmt: skip
    body = head + "".join(f"--{bound}\r\nContent-Type: {kind}\r\n\r\n{text}\r\n" for kind, text in parts)
    return f"{body}--{bound}--\r\n"


def hand_in(url: str, raw: bytes) -> tuple[int, str]:
    """Post a mail to Intavo; its status and what it says."""
    asked = Request(url, raw, {"Content-Type": "message/rfc822"})  # noqa: S310  # loopback only
    try:
        with urlopen(asked, timeout=20) as answer:  # noqa: S310
            return answer.status, answer.read().decode()
    except HTTPError as error:
        return error.code, error.read().decode()
    except (URLError, OSError) as error:
        return 502, str(error)


_HOWS = {
    "answer": "Answer", "away": "Automatic reply", "gone": "It came back: no such address",
    "full": "It came back: mailbox full", "spam": "They call it spam",
}  # fmt: skip


def _answer_form(mail: Kept) -> str:
    options = "".join(f"<option value={key}>{escape(words)}</option>" for key, words in _HOWS.items())
    return (
        f"<h2>What comes back</h2><form method=post action='/mails/{mail.name}/answer'>"
        f"<p><label>What <select name=how>{options}</select></label>"
        "<p><label>From <input name=from size=40 "
        f"value='{escape(parseaddr(str(mail.message['To']))[1])}'></label>"
        "<p><label>Words<br><textarea name=text rows=5 cols=60></textarea></label>"
        "<p><button>Hand it in</button></form>"
    )


def _page(title: str, body: str) -> str:
    return (
        f"<!doctype html><html lang=en><meta charset=utf-8><meta name=viewport content='width=device-width'>"
        f"<title>{escape(title)}</title><style>{_STYLE}</style>"
        f"<header><h1><a href='/'>Mail stand-in</a></h1>Mail that would have gone out into the world</header>"
        f"<main>{body}</main></html>"
    )


def list_page(box: Box, before: str = "") -> str:
    """The list as a page, a hundred at a time."""
    names = box.names(before)
    mails = [kept for name in names[:ON_A_PAGE] if (kept := box.one(name))]
    rows = "".join(
        f"<tr><td>{escape(str(m.message['Date'] or ''))}<td>{escape(str(m.message['To']))}"
        f"<td><a href='/mails/{m.name}'>{escape(str(m.message['Subject']))}</a>"
        for m in mails
    )
    table = f"<table><tr><th>Date<th>To<th>Subject{rows}</table>"
    if len(names) > ON_A_PAGE:
        table += f"<p><a href='/?before={names[ON_A_PAGE - 1]}'>Older mail</a>"
    return _page(
        "Mail stand-in", table if mails else "<p>No mail yet. What Intavo sends can be read here.</p>"
    )


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
    return _page(
        str(mail.message["Subject"]),
        f"<dl>{heads}</dl><pre>{text}</pre>{attached}{source}{_answer_form(mail)}",
    )


def handler(box: Box, answers: str = "") -> type[Handler]:
    """The HTTP side over a box; `answers` is where what comes back is handed in."""

    class Mails(Handler):
        def do_GET(self) -> None:  # noqa: N802  # http.server's name
            path, _, query = self.path.partition("?")
            path = unquote(path)
            if path == "/":
                page = list_page(box, parse_qs(query).get("before", [""])[0])
                self.say(200, "text/html; charset=utf-8", page.encode())
            elif path == "/mails.json":
                self.say(200, "application/json", box.as_json().encode())
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
            name = re.fullmatch(r"/mails/(\d+)/answer", self.path)
            mail = box.one(name[1]) if name else None
            if mail is not None:
                self._answered(mail)
                return
            if self.path == "/forget":
                box.forget()
            self.say(204 if self.path == "/forget" else 404, "text/plain", b"")

        def _answered(self, mail: Kept) -> None:
            raw = self.rfile.read(min(int(self.headers.get("Content-Length") or 0), 100_000)).decode()
            form = {key: values[0] for key, values in parse_qs(raw).items()}
            made = answer_to(mail, form.get("how", "answer"), form.get("text", ""), form.get("from", ""))
            status, said = hand_in(answers, made)
            told = (
                f"<p>Intavo said {status}:<pre>{escape(said)}</pre><p><a href='/mails/{mail.name}'>Back</a>"
            )
            self.say(
                200 if status < 400 else 502, "text/html; charset=utf-8", _page("Handed in", told).encode()
            )

    return Mails


def main() -> None:
    """Serve until stopped."""
    words = argparse.ArgumentParser(description=__doc__)
    words.add_argument("--http", type=int, required=True)
    words.add_argument("--smtp", type=int, required=True)
    words.add_argument("--keep", type=Path, required=True)
    words.add_argument("--answers", default="", help="where what comes back is handed in")
    said = words.parse_args()
    box = Box(said.keep)
    Controller(Taker(box), hostname="127.0.0.1", port=said.smtp, enable_SMTPUTF8=True).start()
    ThreadingHTTPServer(("127.0.0.1", said.http), handler(box, said.answers)).serve_forever()


if __name__ == "__main__":
    main()
