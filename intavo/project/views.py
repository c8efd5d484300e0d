"""The console's page, and whether all parts are up."""

import re
import sys
from contextlib import suppress
from datetime import timedelta

import psycopg
from django.conf import settings
from django.db import InterfaceError, OperationalError
from django.http import HttpRequest, HttpResponse, JsonResponse
from django.views.decorators.csrf import ensure_csrf_cookie
from procrastinate.contrib.django.utils import connector_params

from intavo.accounts.problem import problem
from intavo.collisions import collided
from intavo.keeping import no_room

from .again import COLLIDED

RETRY_AFTER_SECONDS = 2
ROOM_AFTER_SECONDS = 60
WORKER_SILENT_FOR = timedelta(seconds=30)
# The list as it is first asked for comes beside the code that shows it, not after it.
LIST = "</api/follow-ups?after=>; rel=preload; as=fetch; crossorigin=anonymous"


# The places of the owner's application, as its router has them (a test holds the two against each other).
PLACES = re.compile(
    r"/(?:sign-in|sign-up|welcome|people|touchpoints|touchpoints/rehearse|not-on-the-list|quarantine|script"
    r"|business|you|hours(?:/told|/channels(?:/(?:[0-9]+|new))?)?|(?:verify|reset)(?:/[^/]*)?"
    r"|follow-up(?:/[0-9]+)?|people/(?:bring-in(?:/[0-9]+)?|[0-9]+)|touchpoints/[0-9]+(?:/answers)?)?/?"
)


@ensure_csrf_cookie
def console(request: HttpRequest) -> HttpResponse:
    """The owner's application; its own router takes over from here, and says so where there is nothing."""
    here = PLACES.fullmatch(request.path) is not None
    response = HttpResponse(
        settings.CONSOLE_INDEX.read_bytes(),
        content_type="text/html; charset=utf-8",
        status=200 if here else 404,
    )
    response["Cache-Control"] = "no-cache"
    listed = request.path in {"/", "/follow-up"} and not request.META["QUERY_STRING"]
    if listed and settings.SESSION_COOKIE_NAME in request.COOKIES:
        response["Link"] = LIST
    return response


def service_worker(request: HttpRequest) -> HttpResponse:
    """What keeps the owner's application on a device; it stands at the top, since it serves all places."""
    response = HttpResponse(
        settings.CONSOLE_INDEX.with_name("sw.js").read_bytes(), content_type="text/javascript"
    )
    response["Cache-Control"] = "no-cache"
    return response


def healthz(request: HttpRequest) -> HttpResponse:
    """200 when web, database and worker are up, else 503; the body says which, within two seconds, and whose
    they are: the address that this installation is reached at.

    It connects anew: the pool waits longer for a database that is away, and may be in use to its last
    connection.
    """
    up = {"web": True, "database": False, "worker": False}
    with suppress(psycopg.Error), psycopg.connect(**connector_params() | {"connect_timeout": 2}) as database:
        up["database"] = True
        # A worker writes a heartbeat every ten seconds, by the database's own clock.
        heard = database.execute(
            "SELECT EXISTS (SELECT 1 FROM procrastinate_workers"
            " WHERE last_heartbeat > now() - make_interval(secs => %s))",
            [WORKER_SILENT_FOR.total_seconds()],
        ).fetchone()
        up["worker"] = bool(heard and heard[0])
    said = {**up, "instance": settings.BASE_URL}
    return JsonResponse(said, status=200 if all(up.values()) else 503)


def failed(request: HttpRequest) -> HttpResponse:
    """What went wrong within: 503 with Retry-After where the database was away, two collided or the disk is
    full, which passes, else 500.
    """
    error = sys.exception()
    if isinstance(error, OperationalError | InterfaceError) or collided(error):
        request.META[COLLIDED] = both = collided(error)
        said = "Somebody else was at the same just now" if both else "The database is away for a moment"
        response = problem(503, f"{said}; please try again.")
        response["Retry-After"] = str(RETRY_AFTER_SECONDS)
        return response
    if no_room(error):
        response = problem(503, "There is no room for files here at the moment; nothing of it was kept.")
        response["Retry-After"] = str(ROOM_AFTER_SECONDS)
        return response
    return problem(500, "Something went wrong here. It has been written down.")
