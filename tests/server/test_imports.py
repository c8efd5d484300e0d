"""People who are brought in: read, tried, taken once, refused rows back as a file, and undone."""

import csv
import io
import zipfile
from typing import Any

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client

from intavo import clock
from intavo.imports import rows
from intavo.imports.actions import clear_away
from intavo.imports.files import path_of
from intavo.imports.models import Import
from intavo.imports.taking import take_now
from intavo.imports.undoing import undo_now
from intavo.people.models import Address, Consent, Person, PersonTag, TimelineEvent

from .conftest import Visitor, World, sending

MESSY = (
    "Vorname;Nachname;E-Mail;Telefon;Gruppe;Newsletter;Lieblingsboot\r\n"
    "Jürgen;Groß;JURGEN@post.example;01632 960741;Schule, Frühling;ja;Kajak\r\n"
    "Ife;;ife.dunmore@post.example;;;nein;\r\n"
    ";;;;;;\r\n"
    "Ohne;Adresse;;;;ja;\r\n"
    "Falsch;Mail;nobody@;;;ja;\r\n"
    "Doppelt;Groß;jurgen@POST.example;01632 960742;Schule;nein;\r\n"
    'Nur;Telefon;;+44 1632 960743;;nein;"zwei\nZeilen"\r\n'
    "=cmd;Formel;formel@post.example;keine Nummer;;ja;'=1+1\r\n"
)


def load(client: Client, data: bytes, name: str = "people.csv") -> Any:
    return client.post("/api/imports", {"file": SimpleUploadedFile(name, data)})


def set_up(client: Client, row: dict[str, Any], **more: Any) -> Any:
    body = {key: row[key] for key in ("columns", "header", "delimiter", "encoding", "tags")} | more
    return client.put(f"/api/imports/{row['id']}", body, content_type="application/json")


@pytest.fixture
def messy(otterwick: World, visitor: Visitor) -> dict[str, Any]:
    """A messy file, while one of those in it is on the list already."""
    visitor.post("intake", sending(otterwick.touchpoint))
    answer = load(otterwick.console(), MESSY.encode("windows-1252"))
    assert answer.status_code == 201, answer.content
    return dict(answer.json())


def test_a_messy_file_is_understood_and_tried_before_anything_is_written(
    messy: dict[str, Any], otterwick: World
) -> None:
    assert (messy["encoding"], messy["delimiter"], messy["header"]) == ("windows-1252", ";", True)
    assert messy["columns"] == ["name", "name", "email", "phone", "tag", "consent", "own"]
    assert messy["first"][0][:2] == ["Jürgen", "Groß"]
    client = otterwick.console()
    assert set_up(client, messy, tags=["fair"]).status_code == 200
    trial = client.get(f"/api/imports/{messy['id']}/trial").json()
    assert (trial["rows"], trial["new"], trial["joining"], trial["refused"], trial["agreed"]) == (
        7,
        3,
        2,
        2,
        0,
    )
    assert [(one["number"], one["what"]) for one in trial["lines"]] == [
        (1, "new"),
        (2, "joining"),
        (3, "refused"),
        (4, "refused"),
        (5, "joining"),
        (6, "new"),
        (7, "new"),
    ]
    assert {one["why"] for one in trial["reasons"]} >= {
        "There is neither an email address nor a phone number."
    }
    assert Person.objects.count() == 1
    set_up(client, messy, consent_source="The sheet at the boathouse", consent_date="2026-05-01")
    assert client.get(f"/api/imports/{messy['id']}/trial").json()["agreed"] == 2


@pytest.mark.parametrize(
    ("more", "field"),
    [
        ({"consent_source": "The sheet"}, "consent_date"), ({"consent_date": "2026-05-01"}, "consent_source"),
        ({"consent_source": "x", "consent_date": "2030-01-01"}, "consent_date"), ({"delimiter": "x"}, "delimiter"),
        ({"encoding": "klingon"}, "encoding"), ({"columns": ["name"]}, "columns"), ({"tags": [" "]}, "tags"),
    ],
)  # fmt: skip
def test_what_cannot_be_is_refused_by_its_field(
    messy: dict[str, Any], otterwick: World, more: dict[str, Any], field: str
) -> None:
    answer = set_up(otterwick.console(), messy, **more)
    assert (answer.status_code, answer.json()["errors"][0]["field"]) == (422, field)


