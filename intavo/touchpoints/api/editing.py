"""The list of touchpoints, and one of them: made, kept, turned, placed, thrown away."""

from typing import Annotated, Any

from ninja import Router, Schema, Status

from intavo.accounts.auth import MemberRequest
from intavo.accounts.models import Business
from intavo.core.addresses import read_address
from intavo.core.holds import Holds
from intavo.core.legibility import covered
from intavo.core.money import read_money
from intavo.core.touchpoint import (
    STARTERS,
    Document,
    HouseStyle,
    Part,
    Purpose,
    SeenDocument,
    Show,
    Stance,
    addable,
    for_visitors,
    show_words,
)
from intavo.core.touchpoint.starters.spoken import spoken
from intavo.core.values import Language
from intavo.hours.queries import kept_sets
from intavo.sites.models import Site

from .. import actions
from ..queries import house_of, touchpoints_of
from .shapes import DraftOut, TouchpointOut, draft_out, summary

router = Router()


class StarterOut(Schema):
    key: str
    name: str
    about: str
    purpose: str
    stance: str
    asks: str
    seen: Annotated[dict[str, Any], Holds(SeenDocument)]


class MakeIn(Schema):
    starter: str
    name: str = ""


class NameIn(Schema):
    name: str


class TurnIn(Schema):
    purpose: Purpose | None = None
    stance: Stance | None = None
    confirm: bool | None = None


class LeadsOut(Schema):
    kind: str
    address: str
    words: str


class MoneyOut(Schema):
    amount: str
    currency: str | None
    words: str


class SitesIn(Schema):
    site_ids: list[int]


class OrderIn(Schema):
    touchpoint_ids: list[int]


class FileIn(Schema):
    text: str
    name: str = ""


class BackIn(Schema):
    on: bool = False


class CoveredOut(Schema):
    share: float


class DraftIn(Schema):
    document: Annotated[dict[str, Any], Holds(Document)]
    based_on: int
    run: str = ""
    as_far: bool = False


class AddableOut(Schema):
    parts: dict[str, dict[str, Part]]
    following: list[Part]
    thanks: list[Part]
    words: dict[str, str]


@router.get("/touchpoints/{touchpoint_id}/addable", response=AddableOut)
def what_can_be_added(request: MemberRequest, touchpoint_id: int, language: Language = "") -> AddableOut:
    """What can be added to a touchpoint that is in a language ("": as its site has it)."""
    row = touchpoints_of(request.auth).get(pk=touchpoint_id)
    assert row.draft is not None
    site = row.sites.select_related("business").order_by("pk").first()
    tongue = site.tongue(language) if site else row.business.tongue(language)
    return AddableOut.from_orm(addable(row.draft.document["purpose"], tongue))


class ShowIn(Schema):
    show: Show


class SentenceOut(Schema):
    where: str
    who: str
    moments: str
    during: str


class ShowWordsOut(Schema):
    sentences: list[SentenceOut]
    often: str
    until: str


@router.post("/show-words", response=ShowWordsOut)
def show_in_words(request: MemberRequest, body: ShowIn) -> ShowWordsOut:
    """The rules of a touchpoint in words, piece by piece; nothing is kept."""
    hours = dict(kept_sets(request.auth.business_id).values_list("pk", "name"))
    return ShowWordsOut.model_validate(show_words(body.show, hours))


@router.get("/starters", response=list[StarterOut])
def starters(request: MemberRequest) -> list[StarterOut]:
    """What a touchpoint can be started from, as it would look on the business's first site."""
    site = Site.objects.filter(business_id=request.auth.business_id).order_by("pk").first()
    house: HouseStyle | None = house_of(site)
    tongue = site.tongue() if site else Business.objects.get(pk=request.auth.business_id).tongue()
    return [
        StarterOut(
            key=one.key,
            name=one.name,
            about=one.about,
            asks=one.asks,
            purpose=one.document.purpose,
            stance=one.document.stance,
            seen=for_visitors(spoken(one, tongue), house, tongue=tongue),
        )
        for one in STARTERS
    ]


@router.get("/touchpoints", response=list[TouchpointOut])
def list_touchpoints(request: MemberRequest) -> list[TouchpointOut]:
    """The business's touchpoints in the owner's order."""
    return [TouchpointOut(**summary(row)) for row in touchpoints_of(request.auth)]


@router.post("/touchpoints", response={201: DraftOut})
def make(request: MemberRequest, body: MakeIn) -> Status[DraftOut]:
    """Make a touchpoint from a starter."""
    row = actions.make(request.auth, starter=body.starter, name=body.name)
    return Status(201, draft_out(request, row.pk))


@router.post("/touchpoints/from-file", response={201: DraftOut})
def take_in(request: MemberRequest, body: FileIn) -> Status[DraftOut]:
    """Make a touchpoint from a file's text; every wrong place is named."""
    row = actions.take_in(request.auth, text=body.text, name=body.name)
    return Status(201, draft_out(request, row.pk))


@router.put("/touchpoints/order", response={204: None})
def order(request: MemberRequest, body: OrderIn) -> Status[None]:
    """Put the touchpoints in order."""
    actions.order(request.auth, touchpoint_ids=body.touchpoint_ids)
    return Status(204, None)


@router.get("/covered", response=CoveredOut)
def share_covered(
    request: MemberRequest, width: float, height: float, screen_width: float = 375, screen_height: float = 667
) -> CoveredOut:
    """The share of a phone's screen that a box covers."""
    return CoveredOut(share=covered(width, height, max(1, screen_width), max(1, screen_height)))


