"""What the visitor's side needs of a site, read once for each revision of the site and kept.

The revision is looked up at most once a second, so that every server process sees a change within a
second while a page view costs no query. Sites that nobody asks for are let go.
"""

import json
import threading
import time
from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from datetime import datetime
from functools import cached_property
from zoneinfo import ZoneInfo

from cachetools import LRUCache, cached

from intavo.accounts.models import Business
from intavo.channels.queries import kept
from intavo.core.hours import AnyHours, OpeningHours, any_of, next_closing, next_opening
from intavo.core.links import Channel, Met, meet
from intavo.core.presence import Away, Presence, back_at, changes_at, somebody_free
from intavo.core.replies import (
    Cell,
    Chosen,
    Promise,
    Reply,
    Situation,
    Slot,
    choose,
    fill,
    first_promise,
    situation,
    slots,
)
from intavo.core.say import Tongue
from intavo.core.showing import Around, Compiled, Hides, SiteRules, State, hidden_cells, with_groups
from intavo.core.touchpoint import INTERRUPTING, Document, HouseStyle, Moment, for_visitors, needs_more, queue_of
from intavo.hours.queries import all_hours, main_hours, presences, replies
from intavo.sites.models import Site
from intavo.sites.queries import rules_of

from .models import Touchpoint, TouchpointRevision, short_code
from .queries import drafts_on, groups_of, house_of, live_on, published

_LOOK_AGAIN = 1.0


@dataclass(frozen=True, slots=True)
class Answered:
    """How what comes in by a button's card is answered: its own promise in open minutes, and its own hours."""

    promise_minutes: int | None
    follows: tuple[int | None, ...]


@dataclass(frozen=True, slots=True)
class LiveTouchpoint:
    """A touchpoint that is on: its rules compiled, its document and the start of its entry written as JSON."""

    compiled: Compiled
    slug: str
    name: str
    revision: int
    stance: str
    head_json: str
    document_json: str
    moments_json: dict[int, str]
    channels: frozenset[str] = frozenset()
    code: str = ""
    talks: bool = False
    answered: Answered | None = None
    _labelled: dict[str, str] = field(default_factory=dict)

    def labelled(self, label: str) -> str:
        """Its document as JSON with these words on its button; "" leaves its own."""
        if not label:
            return self.document_json
        if label not in self._labelled:
            document = json.loads(self.document_json)
            document["face"]["label"] = label
            self._labelled[label] = json.dumps(document, ensure_ascii=False, separators=(",", ":"))
        return self._labelled[label]

    def moments(self, moments: tuple[tuple[Moment, ...], ...]) -> str:
        """Moments as JSON; those of one sentence, which most entries have, were written beforehand."""
        known = self.moments_json.get(id(moments))
        return known if known is not None else written_moments(moments)


@dataclass(frozen=True, slots=True)
class Said:
    """What the visitor is told now: the situation, until when it holds, and the words (None: hidden)."""

    situation: Situation
    chosen: Chosen
    title: str
    text: str
    due: datetime | None
    words: dict[Slot, str]

    @property
    def told(self) -> dict[str, str] | None:
        """What visitors read; None where the owner hides it."""
        return None if self.chosen.reply.hidden else {"title": self.title, "text": self.text}


def written_moments(moments: tuple[tuple[Moment, ...], ...]) -> str:
    """Moments as the protocol writes them."""
    return json.dumps([[one.given() for one in all_of] for all_of in moments])


