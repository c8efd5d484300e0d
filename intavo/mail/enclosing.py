"""Files that go with an answer by mail: kept from when they are chosen, and gone with what they went with."""

import secrets
from datetime import timedelta
from email.encoders import encode_base64
from email.mime.base import MIMEBase
from pathlib import Path
from typing import Any

from django.core.files.uploadedfile import UploadedFile
from django.core.mail import EmailMessage
from django.db import transaction
from django.db.models.signals import post_delete
from django.dispatch import receiver

from intavo import clock, keeping
from intavo.accounts.actor import Actor, Refused
from intavo.accounts.quotas import needs_room
from intavo.accounts.scope import own
from intavo.core.mailin.files import type_of
from intavo.core.quotas import QuotaKind
from intavo.core.rights import Right
from intavo.core.texts import mended

from .models import Enclosure, OutgoingMail

MOST, MOST_ALL, MOST_FILES = 10 * 1024 * 1024, 20 * 1024 * 1024, 10
LASTS = timedelta(days=2)
_HEAD = 64 * 1024


def path_of(row: Enclosure) -> Path:
    """Where a file's bytes are."""
    return keeping.home(row.business_id) / "enclosed" / row.key


def enclose(actor: Actor, *, file: "UploadedFile[Any]") -> Enclosure:
    """Take a file in that is to go with an answer. Refused for an empty one, and one of more than 10 MB."""
    actor.needs(Right.FOLLOW_UP)
    if not file.size:
        raise Refused(("file", "This file is empty."))
    if file.size > MOST:
        raise Refused(("file", "This file is too large: at most 10 MB."))
    needs_room(actor, QuotaKind.FILES, "file", file.size)
    name = " ".join(mended(Path((file.name or "file").replace("\\", "/")).name).split())[:120] or "file"
    row = Enclosure(
        business_id=actor.business_id,
        member_id=actor.member_id,
        key=secrets.token_hex(16),
        name=name,
        size=file.size,
        added_at=clock.now(),
    )
    keeping.keep(path_of(row), file.chunks())
    file.seek(0)
    row.type = type_of(file.read(_HEAD))
    row.save()
    return row


def leave_out(actor: Actor, *, file_id: int) -> None:
    """Let a file not go after all. Refused once it has gone."""
    actor.needs(Right.FOLLOW_UP)
    row = own(actor, Enclosure, file_id)
    if row.mail_id is not None:
        raise Refused(("file", "It has gone with an answer."))
    row.delete()


def chosen(actor_member: int | None, business_id: int, files: tuple[int, ...]) -> list[Enclosure]:
    """The files that are to go with an answer. Refused for those that are not one's own, have gone, or are
    too many.
    """
    rows = {
        row.pk: row
        for row in Enclosure.objects.select_for_update().filter(
            business_id=business_id, member_id=actor_member or 0, mail=None, pk__in=files
        )
    }
    if len(rows) != len(set(files)):
        raise Refused(("files", "One of these files is not there any more; choose it again."))
    if len(rows) > MOST_FILES or sum(row.size for row in rows.values()) > MOST_ALL:
        raise Refused(("files", f"At most {MOST_FILES} files of 20 MB together go with a mail."))
    return [rows[one] for one in dict.fromkeys(files)]


def release(*, business_id: int, key: str) -> None:
    """The mail with this key does not go out: its files are chosen, and gone with nothing, as before."""
    Enclosure.objects.filter(mail__business_id=business_id, mail__key=key).update(
        mail=None, added_at=clock.now()
    )


def attach(message: EmailMessage, mail: OutgoingMail) -> None:
    """Put a mail's files into the message."""
    for row in mail.enclosures.order_by("pk"):
        main, _, sub = row.type.partition("/")
        part = MIMEBase(main, sub)
        part.set_payload(path_of(row).read_bytes())
        encode_base64(part)
        part.add_header("Content-Disposition", "attachment", filename=row.name)
        message.attach(part)


def put_with(mail_id: int, business_id: int, kept: dict[str, Any], at: Path) -> None:
    """Let a file that is kept elsewhere go with a mail, in the caller's transaction."""
    row = Enclosure(
        business_id=business_id,
        key=secrets.token_hex(16),
        name=kept["name"],
        size=kept["size"],
        type=kept["type"],
        added_at=clock.now(),
        mail_id=mail_id,
    )
    with at.open("rb") as file:
        keeping.keep(path_of(row), iter(lambda: file.read(_HEAD), b""))
    row.save()


def clear_away() -> None:
    """Forget files that were chosen and went with nothing."""
    for row in Enclosure.objects.filter(mail=None, added_at__lt=clock.now() - LASTS):
        row.delete()


@receiver(post_delete, sender=Enclosure)
def _bytes_go_too(instance: Enclosure, **about: object) -> None:
    path = path_of(instance)
    transaction.on_commit(lambda: keeping.throw_away(path))
