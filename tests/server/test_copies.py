"""A whole business as a file, and made anew from it: the same list, people, touchpoints and history."""

import io
import json
import zipfile
from pathlib import Path
from typing import Any

import jsonschema_rs
import pytest
from django.conf import settings
from django.core.files.uploadedfile import SimpleUploadedFile
from django.db.models import JSONField
from django.test import Client

from intavo import clock
from intavo.accounts.actions import found_business
from intavo.accounts.models import Member, User
from intavo.copies.actions import read_now, write_now
from intavo.copies.checks import CHECKS
from intavo.copies.models import Copy
from intavo.copies.tables import NOT_CARRIED, REFERS, THEIR_MAIL, carried
from intavo.hours.models import ReplyCell
from intavo.mail.models import OutgoingMail
from intavo.mailin.models import IncomingMail
from intavo.people.models import Address, Person, TimelineEvent
from intavo.talks.models import Message, Talk
from intavo.touchpoints.models import Touchpoint

from .conftest import Visitor, World
from .test_followup_api import arrive, post
from .test_mail_in import hand_in


def copied(client: Client) -> bytes:
    """Have a copy made, and take it."""
    made = client.post("/api/copies")
    assert made.status_code == 201, made.content
    write_now(made.json()["id"])
    answer = client.get(f"/api/copies/{made.json()['id']}/file")
    assert answer["Content-Type"] == "application/zip"
    return b"".join(answer)


def empty(email: str = "new@heron.example") -> Client:
    """An owner of a business in which nothing was done yet."""
    user = User.objects.create_user(email, "a long password", name="Wren Halloran")
    found_business(user=user, name="Nothing yet", timezone="Europe/Paris")
    client = Client()
    client.force_login(user)
    return client


def brought(client: Client, data: bytes) -> dict[str, Any]:
    """Bring a copy in; what came of it."""
    answer = client.post("/api/copies-in", {"file": SimpleUploadedFile("a.zip", data)})
    if answer.status_code != 201:
        return {"state": "refused", "told": [answer.json()["errors"][0]["message"]]}
    read_now(answer.json()["id"])
    [row] = [one for one in client.get("/api/copies").json()["copies"] if one["id"] == answer.json()["id"]]
    found: dict[str, Any] = row
    return found


_OWN = {
    "id", "person_id", "followup_id", "touchpoint_id", "site_id", "member_id", "live_id", "draft_id", "public_id",
    "followup", "mail", "key", "slug", "snippet", "line", "address", "link", "short", "hosted",
}  # fmt: skip


def without_ids(value: Any) -> Any:
    """What an answer of the API says, but for ids, which are another business's own."""
    if isinstance(value, dict):
        if isinstance(value.get("data"), dict):
            # Whose entry it is stands with it where they are not here; each entry says who it was by all the same.
            value = value | {"data": {key: one for key, one in value["data"].items() if key != "by"}}
        return {
            key: without_ids(one)
            for key, one in value.items()
            if key not in _OWN
            and key not in {"followup", "mail", "through", "stamp", "submission", "talk", "message"}
        }
    return [without_ids(one) for one in value] if isinstance(value, list) else value


def seen(client: Client) -> dict[str, Any]:
    """What an owner sees of a business: list, timelines, people, touchpoints, hours."""
    listed = client.get("/api/follow-ups").json()
    rows = [one for lane in listed["lanes"] for one in lane["items"]] + listed["waiting"] + listed["put_off"]
    ones = [client.get(f"/api/follow-ups/{row['id']}").json() for row in rows]
    return {
        "list": without_ids(listed), "ones": without_ids(ones),
        "people": without_ids(client.get("/api/people").json()),
        "touchpoints": without_ids(client.get("/api/touchpoints").json()),
        "hours": without_ids(client.get("/api/hours").json()),
        "finished": without_ids(client.get("/api/follow-ups?state=finished").json()),
    }  # fmt: skip


@pytest.fixture(autouse=True)
def _files_of_their_own(settings: Any, tmp_path: Path) -> None:
    settings.MEDIA_ROOT = str(tmp_path / "uploads")


