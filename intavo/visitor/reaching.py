"""The channels that a page view's touchpoints use, as the visitor meets them: what is said, who is there, and
links.
"""

from collections.abc import Iterable
from datetime import datetime
from functools import lru_cache

import orjson

from intavo.core.links import Channel, Met, Way, given
from intavo.core.showing import Visit
from intavo.touchpoints.onsite import LiveSite, LiveTouchpoint

_OF_THE_PAGE = {"page_title", "page_address", "first_name"}


def used(site: LiveSite, touchpoints: Iterable[LiveTouchpoint]) -> list[str]:
    """The ids of the channels that touchpoints use, in the owner's order."""
    wanted = frozenset().union(*(one.channels for one in touchpoints))
    return [id_ for id_ in site.channels if id_ in wanted or "all" in wanted] if wanted else []


def channels_written(
    site: LiveSite, ids: list[str], visit: Visit, at: datetime, touchpoints: Iterable[LiveTouchpoint]
) -> tuple[dict[str, orjson.Fragment], datetime | None]:
    """The channels as JSON by their ids, and when the first of them changes next."""
    device = "phone" if visit.device == "phone" else "desktop"
    codes = tuple((one.compiled.id, one.code) for one in touchpoints)
    found: dict[str, orjson.Fragment] = {}
    turns = []
    for id_ in ids:
        met = site.meets(id_, at, visit.visitor.language, visit.visitor.utc_offset)
        turns += [met.until] if met.until else []
        channel = site.channels[id_]
        slots = _slots(channel, visit)
        found[id_] = _written(_Key(channel, met), device, site.business.region, slots, codes)
    return found, min(turns, default=None)


def _slots(channel: Channel, visit: Visit) -> tuple[tuple[str, str], ...]:
    """What the channel's words say of the page, if they say anything of it."""
    asked = {run.slot for run in (*channel.text, *channel.subject) if not isinstance(run, str)}
    if not asked & _OF_THE_PAGE:
        return ()
    return (("page_title", visit.page.title), ("page_address", visit.page.url.partition("#")[0]))


class _Key:
    """A channel as it is met, told apart by what it is and not by what is in it:
    both are kept for a minute.
    """

    __slots__ = ("channel", "met")

    def __init__(self, channel: Channel, met: Met) -> None:
        self.channel, self.met = channel, met

    def __hash__(self) -> int:
        return hash((id(self.channel), id(self.met)))

    def __eq__(self, other: object) -> bool:
        return isinstance(other, _Key) and self.channel is other.channel and self.met is other.met


@lru_cache(maxsize=2048)
def _written(
    key: _Key,
    device: str,
    region: str,
    slots: tuple[tuple[str, str], ...],
    codes: tuple[tuple[str, str], ...],
) -> orjson.Fragment:
    return orjson.Fragment(
        orjson.dumps(given(key.channel, key.met, device, region, dict(slots), dict(codes)))
    )


def ways_of(
    site: LiveSite, ids: Iterable[str], language: str, at: datetime, device: str = "desktop"
) -> dict[str, Way]:
    """Channels as data, for a page that is drawn by the server and for the editor's stage."""
    wanted = set(ids)
    found = [id_ for id_ in site.channels if id_ in wanted or "all" in wanted]
    region = site.business.region
    return {
        id_: given(site.channels[id_], site.meets(id_, at, language, None), device, region, {}, {})
        for id_ in found
    }
