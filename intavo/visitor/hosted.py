"""The hosted page: a touchpoint at an address of its own, working without JavaScript."""

import json
import secrets
from dataclasses import dataclass, field
from typing import Any

from django.conf import settings
from django.core import signing
from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.views.decorators.csrf import csrf_exempt

from intavo import clock
from intavo.accounts.actor import Refused
from intavo.accounts.clients import client_address
from intavo.core.addresses import leads
from intavo.core.door import whole_number
from intavo.core.tongues import Phrase, say
from intavo.core.touchpoint import Asked, Consent, Document, Score, clicks_of, for_visitors, way_to
from intavo.core.touchpoint.answers import next_step
from intavo.intake.actions import Sent, looked_up, receive
from intavo.sites.models import Site
from intavo.sites.queries import home_of
from intavo.touchpoints.live import live_site
from intavo.touchpoints.onsite import LiveSite, LiveTouchpoint
from intavo.touchpoints.queries import house_of, published
from intavo.touchpoints.revisions import document_of

from .asked import tongue_asked
from .limits import Window
from .more import extras
from .protocol import sender_mark

_window = Window(settings.INTAKE_A_MINUTE)
_TRAP = "website"
TOO_OFTEN = Phrase("That was too often. Please wait a minute and send it again; nothing is lost.")


@dataclass
class PageAsked:
    """One request for the page: the touchpoint, the revision they see, and what they have answered so far."""

    request: HttpRequest
    site: LiveSite
    live: LiveTouchpoint
    revision: int
    document: Document
    touchpoint_id: int
    client_id: str
    values: dict[str, str] = field(default_factory=dict)


# A form that anybody may send, without a session to protect: there is nothing to forge.
@csrf_exempt
def page(request: HttpRequest, site: str, slug: str) -> HttpResponse:
    """The page: the form, the form with what was wrong, or the thanks."""
    row = Site.objects.filter(slug=site).first()
    live = live_site(row.key) if row else None
    found = next((one for one in live.touchpoints if one.slug == slug), None) if live else None
    if live is None or found is None:
        return gone(request, row)
    visit = _visit(request, live, found)
    if request.method == "POST":
        return _posted(visit)
    return _form(visit, visit.document.steps[0].id)


def gone(request: HttpRequest, site: Site | None) -> HttpResponse:
    """What is told where nothing stands (any more): whose it was, and the way to their own site."""
    context: dict[str, Any] = {"tongue": site.tongue() if site else tongue_asked(request)}
    context |= {"business": site.business.name, "home": home_of(site)} if site else {}
    return render(request, "visitor/gone.html", context, status=404)


def _visit(request: HttpRequest, site: LiveSite, live: LiveTouchpoint) -> PageAsked:
    posted = request.POST
    asked = whole_number(posted.get("revision", "")) or live.revision
    row = published(site.business.pk, live.compiled.id, asked) or published(
        site.business.pk, live.compiled.id, live.revision
    )
    assert row is not None
    document = document_of(row.pk)
    client_id = posted.get("id", "")[:80] or secrets.token_hex(16)
    visit = PageAsked(request, site, live, row.number, document, row.touchpoint_id, client_id)
    for part in document.parts():
        if isinstance(part, Asked) and part.name in posted:
            visit.values[part.name] = "\n".join(posted.getlist(part.name))
        elif isinstance(part, Consent) and part.name in posted:
            visit.values[part.name] = "on"
    return visit


def _posted(visit: PageAsked) -> HttpResponse:
    """Go on to another step, or take in what was sent."""
    posted, document = visit.request.POST, visit.document
    step = posted.get("step", document.steps[0].id)
    pressed = posted.get("press", "")
    if pressed.startswith("go:") and document.step(pressed.removeprefix("go:")):
        return _form(visit, pressed.removeprefix("go:"))
    if pressed == "back":
        way = way_to(document, step, visit.values)
        return _form(visit, way[-2].id if len(way) > 1 else document.steps[0].id)
    sends = any(part.kind == "button" and part.does.action == "send" for part in _shown(document, step))
    following = next_step(document, step, visit.values)
    if pressed in {"step", "choose"} or not sends:
        return _form(visit, following or step)
    return _sent(visit, step)


def _shown(document: Document, step: str) -> list[Any]:
    found = document.step(step) or document.steps[0]
    return [part for part in found.parts if not part.hidden]


def _since(visit: PageAsked) -> str:
    """Since when the page is open, signed; as it was sent, where it was."""
    if visit.request.method == "GET":
        return signing.dumps(int(clock.now().timestamp() * 1000), salt="since")
    return visit.request.POST.get("since", "")


