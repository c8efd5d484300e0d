"""The parts of a step: each one piece of content with an id that never changes. A file for each family."""

from typing import Annotated, Any, get_args

from pydantic import Field

from .choosing import Band, Question, Score
from .clicking import Button, LinkItem, Links, Share
from .does import CLICK_VALUES, Action, Does
from .fields import Consent, FieldPart, Option
from .media import Picture, Video
from .offering import Code, Countdown, Price
from .part import Asked, Group, Offered, Part_, TextOn
from .reaching import Channels, Talk
from .telling import HoursPart, Questions, ReplyPart
from .writing import Headline, Line, Markup, Space, Text

Part = Annotated[
    Headline
    | Text
    | Picture
    | Video
    | FieldPart
    | Consent
    | Button
    | Price
    | Code
    | Countdown
    | Question
    | Score
    | Links
    | Share
    | HoursPart
    | Questions
    | Markup
    | Line
    | Space
    | ReplyPart
    | Channels
    | Talk,
    Field(discriminator="kind"),
]
KINDS: dict[str, type[Part_]] = {
    get_args(one.model_fields["kind"].annotation)[0]: one for one in get_args(get_args(Part)[0])
}
SHARED_VALUES = {"on": "shown on", "row": "side by side", "share": "share of the row"}


EVERY_VALUE = SHARED_VALUES | {name: words for one in KINDS.values() for name, words in one.VALUES.items()}


def values_of(kind: str) -> dict[str, str]:
    """What the values of a kind of part are called where changes are listed."""
    return SHARED_VALUES | KINDS[kind].VALUES


def offered() -> dict[str, dict[str, dict[str, Any]]]:
    """What can be added, by group and name, with every first value."""
    offers: dict[str, dict[str, dict[str, Any]]] = {}
    every = [(one, kind) for kind in KINDS.values() for one in kind.OFFERED]
    for group in get_args(Group):
        for one, kind in every:
            if one.group == group:
                made = kind.model_validate({"id": "p", **one.values}).model_dump(mode="json", exclude={"id"})
                offers.setdefault(group, {})[one.name] = made
    return offers


__all__ = [
    "CLICK_VALUES", "EVERY_VALUE", "KINDS", "Action", "Asked", "Band", "Button", "Channels", "Code",
    "Consent", "Countdown", "Does", "FieldPart", "Headline", "HoursPart", "Line", "LinkItem", "Links",
    "Markup", "Offered", "Option", "Part", "Part_", "Picture", "Price", "Question", "Questions", "ReplyPart",
    "Score", "Share", "Space", "Talk", "Text", "TextOn", "Video", "offered", "values_of",
]  # fmt: skip
