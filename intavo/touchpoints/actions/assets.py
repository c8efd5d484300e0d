"""Writes on the library: pictures re-encoded, videos and files checked for what they are."""

import hashlib
import io
from pathlib import Path

from django.conf import settings
from PIL import Image, ImageOps, UnidentifiedImageError

from intavo.accounts.actor import Actor, Refused
from intavo.accounts.scope import own
from intavo.core.legibility import Pixel, boxed_in, hex_of
from intavo.core.rights import Right
from intavo.project import clock

from ..models import Asset
from ..queries import assets_in_use

MOST_PICTURE, MOST_OTHER = 10 * 1024 * 1024, 60 * 1024 * 1024
MOST_PIXELS = 60_000_000
WIDTHS = (480, 960, 1600)
SAMPLE = 24
# What a browser plays, by the first bytes of the file.
_VIDEOS = {"video/mp4": (4, b"ftyp"), "video/webm": (0, b"\x1aE\xdf\xa3")}
_FILES = {
    "application/pdf": b"%PDF-", "application/zip": b"PK\x03\x04",
}  # fmt: skip
_TEXTS = {".txt": "text/plain", ".csv": "text/csv", ".ics": "text/calendar"}


def add_asset(actor: Actor, *, kind: str, name: str, data: bytes, description: str = "") -> Asset:
    """Keep a file in the library; the same bytes again give the one that is there.

    Raises Refused that names `file` for what is too large or not what it should be.
    """
    actor.needs(Right.TOUCHPOINTS)
    most = MOST_PICTURE if kind == Asset.PICTURE else MOST_OTHER
    if not data:
        raise Refused(("file", "This file is empty."))
    if len(data) > most:
        raise Refused(("file", f"This file is too large: at most {most // 1024 // 1024} MB."))
    digest = hashlib.sha256(kind.encode() + data).hexdigest()
    known = Asset.objects.filter(business_id=actor.business_id, digest=digest).first()
    if known is not None:
        return known
    row = Asset(
        business_id=actor.business_id, kind=kind, name=Path(name).name[:200] or kind, description=description[:500],
        size=len(data), digest=digest, added_at=clock.now(),
    )  # fmt: skip
    keep = {Asset.PICTURE: _keep_picture, Asset.VIDEO: _keep_video, Asset.FILE: _keep_file}.get(kind)
    if keep is None:
        raise Refused(("kind", "A library holds pictures, videos and files."))
    keep(row, data)
    row.save()
    actor.noted("added to the library", asset=row.public_id, name=row.name)
    return row


def folder_of(row: Asset) -> Path:
    """Where an asset's files are."""
    return Path(settings.MEDIA_ROOT) / str(row.business_id) / row.public_id


def _write(row: Asset, name: str, data: bytes) -> None:
    folder = folder_of(row)
    folder.mkdir(parents=True, exist_ok=True)
    (folder / name).write_bytes(data)


def _keep_picture(row: Asset, data: bytes) -> None:
    if data.lstrip()[:5].lower() in {b"<svg ", b"<?xml"} or b"<svg" in data[:1024].lower():
        raise Refused(("file", "An SVG can carry programs and is not taken. Save it as PNG or WebP, please."))
    picture = read_picture(data, "This is not a picture that can be read: JPEG, PNG, WebP or AVIF.")
    row.media_type, row.width, row.height = "image/webp", picture.width, picture.height
    row.widths = sorted({min(width, picture.width) for width in WIDTHS})
    for width in row.widths:
        sized = picture.resize((width, max(1, round(picture.height * width / picture.width))), Image.Resampling.LANCZOS)
        out = io.BytesIO()
        # Written anew, so that nothing but the pixels of what was uploaded stays.
        sized.save(out, "WEBP", quality=82, method=4)
        _write(row, f"{width}.webp", out.getvalue())
    pixels = sampled(picture)
    row.sample = [[hex_of(pixel) for pixel in line] for line in pixels]
    row.boxed = picture.mode == "RGB" and boxed_in(pixels)


