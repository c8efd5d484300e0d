"""Calls that are booked: a calendar entry for both, moved and cancelled by its link, and never given twice."""

import threading
from typing import Any

import pytest
from django.conf import settings
from django.db import connection
from django.test import Client
from icalendar import Calendar

from intavo import clock
from intavo.accounts.actor import member_actor
from intavo.accounts.models import Member
from intavo.followup.models import FollowUp
from intavo.intake.actions import calls
from intavo.intake.models import Booking
from intavo.mail.models import OutgoingMail
from intavo.people.models import TimelineEvent
from intavo.touchpoints.actions import make, put_live, save_draft, turn_on
from intavo.touchpoints.models import Touchpoint

from .conftest import Visitor, World, sending


@pytest.fixture
def calling(otterwick: World) -> Touchpoint:
    row = make(otterwick.owner, starter="call-back", name="Call me back")
    document = dict(row.draft.document)
    email = {"id": "pe", "kind": "field", "input": "email", "name": "email", "label": "Your email"}
    document["steps"][0]["parts"].append(email)
    save_draft(otterwick.owner, touchpoint_id=row.pk, document=document, based_on=1)
    return turn_on(otterwick.owner, touchpoint_id=row.pk)


def free(visitor: Visitor, row: Touchpoint) -> list[str]:
    asked = {"touchpoint": row.public_id, "revision": row.live.number}
    return [one["value"] for one in visitor.post("more", asked).json()["slots"]["time"]]


@pytest.mark.parametrize(
    ("zone", "day", "time", "week", "says"),
    [
        ("Europe/London", "Tue 24 Nov", "15:30", "09:00–17:30", "Open now, till 17:30"),
        (
            "Europe/Berlin",
            "Tue 24 Nov",
            "16:30 (15:30 London time)",
            "10:00–18:30 (09:00–17:30 London time)",
            "Open now, till 17:30 (London time)",
        ),
        (
            "Pacific/Auckland",
            "Wed 25 Nov",
            "04:30 (Tue 24 Nov, 15:30 London time)",
            "22:00–06:30 (09:00–17:30 London time)",
            "Open now, till 17:30 (London time)",
        ),
        ("../../etc/passwd", "Tue 24 Nov", "15:30", "09:00–17:30", "Open now, till 17:30"),
        ("Nowhere/Else", "Tue 24 Nov", "15:30", "09:00–17:30", "Open now, till 17:30"),
        (None, "Tue 24 Nov", "15:30", "09:00–17:30", "Open now, till 17:30"),
    ],
)
def test_times_are_said_by_the_visitors_own_clock_with_ours_beside_them(
    otterwick: World, visitor: Visitor, zone: str | None, day: str, time: str, week: str, says: str
) -> None:
    row = make(otterwick.owner, starter="call-back", name="Call me back")
    document = dict(row.draft.document)
    document["steps"][0]["parts"].append({"id": "ph", "kind": "hours", "now": True, "week": True})
    save_draft(otterwick.owner, touchpoint_id=row.pk, document=document, based_on=1)
    row = turn_on(otterwick.owner, touchpoint_id=row.pk)
    asked = {"touchpoint": row.public_id, "revision": row.live.number, "zone": zone}
    given = visitor.post("more", asked).json()
    first = given["slots"]["time"][0]
    assert (first["day"], first["time"]) == (day, time)
    open_days = [one["spans"][0] for one in given["hours"]["days"] if ":" in one["spans"][0]]
    assert (open_days[0], given["hours"]["says"]) == (week, says)


def booked(visitor: Visitor, row: Touchpoint, time: str, number: int = 1) -> Any:
    answers = {"phone": f"07700 9001{number:02}", "email": f"ife{number}@post.example", "time": time}
    return visitor.post("intake", sending(row, number, answers=answers, consents={}))


def entry(mail: OutgoingMail) -> Any:
    calendar = Calendar.from_ical(mail.attachment)
    return str(calendar["METHOD"]), calendar.walk("VEVENT")[0]


