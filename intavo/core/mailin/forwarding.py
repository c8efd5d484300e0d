"""A mail that somebody sent on, attached or written into theirs, and whose a mail is after all."""

import re
from collections.abc import Collection
from email.utils import parseaddr

from .model import Forwarded, Received, Sender
from .quoting import FORWARD, FROM, HEAD, RULE, SUBJECT

# Before the subject of what is sent on, as mail programs of our languages write it.
_SENT_ON = re.compile(r"^\s*((fwd?|wg|tr|rv|i|pd|doorst|enc)\s*:)", re.IGNORECASE)
_ADDRESS = re.compile(r"[^\s<>\[\]()\"',;:]+@[^\s<>\[\]()\"',;:]+\.[^\s<>\[\]()\"',;:]+")
_NO_REPLY = re.compile(
    r"^(no|do[-_.]?not|ne[-_.]?pas|nao|não|non|nie|niet|geen|nicht|keine?)[-_.]?"
    r"(reply|respond|antwort|antworten|antwoord|repondre|répondre|responder|rispondere|odpowiadaj|beantwoorden)"
    r"(?![a-z])|^(mailer-daemon|postmaster)$|^bounces?(?![a-z])",
    re.IGNORECASE,
)
_MOST_HEADS, _MOST_BLANK = 14, 3


def inline_mail(text: str, subject: str) -> Forwarded | None:
    """The mail that stands in a text below the words with which mail programs begin one that is sent on."""
    lines = text.split("\n")
    sent_on = bool(_SENT_ON.match(subject))
    for at, line in enumerate(lines):
        says_so = bool(FORWARD.match(line))
        if not says_so and not (sent_on and (RULE.match(line) or FROM.match(_bare(line)))):
            continue
        start = at if FROM.match(_bare(line)) else at + 1
        held = _read(lines, start)
        if held is not None:
            return held
    return None


def _read(lines: list[str], at: int) -> Forwarded | None:
    blank = 0
    while at < len(lines) and not lines[at].strip("> \t") and blank < _MOST_BLANK:
        at, blank = at + 1, blank + 1
    heads: list[str] = []
    while at < len(lines) and len(heads) < _MOST_HEADS and HEAD.match(_bare(lines[at])):
        heads.append(_bare(lines[at]))
        at += 1
    sender = next((one for one in heads if FROM.match(one)), "")
    if len(heads) < 2 or not sender:  # a sender, and a date or a subject
        return None
    rest = lines[at:]
    if all(line.lstrip().startswith(">") for line in rest if line.strip()):
        rest = [_bare(line) for line in rest]
    subject = next((one for one in heads if SUBJECT.match(one)), "")
    return Forwarded(_sender(_value(sender)), _value(subject), "\n".join(rest).strip("\n"))


def _bare(line: str) -> str:
    return line.lstrip("> \t")


def _value(head: str) -> str:
    return head.partition(":")[2].replace("*", "").strip()


def _sender(written: str) -> Sender:
    """Whoever is named in "Ife Dunmore <ife@…>", "Ife Dunmore [mailto:ife@…]" or plainly."""
    found = _ADDRESS.search(written.replace("mailto:", ""))
    name = parseaddr(written)[0] if "<" in written else _ADDRESS.sub("", written)
    return Sender(found[0] if found else "", " ".join(re.sub(r"\[.*?\]|[<>()\"]", " ", name).split())[:300])


def is_no_reply(address: str) -> bool:
    """Whether nobody reads what is sent there, by its name."""
    return bool(_NO_REPLY.match(address.partition("@")[0]))


def whose(received: Received, own_addresses: Collection[str]) -> Sender | None:
    """Who the customer is; None where nobody can be named.

    Where it came from an own address the one whose mail was sent on, else the first that an answer is wanted
    at and that somebody reads, else the sender. That an answer is wanted at an own address says nothing.
    """
    own = {one.strip().casefold() for one in own_addresses}
    sender, forwarded = received.sender, received.forwarded
    if sender.address.casefold() in own and forwarded is not None and forwarded.sender.address:
        return forwarded.sender
    for one in received.reply_to:
        if one.address and one.address.casefold() not in own and not is_no_reply(one.address):
            return sender if one.address.casefold() == sender.address.casefold() else one
    return sender if sender.address else None
