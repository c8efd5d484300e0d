"""After they send it: confirming, codes, files, tags, who is told, CSV, calls, and what looks like spam."""

import base64
import json
import re
import threading
from datetime import datetime, timedelta
from itertools import count
from typing import Any

import pytest
from altcha.v1 import solve_challenge
from django.conf import settings
from django.core import mail as outbox
from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import connection
from django.test import Client

from intavo import clock
from intavo.accounts.actor import visitor_of
from intavo.followup.models import FollowUp
from intavo.hours.actions import add_hours
from intavo.intake.actions import daily_csv, erase_unconfirmed, tell_of_drains
from intavo.intake.models import Pending, Quarantined, Submission
from intavo.mail.actions import send
from intavo.mail.models import OutgoingMail
from intavo.people.models import Consent, Person, PersonTag
from intavo.touchpoints.actions import add_codes, give_code, make, put_live, save_draft, turn_on
from intavo.touchpoints.models import CodeToGive, Touchpoint

from .conftest import NOW, Visitor, World, sending, world


def live(owner: World, starter: str, **more: Any) -> Touchpoint:
    """A starter, turned on; `after` and `guard` are laid over its own."""
    row = make(owner.owner, starter=starter, name=f"A {starter}")
    document = json.loads(json.dumps(row.draft.document))
    for name, value in more.items():
        document[name] = document[name] | value
    row = save_draft(owner.owner, touchpoint_id=row.pk, document=document, based_on=1)
    return turn_on(owner.owner, touchpoint_id=row.pk)


CONFIRM = {
    "confirm": {"on": True, "subject": "Please confirm"},
    "tags": ["tides"],
    "code": {"kind": "shared", "shared": "TIDE"},
}


@pytest.fixture
def confirming(db: None) -> World:
    return world("Otterwick", "morwenna@quay.example", "otterwick.example", **CONFIRM)


def token() -> str:
    """The secret of the last confirming mail."""
    mail = OutgoingMail.objects.filter(key__startswith="confirm-").latest("pk")
    return re.search(r"/c/([\w-]+)", mail.text)[1]


def test_nothing_is_given_before_the_button_behind_the_link_is_pressed(confirming: World) -> None:
    visitor = Visitor(confirming.site.key)
    answer = visitor.post("intake", sending(confirming.touchpoint))
    assert (answer.status_code, answer.json()["code"]) == (201, None)
    assert not (Person.objects.exists())
    assert not (FollowUp.objects.exists())
    assert not (Consent.objects.exists())
    assert [mail.subject for mail in OutgoingMail.objects.all()] == ["Please confirm"]
    page = Client().get(f"/c/{token()}")
    assert "<button" in page.content.decode()
    assert not Person.objects.exists()
    done = Client().post(f"/c/{token()}")
    assert "TIDE" in done.content.decode()
    consent = Consent.objects.get()
    assert (
        consent.wording,
        consent.given_at.isoformat(),
        consent.confirmed_at.isoformat(),
        consent.revision,
    ) == (
        "Send me the monthly news by email.",
        NOW,
        NOW,
        confirming.touchpoint.live.number,
    )
    assert PersonTag.objects.get().tag == "tides"
    assert "TIDE" in OutgoingMail.objects.get(key__startswith="thanks-").text


def test_pressing_twice_gives_once(confirming: World) -> None:
    Visitor(confirming.site.key).post("intake", sending(confirming.touchpoint))
    pages = [Client().post(f"/c/{token()}") for _ in range(2)]
    assert all("TIDE" in page.content.decode() for page in pages)
    first, second = (page.status_code for page in pages)
    assert (first, second, Person.objects.count(), Consent.objects.count()) == (200, 200, 1, 1)
    assert OutgoingMail.objects.filter(key__startswith="thanks-").count() == 1


def test_an_address_on_the_list_gets_the_same_answer(confirming: World) -> None:
    visitor = Visitor(confirming.site.key)
    first = visitor.post("intake", sending(confirming.touchpoint, 1))
    Client().post(f"/c/{token()}")
    again = visitor.post("intake", sending(confirming.touchpoint, 2))
    assert (again.status_code, again.content) == (201, first.content)


