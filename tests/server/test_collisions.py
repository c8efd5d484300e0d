"""Several at the same at once: whoever collides is asked again, and nothing that was acknowledged is lost."""

import threading
from collections.abc import Callable
from functools import partial
from typing import Any

import pytest
from django.conf import settings
from django.db import IntegrityError, OperationalError, connection
from django.http import HttpRequest, HttpResponse
from django.test import RequestFactory
from procrastinate.contrib.django import app
from psycopg.errors import DeadlockDetected, ForeignKeyViolation, UniqueViolation

from intavo.collisions import TRIES
from intavo.followup.models import FollowUp
from intavo.hours.models import HoursSet
from intavo.intake.actions import receive
from intavo.intake.models import Submission
from intavo.mail.models import OutgoingMail
from intavo.people.actions import unless_overtaken
from intavo.people.models import Person, TimelineEvent
from intavo.project import views
from intavo.project.again import Again
from intavo.visitor import views as visitor_views

from .conftest import Visitor, World, sending
from .test_followup_api import arrive


def at_once(jobs: list[Callable[[], int]]) -> list[int]:
    """All of them as nearly at the same moment as can be; what each gave, in their order."""
    gave: dict[int, int] = {}
    ready = threading.Barrier(len(jobs))

    def run(number: int) -> None:
        ready.wait()
        gave[number] = jobs[number]()
        connection.close()

    threads = [threading.Thread(target=run, args=(number,)) for number in range(len(jobs))]
    for one in threads:
        one.start()
    for one in threads:
        one.join()
    return [gave[number] for number in range(len(jobs))]


@pytest.mark.django_db(transaction=True, available_apps=settings.INSTALLED_APPS)
def test_cards_are_joined_while_one_is_answered_and_noted(
    visitor: Visitor, otterwick: World, monkeypatch: pytest.MonkeyPatch
) -> None:
    for turn in range(3):
        pair = [f"Ours{turn}", f"Theirs{turn}"]
        arrive(visitor, otterwick, monkeypatch, dict.fromkeys(pair, "13:00"))
        ours, theirs = (Person.objects.get(name=name) for name in pair)
        row = FollowUp.objects.get(person=theirs)

        def call(path: str, body: dict[str, Any]) -> int:
            return otterwick.console().post(f"/api/{path}", body, "application/json").status_code

        jobs: list[Callable[[], int]] = [lambda: call(f"people/{ours.pk}/join", {"gone_id": theirs.pk})]  # noqa: B023
        for number in range(3):
            answered = {"text": f"Hello {number}", "key": f"key-{turn}-{number}"}
            noted = {"text": f"Note {turn} {number}"}
            jobs.append(lambda body=answered: call(f"follow-ups/{row.pk}/answer", body))  # type: ignore[misc]  # noqa: B023
            jobs.append(lambda body=noted: call(f"follow-ups/{row.pk}/note", body))  # type: ignore[misc]  # noqa: B023
        statuses = at_once(jobs)
        assert set(statuses) <= {200, 201, 404, 422}, statuses
        assert statuses[0] in {200, 201}
        kept = TimelineEvent.objects.filter(person=ours)
        notes = sum(status == 200 for status in statuses[2::2])
        assert kept.filter(data__text__startswith=f"Note {turn}").count() == notes
        answers = sum(status == 200 for status in statuses[1::2])
        assert OutgoingMail.objects.filter(key__contains=f"key-{turn}-").count() == answers
        assert not Person.objects.filter(pk=theirs.pk).exists()


@pytest.mark.django_db(transaction=True, available_apps=settings.INSTALLED_APPS)
def test_one_name_is_given_once_and_the_others_are_told(otterwick: World) -> None:
    document = {"timezone": "Europe/London", "week": [], "exceptions": []}
    address = {"address": "https://bridge.example", "bearer": "b"}

    def add(path: str, body: dict[str, Any]) -> int:
        console = otterwick.console()
        # As over the wire: what the first try came upon is not for whoever asked.
        console.raise_request_exception = False
        return console.post(f"/api/{path}", body, "application/json").status_code

    for path, body in (("hours", {"document": document}), ("gateways", address)):
        statuses = at_once([partial(add, path, {"name": "One name", **body})] * 6)
        assert sorted(statuses) == [201] + [422] * 5, path


@pytest.mark.django_db(transaction=True, available_apps=settings.INSTALLED_APPS)
def test_of_the_last_two_hours_one_stays(otterwick: World) -> None:
    console = otterwick.console()
    document = {"timezone": "Europe/London", "week": [], "exceptions": []}
    console.post("/api/hours", {"name": "Other", "document": document}, "application/json")
    otterwick.site.delete()
    sets = [one.pk for one in HoursSet.objects.all()]

    def drop(pk: int) -> int:
        return otterwick.console().delete(f"/api/hours/{pk}").status_code

    assert sorted(at_once([partial(drop, pk) for pk in sets])) == [204, 422]
    assert HoursSet.objects.filter(deleted_at=None).count() == 1


