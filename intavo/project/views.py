"""The console's page, and whether all parts are up."""

from datetime import timedelta

from django.conf import settings
from django.db import DatabaseError, connection
from django.http import HttpRequest, HttpResponse, JsonResponse
from django.views.decorators.csrf import ensure_csrf_cookie

WORKER_SILENT_FOR = timedelta(seconds=30)


@ensure_csrf_cookie
def console(request: HttpRequest) -> HttpResponse:
    """The owner's application; its own router takes over from here."""
    response = HttpResponse(settings.CONSOLE_INDEX.read_bytes(), content_type="text/html; charset=utf-8")
    response["Cache-Control"] = "no-cache"
    return response


def healthz(request: HttpRequest) -> HttpResponse:
    """200 when web, database and worker are up, else 503; the body says which."""
    up = {"web": True, "database": False, "worker": False}
    try:
        with connection.cursor() as cursor:
            # A worker writes a heartbeat every ten seconds, by the database's own clock.
            cursor.execute(
                "SELECT EXISTS (SELECT 1 FROM procrastinate_workers"
                " WHERE last_heartbeat > now() - make_interval(secs => %s))",
                [WORKER_SILENT_FOR.total_seconds()],
            )
            row = cursor.fetchone()
            up["database"], up["worker"] = True, bool(row and row[0])
    except DatabaseError:
        pass
    return JsonResponse(up, status=200 if all(up.values()) else 503)
