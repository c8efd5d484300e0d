"""Writes on the library: pictures re-encoded, videos and files checked for what they are."""

import hashlib
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any

from django.core.files.base import ContentFile, File
from PIL import Image

from intavo import clock
from intavo.accounts.actor import Actor, Refused
from intavo.accounts.quotas import needs_room
from intavo.accounts.scope import own
from intavo.core.quotas import QuotaKind
from intavo.core.rights import Right
from intavo.keeping import count_anew, home, throw_away

from ..decoding import Wrong, opened
from ..models import Asset
from ..pictures import write_anew
from ..queries import assets_in_use

MOST_PICTURE, MOST_OTHER = 10 * 1024 * 1024, 60 * 1024 * 1024
WIDTHS = (480, 960, 1600)
# What a browser plays, by the first bytes of the file.
_VIDEOS = {"video/mp4": (4, b"ftyp"), "video/webm": (0, b"\x1aE\xdf\xa3")}
_FILES = {
    "application/pdf": b"%PDF-", "application/zip": b"PK\x03\x04",
}  # fmt: skip
_TEXTS = {".txt": "text/plain", ".csv": "text/csv", ".ics": "text/calendar"}


def add_asset(
    actor: Actor,
    *,
    kind: str,
    name: str,
    data: bytes = b"",
    file: "File[Any] | None" = None,
    description: str = "",
) -> Asset:
    """Keep a file in the library; the same bytes again give the one that is there.

    Raises Refused that names `file` for what is too large or not what it should be.
    """
    actor.needs(Right.TOUCHPOINTS)
    keep = {Asset.PICTURE: _keep_picture, Asset.VIDEO: _keep_video, Asset.FILE: _keep_file}.get(kind)
    if keep is None:
        raise Refused(("kind", "A library holds pictures, videos and files."))
    file = ContentFile(data) if file is None else file
    most = MOST_PICTURE if kind == Asset.PICTURE else MOST_OTHER
    with _coming(actor.business_id, kind, file, most) as coming:
        known = Asset.objects.filter(business_id=actor.business_id, digest=coming.digest).first()
        if known is not None:
            return known
        needs_room(actor, QuotaKind.FILES, "file", coming.size)
        row = Asset(
            business_id=actor.business_id,
            kind=kind,
            name=Path(name).name[:200] or kind,
            description=description[:500],
            size=coming.size,
            digest=coming.digest,
            added_at=clock.now(),
        )
        keep(row, coming)
    row.save()
    actor.noted("added to the library", asset=row.public_id, name=row.name)
    return row


@dataclass
class _Coming:
    """A file on its way into the library, in a folder that goes when it is done with."""

    folder: Path
    size: int = 0
    head: bytes = b""
    digest: str = ""
    has_nul: bool = False

    @property
    def path(self) -> Path:
        """Where the file is as it came."""
        return self.folder / "as-it-came"

    def keep(self, row: Asset, name: str) -> None:
        """Keep what is called so here, or the file itself, with the row."""
        made = self.folder / name
        folder = folder_of(row)
        folder.mkdir(parents=True, exist_ok=True)
        (made if made.exists() else self.path).replace(folder / name)
        count_anew(folder)


@contextmanager
def _coming(business_id: int, kind: str, file: "File[Any]", most: int) -> Iterator[_Coming]:
    above = home(business_id)
    above.mkdir(parents=True, exist_ok=True)
    digest = hashlib.sha256(kind.encode())
    with TemporaryDirectory(dir=above, prefix="coming-") as folder:
        coming = _Coming(Path(folder))
        with coming.path.open("wb") as out:
            for piece in file.chunks():
                coming.size += len(piece)
                if coming.size > most:
                    raise Refused(("file", f"This file is too large: at most {most // 1024 // 1024} MB."))
                coming.head = coming.head or piece[:1024]
                coming.has_nul = coming.has_nul or b"\x00" in piece
                digest.update(piece)
                out.write(piece)
        if not coming.size:
            raise Refused(("file", "This file is empty."))
        coming.digest = digest.hexdigest()
        yield coming


def folder_of(row: Asset) -> Path:
    """Where an asset's files are."""
    return home(row.business_id) / row.public_id


def _keep_picture(row: Asset, coming: _Coming) -> None:
    head = coming.head
    if head.lstrip()[:5].lower() in {b"<svg ", b"<?xml"} or b"<svg" in head.lower():
        raise Refused(("file", "An SVG can carry programs and is not taken. Save it as PNG or WebP, please."))
    written = write_anew(coming.path, coming.folder, WIDTHS)
    row.media_type, row.width, row.height = "image/webp", written.width, written.height
    row.widths, row.sample, row.boxed = written.widths, written.sample, written.boxed
    for width in written.widths:
        coming.keep(row, f"{width}.webp")


def _keep_video(row: Asset, coming: _Coming) -> None:
    head = coming.head
    found = next((kind for kind, (at, mark) in _VIDEOS.items() if head[at : at + len(mark)] == mark), None)
    if found is None:
        raise Refused(("file", "This is not a video that browsers play: MP4 or WebM."))
    row.media_type = found
    coming.keep(row, "video")


def _keep_file(row: Asset, coming: _Coming) -> None:
    ending = Path(row.name).suffix.casefold()
    found = next((kind for kind, mark in _FILES.items() if coming.head.startswith(mark)), None)
    if found is None and ending in _TEXTS and not coming.has_nul:
        found = _TEXTS[ending]
    if found is None and ending in {".jpg", ".jpeg", ".png", ".webp"}:
        try:
            found = Image.MIME[str(opened(coming.path).format)]
        except Wrong as wrong:
            raise Refused(("file", str(wrong))) from wrong
    if found is None:
        raise Refused(
            ("file", "Files to give are PDF, ZIP, JPEG, PNG, WebP, or plain text, CSV or calendar.")
        )
    row.media_type = found
    coming.keep(row, "file")


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
        throw_away(path)
    asset.delete()
    actor.noted("taken out of the library", asset=asset.public_id, name=asset.name)
