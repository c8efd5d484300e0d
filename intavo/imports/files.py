"""The bytes of files that are brought in; they go as soon as nothing is to be read from them any more."""

import secrets
from pathlib import Path
from typing import Any

from django.core.files.uploadedfile import UploadedFile

from intavo import keeping

from .models import Import

MOST = 1024 * 1024 * 1024
HEAD = 1024 * 1024


def path_of(business_id: int, key: str) -> Path:
    """Where a file's bytes are."""
    return keeping.home(business_id) / "imports" / key


def keep(business_id: int, file: "UploadedFile[Any]") -> tuple[str, bytes]:
    """Write a file down piece by piece; says its key and its beginning."""
    key = secrets.token_hex(16)
    keeping.keep(path_of(business_id, key), file.chunks())
    file.seek(0)
    return key, file.read(HEAD)


def forget(row: Import) -> None:
    """Delete the bytes; again it changes nothing."""
    keeping.throw_away(path_of(row.business_id, row.key))
