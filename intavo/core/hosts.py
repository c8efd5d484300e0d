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


def origin_of(url: str) -> str:
    """Scheme, host and port of an address, as a browser writes an origin; "" where it is none of http or
    https.
    """
    if host_of(url) is None:
        return ""
    parts = urlsplit(url.strip())
    host = (parts.hostname or "").rstrip(".")
    shown = f"[{host}]" if ":" in host else _ascii(host)
    return f"{parts.scheme}://{shown}{f':{parts.port}' if parts.port else ''}"


def typed_origin(text: str) -> str:
    """The origin that an owner wrote with the address of a site: "" where they wrote neither a scheme nor a
    port.

    Without a scheme it is https, on this machine itself http.
    """
    given = text.strip()
    if _SCHEME.match(given):
        return origin_of(given)
    whole = f"https://{given}"
    if not origin_of(whole) or urlsplit(whole).port is None:
        return ""
    return origin_of(f"http://{given}" if is_loopback(normalise_host(given)) else whole)


def is_loopback(host: str) -> bool:
    """Whether a normalised host is this machine itself. Source: RFC 6761, 6.3."""
    try:
        return ipaddress.ip_address(host).is_loopback
    except ValueError:
        return host == "localhost" or host.endswith(".localhost")


def _ascii(host: str) -> str:
    try:
        return idna.encode(host, uts46=True).decode("ascii").lower()
    except idna.IDNAError:
        return host.lower()


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
