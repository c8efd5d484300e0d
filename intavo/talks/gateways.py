"""Gateways: messages handed to services outside and taken in from them. The protocol stands in
docs/gateway.md.
"""

import asyncio
import base64
import ipaddress
import json
import re
import secrets
import socket
from datetime import datetime
from typing import Any

import httpx
from django.conf import settings
from django.db import IntegrityError, connection, transaction
from django.db.models import QuerySet
from pydantic import BaseModel, ConfigDict, Field, ValidationError, model_validator
from standardwebhooks import Webhook, WebhookVerificationError

from intavo import clock
from intavo.accounts.actor import Actor, Refused, visitor_of
from intavo.accounts.scope import own
from intavo.accounts.secrets import sealed, unsealed
from intavo.core.addresses import read_address
from intavo.core.door import NotLetIn, read_json
from intavo.core.links import came_by
from intavo.core.refusals import wrongs
from intavo.core.rights import Right
from intavo.core.texts import Kept
from intavo.core.times import Moment
from intavo.followup.actions import ours_again, told
from intavo.followup.effects import Away, services_away
from intavo.people.actions import add_event, unless_overtaken
from intavo.sites.models import Site
from intavo.touchpoints.live import live_site
from intavo.touchpoints.models import Touchpoint
from intavo.touchpoints.onsite import LiveSite

from .actions import GOOD_FOR, MOST_TEXT, SaidNow, first_word, held_talk, send_out, taken, touchpoint_by_code
from .models import Delivery, Gateway, GatewayIn, Message, Talk

TIMEOUT = 10.0  # seconds
_BEARER = re.compile(r"[!-~]{0,500}")
_CODE = re.compile(r"\s*#([a-hj-km-np-z2-9]{4})\b\s*", re.IGNORECASE)


class GatewayAway(Exception):
    """The gateway did not take it just now; it is tried again."""


def add_gateway(actor: Actor, *, name: str, address: str, bearer: str) -> tuple[Gateway, str]:
    """Add a gateway; gives it back with the secret that signs what it sends, which is shown this once."""
    actor.needs(Right.BUSINESS)
    title, where = " ".join(name.split()), _address(address)
    if not title or len(title) > 80:
        raise Refused(("name", "Please write a name of at most 80 characters."))
    if not _BEARER.fullmatch(bearer.strip()):
        raise Refused(("bearer", "It has at most 500 letters, digits and signs of ASCII, and no blanks."))
    secret = new_secret()
    with transaction.atomic():
        _free(actor, title)
        row = Gateway.objects.create(
            business_id=actor.business_id,
            name=title,
            address=where,
            bearer=sealed(bearer.strip()),
            secret=sealed(secret),
            created_at=clock.now(),
        )
        actor.noted("gateway added", gateway=row.pk, name=title)
    return row, secret


def new_secret() -> str:
    """A secret as Standard Webhooks writes them."""
    return f"whsec_{base64.b64encode(secrets.token_bytes(24)).decode()}"


def _address(text: str) -> str:
    try:
        found = read_address(text)
    except ValueError as error:
        raise Refused(("address", str(error))) from error
    if found.kind != "page" or not found.href.startswith(("http://", "https://")):
        raise Refused(("address", "Write the whole address, with https://."))
    return found.href.rstrip("/")


def drop_gateway(actor: Actor, *, gateway_id: int) -> None:
    """Delete a gateway: nothing comes in by it or goes out any more. What was said stays; can be undone."""
    actor.needs(Right.BUSINESS)
    with transaction.atomic():
        row = own(actor, kept_gateways(actor.business_id), gateway_id, locked=True)
        row.deleted_at, row.down_since = clock.now(), None
        row.save(update_fields=["deleted_at", "down_since"])
        actor.noted("gateway deleted", gateway=row.pk, name=row.name)


def bring_gateway_back(actor: Actor, *, gateway_id: int) -> Gateway:
    """Undo deleting a gateway; its bridge calls the same address, with the same secret."""
    actor.needs(Right.BUSINESS)
    with transaction.atomic():
        row = own(actor, Gateway, gateway_id, locked=True)
        if row.deleted_at is not None:
            _free(actor, row.name)
            row.deleted_at = None
            row.save(update_fields=["deleted_at"])
            actor.noted("gateway brought back", gateway=row.pk, name=row.name)
    return row


