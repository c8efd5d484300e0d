"""The link that a visitor gets for a channel."""

import re
import unicodedata
from collections.abc import Iterable, Mapping
from typing import Any
from urllib.parse import quote

import phonenumbers

from ..addresses import read_address
from ..people import email_address
from .model import Channel, ChannelPerson, Run
from .places import coordinates
from .template import filled_template, safe_scheme

MOST_TEXT = 1000  # characters
CONTROL = re.compile(r"[\x00-\x09\x0b-\x1f\x7f-\x9f\u2028\u2029\ud800-\udfff]")
_MATRIX = {"@": "u", "#": "r", "!": "roomid"}


def href(
    channel: Channel | Mapping[str, Any],
    *,
    person: ChannelPerson | Mapping[str, Any] | None = None,
    slots: Mapping[str, str] | None = None,
    device: str = "desktop",
    region: str = "GB",
    words: str | None = None,
) -> str:
    """The link for a channel, or for one person behind it; `words` are the visitor's own in place of the
    text.

    `region` reads numbers without a country code. ValueError for a handle that is none of its kind; the
    result never has a scheme that runs a script. Sources: RFC 3966 (tel), 5724 (sms), 6068 (mailto), 5122
    (xmpp), 3261 (sip), 5870 (geo), 6570 (templates), and the matrix: URI scheme.
    """
    one = channel if isinstance(channel, Channel) else Channel.model_validate(channel)
    who = (
        person
        if person is None or isinstance(person, ChannelPerson)
        else ChannelPerson.model_validate(person)
    )
    written = who.handle if who is not None and who.handle else one.handle
    handle = CONTROL.sub("", written.replace("\n", " ")).strip()
    text = said_text(one.text if words is None else [words], slots)
    link = _MAKERS[one.kind](one, handle, text, said_text(one.subject, slots), device, region)
    safe_scheme(link)
    return link


def said_text(runs: Iterable[Run], slots: Mapping[str, str] | None = None) -> str:
    """A text with its slots filled, in NFC, without control characters but line ends, of at most 1,000
    characters.
    """
    known = slots or {}
    whole = "".join(run if isinstance(run, str) else known.get(run.slot, "") for run in runs)
    lines = whole.replace("\r\n", "\n").replace("\r", "\n")
    return unicodedata.normalize("NFC", CONTROL.sub("", lines))[:MOST_TEXT].strip()


def _encoded(text: str) -> str:
    return quote(text.replace("\n", "\r\n"), safe="")


def number_link(scheme: str, handle: str, region: str) -> str:
    """A number as `tel:+447700900123;ext=12`; ValueError if no such number is possible. Source:
    ITU-T E.164.
    """
    try:
        number = phonenumbers.parse(handle, region)
    except phonenumbers.NumberParseException:
        raise ValueError(f"“{handle[:40]}” is not a phone number.") from None
    if not phonenumbers.is_possible_number(number):
        raise ValueError(f"“{handle[:40]}” has too few or too many digits for a phone number.")
    extension = f";ext={number.extension}" if number.extension and scheme == "tel" else ""
    bare = phonenumbers.PhoneNumber(
        country_code=number.country_code,
        national_number=number.national_number,
        italian_leading_zero=number.italian_leading_zero,
        number_of_leading_zeros=number.number_of_leading_zeros,
    )
    return f"{scheme}:{phonenumbers.format_number(bare, phonenumbers.PhoneNumberFormat.E164)}{extension}"


def _phone(channel: Channel, handle: str, text: str, subject: str, device: str, region: str) -> str:
    return number_link("tel", handle, region)


def _text(channel: Channel, handle: str, text: str, subject: str, device: str, region: str) -> str:
    return number_link("sms", handle, region) + (f"?body={_encoded(text)}" if text else "")


def _mail(channel: Channel, handle: str, text: str, subject: str, device: str, region: str) -> str:
    address = quote(email_address(handle).shown, safe="@")
    said = [f"{name}={_encoded(value)}" for name, value in (("subject", subject), ("body", text)) if value]
    return f"mailto:{address}" + (f"?{'&'.join(said)}" if said else "")


def _xmpp(channel: Channel, handle: str, text: str, subject: str, device: str, region: str) -> str:
    address = quote(email_address(handle.removeprefix("xmpp:")).shown, safe="@")
    return f"xmpp:{address}" + (f"?message;body={_encoded(text)}" if text else "")


def _sip(channel: Channel, handle: str, text: str, subject: str, device: str, region: str) -> str:
    scheme, _, rest = handle.partition(":") if handle.startswith(("sip:", "sips:")) else ("sip", "", handle)
    return f"{scheme}:{quote(email_address(rest).shown, safe='@+')}"


def _matrix(channel: Channel, handle: str, text: str, subject: str, device: str, region: str) -> str:
    name, _, host = handle[1:].partition(":")
    if handle[:1] not in _MATRIX or not name or not re.fullmatch(r"[\w.-]+(:[0-9]{1,5})?", host):
        raise ValueError(f"“{handle[:60]}” is not an address like @name:example.org.")
    chat = "?action=chat" if handle.startswith("@") else ""
    return f"matrix:{_MATRIX[handle[0]]}/{quote(name, safe='')}:{host}{chat}"


def _map(channel: Channel, handle: str, text: str, subject: str, device: str, region: str) -> str:
    place = coordinates(handle)
    if place is not None and (device == "phone" or channel.template is None):
        return f"geo:{place[0]},{place[1]}"
    if channel.template is None:
        raise ValueError("A map needs coordinates, or the address of a map that shows the place.")
    if "{" in channel.template:
        return filled_template(channel.template, handle, text)
    return channel.template


def _page(channel: Channel, handle: str, text: str, subject: str, device: str, region: str) -> str:
    found = read_address(handle)
    if found.kind != "page":
        raise ValueError(f"“{handle[:60]}” is not the whole address of a page.")
    return found.href


def _message(channel: Channel, handle: str, text: str, subject: str, device: str, region: str) -> str:
    if not handle:
        raise ValueError("The handle is missing.")
    return filled_template(channel.template or "", handle.removeprefix("@"), text)


_MAKERS = {
    "phone": _phone, "text": _text, "mail": _mail, "xmpp": _xmpp, "sip": _sip, "matrix": _matrix, "map": _map,
    "page": _page, "message-link": _message,
}  # fmt: skip
