"""What can be chosen for a value, in the words of the editor:
for its lists (generated) and for what changed.
"""

from datetime import timedelta
from typing import Any

from intavo.core.places import languages
from intavo.core.say import days_words, length_words
from intavo.core.tongues import SPOKEN

_ELSE_SPOKEN = ("cs", "cy", "da", "el", "fi", "ga", "he", "ja", "nb", "ro", "sv", "tr", "uk", "zh")
_OURS_IN_ENGLISH = "{language} (our own words in English)"
_NAMES = languages()
# What a business, a site or a touchpoint may be in; what we do not speak yet is named as such.
LANGUAGES: dict[str, str] = {code: _NAMES[code] for code in SPOKEN} | {
    code: _OURS_IN_ENGLISH.format(language=_NAMES[code]) for code in _ELSE_SPOKEN
}
_ALONG = {"top": "at the top", "middle": "in the middle", "bottom": "at the bottom"}
CHOICES: dict[str, dict[str, str]] = {
    "language": {"": "as its site", **LANGUAGES},
    "purpose": {
        "sign-up": "Sign-up", "inquiry": "Inquiry", "call": "Call", "message": "Message", "offer": "Offer",
        "question": "Question", "feedback": "Feedback", "notice": "Notice",
    },
    "stance": {
        "pop-up": "Pop-up", "card": "Card", "bar": "Bar", "side-panel": "Side panel",
        "full-page": "Full page", "in-page": "In the page", "button": "Button",
    },
    "look.place": _ALONG | {
        "left": "at the left edge", "right": "at the right edge", "top-left": "top left corner",
        "top-right": "top right corner", "bottom-left": "bottom left corner",
        "bottom-right": "bottom right corner",
    },
    "look.height": {"content": "as its content", "screen": "the whole screen"},
    "look.content": _ALONG,
    "look.shadow": {"none": "none", "soft": "soft", "strong": "strong"},
    "look.arrival": {
        "none": "at once", "rise": "rises", "slide": "slides in", "fade": "fades in", "grow": "grows",
    },
    "look.going": {
        "none": "at once", "rise": "sinks", "slide": "slides out", "fade": "fades out", "grow": "shrinks",
    },
    "look.cross.style": {"sign": "a cross", "word": "a word"},
    "look.cross.place": {"end": "at the end", "start": "at the start"},
    "look.background.kind": {
        "colour": "the card’s colour", "gradient": "a gradient", "picture": "a picture", "video": "a video",
    },
    "code.kind": {
        "none": "no code", "shared": "one code for everybody", "each": "one code each, from a list",
    },
    "sign": {
        "none": "no sign", "question": "a question mark", "phone": "a telephone", "mail": "an envelope",
        "message": "a speech bubble", "gift": "a parcel",
    },
    "opens": {"step": "opens the first step", "signs": "opens round signs above it"},
    "shape": {
        "pill": "long and round", "rounded": "with rounded corners", "round": "a round sign",
        "tab": "a tab on the edge",
    },
    "where": {"before": "before it", "after": "after it", "inside": "at its end"},
    "action": {
        "send": "sends what was filled in", "step": "goes to another step", "back": "goes a step back",
        "close": "closes it", "page": "opens a page", "mail": "writes a mail", "phone": "calls a number",
        "file": "gives a file", "touchpoint": "opens another touchpoint",
        "spot": "goes to a spot of the page", "channel": "goes to a channel",
    },
    "tab": {"same": "in the same tab", "new": "in a new tab"},
    "style": {"main": "filled", "plain": "outlined"},
    "size": {"small": "Small", "medium": "Medium", "large": "Large"},
    "align": {"start": "at the start", "middle": "in the middle", "end": "at the end"},
    "at_end": {
        "words": "words stand there", "hide": "this part goes", "close": "the whole touchpoint is closed",
    },
    "as": {"rows": "in rows", "tiles": "as tiles", "signs": "as round signs"},
    "place": {
        "inline": "among the parts", "above": "above, from edge to edge", "beside": "beside the words",
        "behind": "behind everything",
    },
    "input": {
        "email": "Email field", "name": "First name field", "text": "Short field", "phone": "Phone field",
        "long": "Long field", "choice": "One of several", "several": "Any of several",
        "number": "Number field", "date": "Day field", "slot": "Time for a call", "hidden": "Hidden value",
    },
}  # fmt: skip
# Values that name something by an id, which says nothing to people; and lengths in minutes.
_IDS = {"asset", "poster", "channel", "picture", "file.asset", "hours", "also_hours", "people"}
_LENGTHS = {"minutes", "again_after"}


def value_words(field: str, value: Any) -> str | None:
    """A value of a field in the editor's words; None where it says itself."""
    if isinstance(value, str) and value in CHOICES.get(field, {}):
        return CHOICES[field][value]
    if field == "row":
        return "yes" if value else "no"
    if field == "promise_minutes" and isinstance(value, int):
        # Open time, of which a day has only some hours.
        return length_words(timedelta(minutes=value))
    if field in _LENGTHS and isinstance(value, int):
        return days_words(value) if value else "at once"
    return None


def chosen_words(field: str, old: Any, new: Any) -> str | None:
    """A change of something that has only an id; None for other fields."""
    if field not in _IDS:
        return None
    return (
        "taken away" if new in (None, "", []) else "chosen" if old in (None, "", []) else "another is chosen"
    )
