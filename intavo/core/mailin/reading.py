"""Reads a mail as it came, by RFC 5322 and the MIME documents, and as far as it can be read.

Headers and parts are read by the standard library's parser in its lenient form; what is broken in them is
taken as far as it goes. Only what is too big is refused.
"""

import binascii
import re
from collections.abc import Iterator
from email.header import decode_header
from email.message import Message
from email.utils import getaddresses, parseaddr

from ..texts import mended
from .files import is_risky, type_of
from .forwarding import inline_mail
from .inviting import invitation_of
from .markup import words_of
from .model import Forwarded, Kind, MailFile, Received, Sender
from .parts import Part, head_within, taken_apart, text_from
from .quoting import said_and_quoted
from .reports import Report, report_of, sends_by_itself

_ID = re.compile(r"<[^<>\s]{1,400}>")
_MOST_TEXT = 500_000
_MOST_HEADER = 4_000
_MOST_RECIPIENTS = 200
_MOST_REFERENCES = 100
_MOST_RESULTS = 20


def read_mail(raw: bytes) -> Received:
    """A mail as values.

    Raises TooBig for more than 25 MB or 200 parts; everything else is read as far as it goes. Source: RFC
    5322, RFC 2045 to 2047, RFC 3676 (flowed text), RFC 3834, RFC 3464, RFC 5965.
    """
    message, parts = taken_apart(raw)
    report = report_of(parts, _plain_of)
    texts, files = _sorted(parts, report is not None)
    text = _clean("\n\n".join(texts)[:_MOST_TEXT])
    said, quoted = said_and_quoted(text)
    subject = _subject(message)
    return Received(
        message_id=_id(message, "Message-ID"),
        in_reply_to=_id(message, "In-Reply-To"),
        references=tuple(_ID.findall(_header(message, "References")))[-_MOST_REFERENCES:],
        sender=_sender(message),
        to=_recipients(message),
        subject=subject,
        text=text,
        said=said,
        quoted=quoted,
        files=tuple(files),
        kind=_kind(message, report),
        final_recipient=report.recipient if report else None,
        permanent=report.permanent if report else None,
        about=_brought_back(parts) if report else (),
        reply_to=_reply_to(message),
        forwarded=None if report else _attached(parts) or inline_mail(text, subject),
        invitation=None if report else invitation_of(parts),
        results=tuple(
            str(one)[:_MOST_HEADER] for one in message.get_all("Authentication-Results", [])[:_MOST_RESULTS]
        ),
    )


def _attached(parts: list[Part]) -> Forwarded | None:
    """The first mail that was attached as a whole."""
    held = next((part for part in parts if not part.inside and part.type == "message/rfc822"), None)
    if held is None:
        return None
    # What is within it was counted with the mail around it.
    message, inner = taken_apart(held.content())
    return Forwarded(
        _sender(message),
        _subject(message),
        _clean("\n\n".join(_sorted(inner, True)[0])[:_MOST_TEXT]),
    )


def _brought_back(parts: list[Part]) -> tuple[str, ...]:
    """The ids of the mails within a report, whole or their heads alone."""
    within = [part for part in parts if part.type in {"message/rfc822", "text/rfc822-headers"}]
    found = [one for part in within for one in _ID.findall(_header(head_within(part), "Message-ID"))[:1]]
    return tuple(dict.fromkeys(found))[:_MOST_REFERENCES]


def _kind(message: "Message[str, str]", report: Report | None) -> Kind:
    if report is not None:
        return report.kind
    return Kind.AUTO_REPLY if sends_by_itself(lambda name: _header(message, name)) else Kind.MESSAGE


def _sorted(parts: list[Part], reported: bool) -> tuple[list[str], list[MailFile]]:
    """What the mail says, and what is attached: of two ways to say it, the plain one.

    Words that are too many to be shown are attached as well, whole.
    """
    plain: list[str] = []
    pages: list[str] = []
    files: list[MailFile] = []
    for part in parts:
        kind = part.type
        if part.inside or kind in _REPORTED:
            continue
        if kind == "message/rfc822":
            if not reported:
                files.append(_as_file(part, "mail.eml"))
        elif _is_words(part, kind):
            (plain if kind == "text/plain" else pages).append(_words(part, kind))
            if part.size > _MOST_READ:
                files.append(_as_file(part, "text.txt" if kind == "text/plain" else "text.html"))
        else:
            files.append(_as_file(part, f"file-{len(files) + 1}"))
    said = [one for one in plain if one.strip()]
    return said or [one for one in pages if one.strip()], files


_REPORTED = {"message/delivery-status", "message/feedback-report", "message/disposition-notification"}


def _is_words(part: Part, kind: str) -> bool:
    if kind not in {"text/plain", "text/html"}:
        return False
    disposition = _disposition(part)
    return not disposition.startswith("attachment") and not (disposition and _file_name(part))


def _disposition(part: Part) -> str:
    return str(part.head.get("Content-Disposition", "")).strip().lower()


