"""Pictures and PDF in a conversation: where the owner allows it, for both sides and nobody else."""

import io
import json
from pathlib import Path
from typing import Any
from urllib.parse import urlencode

import pytest
from django.conf import settings
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client
from PIL import Image

from intavo.followup.actions import to_of
from intavo.followup.models import FollowUp
from intavo.mail.models import Enclosure, OutgoingMail
from intavo.people.models import TimelineEvent
from intavo.talks import files
from intavo.talks.files import MOST_FILE
from intavo.talks.leaving import mail_if_gone
from intavo.talks.models import Message, Talk
from intavo.talks.way import InTheTalk
from intavo.touchpoints.actions import put_live, save_draft
from intavo.touchpoints.pictures import write_anew

from .conftest import Visitor, World
from .test_collisions import at_once
from .test_library import drawn
from .test_talks import begin, look, say

PDF = b"%PDF-1.7\n%a plan\n"


@pytest.fixture(autouse=True)
def _uploads(settings: Any, tmp_path: Path) -> None:
    settings.MEDIA_ROOT = str(tmp_path / "uploads")


@pytest.fixture
def with_files(talking: World) -> World:
    """A conversation in which files may be sent."""
    row = talking.touchpoint
    document = dict(row.draft.document)
    document["steps"][0]["parts"][0]["files"] = True
    save_draft(talking.owner, touchpoint_id=row.pk, document=document, based_on=row.draft.number)
    talking.touchpoint = put_live(talking.owner, touchpoint_id=row.pk)
    return talking


def send(
    visitor: Visitor,
    talk: str,
    data: bytes,
    name: str = "dent.jpg",
    number: int = 1,
    client: Client | None = None,
) -> Any:
    query = urlencode({"id": f"file-{number}", "name": name})
    return (client or Client()).post(
        f"/e/{visitor.key}/talks/{talk}/files?{query}",
        data,
        content_type="text/plain",
        HTTP_ORIGIN=visitor.origin,
    )


@pytest.mark.django_db(transaction=True, available_apps=settings.INSTALLED_APPS)
def test_while_a_picture_is_written_anew_nobody_waits(
    with_files: World, visitor: Visitor, monkeypatch: pytest.MonkeyPatch
) -> None:
    talk = begin(with_files, visitor)["talk"]
    statuses = []

    def slowly(*about: Any) -> Any:
        # Another page of theirs meanwhile; it would wait for ever for what is held here.
        statuses.extend(at_once([lambda: say(visitor, talk, 2, text="Is it there?").status_code]))
        return write_anew(*about)

    monkeypatch.setattr(files, "write_anew", slowly)
    assert send(visitor, talk, drawn("JPEG")).status_code == 201
    assert statuses == [201]
    assert Message.objects.filter(source="them").count() == 2


def test_a_picture_is_written_anew_and_seen_by_both_sides_alone(
    with_files: World, other: World, visitor: Visitor
) -> None:
    talk = begin(with_files, visitor)["talk"]
    answer = send(visitor, talk, drawn("JPEG"), "../dent on the \u202egpj.jpg")
    assert answer.status_code == 201, answer.content
    file = answer.json()["messages"][0]["file"]
    assert (file["picture"], file["name"]) == (True, "dent on the gpj.jpg")
    got = Client().get(file["href"])
    assert (got.status_code, got["Content-Type"], got["X-Content-Type-Options"]) == (
        200,
        "image/webp",
        "nosniff",
    )
    assert "sandbox" in got["Content-Security-Policy"]
    assert Image.open(io.BytesIO(got.content)).size == (1800, 900)
    seen = with_files.console().get(f"/api/follow-ups/{FollowUp.objects.get().pk}/talk").json()
    ours = next(one["file"] for one in seen["messages"] if one["file"])
    assert with_files.console().get(ours["href"]).content == got.content
    assert other.console().get(ours["href"]).status_code == 404
    assert Client().get(ours["href"]).status_code == 401
    elsewhere = begin(with_files, visitor)["talk"]
    assert Client().get(file["href"].replace(talk, elsewhere)).status_code == 404


def test_a_pdf_is_given_as_a_download_and_the_same_id_again_keeps_one(
    with_files: World, visitor: Visitor
) -> None:
    talk = begin(with_files, visitor)["talk"]
    first, second = (send(visitor, talk, PDF, "plan.pdf") for _ in range(2))
    assert (first.status_code, second.status_code, first.content == second.content) == (201, 200, True)
    got = Client().get(first.json()["messages"][0]["file"]["href"])
    assert (got.content, got["Content-Disposition"]) == (PDF, 'attachment; filename="plan.pdf"')
    assert Message.objects.filter(source="them").count() == 1


@pytest.mark.parametrize(
    ("data", "words"),
    [
        (b"", "empty"), (b"MZ a program", "neither"), (b"<svg><script>x</script></svg>", "neither"),
        (b"<html>%PDF-", "neither"), (b"\x89PNG\r\n\x1a\n broken", "neither"),
    ],
)  # fmt: skip
def test_what_is_neither_is_refused_and_nothing_is_kept(
    with_files: World, visitor: Visitor, data: bytes, words: str
) -> None:
    talk = begin(with_files, visitor)["talk"]
    answer = send(visitor, talk, data)
    assert (answer.status_code, answer.json()["errors"][0]["field"]) == (422, "file")
    assert words in answer.json()["errors"][0]["message"]
    assert not Message.objects.filter(source="them").exists()


