"""Rehearsals for the console: made-up visitors, the page map, visits played, and links into the real site."""

import base64
from collections.abc import Iterable
from dataclasses import dataclass, replace
from datetime import datetime, timedelta
from typing import Annotated, Any, Literal
from urllib.parse import urlsplit

from django.core import signing
from pydantic import BaseModel, ConfigDict, Field, TypeAdapter, ValidationError

from intavo.accounts.actor import Actor, Refused
from intavo.accounts.scope import own
from intavo.core.links import Channel, Met
from intavo.core.refusals import wrongs
from intavo.core.rights import Right
from intavo.core.showing import (
    Compiled,
    OnPages,
    Rehearsal,
    TouchpointState,
    Verdict,
    Visit,
    decide,
    on_pages,
    rehearse,
    taking_turns,
)
from intavo.core.showing.deeds import Deed
from intavo.core.showing.visit import Began
from intavo.core.times import Moment
from intavo.core.touchpoint import Document
from intavo.core.touchpoint.who import Way
from intavo.results.queries import Tally, tallies
from intavo.sites.models import Site, SitePage
from intavo.sites.queries import home_of, pages_of, sites_of
from intavo.touchpoints.live import live_site
from intavo.touchpoints.making import Making, making, rehearsed
from intavo.touchpoints.models import RehearsalVisitor, Touchpoint
from intavo.touchpoints.onsite import LiveSite
from intavo.touchpoints.queries import touchpoints_of

MOST_COLUMNS, MOST_PAGES = 8, 40
LINK_LASTS = timedelta(hours=1)
_SALT = "intavo.rehearsal"
_DEEDS: TypeAdapter[list[Deed]] = TypeAdapter(Annotated[list[Deed], Field(max_length=100)])


class MadeUp(BaseModel):
    """A visitor as the owner describes them. `visits` counts this one: 1 is their first.

    `at_counter`: whether anybody of the business is there to answer. `drafts`: as if all touchpoints were on
    as they stand now; `draft`: as if that one were, by its id, and the others as they are.
    """

    model_config = ConfigDict(extra="forbid")
    device: Literal["desktop", "tablet", "phone"] = "desktop"
    visits: int = Field(1, ge=1, le=10_000)
    arrival: Way = "typed"
    landing: str = Field("", max_length=500)
    language: str = Field("en", max_length=35)
    on_list: bool = False
    signed_in: bool = False
    tags: tuple[str, ...] = Field((), max_length=40)
    storage: bool = True
    at_counter: bool = True
    at: Moment
    drafts: bool = False
    draft: int | None = None


