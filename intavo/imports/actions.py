"""Bringing people in: a file is read, tried, taken by a job, and undone."""

import csv
import hashlib
import io
import json
from collections import Counter
from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass, field
from datetime import date, datetime, timedelta
from typing import Any

from django.core.files.uploadedfile import UploadedFile
from django.db import IntegrityError, transaction
from django.db.models import Exists, OuterRef
from procrastinate.contrib.django import app

from intavo import clock
from intavo.accounts.actor import Actor, Refused
from intavo.accounts.scope import own
from intavo.core.csvsafe import harmless
from intavo.core.importing import Column, Entry, Line, card_lines, csv_lines, guess, read_card, read_row
from intavo.core.rights import Right
from intavo.people.models import Address, Consent, Person, PersonTag, TimelineEvent

from .files import MOST, forget, keep, opened
from .models import Import, ImportedRow

AT_ONCE, MOST_TRIED, MOST_SHOWN = 500, 20_000, 100
_DELIMITERS = {",", ";", "\t", "|"}
_LASTS = timedelta(days=2)


def read_file(actor: Actor, *, file: "UploadedFile[Any]") -> Import:
    """Take a file in and say what it looks like; nothing of it is on the list yet."""
    actor.needs(Right.FOLLOW_UP)
    if not file.size:
        raise Refused(("file", "The file is empty."))
    if file.size > MOST:
        raise Refused(("file", "The file is larger than 1 GB."))
    key, head = keep(actor.business_id, file)
    found = guess(head)
    cards = b"BEGIN:VCARD" in head[:4096].replace(b"\x00", b"").upper()
    row = Import(
        business_id=actor.business_id, member_id=actor.member_id, name=" ".join((file.name or "file").split())[:200],
        form="vcf" if cards else "csv", key=key, size=file.size, encoding=found.encoding, delimiter=found.delimiter,
        header=found.header, titles=list(found.titles), columns=[one.value for one in found.columns],
        added_at=clock.now(),
    )  # fmt: skip
    if not cards and not found.columns:
        forget(row)
        raise Refused(("file", "There are no rows in this file."))
    row.save()
    return row


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
    actor.needs(Right.FOLLOW_UP)
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
        row.delimiter, row.encoding, row.tags = settings.delimiter, settings.encoding, list(dict.fromkeys(tags))
        row.consent_source, row.consent_date = source[:300], settings.consent_date
        row.save()
    return row


def _in_state(actor: Actor, import_id: int, *states: str) -> Import:
    row = own(actor, Import.objects.select_related("business"), import_id, locked=True)
    if row.state not in states:
        raise Refused(("state", "This has been done already."))
    return row


def _lines(row: Import, file: Any) -> Iterator[Line]:
    return card_lines(file) if row.form == "vcf" else csv_lines(file, row.delimiter, row.header)


def _reader(row: Import) -> Callable[[Line], Entry]:
    columns, titles, region = [Column(one) for one in row.columns], row.titles, row.business.region
    if row.form == "vcf":
        return lambda line: read_card(line.cells[0], region)
    return lambda line: read_row(line.cells, columns, titles, region)


def first_lines(row: Import, most: int = 5) -> list[list[str]]:
    """The first rows as they are read, for choosing what their columns are."""
    lines: list[list[str]] = []
    try:
        with opened(row) as file:
            for line in _lines(row, file):
                if len(lines) == most:
                    break
                lines.append([cell[:200] for cell in line.cells])
    except FileNotFoundError:
        return []
    return lines


@dataclass(slots=True)
class Trial:
    """What taking a file would do: how many are new, join somebody, or are refused; and the first rows, each."""

    rows: int = 0
    new: int = 0
    joining: int = 0
    refused: int = 0
    agreed: int = 0
    whole: bool = True
    reasons: Counter[str] = field(default_factory=Counter)
    lines: list[tuple[int, str, str]] = field(default_factory=list)


def try_out(actor: Actor, *, import_id: int) -> Trial:
    """What taking the file would do, without doing it; of a long one its first 20,000 rows."""
    actor.needs(Right.FOLLOW_UP)
    row = own(actor, Import.objects.select_related("business"), import_id)
    if row.state != Import.READ:
        raise Refused(("state", "This has been done already."))
    trial, seen = Trial(), dict[tuple[str, str], int]()
    try:
        with opened(row) as file:
            for batch in _batches(_lines(row, file), AT_ONCE):
                if trial.rows >= MOST_TRIED:
                    trial.whole = False
                    break
                _try_batch(row, batch, trial, seen)
    except FileNotFoundError:
        raise Refused(("file", "The file is not here any more: please choose it again.")) from None
    return trial


