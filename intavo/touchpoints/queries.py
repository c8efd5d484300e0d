"""Reads on touchpoints."""

import json
from collections import Counter
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field
from datetime import date, datetime
from functools import lru_cache
from typing import Literal
from zoneinfo import ZoneInfo

from django.db import connection
from django.db.models import Prefetch, Q, QuerySet

from intavo import clock
from intavo.accounts.actor import Actor
from intavo.accounts.models import Business
from intavo.accounts.quotas import counts
from intavo.channels.queries import channel_findings
from intavo.core.legibility import Pixels, Reading, rgb
from intavo.core.quotas import QuotaKind
from intavo.core.replies import Situation, choose
from intavo.core.showing import TouchpointState
from intavo.core.touchpoint import (
    Document,
    Finding,
    HouseStyle,
    Known,
    Show,
    queue_of,
    readings,
    ready_check,
    resolved,
)
from intavo.core.touchpoint.copied import texts_of
from intavo.core.touchpoint.draining import drains_oddly
from intavo.hours.queries import replies
from intavo.sites.models import Site, SitePage
from intavo.sites.queries import empty_lists, matching_pages, rules_of

from .models import Asset, CodeToGive, LyingOver, QuestionAnswer, Touchpoint, TouchpointRevision
from .shipped import shipped_pixels


def touchpoints_of(actor: Actor) -> QuerySet[Touchpoint]:
    """The business's touchpoints with their revisions and sites, in the owner's order."""
    rows = Touchpoint.objects.filter(business_id=actor.business_id, deleted_at=None)
    return (
        rows.select_related("business", "draft__saved_by__user", "live")
        .prefetch_related(Prefetch("sites", Site.objects.order_by("pk")))
        .order_by("order", "pk")
    )


@counts(QuotaKind.TOUCHPOINTS)
def how_many(business_id: int) -> int:
    """How many touchpoints there are."""
    return Touchpoint.objects.filter(business_id=business_id, deleted_at=None).count()


def live_on(site_id: int) -> list[tuple[Touchpoint, TouchpointRevision]]:
    """Touchpoints that are on and stand on a site, with what visitors get."""
    rows = Touchpoint.objects.filter(sites=site_id, state=TouchpointState.LIVE.value).select_related("live")
    return [(row, row.live) for row in rows.order_by("order", "pk") if row.live is not None]


def translated(site_id: int) -> dict[int, tuple[str, ...]]:
    """The languages of the copies that are on, by the id of what they are copies of; in order."""
    rows = Touchpoint.objects.filter(
        sites=site_id, state=TouchpointState.LIVE.value, deleted_at=None, original__isnull=False
    ).values_list("original_id", "live__document__language")
    found: dict[int, set[str]] = {}
    for original, language in rows:
        if original is not None and language:
            found.setdefault(original, set()).add(language)
    return {original: tuple(sorted(languages)) for original, languages in found.items()}


def set_of(row: Touchpoint) -> list[tuple[int, str, str, str | None]]:
    """Id, name, state and language of the others of its set: what it is a copy of in another, and that one's
    copies.
    """
    first = row.original_id or row.pk
    rows = Touchpoint.objects.filter(business_id=row.business_id, deleted_at=None).exclude(pk=row.pk)
    found = rows.filter(Q(pk=first) | Q(original_id=first)).order_by("pk")
    return list(found.values_list("pk", "name", "state", "draft__document__language"))


def drafts_on(site_id: int) -> list[tuple[Touchpoint, TouchpointRevision]]:
    """Every touchpoint that stands on a site, on or not, as it stands now."""
    rows = Touchpoint.objects.filter(sites=site_id, deleted_at=None).select_related("draft")
    return [(row, row.draft) for row in rows.order_by("order", "pk") if row.draft is not None]


def groups_of(business_id: int) -> dict[str, frozenset[str]]:
    """Ids of all touchpoints that were ever on, by the name of their group in lower case."""
    found: dict[str, set[str]] = {}
    rows = Touchpoint.objects.filter(business_id=business_id).exclude(live=None).select_related("live")
    for public_id, show in rows.values_list("public_id", "live__document__show"):
        name = (show or {}).get("group", "")
        if name:
            found.setdefault(name.casefold(), set()).add(public_id)
    return {name: frozenset(ids) for name, ids in found.items()}


