"""Writes on sites."""

import json
from collections.abc import Collection, Mapping
from dataclasses import dataclass, field
from datetime import datetime
from typing import Any

from django.db import connection, transaction
from django.db.models import F, Q
from django.utils.text import slugify
from pydantic import ValidationError

from intavo.accounts.actor import Actor, Refused
from intavo.accounts.edits import Edit
from intavo.accounts.effects import business_changed
from intavo.accounts.quotas import needs_room
from intavo.accounts.scope import own
from intavo.core.effects import Effect
from intavo.core.hosts import is_loopback, normalise_host, typed_origin
from intavo.core.quotas import QuotaKind
from intavo.core.refusals import wrongs
from intavo.core.rights import Right
from intavo.core.showing import SiteRules, rules_together
from intavo.core.sites import SiteFacts, sites_together
from intavo.core.touchpoint import HouseStyle, houses_together

from .models import SeenSource, Site, SiteHost, SitePage, Stranger
from .queries import rules_of

_MOST_PAGES = 2000
_MOST_STRANGERS = 200
_MOST_WAITING = 500
# So many visitors make a page one that is there.
_SEVERAL = 2
_MOST_SOURCES = 1000
_NO_HOST = ("hosts", "Please write at least one address of the site.")
site_created: Effect[Site] = Effect("site created")


def _hosts(texts: list[str]) -> dict[str, str]:
    """The hosts, and the origin that was written with each; raises Refused naming what is no host."""
    errors: list[tuple[str, str]] = []
    hosts: dict[str, str] = {}
    for number, text in enumerate(texts):
        if not text.strip():
            continue
        try:
            host = normalise_host(text)
            hosts[host] = hosts.get(host) or typed_origin(text)
        except ValueError as error:
            errors.append((f"hosts.{number}", str(error)))
    if not errors and not hosts:
        errors.append(_NO_HOST)
    if errors:
        raise Refused(*errors)
    return hosts


def add_site(actor: Actor, *, name: str, hosts: list[str], slug: str = "") -> Site:
    """Add a site with its hosts, in any spelling; raises Refused naming what is no host."""
    actor.needs(Right.BUSINESS)
    normal = _hosts(hosts)
    with transaction.atomic():
        needs_room(actor, QuotaKind.SITES, "hosts")
        site = Site.objects.create(
            business_id=actor.business_id,
            name=name.strip() or next(iter(normal)),
            slug=_free_slug(slug or name or next(iter(normal))),
        )
        SiteHost.objects.bulk_create(
            SiteHost(business_id=actor.business_id, site=site, host=host, origin=origin)
            for host, origin in normal.items()
        )
        site_created.tell(site)
        actor.noted("site added", site=site.pk, name=site.name, hosts=list(normal))
    return site


def _free_slug(text: str) -> str:
    stem = slugify(text.replace(".", "-"))[:50] or "site"
    taken = set(
        Site.objects.filter(Q(slug=stem) | Q(slug__startswith=f"{stem}-")).values_list("slug", flat=True)
    )
    return next(
        name for name in (stem, *(f"{stem}-{n}" for n in range(2, len(taken) + 3))) if name not in taken
    )


def change_site(actor: Actor, *, site_id: int, edit: Edit) -> None:
    """Change a site's name, hosts in any spelling, and what its visitors are spoken to in ("": as the
    business does; None: as it was). Refused with what is wrong, Changed where both changed the same.
    """
    actor.needs(Right.BUSINESS)
    with transaction.atomic():
        site = own(actor, Site, site_id, locked=True)
        known = SiteHost.objects.filter(site=site).values_list("host", flat=True)
        stands = SiteFacts(site.name, site.language, tuple(known))

        def read(document: dict[str, Any]) -> SiteFacts:
            name, language = document["name"].strip(), document["language"]
            if not name:
                raise Refused(("name", "Please write a name for the site."))
            return SiteFacts(
                name, site.language if language is None else language, tuple(_hosts(document["hosts"]))
            )

        facts = edit.over(stands, read, sites_together)
        if not facts.hosts:
            raise Refused(_NO_HOST)
        Site.objects.filter(pk=site.pk).update(name=facts.name, language=facts.language)
        SiteHost.objects.filter(site=site).exclude(host__in=facts.hosts).delete()
        SiteHost.objects.bulk_create(
            [SiteHost(business_id=actor.business_id, site=site, host=host) for host in facts.hosts],
            ignore_conflicts=True,
        )
        for host, origin in _hosts(edit.document["hosts"]).items():
            if origin:
                SiteHost.objects.filter(site=site, host=host).update(origin=origin)
        Stranger.objects.filter(site=site, host__in=facts.hosts).delete()
        touch(actor.business_id, site_ids=[site.pk])
        actor.noted("site changed", site=site.pk, name=facts.name, hosts=list(facts.hosts))


