"""The hosted page: a touchpoint at an address of its own, working without JavaScript."""

import json
import secrets
from typing import Any

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.views.decorators.csrf import csrf_exempt

from intavo.accounts.actor import Refused
from intavo.core.touchpoint import Consent, FieldPart
from intavo.intake.actions import Sent, looked_up, receive
from intavo.project import clock
from intavo.sites.models import Site
from intavo.touchpoints.live import LiveSite, LiveTouchpoint, document_of, live_site
from intavo.touchpoints.queries import published

from .limits import Window
from .protocol import client_address, sender_mark

_window = Window(settings.INTAKE_A_MINUTE)


# A form that anybody may send, without a session to protect: there is nothing to forge.
@csrf_exempt
def page(request: HttpRequest, site: str, slug: str) -> HttpResponse:
    """The page: the form, the form with what was wrong, or the thanks."""
    key = Site.objects.filter(slug=site).values_list("key", flat=True).first()
    live = live_site(key) if key else None
    found = next((one for one in live.touchpoints if one.slug == slug), None) if live else None
    if live is None or found is None:
        return render(request, "visitor/gone.html", status=404)
    if request.method == "POST":
        return _sent(request, live, found)
    return _form(request, live, found, found.revision, {}, {}, secrets.token_hex(16))


def _form(
    request: HttpRequest, site: LiveSite, live: LiveTouchpoint, revision: int, values: dict[str, str],
    errors: dict[str, str], client_id: str, step: str = "", status: int = 200, **more: Any,
) -> HttpResponse:  # fmt: skip
    row = published(site.business.pk, live.compiled.id, revision)
    if row is None:
        return render(request, "visitor/gone.html", status=404)
    document = document_of(row.pk)
    shown = document.step(step) or document.steps[0]
    parts = [
        {
            "part": part,
            "value": values.get(getattr(part, "name", ""), ""),
            "error": errors.get(getattr(part, "name", "")),
        }
        for part in shown.parts
        if not part.hidden
    ]
    context = {
        "site": site, "live": live, "revision": revision, "parts": parts, "client_id": client_id,
        "look": document.look, "step": shown.id, "plain": bool(step) or bool(errors), **more,
    }  # fmt: skip
    return render(request, "visitor/hosted.html", context, status=status)


def _sent(request: HttpRequest, site: LiveSite, live: LiveTouchpoint) -> HttpResponse:
    posted = request.POST
    client_id = posted.get("id", "")[:80]
    revision = int(posted["revision"]) if posted.get("revision", "").isdigit() else live.revision
    row = published(site.business.pk, live.compiled.id, revision)
    if row is None:
        revision = live.revision
        row = published(site.business.pk, live.compiled.id, revision)
    assert row is not None
    document = document_of(row.pk)
    fields = {part.name: posted.get(part.name, "") for part in document.parts() if isinstance(part, FieldPart)}
    ticks = {part.name: part.name in posted for part in document.parts() if isinstance(part, Consent)}
    values = fields | {name: "on" for name, ticked in ticks.items() if ticked}
    mark = sender_mark(request)
    known, too_many = looked_up(site.id, client_id, mark, settings.INTAKE_A_MINUTE)
    if known is None:
        if too_many or _window.wait((site.id, client_address(request))):
            more = {"notice": "That was too often. Please wait a minute and send it again; nothing is lost."}
            return _form(request, site, live, revision, values, {}, client_id, status=429, **more)
        try:
            sent = Sent.model_validate(
                {
                    "id": client_id, "touchpoint": live.compiled.id, "revision": revision,
                    "step": document.steps[0].id, "answers": fields, "consents": ticks,
                    "page": {"url": request.build_absolute_uri(request.path), "title": live.name},
                    "device": "phone" if "Mobi" in request.headers.get("User-Agent", "") else "desktop",
                }
            )  # fmt: skip
            known = receive(site, sent, at=clock.now(), sender=mark)
        except ValueError:
            return _form(request, site, live, revision, values, {}, secrets.token_hex(16), status=422)
        except Refused as error:
            errors = {field.rpartition(".")[2]: message for field, message in error.errors}
            return _form(request, site, live, revision, values, errors, client_id, status=422)
    return _thanks(request, site, live, revision, known.text)


def _thanks(request: HttpRequest, site: LiveSite, live: LiveTouchpoint, revision: int, answer: str) -> HttpResponse:
    said = json.loads(answer)
    return _form(
        request, site, live, revision, {}, {}, "", step=said["next"] or "thanks", says=said["says"], done=True,
        suggest=said["suggest"],
    )  # fmt: skip
