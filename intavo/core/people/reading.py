"""An entry of somebody's timeline in words, for a page that they may be given to read."""

from collections.abc import Mapping
from datetime import datetime
from typing import Any
from zoneinfo import ZoneInfo

_HEADS = {
    "signed up": "Signed up", "asked": "Asked", "asked for a call": "Asked for a call",
    "gave a score": "Gave a score", "replied": "Answered a question", "answered": "We answered",
    "message": "Wrote in a conversation", "not delivered": "Could not be delivered",
    "wrote by mail": "Wrote by mail", "answered by itself": "An automatic reply came",
    "mail came back": "Our mail came back", "complained": "Called our mail spam", "noted": "Our note",
    "given": "Given to a member", "waiting": "Their turn", "put off": "Put off by us",
    "finished": "Finished by us", "taken up": "Taken up again by us", "moved the call": "Moved the call",
    "cancelled the call": "Cancelled the call", "joined": "Two cards were joined",
    "changed": "We changed the card", "imported": "We brought them in", "added": "We put them on the list",
}  # fmt: skip
# What is told of an entry, in this order; times are told by the clock.
_TOLD = {
    "touchpoint": "through", "page": "on the page", "title": "its title", "subject": "subject",
    "text": "words", "quoted": "what it answers", "told": "was told", "way": "by", "through": "by way of",
    "from": "from", "address": "address", "to": "to", "reason": "why", "outcome": "as", "until": "until",
    "file": "file", "device": "device", "visits": "visits by then", "score": "score", "code": "code",
    "name": "name",
}  # fmt: skip
_LISTS = {"tags": "tags given", "agreed": "agreed to", "files": "files", "enclosed": "files sent along"}


def told_time(text: str, zone: ZoneInfo) -> str:
    """A time that was kept as ISO 8601, as it is told in a zone; what is none as it stands."""
    try:
        at = datetime.fromisoformat(text)
    except ValueError:
        return text
    return f"{at.astimezone(zone):%a %-d %B %Y, %H:%M}" if at.tzinfo else text


def entry_words(kind: str, data: Mapping[str, Any], zone: ZoneInfo) -> tuple[str, list[tuple[str, str]]]:
    """What happened, and what is known of it as pairs of a label and its words, all that was typed first.

    Numbers by which the parts of the application find each other are left out; they stand in the data.
    """
    typed = data.get("typed")
    pairs = [
        (str(one[0]), str(one[1]))
        for one in (typed if isinstance(typed, list) else ())
        if isinstance(one, list | tuple) and len(one) > 1
    ]
    for key, label in _TOLD.items():
        value = data.get(key)
        if isinstance(value, str | int | float) and not isinstance(value, bool) and value != "":
            pairs.append(
                (label, told_time(value, zone) if key == "until" and isinstance(value, str) else str(value))
            )
    for key, label in _LISTS.items():
        value = data.get(key)
        listed = value if isinstance(value, list) else []
        names = [str(one.get("name", "")) if isinstance(one, dict) else str(one) for one in listed]
        if names:
            pairs.append((label, ", ".join(names)))
    return _HEADS.get(kind, kind.capitalize()), pairs
