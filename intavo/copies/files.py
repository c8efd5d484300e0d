"""Where copies are kept, and the files of a business that go with one."""

from collections.abc import Iterator
from pathlib import Path

from django.conf import settings

# What is made from others, or is on its way: it is not a part of the business.
_NOT_CARRIED = {"copies", "imports"}


def home(business_id: int) -> Path:
    """Where a business's files are."""
    return Path(settings.MEDIA_ROOT) / str(business_id)


def path_of(business_id: int, key: str) -> Path:
    """Where a copy is."""
    return home(business_id) / "copies" / key


def files_of(business_id: int) -> Iterator[tuple[str, Path]]:
    """Every file of a business that goes with a copy, by its name in it."""
    root = home(business_id)
    if not root.is_dir():
        return
    for path in sorted(root.rglob("*")):
        name = path.relative_to(root)
        if path.is_file() and name.parts[0] not in _NOT_CARRIED:
            yield name.as_posix(), path