def read_picture(data: bytes, otherwise: str) -> Image.Image:
    """A picture of one of the kinds that are taken, the right way up; Refused with the words `otherwise`."""
    try:
        opened = Image.open(io.BytesIO(data), formats=["JPEG", "PNG", "WEBP", "AVIF"])
        if opened.width * opened.height > MOST_PIXELS:
            raise Refused(("file", "This picture has too many pixels: at most 60 million."))
        turned = ImageOps.exif_transpose(opened)
        return turned.convert("RGBA" if turned.has_transparency_data else "RGB")
    except (UnidentifiedImageError, OSError, SyntaxError, Image.DecompressionBombError, ValueError) as error:
        raise Refused(("file", otherwise)) from error


def sampled(picture: Image.Image) -> list[list[Pixel]]:
    """A picture's pixels on a small grid; where it can be seen through, on white."""
    flat = picture
    if picture.mode == "RGBA":
        flat = Image.new("RGB", picture.size, "white")
        flat.paste(picture, mask=picture.getchannel("A"))
    wide = SAMPLE if flat.width >= flat.height else max(3, round(SAMPLE * flat.width / flat.height))
    tall = SAMPLE if flat.height >= flat.width else max(3, round(SAMPLE * flat.height / flat.width))
    small = flat.convert("RGB").resize((wide, tall), Image.Resampling.BOX)
    raw = small.tobytes()
    cells: list[Pixel] = [(raw[at], raw[at + 1], raw[at + 2]) for at in range(0, len(raw), 3)]
    return [cells[row * wide : (row + 1) * wide] for row in range(tall)]


def _keep_video(row: Asset, data: bytes) -> None:
    found = next((kind for kind, (at, mark) in _VIDEOS.items() if data[at : at + len(mark)] == mark), None)
    if found is None:
        raise Refused(("file", "This is not a video that browsers play: MP4 or WebM."))
    row.media_type = found
    _write(row, "video", data)


def _keep_file(row: Asset, data: bytes) -> None:
    ending = Path(row.name).suffix.casefold()
    found = next((kind for kind, mark in _FILES.items() if data.startswith(mark)), None)
    if found is None and ending in _TEXTS and b"\x00" not in data:
        found = _TEXTS[ending]
    if found is None and ending in {".jpg", ".jpeg", ".png", ".webp"}:
        try:
            Image.open(io.BytesIO(data)).verify()
            found = Image.MIME[str(Image.open(io.BytesIO(data)).format)]
        except (UnidentifiedImageError, OSError, SyntaxError, KeyError) as error:
            raise Refused(("file", "This picture cannot be read.")) from error
    if found is None:
        raise Refused(("file", "Files to give are PDF, ZIP, JPEG, PNG, WebP, or plain text, CSV or calendar."))
    row.media_type = found
    _write(row, "file", data)


def describe_asset(actor: Actor, *, asset_id: int, name: str, description: str) -> Asset:
    """Name a picture, and say what is on it."""
    actor.needs(Right.TOUCHPOINTS)
    if not name.strip():
        raise Refused(("name", "Please write a name."))
    asset = own(actor, Asset, asset_id)
    asset.name, asset.description = name.strip()[:200], description.strip()[:500]
    asset.save(update_fields=["name", "description"])
    return asset


def forget_asset(actor: Actor, *, asset_id: int) -> None:
    """Take an unused one out of the library for good."""
    actor.needs(Right.TOUCHPOINTS)
    asset = own(actor, Asset, asset_id)
    users = assets_in_use(actor).get(asset.public_id)
    if users:
        raise Refused(("asset", f"It is used by {', '.join(users)}."))
    for path in folder_of(asset).glob("*"):
        path.unlink()
    asset.delete()
    actor.noted("taken out of the library", asset=asset.public_id, name=asset.name)
