"""What the visitor's side needs of a site, read once for each revision of the site and kept.

The revision is looked up at most once a second, so that every server process sees a change within a
second while a page view costs no query. Sites that nobody asks for are let go.
"""

import threading
import time

from cachetools import LRUCache

from intavo.channels.queries import kept
from intavo.hours.queries import all_hours, main_hours
from intavo.sites.models import Site

from .making import made_live, making
from .onsite import LiveSite
from .queries import live_on

_LOOK_AGAIN = 1.0
# A site with twenty touchpoints takes some 300 KB.
MOST_SITES = 400
_sites: LRUCache[str, LiveSite] = LRUCache(MOST_SITES)
_guard = threading.Lock()
# A site is read by one thread at a time: each key has one of these, and few keys the same.
_reading = tuple(threading.Lock() for _ in range(64))
# Seconds after which whoever waits for another's reading reads it too.
_PATIENCE = 1.0


def live_site(key: str) -> LiveSite | None:
    """The site with this key as of at most a second ago; None if there is none."""
    known = _known(key)
    if known is not None and time.monotonic() - known.checked < _LOOK_AGAIN:
        return known
    lock = _reading[hash(key) % len(_reading)]
    held = lock.acquire(timeout=_PATIENCE)
    try:
        return _looked_at_again(key)
    finally:
        if held:
            lock.release()


def _known(key: str) -> LiveSite | None:
    with _guard:
        return _sites.get(key)


def _looked_at_again(key: str) -> LiveSite | None:
    known, now = _known(key), time.monotonic()
    if known is not None and now - known.checked < _LOOK_AGAIN:
        return known
    revision = Site.objects.filter(key=key).values_list("revision", flat=True).first()
    fresh = known if known is not None and known.revision == revision else None
    if revision is not None and fresh is None:
        fresh = _read(key)
    with _guard:
        if fresh is None:
            _sites.pop(key, None)
        else:
            fresh.checked = now
            _sites[key] = fresh
    return fresh


def _read(key: str) -> LiveSite:
    site = Site.objects.select_related("business").get(key=key)
    hosts = frozenset(site.hosts.values_list("host", flat=True))
    made = making(site, hosts)
    others = all_hours(site.business_id)
    return LiveSite(
        id=site.pk,
        key=key,
        slug=site.slug,
        revision=site.revision,
        hosts=hosts,
        business=site.business,
        hours=main_hours(site.business_id, site.pk).value,
        table=made.table,
        rules=made.rules,
        members=made.members,
        channels={row.public_id: row.value for row in kept(site.business_id)},
        touchpoints=tuple(made_live(row, revision, made) for row, revision in live_on(site.pk)),
        other_hours=others,
        speaks=site.language,
    )