@pytest.fixture
def busy(visitor: Visitor, otterwick: World, monkeypatch: pytest.MonkeyPatch) -> World:
    """A business in which something was done."""
    arrive(
        visitor,
        otterwick,
        monkeypatch,
        {"Late": "2026-11-24T11:00", "Soon": "2026-11-24T14:00", "Eve": "2026-11-24T13:30"},
    )
    client = otterwick.console()
    post(client, "Soon", "answer", text="Yes, from ten.", key="k", then="wait", back_in=2)
    post(client, "Late", "note", text="Rang; nobody there")
    post(client, "Late", "tag", tag="schools")
    post(client, "Eve", "finish", outcome="won")
    return otterwick


def test_a_business_is_made_anew_from_its_copy(busy: World) -> None:
    before, data = seen(busy.console()), copied(busy.console())
    client = empty()
    told = brought(client, data)
    assert (told["state"], told["told"][0][:32]) == ("ready", "3 people, 3 follow-ups, 1 touchp")
    assert "is not in this business" in told["told"][1]
    after = seen(client)
    for name, found in before.items():
        assert after[name] == found, name
    about = client.get("/api/me").json()["business"]
    assert (about["name"], about["mail_confirmed"]) == ("Otterwick", False)
    # The first is as it was, and the two know nothing of each other.
    assert seen(busy.console()) == before
    ours, theirs = Touchpoint.objects.order_by("pk")
    assert (ours.state, theirs.state) == ("live", "live")
    assert ours.public_id != theirs.public_id
    [late] = [
        one["id"]
        for one in client.get("/api/follow-ups").json()["lanes"][0]["items"]
        if one["called"] == "Late"
    ]
    done = client.post(f"/api/follow-ups/{late}/finish", {"outcome": "won"}, content_type="application/json")
    assert done.status_code == 200
    assert seen(busy.console()) == before


def test_what_stands_in_a_timeline_is_of_the_same_business(busy: World) -> None:
    """Every id inside of its entries: a mail of ours or one that came, a word of a conversation, an answer."""
    for number, head in enumerate(("", "Auto-Submitted: auto-replied\r\n")):
        hand_in(busy, f"From: late@post.example\r\nMessage-ID: <{number}@x>\r\n{head}\r\nHello".encode())
    person, at = Person.objects.get(addresses__key="late@post.example"), clock.now()
    talk = Talk.objects.create(business=busy.business, site=busy.site, begun_at=at, last_word_at=at)
    word = Message.objects.create(business=busy.business, talk=talk, n=1, at=at, source="us", text="Yes")
    data = {"way": "talk", "talk": talk.pk, "message": word.pk, "text": "Yes", "key": "k9"}
    person.events.create(business=busy.business, at=at, kind="answered", data=data)
    before = set(TimelineEvent.objects.values_list("pk", flat=True))
    client = empty()
    assert brought(client, copied(busy.console()))["state"] == "ready"
    fresh = TimelineEvent.objects.exclude(pk__in=before)
    looked = 0
    for event in fresh:
        for key, to in {**REFERS[TimelineEvent], "mail": _mail_of(event.kind)}.items():
            if isinstance(event.data.get(key), int):
                assert to._default_manager.get(pk=event.data[key]).business_id == event.business_id, (
                    event.kind,
                    key,
                )
                looked += 1
    assert looked >= 8
    assert {"talk", "message", "mail", "submission", "followup"} <= {key for one in fresh for key in one.data}


def _mail_of(kind: str) -> type[Any]:
    return IncomingMail if kind in THEIR_MAIL else OutgoingMail


def test_what_names_something_else_names_it_there(busy: World) -> None:
    """Ids inside of documents, and public ids in texts."""
    client, touchpoint = busy.console(), busy.touchpoint
    hours = client.get("/api/hours").json()["main"]["id"]
    ReplyCell.objects.create(
        business=busy.business,
        column=touchpoint.public_id,
        situation="open",
        language="en",
        document={"text": ["Soon."]},
    )
    made = {"kind": "phone", "label": "Call", "handle": "01632 960123", "hours": [hours]}
    assert (
        client.post("/api/channels", {"document": made}, content_type="application/json").status_code == 201
    )
    given = {"rules": [{"touchpoint": touchpoint.pk, "member": busy.owner.member_id}]}
    assert client.put("/api/give-rules", given, content_type="application/json").status_code == 204
    new = empty()
    assert brought(new, copied(client))["state"] == "ready"
    business = new.get("/api/me").json()["business"]["id"]
    row = Touchpoint.objects.get(business_id=business)
    assert ReplyCell.objects.get(business_id=business).column == row.public_id
    assert new.get("/api/channels").json()["channels"][0]["document"]["hours"] == [
        new.get("/api/hours").json()["main"]["id"]
    ]
    [rule] = new.get("/api/give-rules").json()
    assert (rule["rule"]["touchpoint"], rule["rule"]["member"]) == (row.pk, None)


