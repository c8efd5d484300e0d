"""A mail taken apart into its parts, by RFC 2046, and as far as it can be.

The bytes are looked through for boundaries and never decoded as a whole, so that a mail of 25 MB costs little
time and not much more room than it takes itself; parts are counted as they are met. The heads of a part are
read by the standard library. What is broken is taken as far as it goes.
"""

import binascii
import codecs
import quopri
import re
from collections.abc import Iterator
from dataclasses import dataclass
from email.message import Message
from email.parser import BytesHeaderParser
from email.policy import compat32

from .model import MOST_BYTES, MOST_PARTS, TooBig

_HEADERS = BytesHeaderParser(policy=compat32)
_LINE = re.compile(rb"[^\r\n]*(?:\r\n|\n|\r|\Z)")
# What may stand behind a boundary on its line; the strokes end the whole.
_REST = re.compile(rb"(--)?[ \t]*(?:\r\n|\n|\r|\Z)")
_LONGEST_REST = 80
_FIELD = re.compile(rb"(?:From |[!-9;-~]+[ \t]*:|[ \t])")
_GUESSED = re.compile(rb"^--([^\s-][^\r\n]{0,68}?)[ \t]*\r?$", re.MULTILINE)
_MOST_HEAD = 256 * 1024
# What is looked through in all, parts within parts again and again; what lies deeper stays as it is.
_MOST_LOOKED = 16 * MOST_BYTES
_MOST_ALIKE = 2_000


@dataclass(frozen=True, slots=True)
class Part:
    """One part: its heads, its content as it stands in the mail, and whether it is one of a mail inside."""

    head: "Message[str, str]"
    _within: bytes
    _start: int
    _end: int
    inside: bool

    @property
    def raw(self) -> bytes:
        """Its content as it stands in the mail."""
        return self._within[self._start : self._end]

    @property
    def size(self) -> int:
        """How many bytes that is."""
        return self._end - self._start

    @property
    def encoding(self) -> str:
        """How its content is carried, in small letters."""
        return str(self.head.get("Content-Transfer-Encoding", "")).strip().lower()

    @property
    def type(self) -> str:
        """The media type that it says it has."""
        return self.head.get_content_type()

    @property
    def charset(self) -> str:
        """The charset that its text says it is in; "" for none."""
        named = self.head.get_param("charset", "")
        return str(named[2] if isinstance(named, tuple) else named or "")

    def content(self) -> bytes:
        """Its content, decoded as far as its encoding holds."""
        return decoded(self.raw, self.encoding)

    def said(self, most: int) -> bytes:
        """No more than the beginning of its content: `most` bytes, decoded."""
        # Base64 takes four bytes for three, quoted printable three for one.
        end = min(self._end, self._start + most * 4)
        return decoded(self._within[self._start : end], self.encoding)[:most]

    def text(self, most: int) -> str:
        """The beginning of its content as text."""
        raw = self.said(most)
        return text_from(raw, self.charset, cut=len(raw) == most)


def taken_apart(raw: bytes) -> "tuple[Message[str, str], list[Part]]":
    """The heads of a mail, and every part that has content, those of mails inside of it as well.

    Raises TooBig for more than 25 MB or 200 parts, counted with those that only hold others.
    """
    if len(raw) > MOST_BYTES:
        raise TooBig("A mail has at most 25 MB.")
    return _head(raw, 0, len(raw))[0], list(_Taking(raw).parts())


class _Taking:
    def __init__(self, raw: bytes) -> None:
        self.raw = raw
        self.count = -1
        self.looked = 0

    def parts(self) -> Iterator[Part]:
        waiting = [(0, len(self.raw), False, self.raw)]
        while waiting:
            start, end, inside, raw = waiting.pop()
            self._counted()
            head, start = _head(raw, start, end)
            kind = head.get_content_type()
            if head.get_content_maintype() == "multipart":
                inner = list(self._between(raw, start, end, head))
                if inner:
                    waiting += [(at, to, inside, raw) for at, to in reversed(inner)]
                    continue
                head.set_type("text/plain")
            part = Part(head, raw, start, end, inside)
            yield part
            if kind != "message/rfc822":
                continue
            if part.encoding not in ENCODED:
                waiting.append((start, end, True, raw))
            elif self.looked + part.size <= _MOST_LOOKED:
                self.looked += part.size
                held = part.content()
                waiting.append((0, len(held), True, held))

    def _counted(self) -> None:
        self.count += 1
        if self.count > MOST_PARTS:
            raise TooBig("A mail has at most 200 parts.")

    def _between(
        self, raw: bytes, start: int, end: int, head: "Message[str, str]"
    ) -> Iterator[tuple[int, int]]:
        """Where the parts between the boundaries stand; what comes before and after them is for nobody."""
        self.looked += end - start
        named = head.get_param("boundary") or ""
        boundary = (
            (named[2] if isinstance(named, tuple) else str(named)).rstrip().encode("utf-8", "surrogateescape")
        )
        if not boundary:
            guessed = _GUESSED.search(raw, start, min(end, start + _MOST_HEAD))
            boundary = guessed[1] if guessed else b""
        if not boundary or self.looked > _MOST_LOOKED:
            return
        marked = b"--" + boundary
        began, found, alike = -1, 0, 0
        at = raw.find(marked, start, end)
        while at >= 0 and alike < _MOST_ALIKE:
            rest = raw[at + len(marked) : min(end, at + len(marked) + _LONGEST_REST)]
            line = _REST.match(rest)
            if line is None or not (at == start or raw[at - 1] in b"\r\n"):
                alike += 1
            else:
                if began >= 0:
                    found += 1
                    if found > MOST_PARTS:
                        raise TooBig("A mail has at most 200 parts.")
                    yield began, max(began, _before_line_end(raw, at))
                began = -1 if line[1] else at + len(marked) + line.end()
                if line[1]:
                    return
            at = raw.find(marked, at + len(marked), end)
        if began >= 0:
            yield began, end


