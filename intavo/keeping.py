"""Files of a business, kept in folders of its own: whole or not at all."""

import errno
import os
from collections.abc import Iterable, Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import IO

from django.conf import settings

_FULL = {errno.ENOSPC, errno.EDQUOT}


def home(business_id: int) -> Path:
    """Where a business's files are."""
    return Path(settings.MEDIA_ROOT) / str(business_id)


@contextmanager
def kept(path: Path) -> Iterator[IO[bytes]]:
    """A file to be written; once this is left it is there, whatever happens to the machine then. Of one that
    could not be written whole nothing stays.
    """
    path.parent.mkdir(parents=True, exist_ok=True)
    part = path.with_name(f"{path.name}.part")
    try:
        with part.open("wb") as out:
            yield out
            out.flush()
            os.fsync(out.fileno())
        part.replace(path)
    except BaseException:
        part.unlink(missing_ok=True)
        raise


def keep(path: Path, pieces: Iterable[bytes]) -> None:
    """Write a file down piece by piece, as `kept` has it."""
    with kept(path) as out:
        out.writelines(pieces)


def no_room(error: BaseException | None) -> bool:
    """Whether what went wrong is that the disk, or our share of it, is full."""
    return isinstance(error, OSError) and error.errno in _FULL
