"""Writes on sites."""

import json
from collections.abc import Mapping
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from django.db import connection, transaction
from django.db.models import F, Q
from django.utils.text import slugify
from pydantic import ValidationError

from intavo.accounts.actor import Actor, Refused
from intavo.accounts.effects import business_changed
from intavo.accounts.scope import own
from intavo.core.effects import Effect
from intavo.core.hosts import normalise_host
from intavo.core.refusals import wrongs
from intavo.core.rights import Right
from intavo.core.showing import SiteRules
from intavo.core.touchpoint import HouseStyle

from .models import SeenSource, Site, SiteHost, SitePage, Stranger

_MOST_PAGES = 2000
_MOST_STRANGERS = 20
_MOST_SOURCES = 1000
site_created: Effect[Site] = Effect("site created")


def _hosts(texts: list[str]) -> list[str]:
    errors: list[tuple[str, str]] = []
    found: list[str] = []
    for number, text in enumerate(texts):
        if not text.strip():
            continue
        try:
            found.append(normalise_host(text))
        except ValueError as error:
            errors.append((f"hosts.{number}", str(error)))
    if not errors and not found:
        errors.append(("hosts", "Please write at least one address of the site."))
    if errors:
        raise Refused(*errors)
    return list(dict.fromkeys(found))


def add_site(actor: Actor, *, name: str, hosts: list[str], slug: str = "") -> Site:
    """Add a site with its hosts, in any spelling; raises Refused naming what is no host."""
    actor.needs(Right.BUSINESS)
    normal = _hosts(hosts)
    with transaction.atomic():
        site = Site.objects.create(
            business_id=actor.business_id, name=name.strip() or normal[0], slug=_free_slug(slug or name or normal[0])
        )
        SiteHost.objects.bulk_create(SiteHost(business_id=actor.business_id, site=site, host=h) for h in normal)
        site_created.tell(site)
        actor.noted("site added", site=site.pk, name=site.name, hosts=normal)
    return site


def _free_slug(text: str) -> str:
    stem = slugify(text.replace(".", "-"))[:50] or "site"
    taken = set(Site.objects.filter(Q(slug=stem) | Q(slug__startswith=f"{stem}-")).values_list("slug", flat=True))
    return next(name for name in (stem, *(f"{stem}-{n}" for n in range(2, len(taken) + 3))) if name not in taken)


def change_site(actor: Actor, *, site_id: int, name: str, hosts: list[str]) -> None:
    """Change a site's name and hosts."""
    actor.needs(Right.BUSINESS)
    if not name.strip():
        raise Refused(("name", "Please write a name for the site."))
    normal = _hosts(hosts)
    with transaction.atomic():
        site = own(actor, Site, site_id)
        Site.objects.filter(pk=site.pk).update(name=name.strip())
        SiteHost.objects.filter(site=site).exclude(host__in=normal).delete()
        SiteHost.objects.bulk_create(
            [SiteHost(business_id=actor.business_id, site=site, host=h) for h in normal], ignore_conflicts=True
        )
        Stranger.objects.filter(site=site, host__in=normal).delete()
        touch(actor.business_id, site_ids=[site.pk])
        actor.noted("site changed", site=site.pk, name=name.strip(), hosts=normal)


def set_house(actor: Actor, *, site_id: int, house: dict[str, Any]) -> None:
    """Set the fonts, colours, corners and logo that the site's touchpoints follow; empty: none."""
    actor.needs(Right.TOUCHPOINTS)
    try:
        value = HouseStyle.model_validate(house)
    except ValidationError as error:
        raise Refused(*wrongs(error.errors(), "house")) from error
    with transaction.atomic():
        site = own(actor, Site, site_id)
        site.house = value.model_dump(mode="json") if house else {}
        site.save(update_fields=["house"])
        touch(actor.business_id, site_ids=[site.pk])
        actor.noted("house style set", site=site.pk, name=site.name)


