"""Which texts can be kept at all."""

import unicodedata
from typing import Annotated

from pydantic import AfterValidator, Field

MOST_ONCE = 64


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
# What a device calls something that it does, so that it is done once; never cut, or two would be one.
Once = Annotated[str, AfterValidator(_kept), Field(min_length=1, max_length=MOST_ONCE)]


def one_line(text: str) -> str:
    """A text in one line: every space, line end and control character in it is one space,
    none at its ends.
    """
    return " ".join(
        "".join(" " if unicodedata.category(one) in {"Cc", "Zl", "Zp"} else one for one in text).split()
    )


# What stands in the head of a mail, or on a line of its own.
Line = Annotated[str, AfterValidator(_kept), AfterValidator(one_line)]
