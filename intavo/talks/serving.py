"""A file of a conversation as an answer of ours, to either side."""

from django.http import HttpResponse
from django.utils.http import content_disposition_header

from intavo.accounts.problem import problem

from .files import path_of
from .models import Message


def given_file(row: Message) -> HttpResponse:
    """A file's bytes: a picture to look at, anything else to download; neither runs anything."""
    found = row.file or {}
    try:
        data = path_of(row.business_id, str(found["key"])).read_bytes()
    except OSError:
        return problem(404, "There is no such file any more.")
    response = HttpResponse(data, content_type=str(found["type"]))
    ending = {"image/webp": ".webp"}.get(str(found["type"]), "")
    name = str(found["name"])
    name = name if name.lower().endswith(ending) else f"{name}{ending}"
    shown = "inline" if ending else "attachment"
    response["Content-Disposition"] = content_disposition_header(shown == "attachment", name) or shown
    response["Content-Security-Policy"] = "default-src 'none'; sandbox"
    response["X-Content-Type-Options"] = "nosniff"
    response["Cache-Control"] = "private, max-age=3600"
    response["Cross-Origin-Resource-Policy"] = "cross-origin"
    return response