def kept_revision(business_id: int, public_id: str, number: int) -> TouchpointRevision | None:
    """A revision of a touchpoint, whether or not visitors ever got it."""
    rows = TouchpointRevision.objects.filter(
        business_id=business_id, touchpoint__public_id=public_id, number=number
    )
    return rows.first()


def published(business_id: int, public_id: str, number: int) -> TouchpointRevision | None:
    """The published revision of a touchpoint that a visitor says they saw."""
    rows = TouchpointRevision.objects.select_related("touchpoint").filter(
        business_id=business_id, touchpoint__public_id=public_id, number=number, published_at__isnull=False
    )
    return rows.first()


@dataclass(frozen=True, slots=True)
class Waiting:
    """How many were made but are not on, changed since they went live,
    or are on though their dates are past.
    """

    not_on: int
    changed: int
    ended: int


def waiting(actor: Actor, at: datetime) -> Waiting:
    """What waits for somebody to think of it."""
    rows = list(touchpoints_of(actor))
    on = [row for row in rows if row.state == TouchpointState.LIVE.value]
    ended = sum(_over(row, at) for row in on)
    return Waiting(
        sum(row.state == TouchpointState.DRAFT.value for row in rows),
        sum(row.changed_since_live for row in on),
        ended,
    )


def _over(row: Touchpoint, at: datetime) -> bool:
    return row.live is not None and Show.model_validate(row.live.document["show"]).over(
        _local_date(row.business, at)
    )


def _local_date(business: Business, at: datetime) -> date:
    return at.astimezone(ZoneInfo(business.timezone)).date()


def revisions_of(touchpoint: Touchpoint) -> QuerySet[TouchpointRevision]:
    """Every revision, the newest first."""
    return touchpoint.revisions.select_related("saved_by__user").order_by("-number")


def assets_of(actor: Actor, kind: str | None = None) -> QuerySet[Asset]:
    """The business's library, the newest first."""
    rows = Asset.objects.filter(business_id=actor.business_id).order_by("-pk")
    return rows.filter(kind=kind) if kind else rows


def assets_in_use(actor: Actor) -> dict[str, list[str]]:
    """Who uses each asset, by its id: touchpoints, as draft or live, and house styles."""
    in_use: dict[str, list[str]] = {}
    for row in touchpoints_of(actor):
        revisions = (row.draft, row.live)
        used = {
            one
            for revision in revisions
            if revision
            for one in Document.model_validate(revision.document).assets()
        }
        for asset in used:
            in_use.setdefault(asset, []).append(row.name)
    for site in Site.objects.filter(business_id=actor.business_id):
        house = house_of(site)
        if house is not None and house.logo is not None:
            in_use.setdefault(house.logo, []).append(f"the house style of {site.name}")
    return in_use


def house_of(site: Site | None) -> HouseStyle | None:
    """A site's house style, if it has one."""
    return HouseStyle.model_validate(site.house) if site is not None and site.house else None


def pixels_of(business_id: int, assets: Iterable[str]) -> dict[str, Pixels]:
    """The pixels of pictures by id, as far as they are there."""
    wanted = set(assets)
    rows = Asset.objects.filter(business_id=business_id, public_id__in=wanted, kind=Asset.PICTURE)
    found: dict[str, Pixels] = {
        row.public_id: [[rgb(cell) for cell in line] for line in row.sample] for row in rows
    }
    return found | {name: pixels for name in wanted if (pixels := shipped_pixels(name)) is not None}


_ENOUGH_PAGES, _MOST_PAGES = 3, 300


@dataclass
class PagesFor:
    """The pages that the script has seen: how many, on how many it may show, and with which others it shares
    them.

    `example` is the most seen that it is for, on its first site; "/" where none is known. `paths` are all of
    them, none where too few were seen to say that another is not there; `corner` names buttons in the same
    corner.
    """

    known: int = 0
    matching: int = 0
    example: str = "/"
    shared: Counter[str] = field(default_factory=Counter)
    paths: set[str] = field(default_factory=set)
    corner: set[str] = field(default_factory=set)


