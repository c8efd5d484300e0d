"""Bringing people in: a file is read, tried, taken by a job, and undone."""

import csv
import io
import re
import secrets
from collections.abc import Iterator
from dataclasses import dataclass
from datetime import date, timedelta
from typing import Any

from django.core.files.uploadedfile import UploadedFile
from django.db import transaction
from procrastinate.contrib.django import app

from intavo import clock, keeping
from intavo.accounts.actor import Actor, Refused
from intavo.accounts.models import Business
from intavo.accounts.quotas import counts, needs_room
from intavo.accounts.scope import own
from intavo.apart import apart
from intavo.core.csvsafe import harmless
from intavo.core.importing import Column, guess
from intavo.core.quotas import QuotaKind
from intavo.core.rights import Right

from . import reading
from .files import HEAD, MOST, forget, keep, path_of
from .models import Import
from .rows import AT_ONCE, read_apart

_DELIMITERS = {",", ";", "\t", "|"}
_LASTS = timedelta(days=2)
_A_SHEET_SECONDS = 30.0


def read_file(actor: Actor, *, file: "UploadedFile[Any]") -> Import:
    """Take a file in and say what it looks like; nothing of it is on the list yet."""
    actor.needs(Right.EVERYBODY)
    if not file.size:
        raise Refused(("file", "The file is empty."))
    if file.size > MOST:
        raise Refused(("file", "The file is larger than 1 GB."))
    needs_room(actor, QuotaKind.IMPORTS, "file")
    needs_room(actor, QuotaKind.FILES, "file", file.size)
    key, head = keep(actor.business_id, file)
    if reading.is_sheet(head):
        key, head = _as_rows(actor.business_id, key)
    found = guess(head)
    form = _form(head)
    row = Import(
        business_id=actor.business_id,
        member_id=actor.member_id,
        name=" ".join((file.name or "file").split())[:200],
        form=form,
        key=key,
        size=file.size,
        encoding=found.encoding,
        delimiter=found.delimiter,
        header=found.header,
        titles=list(found.titles),
        columns=[one.value for one in found.columns],
        added_at=clock.now(),
    )
    if form == "csv" and not found.columns:
        forget(row)
        raise Refused(("file", "There are no rows in this file."))
    row.save()
    return row


@counts(QuotaKind.IMPORTS)
def waiting_of(business_id: int) -> int:
    """How many files lie here that were not taken."""
    return Import.objects.filter(business_id=business_id, state=Import.READ).count()


@counts(QuotaKind.IMPORTS_AT_ONCE)
def worked_on(business_id: int) -> int:
    """How many files are being taken, or undone, at the moment."""
    return Import.objects.filter(business_id=business_id, state__in=(Import.TAKING, Import.UNDOING)).count()


def _in_line(actor: Actor) -> None:
    """Two who begin at once are counted one after the other."""
    Business.objects.select_for_update().get(pk=actor.business_id)
    needs_room(actor, QuotaKind.IMPORTS_AT_ONCE, "state")


def _form(head: bytes) -> str:
    """What kind of file begins so."""
    begin = head[:4096].replace(b"\x00", b"")
    if b"BEGIN:VCARD" in begin.upper():
        return "vcf"
    return "json" if re.match(rb"(\xef\xbb\xbf)?\s*\{\s*\"", begin) else "csv"


def _as_rows(business_id: int, key: str) -> tuple[str, bytes]:
    """The rows of a spreadsheet, in a file of their own in its place; says its key and its beginning."""
    sheet, other = path_of(business_id, key), secrets.token_hex(16)
    rows = path_of(business_id, other)
    try:
        with read_apart():
            apart(reading.write_rows, _A_SHEET_SECONDS, sheet, rows)
    except (ValueError, Refused) as error:
        keeping.throw_away(rows)
        if isinstance(error, Refused):
            raise
        raise Refused(("file", str(error))) from None
    finally:
        keeping.throw_away(sheet)
    with rows.open("rb") as file:
        return other, file.read(HEAD)


@dataclass(frozen=True, slots=True)
class Settings:
    """How a file is to be read and what is stated of everybody in it."""

    columns: tuple[Column, ...]
    header: bool
    delimiter: str
    encoding: str
    tags: tuple[str, ...]
    consent_source: str
    consent_date: date | None