def set_house(actor: Actor, *, site_id: int, edit: Edit) -> None:
    """Set the fonts, colours, corners and logo that the site's touchpoints follow; empty: none. Refused with
    what is wrong, Changed where both changed the same.
    """
    actor.needs(Right.TOUCHPOINTS)
    with transaction.atomic():
        site = own(actor, Site, site_id, locked=True)
        value = edit.over(HouseStyle.model_validate(site.house), _read_house, houses_together)
        site.house = value.model_dump(mode="json") if value != HouseStyle() else {}
        site.save(update_fields=["house"])
        touch(actor.business_id, site_ids=[site.pk])
        actor.noted("house style set", site=site.pk, name=site.name)


def _read_house(document: dict[str, Any]) -> HouseStyle:
    try:
        return HouseStyle.model_validate(document)
    except ValidationError as error:
        raise Refused(*wrongs(error.errors(), "house")) from error


def _read_rules(document: dict[str, Any]) -> SiteRules:
    try:
        return SiteRules.model_validate(document)
    except ValidationError as error:
        raise Refused(*wrongs(error.errors(), "rules")) from error


def set_rules(actor: Actor, *, site_id: int, edit: Edit) -> None:
    """Set what holds for the whole site: where people come from, groups of pages, how often it may interrupt.
    Refused with what is wrong, Changed where both changed the same.
    """
    actor.needs(Right.TOUCHPOINTS)
    with transaction.atomic():
        site = own(actor, Site, site_id, locked=True)
        value = edit.over(rules_of(site), _read_rules, rules_together)
        site.rules = value.model_dump(mode="json")
        site.save(update_fields=["rules"])
        touch(actor.business_id, site_ids=[site.pk])
        actor.noted("site rules set", site=site.pk, name=site.name)


@dataclass(slots=True)
class PageSeen:
    """Views of one page since they were last written down, and the marks of who asked for it."""

    title: str
    kinds: list[str]
    at: datetime
    views: int = 0
    senders: set[str] = field(default_factory=set)


@dataclass(frozen=True, slots=True)
class Sighting:
    """Where the script was seen: a host of the site, a path, the whole origin,
    and the mark of who was there.
    """

    host: str
    path: str
    origin: str
    sender: str


_COUNT_PAGE = """
INSERT INTO sites_sitepage AS page (business_id, site_id, path, title, kinds, views, seen_at, counts, marks)
VALUES (%s, %s, %s, %s, %s, %s, %s, %s, %s) ON CONFLICT (site_id, path) DO UPDATE SET
views = page.views + EXCLUDED.views, title = EXCLUDED.title,
kinds = CASE WHEN EXCLUDED.kinds = '[]' THEN page.kinds ELSE EXCLUDED.kinds END,
seen_at = GREATEST(page.seen_at, EXCLUDED.seen_at),
counts = page.counts OR EXCLUDED.counts
    OR (SELECT count(DISTINCT mark) FROM jsonb_array_elements(page.marks || EXCLUDED.marks) AS mark) >= %s,
marks = CASE WHEN page.counts THEN '[]' ELSE
    (SELECT jsonb_agg(DISTINCT mark) FROM jsonb_array_elements(page.marks || EXCLUDED.marks) AS mark) END
"""


def count_pages(
    actor: Actor,
    *,
    site_id: int,
    pages: Mapping[str, PageSeen],
    members: Collection[str] = (),
    confirmed: bool = False,
) -> None:
    """Add views to the pages that the script has seen. At most 2,000 pages a site, and 500 that do not count
    yet.

    A page counts once two visitors have asked for it, or one whose mark is in `members`, or all that are
    confirmed. The newest title stays, and the newest kinds: the script says none before it is asked for them.
    """
    actor.needs(Right.VISIT)
    rows = SitePage.objects.filter(site_id=site_id)
    known = set(rows.filter(path__in=pages).values_list("path", flat=True))
    if len(known) < len(pages):
        if rows.filter(counts=True).count() >= _MOST_PAGES:
            pages = {path: seen for path, seen in pages.items() if path in known}
        waiting = rows.filter(counts=False).exclude(path__in=pages).order_by("-seen_at")
        rows.filter(
            pk__in=list(waiting[max(0, _MOST_WAITING - len(pages)) :].values_list("pk", flat=True))
        ).delete()
    with connection.cursor() as cursor:
        # In one order everywhere, so that two processes never wait for each other in a circle.
        for path, page in sorted(pages.items()):
            marks = sorted(page.senders)[:_SEVERAL]
            counts = confirmed or not page.senders.isdisjoint(members) or len(marks) >= _SEVERAL
            cursor.execute(
                _COUNT_PAGE,
                [
                    actor.business_id,
                    site_id,
                    path,
                    page.title[:300],
                    json.dumps(page.kinds[:20]),
                    page.views,
                    page.at,
                    counts,
                    json.dumps([] if counts else marks),
                    _SEVERAL,
                ],
            )


