"""A file of a conversation as an answer of ours, to either side."""

from django.http import HttpResponse
from django.utils.http import content_disposition_header

from intavo.accounts.problem import problem

from .files import PICTURES, path_of
from .models import Message


def given_file(row: Message) -> HttpResponse:
    """A file's bytes: a picture to look at, anything else to download; neither runs anything."""
    found = row.file or {}
    try:
        data = path_of(row.business_id, str(found["key"])).read_bytes()
    except OSError:
        return problem(404, "There is no such file any more.")
    name, picture = str(found["name"]), found["type"] in PICTURES
    # What a visitor sent was written anew, whatever it was.
    if found["type"] == "image/webp" and not name.lower().endswith(".webp"):
        name = f"{name}.webp"
    # A page or a drawing of ours is no page of this host, whoever opens it.
    known = picture or found["type"] == "application/pdf"
    response = HttpResponse(data, content_type=str(found["type"]) if known else "application/octet-stream")
    response["Content-Disposition"] = content_disposition_header(not picture, name) or "attachment"
    response["Content-Security-Policy"] = "default-src 'none'; sandbox"
    response["X-Content-Type-Options"] = "nosniff"
    response["Cache-Control"] = "private, max-age=3600"
    response["Cross-Origin-Resource-Policy"] = "cross-origin"
    return response