def kept_gateways(business_id: int) -> QuerySet[Gateway]:
    """Every gateway that is there."""
    return Gateway.objects.filter(business_id=business_id, deleted_at=None).order_by("name")


def _free(actor: Actor, name: str) -> None:
    if kept_gateways(actor.business_id).filter(name__iexact=name).exists():
        raise Refused(("name", f"There is a gateway called “{name}” already."))


def places_of(host: str, port: int) -> list[str]:
    """The numeric addresses at which a host is called; none where one of them is of this machine or network,
    but for hosts that are allowed. What is checked is what is called: a name may lead elsewhere a moment
    later. Raises GatewayAway for a name that cannot be found.
    """
    if host in settings.LOCAL_GATEWAYS:
        return [host]
    try:
        answers = socket.getaddrinfo(host, port, proto=socket.IPPROTO_TCP)
    except (OSError, UnicodeError):
        raise GatewayAway("its name cannot be found") from None
    places = list(dict.fromkeys(str(one[4][0]) for one in answers))
    return places if all(_outside(ipaddress.ip_address(one)) for one in places) else []


def _outside(address: ipaddress.IPv4Address | ipaddress.IPv6Address) -> bool:
    mapped = getattr(address, "ipv4_mapped", None)
    return bool((mapped or address).is_global)


def _asked(address: httpx.URL, body: dict[str, Any], bearer: str) -> int | None:
    """The status that a gateway answers with, called at the first of its places that can be reached; None
    where it may not be called. Raises GatewayAway, or what httpx raises.
    """
    heads = {"Host": address.netloc.decode()}
    if bearer:
        heads["Authorization"] = f"Bearer {bearer}"
    host = address.raw_host.decode("ascii")
    places = places_of(host, address.port or (443 if address.scheme == "https" else 80))
    for number, place in enumerate(places, 1):
        try:
            return asyncio.run(_status(address, place, body, heads))
        except httpx.ConnectError:
            if number == len(places):
                raise
        except TimeoutError:
            raise GatewayAway("it takes too long") from None
    return None


async def _status(address: httpx.URL, place: str, body: dict[str, Any], heads: dict[str, str]) -> int:
    """All of it in ten seconds, however slowly it answers; what it says besides is not read."""
    named = {"sni_hostname": address.raw_host.decode("ascii")}
    async with asyncio.timeout(TIMEOUT), httpx.AsyncClient(timeout=TIMEOUT) as client:
        called = client.stream(
            "POST", address.copy_with(host=place), json=body, headers=heads, extensions=named
        )
        async with called as answer:
            return answer.status_code


def deliver(delivery_id: int) -> None:
    """Hand a message to its gateway: 2xx is taken, 4xx given up and said,
    all else tried again (GatewayAway).
    """
    sent = _waiting(delivery_id)
    if sent is None:
        return None
    gateway, row = sent.gateway, sent.message
    if gateway.deleted_at is not None:
        return _given_up(sent, f"{gateway.name} was deleted")
    talk = row.talk
    before = (
        talk.messages.filter(source=Message.THEM, n__lt=row.n)
        .order_by("-n")
        .values_list("client_id", flat=True)
        .first()
    )
    body = {
        "id": sent.uid, "to": talk.handle, "text": row.text, "choices": row.choices,
        "in_reply_to": before.removeprefix("in-") if before else None,
    }  # fmt: skip
    Delivery.objects.filter(pk=sent.pk).update(tries=sent.tries + 1)
    try:
        status = _asked(httpx.URL(f"{gateway.address}/messages"), body, unsealed(gateway.bearer))
    except (httpx.HTTPError, httpx.InvalidURL, GatewayAway) as error:
        _is_away(gateway)
        raise GatewayAway(str(error) or type(error).__name__) from error
    if status is None:
        return _given_up(sent, "its address is not one that may be called")
    if 200 <= status < 300:
        Delivery.objects.filter(pk=sent.pk, state=Delivery.WAITING).update(state=Delivery.ACCEPTED)
        if gateway.down_since is not None:
            Gateway.objects.filter(pk=gateway.pk).update(down_since=None)
        return None
    if 400 <= status < 500:
        return _given_up(sent, f"{gateway.name} answered {status}")
    _is_away(gateway)
    raise GatewayAway(f"it answered {status}")


