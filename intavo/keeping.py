"""Files of a business, kept in folders of its own: whole or not at all."""

import errno
import os
from collections.abc import Iterable, Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import IO

from django.conf import settings

from intavo.lately import Lately

_FULL = {errno.ENOSPC, errno.EDQUOT}
_used: Lately[Path, int] = Lately(1000, seconds=60)


def home(business_id: int) -> Path:
    """Where a business's files are."""
    return Path(settings.MEDIA_ROOT) / str(business_id)


def used(business_id: int) -> int:
    """How many bytes a business's files take; what other processes kept or threw away is seen in a minute."""
    folder = home(business_id)
    return _used.get(folder, lambda: _bytes_in(folder))


def _bytes_in(folder: Path) -> int:
    total = 0
    for above, _, names in os.walk(folder):
        for name in names:
            try:
                total += os.lstat(os.path.join(above, name)).st_size
            except OSError:
                continue  # It went meanwhile
    return total


def count_anew(path: Path) -> None:
    """A file of a business came or went: whoever asks next has them counted."""
    root = Path(settings.MEDIA_ROOT)
    if path.is_relative_to(root) and path != root:
        _used.drop(root / path.relative_to(root).parts[0])


def throw_away(path: Path) -> None:
    """Delete a file; again it changes nothing."""
    path.unlink(missing_ok=True)
    count_anew(path)


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
        count_anew(path)
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