def _as_file(part: Part, otherwise: str) -> MailFile:
    content = part.content()
    name = _file_name(part) or ("invitation.ics" if part.type == "text/calendar" else otherwise)
    kind = "message/rfc822" if part.type == "message/rfc822" else type_of(content)
    return MailFile(name, kind, content, is_risky(name, kind))


def _file_name(part: Part) -> str:
    try:
        given = part.head.get_filename() or ""
    except (ValueError, LookupError, TypeError):
        given = ""
    plain = _clean(_decoded(str(given))).replace("\\", "/").rpartition("/")[2]
    return " ".join(plain.split()).strip(". ")[:200]


def _words(part: Part, kind: str) -> str:
    text = part.text(_MOST_READ)
    if kind == "text/html":
        return words_of(text[:_MOST_TEXT])
    if str(part.head.get_param("format", "") or "").lower() == "flowed":
        return _flowed(text[:_MOST_TEXT], str(part.head.get_param("delsp", "") or "").lower() == "yes")
    return text


# Of a text no more is read than can be shown, four bytes for a letter.
_MOST_READ = 4 * _MOST_TEXT


def _plain_of(part: Part) -> str:
    """The content of a part as text, encoded words read."""
    return _decoded(part.text(_MOST_READ))


def _is_ascii(text: str) -> bool:
    return all(ord(letter) < 128 or 0xDC80 <= ord(letter) <= 0xDCFF for letter in text)


def _flowed(text: str, joins: bool) -> str:
    """Soft line ends taken away. Source: RFC 3676."""
    found: list[str] = []
    open_depth = -1
    for raw in text.replace("\r\n", "\n").split("\n"):
        depth = len(raw) - len(raw.lstrip(">"))
        line = raw[depth:].removeprefix(" ")
        soft = line.endswith(" ") and line != "-- "
        if open_depth == depth and line != "-- ":
            found[-1] += line
        else:
            found.append(f"{'>' * depth}{' ' if depth else ''}{line}")
        if soft and joins:
            found[-1] = found[-1][:-1]
        open_depth = depth if soft else -1
    return "\n".join(found)


def _header(message: "Message[str, str]", name: str) -> str:
    return _clean(_decoded(_raw(message, name)))


def _raw(message: "Message[str, str]", name: str) -> str:
    """A header as it stands in the mail, its lines joined; raw bytes are kept as the parser keeps them."""
    found = next((str(value) for key, value in message.raw_items() if key.lower() == name.lower()), "")
    return re.sub(r"\r?\n", " ", found[:_MOST_HEADER])


def _decoded(text: str) -> str:
    """Encoded words (RFC 2047) and raw bytes as text."""
    try:
        pieces = decode_header(text)
    except (ValueError, binascii.Error, LookupError):
        pieces = [(text, None)]
    return "".join(_piece(piece, charset) for piece, charset in pieces)


def _piece(piece: bytes | str, charset: str | None) -> str:
    if isinstance(piece, bytes):
        return text_from(piece, "utf-8" if charset in {None, "unknown-8bit"} else str(charset))
    return text_from(piece.encode("ascii", "surrogateescape"), "utf-8") if _is_ascii(piece) else piece


def _id(message: "Message[str, str]", name: str) -> str:
    found = _ID.search(_header(message, name))
    return found[0] if found else ""


def _subject(message: "Message[str, str]") -> str:
    return " ".join(_header(message, "Subject").split())[:1000]


def _reply_to(message: "Message[str, str]") -> tuple[Sender, ...]:
    return tuple(_people(_raw(message, "Reply-To")))[:_MOST_RECIPIENTS]


def _people(heads: str) -> Iterator[Sender]:
    try:
        pairs = getaddresses([heads]) if heads.strip() else []
    except (ValueError, IndexError, RecursionError):
        return
    for name, address in pairs:
        if "@" in address:
            shown = " ".join(_clean(_decoded(name)).split())
            yield Sender(_clean(_decoded(address)).strip()[:320], shown[:300])


def _sender(message: "Message[str, str]") -> Sender:
    for header in ("From", "Sender", "Return-Path"):
        # Taken apart before it is decoded: a name in other letters may hold what looks like an address.
        name, address = parseaddr(_raw(message, header))
        if "@" in address:
            shown = " ".join(_clean(_decoded(name)).split())
            return Sender(_clean(_decoded(address)).strip()[:320], shown[:300])
    return Sender("", " ".join(_header(message, "From").split())[:300])


def _recipients(message: "Message[str, str]") -> tuple[str, ...]:
    """Where it was sent, the envelope's address among it where a mail server has noted it."""
    heads = [_raw(message, name) for name in ("Delivered-To", "X-Original-To", "To", "Cc")]
    try:
        pairs = getaddresses([one for one in heads if one])
        found = [_clean(_decoded(address)).strip() for _, address in pairs if "@" in address]
    except (ValueError, IndexError, RecursionError):
        found = []
    return tuple(dict.fromkeys(found))[:_MOST_RECIPIENTS]


def _clean(text: str) -> str:
    """Without what no table keeps, and with one kind of line end."""
    return mended(text.replace("\r\n", "\n").replace("\r", "\n").replace("\x00", ""))