def _try_batch(row: Import, batch: list[Line], trial: Trial, seen: dict[tuple[str, str], int]) -> None:
    read = _reader(row)
    entries: list[tuple[Line, Entry | None, str]] = []
    for line in batch:
        try:
            if line.wrong:
                raise ValueError(line.wrong)
            entries.append((line, read(line), ""))
        except ValueError as error:
            entries.append((line, None, str(error)))
    known = _known(row.business_id, [entry for _, entry, _ in entries if entry is not None])
    for line, entry, wrong in entries:
        trial.rows += 1
        if entry is None:
            trial.refused += 1
            trial.reasons[wrong] += 1
            _shown(trial, line, "refused", wrong)
            continue
        keys = _keys(entry)
        first = next((seen[key] for key in keys if key in seen), None)
        there = next((known[key] for key in keys if key in known), None)
        if there is not None or first is not None:
            trial.joining += 1
            _shown(trial, line, "joining", f"row {first}" if first is not None else there or "somebody on your list")
        else:
            trial.new += 1
            _shown(trial, line, "new", entry.name or (entry.email or entry.phone).shown)  # type: ignore[union-attr]
        for key in keys:
            seen.setdefault(key, line.number)
        trial.agreed += _agrees(row, entry)


def _shown(trial: Trial, line: Line, what: str, words: str) -> None:
    """The first rows are shown, and the first of those that are refused."""
    if sum(one[1] == what for one in trial.lines) < MOST_SHOWN // 2:
        trial.lines.append((line.number, what, words))


def _batches(lines: Iterable[Line], size: int) -> Iterator[list[Line]]:
    batch: list[Line] = []
    for line in lines:
        batch.append(line)
        if len(batch) == size:
            yield batch
            batch = []
    if batch:
        yield batch


def _keys(entry: Entry) -> list[tuple[str, str]]:
    """By what they are known: the email, else (without one) the phone."""
    if entry.email is not None:
        return [(Address.EMAIL, entry.email.key)]
    return [(Address.PHONE, entry.phone.key)] if entry.phone is not None else []


def _agrees(row: Import, entry: Entry) -> bool:
    return bool(row.consent_source) and entry.agreed is not False


def _known(business_id: int, entries: list[Entry]) -> dict[tuple[str, str], str]:
    return {(one.kind, one.key): one.person.name or one.shown for one in _addresses(business_id, entries)}


def _addresses(business_id: int, entries: list[Entry]) -> list[Address]:
    """The addresses of those who are on the list already; of several with one phone the oldest card's comes last."""
    addresses: list[Address] = []
    for kind in (Address.EMAIL, Address.PHONE):
        keys = {key for entry in entries for its, key in _keys(entry) if its == kind}
        if keys:
            # By kind and key, as the index has them.
            rows = Address.objects.filter(business_id=business_id, kind=kind, key__in=keys).select_related("person")
            addresses += [one for one in rows.order_by("-person_id") if not one.person.erasing]
    return addresses


def take(actor: Actor, *, import_id: int) -> Import:
    """Have the file taken in by a job."""
    actor.needs(Right.FOLLOW_UP)
    with transaction.atomic():
        row = _in_state(actor, import_id, Import.READ)
        row.state = Import.TAKING
        row.save(update_fields=["state"])
        actor.noted("people brought in", file=row.name)
        app.configure_task("take_import").defer(import_id=row.pk)
    return row


def take_now(import_id: int) -> None:
    """Take a file in, some hundred rows at a time, each of them once, however often it is begun."""
    row = Import.objects.select_related("business").filter(pk=import_id, state=Import.TAKING).first()
    if row is None:
        return
    try:
        with opened(row) as file:
            for batch in _batches(_lines(row, file), AT_ONCE):
                if batch[-1].number > row.position:
                    _take_batch(row, [line for line in batch if line.number > row.position])
    except FileNotFoundError:
        pass  # It went with its last row, and only the word about it was lost.
    Import.objects.filter(pk=row.pk, state=Import.TAKING).update(state=Import.DONE)
    forget(row)


def _take_batch(row: Import, batch: list[Line]) -> None:
    for tries in range(4):
        try:
            with transaction.atomic():
                fresh = Import.objects.select_for_update(of=("self",)).select_related("business").get(pk=row.pk)
                lines = [line for line in batch if line.number > fresh.position]
                if fresh.state == Import.TAKING and lines:
                    _write(fresh, lines)
                row.position = fresh.position
            return
        except IntegrityError:
            # A visitor was added with the same address just now: the next try finds them.
            if tries == 3:
                raise


