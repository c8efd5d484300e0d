"""What the console is told of a touchpoint."""

from datetime import datetime
from typing import Annotated, Any
from zoneinfo import ZoneInfo

from django.conf import settings
from ninja import Schema

from intavo import clock
from intavo.accounts.auth import MemberRequest
from intavo.core.holds import Holds
from intavo.core.legibility import Reading
from intavo.core.say import from_words
from intavo.core.showing import TouchpointState
from intavo.core.touchpoint import (
    PLACES,
    Document,
    FullLook,
    Show,
    changes,
    departures,
    readings,
    resolved,
    speech_of,
)

from ..models import Touchpoint
from ..queries import findings_of, house_of, pages_for, pixels_of, set_of, touchpoints_of


class FindingOut(Schema):
    level: str
    message: str
    place: str


class PlacedOut(Schema):
    id: int
    name: str
    slug: str


class TouchpointOut(Schema):
    id: int
    public_id: str
    name: str
    slug: str
    state: str
    purpose: str
    stance: str
    pages: list[str]
    changed_since_live: bool
    begins: str
    over: bool
    sites: list[PlacedOut]
    hosted: list[str]


class ChangeOut(Schema):
    place: str
    words: str


class ReadingOut(Schema):
    part: str
    what: str
    role: str
    colour: str
    ratio: float
    needed: float
    passes: bool
    better: str | None
    phone: bool
    behind_role: str | None
    behind_better: str | None

    @staticmethod
    def of(reading: Reading, phone: bool) -> "ReadingOut":
        """A reading, and whether it is the phone's."""
        return ReadingOut(
            part=reading.part,
            what=reading.what,
            role=reading.role,
            colour=reading.colour,
            ratio=reading.ratio,
            needed=reading.needed,
            passes=reading.passes,
            better=reading.better,
            phone=phone,
            behind_role=reading.behind_role,
            behind_better=reading.behind_better,
        )


class InTongueOut(Schema):
    id: int
    name: str
    language: str
    on: bool


class SpeechOut(Schema):
    """What it is drawn in: its language and region, which way it is read, and the words of ours that it
    needs.
    """

    lang: str
    locale: str
    dir: str
    words: dict[str, str]


class DraftOut(TouchpointOut):
    document: Annotated[dict[str, Any], Holds(Document)]
    look: Annotated[dict[str, Any], Holds(FullLook)]
    speech: SpeechOut
    has_house: bool
    logo: str | None
    departures: list[str]
    places: list[str]
    number: int
    saved_at: datetime
    saved_by: str
    live_number: int | None
    can_undo: bool
    can_redo: bool
    findings: list[FindingOut]
    changes: list[ChangeOut]
    readings: list[ReadingOut]
    codes_all: int
    codes_left: int
    csv: str | None
    example_page: str
    refused: dict[str, str]
    in_other_languages: list[InTongueOut]


def summary(row: Touchpoint) -> dict[str, Any]:
    """What the list shows of a touchpoint."""
    assert row.draft is not None
    show = row.draft.document["show"]
    live = Show.model_validate(row.live.document["show"]) if row.live else None
    now, zone = clock.now(), ZoneInfo(row.business.timezone)
    begins = live.begins(now, zone) if live else None
    today = now.astimezone(zone).date()
    sites = list(row.sites.all())
    return {
        "id": row.pk, "public_id": row.public_id, "name": row.name, "slug": row.slug, "state": row.state,
        "purpose": row.draft.document["purpose"], "stance": row.draft.document["stance"],
        "pages": [pattern["path"] for sentence in show["sentences"] for pattern in sentence["pages"]],
        "changed_since_live": row.changed_since_live,
        "begins": from_words(begins, now, zone) if begins else "",
        "over": live.over(today) if live else False,
        "sites": [PlacedOut(id=site.pk, name=site.name, slug=site.slug) for site in sites],
        "hosted": [f"{settings.BASE_URL}/t/{site.slug}/{row.slug}" for site in sites],
    }  # fmt: skip


def draft_out(request: MemberRequest, touchpoint_id: int, refused: dict[str, str] | None = None) -> DraftOut:
    """A touchpoint with its draft, and everything that is worked out about it; `refused`: what could not be
    kept.
    """
    row = touchpoints_of(request.auth).get(pk=touchpoint_id)
    draft = row.draft
    assert draft is not None
    document = Document.model_validate(draft.document)
    site = next(iter(row.sites.all()), None)
    house = house_of(site)
    tongue = site.tongue(document.language) if site else row.business.tongue(document.language)
    pixels = pixels_of(row.business_id, document.assets())
    on_desktop, on_phone = (readings(document, pixels, house, phone) for phone in (False, True))
    read = [ReadingOut.of(one, False) for one in on_desktop] + [ReadingOut.of(one, True) for one in on_phone]
    codes = list(row.codes.values_list("given_at", flat=True)) if document.after.code.kind == "each" else []
    pages = pages_for(row, document, list(row.sites.all()))
    found = findings_of(row, on_desktop, pages=pages)
    changed = changes(Document.model_validate(row.live.document), document) if row.live else []
    return DraftOut(
        in_other_languages=[
            InTongueOut(id=id_, name=name, language=language or "", on=state == TouchpointState.LIVE.value)
            for id_, name, state, language in set_of(row)
        ],
        **summary(row),
        document=document.model_dump(mode="json"),
        number=draft.number,
        saved_at=draft.saved_at,
        look=resolved(document.look, document.stance, house).model_dump(mode="json"),
        speech=SpeechOut(**speech_of(document, tongue)),
        has_house=house is not None,
        logo=house.logo if house else None,
        departures=departures(document.look, house) if house and document.look.house else [],
        places=list(PLACES[document.stance]),
        saved_by=draft.saved_by.user.name if draft.saved_by else "",
        live_number=row.live.number if row.live else None,
        can_undo=draft.parent_id is not None,
        can_redo=draft.children.exists(),
        findings=[FindingOut(level=f.level, message=f.message, place=f.place) for f in found],
        changes=[ChangeOut(place=one.place, words=one.words) for one in changed],
        readings=read,
        codes_all=len(codes),
        codes_left=sum(given is None for given in codes),
        csv=f"{settings.BASE_URL}/csv/{row.csv_token}.csv" if row.csv_token else None,
        example_page=pages.example,
        refused=refused or {},
    )
