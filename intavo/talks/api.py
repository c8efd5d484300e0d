"""The console's API on talks and gateways."""

from datetime import datetime
from typing import Annotated, Any

from django.conf import settings
from django.http import HttpResponse
from ninja import Router, Schema, Status
from pydantic import ValidationError

from intavo import clock
from intavo.accounts.actor import Refused
from intavo.accounts.auth import MemberAuth, MemberRequest
from intavo.accounts.problem import problem
from intavo.accounts.queries import business_of
from intavo.accounts.scope import own
from intavo.core.dialogue import Address, Effect, HandOver, Script, Tagged, begin, take
from intavo.core.holds import Holds
from intavo.core.refusals import wrongs
from intavo.core.replies import Promise, slots
from intavo.followup.models import FollowUp
from intavo.hours.queries import main_hours

from .actions import note_read, note_typing
from .files import PICTURES
from .gateways import add_gateway, bring_gateway_back, drop_gateway, kept_gateways
from .leaving import left_words
from .models import Delivery, Gateway, Message, Talk
from .queries import is_there, talk_of
from .serving import given_file

router = Router(tags=["talks"], auth=MemberAuth())


class TalkFileOut(Schema):
    name: str
    href: str
    picture: bool


class TalkMessageOut(Schema):
    n: int
    source: str
    who: str
    text: str
    at: datetime
    state: str
    file: TalkFileOut | None


class TalkOut(Schema):
    id: int
    through: str
    there: bool
    left: str
    asks: str
    choices: list[str]
    messages: list[TalkMessageOut]


class NoTalkOut(Schema):
    id: None = None


class GatewayOut(Schema):
    id: int
    name: str
    address: str
    calls: str
    down_since: datetime | None
    waiting: int


class NewGatewayOut(GatewayOut):
    secret: str


class GatewayAddIn(Schema):
    name: str
    address: str
    bearer: str = ""


def _state(row: Message, given: int) -> str:
    sent = getattr(row, "delivery", None)
    if sent is not None:
        return f"{sent.state}{f': {sent.reason}' if sent.reason else ''}"
    if row.source == Message.THEM:
        return ""
    return "mailed" if row.mailed else "seen" if row.n <= given else "not seen yet"


def _file(row: Message) -> TalkFileOut | None:
    if not row.file:
        return None
    href = f"/api/talks/{row.talk_id}/files/{row.file['key']}"
    return TalkFileOut(name=row.file["name"], href=href, picture=row.file["type"] in PICTURES)


@router.get("/talks/{talk_id}/files/{key}", response={200: None, 404: None})
def file(request: MemberRequest, talk_id: int, key: str) -> HttpResponse:
    """A file of a conversation."""
    talk = own(request.auth, Talk, talk_id)
    row = talk.messages.filter(file__key=key[:64]).first()
    return problem(404, "There is no such file.") if row is None else given_file(row)


@router.get("/follow-ups/{followup_id}/talk", response=TalkOut | NoTalkOut)
def talk(request: MemberRequest, followup_id: int, after: int = 0) -> TalkOut | NoTalkOut:
    """The conversation behind a follow-up, from a message on; it counts as read by us."""
    own(request.auth, FollowUp.objects.only("pk"), followup_id)
    found = talk_of(request.auth.business_id, followup_id)
    if found is None:
        return NoTalkOut()
    note_read(request.auth, talk_id=found.pk)
    rows = (
        found.messages.select_related("member__user", "delivery")
        .filter(n__gt=max(0, after))
        .order_by("n")[:500]
    )
    there = found.gateway is None and is_there(found)
    return TalkOut(
        id=found.pk,
        through=found.gateway.name if found.gateway else "",
        there=there,
        left="" if there or found.gateway else left_words(found),
        asks=found.asks,
        choices=[str(one["label"]) for one in found.choices],
        messages=[
            TalkMessageOut(
                n=row.n,
                source=row.source,
                who=row.member.user.name if row.member else "",
                text=row.text,
                at=row.at,
                state=_state(row, found.given),
                file=_file(row),
            )
            for row in rows
        ],
    )


