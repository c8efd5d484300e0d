"""What a business may have: said before it is met, refused once it is, and never at a visitor's cost."""

from pathlib import Path

import pytest
from django.conf import LazySettings
from django.core.files.uploadedfile import SimpleUploadedFile

from intavo import keeping
from intavo.accounts import quotas
from intavo.copies.actions import write_now
from intavo.core.quotas import QuotaKind
from intavo.imports.models import Import
from intavo.imports.taking import take_now
from intavo.people.models import Person

from .conftest import Visitor, World
from .test_followup_api import arrive
from .test_imports import load


@pytest.fixture(autouse=True)
def most(settings: LazySettings) -> dict[QuotaKind, int]:
    """The quotas, to be changed by a test."""
    settings.QUOTAS = dict(settings.QUOTAS)
    return settings.QUOTAS


def said(world: World) -> dict[str, str]:
    """What the owner is told, by field."""
    quotas._shown.clear()
    return {one["kind"]: one["words"] for one in world.console().get("/api/room").json()}


def test_an_owner_sees_the_room_and_is_warned(otterwick: World, most: dict[QuotaKind, int]) -> None:
    client = otterwick.console()
    assert client.get("/api/day").json()["nearly_full"] == []
    assert said(otterwick)["sites"] == "1 of 100 sites"
    most[QuotaKind.SITES] = 1
    quotas._shown.clear()
    assert client.get("/api/day").json()["nearly_full"] == ["1 of 1 site"]
    refused = client.post("/api/sites", {"name": "", "hosts": ["more.example"]}, "application/json")
    assert refused.status_code == 422
    assert refused.json()["errors"][0]["field"] == "hosts"
    assert "1 of 1 site" in refused.json()["errors"][0]["message"]


def test_whoever_is_no_owner_is_not_asked_to_make_room(otterwick: World, most: dict[QuotaKind, int]) -> None:
    most[QuotaKind.SITES] = 1
    staff = otterwick.staff()
    assert staff.get("/api/day").json()["nearly_full"] == []
    assert staff.get("/api/room").status_code == 403


def test_copies_are_counted_and_throwing_one_away_makes_room(
    otterwick: World, most: dict[QuotaKind, int]
) -> None:
    client = otterwick.console()
    most[QuotaKind.COPIES] = 1
    number = client.post("/api/copies").json()["id"]
    write_now(number)
    assert (
        client.post("/api/copies")
        .json()["errors"][0]["message"]
        .startswith("There is no room for more: 1 of")
    )
    assert client.delete(f"/api/copies/{number}").status_code == 204
    assert client.post("/api/copies").status_code == 201


def test_files_are_counted_by_what_lies_there(
    otterwick: World, most: dict[QuotaKind, int], settings: LazySettings
) -> None:
    client = otterwick.console()
    folder = Path(settings.MEDIA_ROOT) / str(otterwick.business.pk)
    folder.mkdir(parents=True, exist_ok=True)
    (folder / "lies-there").write_bytes(b"x" * 5000)
    keeping.count_anew(folder)
    most[QuotaKind.FILES] = keeping.used(otterwick.business.pk) + 100
    few = SimpleUploadedFile("few.txt", b"y" * 90, "text/plain")
    kept = client.post("/api/enclosures", {"file": few})
    assert kept.status_code == 201, kept.content
    more = SimpleUploadedFile("more.txt", b"y" * 90, "text/plain")
    refused = client.post("/api/enclosures", {"file": more})
    assert (refused.status_code, refused.json()["errors"][0]["field"]) == (422, "file")


def test_people_past_the_last_place_are_given_back_and_a_visitor_is_taken_all_the_same(
    otterwick: World, most: dict[QuotaKind, int], visitor: Visitor, monkeypatch: pytest.MonkeyPatch
) -> None:
    client = otterwick.console()
    most[QuotaKind.PEOPLE] = Person.objects.filter(business=otterwick.business).count() + 2
    lines = "".join(f"Person {n},p{n}@post.example\n" for n in range(4)) + "Again,p0@post.example\n"
    number = load(client, f"Name,Email\n{lines}".encode()).json()["id"]
    assert client.post(f"/api/imports/{number}/take").status_code == 202
    take_now(number)
    row = Import.objects.get(pk=number)
    assert (row.new, row.joined, row.refused) == (2, 1, 2)
    assert "no room for more people" in b"".join(client.get(f"/api/imports/{number}/refused")).decode()
    typed = client.post("/api/people", {"name": "Somebody", "email": "", "phone": ""}, "application/json")
    assert typed.json()["errors"][0]["field"] == "name"
    arrive(visitor, otterwick, monkeypatch, {"One More": "12:00"})
    assert Person.objects.filter(business=otterwick.business).count() == most[QuotaKind.PEOPLE] + 1


def test_so_many_files_with_people_lie_and_are_worked_on_at_a_time(
    otterwick: World, most: dict[QuotaKind, int]
) -> None:
    client = otterwick.console()
    most[QuotaKind.IMPORTS], most[QuotaKind.IMPORTS_AT_ONCE] = 2, 1
    numbers = [load(client, b"Name,Email\nA,a@post.example\n").json()["id"] for _ in range(2)]
    third = load(client, b"Name,Email\nA,a@post.example\n")
    assert third.json()["errors"][0]["message"].startswith("There is no room for more: 2 of 2 files")
    assert client.post(f"/api/imports/{numbers[0]}/take").status_code == 202
    waits = client.post(f"/api/imports/{numbers[1]}/take")
    assert waits.json()["errors"] == [
        {"field": "state", "message": "Another file is being worked on; please wait until that is done."}
    ]
    take_now(numbers[0])
    assert client.post(f"/api/imports/{numbers[1]}/take").status_code == 202