def test_members_who_are_here_keep_what_is_theirs(busy: World) -> None:
    data = copied(busy.console())
    client = empty()
    member = Member.objects.get(user__email="new@heron.example")
    Member.objects.create(business=member.business, user=busy.user, role="staff")
    told = brought(client, data)
    assert len(told["told"]) == 2, "nobody is missed; the line on the site has a new key"
    [late] = [
        one for one in client.get("/api/follow-ups").json()["lanes"][0]["items"] if one["called"] == "Late"
    ]
    noted = client.get(f"/api/follow-ups/{late['id']}").json()["timeline"][-1]
    assert (noted["kind"], noted["by"]) == ("noted", busy.user.name)


def test_every_line_keeps_to_its_schema_and_every_table_is_carried_or_named(busy: World) -> None:
    copy = zipfile.ZipFile(io.BytesIO(copied(busy.console())))
    manifest = json.loads(copy.read("manifest.json"))
    rows = 0
    for table in manifest["tables"]:
        schema = json.loads(copy.read(table["schema_file"]))
        lines = copy.read(table["file"]).splitlines()
        assert len(lines) == table["rows"]
        check = jsonschema_rs.validator_for(schema)
        for line in lines:
            check.validate(json.loads(line))
            rows += 1
    assert rows > 20
    assert not {one.model for one in carried()} & set(NOT_CARRIED)
    assert "bearer" not in copy.read("schemas/talks.Gateway.json").decode()


def test_files_go_along_and_nobodys_stay(busy: World) -> None:
    client = busy.console()
    leaflet = SimpleUploadedFile("leaflet.txt", b"a leaflet", content_type="text/plain")
    assert client.post("/api/enclosures", {"file": leaflet}).status_code == 201
    home = Path(settings.MEDIA_ROOT) / str(busy.owner.business_id)
    (home / "mail").mkdir(parents=True)
    (home / "mail" / "abc").write_bytes(b"of nobody's")
    data = copied(client)
    assert b"of nobody's" not in data
    there = empty()
    brought(there, data)
    business = there.get("/api/me").json()["business"]["id"]
    kept = [one for one in (Path(settings.MEDIA_ROOT) / str(business)).rglob("*") if one.is_file()]
    assert b"a leaflet" in [one.read_bytes() for one in kept]
    assert "mail" not in {one.parent.name for one in kept}
    # A copy that lies: a file that no row names stays out, and one that is larger than its row says stops all.
    leaflet_there = next(one for one in zipfile.ZipFile(io.BytesIO(data)).namelist() if "/enclosed/" in one)
    there = empty("wren.ash@heron.example")
    brought(there, changed(data, "files/mail/f00", b"of nobody's"))
    home = Path(settings.MEDIA_ROOT) / str(there.get("/api/me").json()["business"]["id"])
    assert [one.parent.name for one in home.rglob("*") if one.is_file()] == ["enclosed"]
    there = empty("wren.elm@heron.example")
    told = brought(there, changed(data, leaflet_there, b"a leaflet, and more"))
    assert "not as large as it says" in " ".join(told["told"])


def test_what_each_column_of_a_document_may_hold_is_said() -> None:
    documents = {
        (table.model, one.name) for table in carried() for one in table.fields if isinstance(one, JSONField)
    }
    assert documents <= CHECKS.keys()


def changed(data: bytes, name: str, content: bytes | None) -> bytes:
    """The copy with one file put in place of another, or left out."""
    out = io.BytesIO()
    with zipfile.ZipFile(io.BytesIO(data)) as copy, zipfile.ZipFile(out, "w") as new:
        for info in copy.infolist():
            if info.filename != name:
                new.writestr(info.filename, copy.read(info))
        if content is not None:
            new.writestr(name, content)
    return out.getvalue()