def _write(row: Import, batch: list[Line]) -> None:
    read, at = _reader(row), clock.now()
    made: list[tuple[Line, Entry]] = []
    refused: list[ImportedRow] = []
    for line in batch:
        try:
            if line.wrong:
                raise ValueError(line.wrong)
            made.append((line, read(line)))
        except ValueError as error:
            refused.append(
                ImportedRow(
                    business_id=row.business_id, of=row, number=line.number, refused=str(error)[:300],
                    cells=[cell[:2000] for cell in line.cells[:200]],
                )
            )  # fmt: skip
    who = {(one.kind, one.key): one.person_id for one in _addresses(row.business_id, [entry for _, entry in made])}
    new = _new_people(row, made, who, at)
    rows = [_Row(row, line, entry, who[_keys(entry)[0]], new.get(line.number) is not None) for line, entry in made]
    _add_addresses(row, rows)
    _fill_names(rows)
    _add_tags(row, rows, at)
    _add_consents(row, rows, at)
    _add_events(row, rows, at)
    ImportedRow.objects.bulk_create([*refused, *(one.record() for one in rows)])
    row.position = batch[-1].number
    row.new += sum(one.new for one in rows)
    row.joined += sum(not one.new for one in rows)
    row.refused += len(refused)
    row.save(update_fields=["position", "new", "joined", "refused"])


@dataclass(slots=True)
class _Row:
    """A row on its way: whose it is, and what it added."""

    of: Import
    line: Line
    entry: Entry
    person: int
    new: bool
    added: dict[str, Any] = field(default_factory=dict)

    def record(self) -> ImportedRow:
        return ImportedRow(
            business_id=self.of.business_id, of=self.of, number=self.line.number, person_id=self.person, new=self.new,
            added=self.added,
        )  # fmt: skip


def _new_people(
    row: Import, entries: list[tuple[Line, Entry]], who: dict[tuple[str, str], int], at: datetime
) -> dict[int, int]:
    """Cards for those who are not on the list; a second row of the same address joins the first."""
    fresh: dict[tuple[str, str], tuple[int, Entry]] = {}
    for line, entry in entries:
        key = _keys(entry)[0]
        if key not in who:
            fresh.setdefault(key, (line.number, entry))
    people = Person.objects.bulk_create(
        [Person(business_id=row.business_id, name=entry.name, created_at=at) for _, entry in fresh.values()]
    )
    who |= {key: person.pk for key, person in zip(fresh, people, strict=True)}
    return {number: who[key] for key, (number, _) in fresh.items()}


def _add_addresses(row: Import, rows: list[_Row]) -> None:
    people = {one.person for one in rows}
    there = set(Address.objects.filter(person__in=people).values_list("person", "kind", "key"))
    fresh: list[tuple[_Row, Address]] = []
    for one in rows:
        for kind, address in ((Address.EMAIL, one.entry.email), (Address.PHONE, one.entry.phone)):
            if address is not None and (one.person, kind, address.key) not in there:
                there.add((one.person, kind, address.key))
                domain = address.domain if kind == Address.EMAIL else ""
                about = {"kind": kind, "key": address.key, "shown": address.shown, "domain": domain}
                fresh.append((one, Address(business_id=row.business_id, person_id=one.person, **about)))
    for (one, _), made in zip(fresh, Address.objects.bulk_create([made for _, made in fresh]), strict=True):
        one.added.setdefault("addresses", []).append(made.pk)


def _fill_names(rows: list[_Row]) -> None:
    nameless = Person.objects.filter(pk__in={one.person for one in rows if not one.new}, name="").in_bulk()
    for one in rows:
        person = nameless.get(one.person)
        if person is not None and one.entry.name and not person.name:
            person.name, one.added["name"] = one.entry.name, one.entry.name
    Person.objects.bulk_update([person for person in nameless.values() if person.name], ["name"])


def _add_tags(row: Import, rows: list[_Row], at: datetime) -> None:
    there = set(PersonTag.objects.filter(person__in={one.person for one in rows}).values_list("person", "tag"))
    fresh: list[tuple[_Row, PersonTag]] = []
    for one in rows:
        for tag in dict.fromkeys((*row.tags, *one.entry.tags)):
            if (one.person, tag) not in there:
                there.add((one.person, tag))
                fresh.append((one, PersonTag(business_id=row.business_id, person_id=one.person, tag=tag, given_at=at)))
    for (one, _), made in zip(fresh, PersonTag.objects.bulk_create([made for _, made in fresh]), strict=True):
        one.added.setdefault("tags", []).append(made.pk)


