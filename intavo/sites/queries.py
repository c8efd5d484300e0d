"""Reads on sites."""

from collections.abc import Iterable

from django.db.models import QuerySet

from intavo.accounts.actor import Actor
from intavo.accounts.quotas import counts
from intavo.core.quotas import QuotaKind
from intavo.core.showing import SiteRules, page_matches
from intavo.core.touchpoint import Sentence

from .models import SeenSource, Site, SitePage


def sites_of(actor: Actor) -> QuerySet[Site]:
    """The business's sites with their hosts."""
    return (
        Site.objects.filter(business_id=actor.business_id)
        .prefetch_related("hosts", "strangers")
        .order_by("pk")
    )


@counts(QuotaKind.SITES)
def how_many(business_id: int) -> int:
    """How many sites there are."""
    return Site.objects.filter(business_id=business_id).count()


def rules_of(site: Site) -> SiteRules:
    """What the owner set for the whole site."""
    return SiteRules.model_validate(site.rules)


def pages_of(actor: Actor, site_id: int, most: int = 300) -> list[SitePage]:
    """The pages that the script has seen on a site, the most seen first."""
    rows = SitePage.objects.filter(business_id=actor.business_id, site_id=site_id, counts=True)
    return list(rows.order_by("-views", "path")[:most])


def sources_of(actor: Actor, site_id: int, most: int = 100) -> list[SeenSource]:
    """Where visits came from, the most frequent first."""
    rows = SeenSource.objects.filter(business_id=actor.business_id, site_id=site_id)
    return list(rows.order_by("-visits", "name")[:most])


def empty_lists(rules: SiteRules) -> list[str]:
    """Which lists of where visits come from are empty: "search", "social"."""
    lists = {"search": (rules.search, rules.search_media), "social": (rules.social, rules.social_media)}
    return [name for name, (hosts, media) in lists.items() if not hosts and not media]


def home_of(site: Site) -> str:
    """Where a site's pages are, like "https://otterwick.example": the host where it was seen last, else its
    first.
    """
    hosts = list(site.hosts.all())
    host = next((one for one in hosts if one.host == site.seen_host), hosts[0] if hosts else None)
    return (host.origin or host.seen_origin or f"https://{host.host}") if host else ""


def strangers_of(site: Site, most: int = 20) -> list[str]:
    """Hosts where the script ran that are not on the list, those that several visitors met first."""
    rows = sorted(site.strangers.all(), key=lambda one: (len(one.marks), one.seen_at), reverse=True)
    return [one.host for one in rows[:most]]


def matching_pages(site: Site, sentences: Iterable[Sentence], known: list[SitePage]) -> list[str]:
    """The paths of the known pages that any of the sentences is for, whoever comes there first."""
    groups, asked = rules_of(site).by_name(), list(sentences)
    return [
        page.path
        for page in known
        if any(page_matches(sentence, groups, page.path, tuple(page.kinds)) for sentence in asked)
    ]