@pytest.mark.parametrize("error", [DeadlockDetected, UniqueViolation])
def test_what_a_visitor_sends_is_taken_in_where_it_collided(
    visitor: Visitor, otterwick: World, monkeypatch: pytest.MonkeyPatch, error: type[Exception]
) -> None:
    tries = []

    def collides(*about: Any, **more: Any) -> Any:
        tries.append(1)
        if len(tries) < TRIES:
            raise OperationalError from error()
        return receive(*about, **more)

    monkeypatch.setattr(visitor_views, "receive", collides)
    assert visitor.post("intake", sending(otterwick.touchpoint)).status_code == 201
    assert len(tries) == TRIES


@pytest.mark.parametrize(("times", "status", "asked"), [(0, 200, 1), (2, 200, 3), (9, 503, TRIES)])
def test_who_collides_is_asked_again_a_few_times(times: int, status: int, asked: int) -> None:
    bodies = []

    def answer(request: HttpRequest) -> HttpResponse:
        bodies.append(request.body)
        try:
            if len(bodies) <= times:
                raise OperationalError from DeadlockDetected()
        except OperationalError:
            return views.failed(request)
        return HttpResponse()

    request = RequestFactory().post("/api/x", b"{}", "application/json")
    assert Again(answer)(request).status_code == status
    assert bodies == [b"{}"] * asked


def test_what_was_read_as_it_came_is_not_asked_for_again() -> None:
    read = []

    def answer(request: HttpRequest) -> HttpResponse:
        read.append(request.read(10))
        try:
            raise OperationalError from DeadlockDetected()
        except OperationalError:
            return views.failed(request)

    answered = Again(answer)(RequestFactory().post("/in/mail/x", b"From: a", "message/rfc822"))
    assert (answered.status_code, answered["Retry-After"], read) == (503, "2", [b"From: a"])


def test_a_job_that_somebody_waits_for_is_tried_again() -> None:
    again_by_themselves = {task.task.name for task in app.periodic_registry.periodic_tasks.values()}
    ours = {
        name: task for name, task in app.tasks.items() if not name.startswith(("procrastinate", "builtin"))
    }
    assert {"erase_person", "take_import", "send_mail"} <= set(ours)
    for name, task in ours.items():
        # Mailboxes are asked for every minute.
        assert name in {*again_by_themselves, "read_mailbox"} or task.retry_strategy is not None, name


def test_who_writes_after_two_cards_were_joined_is_taken_in_whichever_is_older(
    visitor: Visitor, otterwick: World, monkeypatch: pytest.MonkeyPatch
) -> None:
    client = otterwick.console()
    for turn, kept in enumerate(("Older", "Newer")):
        pair = [f"Older{turn}", f"Newer{turn}"]
        arrive(visitor, otterwick, monkeypatch, dict.fromkeys(pair, "13:00"))
        ours, theirs = (
            Person.objects.get(name=name) for name in sorted(pair, key=lambda n: not n.startswith(kept))
        )
        open_one = FollowUp.objects.get(person=ours)
        joined = client.post(f"/api/people/{ours.pk}/join", {"gone_id": theirs.pk}, "application/json")
        assert joined.status_code == 200
        # What was theirs is closed into ours; both write again.
        arrive(visitor, otterwick, monkeypatch, dict.fromkeys(pair, "13:30"))
        left = FollowUp.objects.filter(person=ours).exclude(state="finished")
        assert [one.pk for one in left] == [open_one.pk]


@pytest.mark.django_db(transaction=True, available_apps=settings.INSTALLED_APPS)
def test_two_cards_are_joined_while_both_write(
    visitor: Visitor, otterwick: World, monkeypatch: pytest.MonkeyPatch
) -> None:
    arrive(visitor, otterwick, monkeypatch, {"Ours": "13:00", "Theirs": "13:01"})
    ours, theirs = (Person.objects.get(name=name) for name in ("Ours", "Theirs"))

    def joined() -> int:
        path = f"/api/people/{ours.pk}/join"
        return otterwick.console().post(path, {"gone_id": theirs.pk}, "application/json").status_code

    def wrote(number: int) -> int:
        answers = {"email": f"{('ours', 'theirs')[number % 2]}@post.example", "name": "One"}
        return visitor.post(
            "intake", sending(otterwick.touchpoint, 100 + number, answers=answers)
        ).status_code

    statuses = at_once([joined, *(partial(wrote, number) for number in range(8))])
    assert statuses == [200] + [201] * 8
    assert Submission.objects.filter(person=ours).count() == 10
    assert FollowUp.objects.exclude(state="finished").get().person == ours


def test_what_found_a_card_that_is_gone_begins_anew() -> None:
    def gone() -> int:
        tries.append(1)
        if len(tries) < 3:
            raise IntegrityError from ForeignKeyViolation()
        return 7

    tries: list[int] = []
    assert unless_overtaken(gone) == 7
    with pytest.raises(IntegrityError):
        unless_overtaken(twice_the_same)


def twice_the_same() -> int:
    raise IntegrityError from UniqueViolation()
