"""Mails that machines write: what came back, was complained of, was read, and what answers by itself."""

import re
from collections.abc import Callable
from dataclasses import dataclass

from .model import Kind
from .parts import Part, head_within

_FIELD = re.compile(r"^([\w-]+)[ \t]*:[ \t]*(.*(?:\n[ \t]+.*)*)", re.MULTILINE)
_PERMANENT = re.compile(r"^5\.|^5[0-9][0-9]\b")
Reads = Callable[[Part], str]


@dataclass(frozen=True, slots=True)
class Report:
    """A bounce (RFC 3464), a complaint (RFC 5965) or a receipt (RFC 8098), and whose address it is about."""

    kind: Kind
    recipient: str | None
    permanent: bool | None


def report_of(parts: list[Part], reads: Reads) -> Report | None:
    """What a report among the parts says; that a mail was delivered is none."""
    for part in parts:
        if part.inside:
            continue
        kind = part.type
        if kind == "message/disposition-notification":
            fields = _fields(reads(part))
            return Report(Kind.RECEIPT, _address(fields.get("final-recipient", "")), None)
        if kind == "message/feedback-report":
            fields = _fields(reads(part))
            return Report(Kind.COMPLAINT, _address(fields.get("original-rcpt-to", "")) or _told(parts), None)
        if kind == "message/delivery-status":
            report = _delivery(reads(part))
            if report is not None:
                return report
    return None


def _told(parts: list[Part]) -> str | None:
    """To whom the mail went that is complained of, as it was sent back."""
    for part in parts:
        if not part.inside and part.type in {"message/rfc822", "text/rfc822-headers"}:
            to = head_within(part).get("To")
            if to:
                return _address(str(to))
    return None


def _delivery(text: str) -> Report | None:
    for block in re.split(r"\n\s*\n", text):
        fields = _fields(block)
        recipient = fields.get("final-recipient") or fields.get("original-recipient")
        if not recipient:
            continue
        action = fields.get("action", "").lower()
        status = fields.get("status", "") or fields.get("diagnostic-code", "").partition(";")[2].strip()
        if action in {"delivered", "relayed", "expanded"}:
            continue
        permanent = action != "delayed" and bool(
            _PERMANENT.match(status.strip()) or (action == "failed" and not status)
        )
        return Report(Kind.BOUNCE, _address(recipient), permanent)
    return None


def _fields(text: str) -> dict[str, str]:
    fields: dict[str, str] = {}
    for name, value in _FIELD.findall(text.replace("\r\n", "\n")):
        fields.setdefault(name.lower(), " ".join(value.split()))
    return fields


def _address(text: str) -> str | None:
    """The address in "rfc822; name@example.org" or "Name <name@example.org>"."""
    found = re.search(r"[^\s;<>\"',]+@[^\s;<>\"',]+", text)
    return found[0] if found else None


def sends_by_itself(header: Callable[[str], str]) -> bool:
    """Whether a machine answers for somebody. Source: RFC 3834, and the heads that auto-responders add.

    What is sent to many (`Precedence: list`, `List-*`), and what asks others not to answer by themselves, was
    written by somebody all the same.
    """
    auto = header("Auto-Submitted").strip().lower()
    if auto and not auto.startswith("no"):
        return True
    if header("Precedence").strip().lower() in {"auto_reply", "auto-reply"}:
        return True
    autos = ("X-Autoreply", "X-Autorespond", "X-Autoresponder", "X-Auto-Reply")
    return any(header(name).strip().lower() not in {"", "no", "none"} for name in autos)
