"""What an owner means by an address: a page of the site or elsewhere, a mail address, a number."""

import re
from dataclasses import dataclass
from typing import Literal
from urllib.parse import quote, urlsplit

from .hosts import normalise_host
from .people import email_address, phone_number

Kind = Literal["site page", "page", "mail", "phone", "place"]
_SCHEME = re.compile(r"^([a-z][a-z0-9+.-]*):", re.IGNORECASE)
_HOST = re.compile(r"^(?:[\w-]+\.)+[^\W\d_]{2,24}(?::\d+)?(?=[/?#]|$)", re.IGNORECASE)
# "prices.html" is a page and no host, though .html could be the end of one.
_FILES = {
    "html", "htm", "php", "asp", "aspx", "jsp", "pdf", "jpg", "jpeg", "png", "webp", "gif", "svg", "doc", "docx", "txt",
}  # fmt: skip
_NUMBER = re.compile(r"^[+(]?[\d\s()/.+-]{5,}$")
_UNSEEN = re.compile(r"[\x00-\x20\x7f-\xa0\u00ad\u200b-\u200f\u2028-\u202f\u2060-\u2064\ufeff]")
# Where a click may lead; whatever runs a script, in any spelling, is none of them.
_TAKEN = {"http", "https", "mailto", "tel", "sms"}


@dataclass(frozen=True, slots=True)
class ReadAddress:
    """What an address was taken for: its kind, the address that a browser goes to, and words for the owner."""

    kind: Kind
    href: str
    words: str


def read_address(text: str, region: str | None = None) -> ReadAddress:
    """Understands "example.org/x", "/hire", "hire", a mail address, a number, "#prices" and whole addresses.

    `region` reads numbers without a country code; without one they have to begin with +. Raises ValueError,
    in words for the owner, for what is none of these, and for every scheme but http, https, mailto, tel and sms.
    Source: RFC 3986, RFC 3966, RFC 6068.
    """
    given = text.strip()
    bare = _UNSEEN.sub("", given)
    if not bare:
        raise ValueError("There is no address yet.")
    scheme = _SCHEME.match(bare)
    if scheme and not _HOST.match(bare):
        return _with_scheme(scheme[1].lower(), bare, given)
    if "@" in bare and "/" not in bare.partition("@")[0]:
        return _mail(given)
    if _NUMBER.match(given) and sum(mark.isdigit() for mark in given) > 4:
        return _phone(given, region)
    if any(mark.isspace() for mark in given):
        raise ValueError(f"“{_short(given)}” has spaces in it, which no address of a page has.")
    if bare.startswith("//"):
        return _page(f"https:{bare}")
    if bare.startswith("#"):
        return ReadAddress("place", bare, f"a place on the same page: {bare}")
    host = _HOST.match(bare)
    if host and (bare.startswith("www.") or host[0].rpartition(".")[2].lower() not in _FILES):
        return _page(f"https://{bare}")
    path = quote(bare if bare.startswith("/") else f"/{bare.removeprefix('./')}", safe="/:@!$&'()*+,;=~-._?#[]%")
    return ReadAddress("site page", path, f"a page of your site: {path}")


def refuse_scripts(text: str) -> str:
    """The address, trimmed; raises ValueError for one with a scheme that a click does not lead to."""
    bare = _UNSEEN.sub("", text)
    scheme = _SCHEME.match(bare)
    if scheme and not _HOST.match(bare) and scheme[1].lower() not in _TAKEN:
        _with_scheme(scheme[1].lower(), bare, text)
    return text.strip()


def leads(text: str, region: str | None = None, home: str = "") -> str:
    """Where a browser goes for an address, or "" where it leads nowhere.

    `home` ("https://example.org") goes before a page of the site, for pages that stand elsewhere.
    """
    try:
        found = read_address(text, region)
    except ValueError:
        return ""
    return f"{home}{found.href}" if found.kind == "site page" else found.href


def _with_scheme(scheme: str, bare: str, given: str) -> ReadAddress:
    if scheme not in _TAKEN:
        raise ValueError(f"An address begins with https:// or /, and never with “{scheme}:”.")
    if scheme == "mailto":
        found = _mail(bare[len("mailto:") :].partition("?")[0])
        return ReadAddress("mail", bare, found.words)
    if scheme in {"tel", "sms"}:
        return ReadAddress("phone", bare, f"a number: {bare.partition(':')[2]}")
    if any(mark.isspace() for mark in given):
        raise ValueError(f"“{_short(given)}” has spaces in it, which no address of a page has.")
    return _page(bare)


def _page(address: str) -> ReadAddress:
    try:
        parts = urlsplit(address)
        _ = parts.port
    except ValueError:
        parts = None
    if parts is None or not parts.hostname or parts.username is not None:
        raise ValueError(f"“{_short(address)}” is not the address of a page.")
    try:
        normalise_host(parts.hostname)
    except ValueError:
        raise ValueError(f"“{_short(address)}” is not the address of a page.") from None
    return ReadAddress("page", address, f"a page on {parts.hostname}")


def _mail(text: str) -> ReadAddress:
    shown = email_address(text).shown
    return ReadAddress("mail", f"mailto:{quote(shown, safe='@+')}", f"a mail address: {shown}")


def _phone(text: str, region: str | None) -> ReadAddress:
    if region is None and not text.startswith("+"):
        raise ValueError("A number begins with + and the country's code.")
    found = phone_number(text, region or "ZZ")
    return ReadAddress("phone", f"tel:{found.key}", f"a number: {found.shown}")


def _short(text: str) -> str:
    return text if len(text) <= 60 else f"{text[:57]}…"