def set_up(actor: Actor, *, import_id: int, settings: Settings) -> Import:
    """Say how a file is to be read. Refused with the field that is wrong."""
    actor.needs(Right.EVERYBODY)
    errors: list[tuple[str, str]] = []
    if settings.delimiter not in _DELIMITERS:
        errors.append(("delimiter", "Cells are parted by a comma, a semicolon, a tab or a bar."))
    try:
        "".encode(settings.encoding)
        b"".decode(settings.encoding)
    except (LookupError, UnicodeError, ValueError):
        errors.append(("encoding", "There is no such encoding."))
    source = " ".join(settings.consent_source.split())
    if bool(source) is not (settings.consent_date is not None):
        missing = "consent_date" if source else "consent_source"
        errors.append((missing, "Say both: where they agreed, and when."))
    if settings.consent_date is not None and settings.consent_date > clock.now().date():
        errors.append(("consent_date", "This day is still ahead."))
    tags = [" ".join(one.split()) for one in settings.tags]
    if any(not 0 < len(one) <= 60 for one in tags):
        errors.append(("tags", "A tag has between one and 60 letters."))
    if errors:
        raise Refused(*errors)
    with transaction.atomic():
        row = _in_state(actor, import_id, Import.READ)
        if row.form == "csv" and not {Column.EMAIL, Column.PHONE} & set(settings.columns):
            raise Refused(("columns", "Say which column holds the email address, or the phone number."))
        row.columns, row.header = [one.value for one in settings.columns], settings.header
        row.delimiter, row.encoding, row.tags = (
            settings.delimiter,
            settings.encoding,
            list(dict.fromkeys(tags)),
        )
        row.consent_source, row.consent_date = source[:300], settings.consent_date
        row.save()
    return row


def _in_state(actor: Actor, import_id: int, *states: str) -> Import:
    row = own(actor, Import.objects.select_related("business"), import_id, locked=True)
    if row.state not in states:
        raise Refused(("state", "This has been done already."))
    return row


def take(actor: Actor, *, import_id: int) -> Import:
    """Have the file taken in by a job; one that stopped goes on after the rows that are in."""
    actor.needs(Right.EVERYBODY)
    with transaction.atomic():
        _in_line(actor)
        needs_room(actor, QuotaKind.PEOPLE, "state")
        row = _in_state(actor, import_id, Import.READ, Import.STOPPED)
        row.state = Import.TAKING
        row.save(update_fields=["state"])
        actor.noted("people brought in", file=row.name)
        app.configure_task("take_import").defer(import_id=row.pk)
    return row


def undo(actor: Actor, *, import_id: int) -> Import:
    """Have a whole import undone by a job; whoever did something since, or was worked on, stays."""
    actor.needs(Right.EVERYBODY)
    with transaction.atomic():
        _in_line(actor)
        row = _in_state(actor, import_id, Import.DONE, Import.STOPPED)
        row.state = Import.UNDOING
        row.save(update_fields=["state"])
        actor.noted("import undone", file=row.name)
        app.configure_task("undo_import").defer(import_id=row.pk)
    return row


def drop(actor: Actor, *, import_id: int) -> None:
    """Forget a file that was not taken."""
    actor.needs(Right.EVERYBODY)
    with transaction.atomic():
        row = _in_state(actor, import_id, Import.READ)
        forget(row)
        row.delete()


def give_up(import_id: int) -> None:
    """Say of a file that it could not be taken, or undone, to the end; either can be gone on with."""
    row = Import.objects.filter(pk=import_id)
    row.filter(state=Import.TAKING).update(state=Import.STOPPED)
    row.filter(state=Import.UNDOING).update(state=Import.DONE)


def clear_away() -> None:
    """Files that nobody took within two days are forgotten."""
    for row in Import.objects.filter(state=Import.READ, added_at__lt=clock.now() - _LASTS):
        forget(row)
        row.delete()


def refused_csv(actor: Actor, *, import_id: int) -> Iterator[str]:
    """The rows that were refused, as CSV with the reason in front,
    so that they can be mended and brought in.
    """
    row = own(actor, Import, import_id)
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow([harmless(cell) for cell in ("why it was refused", *(row.titles if row.header else []))])
    for one in row.rows.exclude(refused="").order_by("number").iterator(chunk_size=AT_ONCE):
        writer.writerow([harmless(str(cell)) for cell in (one.refused, *one.cells)])
        yield out.getvalue()
        out.seek(0)
        out.truncate()
    yield out.getvalue()
