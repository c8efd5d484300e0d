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
# A machine by its number, or this one: its pages come without a certificate. "12.34.56.78" alone is a
# phone's.
_MACHINE = re.compile(
    r"^(?:(?:\d{1,3}\.){3}\d{1,3}(?::\d+(?=[/?#]|$)|(?=[/?#]))|localhost(?::\d+)?(?=[/?#]|$))", re.IGNORECASE
)
# "prices.html" is a page and no host, though .html could be the end of one.
_FILES = {
    "html", "htm", "php", "asp", "aspx", "jsp", "pdf", "jpg", "jpeg", "png", "webp", "gif", "svg", "doc",
    "docx", "txt",
}  # fmt: skip
_NUMBER = re.compile(r"^[+(]?[\d\s()/.+-]{5,}$")
_UNSEEN = re.compile(r"[\x00-\x20\x7f-\xa0\u00ad\u200b-\u200f\u2028-\u202f\u2060-\u2064\ufeff]")
# Where a click may lead; whatever runs a script, in any spelling, is none of them.
_TAKEN = {"http", "https", "mailto", "tel", "sms"}


def bare(text: str) -> str:
    """The text without what is not seen of it, as a browser reads the beginning of an address."""
    return _UNSEEN.sub("", text)


def scheme_of(text: str) -> str:
    """The scheme of an address, in lower case and in any spelling; "" where it has none. Source: RFC 3986."""
    found = _SCHEME.match(bare(text))
    return found[1].lower() if found else ""


@dataclass(frozen=True, slots=True)
class ReadAddress:
    """What an address was taken for: its kind, the address that a browser goes to,
    and words for the owner.
    """

    kind: Kind
    href: str
    words: str


def read_address(text: str, region: str | None = None) -> ReadAddress:
    """Understands "example.org/x", "/hire", "hire", a mail address, a number, "#prices" and whole addresses.

    `region` reads numbers without a country code; without one they have to begin with +. Raises ValueError,
    in words for the owner, for what is none of these, and for every scheme but http, https, mailto, tel and
    sms. Source: RFC 3986, RFC 3966, RFC 6068.
    """
    given = text.strip()
    seen = bare(given)
    if not seen:
        raise ValueError("There is no address yet.")
    scheme = scheme_of(seen)
    if _MACHINE.match(seen):
        return _page(f"http://{seen}")
    if scheme and not _HOST.match(seen):
        return _with_scheme(scheme, seen, given)
    if "@" in seen and "/" not in seen.partition("@")[0]:
        return _mail(given)
    if _NUMBER.match(given) and sum(mark.isdigit() for mark in given) > 4:
        return _phone(given, region)
    if any(mark.isspace() for mark in given):
        raise ValueError(f"“{_short(given)}” has spaces in it, which no address of a page has.")
    if seen.startswith("//"):
        return _page(f"https:{seen}")
    if seen.startswith("#"):
        return ReadAddress("place", seen, f"a place on the same page: {seen}")
    if begins_with_host(seen):
        return _page(f"https://{seen}")
    path = quote(
        seen if seen.startswith("/") else f"/{seen.removeprefix('./')}", safe="/:@!$&'()*+,;=~-._?#[]%"
    )
    return ReadAddress("site page", path, f"a page of your site: {path}")


def begins_with_host(text: str) -> str:
    """The host and port that an address without a scheme begins with; "" where it begins with a page."""
    machine, host = _MACHINE.match(text), _HOST.match(text)
    if machine:
        return machine[0]
    named = host and (text.startswith("www.") or host[0].rpartition(".")[2].lower() not in _FILES)
    return host[0] if host and named else ""


def refuse_scripts(text: str) -> str:
    """The address, trimmed; raises ValueError for one with a scheme that a click does not lead to."""
    seen, scheme = bare(text), scheme_of(text)
    if scheme and not (_HOST.match(seen) or _MACHINE.match(seen)) and scheme not in _TAKEN:
        _with_scheme(scheme, seen, text)
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


def _with_scheme(scheme: str, seen: str, given: str) -> ReadAddress:
    if scheme not in _TAKEN:
        raise ValueError(f"An address begins with https:// or /, and never with “{scheme}:”.")
    if scheme == "mailto":
        found = _mail(seen[len("mailto:") :].partition("?")[0])
        return ReadAddress("mail", seen, found.words)
    if scheme in {"tel", "sms"}:
        return ReadAddress("phone", seen, f"a number: {seen.partition(':')[2]}")
    if any(mark.isspace() for mark in given):
        raise ValueError(f"“{_short(given)}” has spaces in it, which no address of a page has.")
    return _page(seen)


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
