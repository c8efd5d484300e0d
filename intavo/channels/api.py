"""The console's API on channels."""

from datetime import datetime, timedelta
from typing import Annotated, Any

from django.conf import settings
from ninja import Router, Schema, Status
from pydantic import Field

from intavo import clock
from intavo.accounts.actor import Refused
from intavo.accounts.auth import MemberAuth, MemberRequest
from intavo.accounts.edits import Edit
from intavo.accounts.models import Business
from intavo.accounts.queries import business_of
from intavo.core.holds import Holds
from intavo.core.links import Channel as Document
from intavo.core.links import Kind, coordinates, first_label, href, meet, reached, read, template_from
from intavo.core.presence import Away, Presence
from intavo.core.replies import Promise, Situation, next_moment_of
from intavo.hours.queries import all_sets, presences, replies

from .actions import add_channel, bring_back, checked, drop_channel, order_channels, set_channel
from .effects import Used, channel_used
from .models import Channel
from .queries import clicked, kept, own

router = Router(tags=["channels"], auth=MemberAuth())


class ReachedOut(Schema):
    start: datetime
    end: datetime


class PrintedOut(Schema):
    place: str
    count: int


class ChannelOut(Schema):
    id: int
    public_id: str
    document: Annotated[dict[str, Any], Holds(Document)]
    link: str
    on_a_phone: str
    short: str
    situation: str
    reachable: bool
    always: bool
    says: str
    today: list[ReachedOut]
    used_in: list[str]
    printed: list[PrintedOut]


class ChannelDayOut(Schema):
    start: datetime
    end: datetime
    at: datetime
    timezone: str
    channels: list[ChannelOut]


class ChannelIn(Schema):
    document: Annotated[dict[str, Any], Holds(Document)]


class ChannelEditIn(ChannelIn):
    # What it was made from: what others have changed since is kept then.
    based_on: Annotated[dict[str, Any], Holds(Document)] | None = None
    all_the_same: bool = False


class ChannelOrderIn(Schema):
    channel_ids: list[int] = Field(max_length=200)


class PastedIn(Schema):
    text: str


class ReadChannelOut(Schema):
    kind: Kind
    handle: str
    words: str
    template: str | None
    others: list[Kind]
    on_map: bool
    # What it would be called, by kind, in the language of the business.
    labels: dict[str, str]


class ExampleIn(Schema):
    example: str


class LinkTemplateOut(Schema):
    template: str
    handle: str
    takes_text: bool


class PreviewIn(Schema):
    document: Annotated[dict[str, Any], Holds(Document)]
    channel: str = ""
    language: str = ""


class PreviewPersonOut(Schema):
    name: str
    words: str
    reachable: bool


class PreviewOut(Schema):
    situation: str
    in_effect: bool
    hidden: bool
    button: str
    title: str
    text: str
    people: list[PreviewPersonOut]


def _link(business: Business, value: Document, device: str) -> str:
    """Where it leads; of one that has only people, where the first of them does."""
    for person in (None, *value.people):
        try:
            return href(value, person=person, region=business.region, device=device, slots=_SHOWN)
        except ValueError:
            continue
    return ""


_SHOWN = {"page_title": "…", "page_address": "…", "first_name": "…", "short_code": "#…"}


class _Shown:
    """What every channel of a business is shown with: its hours, who is there, its replies, and today."""

    def __init__(self, business: Business) -> None:
        self.business, self.at = business, clock.now()
        self.sets, self.members = all_sets(business.pk), presences(business.pk)
        self.table, self.promise = replies(business.pk), Promise.of_minutes(business.promise_minutes)
        local = self.at.astimezone(self.sets[None].zone)
        self.start = local.replace(hour=0, minute=0, second=0, microsecond=0, fold=0)
        self.end = (self.start + timedelta(days=1)).replace(fold=0)

    def out(self, row: Channel) -> ChannelOut:
        value = row.value
        met = meet(
            value,
            row.public_id,
            self.sets,
            self.at,
            self.members,
            table=self.table,
            promise=self.promise,
            language=self.business.language,
            business_language=self.business.language,
            region=self.business.region,
        )
        used = Used(row)
        channel_used.tell(used)
        today = reached(value, self.sets, self.start, self.end, self.members)
        return ChannelOut(
            id=row.pk,
            public_id=row.public_id,
            document=row.document,
            link=_link(self.business, value, "desktop"),
            on_a_phone=_link(self.business, value, "phone"),
            short=f"{settings.BASE_URL}/l/{row.public_id}",
            situation=met.situation.value,
            reachable=met.situation is Situation.OPEN,
            always=today == [(self.start, self.end)],
            says=". ".join(met.says) if met.says else "",
            today=[ReachedOut(start=start, end=end) for start, end in today],
            used_in=used.by,
            printed=[PrintedOut(place=place, count=count) for place, count in clicked(row)],
        )


