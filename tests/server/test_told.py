"""What members are told: by mail before something is due, when it is late and each morning, and on the day line."""

from datetime import datetime
from typing import Any

import pytest
from django.core import mail as outbox
from django.test import Client

from intavo import clock
from intavo.accounts.models import AccountMail
from intavo.followup.models import FollowUp
from intavo.followup.reminding import remind_all
from intavo.hours.models import HoursSet
from intavo.mail.actions import send_account_mail
from intavo.people.models import Person

from .conftest import Visitor, World
from .test_followup_api import arrive, post

JSON: dict[str, Any] = {"content_type": "application/json"}


def told(world: World, at: str, monkeypatch: pytest.MonkeyPatch) -> list[tuple[str, str]]:
    """To whom and about what mail goes at an instant."""
    known = set(AccountMail.objects.values_list("pk", flat=True))
    now = datetime.fromisoformat(f"2026-11-{at}+00:00")
    monkeypatch.setattr(clock, "now", lambda: now)
    remind_all(now)
    remind_all(now)
    return list(AccountMail.objects.exclude(pk__in=known).order_by("pk").values_list("to", "subject"))


def wish(client: Client, **said: Any) -> Any:
    return client.put("/api/me/told", {"when_late": False, **said}, **JSON)


def test_a_business_whose_hours_cannot_be_read_keeps_no_other_from_being_told(
    visitor: Visitor,
    otterwick: World,
    other: World,
    monkeypatch: pytest.MonkeyPatch,
    caplog: pytest.LogCaptureFixture,
) -> None:
    arrive(visitor, otterwick, monkeypatch, {"Soon": "2026-11-24T14:00"})
    assert wish(otterwick.console(), before_minutes=30).status_code == 200
    row = FollowUp.objects.get()
    for first in (other.business, otterwick.business):
        person = Person.objects.create(business=first, name="x", created_at=row.opened_at)
        FollowUp.objects.create(
            business=first, person=person, kind="message", state="for-us", opened_at=row.opened_at
        )
    HoursSet.objects.filter(business=other.business).update(document={"odd": 1})
    assert told(otterwick, "24T15:30", monkeypatch) == [(otterwick.user.email, "1 due soon: Soon")]
    assert f"reminders of a business failed for {other.business.pk}; the others go on" in caplog.text


def test_each_is_told_once_of_what_is_theirs_or_everybodys(
    visitor: Visitor, otterwick: World, monkeypatch: pytest.MonkeyPatch
) -> None:
    # Two hours are promised: Soon is due at 16:00, Eve at 10:00 tomorrow.
    arrive(visitor, otterwick, monkeypatch, {"Soon": "2026-11-24T14:00", "Eve": "2026-11-24T16:30"})
    ours, theirs = otterwick.console(), otterwick.staff()
    assert wish(ours, before_minutes=30, when_late=True).status_code == 200
    assert wish(theirs).status_code == 200
    mine = otterwick.user.email
    assert told(otterwick, "24T15:29", monkeypatch) == []
    assert told(otterwick, "24T15:30", monkeypatch) == [(mine, "1 due soon: Soon")]
    assert told(otterwick, "24T15:40", monkeypatch) == []
    assert told(otterwick, "24T16:01", monkeypatch) == [(mine, "1 late: Soon")]
    assert told(otterwick, "24T19:00", monkeypatch) == []
    [member] = [one["id"] for one in theirs.get("/api/members").json() if one["email"] != mine]
    post(ours, "Eve", "give", member_id=member)
    assert told(otterwick, "25T10:01", monkeypatch) == [], "it is a colleague’s, who does not want to be told"
    wish(theirs, when_late=True)
    [(to, subject), *_] = told(otterwick, "25T10:02", monkeypatch)
    assert to != mine
    assert subject == "2 late: Soon, Eve"
    text = AccountMail.objects.latest("pk").text
    assert "Soon: was due on Tue 24 Nov at 16:00, 2 h 32 of open time late" in text
    assert "/follow-up/" in text
    send_account_mail(mail_id=AccountMail.objects.latest("pk").pk)
    heads = outbox.outbox[-1].extra_headers
    assert heads["List-Unsubscribe-Post"] == "List-Unsubscribe=One-Click"
    ends = heads["List-Unsubscribe"].removeprefix("<http://127.0.0.1:8400").removesuffix(">")
    assert "<button" in Client().get(ends).content.decode()
    assert Client().post(ends, {"List-Unsubscribe": "One-Click"}).status_code == 200
    assert theirs.get("/api/me/told").json()["when_late"] is False
    assert Client().post("/told/nonsense").status_code == 404


