"""The bare views that the real ones are measured against, under the same server, settings and middleware."""

import json

from django.db import connection
from django.http import HttpRequest, HttpResponse
from django.urls import path
from django.views.decorators.csrf import csrf_exempt

from intavo.project.urls import urlpatterns as real


@csrf_exempt
def bare_json(request: HttpRequest) -> HttpResponse:
    """Reads a small JSON body and answers a small JSON body."""
    said = json.loads(request.body)
    return HttpResponse(json.dumps({"said": len(said)}), content_type="application/json")


@csrf_exempt
def bare_insert(request: HttpRequest) -> HttpResponse:
    """Reads a small JSON body and inserts one row."""
    said = json.loads(request.body)
    with connection.cursor() as cursor:
        cursor.execute("INSERT INTO bench_row (body) VALUES (%s)", [json.dumps(said)])
    return HttpResponse("{}", content_type="application/json", status=201)


urlpatterns = [path("bench/json", bare_json), path("bench/insert", bare_insert), *real]
