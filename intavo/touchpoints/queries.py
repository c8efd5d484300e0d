"""Reads on touchpoints."""

from collections.abc import Iterable, Sequence
from functools import lru_cache
from zoneinfo import ZoneInfo

from django.db.models import QuerySet

from intavo.accounts.actor import Actor
from intavo.core.legibility import Pixels, Reading, rgb
from intavo.core.showing import State
from intavo.core.touchpoint import Document, Finding, HouseStyle, Known, readings, ready_check
from intavo.project import clock
from intavo.sites.models import Site, SitePage
from intavo.sites.queries import matching_pages

from .models import Asset, QuestionAnswer, Touchpoint, TouchpointRevision
from .shipped import shipped_pixels


def touchpoints_of(actor: Actor) -> QuerySet[Touchpoint]:
    """The business's touchpoints with their revisions and sites, in the owner's order."""
    rows = Touchpoint.objects.filter(business_id=actor.business_id, deleted_at=None)
    return (
        rows.select_related("business", "draft__saved_by__user", "live")
        .prefetch_related("sites")
        .order_by("order", "pk")
    )


def live_on(site_id: int) -> list[Touchpoint]:
    """Touchpoints that are on and stand on a site."""
    rows = Touchpoint.objects.filter(sites=site_id, state=State.LIVE.value).select_related("live")
    return list(rows.order_by("order", "pk"))


def groups_of(business_id: int) -> dict[str, frozenset[str]]:
    """Ids of all touchpoints that were ever on, by the name of their group in lower case."""
    found: dict[str, set[str]] = {}
    rows = Touchpoint.objects.filter(business_id=business_id).exclude(live=None).select_related("live")
    for public_id, show in rows.values_list("public_id", "live__document__show"):
        name = (show or {}).get("group", "")
        if name:
            found.setdefault(name.casefold(), set()).add(public_id)
    return {name: frozenset(ids) for name, ids in found.items()}


def published(business_id: int, public_id: str, number: int) -> TouchpointRevision | None:
    """The published revision of a touchpoint that a visitor says they saw."""
    rows = TouchpointRevision.objects.select_related("touchpoint").filter(
        business_id=business_id, touchpoint__public_id=public_id, number=number, published_at__isnull=False
    )
    return rows.first()


def waiting(actor: Actor) -> tuple[int, int]:
    """How many were made but are not on, and how many changed since they went live."""
    rows = list(touchpoints_of(actor))
    drafts = sum(row.state == State.DRAFT.value for row in rows)
    return drafts, sum(row.state == State.LIVE.value and row.changed_since_live for row in rows)


def revisions_of(touchpoint: Touchpoint) -> QuerySet[TouchpointRevision]:
    """Every revision, the newest first."""
    return touchpoint.revisions.select_related("saved_by__user").order_by("-number")


def assets_of(actor: Actor, kind: str | None = None) -> QuerySet[Asset]:
    """The business's library, the newest first."""
    rows = Asset.objects.filter(business_id=actor.business_id).order_by("-pk")
    return rows.filter(kind=kind) if kind else rows


def assets_in_use(actor: Actor) -> dict[str, list[str]]:
    """Who uses each asset, by its id: touchpoints, as draft or live, and house styles."""
    found: dict[str, list[str]] = {}
    for row in touchpoints_of(actor):
        revisions = (row.draft, row.live)
        used = {
            one for revision in revisions if revision for one in Document.model_validate(revision.document).assets()
        }
        for asset in used:
            found.setdefault(asset, []).append(row.name)
    for site in Site.objects.filter(business_id=actor.business_id):
        house = house_of(site)
        if house is not None and house.logo is not None:
            found.setdefault(house.logo, []).append(f"the house style of {site.name}")
    return found


def house_of(site: Site | None) -> HouseStyle | None:
    """A site's house style, if it has one."""
    return HouseStyle.model_validate(site.house) if site is not None and site.house else None


def pixels_of(business_id: int, assets: Iterable[str]) -> dict[str, Pixels]:
    """The pixels of pictures by id, as far as they are there."""
    wanted = set(assets)
    rows = Asset.objects.filter(business_id=business_id, public_id__in=wanted, kind=Asset.PICTURE)
    found: dict[str, Pixels] = {row.public_id: [[rgb(cell) for cell in line] for line in row.sample] for row in rows}
    return found | {name: pixels for name in wanted if (pixels := shipped_pixels(name)) is not None}


def findings_of(touchpoint: Touchpoint, read: Sequence[Reading] | None = None) -> list[Finding]:
    """The ready check of a draft, with everything that is known around it; `read` is how its texts read, if known."""
    assert touchpoint.draft is not None
    document = Document.model_validate(touchpoint.draft.document)
    sites = list(touchpoint.sites.select_related("business"))
    rows = Asset.objects.filter(business_id=touchpoint.business_id, public_id__in=document.assets())
    known = {row.public_id: row.boxed for row in rows}
    own = {asset for asset in document.assets() if asset.startswith("as_")}
    if read is None:
        pixels = pixels_of(touchpoint.business_id, document.assets())
        read = readings(document, pixels, house_of(sites[0] if sites else None))
    houses = [house_of(site) for site in sites]
    pages, matching = _pages_for(document, sites)
    codes = list(touchpoint.codes.values_list("given_at", flat=True)) if document.after.code.kind == "each" else []
    others = Touchpoint.objects.filter(business_id=touchpoint.business_id, deleted_at=None)
    return ready_check(
        document,
        Known(
            has_site=bool(sites), snippet_seen=any(site.seen_at is not None for site in sites),
            mail_sender=bool(touchpoint.business.mail_address), slugs=frozenset(others.values_list("slug", flat=True)),
            boxed=frozenset(name for name, boxed in known.items() if boxed), missing=frozenset(own - known.keys()),
            codes_all=len(codes), codes_left=sum(given is None for given in codes),
            has_logo=all(house is not None and house.logo is not None for house in houses), readings=read,
            today=clock.now().astimezone(ZoneInfo(touchpoint.business.timezone)).date(), pages=pages, matching=matching,
        ),
    )  # fmt: skip


def _pages_for(document: Document, sites: list[Site]) -> tuple[int, int]:
    """How many pages the script has seen on its sites, and on how many of them it may show."""
    known = matching = 0
    for site in sites:
        pages = list(SitePage.objects.filter(site=site).order_by("-views")[:300])
        known += len(pages)
        found = {path for one in document.show.sentences for path in matching_pages(site, one, pages)}
        matching += len(found)
    return known, matching


def questions_of(business_id: int, group: str = "") -> list[QuestionAnswer]:
    """The business's questions & answers, all or one group, in the owner's order."""
    rows = QuestionAnswer.objects.filter(business_id=business_id)
    return list(rows.filter(group=group) if group else rows)


@lru_cache(maxsize=4096)
def asset_row(public_id: str) -> Asset | None:
    """An asset by its public id; what it holds never changes once it is kept."""
    return Asset.objects.filter(public_id=public_id).first()
