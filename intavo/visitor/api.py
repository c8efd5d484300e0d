"""What the console shows as visitors would get it: the stage's extras, the page map, and rehearsals."""

from datetime import datetime
from typing import Annotated, Any

from ninja import Router, Schema, Status
from pydantic import Field

from intavo import clock
from intavo.accounts.auth import MemberAuth, MemberRequest
from intavo.core.holds import Holds
from intavo.core.showing import OnPages
from intavo.core.showing.deeds import Deed
from intavo.core.touchpoint import Document
from intavo.results.queries import refused_beats
from intavo.sites.queries import sites_of
from intavo.touchpoints.live import live_site
from intavo.touchpoints.models import RehearsalVisitor
from intavo.touchpoints.queries import touchpoints_of

from . import rehearsing
from .connecting import instructions_of, send_instructions
from .more import extras, sample_code
from .rehearsing import MadeUp
from .wire import Extras

router = Router(tags=["touchpoints"], auth=MemberAuth())


@router.get("/touchpoints/{touchpoint_id}/extras", response=Extras)
def stage_extras(request: MemberRequest, touchpoint_id: int) -> Extras:
    """What the draft's parts need besides the document; empty where it stands on no site."""
    row = touchpoints_of(request.auth).get(pk=touchpoint_id)
    placed = next(iter(row.sites.all()), None)
    site = live_site(placed.key) if placed else None
    nothing: Extras = {"slots": {}, "hours": None, "questions": []}
    if row.draft is None:
        return nothing
    document = Document.model_validate(row.draft.document)
    given = extras(row.business_id, document, site, row.pk, clock.now()) if site is not None else nothing
    given["code"] = sample_code(document, row.pk)
    return given


class RefusedOut(Schema):
    why: str
    count: int


_NOT_COUNTED = {
    "unreadable": "could not be read", "touchpoint": "of touchpoints that are not live on this site",
    "revision": "of touchpoints as they never were", "page": "from pages of other sites",
    "often": "more from one address than visitors send",
}  # fmt: skip


@router.get("/sites/{site_id}/refused", response=list[RefusedOut])
def refused(request: MemberRequest, site_id: int) -> list[RefusedOut]:
    """Reports of the last seven days that are in no figure, by why."""
    site = sites_of(request.auth).get(pk=site_id)
    found = refused_beats(request.auth, site_id=site.pk, at=clock.now())
    return [RefusedOut(why=_NOT_COUNTED[why], count=count) for why, count in found.items()]


class ReasonOut(Schema):
    name: str
    passed: bool
    words: str
    when: datetime | None


class PageReasonsOut(Schema):
    path: str
    shows: bool
    reasons: list[ReasonOut]


class CellOut(Schema):
    """A touchpoint on the pages of a column: whether it shows, in a word or two, and the paths on which it
    does.
    """

    shows: str
    words: str
    on: list[str]

    @staticmethod
    def of(cell: OnPages) -> "CellOut":
        """A cell as it is told."""
        return CellOut(shows=cell.shows, words=cell.words, on=list(cell.on))


class ColumnOut(Schema):
    label: str
    paths: list[str]
    shared: int


class MapRowOut(Schema):
    id: int
    seen: int
    goals: int
    rate: float | None
    cells: list[CellOut]


class MapOut(Schema):
    columns: list[ColumnOut]
    rows: list[MapRowOut]


class MapIn(Schema):
    site_id: int
    visitor: MadeUp


@router.post("/page-map", response=MapOut)
def page_map(request: MemberRequest, body: MapIn) -> MapOut:
    """Touchpoints by known pages, as this visitor gets them at this time."""
    found = rehearsing.page_map(request.auth, body.site_id, body.visitor, clock.now())
    columns = [
        ColumnOut(label=one.label, paths=[page.path for page in one.pages], shared=one.shared)
        for one in found.columns
    ]
    rows = [
        MapRowOut(
            id=row.pk,
            seen=tally.seen,
            goals=tally.goals,
            rate=tally.rate,
            cells=[CellOut.of(cell) for cell in cells],
        )
        for row, cells, tally in found.rows
    ]
    return MapOut(columns=columns, rows=rows)


class WhyIn(MapIn):
    touchpoint_id: int
    column: int = Field(ge=0)


@router.post("/page-map/why", response=list[PageReasonsOut])
def why_there(request: MemberRequest, body: WhyIn) -> list[PageReasonsOut]:
    """Why a touchpoint shows on each page of a column of the map, or does not."""
    verdicts = rehearsing.why_there(request.auth, body.site_id, body.visitor, body.touchpoint_id, body.column)
    return [
        PageReasonsOut(
            path=path,
            shows=verdict.shows,
            reasons=[
                ReasonOut(name=one.name, passed=one.passed, words=one.sentence, when=one.when)
                for one in verdict.checks
            ],
        )
        for path, verdict in verdicts
    ]