@router.get("/address", response=LeadsOut)
def understood(request: MemberRequest, text: str) -> LeadsOut:
    """What an address is taken for: a page of the site or elsewhere, a mail address, a number."""
    region = Business.objects.values_list("region", flat=True).get(pk=request.auth.business_id)
    try:
        found = read_address(text[:2000], region)
    except ValueError as error:
        return LeadsOut(kind="", address=text, words=str(error))
    as_written = text.strip() if found.kind in {"mail", "phone"} else found.href
    return LeadsOut(kind=found.kind, address=as_written.removeprefix("mailto:"), words=found.words)


@router.get("/money", response=MoneyOut)
def amount(request: MemberRequest, text: str) -> MoneyOut:
    """What an amount of money is taken for, by the business's region."""
    region = Business.objects.values_list("region", flat=True).get(pk=request.auth.business_id)
    try:
        found = read_money(text[:60], region)
    except ValueError as error:
        return MoneyOut(amount="", currency=None, words=str(error))
    return MoneyOut(amount=found.amount, currency=found.currency, words="")


@router.get("/touchpoints/{touchpoint_id}", response=DraftOut)
def one(request: MemberRequest, touchpoint_id: int) -> DraftOut:
    """A touchpoint with its draft and the ready check."""
    return draft_out(request, touchpoint_id)


@router.put("/touchpoints/{touchpoint_id}/draft", response=DraftOut)
def save_draft(request: MemberRequest, touchpoint_id: int, body: DraftIn) -> DraftOut:
    """Keep an edited document."""
    edit: dict[str, Any] = {
        "touchpoint_id": touchpoint_id,
        "document": body.document,
        "based_on": body.based_on,
        "run": body.run,
    }
    if body.as_far:
        return draft_out(request, touchpoint_id, dict(actions.save_as_far(request.auth, **edit)))
    actions.save_draft(request.auth, **edit)
    return draft_out(request, touchpoint_id)


@router.put("/touchpoints/{touchpoint_id}/name", response=DraftOut)
def rename(request: MemberRequest, touchpoint_id: int, body: NameIn) -> DraftOut:
    """Rename it."""
    actions.rename(request.auth, touchpoint_id=touchpoint_id, name=body.name)
    return draft_out(request, touchpoint_id)


@router.post("/touchpoints/{touchpoint_id}/on", response=DraftOut)
def turn_on(request: MemberRequest, touchpoint_id: int) -> DraftOut:
    """Turn it on."""
    actions.turn_on(request.auth, touchpoint_id=touchpoint_id)
    return draft_out(request, touchpoint_id)


@router.post("/touchpoints/{touchpoint_id}/off", response=DraftOut)
def turn_off(request: MemberRequest, touchpoint_id: int) -> DraftOut:
    """Turn it off."""
    actions.turn_off(request.auth, touchpoint_id=touchpoint_id)
    return draft_out(request, touchpoint_id)


@router.post("/touchpoints/{touchpoint_id}/live", response=DraftOut)
def put_live(request: MemberRequest, touchpoint_id: int) -> DraftOut:
    """Give visitors the draft as it is now."""
    actions.put_live(request.auth, touchpoint_id=touchpoint_id)
    return draft_out(request, touchpoint_id)


@router.post("/touchpoints/{touchpoint_id}/turn-into", response=DraftOut)
def turn_into(request: MemberRequest, touchpoint_id: int, body: TurnIn) -> DraftOut:
    """Give it another purpose or stance; words and look are kept."""
    actions.turn_into(
        request.auth,
        touchpoint_id=touchpoint_id,
        purpose=body.purpose,
        stance=body.stance,
        confirm=body.confirm,
    )
    return draft_out(request, touchpoint_id)


@router.put("/touchpoints/{touchpoint_id}/sites", response=DraftOut)
def place(request: MemberRequest, touchpoint_id: int, body: SitesIn) -> DraftOut:
    """Say on which sites it stands."""
    actions.place(request.auth, touchpoint_id=touchpoint_id, site_ids=body.site_ids)
    return draft_out(request, touchpoint_id)


@router.post("/touchpoints/{touchpoint_id}/forget-showings", response=DraftOut)
def forget_showings(request: MemberRequest, touchpoint_id: int) -> DraftOut:
    """Everybody may get it again, as if they had never seen it."""
    actions.forget_showings(request.auth, touchpoint_id=touchpoint_id)
    return draft_out(request, touchpoint_id)


class CopyIn(Schema):
    language: Language = ""


@router.post("/touchpoints/{touchpoint_id}/copy", response={201: DraftOut})
def copy(request: MemberRequest, touchpoint_id: int, body: CopyIn | None = None) -> Status[DraftOut]:
    """Make a copy of it; in another language, if one is said."""
    row = actions.copy(request.auth, touchpoint_id=touchpoint_id, language=body.language if body else "")
    return Status(201, draft_out(request, row.pk))


@router.delete("/touchpoints/{touchpoint_id}", response={204: None})
def throw_away(request: MemberRequest, touchpoint_id: int) -> Status[None]:
    """Throw it away; it can be brought back for 30 days."""
    actions.throw_away(request.auth, touchpoint_id=touchpoint_id)
    return Status(204, None)


@router.post("/touchpoints/{touchpoint_id}/bring-back", response=DraftOut)
def bring_back(request: MemberRequest, touchpoint_id: int, body: BackIn) -> DraftOut:
    """Bring it back."""
    actions.bring_back(request.auth, touchpoint_id=touchpoint_id, on=body.on)
    return draft_out(request, touchpoint_id)