def test_the_mornings_list_comes_once_at_opening(
    visitor: Visitor, otterwick: World, monkeypatch: pytest.MonkeyPatch
) -> None:
    arrive(visitor, otterwick, monkeypatch, {"Eve": "2026-11-24T16:30"})
    wish(otterwick.console(), morning=True)
    assert told(otterwick, "25T08:59", monkeypatch) == []
    assert told(otterwick, "25T09:00", monkeypatch) == [
        (otterwick.user.email, "Today: 1 to answer before closing")
    ]
    assert told(otterwick, "25T11:00", monkeypatch) == []
    post(otterwick.console(), "Eve", "finish", outcome="answered")
    assert told(otterwick, "26T09:00", monkeypatch) == [], "there is nothing to tell"


@pytest.mark.parametrize(
    ("said", "field"),
    [({"before_minutes": 0}, "before_minutes"), ({"before_minutes": 9999}, "before_minutes"),
     ({"untouched_days": 61}, "untouched_days"), ({"morning": "soon"}, "morning")],
)  # fmt: skip
def test_what_cannot_be_wished_is_refused_by_name(otterwick: World, said: dict[str, Any], field: str) -> None:
    answer = wish(otterwick.console(), **said)
    assert (answer.status_code, answer.json()["errors"][0]["field"]) == (422, field)


def test_what_nobody_touched_is_told_on_the_day_line_and_found(
    visitor: Visitor, otterwick: World, monkeypatch: pytest.MonkeyPatch
) -> None:
    arrive(visitor, otterwick, monkeypatch, {"Old": "2026-11-18T10:00", "Noted": "2026-11-18T11:00"})
    client = otterwick.console()
    monkeypatch.setattr(clock, "now", lambda: datetime.fromisoformat("2026-11-24T14:05+00:00"))
    assert client.get("/api/day").json()["untouched"] == 2
    post(client, "Noted", "note", text="Rang, nobody there")
    day = client.get("/api/day").json()
    assert (day["untouched"], day["untouched_days"]) == (1, 3)
    shown = client.get("/api/follow-ups?untouched=3").json()
    assert [one["called"] for lane in shown["lanes"] for one in lane["items"]] == ["Old"]
    assert "touched by nobody for 3 open days" in shown["sentence"]
    wish(client, untouched_days=None)
    assert client.get("/api/day").json()["untouched"] == 0


def test_without_a_word_of_theirs_it_is_ours_again(
    visitor: Visitor, otterwick: World, monkeypatch: pytest.MonkeyPatch
) -> None:
    arrive(visitor, otterwick, monkeypatch, {"Soon": "2026-11-24T14:00"})
    client = otterwick.console()
    said = post(client, "Soon", "answer", text="Yes.", key="k", then="wait", back_in=3)
    assert (said.json()["state"], said.json()["back_at"]) == ("for-them", "2026-11-27T09:00:00Z")
    assert [one["called"] for one in client.get("/api/follow-ups").json()["waiting"]] == ["Soon"]
    monkeypatch.setattr(clock, "now", lambda: datetime.fromisoformat("2026-11-27T09:00:01+00:00"))
    shown = client.get("/api/follow-ups").json()
    assert shown["waiting"] == []
    assert [(one["called"], one["due"]) for lane in shown["lanes"] for one in lane["items"]] == [
        ("Soon", "2026-11-27T09:00:00Z")
    ]
    assert post(client, "Soon", "answer", text="Yes.", key="k2", then="wait", back_in=0).status_code == 422


def test_what_came_in_is_told_once(
    visitor: Visitor, otterwick: World, monkeypatch: pytest.MonkeyPatch
) -> None:
    client = otterwick.console()
    last = client.get("/api/arrivals").json()
    assert last["came"] == []
    arrive(visitor, otterwick, monkeypatch, {"Soon": "2026-11-24T14:00"})
    found = client.get(f"/api/arrivals?after={last['last']}").json()
    assert [one["called"] for one in found["came"]] == ["Soon"]
    assert found["open_now"] is True
    post(client, "Soon", "note", text="ours")
    assert client.get(f"/api/arrivals?after={found['last']}").json()["came"] == []
    assert client.get("/api/arrivals?after=x").status_code == 422