def test_it_is_taken_once_refused_rows_come_back_and_it_is_undone(
    messy: dict[str, Any], otterwick: World
) -> None:
    client, number = otterwick.console(), messy["id"]
    set_up(client, messy, tags=["fair"], consent_source="The sheet", consent_date="2026-05-01")
    assert client.post(f"/api/imports/{number}/take").status_code == 202
    assert client.post(f"/api/imports/{number}/take").status_code == 422
    take_now(number)
    take_now(number)
    done = client.get(f"/api/imports/{number}").json()
    assert (done["state"], done["new"], done["joined"], done["refused"]) == ("done", 3, 2, 2)
    assert not path_of(otterwick.owner.business_id, Import.objects.get().key).exists()
    person = Person.objects.get(addresses__key="jurgen@post.example")
    assert person.name == "Jürgen Groß"
    assert set(person.tags.values_list("tag", flat=True)) == {"fair", "Schule", "Frühling"}
    assert person.addresses.count() == 3
    [consent] = person.consents.all()
    assert (consent.wording, consent.given_at.date().isoformat()) == ("The sheet", "2026-05-01")
    assert ["Lieblingsboot", "Kajak"] in person.events.order_by("pk")[0].data["typed"]
    assert Person.objects.get(name="Nur Telefon").events.get().data["typed"] == [
        ["Lieblingsboot", "zwei\nZeilen"]
    ]
    known = Person.objects.get(addresses__key="ife.dunmore@post.example")
    assert (known.name, known.consents.filter(name="imported").count()) == ("Ife", 0)
    text = b"".join(client.get(f"/api/imports/{number}/refused")).decode()
    rows = list(csv.reader(io.StringIO(text)))
    assert (rows[0][:3], len(rows), rows[1][1:3]) == (
        ["why it was refused", "Vorname", "Nachname"],
        3,
        ["Ohne", "Adresse"],
    )
    # One of them does something after it: they stay.
    phone = Person.objects.get(name="Nur Telefon")
    client.post(f"/api/people/{phone.pk}/note", {"text": "Rang."}, content_type="application/json")
    assert client.post(f"/api/imports/{number}/undo").status_code == 202
    undo_now(number)
    undo_now(number)
    undone = client.get(f"/api/imports/{number}").json()
    assert (undone["state"], undone["left"]) == ("undone", 1)
    assert set(Person.objects.values_list("name", flat=True)) == {"Ife", "Nur Telefon"}
    assert (
        Consent.objects.filter(name="imported").count(),
        PersonTag.objects.filter(tag="fair", person=known).count(),
    ) == (0, 0)
    assert TimelineEvent.objects.filter(kind="imported").count() == 0


def test_a_job_that_dies_in_the_middle_doubles_no_row(
    otterwick: World, monkeypatch: pytest.MonkeyPatch
) -> None:
    lines = "".join(f"Person {n},p{n % 900}@post.example\n" for n in range(1200))
    row = load(otterwick.console(), f"Name,Email\n{lines}".encode()).json()
    otterwick.console().post(f"/api/imports/{row['id']}/take")
    from intavo.imports import taking

    whole, begun = taking._write, []

    def dying(of: Import, batch: Any, most: int | None) -> None:
        whole(of, batch, most)
        begun.append(1)
        if len(begun) == 2:
            raise KeyboardInterrupt

    monkeypatch.setattr(taking, "_write", dying)
    with pytest.raises(KeyboardInterrupt):
        take_now(row["id"])
    assert Import.objects.get().position == 500
    take_now(row["id"])
    done = Import.objects.get()
    assert (done.new, done.joined, Person.objects.count(), Address.objects.count()) == (900, 300, 900, 900)
    assert done.rows.count() == 1200