def give_up(delivery_id: int) -> None:
    """Say of a message that it did not go out in all the time that its gateway had."""
    sent = _waiting(delivery_id)
    if sent is not None:
        _given_up(sent, f"{sent.gateway.name} could not be reached for hours")


def _waiting(delivery_id: int) -> Delivery | None:
    rows = Delivery.objects.select_related("message", "gateway", "message__talk")
    return rows.filter(pk=delivery_id, state=Delivery.WAITING).first()


def _is_away(gateway: Gateway) -> None:
    Gateway.objects.filter(pk=gateway.pk, down_since=None, deleted_at=None).update(down_since=clock.now())


def _given_up(sent: Delivery, reason: str) -> None:
    with transaction.atomic():
        if (
            not Delivery.objects.filter(pk=sent.pk)
            .exclude(state=Delivery.FAILED)
            .update(state=Delivery.FAILED, reason=reason[:300])
        ):
            return
        talk = sent.message.talk
        if talk.person_id is not None:
            data = {
                "text": sent.message.text,
                "talk": talk.pk,
                "reason": reason,
                "through": sent.gateway.name,
            }
            actor, at = visitor_of(talk.business_id), clock.now()
            if sent.message.source == Message.US:
                ours_again(actor, followup_id=talk.followup_id, at=at)
            add_event(actor, person_id=talk.person_id, at=at, kind="not delivered", data=data)
            told(actor, person_id=talk.person_id)


class From(BaseModel):
    """Who wrote, as the service knows them."""

    model_config = ConfigDict(extra="ignore")
    handle: Kept = Field(min_length=1, max_length=200)
    name: Kept = Field("", max_length=300)


class Came(BaseModel):
    """What a gateway sends: a message, or a receipt for one of ours."""

    model_config = ConfigDict(extra="ignore", populate_by_name=True)
    id: Kept = Field(min_length=1, max_length=80)
    # The handle that it was written to.
    to: Kept = Field("", max_length=300)
    from_: From | None = Field(None, alias="from")
    text: Kept | None = Field(None, max_length=MOST_TEXT)
    choice: Kept | None = Field(None, max_length=60)
    ref: Kept | None = Field(None, max_length=20)
    at: Moment | None = None
    delivered: bool | str | None = None
    failed: bool | str | None = None
    reason: Kept = Field("", max_length=300)

    @model_validator(mode="after")
    def _message_or_receipt(self) -> "Came":
        receipt = bool(self.delivered) or bool(self.failed)
        said = (self.text is not None and bool(self.text.strip())) or self.choice is not None
        if not receipt and (self.from_ is None or not said):
            raise ValueError("a message has a sender, and a text or a choice")
        return self


class BadSignature(Exception):
    """It was not signed with the gateway's secret."""


def take_in(gateway: Gateway, body: bytes, headers: dict[str, str]) -> dict[str, Any]:
    """Take in what a gateway sent; BadSignature, or Refused with what is wrong. The same id again changes
    nothing.
    """
    try:
        Webhook(unsealed(gateway.secret)).verify(body, headers)
    except WebhookVerificationError as error:
        raise BadSignature from error
    except Exception as error:  # the library decodes before it verifies
        raise Refused(("body", "This is not JSON.")) from error
    try:
        came = Came.model_validate(read_json(body))
    except NotLetIn as error:
        raise Refused(*error.named()) from error
    except ValidationError as error:
        raise Refused(*wrongs(error.errors(), whole="body")) from error
    return unless_overtaken(lambda: _taken_in(gateway, came))


def _taken_in(gateway: Gateway, came: Came) -> dict[str, Any]:
    if came.delivered or came.failed:
        return _receipt(gateway, came)
    try:
        with transaction.atomic():
            GatewayIn.objects.create(
                business_id=gateway.business_id, gateway=gateway, uid=came.id, at=clock.now()
            )
            return _message(gateway, came, clock.now())
    except IntegrityError:
        if GatewayIn.objects.filter(gateway=gateway, uid=came.id).exists():
            return {"taken": True, "repeated": True}
        raise