def head_within(part: Part) -> "Message[str, str]":
    """The heads of the mail that a part holds, whole or its heads alone."""
    held = part.said(_MOST_HEAD)
    return _head(held, 0, len(held))[0]


def _before_line_end(raw: bytes, at: int) -> int:
    """The line end before a boundary belongs to the boundary. Source: RFC 2046, 5.1.1."""
    if raw[at - 2 : at] == b"\r\n":
        return at - 2
    return at - 1 if raw[at - 1 : at] in {b"\n", b"\r"} else at


def _head(raw: bytes, start: int, end: int) -> "tuple[Message[str, str], int]":
    """The heads that stand at the beginning, and where what they are of begins."""
    at, last = start, min(end, start + _MOST_HEAD)
    while at < last:
        line = _LINE.match(raw, at, last)
        if line is None or not line[0].strip(b"\r\n"):
            break
        if not _FIELD.match(line[0]):
            return _HEADERS.parsebytes(raw[start:at]), at
        at = line.end()
    blank = _LINE.match(raw, at, end)
    after = blank.end() if blank and not blank[0].strip(b"\r\n") else at
    return _HEADERS.parsebytes(raw[start:at]), after


_UU = {"x-uuencode", "uuencode", "uue", "x-uue"}
ENCODED = {"base64", "quoted-printable", *_UU}


def decoded(raw: bytes, name: str) -> bytes:
    """Bytes out of the encoding in which they were carried; as they are where it is none that is known."""
    try:
        if name == "base64":
            return _base64(raw)
        if name == "quoted-printable":
            return quopri.decodestring(raw)
        if name in _UU:
            return b"".join(_uu(line) for line in raw.splitlines())
    except (ValueError, binascii.Error):
        pass
    return raw


_NOT_BASE64 = re.compile(rb"[^A-Za-z0-9+/]+")


def _base64(raw: bytes) -> bytes:
    """What letters of it can be read; what is cut off in the middle is left out."""
    letters = _NOT_BASE64.sub(b"", raw)
    letters = letters[: len(letters) - (len(letters) % 4 == 1)]
    return binascii.a2b_base64(letters + b"=" * (-len(letters) % 4))


def _uu(line: bytes) -> bytes:
    if line.startswith((b"begin ", b"end", b"`")) or not line.strip():
        return b""
    try:
        return binascii.a2b_uu(line)
    except binascii.Error:
        return b""


def text_from(raw: bytes, charset: str, cut: bool = False) -> str:
    """Bytes as text: by the charset that is named, else UTF-8, else Windows-1252, which reads anything.

    Where they were `cut`, a letter that is cut in two at their end is left out.
    """
    name = charset.strip().strip("\"'").lower()
    # As browsers do: what calls itself ASCII or Latin-1 is more often the larger set. Source: WHATWG
    # Encoding.
    name = {"us-ascii": "", "ascii": "", "iso-8859-1": "windows-1252", "latin1": "windows-1252"}.get(
        name, name
    )
    for one in (name, "utf-8"):
        try:
            if one:
                # Asked of the bytes: what is no charset (Base64 is a codec as well) is refused by it.
                b"".decode(one)
                return codecs.getincrementaldecoder(one)().decode(raw, final=not cut)
        except (LookupError, UnicodeError, ValueError):
            continue
    if name and name not in {"utf-8", "utf8"}:
        try:
            return raw.decode(name, "replace")
        except (LookupError, UnicodeError, ValueError):
            pass
    return raw.decode("windows-1252", "replace")
