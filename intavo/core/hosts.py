"""A web site's host, however the owner spells its address."""

import ipaddress
import re
from functools import lru_cache
from urllib.parse import urlsplit

import idna

_SCHEME = re.compile(r"^[a-z][a-z0-9+.-]*://", re.IGNORECASE)


def normalise_host(text: str) -> str:
    """The bare host of an address: no scheme, port, path or `www.`, lower case, IDN in ASCII form.

    Takes "https://WWW.Otterwick.example:8443/trips?x" as well as "otterwick.example". Raises
    ValueError, naming what was given, for what cannot be a host. Source: UTS 46 by the idna package.
    """
    given = text.strip()
    address = given if _SCHEME.match(given) else f"http://{given}"
    try:
        parts = urlsplit(address)
        host = parts.hostname or ""
        _ = parts.port
    except ValueError:
        raise _nonsense(given) from None
    if parts.scheme not in {"http", "https"} or parts.username is not None:
        raise _nonsense(given)
    return _checked(host.rstrip(".").removeprefix("www."), given)


def _checked(host: str, given: str) -> str:
    try:
        return str(ipaddress.ip_address(host))
    except ValueError:
        pass
    try:
        ascii_host = idna.encode(host, uts46=True).decode("ascii").lower()
    except idna.IDNAError:
        raise _nonsense(given) from None
    labels = ascii_host.split(".")
    if ascii_host != "localhost" and (len(labels) < 2 or labels[-1].isdigit()):
        raise _nonsense(given)
    return ascii_host


def _nonsense(given: str) -> ValueError:
    shown = given if len(given) <= 80 else f"{given[:77]}…"
    return ValueError(f"“{shown}” is not the address of a web site; write it like otterwick.example")


@lru_cache(maxsize=4096)
def host_of(url: str) -> str | None:
    """The normalised host of a page's address or an Origin header; None where there is none."""
    if not _SCHEME.match(url):
        return None
    try:
        return normalise_host(url)
    except ValueError:
        return None