def pages_for(touchpoint: Touchpoint, document: Document, sites: list[Site]) -> PagesFor:
    """What is known of the pages that a document is for."""
    known, today = PagesFor(), _local_date(touchpoint.business, clock.now())
    queue, sentences = queue_of(document.stance), document.show.sentences
    for site in sites:
        pages = list(SitePage.objects.filter(site=site, counts=True).order_by("-views", "path")[:_MOST_PAGES])
        own = matching_pages(site, sentences, pages)
        if site is sites[0]:
            known.example = next(iter(own), "/")
        known.known += len(pages)
        known.matching += len(own)
        known.paths |= {page.path for page in pages} if _ENOUGH_PAGES <= len(pages) < _MOST_PAGES else set()
        by_itself = set(matching_pages(site, (one for one in sentences if one.moments), pages))
        if document.stance == "button":
            known.corner |= _same_corner(touchpoint, document, site, by_itself, pages)
        if queue == "none" or not by_itself:
            continue
        for row, revision in live_on(site.pk):
            show = Show.model_validate(revision.document["show"])
            if row.pk == touchpoint.pk or queue_of(revision.document["stance"]) != queue or show.over(today):
                continue
            both = by_itself & set(
                matching_pages(site, (one for one in show.sentences if one.moments), pages)
            )
            if both:
                known.shared[row.name] += len(both)
    return known


def _same_corner(
    touchpoint: Touchpoint, document: Document, site: Site, by_itself: set[str], pages: list[SitePage]
) -> set[str]:
    """Names of other buttons that are on and stand in the same corner of a page, on desktop or phone."""

    def places(document: Document) -> tuple[str, str]:
        look = resolved(document.look, document.stance, house_of(site))
        return look.place, look.phone.place

    names, own = set(), places(document)
    for row, revision in live_on(site.pk):
        if row.pk == touchpoint.pk or revision.document["stance"] != "button":
            continue
        other = Document.model_validate(revision.document)
        on = set(matching_pages(site, (one for one in other.show.sentences if one.moments), pages))
        if any(one == each for one, each in zip(own, places(other), strict=True)) and (
            on & by_itself or not pages
        ):
            names.add(row.name)
    return names


def findings_of(
    touchpoint: Touchpoint,
    read: Sequence[Reading] | None = None,
    revision: TouchpointRevision | None = None,
    pages: PagesFor | None = None,
) -> list[Finding]:
    """The ready check of a revision (the draft without one), with everything that is known around it.

    `read` is how its texts read, and `pages` what is known of its pages, where that is known already.
    """
    revision = revision or touchpoint.draft
    assert revision is not None
    document = Document.model_validate(revision.document)
    sites = list(touchpoint.sites.select_related("business"))
    rows = Asset.objects.filter(business_id=touchpoint.business_id, public_id__in=document.assets())
    known = {row.public_id: row.boxed for row in rows}
    own = {asset for asset in document.assets() if asset.startswith("as_")}
    if read is None:
        pixels = pixels_of(touchpoint.business_id, document.assets())
        read = readings(document, pixels, house_of(sites[0] if sites else None))
    houses = [house_of(site) for site in sites]
    pages = pages or pages_for(touchpoint, document, sites)
    codes = (
        list(touchpoint.codes.values_list("given_at", flat=True))
        if document.after.code.kind == "each"
        else []
    )
    others = Touchpoint.objects.filter(business_id=touchpoint.business_id, deleted_at=None)
    kinds = {part.kind for part in document.parts()}
    return ready_check(
        document,
        Known(
            has_site=bool(sites),
            snippet_seen=any(site.seen_at is not None for site in sites),
            mail_sender=bool(touchpoint.business.mail_address),
            slugs=frozenset(others.values_list("slug", flat=True)),
            boxed=frozenset(name for name, boxed in known.items() if boxed),
            missing=frozenset(own - known.keys()),
            codes_all=len(codes),
            codes_left=sum(given is None for given in codes),
            drain=drains_oddly((given for given in codes if given is not None), clock.now()),
            over=_lies_over(touchpoint, revision),
            questions=_groups(touchpoint.business_id) if "questions" in kinds else None,
            channels=channel_findings(touchpoint.business_id, clock.now()) if document.channels() else None,
            has_logo=all(house is not None and house.logo is not None for house in houses),
            readings=read,
            today=_local_date(touchpoint.business, clock.now()),
            at=clock.now(),
            pages=pages.known,
            matching=pages.matching,
            empty_lists=frozenset(way for site in sites for way in empty_lists(rules_of(site))),
            region=touchpoint.business.region,
            paths=frozenset(pages.paths),
            corner=sorted(pages.corner),
            hosts=frozenset(host for site in sites for host in site.hosts.values_list("host", flat=True)),
            shares=list(pages.shared.items()),
            waits=_waits(touchpoint),
            said_closed=_said_closed(touchpoint.business),
            original=_original(touchpoint),
        ),
    )


