"""Reads on sites."""

from collections.abc import Iterable

from django.db.models import QuerySet

from intavo.accounts.actor import Actor
from intavo.core.showing import SiteRules, page_matches
from intavo.core.touchpoint import Sentence

from .models import SeenSource, Site, SitePage


def sites_of(actor: Actor) -> QuerySet[Site]:
    """The business's sites with their hosts."""
    return Site.objects.filter(business_id=actor.business_id).prefetch_related("hosts", "strangers").order_by("pk")


def rules_of(site: Site) -> SiteRules:
    """What the owner set for the whole site."""
    return SiteRules.model_validate(site.rules)


def pages_of(actor: Actor, site_id: int, most: int = 300) -> list[SitePage]:
    """The pages that the script has seen on a site, the most seen first."""
    rows = SitePage.objects.filter(business_id=actor.business_id, site_id=site_id)
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
    """Where a site's pages are, like "https://otterwick.example": as the script has seen it, else by its first host."""
    scheme, _, rest = site.seen_url.partition("://")
    if rest:
        return f"{scheme}://{rest.partition('/')[0]}"
    host = site.hosts.values_list("host", flat=True).first()
    return f"https://{host}" if host else ""


def matching_pages(site: Site, sentences: Iterable[Sentence], known: list[SitePage]) -> list[str]:
    """The paths of the known pages that any of the sentences is for, whoever comes there first."""
    groups, asked = rules_of(site).by_name(), list(sentences)
    return [
        page.path for page in known
        if any(page_matches(sentence, groups, page.path, tuple(page.kinds)) for sentence in asked)
    ]  # fmt: skip
