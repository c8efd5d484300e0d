"""The rows of a file as they are read, and by what their people are known."""

from collections.abc import Iterable, Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import TypeVar

from intavo.accounts.actor import Refused
from intavo.apart import Busy, Unreadable, apart
from intavo.core import people as rules
from intavo.core.importing import Column, Entry, Line
from intavo.people.models import Address

from . import reading
from .files import path_of
from .models import Import

AT_ONCE = 500
# Within so many seconds a file is looked at while somebody waits.
_SECONDS = 20.0
T = TypeVar("T")


@contextmanager
def read_apart() -> Iterator[None]:
    """What keeps a file from being read is said of it."""
    try:
        yield
    except Unreadable:
        raise Refused(("file", "This file takes too long to read.")) from None
    except Busy:
        raise Refused(("file", "Too many files are being read just now; please try again.")) from None


def place_of(row: Import) -> Path:
    """Where the bytes of a file are."""
    return path_of(row.business_id, row.key)


def form_of(row: Import) -> reading.Form:
    """How a file is to be read."""
    columns = tuple(Column(one) for one in row.columns)
    return reading.Form(
        row.form,
        row.encoding,
        row.delimiter,
        row.header,
        columns,
        tuple(row.titles),
        row.business.region,
    )


def first_lines(row: Import, most: int = 5) -> list[list[str]]:
    """The first rows as they are read, for choosing what their columns are."""
    try:
        with read_apart():
            return apart(reading.first_lines, _SECONDS, place_of(row), form_of(row), most)
    except FileNotFoundError:
        return []


def read_first(row: Import, most: int) -> tuple[list[tuple[Line, Entry | None, str]], bool]:
    """The first rows, whoever stands in each, and whether those are all.

    Refused where they take too long; raises FileNotFoundError once the file is gone.
    """
    with read_apart():
        return apart(reading.read_first, _SECONDS, place_of(row), form_of(row), most)


def batches(lines: Iterable[T], size: int) -> Iterator[list[T]]:
    batch: list[T] = []
    for line in lines:
        batch.append(line)
        if len(batch) == size:
            yield batch
            batch = []
    if batch:
        yield batch


def kind_of(address: rules.Address) -> str:
    """Whether it is an email address or a phone number."""
    return Address.EMAIL if "@" in address.key else Address.PHONE


def keys_of(entry: Entry) -> list[tuple[str, str]]:
    """By what they are known: the email, else (without one) the phone."""
    if entry.email is not None:
        return [(Address.EMAIL, entry.email.key)]
    return [(Address.PHONE, entry.phone.key)] if entry.phone is not None else []


def agrees(row: Import, entry: Entry) -> bool:
    """Whether what is stated of all is stated of them: not where the file says it of each."""
    if entry.agreements:
        return False
    return bool(row.consent_source) and entry.agreed is not False


def addresses_of(business_id: int, entries: list[Entry]) -> list[Address]:
    """The addresses of those who are on the list already; of several with one phone the oldest card's comes
    last.
    """
    addresses: list[Address] = []
    for kind in (Address.EMAIL, Address.PHONE):
        keys = {key for entry in entries for its, key in keys_of(entry) if its == kind}
        if keys:
            # By kind and key, as the index has them.
            rows = Address.objects.filter(business_id=business_id, kind=kind, key__in=keys).select_related(
                "person"
            )
            addresses += [one for one in rows.order_by("-person_id") if not one.person.erasing]
    return addresses