def test_an_address_that_never_confirms_is_erased_after_fourteen_days(
    confirming: World, monkeypatch: pytest.MonkeyPatch
) -> None:
    Visitor(confirming.site.key).post("intake", sending(confirming.touchpoint))
    link = token()
    monkeypatch.setenv("INTAVO_NOW", (datetime.fromisoformat(NOW) + timedelta(days=13, hours=23)).isoformat())
    assert erase_unconfirmed() == 0
    assert Client().get(f"/c/{link}").status_code == 200
    monkeypatch.setenv("INTAVO_NOW", (datetime.fromisoformat(NOW) + timedelta(days=14)).isoformat())
    assert Client().post(f"/c/{link}").status_code == 404
    assert erase_unconfirmed() == 1
    assert not Submission.objects.exists()
    assert not Pending.objects.exists()
    assert not OutgoingMail.objects.exists()


def asked(world: World, number: int, row: Touchpoint | None = None) -> int:
    """How many mails have asked to confirm, after one more was sent."""
    Visitor(world.site.key).post("intake", sending(row or world.touchpoint, number))
    return OutgoingMail.objects.filter(key__startswith="confirm-").count()


def test_an_address_is_asked_once_a_day_and_one_button_confirms_all_that_it_sent_there(
    confirming: World, monkeypatch: pytest.MonkeyPatch
) -> None:
    assert [asked(confirming, number) for number in (1, 2, 3)] == [1, 1, 1]
    Client().post(f"/c/{token()}")
    assert not Pending.objects.filter(confirmed_at=None).exists()
    assert (Person.objects.count(), Submission.objects.exclude(person=None).count()) == (1, 3)


def test_an_address_that_confirms_nothing_is_asked_five_times_in_all(
    confirming: World, monkeypatch: pytest.MonkeyPatch
) -> None:
    counts = []
    for day in range(8):
        monkeypatch.setenv(
            "INTAVO_NOW", (datetime.fromisoformat(NOW) + timedelta(days=day, hours=1)).isoformat()
        )
        counts.append(asked(confirming, day + 1))
    assert counts == [1, 2, 3, 4, 5, 5, 5, 5]
    Client().post(f"/c/{token()}")
    monkeypatch.setenv("INTAVO_NOW", (datetime.fromisoformat(NOW) + timedelta(days=9)).isoformat())
    assert Person.objects.count() == 1


def test_codes_are_pasted_once_counted_and_warned_of(otterwick: World) -> None:
    row = live(otterwick, "parting")
    client = otterwick.console()
    found = client.post(
        f"/api/touchpoints/{row.pk}/codes",
        {"codes": "code,note\nA1,x\nA2\n\nA1"},
        content_type="application/json",
    )
    assert (found.json()["added"], found.json()["draft"]["codes_all"]) == (2, 0)
    draft = client.get(f"/api/touchpoints/{row.pk}").json()
    draft["document"]["after"]["code"]["kind"] = "each"
    body = {"document": draft["document"], "based_on": draft["number"]}
    draft = client.put(f"/api/touchpoints/{row.pk}/draft", body, content_type="application/json").json()
    assert (draft["codes_left"], draft["codes_all"]) == (2, 2)
    add_codes(otterwick.owner, touchpoint_id=row.pk, text="\n".join(f"B{n}" for n in range(18)))
    for n in range(18):
        give_code(_visitor(otterwick), touchpoint_id=row.pk, to=f"visitor:{n}")
    said = [one["message"] for one in client.get(f"/api/touchpoints/{row.pk}").json()["findings"]]
    assert "Codes are running out: 2 of 20 are left." in said
    long = client.post(
        f"/api/touchpoints/{row.pk}/codes", {"codes": "ok\n" + "x" * 81}, content_type="application/json"
    )
    assert long.json()["errors"] == [
        {"field": "codes", "message": "Line 2: a code has at most 80 characters."}
    ]


def _visitor(one: World) -> Any:
    return visitor_of(one.owner.business_id)


