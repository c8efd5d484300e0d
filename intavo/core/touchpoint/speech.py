"""The words of ours that the visitor's script needs for a touchpoint, in its tongue; the script carries none
itself.
"""

from typing import Annotated, Literal

from pydantic import WithJsonSchema
from typing_extensions import TypedDict

from ..tongues import Phrase, Tongue, in_tongue
from .parts import Asked, Consent, FieldPart, Part

# What every touchpoint may have to say.
_ALWAYS: dict[str, Phrase] = {
    "close": Phrase("Close"),
    "message": Phrase("Message"),
    "trap": Phrase("Leave empty"),
    "kept": Phrase("No connection just now. What you wrote is kept and sent later."),
    "thanks": Phrase("Thank you."),
}
_ASKED = {"optional": Phrase("(if you like)"), "fill": Phrase("Please fill this in.")}
_BY_INPUT: dict[str, dict[str, Phrase]] = {
    "email": {
        "use": Phrase("Use {email}"),
        "mean": Phrase("Did you mean {email}?"),
        "write": Phrase("Thank you. We write to {email}."),
    },
    "choice": {"choose": Phrase("Choose")},
    "slot": {
        "day": Phrase("{label}: day"),
        "time": Phrase("{label}: time"),
        "no_time": Phrase("No time is free just now"),
    },
}
_COPIED = {"copied": Phrase("Copied")}
_HELPED = {
    "helped": Phrase("Did this help?"),
    "yes": Phrase("Yes"),
    "no": Phrase("No"),
    "good": Phrase("Good to know, thank you."),
    "ask_us": Phrase("Thank you. Please ask us."),
}
_BY_KIND: dict[str, dict[str, Phrase]] = {
    "code": {"copy": Phrase("Copy"), "no_code": Phrase("No code can be given just now."), **_COPIED},
    "share": {"copy_link": Phrase("Copy the link"), **_COPIED},
    "price": {"before": Phrase("before {amount}"), "less": Phrase("{amount} less")},
    "countdown": {"d": Phrase("d"), "h": Phrase("h"), "min": Phrase("min"), "s": Phrase("s")},
    "questions": {
        "search": Phrase("Search the answers"),
        "nothing": Phrase("Nothing about that yet. Please ask us."),
        **_HELPED,
    },
    "talk": {
        **_HELPED,
        "conversation": Phrase("Conversation"),
        "replies": Phrase("Replies"),
        "send": Phrase("Send"),
        "waits": Phrase("There is no connection just now. It goes on by itself."),
        "writing": Phrase("Somebody is writing …"),
        "here": Phrase("Somebody is here."),
        "add": Phrase("Add a picture or PDF"),
        "not_sent": Phrase("This could not be sent."),
        "kept_here": Phrase("No connection just now. What you wrote is kept and sent by itself."),
        "unread": Phrase("Answers to read: {count}"),
        "too_large": Phrase("“{name}” is too large: at most 10 MB."),
        "sending": Phrase("“{name}” is being sent …"),
        "try_again": Phrase("“{name}” could not be sent. Please try it again."),
        "too_long": Phrase("That is too long for one message; please send it in two."),
        "one_of_these": Phrase("Is it one of these?"),
        "your_email": Phrase("Your email address"),
        "your_phone": Phrase("Your phone number"),
    },
}
_WAYS = {
    "say_to": Phrase("What you want to say: {label}"),
    "go_on": Phrase("Go on: {label}"),
    "away": Phrase("away just now"),
}
_STEPS = {"step": Phrase("Step {at} of {all}")}
_GREETING = {"close_greeting": Phrase("Close the greeting")}
_MORE = {"more": Phrase("More")}


def every_word() -> dict[str, str]:
    """Every word of the script by its name, in English."""
    groups = (_ALWAYS, _ASKED, *_BY_INPUT.values(), *_BY_KIND.values(), _WAYS, _STEPS, _GREETING, _MORE)
    return {name: one for group in groups for name, one in group.items()}


_NAMES = sorted(every_word())


class Speech(TypedDict):
    """The language that a touchpoint is drawn in, which way it is read ("": as the page), and its words by
    their names.

    Of all words only those that it needs are there.
    """

    lang: str
    locale: str
    dir: Literal["ltr", "rtl", ""]
    words: Annotated[
        dict[str, str],
        WithJsonSchema(
            {
                "type": "object",
                "properties": {name: {"type": "string"} for name in _NAMES},
                "required": _NAMES,
            }
        ),
    ]


def speech(parts: list[Part], steps: int, ways: bool, greets: bool, tongue: Tongue) -> Speech:
    """The language that a touchpoint is in (BCP 47), which way it is read, and the words that its script
    needs.

    `parts` are those that can be seen; `ways`: whether it offers any way to reach the business; `greets`:
    whether its button has a greeting. Places such as {email} stay in the words, for the script to fill.
    """
    words = dict(_ALWAYS)
    if any(isinstance(part, Asked | Consent) for part in parts):
        words |= _ASKED
    for part in parts:
        words |= _BY_KIND.get(part.kind, {})
        if isinstance(part, FieldPart):
            words |= _BY_INPUT.get(part.input, {})
    words |= _WAYS if ways else {}
    words |= _STEPS if steps > 1 else {}
    words |= _GREETING if greets else {}
    words |= _MORE if any(part.kind == "markup" for part in parts) else {}
    return {
        "lang": tongue.language, "locale": f"{tongue.language}-{tongue.region}", "dir": tongue.direction,
        "words": {name: in_tongue(one, tongue) for name, one in words.items()},
    }  # fmt: skip