@router.post("/follow-ups/{followup_id}/typing", response={204: None})
def typing(request: MemberRequest, followup_id: int) -> Status[None]:
    """One of us is writing."""
    note_typing(request.auth, followup_id=followup_id)
    return Status(204, None)


def _gateway(row: Gateway) -> dict[str, object]:
    return {
        "id": row.pk, "name": row.name, "address": row.address, "calls": f"{settings.BASE_URL}/g/{row.key}",
        "down_since": row.down_since,
        "waiting": Delivery.objects.filter(gateway=row, state=Delivery.WAITING).count(),
    }  # fmt: skip


@router.get("/gateways", response=list[GatewayOut])
def gateways(request: MemberRequest) -> list[GatewayOut]:
    """Every gateway."""
    return [GatewayOut.model_validate(_gateway(row)) for row in kept_gateways(request.auth.business_id)]


@router.post("/gateways", response={201: NewGatewayOut})
def make_gateway(request: MemberRequest, body: GatewayAddIn) -> Status[NewGatewayOut]:
    """Add a gateway; its secret is shown this once."""
    row, secret = add_gateway(request.auth, name=body.name, address=body.address, bearer=body.bearer)
    return Status(201, NewGatewayOut.model_validate({**_gateway(row), "secret": secret}))


@router.delete("/gateways/{gateway_id}", response={204: None})
def delete_gateway(request: MemberRequest, gateway_id: int) -> Status[None]:
    """Delete a gateway."""
    drop_gateway(request.auth, gateway_id=gateway_id)
    return Status(204, None)


@router.post("/gateways/{gateway_id}/back", response=GatewayOut)
def undelete_gateway(request: MemberRequest, gateway_id: int) -> GatewayOut:
    """Undo deleting a gateway."""
    return GatewayOut.model_validate(_gateway(bring_gateway_back(request.auth, gateway_id=gateway_id)))


class TalkTurnIn(Schema):
    script: Annotated[dict[str, Any], Holds(Script)]
    state: dict[str, Any] | None = None
    said: dict[str, Any] | None = None


class ReplyOfferOut(Schema):
    id: str
    label: str


class TalkTurnOut(Schema):
    state: dict[str, Any]
    messages: list[str]
    choices: list[ReplyOfferOut]
    asks: str | None
    effects: list[str]


@router.post("/talks/rehearse", response=TalkTurnOut)
def rehearse(request: MemberRequest, body: TalkTurnIn) -> TalkTurnOut:
    """One turn of a script as it would be said now; nothing is kept."""
    business, at = business_of(request.auth), clock.now()
    hours = main_hours(business.pk).value
    due = Promise.of_minutes(business.promise_minutes).due(hours, at)
    words = slots(hours, at, hours.zone, due, tongue=business.tongue())
    try:
        script = Script.model_validate(body.script)
    except ValidationError as error:
        raise Refused(*wrongs(error.errors(), "script", whole="script")) from error
    try:
        turn = (
            begin(script, words)
            if body.said is None
            else take(script, body.state or {}, body.said, words, business.region)
        )
    except ValueError as error:
        raise Refused(("said", str(error))) from error
    return TalkTurnOut(
        state=turn.state,
        messages=list(turn.messages),
        asks=turn.asks,
        choices=[ReplyOfferOut(id=one.id, label=one.label) for one in turn.choices],
        effects=[_effect(one) for one in turn.effects],
    )


def _effect(effect: Effect) -> str:
    if isinstance(effect, Tagged):
        return f"tagged {', '.join(effect.tags)}"
    if isinstance(effect, Address):
        return f"left {effect.shown}"
    return "from here a person answers" if isinstance(effect, HandOver) else "the goal is reached"