CARDS = """junk
BEGIN:VCARD
VERSION:4.0
FN:Ève Lindqvist
EMAIL;PREF=1:eve@post.example
EMAIL:second@post.example
TEL;VALUE=uri;TYPE="voice,cell":tel:+44-1632-960-741
CATEGORIES:school,har\\,bour
NOTE:a long line that is
  folded\\nand a second
END:VCARD
BEGIN:VCARD
VERSION:3.0
N:Doe;Jo;;;
item1.EMAIL;type=INTERNET:jo@post.example
PHOTO;ENCODING=b;TYPE=JPEG:not base64 at all!
END:VCARD
BEGIN:VCARD
VERSION:2.1
N;CHARSET=UTF-8;ENCODING=QUOTED-PRINTABLE:L=C3=BCtt;=C3=88ve
TEL;CELL:01632 960742
END:VCARD
BEGIN:VCARD
FN:Nobody
END:VCARD
BEGIN:VCARD
FN:Unfinished
"""


def test_cards_of_any_version_are_brought_in(otterwick: World) -> None:
    row = load(otterwick.console(), CARDS.replace("\n", "\r\n").encode(), "book.vcf").json()
    assert row["form"] == "vcf"
    otterwick.console().post(f"/api/imports/{row['id']}/take")
    take_now(row["id"])
    done = Import.objects.get()
    assert (done.new, done.refused) == (3, 2)
    eve = Person.objects.get(name="Ève Lindqvist")
    assert set(eve.tags.values_list("tag", flat=True)) == {"school", "har,bour"}
    assert eve.events.get().data["text"] == "a long line that is folded\nand a second"
    keys = set(eve.addresses.values_list("key", flat=True))
    assert keys == {"eve@post.example", "second@post.example", "+441632960741"}
    assert Person.objects.filter(name="Ève Lütt").exists()


@pytest.mark.parametrize(
    "data",
    [
        b"", b"\x00" * 5000, b"\xff\xfe", b"a" * 300_000, b'"' + b"x,\n" * 50_000, b"," * 1_000_000, b"\n\n\n",
        b"email\n=HYPERLINK(1)\n", b"BEGIN:VCARD\n" * 1000, b"BEGIN:VCARD\n" + b"NOTE:" + b"x" * 3_000_000,
        "email\n\ud800@x".encode("utf-8", "surrogatepass"), bytes(range(256)) * 20, b"PK\x03\x04 not a table",
    ],
)  # fmt: skip
def test_odd_files_are_refused_or_read_and_never_a_fault(otterwick: World, data: bytes) -> None:
    client = otterwick.console()
    answer = load(client, data)
    assert answer.status_code in {201, 422}
    if answer.status_code == 201:
        row = answer.json()
        assert client.get(f"/api/imports/{row['id']}/trial").status_code == 200
        client.post(f"/api/imports/{row['id']}/take")
        take_now(row["id"])
        assert Import.objects.get().state == "done"
        assert Person.objects.count() == 0
        assert client.get(f"/api/imports/{row['id']}/refused").status_code == 200


def zipped(**files: str) -> bytes:
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w") as archive:
        for name, text in files.items():
            archive.writestr(name.replace("__", "/"), text)
    return out.getvalue()


_ROWS = [["Name", "Email", "Since"], ["Ife Dunmore", "ife@post.example", "2026-03-01"]]
_MAIN = "http://schemas.openxmlformats.org/spreadsheetml/2006/main"
_TIES = "http://schemas.openxmlformats.org/officeDocument/2006/relationships"
_PACKED = "http://schemas.openxmlformats.org/package/2006"
_OPEN = "urn:oasis:names:tc:opendocument:xmlns"