def test_too_large_too_often_unknown_or_not_allowed(with_files: World, visitor: Visitor) -> None:
    talk = begin(with_files, visitor)["talk"]
    assert send(visitor, talk, b"%PDF-" + b"x" * MOST_FILE).status_code == 413
    assert send(visitor, "0" * 32, PDF).status_code == 404
    for number in range(10):
        assert send(visitor, talk, PDF, number=number).status_code == 201
    assert send(visitor, talk, PDF, number=11).status_code == 429


def test_no_file_where_the_owner_does_not_allow_it(talking: World, visitor: Visitor) -> None:
    talk = begin(talking, visitor)["talk"]
    answer = send(visitor, talk, PDF)
    assert (answer.status_code, answer.json()["errors"][0]["field"]) == (422, "file")


def test_what_is_erased_takes_its_bytes_with_it(
    with_files: World, visitor: Visitor, django_capture_on_commit_callbacks: Any, settings: Any
) -> None:
    talk = begin(with_files, visitor)["talk"]
    send(visitor, talk, PDF)
    say(visitor, talk, 2, text="That is the plan.")
    assert len(list(Path(settings.MEDIA_ROOT).rglob("talks/*"))) == 1
    with django_capture_on_commit_callbacks(execute=True):
        Talk.objects.get().delete()
    assert not list(Path(settings.MEDIA_ROOT).rglob("talks/*"))


def test_a_picture_is_no_answer_to_where_they_can_be_reached(with_files: World, visitor: Visitor) -> None:
    talk = begin(with_files, visitor)["talk"]
    say(visitor, talk, 1, choice="c1")
    assert say(visitor, talk, 2, text="Saturday").json()["asks"] == "email"
    sent = send(visitor, talk, drawn("JPEG")).json()
    assert [(one["from"], bool(one.get("file"))) for one in sent["messages"]] == [("them", True)]
    assert (sent["asks"], sent["choices"]) == ("email", Talk.objects.get().choices)
    assert say(visitor, talk, 3, address={"email": "ife@post.example"}).json()["handed"]
    assert FollowUp.objects.get().excerpt == "Saturday"


def test_files_of_ours_stand_in_the_conversation_and_go_with_the_mail_to_who_has_left(
    with_files: World, visitor: Visitor
) -> None:
    console, begun = with_files.console(), begin(with_files, visitor)
    say(visitor, begun["talk"], 1, choice="c1")
    say(visitor, begun["talk"], 2, text="Which boat\nis it?")
    say(visitor, begun["talk"], 3, address={"email": "ife@post.example"})
    followup = FollowUp.objects.get().pk
    assert [one["files"] for one in console.get(f"/api/follow-ups/{followup}").json()["ways"]] == [True, True]
    chosen = [
        console.post("/api/enclosures", {"file": SimpleUploadedFile(name, data)}).json()["id"]
        for name, data in (("boat.png", drawn("PNG")), ("plan.pdf", PDF))
    ]
    body = {"text": "This one.", "key": "k1", "then": "keep", "way": "talk", "files": chosen}
    for _ in range(2):
        answered = console.post(f"/api/follow-ups/{followup}/answer", json.dumps(body), "application/json")
        assert answered.status_code == 200, answered.content
    ours = [one for one in look(visitor, begun["talk"]).json()["messages"] if one["from"] == "us"][-3:]
    assert [(one["text"], one.get("file", {}).get("picture")) for one in ours] == [
        ("This one.", None), ("boat.png", True), ("plan.pdf", False),
    ]  # fmt: skip
    assert Client().get(ours[1]["file"]["href"])["Content-Type"] == "image/png"
    entry = TimelineEvent.objects.get(kind="answered").data["enclosed"]
    assert console.get(entry[1]["href"]).content == PDF
    # A page among them is no page of this host.
    Message.objects.filter(file__name="plan.pdf").update(
        file={**Message.objects.get(file__name="plan.pdf").file, "type": "text/html"}
    )
    got = console.get(entry[1]["href"])
    assert (got["Content-Type"], got["Content-Disposition"]) == (
        "application/octet-stream",
        'attachment; filename="plan.pdf"',
    )
    assert not Enclosure.objects.exists()
    Talk.objects.update(seen_at="2020-01-01T00:00:00Z", given=0)
    assert mail_if_gone(Talk.objects.get().pk)
    assert [one.name for one in OutgoingMail.objects.get().enclosures.order_by("pk")] == [
        "boat.png",
        "plan.pdf",
    ]


def test_files_cannot_go_through_a_service_outside(with_files: World, visitor: Visitor) -> None:
    console, begun = with_files.console(), begin(with_files, visitor)
    say(visitor, begun["talk"], 1, choice="c1")
    way = InTheTalk()
    row = FollowUp.objects.get()
    assert way.takes_files(to_of(row))
    made = console.post(
        "/api/gateways", json.dumps({"name": "W", "address": "https://w.example/x"}), "application/json"
    )
    Talk.objects.update(gateway_id=made.json()["id"])
    assert not way.takes_files(to_of(row))
