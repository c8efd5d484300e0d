"""The rows of a file as they are read, and by what their people are known."""

from collections.abc import Callable, Iterable, Iterator
from typing import Any

from intavo.core.importing import Column, Entry, Line, card_lines, csv_lines, read_card, read_row
from intavo.people.models import Address

from .files import opened
from .models import Import

AT_ONCE = 500


def lines_of(row: Import, file: Any) -> Iterator[Line]:
    return card_lines(file) if row.form == "vcf" else csv_lines(file, row.delimiter, row.header)


def reader_of(row: Import) -> Callable[[Line], Entry]:
    columns, titles, region = [Column(one) for one in row.columns], row.titles, row.business.region
    if row.form == "vcf":
        return lambda line: read_card(line.cells[0], region)
    return lambda line: read_row(line.cells, columns, titles, region)


def first_lines(row: Import, most: int = 5) -> list[list[str]]:
    """The first rows as they are read, for choosing what their columns are."""
    lines: list[list[str]] = []
    try:
        with opened(row) as file:
            for line in lines_of(row, file):
                if len(lines) == most:
                    break
                lines.append([cell[:200] for cell in line.cells])
    except FileNotFoundError:
        return []
    return lines


def batches(lines: Iterable[Line], size: int) -> Iterator[list[Line]]:
    batch: list[Line] = []
    for line in lines:
        batch.append(line)
        if len(batch) == size:
            yield batch
            batch = []
    if batch:
        yield batch


def keys_of(entry: Entry) -> list[tuple[str, str]]:
    """By what they are known: the email, else (without one) the phone."""
    if entry.email is not None:
        return [(Address.EMAIL, entry.email.key)]
    return [(Address.PHONE, entry.phone.key)] if entry.phone is not None else []


def agrees(row: Import, entry: Entry) -> bool:
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