@router.get("/channels", response=ChannelDayOut)
def list_channels(request: MemberRequest) -> ChannelDayOut:
    """Every channel in the owner's order, each with today as a line."""
    shown = _Shown(business_of(request.auth))
    return ChannelDayOut(
        start=shown.start,
        end=shown.end,
        at=shown.at,
        timezone=shown.sets[None].timezone,
        channels=[shown.out(row) for row in kept(request.auth.business_id)],
    )


@router.post("/channels", response={201: ChannelOut})
def make_channel(request: MemberRequest, body: ChannelIn) -> Status[ChannelOut]:
    """Add a channel."""
    row = add_channel(request.auth, document=body.document)
    return Status(201, _Shown(business_of(request.auth)).out(row))


@router.post("/channels/order", response={204: None})
def put_in_order(request: MemberRequest, body: ChannelOrderIn) -> Status[None]:
    """Put the channels in an order."""
    order_channels(request.auth, channel_ids=body.channel_ids)
    return Status(204, None)


@router.post("/channels/read", response=ReadChannelOut)
def read_pasted(request: MemberRequest, body: PastedIn) -> ReadChannelOut:
    """What an owner pasted, understood; nothing is kept."""
    business = business_of(request.auth)
    tongue = business.tongue()
    try:
        found = read(body.text, business.region)
    except ValueError as error:
        raise Refused(("text", str(error))) from error
    return ReadChannelOut(
        kind=found.kind,
        handle=found.handle,
        words=found.words,
        template=found.template,
        others=list(found.others),
        on_map=coordinates(found.handle) is not None,
        labels={kind: first_label(kind, tongue) for kind in (found.kind, *found.others)},
    )


@router.post("/channels/template", response=LinkTemplateOut)
def read_example(request: MemberRequest, body: ExampleIn) -> LinkTemplateOut:
    """A template made of one example link; nothing is kept."""
    try:
        found = template_from(body.example)
    except ValueError as error:
        raise Refused(("example", str(error))) from error
    return LinkTemplateOut(template=found.template, handle=found.handle, takes_text=found.takes_text)


@router.post("/channels/preview", response=list[PreviewOut])
def preview(request: MemberRequest, body: PreviewIn) -> list[PreviewOut]:
    """A channel as visitors meet it in each situation, the one that holds now marked; nothing is kept."""
    business = business_of(request.auth)
    value, shown = checked(business.pk, body.document), _Shown(business)
    now = meet(value, body.channel, shown.sets, shown.at, shown.members, table=shown.table).situation
    return [_preview(shown, value, body, one, one is now) for one in Situation]


def _preview(shown: _Shown, value: Document, body: PreviewIn, situation: Situation, now: bool) -> PreviewOut:
    # Who is at the counter is taken as it has to be for the situation; the time is when it holds next.
    hours = shown.sets[None] if not value.hours else shown.sets.get(value.hours[0], shown.sets[None])
    at = shown.at if now else next_moment_of(situation, hours, shown.at)
    there = (
        ()
        if situation is Situation.OPEN
        else tuple(Presence(p.member, Away(None, None)) for p in shown.members)
    )
    members = shown.members if now else there
    met = meet(
        value,
        body.channel,
        shown.sets,
        at,
        members,
        table=shown.table,
        promise=shown.promise,
        as_if=situation,
        language=body.language or shown.business.language,
        business_language=shown.business.language,
        region=shown.business.region,
    )
    return PreviewOut(
        situation=situation.value,
        in_effect=now,
        hidden=met.hidden,
        button=met.button or value.label,
        title=met.says[0] if met.says else "",
        text=met.says[1] if met.says else "",
        people=[PreviewPersonOut(name=p.name, words=p.words, reachable=can) for p, can in met.people],
    )


@router.put("/channels/{channel_id}", response=ChannelOut)
def change_channel(request: MemberRequest, channel_id: int, body: ChannelEditIn) -> ChannelOut:
    """Change a channel; 409 where somebody else has changed the same since `based_on`, and differently."""
    edit = Edit(body.document, body.based_on, body.all_the_same)
    row = set_channel(request.auth, channel_id=channel_id, edit=edit)
    return _Shown(business_of(request.auth)).out(row)


@router.delete("/channels/{channel_id}", response={204: None})
def delete_channel(request: MemberRequest, channel_id: int) -> Status[None]:
    """Delete a channel."""
    drop_channel(request.auth, channel_id=channel_id)
    return Status(204, None)


@router.post("/channels/{channel_id}/back", response=ChannelOut)
def undelete_channel(request: MemberRequest, channel_id: int) -> ChannelOut:
    """Undo deleting it."""
    row = bring_back(request.auth, channel_id=channel_id)
    return _Shown(business_of(request.auth)).out(row)


@router.get("/channels/{channel_id}", response=ChannelOut)
def one_channel(request: MemberRequest, channel_id: int) -> ChannelOut:
    """One channel."""
    return _Shown(business_of(request.auth)).out(own(request.auth.business_id, channel_id))
