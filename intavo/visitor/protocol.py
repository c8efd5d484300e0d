"""What every address under /e/<site key>/ has in common: size, key, origin, rate, JSON, and errors."""

from collections.abc import Callable
from functools import partial, wraps
from typing import Any, TypeVar

import orjson
from django.conf import settings
from django.core.exceptions import ObjectDoesNotExist
from django.http import HttpRequest, HttpResponse
from django.utils.cache import patch_vary_headers
from django.views.decorators.csrf import csrf_exempt
from pydantic import BaseModel, ValidationError

from intavo import clock
from intavo.accounts.actor import Refused
from intavo.accounts.clients import client_address, mark_of
from intavo.accounts.problem import problem
from intavo.collisions import asked_again
from intavo.core.door import NotLetIn, read_json
from intavo.core.hosts import host_of
from intavo.core.refusals import wrongs
from intavo.core.tongues import ENGLISH, Phrase, Tongue, in_tongue
from intavo.touchpoints.live import live_site
from intavo.touchpoints.onsite import LiveSite

from .counting import tally
from .limits import Window

MOST_BYTES = 64 * 1024
View = Callable[..., HttpResponse]
M = TypeVar("M", bound=BaseModel)


class Unreadable(Exception):
    """The body is not what it should be; pairs of a field's place and words."""

    def __init__(self, *errors: tuple[str, str]) -> None:
        self.errors = list(errors)


def as_text(text: str | bytes, status: int = 200) -> HttpResponse:
    """An answer that is JSON already; nobody on the way keeps it."""
    response = HttpResponse(text, status=status, content_type="application/json")
    response["Cache-Control"] = "no-store"
    return response


def answered_with(answer: Any, status: int = 200) -> HttpResponse:
    """An answer of the protocol, as `wire` has it."""
    return as_text(orjson.dumps(answer), status)


def sender_mark(request: HttpRequest) -> str:
    """A keyed hash of the calling address: enough to count by, not to find somebody by."""
    return mark_of(client_address(request))


def opened(body: bytes) -> Any:
    """The JSON of a body; raises Unreadable with what cannot be let in."""
    try:
        return read_json(body, mending=("page",))
    except NotLetIn as error:
        raise Unreadable(*error.named()) from error


def read_as(model: type[M], body: bytes) -> M:
    """The body as a model; raises Unreadable with the fields that are wrong."""
    return taken_as(model, opened(body))


def taken_as(model: type[M], said: Any) -> M:
    """What was let in as a model; raises Unreadable with the fields that are wrong."""
    try:
        return model.model_validate(said)
    except ValidationError as error:
        raise Unreadable(*wrongs(error.errors(), whole="body")) from error


_WRONG, _TOO_OFTEN = (
    Phrase("Something is not right yet."),
    Phrase("That was too often; try again a little later."),
)


def visitor_view(
    method: str, window: Window | None = None, most: int = MOST_BYTES
) -> Callable[[View], Callable[..., HttpResponse]]:
    """A view of the visitor's protocol; `window` limits how often one address may call it, `most` a body's
    bytes.
    """

    def decorate(view: View) -> Callable[..., HttpResponse]:
        @csrf_exempt
        @wraps(view)
        def answer(request: HttpRequest, key: str, **more: str) -> HttpResponse:
            body = _body(request, most)
            site = None if len(key) > 40 else live_site(key)
            called = partial(view, **more) if more else view
            response = _answer(request, site, body, method, window, called, most)
            return _with_origin(request, response, site)

        return answer

    return decorate


def _body(request: HttpRequest, most: int) -> bytes | None:
    """The body, or None where it is too large; read only as far as it may go."""
    if int(request.META.get("CONTENT_LENGTH") or 0) > most:
        return None
    body = request.read(most + 1)
    return None if len(body) > most else body


def _answer(
    request: HttpRequest,
    site: LiveSite | None,
    body: bytes | None,
    method: str,
    window: Window | None,
    view: View,
    most: int,
) -> HttpResponse:
    if body is None:
        return problem(413, f"A body has at most {most // 1024} KiB.")
    if site is None:
        return problem(404, "There is no site with this key.")
    if request.method == "OPTIONS":
        return (
            _preflight(method)
            if _allowed_origin(request, site)
            else problem(403, "This origin is not the site's.")
        )
    if request.method != method:
        response = problem(405, f"Use {method}.")
        response["Allow"] = f"{method}, OPTIONS"
        return response
    if method == "POST" and not _allowed_origin(request, site):
        tally.stranger(site, request.headers.get("Origin", ""), clock.now(), sender_mark(request))
        return problem(403, "This origin is not the site's.")
    wait = window.wait((site.id, client_address(request))) if window else 0
    if wait:
        return too_often(wait, site.tongue())
    try:
        return asked_again(lambda: view(request, site, body))
    except ObjectDoesNotExist:
        return problem(404, "This is not here any more.")
    except (Unreadable, Refused) as error:
        tongue = site.tongue()
        errors = [(field, in_tongue(message, tongue)) for field, message in error.errors]
        return problem(422, in_tongue(_WRONG, tongue), errors)


def too_often(wait: int, tongue: Tongue = ENGLISH) -> HttpResponse:
    """429 with the seconds to wait."""
    response = problem(429, in_tongue(_TOO_OFTEN, tongue))
    response["Retry-After"] = str(wait)
    return response


def _preflight(method: str) -> HttpResponse:
    response = HttpResponse(status=204)
    response["Access-Control-Allow-Methods"] = method
    response["Access-Control-Allow-Headers"] = "content-type"
    response["Access-Control-Max-Age"] = "600"
    return response


def _allowed_origin(request: HttpRequest, site: LiveSite) -> bool:
    host = host_of(request.headers.get("Origin", ""))
    return host is not None and (host in site.hosts or host == host_of(settings.BASE_URL))


def _with_origin(request: HttpRequest, response: HttpResponse, site: LiveSite | None) -> HttpResponse:
    patch_vary_headers(response, ["Origin"])
    if site is not None and _allowed_origin(request, site):
        response["Access-Control-Allow-Origin"] = request.headers["Origin"]
    return response