@pytest.mark.django_db(transaction=True, available_apps=settings.INSTALLED_APPS)
def test_no_code_is_given_twice_under_load() -> None:
    one = world("Otterwick", "m@otterwick.example", "otterwick.example")
    row = one.touchpoint
    add_codes(one.owner, touchpoint_id=row.pk, text="\n".join(f"C{n}" for n in range(30)))
    given: list[str | None] = []

    def take(who: int) -> None:
        for turn in range(5):
            given.append(give_code(_visitor(one), touchpoint_id=row.pk, to=f"visitor:{who}-{turn}"))
        connection.close()

    threads = [threading.Thread(target=take, args=(who,)) for who in range(8)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    codes = [code for code in given if code]
    assert (len(given), len(codes), len(set(codes))) == (40, 30, 30)


def test_a_code_without_a_form_is_the_visitors_own_and_stays_the_same(otterwick: World) -> None:
    row = live(otterwick, "parting")
    add_codes(otterwick.owner, touchpoint_id=row.pk, text="P1\nP2\nP3")
    document = json.loads(json.dumps(row.draft.document))
    document["after"]["code"] = {"kind": "each"}
    save_draft(otterwick.owner, touchpoint_id=row.pk, document=document, based_on=row.draft.number)
    row = Touchpoint.objects.get(pk=row.pk)
    row = put_live(otterwick.owner, touchpoint_id=row.pk)
    visitor = Visitor(otterwick.site.key)
    ask = {"touchpoint": row.public_id, "revision": row.live.number, "code": True}
    codes = [visitor.post("more", ask | {"visitor": who}).json()["code"] for who in ("a", "b", "a")]
    assert codes == ["P1", "P2", "P1"]
    assert visitor.post("more", ask | {"code": False, "visitor": "c"}).json().get("code") is None
    assert CodeToGive.objects.filter(given_at=None).count() == 1


def test_who_gave_no_address_drains_no_list_of_codes(otterwick: World) -> None:
    row = live(otterwick, "parting")
    add_codes(otterwick.owner, touchpoint_id=row.pk, text="\n".join(f"P{n}" for n in range(20)))
    document = json.loads(json.dumps(row.draft.document))
    document["after"]["code"] = {"kind": "each"}
    save_draft(otterwick.owner, touchpoint_id=row.pk, document=document, based_on=row.draft.number)
    row = put_live(otterwick.owner, touchpoint_id=row.pk)
    visitor = Visitor(otterwick.site.key)
    ask = {"touchpoint": row.public_id, "revision": row.live.number, "code": True}
    codes = [visitor.post("more", ask | {"visitor": f"v{n}"}).json()["code"] for n in range(9)]
    assert codes == ["P0", "P1", "P2", "P3", "P4", *[None] * 4]
    assert visitor.post("more", ask | {"visitor": "v2"}).json()["code"] == "P2"
    assert visitor.post("more", ask | {"visitor": "w"}, REMOTE_ADDR="203.0.113.4").json()["code"] == "P5"


def test_a_file_comes_by_a_signed_link_that_lasts(
    otterwick: World, monkeypatch: pytest.MonkeyPatch, tmp_path: Any
) -> None:
    monkeypatch.setattr(settings, "MEDIA_ROOT", str(tmp_path))
    upload = {"file": SimpleUploadedFile("page.pdf", b"%PDF-1.4 the page"), "kind": "file"}
    asset = otterwick.console().post("/api/library", upload).json()["public_id"]
    row = live(otterwick, "news", after={"file": {"asset": asset, "label": "The page"}})
    answer = Visitor(otterwick.site.key).post("intake", sending(row)).json()
    assert answer["file"]["label"] == "The page"
    path = answer["file"]["url"].removeprefix(settings.BASE_URL)
    given = Client().get(path)
    assert (given.content, given["Content-Disposition"]) == (
        b"%PDF-1.4 the page",
        'attachment; filename="page.pdf"',
    )
    assert Client().get(path[:-3] + "xyz").status_code == 404
    # The link says which file it is, and without its signature it leads nowhere.
    assert Client().get(f"/m/{asset}/file").status_code == 404
    assert answer["file"]["url"] in OutgoingMail.objects.get(key__startswith="thanks-").text


def test_the_answer_mail_has_its_own_words_slots_and_reply_address(otterwick: World) -> None:
    thanks = {"send": True, "subject": "Hello", "reply_to": "crew@otterwick.example",
              "text": ["We answer ", {"slot": "promise"}, ", ", {"slot": "first_name"}, "."]}  # fmt: skip
    row = live(otterwick, "question", after={"thank_you": thanks})
    body = sending(row) | {
        "answers": {"email": "ife@post.example", "name": "Ife", "question": "When?"},
        "consents": {},
    }
    assert Visitor(otterwick.site.key).post("intake", body).status_code == 201
    mail = OutgoingMail.objects.get(key__startswith="thanks-")
    assert "We answer today by 16:05, Ife." in mail.text
    assert mail.text.count("16:05") == 1
    assert mail.reply_to == "crew@otterwick.example"


def test_members_who_are_to_be_told_are(otterwick: World, other: World) -> None:
    me = otterwick.owner.member_id
    row = live(otterwick, "news", after={"tell": [me]})
    Visitor(otterwick.site.key).post("intake", sending(row))
    told = OutgoingMail.objects.get(key__startswith="tell-")
    assert told.to == "morwenna@otterwick.example"
    assert "ife.dunmore@post.example" in told.text
    draft = otterwick.console().get(f"/api/touchpoints/{row.pk}").json()
    draft["document"]["after"]["tell"] = [other.owner.member_id]
    body = {"document": draft["document"], "based_on": draft["number"]}
    refused = otterwick.console().put(
        f"/api/touchpoints/{row.pk}/draft", body, content_type="application/json"
    )
    assert refused.json()["errors"][0]["field"] == "after.tell"


def test_a_members_mail_about_touchpoints_ends_by_one_post_of_its_link_and_begins_by_their_wish(
    otterwick: World,
) -> None:
    row = live(otterwick, "news", after={"tell": [otterwick.owner.member_id], "daily_csv": True})
    client, visitor, numbers = otterwick.console(), Visitor(otterwick.site.key), count(1)

    def told() -> int:
        visitor.post("intake", sending(row, next(numbers)))
        OutgoingMail.objects.filter(key__startswith="daily-").delete()
        daily_csv()
        return OutgoingMail.objects.exclude(key__startswith="thanks-").count()

    assert told() == 2
    for mail in OutgoingMail.objects.exclude(key__startswith="thanks-"):
        send(mail_id=mail.pk)
        heads = outbox.outbox[-1].extra_headers
        assert heads["List-Unsubscribe-Post"] == "List-Unsubscribe=One-Click"
        assert f"{settings.BASE_URL}/you#told" in outbox.outbox[-1].body
    ends = heads["List-Unsubscribe"].strip("<>").removeprefix(settings.BASE_URL)
    assert "<button" in Client().get(ends).content.decode()
    assert told() == 3, "looking ends nothing"
    assert Client().post(ends, {"List-Unsubscribe": "One-Click"}).status_code == 200
    assert client.get("/api/me/told").json()["touchpoints"] is False
    assert [
        one["touchpoint_mail"]
        for one in client.get("/api/members").json()
        if one["id"] == otterwick.owner.member_id
    ] == [False]
    assert told() == 2, "the mail of the day is gone, and nothing has come"
    wishes = client.get("/api/me/told").json()
    assert (
        client.put(
            "/api/me/told", wishes | {"touchpoints": True}, content_type="application/json"
        ).status_code
        == 200
    )
    assert told() == 4
    assert Client().post("/told-of/nonsense").status_code == 404


def test_the_csv_address_is_secret_revocable_and_harmless(otterwick: World) -> None:
    client = otterwick.console()
    body = sending(otterwick.touchpoint) | {"answers": {"email": "ife@post.example", "name": "=1+1"}}
    Visitor(otterwick.site.key).post("intake", body)
    path = f"/api/touchpoints/{otterwick.touchpoint.pk}/csv"
    address = client.post(path).json()["csv"].removeprefix(settings.BASE_URL)
    text = Client().get(address).getvalue().decode()
    assert text.splitlines()[0] == "time,page,Your email,First name,agreed,code"
    assert ",ife@post.example,'=1+1,news," in text
    again = client.post(path).json()["csv"].removeprefix(settings.BASE_URL)
    assert (Client().get(address).status_code, Client().get(again).status_code) == (404, 200)
    client.delete(path)
    assert Client().get(again).status_code == 404


def test_the_days_answers_go_out_once_a_day(otterwick: World) -> None:
    row = live(otterwick, "news", after={"daily_csv": True})
    assert daily_csv() == 0
    Visitor(otterwick.site.key).post("intake", sending(row))
    assert [daily_csv(), daily_csv()] == [1, 1]
    mail = OutgoingMail.objects.get(key__startswith="daily-")
    assert mail.attachment_name == f"{row.slug}-2026-11-24.csv"
    assert "ife.dunmore@post.example" in mail.attachment


def test_codes_that_go_oddly_fast_are_told_by_mail_once_a_day_and_by_the_ready_check(
    otterwick: World,
) -> None:
    row = live(otterwick, "code")
    client = otterwick.console()
    path = f"/api/touchpoints/{row.pk}"
    codes = "\n".join(f"TIDE-{number}" for number in range(60))
    client.post(f"{path}/codes", json.dumps({"codes": codes}), "application/json")
    ids = list(row.codes.values_list("pk", flat=True))
    row.codes.filter(pk__in=ids[:19]).update(given_at=clock.now())
    assert tell_of_drains() == 0
    row.codes.filter(pk__in=ids[19:22]).update(given_at=clock.now() - timedelta(minutes=20))
    assert [tell_of_drains(), tell_of_drains()] == [1, 1]
    told = OutgoingMail.objects.get(key__startswith="drain-")
    assert told.to == "morwenna@otterwick.example"
    assert "22 codes went within the last hour; none went in the weeks before." in told.text
    draft = client.get(path).json()
    draft["document"]["after"]["code"]["kind"] = "each"
    body = {"document": draft["document"], "based_on": draft["number"]}
    draft = client.put(f"{path}/draft", body, content_type="application/json").json()
    assert [one["message"] for one in draft["findings"] if one["place"] == "code"] == [
        "22 codes went within the last hour; none went in the weeks before. Look who took them."
    ]


def test_a_call_is_due_at_its_time_late_after_its_end_and_taken_only_once(otterwick: World) -> None:
    row = live(otterwick, "call-back")
    visitor = Visitor(otterwick.site.key)
    slots = visitor.post("more", {"touchpoint": row.public_id, "revision": row.live.number}).json()["slots"][
        "time"
    ]
    assert (slots[0]["day"], slots[0]["time"]) == ("Tue 24 Nov", "15:30")
    body = sending(row) | {"answers": {"phone": "07700 900123", "time": slots[0]["value"]}, "consents": {}}
    assert visitor.post("intake", body).status_code == 201
    work = FollowUp.objects.get()
    assert (work.kind, work.due.isoformat(), work.late_from - work.due) == (
        "call-back",
        "2026-11-24T15:30:00+00:00",
        timedelta(minutes=30),
    )
    second = visitor.post(
        "intake", body | {"id": "f" * 32, "answers": {"phone": "07700 900124", "time": slots[0]["value"]}}
    )
    assert second.json()["errors"] == [
        {"field": "answers.time", "message": "This time has just been taken. Please choose another."}
    ]
    third = visitor.post(
        "intake", body | {"id": "e" * 32, "answers": {"phone": "07700 900123", "time": slots[1]["value"]}}
    )
    assert (third.status_code, FollowUp.objects.count()) == (201, 2)


def test_an_answer_without_an_address_is_kept_and_a_low_score_with_one_opens_work(otterwick: World) -> None:
    row = live(otterwick, "score")
    visitor = Visitor(otterwick.site.key)
    nameless = sending(row) | {"step": "glad", "answers": {"score": "9"}, "consents": {}}
    assert visitor.post("intake", nameless).json()["next"] == "thanks"
    assert (Submission.objects.get().person_id, FollowUp.objects.count()) == (None, 0)
    low = sending(row, 2) | {
        "step": "sorry",
        "answers": {"score": "2", "email": "a@post.example", "wrong": "Cold."},
        "consents": {},
    }
    visitor.post("intake", low)
    work = FollowUp.objects.get()
    assert (work.kind, work.excerpt) == ("feedback", "2 of 10: Cold.")
    assert work.due is not None


@pytest.mark.parametrize(
    ("more", "guard", "reason"),
    [({"trap": "http://spam.example"}, {}, "trap"), ({"elapsed_ms": 90}, {}, "too fast"), ({}, {"work": True}, "no work"),
     ({"work": "bm9uc2Vuc2U="}, {"work": True}, "no work")],
)  # fmt: skip
def test_what_looks_like_spam_is_set_aside_with_the_same_answer_and_can_be_released(
    otterwick: World, more: dict, guard: dict, reason: str
) -> None:
    row = live(otterwick, "news", guard=guard)
    visitor = Visitor(otterwick.site.key)
    answer = visitor.post("intake", sending(row) | more)
    assert (answer.status_code, answer.json()["next"]) == (201, "thanks")
    assert visitor.post("intake", sending(row) | more).content == answer.content
    assert not (Submission.objects.exists())
    assert not (Person.objects.exists())
    assert not (OutgoingMail.objects.exists())
    client = otterwick.console()
    held = client.get("/api/quarantine").json()
    assert [one["reason"] for one in held] == [reason]
    assert client.post(f"/api/quarantine/{held[0]['id']}/release").status_code == 204
    assert Person.objects.get().addresses.get().shown == "ife.dunmore@post.example"
    assert client.get("/api/quarantine").json() == []
    assert client.post(f"/api/quarantine/{held[0]['id']}/release").status_code == 422


def test_what_is_spam_leaves_the_quarantine_and_is_erased(otterwick: World) -> None:
    Visitor(otterwick.site.key).post("intake", sending(otterwick.touchpoint) | {"trap": "x"})
    row = Quarantined.objects.get()
    assert otterwick.console().delete(f"/api/quarantine/{row.pk}").status_code == 204
    row.refresh_from_db()
    assert (row.raw, row.released) == ({}, False)


def test_the_piece_of_work_is_taken_once(otterwick: World) -> None:
    row = live(otterwick, "news", guard={"work": True})
    visitor = Visitor(otterwick.site.key)
    work = visitor.post("more", {"touchpoint": row.public_id, "revision": row.live.number}).json()["work"]
    found = solve_challenge(work["challenge"], work["salt"], work["algorithm"], work["max"])
    solved = {"algorithm": work["algorithm"], "challenge": work["challenge"], "salt": work["salt"],
              "signature": work["signature"], "number": found.number}  # fmt: skip
    answer = base64.b64encode(json.dumps(solved).encode()).decode()
    visitor.post("intake", sending(row) | {"work": answer})
    assert (Submission.objects.count(), Quarantined.objects.count()) == (1, 0)
    spelled_otherwise = base64.b64encode(
        json.dumps(solved | {"salt": f"{work['salt']}&", "x": 1}, indent=1).encode()
    )
    for number, again in enumerate(
        (answer, spelled_otherwise.decode(), base64.b64encode(b"5").decode(), "e30=", "é"), 2
    ):
        assert visitor.post("intake", sending(row, number) | {"work": again}).status_code == 201
    assert (Submission.objects.filter(person=None).count(), Quarantined.objects.count()) == (0, 5)


def test_hours_of_its_own_make_its_promise(otterwick: World) -> None:
    evenings = add_hours(
        otterwick.owner,
        name="Evenings",
        document={
            "timezone": "Europe/London",
            "week": [{"day": "fri", "from": "20:00", "to": "23:00"}],
            "exceptions": [],
        },
    )
    row = live(otterwick, "question", after={"hours": evenings.pk, "promise_minutes": 60})
    body = sending(row) | {"answers": {"email": "ife@post.example", "question": "When?"}, "consents": {}}
    Visitor(otterwick.site.key).post("intake", body)
    assert FollowUp.objects.get().due.isoformat() == "2026-11-27T21:00:00+00:00"
