"""What could not be done to the end is said, and can be done again; what does not fit is not half there."""

from collections.abc import Callable
from pathlib import Path
from typing import Any

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client

from intavo.copies import writing
from intavo.copies.models import Copy
from intavo.copies.tasks import read_copy, write_copy
from intavo.imports import taking
from intavo.imports.files import path_of
from intavo.imports.models import Import
from intavo.imports.tasks import take_import, undo_import
from intavo.jobs import MOST_TRIES
from intavo.mail.models import Enclosure
from intavo.people.effects import Erasing, person_erased
from intavo.people.models import Person
from intavo.people.tasks import erase_rest
from intavo.talks.gateways import GatewayAway, add_gateway
from intavo.talks.models import Delivery, Message
from intavo.talks.tasks import send_out
from intavo.touchpoints.actions import assets
from intavo.touchpoints.models import Asset

from .conftest import Visitor, World, sending, try_of
from .test_copies import brought, copied, empty
from .test_gateways import call, message, service  # noqa: F401  # a fixture
from .test_imports import load
from .test_library import drawn
from .test_talk_files import send, with_files  # noqa: F401  # a fixture
from .test_talks import begin


def breaks(*_: object) -> None:
    raise RuntimeError("this fails every time")


@pytest.fixture(autouse=True)
def _files_of_their_own(settings: Any, tmp_path: Path) -> None:
    settings.MEDIA_ROOT = str(tmp_path / "uploads")


def test_a_copy_that_cannot_be_made_is_said_and_another_can_be(
    otterwick: World, monkeypatch: pytest.MonkeyPatch
) -> None:
    client = otterwick.console()
    number = client.post("/api/copies").json()["id"]
    with monkeypatch.context() as patch:
        patch.setattr(writing, "_write", breaks)
        with pytest.raises(RuntimeError):
            write_copy.func(try_of(MOST_TRIES - 1), copy_id=number)
        assert client.post("/api/copies").status_code == 422
        with pytest.raises(RuntimeError):
            write_copy.func(try_of(MOST_TRIES), copy_id=number)
    [row] = client.get("/api/copies").json()["copies"]
    assert (row["state"], row["told"][0][:29]) == ("failed", "It could not be made for hour")
    # Once more it is left alone; nothing of it lies about.
    write_copy.func(try_of(MOST_TRIES), copy_id=number)
    assert Copy.objects.get().state == Copy.FAILED
    assert copied(client)[:2] == b"PK"


def test_a_copy_that_workers_die_with_is_not_begun_for_ever(
    otterwick: World, monkeypatch: pytest.MonkeyPatch
) -> None:
    data, client = copied(otterwick.console()), empty()
    file = SimpleUploadedFile("a.zip", data)
    number = client.post("/api/copies-in", {"file": file}).json()["id"]
    # A worker that is killed raises nothing: its job is only found to have been begun that often.
    read_copy.func(try_of(MOST_TRIES + 1), copy_id=number)
    [row] = client.get("/api/copies").json()["copies"]
    assert (row["state"], row["told"][0][:29]) == ("failed", "It could not be read for hour")
    assert brought(client, data)["state"] == "ready"


def test_a_file_of_people_that_stops_is_gone_on_with_after_what_is_in(
    otterwick: World, monkeypatch: pytest.MonkeyPatch
) -> None:
    client = otterwick.console()
    lines = "".join(f"Person {n},p{n}@post.example\n" for n in range(700))
    number = load(client, f"Name,Email\n{lines}".encode()).json()["id"]
    client.post(f"/api/imports/{number}/take")
    whole, begun = taking._write, []

    def stops(of: Import, batch: Any, most: int | None) -> None:
        begun.append(1)
        if len(begun) > 1:
            raise RuntimeError("this fails every time")
        whole(of, batch, most)

    with monkeypatch.context() as patch:
        patch.setattr(taking, "_write", stops)
        with pytest.raises(RuntimeError):
            take_import.func(try_of(MOST_TRIES), import_id=number)
    stopped = client.get(f"/api/imports/{number}").json()
    assert (stopped["state"], stopped["position"], stopped["new"]) == ("stopped", 500, 500)
    assert client.post(f"/api/imports/{number}/take").status_code == 202
    take_import.func(try_of(0), import_id=number)
    done = client.get(f"/api/imports/{number}").json()
    assert (done["state"], done["new"], Person.objects.count()) == ("done", 700, 700)
    # Undoing that comes to nothing can be begun again.
    client.post(f"/api/imports/{number}/undo")
    undo_import.func(try_of(MOST_TRIES + 1), import_id=number)
    assert client.post(f"/api/imports/{number}/undo").status_code == 202
    undo_import.func(try_of(0), import_id=number)
    assert (client.get(f"/api/imports/{number}").json()["state"], Person.objects.count()) == ("undone", 0)


def test_what_stopped_can_be_undone_as_well(otterwick: World) -> None:
    client = otterwick.console()
    number = load(client, b"Name,Email\nJo,jo@post.example\n").json()["id"]
    client.post(f"/api/imports/{number}/take")
    take_import.func(try_of(MOST_TRIES + 1), import_id=number)
    assert client.get(f"/api/imports/{number}").json()["state"] == "stopped"
    assert client.post(f"/api/imports/{number}/undo").status_code == 202
    undo_import.func(try_of(0), import_id=number)
    assert client.get(f"/api/imports/{number}").json()["state"] == "undone"
    # Nothing is to be read from the file any more.
    assert not path_of(otterwick.owner.business_id, Import.objects.get().key).exists()


