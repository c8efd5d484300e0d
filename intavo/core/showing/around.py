"""What lies around all touchpoints of a site: where people come from, its hours, and how often it may
interrupt.
"""

from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import lru_cache
from urllib.parse import parse_qsl, urlsplit

from ..hosts import host_of
from ..hours import OpeningHours
from ..touchpoint.who import Way
from .visit import Visitor


@dataclass(frozen=True)
class Around:
    """Settings of the site and its business that the rules of every touchpoint may ask for.

    `search` and `social` are hosts as the owner lists them, `search_media` and `social_media` values of
    utm_medium. `hours` by id, None for the main ones. `sites` are the hosts of every site by its short name.
    `gives_way`: elements of the site's own are named to go first.
    """

    search: frozenset[str] = frozenset()
    social: frozenset[str] = frozenset()
    search_media: frozenset[str] = frozenset()
    social_media: frozenset[str] = frozenset()
    hosts: frozenset[str] = frozenset()
    sites: Mapping[str, frozenset[str]] = field(default_factory=dict)
    hours: Mapping[int | None, OpeningHours] = field(default_factory=dict)
    most_interruptions: int | None = None
    gives_way: bool = False

    def way(self, visitor: Visitor) -> Way:
        """How this visit came to the site."""
        medium = campaign_tags(visitor.arrival.url).get("utm_medium", "").casefold()
        if medium and medium in self.search_media:
            return "search"
        if medium and medium in self.social_media:
            return "social"
        host = host_of(visitor.arrival.referrer)
        if host is None:
            return "typed"
        if host in self.hosts:
            return "here"
        return (
            "search" if _among(host, self.search) else "social" if _among(host, self.social) else "elsewhere"
        )


NOTHING_AROUND = Around()


def _among(host: str, listed: frozenset[str]) -> bool:
    """Whether a host is listed, or lies below one that is."""
    labels = host.split(".")
    return any(".".join(labels[at:]) in listed for at in range(len(labels) - 1))


@lru_cache(maxsize=2048)
def campaign_tags(url: str) -> dict[str, str]:
    """The tags in an address: what stands in its query, the first of each name."""
    try:
        found = parse_qsl(urlsplit(url).query, max_num_fields=200)
    except ValueError:
        return {}
    tags: dict[str, str] = {}
    for name, value in found:
        tags.setdefault(name, value)
    return tags