def _original(touchpoint: Touchpoint) -> tuple[str, str, frozenset[str]] | None:
    """Name, language and texts of what it is a copy of in another, as that is being made or stands."""
    first = touchpoint.original
    if first is None or first.deleted_at is not None or first.draft is None:
        return None
    document = Document.model_validate(first.draft.document)
    return first.name, document.language, texts_of(document)


def _lies_over(touchpoint: Touchpoint, revision: TouchpointRevision) -> list[str]:
    """Pages that it could not move aside as it is live, where this is the same of it."""
    live = touchpoint.live
    if live is None or revision.document["look"] != live.document["look"]:
        return []
    rows = LyingOver.objects.filter(touchpoint=touchpoint, revision=live.number).order_by("page")
    return list(rows.values_list("page", flat=True))


def _waits(touchpoint: Touchpoint) -> Literal["not on", "changed"] | None:
    if touchpoint.state != TouchpointState.LIVE.value:
        return "not on"
    return "changed" if touchpoint.changed_since_live else None


def _said_closed(business: Business) -> bool:
    """Whether anything is said after hours and on holidays."""
    table, tongue = replies(business.pk), business.language
    told = [choose(table, one, tongue, tongue).reply for one in (Situation.AFTER_HOURS, Situation.HOLIDAY)]
    return all(not one.hidden and bool(one.title or one.text) for one in told)


def next_code(touchpoint_id: int) -> str:
    """The next code of a touchpoint's list, which stays in it; "" where none is left."""
    rows = CodeToGive.objects.filter(touchpoint_id=touchpoint_id, given_at=None).order_by("pk")
    return rows.values_list("code", flat=True).first() or ""


def has_code(touchpoint_id: int, to: str) -> bool:
    """Whether somebody (as in `give_code`) has been given one already."""
    return CodeToGive.objects.filter(touchpoint_id=touchpoint_id, given_to=to[:80]).exists()


def questions_of(business_id: int, group: str = "") -> list[QuestionAnswer]:
    """The business's questions & answers, all or one group, in the owner's order."""
    rows = QuestionAnswer.objects.filter(business_id=business_id)
    return list(rows.filter(group=group) if group else rows)


def _groups(business_id: int) -> frozenset[str]:
    return frozenset(QuestionAnswer.objects.filter(business_id=business_id).values_list("group", flat=True))


@lru_cache(maxsize=4096)
def asset_row(public_id: str) -> Asset | None:
    """An asset by its public id; what it holds never changes once it is kept."""
    return Asset.objects.filter(public_id=public_id).first()


_OPENED = """
SELECT EXISTS (
    SELECT FROM touchpoints_touchpoint AS made
    JOIN touchpoints_touchpointrevision AS state ON state.id IN (made.live_id, made.draft_id)
    WHERE made.business_id = %(business)s AND made.deleted_at IS NULL AND (
        jsonb_path_exists(
            state.document, '$.steps.**.does ? (@.action == "file" && @.asset == $id)', %(id)s::jsonb)
        OR strpos(state.document ->> 'steps', %(link)s) > 0))
"""


def opened_by_a_click(row: Asset) -> bool:
    """Whether a button or a link of a touchpoint opens the file, live or as it is edited: then it is open to
    all.
    """
    link = f"/m/{row.public_id}/file"
    about: dict[str, str | int] = {
        "business": row.business_id,
        "id": json.dumps({"id": row.public_id}),
        "link": link,
    }
    with connection.cursor() as cursor:
        cursor.execute(_OPENED, about)
        return bool(cursor.fetchone()[0])
