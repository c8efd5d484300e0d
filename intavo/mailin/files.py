"""Files that came by mail: kept as they are, given out for download alone."""

import secrets
from collections.abc import Iterable
from pathlib import Path
from typing import Any

from django.db import transaction
from django.db.models.signals import post_delete
from django.dispatch import receiver
from django.http import HttpResponse
from django.utils.http import content_disposition_header

from intavo import keeping
from intavo.accounts.problem import problem
from intavo.core.mailin import MailFile

from .models import IncomingFile, IncomingMail


def path_of(business_id: int, key: str) -> Path:
    """Where a file's bytes are."""
    return keeping.home(business_id) / "mail" / key


def keep_files(mail: IncomingMail, files: tuple[MailFile, ...]) -> list[IncomingFile]:
    """Keep what is attached: the bytes before the row, so that what is named is always there."""
    rows = []
    for one in files:
        key = secrets.token_hex(16)
        keeping.keep(path_of(mail.business_id, key), [one.content])
        about = {"name": one.name, "type": one.type[:80], "size": len(one.content), "risky": one.risky}
        rows.append(IncomingFile(business_id=mail.business_id, mail=mail, key=key, **about))
    return IncomingFile.objects.bulk_create(rows)


def told_of(files: Iterable[IncomingFile]) -> list[dict[str, Any]]:
    """Files as the timeline keeps them."""
    return [
        {"id": one.pk, "name": one.name, "size": one.size, "risky": one.risky, "picture": _is_picture(one)}
        for one in files
    ]


# What a browser draws and nothing in it can run, of a size that a list of them bears.
_PICTURES = {"image/png", "image/jpeg", "image/gif", "image/webp", "image/avif"}
_MOST_DRAWN = 5 * 1024 * 1024


def _is_picture(row: IncomingFile) -> bool:
    return row.type in _PICTURES and not row.risky and row.size <= _MOST_DRAWN


def given_out(row: IncomingFile) -> HttpResponse:
    """A file's bytes, to be saved: the browser opens none of it here."""
    try:
        data = path_of(row.business_id, row.key).read_bytes()
    except OSError:
        return problem(404, "There is no such file any more.")
    response = HttpResponse(data, content_type="application/octet-stream" if row.risky else row.type)
    response["Content-Disposition"] = content_disposition_header(True, row.name) or "attachment"
    response["Content-Security-Policy"] = "default-src 'none'; sandbox"
    response["X-Content-Type-Options"] = "nosniff"
    response["Cache-Control"] = "private, no-store"
    return response


@receiver(post_delete, sender=IncomingFile)
def _bytes_go_too(instance: IncomingFile, **about: object) -> None:
    path = path_of(instance.business_id, instance.key)
    transaction.on_commit(lambda: keeping.throw_away(path))
