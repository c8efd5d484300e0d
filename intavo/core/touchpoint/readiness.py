"""The ready check: what stops a touchpoint from working, and what to look at, before it is on."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

from .document import Document
from .parts import Button, Consent, FieldPart, Headline


@dataclass(frozen=True, slots=True)
class Finding:
    """One finding: whether it stops or is to be looked at, in words, and the place to fix it."""

    level: Literal["stops", "look"]
    message: str
    place: str


def ready_check(document: Document, has_site: bool, snippet_seen: bool) -> list[Finding]:
    """Every finding, what stops it first. `has_site`: it stands on a site; `snippet_seen`: the script was seen."""
    found = [*_about_the_site(has_site, snippet_seen), *_about_the_parts(document), *_about_the_ask(document)]
    return sorted(found, key=lambda finding: finding.level != "stops")


def _about_the_site(has_site: bool, snippet_seen: bool) -> Iterator[Finding]:
    if not has_site:
        yield Finding("stops", "It stands on no site.", "sites")
    elif not snippet_seen:
        yield Finding("look", "The snippet has not been seen on the site yet.", "snippet")


def _about_the_parts(document: Document) -> Iterator[Finding]:
    for part in document.parts():
        if part.hidden:
            continue
        if isinstance(part, FieldPart) and not part.label.strip():
            yield Finding("stops", "A field has no label.", part.id)
        elif isinstance(part, Consent) and not part.text.strip():
            yield Finding("stops", "The consent tick has no wording.", part.id)
        elif isinstance(part, Button) and not part.label.strip():
            yield Finding("stops", "A button has no words.", part.id)
        elif isinstance(part, Headline) and not part.text.strip():
            yield Finding("look", "The headline is empty.", part.id)


def _about_the_ask(document: Document) -> Iterator[Finding]:
    first = [part for part in document.steps[0].parts if not part.hidden]
    if not any(isinstance(part, Button) and part.does.action == "send" for part in first):
        yield Finding("stops", "There is no button that sends it.", document.steps[0].id)
    asks_email = any(isinstance(part, FieldPart) and part.input == "email" for part in first)
    asks_phone = any(isinstance(part, FieldPart) and part.input == "phone" for part in first)
    if not (asks_email or asks_phone):
        yield Finding("stops", "Nothing asks how to reach them: an email or a phone field is needed.", "ask")
    if document.purpose == "sign-up" and asks_email and not any(True for _ in document.consents()):
        yield Finding("look", "The email field has no consent wording with it.", "ask")
    if document.after.thank_you.send and not document.after.thank_you.subject.strip():
        yield Finding("stops", "The thank-you mail has no subject.", "thank_you")
