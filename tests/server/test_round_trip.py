"""People who are exported and brought in elsewhere are whom they were."""

import json
from datetime import timedelta
from typing import Any

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile

from intavo import clock
from intavo.core.importing import Column
from intavo.imports.actions import Settings, read_file, set_up, take
from intavo.imports.models import Import
from intavo.imports.taking import take_now
from intavo.imports.undoing import undo_now
from intavo.people.models import Address, Consent, Person, PersonTag, TimelineEvent

from .conftest import World

OWN = [["Boat", "double; kayak"], ["Phone", "ask at the “Heron”"], ["=odd", "+1"], ["Email", "not one"]]
NOTES = ("Rang; will ring again", '=SUM(A1)\nand a second line, with "quotes"')


@pytest.fixture
def known(otterwick: World) -> Person:
    """Somebody of whom everything is known that an export has."""
    at, business = clock.now() - timedelta(days=40, hours=3), otterwick.business
    person = Person.objects.create(business=business, name="Ève “Otter” O'Lindqvist; Ltd, =1", created_at=at)
    for kind, key, shown in (
        (Address.EMAIL, "eve@post.example", "Eve@post.example"),
        (Address.EMAIL, "office@lindqvist.example", "office@lindqvist.example"),
        (Address.PHONE, "+441632960741", "01632 960741"),
        (Address.PHONE, "+441632960742", "+44 1632 960742"),
    ):
        Address.objects.create(business=business, person=person, kind=kind, key=key, shown=shown)
    for tag in ("school", "a; b", 'the "quick"', "plain, with a comma"):
        PersonTag.objects.create(business=business, person=person, tag=tag, given_at=at)
    for number, withdrawn in enumerate((None, at + timedelta(days=2))):
        Consent.objects.create(
            business=business, person=person, name=f"news{number}", wording="Write to me;\n“monthly”", touchpoint="tp_1",
            revision=3, page="https://otterwick.example/?a=1", given_at=at, confirmed_at=at, withdrawn_at=withdrawn, proof="x",
        )  # fmt: skip
    for number, text in enumerate(NOTES):
        TimelineEvent.objects.create(
            business=business, person=person, kind="noted", at=at + timedelta(hours=number),
            member_id=otterwick.owner.member_id, data={"text": text},
        )  # fmt: skip
    TimelineEvent.objects.create(
        business=business, person=person, kind="imported", at=at, data={"text": "", "typed": OWN}
    )
    return person


def exported(world: World, form: str) -> str:
    """All of a business's people as a file."""
    return b"".join(world.console().get("/api/people-export", {"form": form})).decode()


def brought_in(world: World, form: str, text: str) -> Import:
    """A file that is taken as it is understood."""
    row = read_file(world.owner, file=SimpleUploadedFile(f"people.{form}", text.encode()))
    columns = tuple(Column(one) for one in row.columns)
    stated = Settings(columns, row.header, row.delimiter, row.encoding, (), "", None)
    set_up(world.owner, import_id=row.pk, settings=stated)
    take(world.owner, import_id=row.pk)
    take_now(row.pk)
    row.refresh_from_db()
    return row


def facts(text: str) -> list[dict[str, Any]]:
    """What JSON Lines say of everybody that is theirs and not this business's."""
    people = [json.loads(line) for line in text.splitlines()]
    for one in people:
        del one["id"]
        for consent in one["consents"]:
            del consent["proof"]
        one["tags"] = sorted(tag["tag"] for tag in one["tags"])
    return people


@pytest.mark.parametrize("form", ["csv", "vcf", "jsonl"])
def test_whoever_is_exported_and_brought_in_elsewhere_is_whom_they_were(
    known: Person, otterwick: World, other: World, form: str
) -> None:
    before, text = facts(exported(otterwick, "jsonl")), exported(otterwick, form)
    row = brought_in(other, form, text)
    assert (row.new, row.joined, row.refused) == (1, 0, 0)
    after = facts(exported(other, "jsonl"))
    if form != "jsonl":
        # A table and a card have notes as one reads them, in one text.
        for people in (before, after):
            notes = [one.pop("notes") for one in people]
        read = notes[0][0]["text"]
        assert [words in read for words in NOTES] == [True, True]
        assert "Owner of Otterwick: Rang" in read
    assert after == before
    # And what they are by now says the same of them again.
    assert facts(exported(other, "jsonl"))[0]["fields"] == OWN


@pytest.mark.parametrize("form", ["csv", "vcf", "jsonl"])
def test_brought_in_where_they_are_already_nothing_is_doubled_and_it_is_undone(
    known: Person, otterwick: World, form: str
) -> None:
    before = facts(exported(otterwick, "jsonl"))
    row = brought_in(otterwick, form, exported(otterwick, form))
    assert (row.new, row.joined, row.refused) == (0, 1, 0)
    [after] = facts(exported(otterwick, "jsonl"))
    assert (after["consents"], after["emails"], after["fields"]) == (
        before[0]["consents"],
        before[0]["emails"],
        before[0]["fields"],
    )
    Import.objects.update(state=Import.UNDOING)
    undo_now(row.pk)
    assert facts(exported(otterwick, "jsonl")) == before


def test_an_address_that_is_somebody_elses_stays_theirs(known: Person, otterwick: World) -> None:
    line = {
        "name": "Ife",
        "emails": ["ife@post.example", "OFFICE@lindqvist.example", "no address"],
        "phones": ["12"],
    }
    twice = {"name": "Nia", "emails": ["nia@post.example", "ife@post.example"]}
    row = brought_in(otterwick, "jsonl", "\n".join(json.dumps(one) for one in (line, twice)))
    assert (row.new, row.refused) == (2, 0)
    _, ife, nia = facts(exported(otterwick, "jsonl"))
    assert (ife["emails"], nia["emails"]) == (["ife@post.example"], ["nia@post.example"])
    assert ife["fields"] == [["Email", "no address"], ["Phone", "12"], ["Email", "OFFICE@lindqvist.example"]]
    assert nia["fields"] == [["Email", "ife@post.example"]]


@pytest.mark.parametrize(
    ("line", "why"),
    [
        ('{"name": 3}', "The line is no person as they are exported from here (name)."),
        ('{"emails": ["a@post.example"], "notes": [{"at": "9999-12-31T23:59:59-14:00", "text": ""}]}', "notes.0.at"),
        ('{"emails": ["a@post.example"], "consents": [{"name": "n", "given_at": "2026-01-01"}]}', "consents.0.given_at"),
        ('{"emails": ["a@post.example"], "consents": [{"name": "n", "given_at": 1e400}]}', "exported from here"),
        ('{"emails": ["\\ud800@x"]}', "exported from here"),
        ('{"emails": [' + "[" * 5000, "exported from here"),
        ('{"name": "no way to reach"}', "There is neither an email address nor a phone number."),
        ('{"name": "' + "x" * 2_100_000 + '"}', "The line is too long."),
    ],
)  # fmt: skip
def test_an_odd_line_is_refused_with_its_reason_and_the_next_is_taken(
    otterwick: World, line: str, why: str
) -> None:
    row = brought_in(otterwick, "jsonl", f'{{"emails": ["ok\\u0000@post.example"]}}\n{line}\n')
    assert (row.form, row.new, row.refused) == ("json", 1, 1)
    assert why in row.rows.exclude(refused="").get().refused