def test_both_get_the_entry_and_the_visitor_can_move_it_keeping_one_followup(
    visitor: Visitor, calling: Touchpoint
) -> None:
    first, later = free(visitor, calling)[0], free(visitor, calling)[3]
    sent = booked(visitor, calling, first)
    assert (sent.status_code, sent.json()["says"]["text"]) == (201, "We call you today at 15:30.")
    us, them = OutgoingMail.objects.order_by("pk")
    assert (us.to, them.to) == ("morwenna@otterwick.example", "ife1@post.example")
    method, event = entry(them)
    assert (method, event["SEQUENCE"], event["STATUS"]) == ("REQUEST", 0, "CONFIRMED")
    link = f"/b/{Booking.objects.get().token}"
    assert link in them.text
    page = Client().get(link)
    assert "Tue 24 Nov, 15:30" in page.content.decode()
    assert Booking.objects.get().sequence == 0
    moved = Client().post(link, {"do": "move", "time": later})
    assert "It is moved." in moved.content.decode()
    followup = FollowUp.objects.get()
    assert (followup.due.isoformat(), followup.state) == (later, "for-us")
    again = entry(OutgoingMail.objects.get(to="ife1@post.example", subject__contains="moved"))[1]
    assert (again["UID"], again["SEQUENCE"]) == (event["UID"], 1)
    assert first in free(visitor, calling)
    assert later not in free(visitor, calling)


def test_cancelling_frees_the_time_and_finishes_the_followup(visitor: Visitor, calling: Touchpoint) -> None:
    time = free(visitor, calling)[0]
    booked(visitor, calling, time)
    link = f"/b/{Booking.objects.get().token}"
    assert "Nobody calls" in Client().post(link, {"do": "cancel"}).content.decode()
    followup = FollowUp.objects.get()
    assert (followup.state, followup.outcome) == ("finished", "cancelled")
    method, event = entry(OutgoingMail.objects.get(to="ife1@post.example", subject__contains="cancelled"))
    assert (method, event["STATUS"], event["SEQUENCE"]) == ("CANCEL", "CANCELLED", 1)
    assert time in free(visitor, calling)
    assert Client().post(link, {"do": "move", "time": time}).status_code == 422
    assert OutgoingMail.objects.filter(subject__contains="moved").count() == 0


def test_one_that_is_cancelled_while_it_is_moved_stays_so(
    visitor: Visitor, calling: Touchpoint, monkeypatch: pytest.MonkeyPatch
) -> None:
    booked(visitor, calling, free(visitor, calling)[0])
    row = Booking.objects.get()

    def cancelled_meanwhile(touchpoint_id: int) -> None:
        Booking.objects.update(cancelled_at=clock.now())

    monkeypatch.setattr(calls, "lock_slots", cancelled_meanwhile)
    moved = Client().post(f"/b/{row.token}", {"do": "move", "time": free(visitor, calling)[3]})
    assert moved.status_code == 422
    row.refresh_from_db()
    assert row.sequence == 0
    assert not OutgoingMail.objects.filter(subject__contains="moved").exists()


def test_one_that_is_moved_is_on_the_list_also_where_it_was_finished(
    visitor: Visitor, calling: Touchpoint, otterwick: World
) -> None:
    later = free(visitor, calling)[3]
    booked(visitor, calling, free(visitor, calling)[0])
    followup = FollowUp.objects.get()
    body = {"outcome": "answered"}
    finished = otterwick.console().post(f"/api/follow-ups/{followup.pk}/finish", body, "application/json")
    assert finished.status_code == 200, finished.content
    Client().post(f"/b/{Booking.objects.get().token}", {"do": "move", "time": later})
    followup.refresh_from_db()
    assert (followup.state, followup.due.isoformat(), followup.outcome) == ("for-us", later, None)


@pytest.mark.parametrize(
    "time", ["", "yesterday", "2020-01-01T10:00:00+00:00", "2026-11-24T16:00:00", "2026-11-24T15:31:00+00:00"]
)
def test_what_is_no_free_time_ahead_is_refused_and_nothing_moves(
    visitor: Visitor, calling: Touchpoint, time: str
) -> None:
    booked(visitor, calling, free(visitor, calling)[0])
    row = Booking.objects.get()
    answer = Client().post(f"/b/{row.token}", {"do": "move", "time": time})
    assert answer.status_code == 422
    row.refresh_from_db()
    assert row.sequence == 0


