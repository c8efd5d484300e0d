"""The words of the owner's side for what has fixed values:
for its lists (generated) and for its sentences.
"""

from collections.abc import Mapping
from typing import Any

from .followup import Kind, Outcome, State
from .hours import DAYS, WEEKDAYS
from .hours.typed import CLOCK_PATTERN, NAMED_TIMES, SAID_BEFORE, SAID_WITHIN
from .links.model import ICONS
from .people.seeking import DEEDS
from .touchpoint.named import COLOUR_NAMES
from .touchpoint.who import WAYS

KINDS = {
    Kind.SIGN_UP: "Sign-up", Kind.INQUIRY: "Inquiry", Kind.MESSAGE: "Message", Kind.CALL_BACK: "Call-back",
    Kind.FEEDBACK: "Feedback",
}  # fmt: skip
ONE_OF_A_KIND = {
    Kind.INQUIRY: "an inquiry", Kind.MESSAGE: "a message", Kind.SIGN_UP: "a sign-up",
    Kind.CALL_BACK: "a call-back", Kind.FEEDBACK: "feedback",
}  # fmt: skip
ALL_OF_A_KIND = {
    Kind.INQUIRY: "inquiries", Kind.MESSAGE: "messages", Kind.SIGN_UP: "sign-ups",
    Kind.CALL_BACK: "call-backs", Kind.FEEDBACK: "feedback",
}  # fmt: skip
STATES = {
    State.US: "for us", State.THEM: "their turn", State.PUT_OFF: "put off", State.FINISHED: "finished",
}  # fmt: skip
# What the list is asked for: a state, or all that are open.
ASKED_FOR = {
    "open": "still open", State.US: "waiting for us", State.THEM: "waiting for them",
    State.PUT_OFF: "put off", State.FINISHED: "finished",
}  # fmt: skip
OUTCOMES = {
    Outcome.ANSWERED: "Answered", Outcome.WON: "Won", Outcome.NOT_A_FIT: "Not a fit",
    Outcome.NO_ANSWER: "No answer", Outcome.CANCELLED: "Cancelled", Outcome.SPAM: "Spam",
}  # fmt: skip


def every_name() -> dict[str, dict[str, str]]:
    """All of them, by what they are names of."""
    return {
        "kinds": _plain(KINDS), "oneOfAKind": _plain(ONE_OF_A_KIND), "allOfAKind": _plain(ALL_OF_A_KIND),
        "states": _plain(STATES), "askedFor": _plain(ASKED_FOR), "outcomes": _plain(OUTCOMES),
        "weekdays": dict(zip(DAYS, WEEKDAYS, strict=True)),
        "shortWeekdays": {day: name[:3] for day, name in zip(DAYS, WEEKDAYS, strict=True)},
        "ways": _plain(WAYS), "namedTimes": NAMED_TIMES, "deeds": DEEDS, "colours": COLOUR_NAMES,
        "channelIcons": _plain(ICONS),
        "clock": {"pattern": CLOCK_PATTERN, "before": " ".join(SAID_BEFORE), "within": " ".join(SAID_WITHIN)},
    }  # fmt: skip


def _plain(names: Mapping[Any, str]) -> dict[str, str]:
    return {str(value): name for value, name in names.items()}