@pytest.mark.parametrize(
    ("name", "content", "words"),
    [
        ("manifest.json", None, "not a copy"),
        ("manifest.json", b"[]", "another version"),
        ("manifest.json", b'{"format": "intavo-business", "version": 2}', "another version"),
        ("tables/people.Person.jsonl", None, "damaged"),
        ("tables/people.Person.jsonl", b"{", "line 1"),
        ("tables/people.Person.jsonl", b"[1]\n", "no row"),
        ("tables/people.Person.jsonl", b'{"id": 1, "name": "x", "erasing": false, "created_at": "soon"}\n', "line 1"),
        ("tables/people.Person.jsonl", b'{"id": 1, "name": "x", "erasing": false, "created_at": "9999-12-31T23:59:59-14:00"}\n', "too far off"),
        ("tables/people.Person.jsonl", b'{"id": 1, "name": "x", "erasing": false, "created_at": "2026-01-01T00:00:00"}\n', "line 1"),
        ("tables/people.Person.jsonl", b'{"id": 1' + b"0" * 400 + b', "name": "x", "erasing": false, "created_at": "2026-01-01T00:00:00Z"}\n', "line 1"),
        ("tables/people.Person.jsonl", b'{"id": "1", "name": "x", "erasing": false, "created_at": "2026-01-01T00:00:00Z"}\n', "no whole number"),
        ("tables/people.Person.jsonl", b'{"id": 1, "business_id": 1, "name": "x"}\n', "there is no business_id"),
        ("tables/hours.HoursSet.jsonl", b'{"id": 1, "name": "x", "document": {"timezone": "Mars"}, "deleted_at": null, "token": null, "instead_id": null}\n', "line 1"),
        ("tables/mail.Enclosure.jsonl", b'{"id": 1, "member_id": null, "mail_id": null, "key": "../2/mail/x", "name": "x", "type": "text/plain", "size": 1, "added_at": "2026-01-01T00:00:00Z"}\n', "line 1"),
        ("tables/touchpoints.Asset.jsonl", b'{"id": 1, "public_id": "as_12345678", "kind": "file", "name": "x", "description": "", "media_type": "text/html", "size": 1, "width": null, "height": null, "widths": [], "sample": [], "boxed": false, "digest": "d", "added_at": "2026-01-01T00:00:00Z"}\n', "line 1"),
        ("tables/followup.KeptAnswer.jsonl", b'{"id": 1, "member_id": null, "name": "x", "group": "", "text": [{"slot": "nothing"}], "uses": 0}\n', "line 1"),
        ("files/../../x", b"x", "name that is not taken"),
        ("files/a/.hidden", b"x", "name that is not taken"),
        ("business.json", b"{}", "business.json"),
        ("business.json", b'{"name": "x\\u0000", "timezone": "UTC", "region": "GB", "language": "en", "promise_minutes": 1, "mail_address": "a@b.example"}', "business.json"),
        ("members.jsonl", b'{"id": "x"}\n', "members.jsonl"),
    ],
)  # fmt: skip
def test_what_is_no_copy_is_told_and_changes_nothing(
    busy: World, name: str, content: bytes | None, words: str
) -> None:
    client = empty()
    before = seen(client)
    told = brought(client, changed(copied(busy.console()), name, content))
    assert told["state"] in {"refused", "failed"}
    assert words in " ".join(told["told"])
    assert seen(client) == before
    assert client.get("/api/me").json()["business"]["name"] == "Nothing yet"


def test_a_row_of_another_business_cannot_be_named(busy: World, other: World) -> None:
    """Ids that are not in the copy lead nowhere, even where such a row is here."""
    data = copied(busy.console())
    person = json.dumps(
        {
            "id": 5,
            "person_id": 10**6,
            "kind": "email",
            "key": "x@y.example",
            "shown": "x@y.example",
            "domain": "y.example",
        }
    )
    client = empty()
    told = brought(client, changed(data, "tables/people.Address.jsonl", person.encode() + b"\n"))
    assert told["state"] == "ready"
    assert "x@y.example" not in client.get("/api/people").content.decode()
    assert Address.objects.filter(key="x@y.example").count() == 0


def test_a_copy_goes_into_an_empty_business_alone_and_by_owners_alone(busy: World) -> None:
    data = copied(busy.console())
    assert "an empty business" in brought(busy.console(), data)["told"][0]
    staff = busy.staff()
    assert staff.post("/api/copies").status_code == 403
    assert staff.get("/api/copies").status_code == 403
    made = Copy.objects.get()
    assert staff.get(f"/api/copies/{made.pk}/file").status_code == 403
    client = busy.console()
    assert client.delete(f"/api/copies/{made.pk}").status_code == 204
    assert client.get(f"/api/copies/{made.pk}/file").status_code == 404
    assert client.post("/api/copies").status_code == 201
    assert client.post("/api/copies").status_code == 422, "one is being made"
