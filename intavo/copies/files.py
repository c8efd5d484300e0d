"""Where copies are kept, and the files of a business that go with one."""

from collections.abc import Iterator
from pathlib import Path

from intavo.keeping import home
from intavo.mail.models import Enclosure
from intavo.mailin.models import IncomingFile
from intavo.talks.models import Message
from intavo.touchpoints.models import Asset


def path_of(business_id: int, key: str) -> Path:
    """Where a copy is."""
    return home(business_id) / "copies" / key


def files_of(business_id: int) -> Iterator[tuple[str, Path]]:
    """Every file of a business that goes with a copy, by its name in it."""
    root = home(business_id)
    if not root.is_dir():
        return
    named = named_files(business_id)
    for path in sorted(root.rglob("*")):
        name = path.relative_to(root)
        if path.is_file() and not named.keys().isdisjoint(name.parts):
            yield name.as_posix(), path


def named_files(business_id: int) -> dict[str, int | None]:
    """The names of folders and files that the business's rows have, each with the size in bytes that its row
    says (None: a folder of several); what lies about beside them is nobody's.
    """
    talked = Message.objects.filter(business_id=business_id, file__isnull=False).values_list(
        "file__key", "file__size", "file__type"
    )
    return {
        **dict.fromkeys(Asset.objects.filter(business_id=business_id).values_list("public_id", flat=True)),
        **dict(IncomingFile.objects.filter(business_id=business_id).values_list("key", "size")),
        **dict(Enclosure.objects.filter(business_id=business_id).values_list("key", "size")),
        # A picture is kept in several sizes.
        **{str(key): size if kind == "application/pdf" else None for key, size, kind in talked},
    }
