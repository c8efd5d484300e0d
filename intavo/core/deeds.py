"""What was done, in words: the sentence of each entry of the audit log."""

import re
from collections.abc import Mapping
from typing import Any

from .say import joined

# A piece that names something which an entry does not have is left out; with the first of them the verb
# stands.
DEEDS: dict[str, tuple[str, ...]] = {
    "business founded": ("founded {name}",),
    "business changed": ("changed the business: it is called {name}", ", answers within {promise}"),
    "sender asked": ("asked {address} whether mail may come from it",),
    "first steps put away": ("put the first steps away",),
    "member added": ("added {who}", " as {role}"),
    "member invited": ("invited {email}", " as {role}"),
    "member joined": ("joined", " as {role}"),
    "everybody shown": ("let {member} see everybody",),
    "everybody hidden": ("no longer lets {member} see everybody",),
    "member changed": ("changed {member}", ": {role} now"),
    "member left": ("left the business", "; their work went to {heir}"),
    "member taken out": ("took {member} out of the business", "; their work went to {heir}"),
    "invitation taken back": ("took the invitation of {email} back",),
    "site added": ("added the site {name}", " with {hosts}"),
    "site changed": ("changed the site {name}", ", found at {hosts}"),
    "house style set": ("changed the house style of {name}",),
    "site rules set": ("changed what holds for all of {name}",),
    "instructions sent": ("sent the line for {name}", " to {to}"),
    "hours added": ("made the hours “{name}”",),
    "hours changed": ("changed the hours “{name}”",),
    "hours renamed": ("renamed the hours “{before}”", " to “{name}”"),
    "hours deleted": ("deleted the hours “{name}”", "; “{instead}” stands instead"),
    "hours brought back": ("brought the hours “{name}” back",),
    "main hours chosen": ("made “{name}” the hours", " of {site}"),
    "calendar address made": ("made a calendar address of “{name}”",),
    "calendar address taken away": ("took the calendar address of “{name}” away",),
    "usual times set": ("said when {who} is usually at the counter", ": {times}"),
    "reply changed": ("changed what is told when it is “{when}”", " for “{name}”", " (language: {language})"),
    "reply put back": (
        "emptied what is told when it is “{when}”",
        " for “{name}”",
        " (language: {language})",
    ),
    "channel added": ("made the channel “{label}”",),
    "channel changed": ("changed the channel “{label}”",),
    "channel deleted": ("deleted the channel “{label}”",),
    "channel brought back": ("brought the channel “{label}” back",),
    "channels ordered": ("put the channels in another order",),
    "mail in set": ("takes answers by mail in at {address}",),
    "mail in renewed": ("made another address that mail is handed in at",),
    "mailbox set": ("has the mailbox of {user} read", " at {host}"),
    "mailbox left": ("has no mailbox read any more",),
    "gateway added": ("connected “{name}”",),
    "gateway deleted": ("took “{name}” away",),
    "gateway brought back": ("brought “{name}” back",),
    "touchpoint made": ("made the touchpoint “{name}”",),
    "touchpoint turned on": ("turned “{name}” on", ", version {revision}"),
    "touchpoint turned off": ("turned “{name}” off",),
    "changes put live": ("put the changes of “{name}” live", ", version {revision}"),
    "touchpoint placed": ("put “{name}” on {sites}",),
    "touchpoint thrown away": ("threw “{name}” away",),
    "touchpoint brought back": ("brought “{name}” back",),
    "showings forgotten": ("let everybody get “{name}” again",),
    "question kept": ("kept the question “{asked}”",),
    "question thrown away": ("threw the question “{asked}” away",),
    "added to the library": ("added {name} to the library",),
    "taken out of the library": ("took {name} out of the library",),
    "codes added": ("added {codes} codes", " to “{name}”"),
    "codes thrown away": ("threw {codes} codes away", " of “{name}”"),
    "CSV address made": ("made a CSV address", " of “{name}”"),
    "CSV address revoked": ("took the CSV address away", " of “{name}”"),
    "copy made": ("had a copy of the whole business made",),
    "copy taken": ("took a copy of the whole business away",),
    "copy brought in": ("had the business made anew from a copy of {name}",),
    "cards joined": ("joined {cards} cards of one person",),
    "cards parted": ("made {cards} cards of one again",),
    "somebody erased": ("erased somebody",),
    "people brought in": ("brought people in with {file}",),
    "import undone": ("undid what was brought in with {file}",),
    "answers taken out": ("took the answers of “{name}” out",),
    "give rules set": ("changed whose new work is",),
    "people exported": ("took {people} out", " as {format}"),
    "tag renamed": ("renamed the tag “{before}”", " to “{name}”"),
    "tag removed": ("took the tag “{name}” away everywhere",),
    "released from quarantine": ("let an answer out of quarantine",),
    "thrown out of quarantine": ("threw an answer in quarantine away",),
}
_SLOT = re.compile(r"\{(\w+)\}")


def deed_words(verb: str, about: Mapping[str, Any]) -> str:
    """An entry as a sentence without its subject, or its verb: "turned “Tide table” on, version 2"."""
    said = ""
    for number, piece in enumerate(DEEDS.get(verb, ())):
        found = {slot: _word(about.get(slot)) for slot in _SLOT.findall(piece)}
        if all(found.values()):
            said += piece.format(**found)
        elif number == 0:
            return verb
    return said or verb


def _word(value: Any) -> str:
    if isinstance(value, list):
        return joined(map(str, value))
    return "" if value is None else str(value)
