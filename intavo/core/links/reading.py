"""What an owner pastes for a channel: a link, a handle, a number, an address, a place."""

import re
from dataclasses import dataclass
from urllib.parse import unquote, urlsplit

from ..addresses import read_address
from .making import CONTROL, number_link
from .model import Kind
from .places import coordinates, looks_like_a_street
from .template import refuse_scripts, safe_scheme, template_from

_SCHEMES: dict[str, Kind] = {
    "tel": "phone", "sms": "text", "smsto": "text", "mailto": "mail", "xmpp": "xmpp", "sip": "sip",
    "sips": "sip", "matrix": "matrix", "geo": "map", "http": "page", "https": "page",
}  # fmt: skip
_MATRIX_KINDS = {"u": "@", "r": "#", "roomid": "!"}
_WITH_SCHEME = re.compile(r"^[a-z][a-z0-9+.-]*:(?![0-9]{1,5}(?:[/?#]|$))", re.IGNORECASE)
_MATRIX = re.compile(r"^[@#!][^\s:@]+:[\w.-]+(:[0-9]{1,5})?$")
_HANDLE = re.compile(r"^@[\w.-]{1,64}$")
_MOST = 500


@dataclass(frozen=True, slots=True)
class ReadChannel:
    """What it was taken for, in words; `others` are kinds that it could be as well."""

    kind: Kind
    handle: str
    words: str
    template: str | None = None
    others: tuple[Kind, ...] = ()


def read(text: str, region: str) -> ReadChannel:
    """Understands full links of every kind, @handles, numbers, mail addresses, coordinates and street
    addresses.

    `region` (ISO 3166-1 alpha-2) reads numbers in local form. ValueError, in words for the owner, for what is
    none of these, for numbers that cannot exist, and for schemes that run a script.
    """
    given = text.strip()
    if not given:
        raise ValueError("There is nothing to read yet.")
    if len(given) > _MOST:
        raise ValueError(f"“{given[:30]}…” is too long for a way to reach you.")
    refuse_scripts(given)
    if _WITH_SCHEME.match(given):
        return _link(given, region)
    if _MATRIX.match(given):
        return ReadChannel("matrix", given, f"a matrix address: {given}")
    if _HANDLE.match(given):
        words = f"the handle {given}; paste one link of that service, so that we know where it lives"
        return ReadChannel("message-link", given.removeprefix("@"), words)
    place = coordinates(given)
    if place is not None:
        return ReadChannel("map", ",".join(place), f"a place: {place[0]}, {place[1]}")
    if _numeric(given):
        number_link("tel", given, region)
        return ReadChannel("phone", " ".join(given.split()), f"a phone number: {given}", others=("text",))
    return _words(given, region)


def _numeric(text: str) -> bool:
    without = re.sub(r"(?:ext\.?|x)\s*[0-9]+$", "", text, flags=re.IGNORECASE)
    return (
        bool(re.fullmatch(r"[+(]?[0-9\s()/.+\-\u00a0]{3,}", without))
        and sum(one.isdigit() for one in without) > 2
    )


def _words(given: str, region: str) -> ReadChannel:
    if "@" not in given and looks_like_a_street(given):
        return ReadChannel("map", given, f"a street address: {given}")
    found = read_address(given, region)
    if found.kind == "mail":
        return ReadChannel("mail", given, found.words, others=("xmpp", "sip"))
    if found.kind == "page":
        return ReadChannel("page", found.href, found.words, others=("message-link", "map"))
    raise ValueError(f"“{given[:60]}” is no number, no address and no link; write it in full.")


def _link(given: str, region: str) -> ReadChannel:
    scheme = safe_scheme(given)
    kind = _SCHEMES.get(scheme, "message-link")
    rest = unquote(given.partition(":")[2].partition("?")[0])
    if kind in {"phone", "text"}:
        number, _, extension = rest.partition(";ext=")
        number_link("tel", number, region)
        handle = f"{number} ext {extension}" if extension else number
        return ReadChannel(kind, handle, f"a number to {'call' if kind == 'phone' else 'write to'}: {handle}")
    if kind in {"mail", "xmpp", "sip"}:
        handle = rest.partition(";")[0]
        found = read_address(handle)
        if found.kind != "mail":
            raise ValueError(f"“{handle[:60]}” is not an address like name@example.org.")
        said = {"mail": "a mail address", "xmpp": "a chat address", "sip": "an internet phone address"}[kind]
        return ReadChannel(kind, f"sips:{handle}" if scheme == "sips" else handle, f"{said}: {handle}")
    if kind == "matrix":
        sort, _, name = rest.partition("/")
        if sort not in _MATRIX_KINDS or not name:
            raise ValueError(f"“{given[:60]}” is not a matrix link like matrix:u/name:example.org.")
        return ReadChannel(
            "matrix", f"{_MATRIX_KINDS[sort]}{name}", f"a matrix address: {_MATRIX_KINDS[sort]}{name}"
        )
    if kind == "map":
        place = coordinates(rest.partition(";")[0])
        if place is None:
            raise ValueError(f"“{given[:60]}” says no place; coordinates are like geo:50.1,-5.2.")
        return ReadChannel("map", ",".join(place), f"a place: {place[0]}, {place[1]}")
    return _web(given, kind)


def _web(given: str, kind: Kind) -> ReadChannel:
    """A page, unless the words of an example stand in it; a link of any other program is a message link."""
    try:
        made = template_from(given)
    except ValueError:
        if kind == "message-link":
            raise
        made = None
    if made is not None and (made.takes_text or kind == "message-link"):
        if not CONTROL.sub("", made.handle).strip():
            raise ValueError("There is no handle in it.")
        where = urlsplit(given).hostname or urlsplit(given).scheme
        text = "takes a text" if made.takes_text else "takes no text"
        words = f"a message link at {where} to {made.handle}; it {text}"
        return ReadChannel(
            "message-link", made.handle, words, made.template, ("page",) if kind == "page" else ()
        )
    found = read_address(given)
    return ReadChannel("page", found.href, found.words, None, ("message-link", "map"))
