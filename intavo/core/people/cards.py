"""Cards of people as vCards: written as 4.0, read in any version."""

import json
from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class WrittenCard:
    """What goes onto a card; addresses as they were typed."""

    uid: str
    name: str
    emails: tuple[str, ...] = ()
    phones: tuple[str, ...] = ()
    tags: tuple[str, ...] = ()
    notes: tuple[str, ...] = ()
    fields: tuple[tuple[str, str], ...] = ()
    data: str = ""


# What vCards have no property of: a field of the owner's own, as a JSON pair, and the rest as data.
FIELD, DATA = "X-INTAVO-FIELD", "X-INTAVO-DATA"


def write_card(card: WrittenCard) -> str:
    """One card, with its closing line. Source: RFC 6350 (vCard 4.0), folded at 75 octets."""
    called = card.name or next(iter((*card.emails, *card.phones)), "Somebody")
    first, _, last = card.name.rpartition(" ")
    lines = ["BEGIN:VCARD", "VERSION:4.0", f"UID:urn:x-intavo:{_text(card.uid)}", f"FN:{_text(called)}"]
    if card.name:
        lines.append(f"N:{_text(last)};{_text(first)};;;")
    lines += [f"EMAIL{_preferred(at)}:{_text(one)}" for at, one in enumerate(card.emails)]
    lines += [f"TEL{_preferred(at)};VALUE=text:{_text(one)}" for at, one in enumerate(card.phones)]
    if card.tags:
        lines.append(f"CATEGORIES:{','.join(map(_text, card.tags))}")
    lines += [f"NOTE:{_text(one)}" for one in card.notes]
    lines += [f"{FIELD}:{_text(json.dumps(one, ensure_ascii=False))}" for one in card.fields]
    if card.data:
        lines.append(f"{DATA}:{_text(card.data)}")
    return "".join(f"{_folded(line)}\r\n" for line in (*lines, "END:VCARD"))


def _preferred(at: int) -> str:
    return ";PREF=1" if at == 0 else ""


def _text(value: str) -> str:
    kept = value.replace("\\", "\\\\").replace("\r\n", "\n").replace("\r", "\n").replace("\n", "\\n")
    return kept.replace(",", "\\,").replace(";", "\\;")


def _folded(line: str) -> str:
    pieces: list[str] = []
    piece, size = "", 0
    for mark in line:
        length = len(mark.encode())
        if size + length > 75:
            pieces.append(piece)
            piece, size = " ", 1
        piece, size = piece + mark, size + length
    return "\r\n".join([*pieces, piece])
