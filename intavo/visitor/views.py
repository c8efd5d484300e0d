"""The visitor's protocol, version 1: loader, plan, intake and beats."""

import gzip
import json
import re
from collections import Counter
from collections.abc import Collection, Sequence
from datetime import datetime, timedelta
from functools import lru_cache
from hashlib import sha256

import brotli
import orjson
from django.conf import settings
from django.http import HttpRequest, HttpResponse
from django.utils.cache import patch_vary_headers
from pydantic import TypeAdapter, ValidationError

from intavo import clock
from intavo.accounts.actor import visitor_of
from intavo.core.door import NotLetIn, let_in
from intavo.core.hosts import host_of
from intavo.core.showing import PlannedEntry, Visit, plan
from intavo.core.times import iso
from intavo.core.touchpoint.patterns import normal_path
from intavo.intake.actions import Sent, looked_up, receive
from intavo.results.actions import SaidBeat, keep_beats
from intavo.sites.models import Site
from intavo.sites.queries import home_of
from intavo.touchpoints.actions import note_lying_over
from intavo.touchpoints.onsite import LiveSite, LiveTouchpoint
from intavo.touchpoints.revisions import published_revision

from .asking import Helped, Wanted
from .counting import tally
from .limits import MINUTE, Window
from .more import count_helped, more, rehearsed_more
from .protocol import (
    Unreadable,
    answered_with,
    as_text,
    opened,
    read_as,
    sender_mark,
    taken_as,
    too_often,
    visitor_view,
)
from .reaching import channels_written, used
from .rehearsing import read_link
from .wire import BeatsKept, Plan, entry_of

VISIT_MINUTES = 30
_BEAT = TypeAdapter(SaidBeat)
# An address of a page of the site in what a click does or in rich text; files of Intavo's own are none.
_OWN_PAGE = re.compile(rb'("href":"|"page":"|href=\\")/(?!/|m/)')
# What goes before anything that interrupts, on every site: what of ours is being used, dialogs of the page's
# own, and what somebody is writing in. A browser that does not know a selector within ":is" goes on with the
# others.
_FIRST = (
    "[data-intavo-in-use]", ":modal", "[aria-modal=true]",
    ":is(textarea,select,iframe,[contenteditable]):focus",
    # A search box that has the focus from the first, and nothing in it, is not being written in.
    ":is(input:not([type=button],[type=submit],[type=checkbox],[type=radio]):focus"
    ":not([autofocus]:placeholder-shown))",
    # An element of the page's own making, in which something has the focus.
    ":is(:focus-within:not(:has(:focus-within),a,button,summary,audio,video,input,[tabindex],[data-intavo-touchpoint]))",
)  # fmt: skip
_MOST_BEATS = 200
# Of each kind of report, from one address on one site.
_BEATS = Window(settings.BEATS_A_MINUTE)


@lru_cache(maxsize=1)
def _loader(written: int) -> tuple[dict[str, bytes], str]:
    """The script as it was written at an instant, by how it is packed, the smallest first, and its tag."""
    text = settings.LOADER_FILE.read_bytes()
    packed = {"br": brotli.compress(text), "gzip": gzip.compress(text, 9, mtime=0), "": text}
    return packed, f'W/"{sha256(text).hexdigest()[:20]}"'


@visitor_view("GET")
def loader(request: HttpRequest, site: LiveSite, body: bytes) -> HttpResponse:
    """The script itself; the same for every site, which it knows by its own address."""
    packed, tag = _loader(settings.LOADER_FILE.stat().st_mtime_ns)
    takes = {one.partition(";")[0].strip() for one in request.headers.get("Accept-Encoding", "").split(",")}
    how = next(one for one in packed if one in takes or not one)
    unchanged = request.headers.get("If-None-Match") == tag
    response = HttpResponse(b"" if unchanged else packed[how], status=304 if unchanged else 200)
    if how and not unchanged:
        response["Content-Encoding"] = how
    patch_vary_headers(response, ["Accept-Encoding"])
    response["Content-Type"] = "text/javascript; charset=utf-8"
    response["Cache-Control"] = "public, max-age=300"
    response["ETag"] = tag
    response["Cross-Origin-Resource-Policy"] = "cross-origin"
    return response


@visitor_view("POST", Window(settings.PLAN_A_MINUTE))
def plan_view(request: HttpRequest, site: LiveSite, body: bytes) -> HttpResponse:
    """What may show on this page view."""
    visit = read_as(Visit, body)
    at = clock.now()
    if visit.rehearsal:
        told = read_link(visit.rehearsal, site.id)
        site, visit, at = told.site(site), told.as_they(visit), at + told.ahead
    else:
        tally.view(site, visit, at, sender_mark(request))
    opened = next((one.compiled.id for one in site.touchpoints if one.slug == visit.open), None)
    placed = [one.compiled.id for one in site.touchpoints if one.slug in visit.slots] if visit.slots else ()
    entries = plan((one.compiled for one in site.touchpoints), visit, at, opened, placed)
    return answered_with(_planned(site, visit, at, entries))


