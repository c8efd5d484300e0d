"""Reads a mail as it came, by RFC 5322 and the MIME documents, and as far as it can be read.

Headers and parts are read by the standard library's parser in its lenient form; what is broken in them is
taken as far as it goes. Only what is too big is refused.
"""

import binascii
import re
from collections.abc import Iterator
from email.header import decode_header
from email.message import Message
from email.parser import BytesParser
from email.policy import compat32
from email.utils import getaddresses, parseaddr

from ..texts import mended
from .files import is_risky, type_of
from .markup import words_of
from .model import MOST_BYTES, MOST_PARTS, Kind, MailFile, Received, Sender, TooBig
from .quoting import said_and_quoted
from .reports import Report, report_of, sends_by_itself

_ID = re.compile(r"<[^<>\s]{1,400}>")
_ID_FIELD = re.compile(r"^message-id:\s*(<[^<>\s]{1,400}>)", re.IGNORECASE | re.MULTILINE)
_MOST_TEXT = 500_000
_MOST_HEADER = 4_000
_MOST_RECIPIENTS = 200
_MOST_REFERENCES = 100


def read_mail(raw: bytes) -> Received:
    """A mail as values.

    Raises TooBig for more than 25 MB or 200 parts; everything else is read as far as it goes. Source: RFC
    5322, RFC 2045 to 2047, RFC 3676 (flowed text), RFC 3834, RFC 3464, RFC 5965.
    """
    if len(raw) > MOST_BYTES:
        raise TooBig("A mail has at most 25 MB.")
    try:
        message = BytesParser(policy=compat32).parsebytes(raw)
        parts = list(_parts(message))
    except RecursionError:
        raise TooBig("A mail has at most 200 parts.") from None
    report = report_of(parts, _plain_of)
    texts, files = _sorted(parts, report is not None)
    text = _clean("\n\n".join(texts))[:_MOST_TEXT]
    said, quoted = said_and_quoted(text)
    return Received(
        message_id=_id(message, "Message-ID"),
        in_reply_to=_id(message, "In-Reply-To"),
        references=tuple(_ID.findall(_header(message, "References")))[-_MOST_REFERENCES:],
        sender=_sender(message),
        to=_recipients(message),
        subject=" ".join(_header(message, "Subject").split())[:1000],
        text=text,
        said=said,
        quoted=quoted,
        files=tuple(files),
        kind=_kind(message, report),
        final_recipient=report.recipient if report else None,
        permanent=report.permanent if report else None,
        about=_brought_back(parts) if report else (),
    )


def _brought_back(parts: "list[tuple[Message[str, str], bool]]") -> tuple[str, ...]:
    """The ids of the mails within a report, whole or their heads alone."""
    heads = [_header(part, "Message-ID") for part, inside in parts if inside]
    heads += [_text_of(part) for part, _ in parts if part.get_content_type() == "text/rfc822-headers"]
    found = [one for head in heads for one in _ID_FIELD.findall(head) or _ID.findall(head)[:1]]
    return tuple(dict.fromkeys(found))[:_MOST_REFERENCES]


def _kind(message: "Message[str, str]", report: Report | None) -> Kind:
    if report is not None:
        return report.kind
    return Kind.AUTO_REPLY if sends_by_itself(lambda name: _header(message, name)) else Kind.MESSAGE


def _parts(message: "Message[str, str]") -> "Iterator[tuple[Message[str, str], bool]]":
    """Every part that has content, and whether it belongs to a mail inside of this one."""
    count = -1
    waiting: list[tuple[Message[str, str], bool]] = [(message, False)]
    while waiting:
        part, inside = waiting.pop()
        count += 1
        if count > MOST_PARTS:
            raise TooBig("A mail has at most 200 parts.")
        payload = part.get_payload()
        if isinstance(payload, list) and part.get_content_type() not in _REPORTED:
            inner = inside or part.get_content_type() == "message/rfc822"
            children = [one for one in payload if isinstance(one, Message)]
            waiting += [(one, inner) for one in reversed(children)]
            if inner and not inside:
                yield part, inside
        else:
            yield part, inside


_REPORTED = {"message/delivery-status", "message/feedback-report"}