def test_one_that_is_over_or_unknown_cannot_be_changed(
    visitor: Visitor, calling: Touchpoint, monkeypatch: pytest.MonkeyPatch
) -> None:
    booked(visitor, calling, free(visitor, calling)[0])
    monkeypatch.setenv("INTAVO_NOW", "2026-11-24T15:40:00+00:00")
    link = f"/b/{Booking.objects.get().token}"
    assert "has begun, or is over" in Client().get(link).content.decode()
    assert Client().post(link, {"do": "cancel"}).status_code == 422
    assert Client().get("/b/guessed").status_code == 404


@pytest.mark.django_db(transaction=True, available_apps=settings.INSTALLED_APPS)
def test_of_fifty_at_once_one_gets_the_time(visitor: Visitor, calling: Touchpoint) -> None:
    time, statuses = free(visitor, calling)[0], []

    def take(number: int) -> None:
        statuses.append(booked(visitor, calling, time, number).status_code)
        connection.close()

    threads = [threading.Thread(target=take, args=(number,)) for number in range(50)]
    for one in threads:
        one.start()
    for one in threads:
        one.join()
    assert sorted(statuses) == [201] + [422] * 49
    assert Booking.objects.count() == FollowUp.objects.filter(kind="call-back").count() == 1


def test_whoever_left_a_number_alone_has_the_way_to_move_it_on_the_last_step(
    visitor: Visitor, calling: Touchpoint
) -> None:
    answers = {"phone": "07700 900123", "time": free(visitor, calling)[0]}
    sent = visitor.post("intake", sending(calling, 1, answers=answers, consents={})).json()
    assert sent["file"]["label"] == "Move or cancel the call"
    assert sent["file"]["url"].endswith(f"/b/{Booking.objects.get().token}")
    assert not OutgoingMail.objects.filter(to__startswith="ife").exists()


def test_we_move_and_cancel_a_call_and_they_are_told(
    visitor: Visitor, calling: Touchpoint, otterwick: World, other: World
) -> None:
    booked(visitor, calling, free(visitor, calling)[0])
    number, client = FollowUp.objects.get().pk, otterwick.console()
    path = f"/api/follow-ups/{number}/call"
    stands = client.get(path).json()
    assert stands["when"] == "2026-11-24T15:30:00Z"
    other_time = stands["times"][2]
    moved = client.put(path, {"time": other_time["value"]}, "application/json")
    assert moved.json()["when"] == other_time["value"]
    assert OutgoingMail.objects.filter(to="ife1@post.example", subject__contains="moved").count() == 1
    assert client.put(path, {"time": "2020-01-01T10:00:00Z"}, "application/json").status_code == 422
    assert other.console().get(path).status_code == 404
    assert client.delete(path).status_code == 204
    assert client.get(path).json() == {"when": None, "times": []}
    assert client.delete(path).status_code == 404
    event = TimelineEvent.objects.get(kind="cancelled the call")
    assert event.member_id == otterwick.owner.member_id
    assert FollowUp.objects.get().outcome == "cancelled"


def test_our_mail_about_a_call_says_what_it_is_about(visitor: Visitor, calling: Touchpoint) -> None:
    document = dict(calling.draft.document)
    about = {"id": "pa", "kind": "field", "input": "long", "name": "about", "label": "What is it about?"}
    document["steps"][0]["parts"].append(about)
    save_draft(member_actor(Member.objects.get()), touchpoint_id=calling.pk, document=document, based_on=2)
    row = put_live(member_actor(Member.objects.get()), touchpoint_id=calling.pk)
    time = free(visitor, row)[0]
    answers = {
        "phone": "07700 900123",
        "email": "ife@post.example",
        "about": "A dent in the hull",
        "time": time,
    }
    assert visitor.post("intake", sending(row, 1, answers=answers, consents={})).status_code == 201
    us, them = OutgoingMail.objects.order_by("pk")
    assert "A dent in the hull" in us.text
    # Anybody can type anybody's address: what was typed goes to nobody's.
    assert "dent" not in them.text + them.attachment