def _receipt(gateway: Gateway, came: Came) -> dict[str, Any]:
    sent = (
        Delivery.objects.select_related("message__talk", "gateway")
        .filter(gateway=gateway, uid=came.id)
        .first()
    )
    if sent is None:
        raise Refused(("id", "There is no message of ours with this id."))
    if came.failed:
        _given_up(sent, came.reason or "it says no more")
    else:
        Delivery.objects.filter(pk=sent.pk).exclude(state=Delivery.FAILED).update(state=Delivery.DELIVERED)
    return {"taken": True}


def _site(gateway: Gateway) -> LiveSite:
    key = (
        Site.objects.filter(business_id=gateway.business_id)
        .order_by("pk")
        .values_list("key", flat=True)
        .first()
    )
    site = live_site(key) if key else None
    if site is None:
        raise Refused(("body", "The business has no site yet, so that nobody would read it."))
    return site


def _message(gateway: Gateway, came: Came, at: datetime) -> dict[str, Any]:
    assert came.from_ is not None
    site, text = _site(gateway), came.text or ""
    # The short code in the first words says where they came from; nobody has to read it.
    code = came.ref or next(iter(_CODE.findall(text)), "")
    touchpoint = touchpoint_by_code(gateway.business_id, code.removeprefix("#")) if code else None
    if touchpoint is not None:
        text = _CODE.sub(" ", text, count=1).strip() if came.text is not None else text
    # What one writes is taken in one after the other: their first two words at once are one conversation.
    with connection.cursor() as cursor:
        cursor.execute(_IN_TURN, [f"talk {came.from_.handle}", gateway.pk])
    talk = _talk(gateway, came.from_, touchpoint, at)
    id_ = f"in-{came.id}"
    words = SaidNow(id=id_, text=text or came.choice or "…")
    if talk is None:
        way = came_by(site.channels, gateway.pk, came.to)
        channel, person = way if way is not None else ("", None)
        talk = _new_talk(gateway, site, came.from_, touchpoint, at, channel)
        send_out(talk, first_word(site, talk, words, at, person.member if person is not None else None))
        return {"taken": True}
    before = talk.last
    try:
        taken(site, talk, SaidNow(id=id_, choice=came.choice) if came.choice is not None else words, at)
    except Refused:
        # A choice that is no longer offered is a word like any other.
        taken(site, talk, words, at)
    send_out(talk, list(talk.messages.filter(source=Message.SCRIPT, n__gt=before).order_by("n")))
    return {"taken": True}


_IN_TURN = "SELECT pg_advisory_xact_lock(hashtextextended(%s, %s))"


def _talk(gateway: Gateway, sender: From, touchpoint: Touchpoint | None, at: datetime) -> Talk | None:
    rows = Talk.objects.select_related("touchpoint").filter(gateway=gateway, handle=sender.handle)
    found = held_talk(rows.filter(last_word_at__gt=at - GOOD_FOR).order_by("-pk"))
    # A code of another touchpoint begins anew, with its own script.
    return (
        None
        if found is not None and touchpoint is not None and found.touchpoint_id != touchpoint.pk
        else found
    )


def _new_talk(
    gateway: Gateway, site: LiveSite, sender: From, touchpoint: Touchpoint | None, at: datetime, channel: str
) -> Talk:
    revision = touchpoint.live if touchpoint is not None else None
    return Talk(
        business_id=gateway.business_id,
        site_id=site.id,
        touchpoint=touchpoint,
        revision=revision,
        gateway=gateway,
        handle=sender.handle,
        name=sender.name or f"{sender.handle} ({gateway.name})",
        channel=channel,
        page=site.channels[channel].label if channel else gateway.name,
        begun_at=at,
        last_word_at=at,
        language=site.business.language,
    )


def away(business_id: int) -> list[Gateway]:
    """Gateways that do not answer just now."""
    return list(kept_gateways(business_id).filter(down_since__isnull=False))


def as_json(answer: dict[str, Any]) -> str:
    """An answer's text."""
    return json.dumps(answer, ensure_ascii=False)


@services_away.register
def _away(asked: Away) -> None:
    asked.names += [one.name for one in away(asked.business_id)]
