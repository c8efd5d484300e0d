"""Which texts can be kept at all."""

import unicodedata
from typing import Annotated

from pydantic import AfterValidator


def keepable(text: str) -> bool:
    """Whether a text has no NUL and no half of a character, which nobody types and no table holds."""
    return "\x00" not in text and not any("\ud800" <= letter <= "\udfff" for letter in text)


def mended(text: str) -> str:
    """The same with what cannot be kept replaced."""
    return "".join(letter if keepable(letter) else "\ufffd" for letter in text)


def _kept(text: str) -> str:
    if not keepable(text):
        raise ValueError("there is a character in it that cannot be kept")
    return unicodedata.normalize("NFC", text)


Kept = Annotated[str, AfterValidator(_kept)]