def _add_consents(row: Import, rows: list[_Row], at: datetime) -> None:
    if row.consent_date is None:
        return
    given = datetime.combine(row.consent_date, datetime.min.time(), at.tzinfo)
    fresh: list[tuple[_Row, Consent]] = []
    for one in rows:
        if _agrees(row, one.entry):
            facts = [one.person, "imported", row.consent_source, row.pk, one.line.number, given.isoformat()]
            proof = hashlib.sha256(json.dumps(facts).encode()).hexdigest()
            about = {"name": "imported", "wording": row.consent_source, "touchpoint": "", "revision": 0, "page": ""}
            made = Consent(business_id=row.business_id, person_id=one.person, given_at=given, proof=proof, **about)
            fresh.append((one, made))
    for (one, _), made in zip(fresh, Consent.objects.bulk_create([made for _, made in fresh]), strict=True):
        one.added["consent"] = made.pk


def _add_events(row: Import, rows: list[_Row], at: datetime) -> None:
    events = [
        TimelineEvent(
            business_id=row.business_id, person_id=one.person, at=at, kind="imported", member_id=row.member_id,
            data={
                "import": row.pk, "file": row.name, "row": one.line.number, "text": one.entry.note,
                "typed": [list(pair) for pair in one.entry.own],
            },
        )
        for one in rows
    ]  # fmt: skip
    for one, made in zip(rows, TimelineEvent.objects.bulk_create(events), strict=True):
        one.added["event"] = made.pk


def undo(actor: Actor, *, import_id: int) -> Import:
    """Have a whole import undone by a job; whoever did something since, or was worked on, stays."""
    actor.needs(Right.FOLLOW_UP)
    with transaction.atomic():
        row = _in_state(actor, import_id, Import.DONE)
        row.state = Import.UNDOING
        row.save(update_fields=["state"])
        actor.noted("import undone", file=row.name)
        app.configure_task("undo_import").defer(import_id=row.pk)
    return row


def undo_now(import_id: int) -> None:
    """Take back what an import added, some hundred rows at a time; again it goes on where it was."""
    while True:
        with transaction.atomic():
            row = Import.objects.select_for_update().filter(pk=import_id, state=Import.UNDOING).first()
            if row is None:
                return
            rows = list(row.rows.filter(refused="").order_by("-number")[:AT_ONCE])
            if not rows:
                row.state = Import.UNDONE
                row.save(update_fields=["state"])
                return
            row.left += _take_back(rows)
            row.save(update_fields=["left"])


def _take_back(rows: list[ImportedRow]) -> int:
    """Undo some rows; says how many people stay since something was done with them."""
    joined = [one for one in rows if not one.new]
    Address.objects.filter(pk__in=[pk for one in joined for pk in one.added.get("addresses", [])]).delete()
    PersonTag.objects.filter(pk__in=[pk for one in joined for pk in one.added.get("tags", [])]).delete()
    mine = [one.added["event"] for one in rows if "event" in one.added]
    consents = [one.added["consent"] for one in rows if "consent" in one.added]
    TimelineEvent.objects.filter(pk__in=mine).delete()
    Consent.objects.filter(pk__in=consents).delete()
    for one in joined:
        if one.added.get("name") and one.person_id is not None:
            Person.objects.filter(pk=one.person_id, name=one.added["name"]).update(name="")
    new = [one.person_id for one in rows if one.new and one.person_id is not None]
    ImportedRow.objects.filter(pk__in=[one.pk for one in rows]).delete()
    people = Person.objects.filter(pk__in=new)
    for relation in Person._meta.related_objects:
        model: Any = relation.related_model
        theirs = model._default_manager.filter(**{relation.field.name: OuterRef("pk")})
        name = {Address: "addresses", PersonTag: "tags"}.get(model)
        if name is not None:
            theirs = theirs.exclude(pk__in=[pk for one in rows if one.new for pk in one.added.get(name, [])])
        people = people.exclude(Exists(theirs))
    untouched = list(people.values_list("pk", flat=True))
    Person.objects.filter(pk__in=untouched).delete()
    return len(set(new)) - len(untouched)


def drop(actor: Actor, *, import_id: int) -> None:
    """Forget a file that was not taken."""
    actor.needs(Right.FOLLOW_UP)
    with transaction.atomic():
        row = _in_state(actor, import_id, Import.READ)
        forget(row)
        row.delete()


def clear_away() -> None:
    """Files that nobody took within two days are forgotten."""
    for row in Import.objects.filter(state=Import.READ, added_at__lt=clock.now() - _LASTS):
        forget(row)
        row.delete()


def refused_csv(actor: Actor, *, import_id: int) -> Iterator[str]:
    """The rows that were refused, as CSV with the reason in front, so that they can be mended and brought in."""
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