def test_what_a_service_never_took_is_said_and_is_for_us_again(
    talking: World,
    service: Any,  # noqa: F811
) -> None:
    gateway, secret = add_gateway(talking.owner, name="Wherry", address=service.address, bearer="b")
    assert call(gateway, secret, message("w1", "Is it cold?")).status_code == 200
    client = talking.console()
    [listed] = [one for lane in client.get("/api/follow-ups").json()["lanes"] for one in lane["items"]]
    body = {"text": "Bring a jacket.", "key": "k", "then": "wait"}
    path = f"/api/follow-ups/{listed['id']}"
    assert client.post(f"{path}/answer", body, content_type="application/json").status_code == 200
    sent, service.status = Delivery.objects.get(message__source="us"), 503
    for number in (MOST_TRIES - 1, MOST_TRIES):
        with pytest.raises(GatewayAway):
            send_out.func(try_of(number), delivery_id=sent.pk)
    said = client.get(path).json()
    assert [one["data"]["reason"] for one in said["timeline"] if one["kind"] == "not delivered"] == [
        "Wherry could not be reached for hours"
    ]
    assert said["state"] == "for-us"
    service.status = 200
    send_out.func(try_of(MOST_TRIES), delivery_id=sent.pk)
    assert [one["text"] for _, one in service.got].count("Bring a jacket.") == 2


def test_whoever_could_not_be_erased_is_tried_again_and_keeps_nobody_else(
    otterwick: World, visitor: Visitor, monkeypatch: pytest.MonkeyPatch
) -> None:
    for number in range(2):
        visitor.post(
            "intake", sending(otterwick.touchpoint, number, answers={"email": f"p{number}@post.example"})
        )
    first, second = Person.objects.order_by("pk")
    for one in (first, second):
        assert otterwick.console().delete(f"/api/people/{one.pk}").status_code in {202, 204}
    tell = person_erased.tell

    def some(erasing: Erasing) -> None:
        if erasing.person_id == first.pk:
            raise RuntimeError("this one cannot be erased today")
        tell(erasing)

    with monkeypatch.context() as patch:
        patch.setattr(person_erased, "tell", some)
        with pytest.raises(RuntimeError):
            erase_rest.func(timestamp=0)
    assert list(Person.objects.values_list("pk", flat=True)) == [first.pk]
    erase_rest.func(timestamp=0)
    assert not Person.objects.exists()


FULL = Path("/dev/full")
Uploads = Callable[[Client], Any]


def upload(path: str, name: str, data: bytes) -> Uploads:
    return lambda client: client.post(path, {"file": SimpleUploadedFile(name, data)})


@pytest.mark.usefixtures("otterwick")
@pytest.mark.parametrize(
    ("folder", "tries"),
    [
        ("enclosed", upload("/api/enclosures", "plan.pdf", b"%PDF-1.7\n")),
        ("imports", upload("/api/imports", "people.csv", b"Name,Email\nJo,jo@post.example\n")),
        ("copies", upload("/api/copies-in", "a.zip", b"PK")),
    ],
)
def test_a_file_for_which_there_is_no_room_is_refused_and_nothing_of_it_stays(
    folder: str,
    tries: Uploads,
    settings: Any,
    monkeypatch: pytest.MonkeyPatch,
) -> None:
    client = empty()
    client.raise_request_exception = False
    business = client.get("/api/me").json()["business"]["id"]
    place = Path(settings.MEDIA_ROOT, str(business), folder)
    place.mkdir(parents=True)
    # Whatever is written there finds that the disk is full.
    place.joinpath("key.part").symlink_to(FULL)
    with monkeypatch.context() as patch:
        patch.setattr("secrets.token_hex", lambda *_: "key")
        answer = tries(client)
    assert (answer.status_code, answer["Retry-After"]) == (503, "60"), answer.content
    assert "no room" in answer.json()["title"]
    assert list(place.iterdir()) == []
    assert not any(model.objects.exists() for model in (Enclosure, Import, Copy))


def test_there_may_be_no_room_in_the_library_or_in_a_conversation(
    with_files: World,  # noqa: F811
    visitor: Visitor,
    settings: Any,
    tmp_path: Path,
    monkeypatch: pytest.MonkeyPatch,
) -> None:
    client, coming = with_files.console(), tmp_path / "coming"
    client.raise_request_exception = False
    coming.mkdir()
    named = coming / "as-it-came"

    class Full:
        def __init__(self, **_: object) -> None: ...

        def __enter__(self) -> str:
            return str(coming)

        def __exit__(self, *_: object) -> None: ...

    # As it comes, or as it is written anew by the program that decodes it.
    for full in (named, coming / f"{assets.WIDTHS[0]}.webp"):
        named.unlink(missing_ok=True)
        full.symlink_to(FULL)
        with monkeypatch.context() as patch:
            patch.setattr(assets, "TemporaryDirectory", Full)
            answer = upload("/api/library", "boat.png", drawn("PNG"))(client)
        assert (answer.status_code, answer["Retry-After"]) == (503, "60"), answer.content
        assert not Asset.objects.exists()
    talk = begin(with_files, visitor)["talk"]
    place = Path(settings.MEDIA_ROOT, str(with_files.business.pk), "talks")
    place.mkdir(parents=True)
    place.joinpath("key.part").symlink_to(FULL)
    with monkeypatch.context() as patch:
        patch.setattr("secrets.token_hex", lambda *_: "key")
        quiet = Client(raise_request_exception=False)
        refused = send(visitor, talk, drawn("JPEG"), client=quiet)
    assert (refused.status_code, list(place.iterdir())) == (503, [])
    assert not Message.objects.filter(file__isnull=False).exists()
    # Once there is room, the very same is taken.
    assert send(visitor, talk, drawn("JPEG")).status_code == 201