def xlsx() -> bytes:
    cells = "".join(
        "<row>" + "".join(f'<c t="inlineStr"><is><t>{cell}</t></is></c>' for cell in row) + "</row>"
        for row in _ROWS
    )
    book = f'<workbook xmlns="{_MAIN}" xmlns:r="{_TIES}"><sheets><sheet name="A" sheetId="1" r:id="r1"/></sheets></workbook>'
    tie = f'<Relationship Id="r1" Type="{_TIES}/worksheet" Target="worksheets/sheet1.xml"/>'
    first = f'<Relationship Id="r1" Type="{_TIES}/officeDocument" Target="xl/workbook.xml"/>'
    return zipped(
        **{
            "_rels__.rels": f'<Relationships xmlns="{_PACKED}/relationships">{first}</Relationships>',
            "xl__workbook.xml": book,
            "xl___rels__workbook.xml.rels": f'<Relationships xmlns="{_PACKED}/relationships">{tie}</Relationships>',
            "xl__worksheets__sheet1.xml": f'<worksheet xmlns="{_MAIN}"><sheetData>{cells}</sheetData></worksheet>',
        }
    )


def ods() -> bytes:
    cells = "".join(
        "<table:table-row>"
        + "".join(
            f'<table:table-cell office:value-type="string"><text:p>{cell}</text:p></table:table-cell>'
            for cell in row
        )
        + "</table:table-row>"
        for row in _ROWS
    )
    spaces = " ".join(f'xmlns:{one}="{_OPEN}:{one}:1.0"' for one in ("office", "table", "text"))
    body = f'<office:body><office:spreadsheet><table:table table:name="A">{cells}</table:table></office:spreadsheet></office:body>'
    return zipped(
        mimetype="application/vnd.oasis.opendocument.spreadsheet",
        **{
            "content.xml": f"<office:document-content {spaces}>{body}</office:document-content>",
            "META-INF__manifest.xml": f'<m:manifest xmlns:m="{_OPEN}:manifest:1.0"/>',
        },
    )


@pytest.mark.parametrize("sheet", [xlsx, ods])
def test_a_spreadsheet_is_read_as_its_rows(otterwick: World, sheet: Any) -> None:
    row = load(otterwick.console(), sheet(), "people.xlsx").json()
    assert (row["titles"], row["columns"][:2]) == (_ROWS[0], ["name", "email"])
    assert row["first"] == _ROWS[1:]
    assert otterwick.console().get(f"/api/imports/{row['id']}/trial").json()["new"] == 1


def test_what_only_begins_like_a_spreadsheet_is_refused(otterwick: World) -> None:
    for data in (zipped(a="b"), xlsx()[:300], b"\xd0\xcf\x11\xe0" + b"0" * 600):
        answer = load(otterwick.console(), data, "people.xlsx")
        assert (answer.status_code, answer.json()["errors"][0]["field"]) == (422, "file")
    assert not Import.objects.exists()


def test_a_file_that_takes_its_reader_too_long_is_said_so(
    otterwick: World, monkeypatch: pytest.MonkeyPatch, caplog: pytest.LogCaptureFixture
) -> None:
    card = "BEGIN:VCARD\r\nVERSION:2.1\r\nFN:Ife\r\nNOTE;ENCODING=QUOTED-PRINTABLE:=\r\nsecret words\r\nEND:VCARD\r\n"
    row = load(otterwick.console(), (card * 3_000).encode(), "cards.vcf").json()
    monkeypatch.setattr(rows, "_SECONDS", 0.05)
    answer = otterwick.console().get(f"/api/imports/{row['id']}/trial")
    assert (answer.status_code, answer.json()["errors"][0]["field"]) == (422, "file")
    assert "takes too long" in answer.json()["errors"][0]["message"]
    assert "secret" not in caplog.text


def test_files_that_nobody_takes_are_forgotten(
    messy: dict[str, Any], monkeypatch: pytest.MonkeyPatch
) -> None:
    clear_away()
    assert Import.objects.count() == 1
    now = clock.now()
    monkeypatch.setattr(clock, "now", lambda: now.replace(day=28))
    clear_away()
    assert Import.objects.count() == 0