def _form(
    visit: PageAsked, step: str, errors: dict[str, str] | None = None, status: int = 200, **more: Any
) -> HttpResponse:
    document, site = visit.document, visit.site
    shown = document.step(step) or document.steps[0]
    row = Site.objects.get(pk=site.id)
    tongue = site.tongue(document.language)
    seen = for_visitors(document, house_of(row), site.business.region, home_of(row), tongue)
    drawn = {part["id"]: part for one in seen["steps"] for part in one["parts"]}
    found = extras(site.business.pk, document, site, visit.touchpoint_id, clock.now())
    for does in (does for part in drawn.values() for does in clicks_of(part)):
        way = found.get("channels", {}).get(does["channel"]) if does["action"] == "channel" else None
        does["href"] = way["href"] if way and not way["hidden"] else does["href"]
    wrong = errors or {}
    parts = [
        {
            "part": drawn[part.id],
            "value": visit.values.get(getattr(part, "name", ""), ""),
            "chosen": visit.values.get(getattr(part, "name", ""), "").split("\n"),
            "error": wrong.get(getattr(part, "name", "")),
            "scores": _scores(part),
        }
        for part in shown.parts
        if not part.hidden
    ]
    here = {getattr(part, "name", "") for part in shown.parts if not part.hidden}
    context = {
        "site": site, "live": visit.live, "revision": visit.revision, "parts": parts,
        "client_id": visit.client_id, "look": seen["look"], "step": shown.id,
        "plain": visit.request.method == "POST", "trap": _TRAP,
        "carried": [(name, value) for name, value in visit.values.items() if name not in here],
        "since": _since(visit),
        "extras": found, "tongue": tongue, **more,
    }  # fmt: skip
    return render(visit.request, "visitor/hosted.html", context, status=status)


def _scores(part: Any) -> list[int]:
    return list(range(part.least, part.most + 1)) if isinstance(part, Score) else []


def _elapsed(visit: PageAsked) -> int | None:
    """Milliseconds since the page was drawn, by the page's own signed word; None where that is not known."""
    try:
        since = signing.loads(visit.request.POST.get("since", ""), salt="since")
    except signing.BadSignature:
        return None
    # Under a clock that stands still nobody could be slow enough.
    return None if clock.fixed() else max(0, int(clock.now().timestamp() * 1000) - int(since))


def _sent(visit: PageAsked, step: str) -> HttpResponse:
    site, document, request = visit.site, visit.document, visit.request
    mark = sender_mark(request)
    looked = looked_up(site.id, visit.client_id, mark, settings.INTAKE_A_MINUTE)
    known = looked.known
    if known is None:
        if looked.too_many or _window.wait((site.id, client_address(request))):
            notice = say(TOO_OFTEN, site.tongue(document.language))
            return _form(visit, step, status=429, notice=notice)
        ticks = {
            part.name: part.name in visit.values for part in document.parts() if isinstance(part, Consent)
        }
        fields = {name: value for name, value in visit.values.items() if name not in ticks}
        try:
            sent = Sent.model_validate(
                {
                    "id": visit.client_id,
                    "touchpoint": visit.live.compiled.id,
                    "revision": visit.revision,
                    "step": step,
                    "answers": fields,
                    "consents": ticks,
                    "elapsed_ms": _elapsed(visit),
                    "page": {"url": request.build_absolute_uri(request.path), "title": visit.live.name},
                    "device": "phone" if "Mobi" in request.headers.get("User-Agent", "") else "desktop",
                    "trap": request.POST.get(_TRAP, "")[:1000],
                }
            )
            known = receive(site, sent, at=clock.now(), sender=mark, number=looked.number)
        except ValueError:
            visit.client_id = secrets.token_hex(16)
            return _form(visit, step, status=422)
        except Refused as error:
            errors = {name.rpartition(".")[2]: message for name, message in error.errors}
            return _form(visit, step, errors, status=422)
    return _thanks(visit, known.text, step)


def _thanks(visit: PageAsked, answer: str, step: str) -> HttpResponse:
    said, site = json.loads(answer), visit.site
    home = home_of(Site.objects.get(pk=site.id))
    visit.values = {}
    return _form(
        visit,
        said["next"] or step,
        says=said["says"],
        done=True,
        suggest=said["suggest"],
        code=said["code"],
        file=said["file"],
        elsewhere=leads(visit.document.after.page, site.business.region, home),
    )
