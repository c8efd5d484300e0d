"""The ready check's look at where things lead: clicks, links in texts, and what comes right after sending."""

import html
import re
from collections.abc import Iterator
from functools import cache

from ..addresses import leads, read_address
from ..hosts import host_of
from ..tongues import SPOKEN, Phrase, Tongue, in_tongue
from .document import Document, href
from .finding import Finding, Known
from .parts import Button, Does, Headline, Share, Text
from .patterns import normal_path
from .starters import STARTERS


def about_the_clicks(document: Document, known: Known) -> Iterator[Finding]:
    for place, does in document.does():
        reason = _goes_nowhere(does, known)
        if reason:
            yield Finding("look", reason, place)


def _goes_nowhere(does: Does, known: Known) -> str:
    if does.action in {"page", "mail", "phone"}:
        return _leads_nowhere(does, known)
    if does.action == "file" and does.asset is None:
        return "A click gives a file, but none is chosen."
    if does.action == "channel" and known.channels is not None and does.channel not in known.channels:
        return (
            "A click goes to a channel that is not there."
            if does.channel
            else "A click goes to no channel yet."
        )
    if does.action == "touchpoint" and does.touchpoint not in known.slugs:
        return f"A click opens “{does.touchpoint}”, which is not there."
    return ""


def _leads_nowhere(does: Does, known: Known) -> str:
    if does.address.strip() in {"", "https://", "http://"}:
        return "A click goes nowhere: its address is empty."
    if not href(does, known.region):
        kind = {"mail": "mail address", "phone": "phone number"}.get(does.action, "address")
        return f"A click goes nowhere: “{does.address[:60]}” is no {kind}."
    return _unknown_page(does.address, known)


def _unknown_page(address: str, known: Known) -> str:
    """Words for an address of the site that is none of its pages, as far as they were seen."""
    try:
        found = read_address(address, known.region)
    except ValueError:
        return f"“{address[:60]}” is not the address of a page."
    own = found.kind == "site page" or (found.kind == "page" and host_of(found.href) in known.hosts)
    # Every site has a first page, also where only its longer name ("/index.html") was seen.
    if own and known.paths and normal_path(found.href) not in {"/", *known.paths}:
        return f"“{address[:60]}” is none of the pages that were seen on your site."
    return ""


def about_the_links(document: Document, known: Known) -> Iterator[Finding]:
    """Links in texts, and the page that stands instead of a thanks step."""
    for part in document.parts():
        if isinstance(part, Text) and not part.hidden:
            for address in _HREF.findall(f"{part.html} {part.known}"):
                if said := _unknown_page(html.unescape(address), known):
                    yield Finding("look", f"A link in a text: {said}", part.id)
        shared = part.address if isinstance(part, Share) and not part.hidden else ""
        if shared and (said := _unknown_page(shared, known)):
            yield Finding("look", f"What is shared: {said}", part.id)
    if document.after.page and (said := _unknown_page(document.after.page, known)):
        yield Finding(
            "stops" if not leads(document.after.page) else "look", f"The page they go to: {said}", "after"
        )


_HREF = re.compile(r'href="([^"]*)"')


def about_the_starter(document: Document) -> Iterator[Finding]:
    """A click that still leads where the starter's own led; a number of a starter is nobody's."""
    numbers = _starters_numbers()
    for place, does in document.does():
        if does.action == "phone" and _digits(does.address) in numbers:
            yield Finding("stops", f"{does.address} is the starter's number, and nobody's: put yours.", place)
            return
    left = [
        (place, does)
        for place, does in document.does()
        if _click(document, place, does) in _starters_clicks()
    ]
    if left:
        place, does = left[0]
        yield Finding("look", f"A click still leads where the starter's did: “{does.address}”.", place)


@cache
def _starters_numbers() -> frozenset[str]:
    return frozenset(
        _digits(does.address)
        for one in STARTERS
        for _, does in one.document.does()
        if does.action == "phone" and does.address
    )


def _digits(number: str) -> str:
    return "".join(letter for letter in number if letter.isdigit())


@cache
def _starters_clicks() -> frozenset[tuple[str, str]]:
    return frozenset(
        click
        for one in STARTERS
        for place, does in one.document.does()
        if (click := _click(one.document, place, does))
    )


def _click(document: Document, place: str, does: Does) -> tuple[str, str] | None:
    """The words of a button and its address, where it has one."""
    part = next((one for one in document.parts() if one.id == place), None)
    words = (
        document.face.label
        if place == "face"
        else part.label
        if isinstance(part, Button) and not part.hidden
        else ""
    )
    return (words, does.address) if words and does.address else None


# Beginnings of words, in each language by a comma between them.
_MAIL_WORDS, _CONFIRMING_WORDS = Phrase("mail, inbox, spam"), Phrase("confirm, confirmation")


@cache
def _speaks_of(words: Phrase) -> re.Pattern[str]:
    """Finds any of these words in any language that ships; a text may be in another than it says."""
    stems = {
        stem.strip().casefold()
        for language in SPOKEN
        for stem in in_tongue(words, Tongue(language)).split(",")
    }
    # Arabic writes small words, and the article, together with the word behind them.
    begins = "|".join(re.escape(one) for one in sorted(stems))
    return re.compile(rf"(?:(?<!\w)e?|(?<=[\u0600-\u06ff]))(?:{begins})")


def _of_mail(said: str) -> bool:
    return any(_speaks_of(words).search(said) for words in (_MAIL_WORDS, _CONFIRMING_WORDS))


def about_confirming(document: Document) -> Iterator[Finding]:
    """What is said right after sending, held against whether they confirm by mail first."""
    buttons = [part for part in document.parts() if isinstance(part, Button) and part.does.action == "send"]
    shown = {part.does.next for part in buttons if not part.hidden and part.does.next}
    for step in (step for step in document.steps if step.id in shown):
        parts = [part for part in step.parts if not part.hidden]
        said = " ".join(
            p.text if isinstance(p, Headline) else p.html for p in parts if isinstance(p, Headline | Text)
        ).casefold()
        code = next((part for part in parts if part.kind == "code"), None)
        if document.after.confirm.on and code is not None:
            yield Finding(
                "look", "A code stands where they have not confirmed yet: there is none to show.", code.id
            )
        if document.after.confirm.on and not _of_mail(said):
            yield Finding(
                "look", "They confirm by mail first, but nothing tells them to look in their mail.", step.id
            )
        if not document.after.confirm.on and _speaks_of(_CONFIRMING_WORDS).search(said):
            yield Finding("look", "It speaks of confirming, but they are not asked to.", step.id)
