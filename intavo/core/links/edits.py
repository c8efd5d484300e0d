"""Two changes of one channel put together, by what is said of it."""

from typing import Any

from ..edits import put_together
from .model import Channel

_WAY = ("kind", "template", "handle")
_WORDS = {
    "way": "where it leads",
    "label": "what visitors read",
    "icon": "the icon",
    "colour": "the colour",
    "subject": "the subject",
    "text": "the first words",
    "people": "who answers",
    "pick": "whom they get",
    "devices": "where it is shown",
    "hours": "whose hours it keeps",
    "while_closed": "what is shown while closed",
    "opens": "what a click does",
    "goal": "whether a click reaches the goal",
}


def channels_together(base: Channel, ours: Channel, theirs: Channel) -> tuple[Channel, tuple[str, ...]]:
    """The channel with what both changed since `base`, and in words what both changed differently: of that,
    ours.
    """
    both = put_together(_parts(base), _parts(ours), _parts(theirs))
    parts = dict(both.parts)
    channel = Channel.model_validate(parts.pop("way") | parts)
    return channel, tuple(_WORDS.get(name, name) for name in both.clashes)


def _parts(channel: Channel) -> dict[str, Any]:
    # A handle means something in its own link alone.
    parts = channel.model_dump(mode="json")
    return {"way": {name: parts.pop(name) for name in _WAY}, **parts}
