"""Whether somebody can be reached through a channel at an instant."""

from collections.abc import Collection, Mapping
from datetime import datetime

from ..hours import AnyHours, either, is_open
from .model import Channel, ChannelPerson

Sets = Mapping[int | None, AnyHours]
# A place and a page are there at any hour, unless hours are named for them.
ALWAYS = frozenset({"map", "page"})


def reachable(
    channel: Channel, person: ChannelPerson | None, hours: Sets, at: datetime, away: Collection[int] = ()
) -> bool:
    """Whether the channel, or one person behind it, can be reached at an aware instant.

    `hours` holds the sets of hours by their ids, the main ones under None; a set that is not there any more
    is never open. A person's hours narrow the channel's, and a member who is in `away` is not reachable.
    """
    always = channel.kind in ALWAYS and not channel.hours
    if not always and not _open(channel.hours, hours, at, main=True):
        return False
    if person is None:
        return True
    if person.member is not None and person.member in away:
        return False
    return not person.hours or _open(person.hours, hours, at)


def first_reachable(
    channel: Channel, hours: Sets, at: datetime, away: Collection[int] = ()
) -> ChannelPerson | None:
    """The first person in the owner's order who can be reached; None where nobody can."""
    return next((one for one in channel.people if reachable(channel, one, hours, at, away)), None)


def _open(ids: tuple[int, ...], hours: Sets, at: datetime, main: bool = False) -> bool:
    found = [hours[one] for one in ids if one in hours]
    if not ids and main and None in hours:
        found = [hours[None]]
    return is_open(either(*found), at) if found else main and not ids