class RehearseIn(MapIn):
    deeds: list[Annotated[dict[str, Any], Holds(Deed)]]
    length: float = 0


class TrackStretchOut(Schema):
    start: float
    end: float
    doing: str
    words: str
    said: str
    channels: list[str]
    reasons: list[ReasonOut]


class TrackOut(Schema):
    id: int
    name: str
    stance: str
    stretches: list[TrackStretchOut]


class PageTrackOut(Schema):
    start: float
    path: str
    visit: int


class RehearsalOut(Schema):
    length: float
    pages: list[PageTrackOut]
    tracks: list[TrackOut]


@router.post("/rehearsals", response=RehearsalOut)
def rehearse(request: MemberRequest, body: RehearseIn) -> RehearsalOut:
    """Play a visit; nothing of it is counted or kept."""
    scene, played = rehearsing.play(request.auth, body.site_id, body.visitor, body.deeds, body.length)
    tracks = []
    for row in scene.rows:
        stretches = [
            TrackStretchOut(
                start=one.start,
                end=one.end,
                doing=one.doing,
                words=one.words,
                said=scene.said(row.pk, body.visitor, one.start) if one.doing == "on screen" else "",
                channels=scene.channels(row.pk, body.visitor, one.start) if one.doing == "on screen" else [],
                reasons=[
                    ReasonOut(name=r.name, passed=r.passed, words=r.words, when=r.when) for r in one.reasons
                ],
            )
            for one in played.tracks[row.public_id]
        ]
        tracks.append(
            TrackOut(id=row.pk, name=row.name, stance=scene.documents[row.pk].stance, stretches=stretches)
        )
    pages = [
        PageTrackOut(start=one.start, path=one.path.removeprefix(scene.base) or "/", visit=one.visit)
        for one in played.pages
    ]
    return RehearsalOut(length=played.length, pages=pages, tracks=tracks)


class LinkIn(MapIn):
    path: str = "/"


class LinkOut(Schema):
    url: str


@router.post("/rehearsals/link", response=LinkOut)
def link(request: MemberRequest, body: LinkIn) -> LinkOut:
    """An address on the real site, good for an hour, where it behaves as for this visitor at this time."""
    return LinkOut(url=rehearsing.link(request.auth, body.site_id, body.visitor, body.path, clock.now()))


class VisitorIn(Schema):
    name: str
    document: Annotated[dict[str, Any], Holds(MadeUp)]


class VisitorOut(Schema):
    id: int
    name: str
    document: Annotated[dict[str, Any], Holds(MadeUp)]


@router.get("/rehearsal-visitors", response=list[VisitorOut])
def visitors(request: MemberRequest) -> list[VisitorOut]:
    """The made-up visitors that are kept."""
    rows = RehearsalVisitor.objects.filter(business_id=request.auth.business_id)
    return [VisitorOut(id=row.pk, name=row.name, document=row.document) for row in rows]


@router.post("/rehearsal-visitors", response={201: VisitorOut})
def keep_visitor(request: MemberRequest, body: VisitorIn) -> Status[VisitorOut]:
    """Keep a made-up visitor under a name."""
    row = rehearsing.keep_visitor(request.auth, name=body.name, document=body.document)
    return Status(201, VisitorOut(id=row.pk, name=row.name, document=row.document))


@router.delete("/rehearsal-visitors/{visitor_id}", response={204: None})
def forget_visitor(request: MemberRequest, visitor_id: int) -> Status[None]:
    """Forget a made-up visitor."""
    rehearsing.forget_visitor(request.auth, visitor_id=visitor_id)
    return Status(204, None)


class InstructionsIn(Schema):
    to: str


class InstructionsOut(Schema):
    text: str


@router.get("/sites/{site_id}/instructions", response=InstructionsOut)
def instructions_text(request: MemberRequest, site_id: int) -> InstructionsOut:
    """How to put the line in, to be sent from the member's own mail."""
    return InstructionsOut(text=instructions_of(request.auth, site_id))


@router.post("/sites/{site_id}/instructions", response={202: None})
def instructions(request: MemberRequest, site_id: int, body: InstructionsIn) -> Status[None]:
    """Mail how to put the line in to whoever keeps the site."""
    send_instructions(request.auth, site_id=site_id, to=body.to)
    return Status(202, None)