@dataclass(frozen=True, slots=True)
class Scene:
    """A site with its touchpoints made ready for a made-up visitor."""

    site: Site
    base: str
    rows: list[Touchpoint]
    compiled: dict[int, Compiled]
    documents: dict[int, Document]
    made: Making
    live: LiveSite

    def said(self, touchpoint_id: int, visitor: MadeUp, after: float) -> str:
        """What is said to them where they send a touchpoint so many seconds after they come;
        "" for nothing.
        """
        at = visitor.at + timedelta(seconds=after)
        said = self.live.answers(
            self.documents[touchpoint_id], at, visitor.language, None, self.compiled[touchpoint_id].id
        )
        if said is None or said.told is None:
            return ""
        return ". ".join(words for words in (said.title.rstrip("."), said.text) if words)

    def channels(self, touchpoint_id: int, visitor: MadeUp, after: float) -> list[str]:
        """Each of a touchpoint's channels as they meet it so many seconds after they come, in words."""
        at, document = visitor.at + timedelta(seconds=after), self.documents[touchpoint_id]
        named = document.channels()
        ids = [id_ for id_ in self.live.channels if "all" in named or id_ in named]
        return [
            _met_words(self.live.channels[id_], self.live.meets(id_, at, visitor.language, None))
            for id_ in ids
        ]

    def visit(self, made_up: MadeUp, path: str, kinds: Iterable[str] = ()) -> Visit:
        """The visitor on a page."""
        landing = self.base + (made_up.landing or path)
        visitor = {
            "visits": made_up.visits,
            "pages_ever": max(1, made_up.visits),
            "language": made_up.language,
            "on_list": made_up.on_list,
            "tags": list(made_up.tags),
            "first_page": landing,
            "visit_started": made_up.at.isoformat(),
            "arrival": {"url": landing, "referrer": self._referrer(made_up.arrival)},
            "utc_offset": int((made_up.at.utcoffset() or timedelta()).total_seconds() // 60),
        }
        page = {"url": self.base + path, "kinds": list(kinds), "signed_in": made_up.signed_in}
        return Visit.model_validate(
            {"page": page, "device": made_up.device, "visitor": visitor, "storage": made_up.storage}
        )

    def _referrer(self, way: Way) -> str:
        """An address that counts as this way; an unlisted one where the owner has listed none."""
        rules = self.made.rules
        listed = {"search": rules.search, "social": rules.social}.get(way, ())
        host = {"typed": "", "here": urlsplit(self.base).netloc}.get(
            way, listed[0] if listed else "another-site.example"
        )
        return f"https://{host}/" if host else ""


def _met_words(channel: Channel, met: Met) -> str:
    if met.hidden:
        return f"{channel.label}: hidden"
    said = ". ".join(words.rstrip(".") for words in (met.says or ()) if words)
    name = f"“{met.button}”" if met.button and met.button != channel.label else "shown"
    return f"{channel.label}: {name}{f', and beside it “{said}.”' if said else ''}"


def scene(actor: Actor, site_id: int, visitor: MadeUp) -> Scene:
    """The site with its touchpoints as this visitor meets them."""
    site = sites_of(actor).get(pk=site_id)
    live = live_site(site.key)
    assert live is not None
    played_on = rehearsed(live, visitor.at_counter, False)
    # Who is at the counter is theirs to say, also for what the table of replies hides.
    made = replace(making(site), members=played_on.members)
    rows = [row for row in touchpoints_of(actor) if site.pk in {one.pk for one in row.sites.all()}]
    compiled: dict[int, Compiled] = {}
    documents: dict[int, Document] = {}
    for row in rows:
        played = visitor.drafts or row.pk == visitor.draft
        revision = row.draft if played or row.live is None else row.live
        assert revision is not None
        state = TouchpointState.LIVE if played else TouchpointState(row.state)
        documents[row.pk] = Document.model_validate(revision.document)
        compiled[row.pk] = made.compiled(row, documents[row.pk], state)
    return Scene(site, home_of(site) or "https://site.example", rows, compiled, documents, made, played_on)


@dataclass(frozen=True, slots=True)
class Column:
    """Pages under one head."""

    label: str
    pages: tuple[SitePage, ...]
    shared: int


@dataclass(frozen=True, slots=True)
class PageMap:
    """Touchpoints by known pages."""

    columns: tuple[Column, ...]
    rows: tuple[tuple[Touchpoint, tuple[OnPages, ...], Tally], ...]


def page_map(actor: Actor, site_id: int, visitor: MadeUp, now: datetime) -> PageMap:
    """Which touchpoint shows on which page to this visitor at this time, and why not."""
    found = scene(actor, site_id, visitor)
    columns = _columns(pages_of(actor, site_id))
    counts = tallies(actor, at=now, site_id=site_id)
    heads, cells = [], []
    for label, pages in columns:
        visits = [(page.path, found.visit(visitor, page.path, page.kinds)) for page in pages[:MOST_PAGES]]
        ready = [found.compiled[row.pk] for row in found.rows]
        column, shared = taking_turns(
            [(compiled, on_pages(compiled, visits, visitor.at)) for compiled in ready]
        )
        heads.append(Column(label, pages, shared))
        cells.append(column)
    rows = tuple(
        (row, tuple(column[at] for column in cells), counts.get(row.public_id, Tally()))
        for at, row in enumerate(found.rows)
    )
    return PageMap(tuple(heads), rows)


def _columns(pages: list[SitePage]) -> list[tuple[str, tuple[SitePage, ...]]]:
    """The most seen parts of the site: a page, or a page with those below it."""
    parts: dict[str, list[SitePage]] = {}
    for page in pages:
        parts.setdefault(page.path.strip("/").partition("/")[0], []).append(page)
    most = sorted(parts.items(), key=lambda part: (part[0] != "", -sum(page.views for page in part[1])))[
        :MOST_COLUMNS
    ]
    return [
        (f"/{name}{'…' if len(found) > 1 else ''}", tuple(sorted(found, key=lambda p: p.path)))
        for name, found in most
    ]


def why_there(
    actor: Actor, site_id: int, visitor: MadeUp, touchpoint_id: int, column: int
) -> list[tuple[str, Verdict]]:
    """The verdict on a touchpoint for each page of a column of the map."""
    found, columns = scene(actor, site_id, visitor), _columns(pages_of(actor, site_id))
    if touchpoint_id not in found.compiled:
        raise Refused(("touchpoint_id", "This touchpoint does not stand on this site."))
    if column >= len(columns):
        raise Refused(("column", "There are no such pages."))
    compiled = found.compiled[touchpoint_id]
    return [
        (page.path, decide(compiled, found.visit(visitor, page.path, page.kinds), visitor.at))
        for page in columns[column][1][:MOST_PAGES]
    ]


def play(
    actor: Actor, site_id: int, visitor: MadeUp, deeds: list[dict[str, Any]], length: float
) -> tuple[Scene, Rehearsal]:
    """Play a visit; raises Refused with the deed that cannot be read."""
    found = scene(actor, site_id, visitor)
    ids = {row.slug: row.public_id for row in found.rows}
    written = [
        deed
        | ({"url": found.base + deed["url"]} if str(deed.get("url", "")).startswith("/") else {})
        | ({"touchpoint": ids.get(str(deed["touchpoint"]), "-")} if "touchpoint" in deed else {})
        for deed in deeds
    ]
    try:
        done = _DEEDS.validate_python(written)
    except ValidationError as error:
        raise Refused(*wrongs(error.errors(), "deeds")) from error
    first = next((deed.url for deed in done if deed.do == "page"), found.base + "/")
    visit = found.visit(visitor, first.removeprefix(found.base) or "/")
    return found, rehearse(found.compiled.values(), visit, done, visitor.at, min(length, 400 * 86400))


def link(actor: Actor, site_id: int, visitor: MadeUp, path: str, now: datetime) -> str:
    """An address on the real site, good for an hour, where it behaves as for this visitor at this time."""
    found = scene(actor, site_id, visitor)
    if found.site.seen_at is None:
        raise Refused(
            ("site", "The snippet has not been seen on this site yet; open the site once, and try again.")
        )
    arrival = found.visit(visitor, path or "/").visitor.arrival.model_dump()
    said = {
        "site": found.site.pk,
        "as": visitor.model_dump(mode="json"),
        "from": now.isoformat(),
        "arrival": arrival,
    }
    token = signing.dumps(said, salt=_SALT, compress=True)
    packed = base64.urlsafe_b64encode(token.encode()).decode().rstrip("=")
    return f"{found.base}{path or '/'}#intavo_as_{packed}"


def keep_visitor(actor: Actor, *, name: str, document: dict[str, Any]) -> RehearsalVisitor:
    """Keep a made-up visitor, or write the one of this name anew."""
    actor.needs(Right.TOUCHPOINTS)
    if not name.strip():
        raise Refused(("name", "Please write a name for this visitor."))
    row, _ = RehearsalVisitor.objects.update_or_create(
        business_id=actor.business_id, name=name.strip()[:80], defaults={"document": document}
    )
    return row


def forget_visitor(actor: Actor, *, visitor_id: int) -> None:
    """Forget a made-up visitor."""
    actor.needs(Right.TOUCHPOINTS)
    own(actor, RehearsalVisitor, visitor_id).delete()


@dataclass(frozen=True, slots=True)
class As:
    """What a link stands for: the visitor, how they came, and how far their time is from ours."""

    visitor: MadeUp
    ahead: timedelta
    arrival: Began

    def site(self, site: LiveSite) -> LiveSite:
        """The site as this visitor meets it."""
        return rehearsed(site, self.visitor.at_counter, self.visitor.drafts, self.visitor.draft)

    def as_they(self, visit: Visit) -> Visit:
        """A page view of the member's browser as this visitor's; what it has come to know meanwhile stays."""
        said, one = visit.visitor, self.visitor
        arrival = self.arrival if said.visits <= 1 else said.arrival
        visitor = said.model_copy(
            update={
                "visits": said.visits + one.visits - 1,
                "language": one.language,
                "arrival": arrival,
                "on_list": said.on_list or one.on_list,
                "tags": (*said.tags, *one.tags),
                "pages_ever": said.pages_ever + one.visits - 1,
            }
        )
        page = visit.page.model_copy(update={"signed_in": visit.page.signed_in or one.signed_in})
        return visit.model_copy(
            update={
                "visitor": visitor,
                "page": page,
                "device": one.device,
                "storage": visit.storage and one.storage,
            }
        )


def read_link(token: str, site_id: int) -> As:
    """What a link stands for; Refused for one that is forged, too old, or another site's."""
    over = Refused(("rehearsal", "This link is over; make a new one."))
    try:
        said = signing.loads(token, salt=_SALT, max_age=LINK_LASTS)
    except signing.BadSignature:
        raise over from None
    if said["site"] != site_id:
        raise over
    visitor = MadeUp.model_validate(said["as"])
    arrival = Began.model_validate(said["arrival"])
    return As(visitor, visitor.at - datetime.fromisoformat(said["from"]), arrival)