def set_rules(actor: Actor, *, site_id: int, rules: dict[str, Any]) -> None:
    """Set what holds for the whole site: where people come from, groups of pages, how often it may interrupt."""
    actor.needs(Right.TOUCHPOINTS)
    try:
        value = SiteRules.model_validate(rules)
    except ValidationError as error:
        raise Refused(*wrongs(error.errors(), "rules")) from error
    with transaction.atomic():
        site = own(actor, Site, site_id)
        site.rules = value.model_dump(mode="json")
        site.save(update_fields=["rules"])
        touch(actor.business_id, site_ids=[site.pk])
        actor.noted("site rules set", site=site.pk, name=site.name)


@dataclass(slots=True)
class PageSeen:
    """Views of one page since they were last written down."""

    title: str
    kinds: list[str]
    at: datetime
    views: int = 0


def count_pages(actor: Actor, *, site_id: int, pages: Mapping[str, PageSeen]) -> None:
    """Add views to the pages that the script has seen. At most 2,000 pages a site.

    The newest title stays, and the newest kinds: the script says none before it is asked for them.
    """
    actor.needs(Right.VISIT)
    known = set(SitePage.objects.filter(site_id=site_id, path__in=pages).values_list("path", flat=True))
    if len(known) < len(pages) and SitePage.objects.filter(site_id=site_id).count() >= _MOST_PAGES:
        pages = {path: seen for path, seen in pages.items() if path in known}
    with connection.cursor() as cursor:
        # In one order everywhere, so that two processes never wait for each other in a circle.
        for path, page in sorted(pages.items()):
            cursor.execute(
                "INSERT INTO sites_sitepage (business_id, site_id, path, title, kinds, views, seen_at)"
                " VALUES (%s, %s, %s, %s, %s, %s, %s) ON CONFLICT (site_id, path) DO UPDATE SET"
                " views = sites_sitepage.views + EXCLUDED.views, title = EXCLUDED.title,"
                " kinds = CASE WHEN EXCLUDED.kinds = '[]' THEN sites_sitepage.kinds ELSE EXCLUDED.kinds END,"
                " seen_at = GREATEST(sites_sitepage.seen_at, EXCLUDED.seen_at)",
                [actor.business_id, site_id, path, page.title[:300], json.dumps(page.kinds[:20]), page.views, page.at],
            )


def count_sources(actor: Actor, *, site_id: int, sources: Mapping[tuple[str, str], int], at: datetime) -> None:
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


def note_stranger(actor: Actor, *, site_id: int, host: str, at: datetime) -> None:
    """Note that the script was seen on a host that is not on the site's list; 20 hosts are kept."""
    actor.needs(Right.VISIT)
    if Stranger.objects.filter(site_id=site_id).exclude(host=host).count() < _MOST_STRANGERS:
        Stranger.objects.update_or_create(
            site_id=site_id, host=host[:255], defaults={"business_id": actor.business_id, "seen_at": at}
        )


def touch(business_id: int, *, site_ids: list[int] | None = None) -> None:
    """Raise the revision of sites, so that every server process reads them anew within a second."""
    sites = Site.objects.filter(business_id=business_id)
    (sites if site_ids is None else sites.filter(pk__in=site_ids)).update(revision=F("revision") + 1)


def seen(actor: Actor, *, site_id: int, at: datetime, host: str, path: str, url: str = "") -> None:
    """Note that the script was seen on a page; an older sighting never overwrites a newer one."""
    actor.needs(Right.VISIT)
    older = Q(seen_at__isnull=True) | Q(seen_at__lte=at)
    Site.objects.filter(older, pk=site_id, business_id=actor.business_id).update(
        seen_at=at, seen_host=host[:255], seen_path=path[:500], seen_url=url[:1000]
    )


@business_changed.register
def _touch_all(business_id: int) -> None:
    touch(business_id)
