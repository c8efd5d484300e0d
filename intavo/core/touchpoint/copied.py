"""What a copy in another language still says in the words of the one that it is a copy of."""

import re
from collections.abc import Iterator
from typing import Any

from .document import Document

_SAID = frozenset(
    {
        "text",
        "html",
        "label",
        "hint",
        "words",
        "unit",
        "ended",
        "least_label",
        "most_label",
        "subject",
        "button",
    }
)
_FEWEST = 3  # words: a shorter text may well be the same in both languages
_TAG = re.compile(r"<[^>]*>")


def texts_of(document: Document) -> frozenset[str]:
    """Every text of some length that a visitor reads, without the marks of rich text."""
    return frozenset(text for _, text in _texts(document))


def still_said(copy: Document, original: frozenset[str]) -> list[str]:
    """Where texts stand as they do among those of the original: ids of parts, and places beside them."""
    return [place for place, text in _texts(copy) if text in original]


def _texts(document: Document) -> Iterator[tuple[str, str]]:
    """Every text of some length that a visitor reads, with where it is put right."""
    for part in document.parts():
        if not part.hidden:
            for text in _within(part.model_dump(mode="json")):
                yield part.id, text
    if document.stance == "button":
        for text in _within(document.face.model_dump(mode="json")):
            yield "face", text
    after = document.after
    for place, mail, goes in (
        ("thank_you", after.thank_you, after.thank_you.send),
        ("confirm", after.confirm, after.confirm.on),
    ):
        if goes:
            for text in _within(mail.model_dump(mode="json")):
                yield place, text


def _within(value: Any, key: str = "") -> Iterator[str]:
    """Texts in a piece of a document, without the marks of rich text."""
    if isinstance(value, dict):
        for name, inner in value.items():
            yield from _within(inner, name)
    elif isinstance(value, list):
        for inner in value:
            yield from _within(inner, key)
    elif isinstance(value, str) and key in _SAID:
        text = " ".join(_TAG.sub(" ", value).split())
        if len(re.findall(r"[^\W\d_]+", text)) >= _FEWEST:
            yield text
