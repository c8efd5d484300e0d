"""Conversations in the page, and what gateways send: the addresses under /e/<key>/talks and /g/<key>."""

import hashlib
import json

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from django.views.decorators.csrf import csrf_exempt

from intavo import clock
from intavo.accounts.actor import Refused
from intavo.accounts.problem import problem
from intavo.collisions import asked_again
from intavo.core.door import whole_number
from intavo.core.replies import Situation
from intavo.core.tongues import Phrase, in_tongue
from intavo.talks.actions import Begun, SaidNow, TooOften, begin_talk, said_in, say, where_of
from intavo.talks.files import MOST_FILE, file_in_talk
from intavo.talks.gateways import BadSignature, as_json, take_in
from intavo.talks.models import Gateway, Message, Talk
from intavo.talks.queries import poll
from intavo.talks.saying import TalkNow, messages_data
from intavo.talks.serving import given_file
from intavo.touchpoints.onsite import LiveSite

from .limits import MINUTE, Window
from .protocol import MOST_BYTES, answered_with, as_text, read_as, too_often, visitor_view

_NO_TALK = Phrase("There is no such conversation, or it is long over.")
_A_PAGE = 200


@visitor_view("POST", Window(settings.INTAKE_A_MINUTE))
def begin(request: HttpRequest, site: LiveSite, body: bytes) -> HttpResponse:
    """Begin a conversation; it joins nobody."""
    found = begin_talk(site, read_as(Begun, body), clock.now())
    return answered_with(found, 201)


@visitor_view("POST", Window(settings.PLAN_A_MINUTE))
def messages(request: HttpRequest, site: LiveSite, body: bytes, token: str) -> HttpResponse:
    """Something a visitor says: 201, or 200 with the very same bytes when its id has come before."""
    try:
        answered = say(site, token[:64], read_as(SaidNow, body), clock.now())
    except TooOften:
        return too_often(int(MINUTE), site.tongue())
    if answered is None:
        return problem(404, in_tongue(_NO_TALK, site.tongue()))
    return as_text(answered.text, 200 if answered.repeated else 201)


@visitor_view("POST", Window(settings.INTAKE_A_MINUTE), most=MOST_FILE)
def files(request: HttpRequest, site: LiveSite, body: bytes, token: str) -> HttpResponse:
    """A file of a visitor's, as the body; its `id` and `name` stand in the query.
    Answered as a message is.
    """
    about = json.dumps({"id": request.GET.get("id", ""), "text": request.GET.get("name") or "file"}).encode()
    said = read_as(SaidNow, about)
    try:
        answered = say(site, token[:64], said, clock.now(), body)
    except TooOften:
        return too_often(int(MINUTE), site.tongue())
    if answered is None:
        return problem(404, in_tongue(_NO_TALK, site.tongue()))
    return as_text(answered.text, 200 if answered.repeated else 201)


@visitor_view("GET")
def file(request: HttpRequest, site: LiveSite, body: bytes, token: str, file: str) -> HttpResponse:
    """A file of a conversation, for whoever has its token."""
    row = file_in_talk(site, token[:64], file[:64])
    return problem(404, "There is no such file.") if row is None else given_file(row)


@visitor_view("GET")
def talk(request: HttpRequest, site: LiveSite, body: bytes, token: str) -> HttpResponse:
    """What is new in a conversation since message `after`; 304 where nothing is."""
    after, at = whole_number(request.GET.get("after", "0")), clock.now()
    if after is None:
        return problem(
            422, "Something is not right yet.", [("after", "This is not the number of a message.")]
        )
    found = poll(site.id, token[:64], after, at)
    if found is None:
        return problem(404, in_tongue(_NO_TALK, site.tongue()))
    # Whether somebody is here, and what is said of it, is heard of with the next look, whatever the hours.
    said = said_in(site, found.saying, at)
    # While it is open, when we answer moves on with every minute, and is not shown.
    words = said.told if said.situation is not Situation.OPEN else None
    state = f"{found.last}|{found.read}|{found.typing}|{said.situation.value}|{words}|{after}"
    tag = f'W/"{hashlib.sha256(state.encode()).hexdigest()[:20]}"'
    if found.last <= after and request.headers.get("If-None-Match") == tag:
        response = HttpResponse(status=304)
    else:
        rows = (
            Message.objects.select_related("member__user").filter(talk_id=found.id, n__gt=after).order_by("n")
        )
        new = list(rows[:_A_PAGE]) if found.last > after else []
        now: TalkNow = {
            "messages": messages_data(new, site.business, where_of(site, token)),
            "situation": said.situation.value, "typing": found.typing, "read": found.read,
            "says": said.told,
        }  # fmt: skip
        if request.GET.get("whole"):
            row = Talk.objects.select_related("touchpoint").get(pk=found.id)
            now["choices"], now["asks"] = row.choices, row.asks or None
        response = answered_with(now)
    response["ETag"] = tag
    response["Cache-Control"] = "private, no-cache"
    return response


@csrf_exempt
def gateway(request: HttpRequest, key: str) -> HttpResponse:
    """What a gateway sends, signed as Standard Webhooks has it."""
    row = Gateway.objects.filter(key=key[:40], deleted_at=None).first()
    if row is None:
        return problem(404, "There is no gateway with this key.")
    if request.method != "POST":
        response = problem(405, "Use POST.")
        response["Allow"] = "POST"
        return response
    body = request.read(MOST_BYTES + 1)
    if len(body) > MOST_BYTES:
        return problem(413, "A body has at most 64 KiB.")
    heads = {name.lower(): value for name, value in request.headers.items()}
    try:
        return as_text(as_json(asked_again(lambda: take_in(row, body, heads))), 200)
    except BadSignature:
        return problem(401, "This is not signed with the gateway's secret, or too long ago.")
    except Refused as error:
        return problem(422, "Something is not right yet.", error.errors)
