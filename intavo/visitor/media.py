"""Pictures, videos and files as browsers get them: by ids that cannot be guessed, kept for long,
never run.
"""

import re
from pathlib import Path

from django.core import signing
from django.http import Http404, HttpRequest, HttpResponse, StreamingHttpResponse
from django.views.decorators.http import require_safe

from intavo.intake.actions.giving import FILE_LASTS, FILE_SALT
from intavo.intake.queries import answers_csv, answers_of
from intavo.touchpoints.actions.assets import folder_of
from intavo.touchpoints.models import Asset, Touchpoint
from intavo.touchpoints.queries import asset_row, opened_by_a_click
from intavo.touchpoints.shipped import shipped_path

_YEAR = "public, max-age=31536000, immutable"
_RANGE = re.compile(r"^bytes=(\d{0,15})-(\d{0,15})$")
# Of a video at most so much goes out at once; a browser asks for the next piece by itself.
_MOST_AT_ONCE = 4 * 1024 * 1024


@require_safe
def media(request: HttpRequest, asset: str, name: str) -> HttpResponse:
    """One file of an asset: `<width>.webp` of a picture (the nearest width there is), `video`, or `file`."""
    shipped = shipped_path(asset) if asset.startswith("shipped-") else None
    if shipped is not None:
        return _file(request, shipped, "image/webp")
    row = asset_row(asset)
    path = _path(row, name) if row is not None else None
    if row is None or path is None or not path.is_file():
        raise Http404
    # What is given behind a signed link, for a while, has no other way.
    if row.kind == Asset.FILE and not opened_by_a_click(row):
        raise Http404
    response = _file(request, path, row.media_type)
    if row.kind == Asset.FILE:
        response["Content-Disposition"] = f'attachment; filename="{_plain(row.name)}"'
    return response


def _path(row: Asset, name: str) -> Path | None:
    if row.kind != Asset.PICTURE:
        return folder_of(row) / row.kind if name == row.kind else None
    wanted = int(found[1]) if (found := re.match(r"^(\d{1,5})\.webp$", name)) else 0
    fitting = [width for width in row.widths if width >= wanted] or row.widths[-1:]
    return folder_of(row) / f"{fitting[0]}.webp" if wanted and fitting else None


def _file(request: HttpRequest, path: Path, media_type: str, cache: str = _YEAR) -> HttpResponse:
    size = path.stat().st_size
    piece = _piece(request.headers.get("Range", ""), size)
    if piece is None:
        response = HttpResponse(path.read_bytes(), content_type=media_type)
    elif not piece:
        response = HttpResponse(status=416, content_type=media_type)
        response["Content-Range"] = f"bytes */{size}"
    else:
        with path.open("rb") as file:
            file.seek(piece.start)
            response = HttpResponse(file.read(len(piece)), status=206, content_type=media_type)
        response["Content-Range"] = f"bytes {piece.start}-{piece.stop - 1}/{size}"
    response["Accept-Ranges"] = "bytes"
    response["Cache-Control"] = cache
    response["Access-Control-Allow-Origin"] = "*"
    response["Cross-Origin-Resource-Policy"] = "cross-origin"
    response["X-Content-Type-Options"] = "nosniff"
    response["Content-Security-Policy"] = "default-src 'none'; sandbox"
    return response


def _piece(asked: str, size: int) -> range | None:
    """Which bytes of a file are asked for: None for all, an empty range for none that there are.

    Only one stretch is understood; what cannot be read asks for nothing. Source: RFC 9110, 14.1.2.
    """
    found = _RANGE.match(asked)
    if found is None or not (found[1] or found[2]):
        return None
    if not found[1]:
        start, stop = max(0, size - int(found[2])), size
    else:
        start, stop = int(found[1]), min(size, int(found[2]) + 1) if found[2] else size
        if found[2] and int(found[2]) < start:
            return None
    return range(start, max(start, min(stop, start + _MOST_AT_ONCE))) if start < size else range(0)


def _plain(name: str) -> str:
    return re.sub(r"[^\w .()-]", "_", name, flags=re.ASCII)


@require_safe
def given_file(request: HttpRequest, token: str) -> HttpResponse:
    """The file behind a signed link, for thirty days."""
    try:
        said = signing.loads(token, salt=FILE_SALT, max_age=FILE_LASTS)
    except signing.BadSignature as error:
        raise Http404 from error
    row = Asset.objects.filter(public_id=said["asset"], business_id=said["business"]).first()
    if row is None:
        raise Http404
    name = (
        "file"
        if row.kind == Asset.FILE
        else row.kind
        if row.kind == Asset.VIDEO
        else f"{row.widths[-1]}.webp"
    )
    path = folder_of(row) / name
    if not path.is_file():
        raise Http404
    response = _file(request, path, row.media_type, "private, no-store")
    response["Content-Disposition"] = f'attachment; filename="{_plain(row.name)}"'
    return response


@require_safe
def answers(request: HttpRequest, token: str) -> StreamingHttpResponse:
    """A touchpoint's answers as CSV, for whoever knows the secret address."""
    touchpoint = Touchpoint.objects.filter(csv_token=token, deleted_at=None).first()
    if touchpoint is None:
        raise Http404
    rows = answers_csv(touchpoint, answers_of(touchpoint))
    response = StreamingHttpResponse(rows, content_type="text/csv; charset=utf-8")
    response["Content-Disposition"] = f'attachment; filename="{touchpoint.slug}.csv"'
    response["Cache-Control"] = "private, no-store"
    response["X-Robots-Tag"] = "noindex"
    return response
