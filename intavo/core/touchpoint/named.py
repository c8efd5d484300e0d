"""How every value of a document is called where it is edited, and how its values are said."""

from collections.abc import Callable
from typing import Any

from ..say import joined
from .rules import Sentence, Show
from .sentence import say_all_pages, say_moments, say_often, say_until, say_who

LOOK_VALUES = {
    "house": "Follows the house style", "place": "Stands", "edge": "From the edge",
    "edge_y": "From top or foot", "width": "Width", "height": "Height",
    "content": "Content stands", "spacing": "Spacing", "corners": "Corners", "border": "Edge",
    "shadow": "Shadow", "background": "Background", "backdrop": "Page behind", "arrival": "Comes",
    "going": "Goes", "font": "Font of text", "head_font": "Font of headlines", "size": "Text size",
    "head_size": "Headline size", "weight": "Text weight", "head_weight": "Headline weight",
    "button_font": "Font of buttons", "button_size": "Size of buttons",
    "card_clear": "Card shines through, %", "button_clear": "Buttons shine through, %", "cross": "Close sign",
    "pushes": "Moves the page aside", "stays": "Stays in view while scrolling", "css": "Own CSS",
}  # fmt: skip
COLOUR_NAMES = {
    "card": "Card", "text": "Text", "headline": "Headline", "button": "Button",
    "button_text": "On the button", "button_hover": "Button, pointed at", "field": "Field",
    "field_text": "In the field", "field_border": "Edge of the field",
    "border": "Edge of the card", "backdrop": "Behind", "cross": "Close sign",
}  # fmt: skip
WHOLE_VALUES: dict[str, dict[str, str]] = {
    "leaving": {
        "cross": "Close sign after seconds", "outside": "Closed by a click outside",
        "escape": "Closed by Esc", "after": "Goes by itself after seconds",
        "video_end": "Goes at the end of its video", "hold_scroll": "The page behind stands still",
    },
    "after": {
        "follow_up": "Asks for follow-up", "promise_minutes": "Answered within", "hours": "Which hours apply",
        "also_hours": "Which hours apply as well",
        "page": "They go to a page", "tags": "They get these tags",
        "daily_csv": "The day’s answers each morning", "tell": "Who is told by mail",
        "thank_you.send": "Thank them by mail", "thank_you.subject": "Subject of the thanks",
        "thank_you.text": "Words of the thanks", "thank_you.reply_to": "Answers to the thanks go to",
        "confirm.on": "They confirm by mail first", "confirm.next": "What is shown once confirmed",
        "confirm.subject": "Subject of the mail to confirm", "confirm.text": "Words of the mail to confirm",
        "confirm.button": "Words on the button to confirm", "code.kind": "Code", "code.shared": "The code",
        "code.show": "The code is shown", "code.mail": "The code is mailed", "file.asset": "The file",
        "file.label": "Words on the file’s link",
    },
    "guard": {
        "trap": "A field that only machines fill in", "least_seconds": "Seconds at least to fill it in",
        "work": "A small piece of work first",
    },
    "face": {"label": "Words on the button", "sign": "Sign on the button", "does": "What the button does",
             "opens": "What a click on the button opens", "shape": "Shape of the button", "size": "Height",
             "picture": "Picture on the button", "fills": "The picture fills the button",
             "strip": "Along the foot on phones", "greeting": "Greeting beside the button",
             "nudge": "Moves a little after seconds"},
    "spot": {"selector": "The element it stands by", "where": "Where it stands there"},
}  # fmt: skip


def said(value: Any) -> str:
    """A value for people: yes and no, words in quotes, lists one after the other; none where it follows or is
    empty.
    """
    if value is None or value == "" or value == [] or value == {}:
        return "none"
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, list):
        return _listed(value)
    if isinstance(value, dict):
        return ", ".join(
            f"{key.replace('_', ' ')} {said(one)}" for key, one in value.items() if one not in (None, "", [])
        )
    text = str(value)
    return (
        text
        if isinstance(value, int | float) or text.startswith("#")
        else f"“{text[:60]}{'…' if len(text) > 60 else ''}”"
    )


def _listed(value: list[Any]) -> str:
    if all(isinstance(one, str) or (isinstance(one, dict) and set(one) == {"slot"}) for one in value):
        words = [one if isinstance(one, str) else f"({one['slot'].replace('_', ' ')})" for one in value]
        # Runs of a text are one text; anything else is a list of words.
        return (
            said("".join(words))
            if any(isinstance(one, dict) or " " in one for one in value)
            else ", ".join(words)
        )
    names = [
        str(one.get("label") or one.get("value") or one) if isinstance(one, dict) else str(one)
        for one in value
    ]
    return ", ".join(names)[:90]


SENTENCE_PIECES: tuple[tuple[str, Callable[[Sentence], str]], ...] = (
    ("where", say_all_pages), ("who", say_who), ("when", say_moments),
    ("during", lambda sentence: sentence.during.say()),
    ("sites", lambda sentence: joined(sentence.sites) or "every site it stands on"),
)  # fmt: skip
SHOW_PIECES: tuple[tuple[str, Callable[[Show], str]], ...] = (
    ("how often", say_often), ("until", say_until), ("group", lambda show: show.group or "none"),
)  # fmt: skip
