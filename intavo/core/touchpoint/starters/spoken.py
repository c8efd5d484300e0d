"""The words of starters in other tongues: what an owner begins with is in the language of their visitors."""

from collections.abc import Callable, Collection, Iterable
from functools import cache
from typing import Any

from ...tongues import Tongue, say
from ..document import Document
from . import STARTERS
from .build import Starter

# Values of a document that visitors read. Names of steps and of fields are the owner's.
_READ = {
    "text", "html", "label", "hint", "subject", "word", "description", "unit", "ended", "least_label", "most_label",
    "button", "words", "known", "says",
}  # fmt: skip

# Rules and looks say nothing to visitors.
_SAID = {"steps", "face", "after"}


def said_in(data: Any, tongue: Tongue, but: Collection[str] = (), was: str = "en") -> Any:
    """A document's data with everything of ours that visitors read in it in the tongue; what stands in `but` stays.

    `was` is the language that it is in.
    """
    keys = {} if was == "en" else _keys(was)
    return _through(data, "", lambda words: words if words in but else say(keys.get(words, words), tongue))


@cache
def _keys(language: str) -> dict[str, str]:
    """The English of everything that starters say in a language."""
    return {say(key, Tongue(language)): key for key in read_words(one.data for one in STARTERS)}


def spoken(starter: Starter, tongue: Tongue) -> Document:
    """A starter's document in a tongue; in English where the tongue is none that we speak."""
    return starter.document if tongue.spoken == "en" else _spoken(starter, tongue.spoken)


@cache
def _spoken(starter: Starter, language: str) -> Document:
    return Document.model_validate(said_in(starter.document.model_dump(mode="json"), Tongue(language)))


def added_in(before: Document, after: Document, tongue: Tongue) -> Document:
    """A document that was turned into another, with what was added to it in the tongue; the owner's words stay."""
    if tongue.spoken == "en" or before == after:
        return after
    known = read_words([before.model_dump(mode="json")])
    return Document.model_validate(said_in(after.model_dump(mode="json"), tongue, known))


def read_words(documents: Iterable[Any]) -> set[str]:
    """Everything in documents that visitors read."""
    seen: set[str] = set()

    def note(words: str) -> str:
        seen.add(words)
        return words

    for data in documents:
        _through(data, "", note)
    return seen


def _through(value: Any, key: str, change: Callable[[str], str]) -> Any:
    if isinstance(value, dict) and "steps" in value:
        return {name: _through(one, name, change) if name in _SAID else one for name, one in value.items()}
    if isinstance(value, dict):
        return {name: _through(one, name, change) for name, one in value.items()}
    if isinstance(value, list | tuple):
        return [_through(one, key, change) for one in value]
    worded = isinstance(value, str) and key in _READ and any(letter.isalpha() for letter in value)
    if worded and value.startswith("#"):  # a colour
        return value
    return change(value) if worded else value