def _planned(site: LiveSite, visit: Visit, at: datetime, entries: Sequence[PlannedEntry]) -> Plan:
    """The plan as it is answered; it holds until the hours or what is said change next, for a day at most."""
    by_id = {one.compiled.id: one for one in site.touchpoints}
    language, offset = visit.visitor.language, visit.visitor.utc_offset
    said = site.says(at, language, offset)
    until = site.situation_ends(said.situation, at)
    latest = min(until or at + timedelta(days=1), at + timedelta(days=1))
    lives = [by_id[one.touchpoint.id] for one in entries]
    channels: dict[str, orjson.Fragment] = {}
    if ids := used(site, lives):
        channels, turn = channels_written(site, ids, visit, at, lives)
        latest = min(latest, turn or latest)
    faced = [site.faced(one, at, language, offset) for one in lives]
    latest = min([latest, *(ends for _, ends in faced if ends)])
    home = ""
    if host_of(visit.page.url) == host_of(settings.BASE_URL) not in site.hosts:
        home = home_of(Site.objects.get(pk=site.id))
    usual = iso(latest)
    answer: Plan = {
        "now": iso(at), "visit_minutes": VISIT_MINUTES,
        "give_way_to": [*site.rules.give_way_to, *_FIRST],
        "hours": {
            "situation": said.situation.value, "until": iso(until) if until else None, "says": said.told,
        },
        "touchpoints": [
            entry_of(
                live, one, iso(min(one.until, latest)) if one.until else usual, _document(live, label, home)
            )
            for live, one, (label, _) in zip(lives, entries, faced, strict=True)
        ],
    }  # fmt: skip
    if site.wants:
        answer["wants"] = site.wants
    if clock.fixed():
        answer["fixed"] = True
    if channels:
        answer["channels"] = channels
    return answer


def _document(live: LiveTouchpoint, label: str, home: str) -> orjson.Fragment:
    """A touchpoint's document with these words on its button; with a `home`, for a page that is not the
    site's: what leads to a page of the site leads there from outside.
    """
    text = live.labelled(label)
    return orjson.Fragment(
        _OWN_PAGE.sub(lambda found: found[1] + f"{home}/".encode(), text) if home else text
    )


@visitor_view("POST", Window(settings.INTAKE_A_MINUTE))
def intake(request: HttpRequest, site: LiveSite, body: bytes) -> HttpResponse:
    """Take in a submission: 201, or 200 with the very same bytes when its id has come before."""
    mark = sender_mark(request)
    said, refused = _read(body)
    looked = looked_up(site.id, _client_id(body) if refused else _id_in(said), mark, settings.INTAKE_A_MINUTE)
    if looked.known is not None:
        return as_text(looked.known.text)
    if refused:
        raise refused
    sent = taken_as(Sent, said)
    if looked.too_many:
        return too_often(int(MINUTE))
    answered = receive(site, sent, at=clock.now(), sender=mark, number=looked.number)
    return as_text(answered.text, 200 if answered.repeated else 201)


def _read(body: bytes) -> tuple[object, Unreadable | None]:
    try:
        return opened(body), None
    except Unreadable as error:
        return None, error


def _client_id(body: bytes) -> str:
    """The id of a submission of which something else cannot be let in; "" where it has none that could be
    kept.
    """
    try:
        return str(let_in(_id_in(json.loads(body))))
    except (ValueError, RecursionError):
        return ""


def _id_in(said: object) -> str:
    id_ = said.get("id") if isinstance(said, dict) else None
    return id_ if isinstance(id_, str) else ""


@visitor_view("POST", Window(settings.PLAN_A_MINUTE))
def more_view(request: HttpRequest, site: LiveSite, body: bytes) -> HttpResponse:
    """What some parts need besides their document."""
    wanted, at = read_as(Wanted, body), clock.now()
    if wanted.rehearsal:
        return answered_with(rehearsed_more(site, wanted, read_link(wanted.rehearsal, site.id), at))
    return answered_with(more(site, wanted, at, sender_mark(request)))


@visitor_view("POST", Window(settings.PLAN_A_MINUTE))
def helped(request: HttpRequest, site: LiveSite, body: bytes) -> HttpResponse:
    """Whether an answer to a question helped."""
    return count_helped(request, site, read_as(Helped, body))


@visitor_view("POST")
def beats(request: HttpRequest, site: LiveSite, body: bytes) -> HttpResponse:
    """Keep beats; those that are refused are counted and not stored."""
    try:
        said = json.loads(body)
    except (ValueError, RecursionError):
        raise Unreadable(("body", "This is not JSON.")) from None
    if not isinstance(said, list):
        raise Unreadable(("body", "Beats come as a list."))
    at, sender = clock.now(), sender_mark(request)
    good: list[SaidBeat] = []
    live = {one.compiled.id for one in site.touchpoints}
    hosts = {*site.hosts, host_of(settings.BASE_URL)}
    why: Counter[str] = Counter({"unreadable": max(0, len(said) - _MOST_BEATS)})
    for beat in map(_beat, said[:_MOST_BEATS]):
        wrong = "unreadable" if beat is None else _wrong(site, beat, sender, live, hosts)
        if beat is None or wrong:
            why[wrong] += 1
        else:
            good.append(beat)
    visitor = visitor_of(site.business.pk)
    keep_beats(visitor, site_id=site.id, beats=good, at=at, channels=site.channels)
    for one in good:
        if one.what == "over":
            page = normal_path(one.page.url)[:500]
            note_lying_over(visitor, public_id=one.touchpoint, revision=one.revision, page=page)
    tally.refused(site, +why, at)
    kept: BeatsKept = {"kept": len(good), "refused": len(said) - len(good)}
    return answered_with(kept, 202)


def _wrong(
    site: LiveSite, beat: SaidBeat, sender: str, live: Collection[str], hosts: Collection[str | None]
) -> str:
    """Why a report is not kept, of what is not live or of other hosts' pages, say; "" where it is."""
    if beat.touchpoint not in live:
        return "touchpoint"
    if published_revision(site.business.pk, beat.touchpoint, beat.revision) is None:
        return "revision"
    if host_of(beat.page.url) not in hosts:
        return "page"
    return "often" if _BEATS.wait((site.id, f"{beat.what} {sender}")) else ""


def _beat(said: object) -> SaidBeat | None:
    try:
        return _BEAT.validate_python(let_in(said))
    except (ValidationError, NotLetIn):
        return None
