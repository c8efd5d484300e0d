"""Files that visitors put into a conversation where the owner allows it: pictures, written anew, and PDF."""

import secrets
import unicodedata
from pathlib import Path
from tempfile import TemporaryDirectory

from django.db import transaction
from django.db.models.signals import post_delete
from django.dispatch import receiver

from intavo import keeping
from intavo.accounts.actor import Refused
from intavo.accounts.quotas import quota
from intavo.core.quotas import QuotaKind
from intavo.core.texts import Kept
from intavo.core.tongues import Phrase
from intavo.mail.enclosing import path_of as enclosed_at
from intavo.mail.models import Enclosure
from intavo.touchpoints.onsite import LiveSite
from intavo.touchpoints.pictures import write_anew
from intavo.touchpoints.revisions import document_of

from .models import Message, Talk

# What a browser draws and cannot run.
PICTURES = frozenset({"image/webp", "image/png", "image/jpeg", "image/gif"})
MOST_FILE = 10 * 1024 * 1024
_WIDEST = 2400
_PDF = b"%PDF-"


def checked_file(business_id: int, name: str, data: bytes) -> tuple[dict[str, object], bytes]:
    """What is kept of a file, and its bytes; Refused that names `file` for what it may not be.

    A picture is decoded and written anew as WebP, at most 2,400 pixels wide, so that nothing else of it
    stays.
    """
    if not data:
        raise Refused(("file", Phrase("This file is empty.")))
    if not quota(business_id, QuotaKind.FILES).takes_from_guests(len(data)):
        raise Refused(
            ("file", Phrase("No files can be taken here just now; your words arrive all the same."))
        )
    if len(data) > MOST_FILE:
        raise Refused(("file", Phrase("This file is too large: at most 10 MB.")))
    plain = "".join(one for one in name if unicodedata.category(one)[0] != "C")
    title = Path(plain.replace("\\", "/")).name.strip()[:120] or "file"
    kind = "application/pdf"
    if not data.startswith(_PDF):
        with TemporaryDirectory() as folder:
            came = Path(folder, "as-it-came")
            came.write_bytes(data)
            otherwise = Phrase("Pictures and PDF can be sent here, and this is neither.")
            written = write_anew(came, came.parent, (_WIDEST,), _WIDEST * 4, otherwise)
            kind, data = "image/webp", (came.parent / f"{written.widths[0]}.webp").read_bytes()
    return {"key": secrets.token_hex(16), "name": title, "type": kind, "size": len(data)}, data


def takes_files(talk: Talk) -> bool:
    """Whether the owner lets visitors of this conversation send files."""
    document = document_of(talk.revision_id) if talk.revision_id else None
    return document is not None and document.talk is not None and document.talk.files


def path_of(business_id: int, key: str) -> Path:
    """Where a file's bytes are."""
    return keeping.home(business_id) / "talks" / key


def keep_bytes(business_id: int, key: str, data: bytes) -> None:
    """Write a file's bytes, before the row that names them is kept: what is named is always there."""
    keeping.keep(path_of(business_id, key), [data])


def shared(chosen: Enclosure) -> dict[str, object]:
    """A file of ours that was chosen for an answer, kept with the conversation: what is kept of it."""
    key = secrets.token_hex(16)
    with enclosed_at(chosen).open("rb") as file:
        keeping.keep(path_of(chosen.business_id, key), iter(lambda: file.read(1024 * 1024), b""))
    return {"key": key, "name": chosen.name, "type": chosen.type, "size": chosen.size}


def file_in_talk(site: LiveSite, token: Kept, key: Kept) -> Message | None:
    """The message of this site's conversation that has this file."""
    rows = Message.objects.filter(talk__token=token, talk__site_id=site.id, file__key=key)
    return rows.first()


@receiver(post_delete, sender=Message)
def _bytes_go_too(instance: Message, **about: object) -> None:
    if instance.file:
        path = path_of(instance.business_id, str(instance.file["key"]))
        transaction.on_commit(lambda: keeping.throw_away(path))