@dataclass
class LiveSite:
    """A site as visitors meet it."""

    id: int
    key: str
    slug: str
    revision: int
    hosts: frozenset[str]
    business: Business
    hours: OpeningHours
    table: dict[Cell, Reply]
    members: tuple[Presence, ...]
    touchpoints: tuple[LiveTouchpoint, ...]
    rules: SiteRules
    other_hours: dict[int, OpeningHours] = field(default_factory=dict)
    channels: dict[str, Channel] = field(default_factory=dict)
    checked: float = 0.0
    _said: dict[tuple[object, ...], Said] = field(default_factory=dict)
    _ends: dict[tuple[int, Situation, tuple[int | None, ...]], datetime | None] = field(default_factory=dict)
    _met: dict[tuple[object, ...], Met] = field(default_factory=dict)

    @cached_property
    def wants(self) -> dict[str, object] | None:
        """What the rules want to know of the page: its kinds, and whether somebody is signed in to it."""
        sentences = [one for live in self.touchpoints for one in live.compiled.show.sentences]
        kinds = any(one.kinds or one.not_kinds for one in sentences)
        asked = any(piece.kind == "signed_in" for one in sentences for piece in one.who)
        signed_in = self.rules.signed_in if asked else ""
        return {"kinds": kinds, "signed_in": signed_in} if kinds or signed_in else None

    @property
    def zone(self) -> ZoneInfo:
        """The business's zone."""
        return ZoneInfo(self.business.timezone)

    def promise(self, own_minutes: int | None = None) -> Promise:
        """The promise that applies: the touchpoint's own (open minutes), else the business's."""
        own = None if own_minutes is None else Promise.of_minutes(own_minutes)
        return first_promise(own, Promise.of_minutes(self.business.promise_minutes))

    def hours_for(self, follows: tuple[int | None, ...]) -> AnyHours:
        """The hours that apply: those that are named and are there, any of them, else the main ones."""
        return any_of(self.sets, follows)

    def says(
        self, at: datetime, language: str, utc_offset: int | None, own_minutes: int | None = None,
        follows: tuple[int | None, ...] = (), column: str | None = None,
    ) -> Said:  # fmt: skip
        """What is said at an instant. Hours, due times and words change on whole minutes only, so one
        answer serves every visitor of that minute with the same language and offset."""
        minute = int(at.timestamp()) // 60
        key = (minute, language, utc_offset, own_minutes, follows, column)
        known = self._said.get(key)
        if known is None:
            if len(self._said) > 500:
                self._said.clear()
            known = self._said[key] = self._say(at, language, utc_offset, own_minutes, follows, column)
        return known

    def faced(
        self, live: LiveTouchpoint, at: datetime, language: str, utc_offset: int | None
    ) -> tuple[str, datetime | None]:
        """What a button says by the table of replies ("": its own words), and when hours of its own next change."""
        answered, id_ = live.answered, live.compiled.id
        if answered is None:
            return "", None
        said = self.says(at, language, utc_offset, answered.promise_minutes, answered.follows, id_)
        ends = self.situation_ends(said.situation, at, answered.follows) if answered.follows else None
        return said.chosen.button(said.situation, id_), ends

    def situation_ends(self, now: Situation, at: datetime, follows: tuple[int | None, ...] = ()) -> datetime | None:
        """When the hours next change; like what is said, one answer serves every visitor of a minute."""
        key = (int(at.timestamp()) // 60, now, follows)
        known = self._ends.get(key, ...)
        if known is ...:
            if len(self._ends) > 100:
                self._ends.clear()
            is_open = now in {Situation.OPEN, Situation.NOBODY_FREE}
            hours = self.hours_for(follows)
            turn = next_closing(hours, at) if is_open else next_opening(hours, at)
            comes = changes_at(self.members, at)
            known = self._ends[key] = min((one for one in (turn, comes) if one is not None), default=None)
        return known

    @cached_property
    def talks(self) -> bool:
        """Whether a conversation stands on the site."""
        return any(one.talks for one in self.touchpoints)

    @cached_property
    def sets(self) -> dict[int | None, OpeningHours]:
        """All sets of hours, the main ones under None."""
        found: dict[int | None, OpeningHours] = {None: self.hours}
        for id_, one in self.other_hours.items():
            found[id_] = one
        return found

    def meets(self, channel_id: str, at: datetime, language: str, utc_offset: int | None) -> Met:
        """A channel as a visitor meets it at an instant; worked out once a minute, as what is said is."""
        key = (int(at.timestamp()) // 60, channel_id, language, utc_offset)
        known = self._met.get(key)
        if known is None:
            if len(self._met) > 1000:
                self._met.clear()
            known = self._met[key] = meet(
                self.channels[channel_id], channel_id, self.sets, at, self.members, table=self.table,
                language=language, business_language=self.business.language, promise=self.promise(),
                visitor_offset=utc_offset,
            )  # fmt: skip
        return known

    def answers(
        self, document: Document, at: datetime, language: str, utc_offset: int | None, column: str | None = None
    ) -> Said | None:
        """What is said to whoever sends a touchpoint, by its own hours and promise; None where nobody answers it.

        `column` is the touchpoint's id, under which it may have words of its own.
        """
        if not document.asks_for_answer:
            return None
        return self.says(at, language, utc_offset, document.after.promise_minutes, document.after.follows, column)

    def rehearsed(self, at_counter: bool, drafts: bool, draft: int | None = None) -> "LiveSite":
        """The site with somebody at the counter or nobody; with all `drafts`, or one, as if they were on."""
        touchpoints = self.touchpoints
        if drafts or draft is not None:
            site = Site.objects.select_related("business").get(pk=self.id)
            made = making(site, self.hosts)
            rows = [(row, revision) for row, revision in drafts_on(self.id) if drafts or row.pk == draft]
            played = {row.public_id for row, _ in rows}
            touchpoints = tuple(_live(row, revision, made) for row, revision in rows) + tuple(
                one for one in touchpoints if one.compiled.id not in played
            )
        members = (Presence(0, None if at_counter else Away(None, None)),)
        touchpoints = tuple(_with_members(one, members) for one in touchpoints)
        return replace(self, members=members, touchpoints=touchpoints, _said={}, _ends={}, _met={})

    def _say(
        self, at: datetime, language: str, utc_offset: int | None, own_minutes: int | None,
        follows: tuple[int | None, ...], column: str | None,
    ) -> Said:  # fmt: skip
        hours = self.hours_for(follows)
        now = situation(hours, at, somebody_free(self.members, at))
        chosen = choose(self.table, now, language, self.business.language, column)
        due = self.promise(own_minutes).due(hours, at)
        words = slots(
            hours, at, self.zone, due, utc_offset, back_at(self.members, at, hours),
            Tongue(chosen.cell.language, self.business.region),
        )  # fmt: skip
        return Said(now, chosen, fill(chosen.reply.title, words), fill(chosen.reply.text, words), due, words)


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
        id=site.pk, key=key, slug=site.slug, revision=site.revision, hosts=hosts, business=site.business,
        hours=main_hours(site.business_id, site.pk).value, table=made.table, rules=made.rules,
        members=made.members, channels={row.public_id: row.value for row in kept(site.business_id)},
        touchpoints=tuple(_live(row, revision, made) for row, revision in live_on(site.pk)), other_hours=others,
    )  # fmt: skip


def making(site: Site, hosts: frozenset[str] | None = None) -> "Making":
    """What the touchpoints of a site are made ready with."""
    on = frozenset(site.hosts.values_list("host", flat=True)) if hosts is None else hosts
    hours: dict[int | None, OpeningHours] = {None: main_hours(site.business_id, site.pk).value}
    for hours_id, one in all_hours(site.business_id).items():
        hours[hours_id] = one
    rules = rules_of(site)
    return Making(
        on, ZoneInfo(site.business.timezone), house_of(site), site.business.region,
        around_of(site, rules, on, hours), rules, groups_of(site.business_id), replies(site.business_id),
        presences(site.business_id), site.business.language,
    )  # fmt: skip


@dataclass(frozen=True, slots=True)
class Making:
    """What all touchpoints of a site are made ready with; `groups` holds ids by the name of their group."""

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

    def hides(self, row: Touchpoint, document: Document) -> Hides | None:
        """What tells when a button is hidden by its own column; None where nothing ever hides it."""
        if document.stance != "button" or not hidden_cells(self.table, row.public_id):
            return None
        hours = any_of(self.around.hours, document.after.follows)
        return Hides(self.table, row.public_id, self.language, hours, self.members)

    def compiled(self, row: Touchpoint, document: Document, state: State) -> Compiled:
        """A touchpoint's rules made ready."""
        show = with_groups(document.show, self.rules.by_name())
        return Compiled(
            row.public_id, state, self.hosts, show, self.zone, row.generation, row.order,
            interrupts=document.stance in INTERRUPTING, queue=queue_of(document.stance), around=self.around,
            mates=self.groups.get(show.group.casefold(), frozenset()) if show.group else frozenset(),
            goes_after=document.leaving.after, joins=document.purpose == "sign-up",
            gives=() if document.after.confirm.on else tuple(document.after.tags), hides=self.hides(row, document),
        )  # fmt: skip


def around_of(site: Site, rules: SiteRules, hosts: frozenset[str], hours: Mapping[int | None, OpeningHours]) -> Around:
    """What the rules of the site's touchpoints may ask for."""
    others = Site.objects.filter(business_id=site.business_id).prefetch_related("hosts")
    return Around(
        search=frozenset(rules.search), social=frozenset(rules.social), search_media=frozenset(rules.search_media),
        social_media=frozenset(rules.social_media), hosts=hosts, hours=hours,
        sites={one.slug: frozenset(row.host for row in one.hosts.all()) for one in others},
        most_interruptions=rules.most_interruptions, gives_way=bool(rules.give_way_to),
    )  # fmt: skip


def _with_members(live: LiveTouchpoint, members: tuple[Presence, ...]) -> LiveTouchpoint:
    """A touchpoint with others at the counter."""
    if live.compiled.hides is None:
        return live
    return replace(live, compiled=replace(live.compiled, hides=replace(live.compiled.hides, members=members)))


def _live(row: Touchpoint, revision: TouchpointRevision, made: Making) -> LiveTouchpoint:
    # What is published never changes again; a draft does.
    kept = revision.published_at is not None
    document = document_of(revision.pk, revision.document) if kept else Document.model_validate(revision.document)
    house, region = made.house, made.region
    compiled = made.compiled(row, document, State.LIVE)
    written = json.dumps(for_visitors(document, house, region), ensure_ascii=False, separators=(",", ":"))
    head = json.dumps(
        {
            "id": row.public_id,
            "slug": row.slug,
            "revision": revision.number,
            "variant": None,
            "generation": row.generation,
            "stance": document.stance,
            "order": row.order,
            "queue": queue_of(document.stance),
            "needs_more": needs_more(document, house),
            "again": document.show.how_often.every == "moment",
        }
    )
    moments = {id(one.moments): written_moments(one.moments) for one in compiled.show.sentences}
    leads_to_us = document.asks_for_answer or bool(document.channels())
    speaks = document.stance == "button" and document.face.does is None and leads_to_us
    return LiveTouchpoint(
        compiled,
        row.slug,
        row.name,
        revision.number,
        document.stance,
        head[:-1],
        written,
        moments,
        frozenset(document.channels()),
        short_code(row.public_id),
        document.talk is not None,
        Answered(document.after.promise_minutes, document.after.follows) if speaks else None,
    )


@cached(LRUCache(1024), key=lambda revision_pk, _written=None: revision_pk, lock=threading.Lock())
def document_of(revision_pk: int, written: object = None) -> Document:
    """The document of a published revision, which never changes again; `written` spares asking for it."""
    if written is None:
        written = TouchpointRevision.objects.values_list("document", flat=True).get(pk=revision_pk)
    return Document.model_validate(written)


@dataclass(frozen=True, slots=True)
class Published:
    """A revision that was given to visitors, with its touchpoint's ids."""

    revision: int
    number: int
    touchpoint: int
    public_id: str


def published_revision(business_id: int, public_id: str, number: int) -> Published | None:
    """The revision that a visitor says they saw; None if there is none that was ever live."""
    try:
        return _published(business_id, public_id, number)
    except LookupError:
        return None


# What is published stays so; what is not yet (LookupError) is not remembered.
@cached(LRUCache(4096), lock=threading.Lock())
def _published(business_id: int, public_id: str, number: int) -> Published:
    row = published(business_id, public_id, number)
    if row is None:
        raise LookupError(public_id)
    return Published(row.pk, row.number, row.touchpoint_id, public_id)


def name_of(site: "LiveSite", seen: Published) -> str:
    """What the owner calls the touchpoint now."""
    live = next((one.name for one in site.touchpoints if one.compiled.id == seen.public_id), None)
    return live or Touchpoint.objects.values_list("name", flat=True).get(pk=seen.touchpoint)
