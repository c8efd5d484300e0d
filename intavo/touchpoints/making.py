"""Touchpoints made ready for visitors: rules compiled, documents written as JSON; drafts too,
for rehearsals.
"""

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from zoneinfo import ZoneInfo

import orjson

from intavo.core.hours import OpeningHours, any_of
from intavo.core.presence import Away, Presence
from intavo.core.replies import (
    Cell,
    Reply,
)
from intavo.core.say import Tongue
from intavo.core.showing import (
    Around,
    Compiled,
    Hides,
    SiteRules,
    TouchpointState,
    hidden_cells,
    with_groups,
    without_languages,
)
from intavo.core.tongues import tongue_of
from intavo.core.touchpoint import INTERRUPTING, Document, HouseStyle, for_visitors, needs_more, queue_of
from intavo.hours.queries import all_hours, main_hours, presences, replies
from intavo.sites.models import Site
from intavo.sites.queries import rules_of

from .models import Touchpoint, TouchpointRevision, short_code
from .onsite import Answered, LiveSite, LiveTouchpoint
from .queries import drafts_on, groups_of, house_of, translated
from .revisions import document_of


def making(site: Site, hosts: frozenset[str] | None = None) -> "Making":
    """What the touchpoints of a site are made ready with."""
    on = frozenset(site.hosts.values_list("host", flat=True)) if hosts is None else hosts
    hours: dict[int | None, OpeningHours] = {None: main_hours(site.business_id, site.pk).value}
    for hours_id, one in all_hours(site.business_id).items():
        hours[hours_id] = one
    rules = rules_of(site)
    return Making(
        on,
        ZoneInfo(site.business.timezone),
        house_of(site),
        site.business.region,
        around_of(site, rules, on, hours),
        rules,
        groups_of(site.business_id),
        replies(site.business_id),
        presences(site.business_id),
        site.business.language,
        site.language,
        translated(site.pk),
    )


@dataclass(frozen=True, slots=True)
class Making:
    """What all touchpoints of a site are made ready with.

    `groups` holds ids by the name of their group, `translated` the languages of copies that are on, by the id
    of what they are copies of.
    """

    hosts: frozenset[str]
    zone: ZoneInfo
    house: HouseStyle | None
    region: str
    around: Around
    rules: SiteRules
    groups: Mapping[str, frozenset[str]]
    table: dict[Cell, Reply]
    members: tuple[Presence, ...]
    language: str
    speaks: str = ""
    translated: Mapping[int, tuple[str, ...]] = field(default_factory=dict)

    def tongue(self, own: str = "") -> Tongue:
        """What visitors are spoken to in: a touchpoint's own language, else the site's,
        else the business's.
        """
        return tongue_of((own, self.speaks, self.language), self.region)

    def hides(self, row: Touchpoint, document: Document) -> Hides | None:
        """What tells when a button is hidden by its own column; None where nothing ever hides it."""
        if document.stance != "button" or not hidden_cells(self.table, row.public_id):
            return None
        hours = any_of(self.around.hours, document.after.follows)
        return Hides(
            self.table, row.public_id, self.language, hours, self.members, document.language or self.speaks
        )

    def compiled(self, row: Touchpoint, document: Document, state: TouchpointState) -> Compiled:
        """A touchpoint's rules made ready."""
        show = with_groups(document.show, self.rules.by_name())
        show = without_languages(show, self.translated.get(row.pk, ()))
        return Compiled(
            row.public_id,
            state,
            self.hosts,
            show,
            self.zone,
            row.generation,
            row.order,
            interrupts=document.stance in INTERRUPTING,
            queue=queue_of(document.stance),
            around=self.around,
            mates=self.groups.get(show.group.casefold(), frozenset()) if show.group else frozenset(),
            goes_after=document.leaving.after,
            joins=document.purpose == "sign-up",
            gives=() if document.after.confirm.on else tuple(document.after.tags),
            hides=self.hides(row, document),
        )


def around_of(
    site: Site, rules: SiteRules, hosts: frozenset[str], hours: Mapping[int | None, OpeningHours]
) -> Around:
    """What the rules of the site's touchpoints may ask for."""
    others = Site.objects.filter(business_id=site.business_id).prefetch_related("hosts")
    return Around(
        search=frozenset(rules.search),
        social=frozenset(rules.social),
        search_media=frozenset(rules.search_media),
        social_media=frozenset(rules.social_media),
        hosts=hosts,
        hours=hours,
        sites={one.slug: frozenset(row.host for row in one.hosts.all()) for one in others},
        most_interruptions=rules.most_interruptions,
        gives_way=bool(rules.give_way_to),
    )


def _with_members(live: LiveTouchpoint, members: tuple[Presence, ...]) -> LiveTouchpoint:
    """A touchpoint with others at the counter."""
    if live.compiled.hides is None:
        return live
    return replace(live, compiled=replace(live.compiled, hides=replace(live.compiled.hides, members=members)))


def made_live(row: Touchpoint, revision: TouchpointRevision, making: Making) -> LiveTouchpoint:
    """A touchpoint of a site made ready, in a revision."""
    # What is published never changes again; a draft does.
    kept = revision.published_at is not None
    document = (
        document_of(revision.pk, revision.document) if kept else Document.model_validate(revision.document)
    )
    compiled = making.compiled(row, document, TouchpointState.LIVE)
    return live_touchpoint(
        compiled,
        document,
        row.slug,
        row.name,
        revision.number,
        house=making.house,
        region=making.region,
        tongue=making.tongue(document.language),
    )


def live_touchpoint(
    compiled: Compiled,
    document: Document,
    slug: str,
    name: str,
    revision: int,
    *,
    house: HouseStyle | None,
    region: str,
    tongue: Tongue,
) -> LiveTouchpoint:
    """A touchpoint made ready, whose rules are."""
    leads_to_us = document.asks_for_answer or bool(document.channels())
    speaks = document.stance == "button" and document.face.does is None and leads_to_us
    return LiveTouchpoint(
        compiled,
        slug,
        name,
        revision,
        document.stance,
        document=orjson.dumps(for_visitors(document, house, region, tongue=tongue)),
        needs_more=needs_more(document, house),
        again=document.show.how_often.every == "moment",
        channels=frozenset(document.channels()),
        code=short_code(compiled.id),
        answered=Answered(document.after.promise_minutes, document.after.follows) if speaks else None,
        language=document.language,
    )


def rehearsed(site: LiveSite, at_counter: bool, drafts: bool, draft: int | None = None) -> LiveSite:
    """The site with somebody at the counter or nobody; with all `drafts`, or one, as if they were on."""
    touchpoints = site.touchpoints
    if drafts or draft is not None:
        kept = Site.objects.select_related("business").get(pk=site.id)
        made = making(kept, site.hosts)
        rows = [(row, revision) for row, revision in drafts_on(site.id) if drafts or row.pk == draft]
        played = {row.public_id for row, _ in rows}
        touchpoints = tuple(made_live(row, revision, made) for row, revision in rows) + tuple(
            one for one in touchpoints if one.compiled.id not in played
        )
    members = (Presence(0, None if at_counter else Away(None, None)),)
    touchpoints = tuple(_with_members(one, members) for one in touchpoints)
    return replace(site, members=members, touchpoints=touchpoints)
