"""What visits say of a site — its pages, where visits come from, where the script runs — written after the
answer.

Nothing on the way of a plan waits for it or fails by it: it is gathered in the process and written once the
answer is out, each site by itself, at most every two seconds.
"""

import logging
import threading
import time
from collections import Counter
from dataclasses import dataclass, field
from datetime import datetime
from typing import Any
from urllib.parse import urlsplit

from django.core.signals import request_finished
from django.db import DatabaseError

from intavo.accounts.actor import visitor_of
from intavo.accounts.clients import addresses_of_members
from intavo.core.hosts import host_of, origin_of
from intavo.core.showing import Visit, campaign_tags
from intavo.core.texts import keepable
from intavo.core.touchpoint.patterns import normal_path
from intavo.results.actions import count_refused
from intavo.sites.actions import PageSeen, Sighting, count_pages, count_sources, note_strangers, seen
from intavo.touchpoints.onsite import LiveSite

AGAIN_SECONDS = 2.0
_MOST_PAGES, _MOST_SOURCES, _MOST_HOSTS = 500, 200, 50
_log = logging.getLogger(__name__)


@dataclass
class _Gathered:
    """What is not written yet of one site."""

    business_id: int
    pages: dict[str, PageSeen] = field(default_factory=dict)
    sources: Counter[tuple[str, str]] = field(default_factory=Counter)
    strangers: dict[str, set[str]] = field(default_factory=dict)
    refused: Counter[str] = field(default_factory=Counter)
    sighting: Sighting | None = None
    at: datetime | None = None


class Tally:
    """Gathers and writes. Shared by all threads of a process; everything that is shared is under its lock."""

    def __init__(self) -> None:
        self._lock = threading.Lock()
        self._sites: dict[int, _Gathered] = {}
        self._written: dict[int, float] = {}

    def view(self, site: LiveSite, visit: Visit, at: datetime, sender: str) -> None:
        """A page asked for its plan. Pages that are not the site's are left out, Intavo's own among them."""
        host = host_of(visit.page.url)
        if host is None or host not in site.hosts:
            return
        with self._lock:
            gathered = self._of(site, at)
            gathered.sighting = Sighting(
                host, urlsplit(visit.page.url).path or "/", origin_of(visit.page.url), sender
            )
            # A touchpoint that was opened by its link asks once more.
            if visit.open is None:
                self._view(gathered, site, visit, at, sender)

    def stranger(self, site: LiveSite, origin: str, at: datetime, sender: str) -> None:
        """The script ran on a host that is not on the site's list."""
        host = host_of(origin)
        if host is None:
            return
        with self._lock:
            hosts = self._of(site, at).strangers
            if host in hosts or len(hosts) < _MOST_HOSTS:
                hosts.setdefault(host, set()).add(sender)

    def refused(self, site: LiveSite, why: Counter[str], at: datetime) -> None:
        """Reports that were not kept, by why."""
        if why:
            with self._lock:
                self._of(site, at).refused.update(why)

    def _of(self, site: LiveSite, at: datetime) -> _Gathered:
        gathered = self._sites.setdefault(site.id, _Gathered(site.business.pk))
        gathered.at = at
        return gathered

    @staticmethod
    def _view(gathered: _Gathered, site: LiveSite, visit: Visit, at: datetime, sender: str) -> None:
        # Where the rules want to know the kinds of a page, the script has asked without them just before.
        again = bool(site.wants) and bool(visit.page.kinds)
        if visit.visitor.pages_this_visit <= 1 and not again:
            for source in _sources(site, visit):
                if source in gathered.sources or len(gathered.sources) < _MOST_SOURCES:
                    gathered.sources[source] += 1
        path = normal_path(visit.page.url)[:500]
        if not keepable(path) or (path not in gathered.pages and len(gathered.pages) >= _MOST_PAGES):
            return
        page = gathered.pages.setdefault(path, PageSeen("", [], at))
        page.title, page.at = visit.page.title, at
        page.kinds = [kind.casefold() for kind in visit.page.kinds] or page.kinds
        page.views += 0 if again else 1
        page.senders.add(sender)

    def write_due(self, now: float | None = None) -> None:
        """Write down what of each site has not been written for two seconds."""
        if not self._sites:
            return
        at = time.monotonic() if now is None else now
        with self._lock:
            due = [one for one in self._sites if at - self._written.get(one, -AGAIN_SECONDS) >= AGAIN_SECONDS]
            taken = {one: self._sites.pop(one) for one in due}
            self._written |= dict.fromkeys(due, at)
            if len(self._written) > 10_000:
                self._written = {
                    one: since for one, since in self._written.items() if at - since < AGAIN_SECONDS
                }
        for site_id, gathered in taken.items():
            try:
                _write(site_id, gathered)
            except DatabaseError:
                # These are figures for the owner's eyes: they are lost before anybody is held up by them.
                _log.warning("views of site %s could not be written", site_id, exc_info=True)

    def forget(self) -> None:
        """As if nothing had been gathered or written."""
        with self._lock:
            self._sites, self._written = {}, {}


def _sources(site: LiveSite, visit: Visit) -> list[tuple[str, str]]:
    arrival = visit.visitor.arrival
    host = host_of(arrival.referrer)
    medium = campaign_tags(arrival.url).get("utm_medium", "").strip().casefold()
    named = (("host", host if host not in site.hosts else None), ("medium", medium))
    return [(kind, name[:255]) for kind, name in named if name and keepable(name)]


def _write(site_id: int, gathered: _Gathered) -> None:
    actor, at = visitor_of(gathered.business_id), gathered.at
    assert at is not None
    members = addresses_of_members(gathered.business_id)
    if gathered.pages:
        count_pages(actor, site_id=site_id, pages=gathered.pages, members=members)
    if gathered.sources:
        count_sources(actor, site_id=site_id, sources=gathered.sources, at=at)
    if gathered.sighting:
        seen(actor, site_id=site_id, at=at, sighting=gathered.sighting, members=members)
    if gathered.strangers:
        note_strangers(actor, site_id=site_id, hosts=gathered.strangers, at=at)
    if gathered.refused:
        count_refused(actor, site_id=site_id, why=gathered.refused, at=at)


tally = Tally()


def _after_the_answer(**_: Any) -> None:
    tally.write_due()


request_finished.connect(_after_the_answer, dispatch_uid="intavo.visitor.counting")
