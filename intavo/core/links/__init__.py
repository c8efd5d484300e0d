"""Ways to reach a business: what an owner pastes understood, and links made of it for a visitor."""

from .making import href, said_text
from .model import Channel, ChannelPerson, Icon, Kind, LinkSlot
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
    "ReadChannel",
    "checked_template",
    "first_reachable",
    "href",
    "reachable",
    "read",
    "said_text",
    "template_from",
]