def count_sources(
    actor: Actor, *, site_id: int, sources: Mapping[tuple[str, str], int], at: datetime
) -> None:
    """Add visits to where they came from, by kind and name. At most 1,000 names a site."""
    actor.needs(Right.VISIT)
    if not sources:
        return
    names = {name for _, name in sources}
    rows = SeenSource.objects.filter(site_id=site_id)
    known = set(rows.filter(name__in=names).values_list("kind", "name"))
    if not sources.keys() <= known and rows.count() >= _MOST_SOURCES:
        sources = {source: visits for source, visits in sources.items() if source in known}
    with connection.cursor() as cursor:
        for source in sorted(sources):
            cursor.execute(
                "INSERT INTO sites_seensource (business_id, site_id, kind, name, visits, seen_at)"
                " VALUES (%s, %s, %s, %s, %s, %s) ON CONFLICT (site_id, kind, name) DO UPDATE SET"
                " visits = sites_seensource.visits + EXCLUDED.visits,"
                " seen_at = GREATEST(sites_seensource.seen_at, EXCLUDED.seen_at)",
                [actor.business_id, site_id, *source, sources[source], at],
            )


def note_strangers(actor: Actor, *, site_id: int, hosts: Mapping[str, Collection[str]], at: datetime) -> None:
    """Note hosts the script was seen on that no site of the key's business lists, with the marks of who was
    there.

    The last 200 are kept, those that several visitors met before those of one.
    """
    actor.needs(Right.VISIT)
    with connection.cursor() as cursor:
        for host in sorted(hosts):
            cursor.execute(
                "INSERT INTO sites_stranger AS stranger (business_id, site_id, host, seen_at, marks)"
                " VALUES (%s, %s, %s, %s, %s) ON CONFLICT (site_id, host) DO UPDATE SET"
                " seen_at = GREATEST(stranger.seen_at, EXCLUDED.seen_at), marks = CASE"
                " WHEN jsonb_array_length(stranger.marks) >= 3 THEN stranger.marks ELSE"
                " (SELECT jsonb_agg(DISTINCT mark)"
                " FROM jsonb_array_elements(stranger.marks || EXCLUDED.marks) AS mark) END",
                [actor.business_id, site_id, host[:255], at, json.dumps(sorted(hosts[host])[:3])],
            )
        cursor.execute(
            "DELETE FROM sites_stranger WHERE id IN (SELECT id FROM sites_stranger WHERE site_id = %s"
            " ORDER BY jsonb_array_length(marks) > 1 DESC, seen_at DESC OFFSET %s)",
            [site_id, _MOST_STRANGERS],
        )


def touch(business_id: int, *, site_ids: list[int] | None = None) -> None:
    """Raise the revision of sites, so that every server process reads them anew within a second."""
    sites = Site.objects.filter(business_id=business_id)
    (sites if site_ids is None else sites.filter(pk__in=site_ids)).update(revision=F("revision") + 1)


def seen(
    actor: Actor, *, site_id: int, at: datetime, sighting: Sighting, members: Collection[str] = ()
) -> None:
    """Note that the script was seen on a page; an older sighting never overwrites a newer one.

    Which scheme and port a host has is learnt from a member's own browser alone, and from any on this machine
    itself.
    """
    actor.needs(Right.VISIT)
    older = Q(seen_at__isnull=True) | Q(seen_at__lte=at)
    Site.objects.filter(older, pk=site_id, business_id=actor.business_id).update(
        seen_at=at, seen_host=sighting.host[:255], seen_path=sighting.path[:500]
    )
    if sighting.sender in members or is_loopback(sighting.host):
        rows = SiteHost.objects.filter(
            site_id=site_id, business_id=actor.business_id, host=sighting.host, origin=""
        )
        rows.exclude(seen_origin=sighting.origin).update(seen_origin=sighting.origin[:300])


@business_changed.register
def _touch_all(business_id: int) -> None:
    touch(business_id)
