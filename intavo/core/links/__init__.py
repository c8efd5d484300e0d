"""Ways to reach a business: what an owner pastes understood, and links made of it for a visitor."""

from .edits import channels_together
from .giving import Way, given
from .labels import first_label
from .making import href, said_text
from .meeting import Met, came_by, hours_of, meet, reached
from .model import Channel, ChannelPerson, Icon, Kind, LinkSlot
from .places import coordinates
from .reach import first_reachable, reachable
from .reading import ReadChannel, read
from .template import LinkTemplate, checked_template, template_from

__all__ = [
    "Channel",
    "ChannelPerson",
    "Icon",
    "Kind",
    "LinkSlot",
    "LinkTemplate",
    "Met",
    "ReadChannel",
    "Way",
    "came_by",
    "channels_together",
    "checked_template",
    "coordinates",
    "first_label",
    "first_reachable",
    "given",
    "hours_of",
    "href",
    "meet",
    "reachable",
    "reached",
    "read",
    "said_text",
    "template_from",
]
