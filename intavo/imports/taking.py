"""Takes a file in: cards, addresses, tags, consents and entries, some hundred rows at a time."""

import hashlib
import json
from dataclasses import asdict, dataclass, field
from datetime import datetime
from typing import Any

from django.db import IntegrityError, transaction

from intavo import clock
from intavo.accounts.quotas import quota
from intavo.accounts.scope import held
from intavo.core.importing import Entry, Line
from intavo.core.quotas import QuotaKind
from intavo.people.models import Address, Consent, Person, PersonTag, TimelineEvent

from .files import forget
from .models import Import, ImportedRow
from .reading import lines_of, opened, reader_of
from .rows import AT_ONCE, addresses_of, agrees, batches, form_of, keys_of, kind_of, place_of

# A row that was refused is given back; a cell that is longer is no table's.
_MOST_KEPT = 100_000
_NO_ROOM = "There is no room for more people here."


def take_now(import_id: int) -> None:
    """Take a file in, some hundred rows at a time, each of them once, however often it is begun."""
    row = Import.objects.select_related("business").filter(pk=import_id, state=Import.TAKING).first()
    if row is None:
        return
    people = quota(row.business_id, QuotaKind.PEOPLE)
    # What this file may come to have added, of new cards.
    most = row.new + people.most - people.used if people.most else None
    try:
        with opened(place_of(row), row.encoding) as file:
            for batch in batches(lines_of(form_of(row), file), AT_ONCE):
                if batch[-1].number > row.position:
                    _take_batch(row, [line for line in batch if line.number > row.position], most)
    except FileNotFoundError:
        pass  # It went with its last row, and only the word about it was lost.
    Import.objects.filter(pk=row.pk, state=Import.TAKING).update(state=Import.DONE)
    forget(row)


def _take_batch(row: Import, batch: list[Line], most: int | None) -> None:
    for tries in range(4):
        try:
            with transaction.atomic():
                fresh = held(Import.objects.select_related("business").filter(pk=row.pk))
                if fresh is None:
                    return
                lines = [line for line in batch if line.number > fresh.position]
                if fresh.state == Import.TAKING and lines:
                    _write(fresh, lines, most)
                row.position = fresh.position
            return
        except IntegrityError:
            # A visitor was added with the same address just now: the next try finds them.
            if tries == 3:
                raise


def _write(row: Import, batch: list[Line], most: int | None) -> None:
    read, at = reader_of(form_of(row)), clock.now()
    made: list[tuple[Line, Entry]] = []
    refused: list[ImportedRow] = []
    for line in batch:
        try:
            if line.wrong:
                raise ValueError(line.wrong)
            made.append((line, read(line)))
        except ValueError as error:
            refused.append(_refused(row, line, str(error)))
    who = {
        (one.kind, one.key): one.person_id
        for one in addresses_of(row.business_id, [entry for _, entry in made])
    }
    left = _past_room(row, made, who, most)
    if left:
        refused += [_refused(row, line, _NO_ROOM) for line in left]
        numbers = {line.number for line in left}
        made = [one for one in made if one[0].number not in numbers]
    new = _new_people(row, made, who, at)
    rows = [
        _Row(row, line, entry, who[keys_of(entry)[0]], new.get(line.number) is not None)
        for line, entry in made
    ]
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


def _refused(row: Import, line: Line, why: str) -> ImportedRow:
    return ImportedRow(
        business_id=row.business_id,
        of=row,
        number=line.number,
        refused=why[:300],
        cells=[cell[:_MOST_KEPT] for cell in line.cells[:500]],
    )


def _past_room(
    row: Import, entries: list[tuple[Line, Entry]], who: dict[tuple[str, str], int], most: int | None
) -> list[Line]:
    """The lines of those who are not on the list yet, and for whom there is no room any more."""
    if most is None:
        return []
    left: list[Line] = []
    fresh: set[tuple[str, str]] = set()
    for line, entry in entries:
        key = keys_of(entry)[0]
        if key in who or key in fresh:
            continue
        if row.new + len(fresh) >= most:
            left.append(line)
        else:
            fresh.add(key)
    return left


@dataclass(slots=True)
class _Row:
    """A row on its way: whose it is, and what it added."""

    of: Import
    line: Line
    entry: Entry
    person: int
    new: bool
    added: dict[str, Any] = field(default_factory=dict)
    # What found no place among the addresses.
    own: list[tuple[str, str]] = field(default_factory=list)

    def record(self) -> ImportedRow:
        return ImportedRow(
            business_id=self.of.business_id,
            of=self.of,
            number=self.line.number,
            person_id=self.person,
            new=self.new,
            added=self.added,
        )


def _new_people(
    row: Import, entries: list[tuple[Line, Entry]], who: dict[tuple[str, str], int], at: datetime
) -> dict[int, int]:
    """Cards for those who are not on the list; a second row of the same address joins the first."""
    fresh: dict[tuple[str, str], tuple[int, Entry]] = {}
    for line, entry in entries:
        key = keys_of(entry)[0]
        if key not in who:
            fresh.setdefault(key, (line.number, entry))
    people = Person.objects.bulk_create(
        [
            Person(business_id=row.business_id, name=entry.name, created_at=min(entry.added or at, at))
            for _, entry in fresh.values()
        ]
    )
    who |= {key: person.pk for key, person in zip(fresh, people, strict=True)}
    return {number: who[key] for key, (number, _) in fresh.items()}


