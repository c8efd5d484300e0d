"""What somebody's answer opens: which piece of work it is, if any; and what in it looks like spam."""

from collections.abc import Mapping
from typing import Literal

from .followup import Kind
from .touchpoint import Document, low_score

Suspicion = Literal["trap", "too fast"]


def kind_of(document: Document, values: Mapping[str, str]) -> Kind | None:
    """What piece of work an answer is, with these values by the names of fields; None where there is nothing
    to do.

    A time for a call makes it a call; feedback is work where a score is low, or the touchpoint asks for
    follow-up.
    """
    if any(one.name in values for one in document.fields("slot")):
        return Kind.CALL_BACK
    if document.purpose == "feedback":
        return Kind.FEEDBACK if low_score(document, values) or document.after.follow_up else None
    if document.purpose == "sign-up":
        return Kind.SIGN_UP
    return Kind.INQUIRY if document.asks_for_answer else None


def suspicion(document: Document, trap: str, elapsed_ms: int | None) -> Suspicion | None:
    """Why what was sent looks like a program's: something stands in the field that nobody sees, or nobody is
    so fast.

    `elapsed_ms`: milliseconds since it was on screen; None where that is not known.
    """
    guard = document.guard
    if guard.trap and trap.strip():
        return "trap"
    return "too fast" if elapsed_ms is not None and elapsed_ms < guard.least_seconds * 1000 else None