def _sorted(
    parts: "list[tuple[Message[str, str], bool]]", reported: bool
) -> tuple[list[str], list[MailFile]]:
    """What the mail says, and what is attached: of two ways to say it, the plain one."""
    plain: list[str] = []
    pages: list[str] = []
    files: list[MailFile] = []
    for part, inside in parts:
        kind = part.get_content_type()
        if inside or kind in _REPORTED:
            continue
        if kind == "message/rfc822":
            if not reported:
                files.append(_as_file(part, _source(part), "mail.eml"))
        elif _is_words(part, kind):
            (plain if kind == "text/plain" else pages).append(_words(part, kind))
        else:
            files.append(_as_file(part, _bytes_of(part), f"file-{len(files) + 1}"))
    said = [one for one in plain if one.strip()]
    return said or [one for one in pages if one.strip()], files


def _is_words(part: "Message[str, str]", kind: str) -> bool:
    if kind not in {"text/plain", "text/html"}:
        return False
    return not _disposition(part).startswith("attachment") and not (
        part.get_filename() and _disposition(part)
    )


def _disposition(part: "Message[str, str]") -> str:
    return str(part.get("Content-Disposition", "")).strip().lower()


def _source(part: "Message[str, str]") -> bytes:
    inner = part.get_payload()
    try:
        return inner[0].as_bytes() if isinstance(inner, list) and isinstance(inner[0], Message) else b""
    except (ValueError, LookupError, UnicodeError, RecursionError, KeyError, IndexError):
        return b""


def _as_file(part: "Message[str, str]", content: bytes, otherwise: str) -> MailFile:
    name = _file_name(part) or otherwise
    kind = "message/rfc822" if part.get_content_type() == "message/rfc822" else type_of(content)
    return MailFile(name, kind, content, is_risky(name, kind))


def _file_name(part: "Message[str, str]") -> str:
    try:
        given = part.get_filename() or ""
    except (ValueError, LookupError, TypeError):
        given = ""
    plain = _clean(_decoded(str(given))).replace("\\", "/").rpartition("/")[2]
    return " ".join(plain.split()).strip(". ")[:200]


def _words(part: "Message[str, str]", kind: str) -> str:
    text = _text_of(part)
    if kind == "text/html":
        return words_of(text[:_MOST_TEXT])
    if str(part.get_param("format", "") or "").lower() == "flowed":
        return _flowed(text, str(part.get_param("delsp", "") or "").lower() == "yes")
    return text


def _plain_of(part: "Message[str, str]") -> str:
    """The content of a part as text, heads of a report among it."""
    payload = part.get_payload()
    if isinstance(payload, list):
        blocks = [one.raw_items() for one in payload if isinstance(one, Message)]
        return "\n\n".join(
            "\n".join(f"{name}: {_decoded(str(value))}" for name, value in block) for block in blocks
        )
    return _text_of(part)


def _bytes_of(part: "Message[str, str]") -> bytes:
    """The bytes of a part, decoded as far as its encoding holds."""
    try:
        found = part.get_payload(decode=True)
    except (ValueError, LookupError, AssertionError):
        return b""
    return found if isinstance(found, bytes) else b""


def _is_ascii(text: str) -> bool:
    return all(ord(letter) < 128 or 0xDC80 <= ord(letter) <= 0xDCFF for letter in text)


def _text_of(part: "Message[str, str]") -> str:
    charset = part.get_param("charset", "")
    return _read(_bytes_of(part), str(charset[2] if isinstance(charset, tuple) else charset or ""))


def _read(raw: bytes, charset: str) -> str:
    """Bytes as text: by the charset that is named, else UTF-8, else Windows-1252, which reads anything."""
    name = charset.strip().strip("\"'").lower()
    # As browsers do: what calls itself ASCII or Latin-1 is more often the larger set. Source: WHATWG
    # Encoding.
    name = {"us-ascii": "", "ascii": "", "iso-8859-1": "windows-1252", "latin1": "windows-1252"}.get(
        name, name
    )
    for one in (name, "utf-8"):
        try:
            if one:
                return raw.decode(one)
        except (LookupError, UnicodeError, ValueError):
            continue
    if name and name not in {"utf-8", "utf8"}:
        try:
            return raw.decode(name, "replace")
        except (LookupError, UnicodeError, ValueError):
            pass
    return raw.decode("windows-1252", "replace")


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
        return _read(piece, "utf-8" if charset in {None, "unknown-8bit"} else str(charset))
    return _read(piece.encode("ascii", "surrogateescape"), "utf-8") if _is_ascii(piece) else piece


def _id(message: "Message[str, str]", name: str) -> str:
    found = _ID.search(_header(message, name))
    return found[0] if found else ""


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