def _add_addresses(row: Import, rows: list[_Row]) -> None:
    people = {one.person for one in rows}
    there = set(Address.objects.filter(person__in=people).values_list("person", "kind", "key"))
    emails = [one.key for each in rows for one in each.entry.more if kind_of(one) == Address.EMAIL]
    # An email address is one person's: whoever has it keeps it.
    whose = dict(
        Address.objects.filter(business_id=row.business_id, kind=Address.EMAIL, key__in=emails).values_list(
            "key", "person"
        )
    )
    whose |= {one.entry.email.key: one.person for one in reversed(rows) if one.entry.email is not None}
    fresh: list[tuple[_Row, Address]] = []
    for one in rows:
        first = (one.entry.email, one.entry.phone)
        for address in (*filter(None, first), *one.entry.more):
            kind = kind_of(address)
            if kind == Address.EMAIL and whose.setdefault(address.key, one.person) != one.person:
                one.own.append(("Email", address.shown))
            elif (one.person, kind, address.key) not in there:
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
    there = set(
        PersonTag.objects.filter(person__in={one.person for one in rows}).values_list("person", "tag")
    )
    fresh: list[tuple[_Row, PersonTag]] = []
    for one in rows:
        for tag in dict.fromkeys((*row.tags, *one.entry.tags)):
            if (one.person, tag) not in there:
                there.add((one.person, tag))
                fresh.append(
                    (one, PersonTag(business_id=row.business_id, person_id=one.person, tag=tag, given_at=at))
                )
    for (one, _), made in zip(fresh, PersonTag.objects.bulk_create([made for _, made in fresh]), strict=True):
        one.added.setdefault("tags", []).append(made.pk)


def _add_consents(row: Import, rows: list[_Row], at: datetime) -> None:
    """What is stated of all, and what an export says of each; that once, however often it is brought in."""
    told = [one.person for one in rows if one.entry.agreements]
    there = set(Consent.objects.filter(person__in=told).values_list("person", "name", "wording", "given_at"))
    fresh: list[tuple[_Row, Consent]] = []
    for one in rows:
        for agreement in one.entry.agreements:
            key = (one.person, agreement.name, agreement.wording, agreement.given_at)
            if key not in there:
                there.add(key)
                fresh.append((one, _consent(one, **asdict(agreement))))
        if row.consent_date is not None and agrees(row, one.entry):
            given = datetime.combine(row.consent_date, datetime.min.time(), at.tzinfo)
            fresh.append((one, _consent(one, name="imported", wording=row.consent_source, given_at=given)))
    for (one, _), made in zip(fresh, Consent.objects.bulk_create([made for _, made in fresh]), strict=True):
        one.added.setdefault("consents", []).append(made.pk)


def _consent(
    row: _Row,
    *,
    name: str,
    wording: str,
    given_at: datetime,
    touchpoint: str = "",
    revision: int = 0,
    page: str = "",
    confirmed_at: datetime | None = None,
    withdrawn_at: datetime | None = None,
) -> Consent:
    """A consent that came with a file; its proof says which, and from which row."""
    facts = [row.person, name, wording, row.of.pk, row.line.number, given_at.isoformat()]
    return Consent(
        business_id=row.of.business_id,
        person_id=row.person,
        name=name,
        wording=wording,
        touchpoint=touchpoint,
        revision=revision,
        page=page,
        given_at=given_at,
        confirmed_at=confirmed_at,
        withdrawn_at=withdrawn_at,
        proof=hashlib.sha256(json.dumps(facts).encode()).hexdigest(),
    )


def _add_events(row: Import, rows: list[_Row], at: datetime) -> None:
    """That they were brought in, and the notes that came with them, each once."""
    noted = [one.person for one in rows if one.entry.notes]
    texts = TimelineEvent.objects.filter(person__in=noted, kind="noted").values_list(
        "person", "at", "data__text"
    )
    there = set(texts)
    events: list[tuple[_Row, TimelineEvent]] = []
    for one in rows:
        about = {
            "import": row.pk,
            "file": row.name,
            "row": one.line.number,
            "text": one.entry.note,
            "typed": [list(pair) for pair in (*one.entry.own, *one.own)],
        }
        events.append((one, _event(one, "imported", at, about, row.member_id)))
        for note in one.entry.notes:
            written = min(note.at, at)
            if (one.person, written, note.text) not in there:
                there.add((one.person, written, note.text))
                events.append((one, _event(one, "noted", written, {"text": note.text, "by": note.by}, None)))
    made = TimelineEvent.objects.bulk_create([event for _, event in events])
    for (one, _), event in zip(events, made, strict=True):
        one.added.setdefault("events", []).append(event.pk)


def _event(row: _Row, kind: str, at: datetime, data: dict[str, Any], member: int | None) -> TimelineEvent:
    return TimelineEvent(
        business_id=row.of.business_id, person_id=row.person, at=at, kind=kind, member_id=member, data=data
    )
