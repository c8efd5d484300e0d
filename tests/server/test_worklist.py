"""Working the list: narrowed by a sentence, found by any word, given, noted, tagged, and several at once."""

from datetime import UTC, datetime, timedelta
from typing import Any
from urllib.parse import urlsplit

import pytest
from django.core import mail as django_mail
from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import IntegrityError, transaction
from django.db.models import F
from django.test import Client

from intavo import clock
from intavo.accounts.models import Member
from intavo.followup import several
from intavo.followup.models import Batch, FollowUp
from intavo.mail.actions import send
from intavo.mail.models import OutgoingMail
from intavo.people.models import Person, PersonTag
from intavo.people.queries import MARK, UNMARK

from .conftest import Visitor, World, sending
from .test_inquiries import ask, question


@pytest.fixture
def three(visitor: Visitor, otterwick: World) -> list[FollowUp]:
    """Two questions and a sign-up."""
    row = question(otterwick)
    ask(
        visitor,
        row,
        1,
        email="eve@post.example",
        name="Ève Lindqvist",
        question="Haben Sie Neoprenanzüge für Kinder?",
    )
    ask(
        visitor,
        row,
        2,
        email="nia@post.example",
        name="Nia Okafor",
        question="Is the estuary safe at low tide?",
    )
    visitor.post("intake", sending(otterwick.touchpoint, 3))
    return list(FollowUp.objects.order_by("pk"))


def shown(client: Client, **wanted: Any) -> list[str]:
    """Who stands on the list, in its order."""
    found = client.get("/api/follow-ups", wanted).json()
    lanes = [item for lane in found["lanes"] for item in lane["items"]]
    return [one["called"] for one in (*lanes, *found["waiting"], *found["put_off"], *found["finished"])]


def post(client: Client, address: str, **body: Any) -> Any:
    """Post to the console's API."""
    return client.post(f"/api/{address}", body, content_type="application/json")


def test_the_list_is_narrowed_by_its_sentence(three: list[FollowUp], otterwick: World) -> None:
    client = otterwick.console()
    eve, nia, _ = three
    assert shown(client) == ["Ève Lindqvist", "Nia Okafor", "Ife"]
    assert shown(client, kind="sign-up") == ["Ife"]
    assert shown(client, touchpoint=eve.touchpoint_id) == ["Ève Lindqvist", "Nia Okafor"]
    post(client, f"follow-ups/{nia.pk}/give", member_id=otterwick.owner.member_id)
    assert shown(client, member=otterwick.owner.member_id) == ["Nia Okafor"]
    assert shown(client, member=0) == ["Ève Lindqvist", "Ife"]
    post(client, f"follow-ups/{eve.pk}/tag", tag="school")
    assert shown(client, tag="school") == ["Ève Lindqvist"]
    assert shown(client, q="neoprenanzuge") == ["Ève Lindqvist"]
    assert shown(client, since="2026-11-25") == []
    assert shown(client, via="mail") == []
    assert len(shown(client, via="form", site=otterwick.site.pk)) == 3
    path = urlsplit(FollowUp.objects.get(pk=eve.pk).page).path
    assert shown(client, page=path)[:2] == ["Ève Lindqvist", "Nia Okafor"]
    assert shown(client, page=f"{path.rstrip('/')}/*")[:2] == ["Ève Lindqvist", "Nia Okafor"]
    assert shown(client, page="/nowhere") == []
    assert client.get("/api/ways-in").json() == [{"key": "form", "words": "by a form"}]
    said = client.get(
        "/api/follow-ups", {"via": "page", "site": str(otterwick.site.pk), "page": "/trips"}
    ).json()["sentence"]
    assert said.endswith(f", by a conversation in the page, on {otterwick.site.name}, on /trips")
    post(client, f"follow-ups/{eve.pk}/finish", outcome="won")
    assert (shown(client, state="finished"), shown(client)) == (["Ève Lindqvist"], ["Nia Okafor", "Ife"])
    assert (
        client.get("/api/follow-ups", {"state": "finished"})
        .json()["sentence"]
        .startswith("everything finished")
    )
    assert client.get("/api/follow-ups", {"state": "lost"}).status_code == 422


@pytest.mark.parametrize(
    ("words", "found"),
    [
        ("eve", ("Ève Lindqvist", "name", "Ève Lindqvist")), ("POST.example", ("Ève Lindqvist", "address", f"eve@{MARK}post.example{UNMARK}")),
        ("estuary low", ("Nia Okafor", "asked", f"{MARK}estuary{UNMARK} safe at {MARK}low{UNMARK} tide?")),
        ("Neoprenanzu", ("Ève Lindqvist", "asked", f"Haben Sie {MARK}Neoprenanzüge{UNMARK} für Kinder?")),
    ],
)  # fmt: skip
def test_somebody_is_found_by_any_word_with_and_without_accents(
    three: list[FollowUp], otterwick: World, other: World, words: str, found: tuple[str, str, str]
) -> None:
    first = otterwick.console().get("/api/find", {"q": words}).json()[0]
    assert (first["name"], first["where"]) == found[:2]
    assert found[2] in first["text"]
    assert other.console().get("/api/find", {"q": words}).json() == []


@pytest.mark.parametrize(
    "words",
    ["", "  ", "'", "a & b | !", "%_\\", "(:*)", "x" * 300, "日本", "'; DROP TABLE people_person; --"],
)
def test_odd_words_find_nobody_and_break_nothing(three: list[FollowUp], otterwick: World, words: str) -> None:
    answer = otterwick.console().get("/api/find", {"q": words})
    assert (answer.status_code, answer.json()) == (200, [])


def test_notes_are_kept_and_found(three: list[FollowUp], otterwick: World) -> None:
    client = otterwick.console()
    assert post(client, f"follow-ups/{three[0].pk}/note", text=" ").json()["errors"][0]["field"] == "text"
    one = post(client, f"follow-ups/{three[0].pk}/note", text="Called twice: prefers mornings").json()
    assert (one["timeline"][-1]["kind"], one["timeline"][-1]["by"]) == ("noted", "Owner of Otterwick")
    assert client.get("/api/find", {"q": "mornings"}).json()[0]["where"] == "noted"


def test_several_are_worked_at_once_and_taken_back(three: list[FollowUp], otterwick: World) -> None:
    client = otterwick.console()
    ids = [row.pk for row in three]
    post(client, f"follow-ups/{ids[0]}/finish", outcome="won")
    done = post(client, "several-follow-ups", do="finish", ids=[*ids, 999_999], outcome="answered").json()
    assert done["done"] == ids[1:]
    assert [one["why"] for one in done["left"]] == [
        "This follow-up is finished already.",
        "It is not here, or not any more.",
    ]
    assert shown(client) == []
    back = post(client, "several-follow-ups", do="take-up", ids=done["done"]).json()
    assert back["done"] == ids[1:]
    assert shown(client) == ["Nia Okafor", "Ife"]
    given = post(
        client,
        "several-follow-ups",
        do="give",
        all_of={"kind": "inquiry"},
        member_id=otterwick.owner.member_id,
    )
    assert (given.json()["done"], given.json()["before"]) == ([ids[1]], [{"id": ids[1], "member_id": None}])
    assert post(client, "several-follow-ups", do="put-off", ids=ids[1:]).status_code == 422
    assert (
        post(client, "several-follow-ups", do="finish", ids=list(range(2_001))).json()["errors"][0]["field"]
        == "ids"
    )
    tagged = post(client, "several-follow-ups", do="tag", ids=ids[1:], tag="spring").json()
    assert post(client, "several-follow-ups", do="tag", ids=ids[1:], tag="spring").json()["done"] == []
    assert client.get("/api/tags").json() == ["spring"]
    post(client, "several-follow-ups", do="untag", ids=tagged["done"], tag="spring")
    assert client.get("/api/tags").json() == []


def test_what_was_done_to_several_is_taken_back_within_a_day_where_nobody_touched_it_since(
    three: list[FollowUp], otterwick: World, other: World, monkeypatch: pytest.MonkeyPatch
) -> None:
    client, ids = otterwick.console(), [row.pk for row in three]
    assert client.get("/api/follow-ups-count", {"state": "open"}).json() == 3
    assert client.get("/api/follow-ups-count", {"kind": "inquiry"}).json() == 2
    done = post(client, "several-follow-ups", do="finish", ids=ids, outcome="not-a-fit").json()
    post(client, f"follow-ups/{ids[0]}/take-up")
    [known] = client.get("/api/several-follow-ups").json()
    assert (known["id"], known["count"], known["words"], known["by"], known["undoable"]) == (
        done["batch"], 3, "finished: not a fit", "Owner of Otterwick", True,
    )  # fmt: skip
    assert post(other.console(), f"several-follow-ups/{done['batch']}/undo").status_code == 404
    back = post(client, f"several-follow-ups/{done['batch']}/undo").json()
    assert (back["done"], [one["why"] for one in back["left"]]) == (
        ids[1:],
        ["Something was done with it since."],
    )
    assert client.get("/api/follow-ups-count").json() == 3
    assert post(client, f"several-follow-ups/{done['batch']}/undo").status_code == 422

    given = post(client, "several-follow-ups", do="give", ids=ids, member_id=otterwick.owner.member_id).json()
    tagged = post(client, "several-follow-ups", do="tag", ids=ids, tag=" spring ").json()
    for one in (tagged, given):
        assert post(client, f"several-follow-ups/{one['batch']}/undo").json()["done"] == ids
    assert client.get("/api/tags").json() == []
    assert set(FollowUp.objects.values_list("member", flat=True)) == {None}
    off = post(client, "several-follow-ups", do="put-off", ids=ids, until="2099-01-01T09:00:00Z").json()
    assert client.get("/api/several-follow-ups").json()[0]["words"] == "put off"
    later = clock.now() + timedelta(days=1, minutes=1)
    monkeypatch.setattr(clock, "now", lambda: later)
    assert post(client, f"several-follow-ups/{off['batch']}/undo").status_code == 422
    assert client.get("/api/several-follow-ups").json() == []
    several.clear_away()
    assert not Batch.objects.exists()


def test_nothing_new_is_304_for_one_query_of_the_lists(
    three: list[FollowUp], otterwick: World, visitor: Visitor, django_assert_num_queries: Any
) -> None:
    client = otterwick.console()
    first = client.get("/api/follow-ups-stamp")
    with django_assert_num_queries(4):  # session, user, member, and the list's one
        same = client.get("/api/follow-ups-stamp", headers={"If-None-Match": first["ETag"]})
    assert same.status_code == 304
    post(client, f"follow-ups/{three[0].pk}/wait")
    second = client.get("/api/follow-ups-stamp", headers={"If-None-Match": first["ETag"]})
    assert second.status_code == 200
    visitor.post("intake", sending(otterwick.touchpoint, 9, answers={"email": "new@post.example"}))
    assert client.get("/api/follow-ups-stamp", headers={"If-None-Match": second["ETag"]}).status_code == 200


def test_a_filter_is_kept_for_oneself_or_for_all(otterwick: World) -> None:
    owner, staff = otterwick.console(), otterwick.staff()
    post(owner, "kept-filters", name="Mine", wanted={"kind": "inquiry"})
    shared = post(owner, "kept-filters", name="Schools", wanted={"tag": "school"}, for_all=True).json()
    assert [one["name"] for one in owner.get("/api/kept-filters").json()] == ["Mine", "Schools"]
    assert [one["wanted"] for one in staff.get("/api/kept-filters").json()] == [{"tag": "school"}]
    again = post(owner, "kept-filters", name="Schools", wanted={"tag": "club"}, for_all=True).json()
    assert again["id"] == shared["id"]
    mine = owner.get("/api/kept-filters").json()[0]["id"]
    assert staff.delete(f"/api/kept-filters/{mine}").status_code == 404
    assert staff.delete(f"/api/kept-filters/{shared['id']}").status_code == 204


def test_work_is_given_to_members_of_the_business_alone(
    three: list[FollowUp], otterwick: World, other: World
) -> None:
    client = otterwick.console()
    assert post(client, f"follow-ups/{three[0].pk}/give", member_id=other.owner.member_id).status_code == 404
    one = post(client, f"follow-ups/{three[0].pk}/give", member_id=otterwick.owner.member_id).json()
    assert (one["member"], one["timeline"][-1]["data"]["to"]) == ("Owner of Otterwick", "Owner of Otterwick")
    assert post(client, f"follow-ups/{three[0].pk}/give").json()["member_id"] is None


def test_whoever_is_taken_out_hands_their_work_on(
    three: list[FollowUp], otterwick: World, other: World
) -> None:
    client = otterwick.console()
    otterwick.staff()
    jory = Member.objects.exclude(pk=otterwick.owner.member_id).get(business_id=otterwick.owner.business_id)
    for row in three[:2]:
        post(client, f"follow-ups/{row.pk}/give", member_id=jory.pk)
    post(client, f"follow-ups/{three[0].pk}/finish", outcome="won")
    assert client.get(f"/api/members/{jory.pk}/work").json() == {"open": 1}
    for nobody in (jory.pk, other.owner.member_id, 0):
        refused = client.delete(f"/api/members/{jory.pk}?heir={nobody}")
        assert (refused.status_code, refused.json()["errors"][0]["field"]) == (422, "heir")
    assert client.delete(f"/api/members/{jory.pk}?heir={otterwick.owner.member_id}").status_code == 204
    assert shown(client, member=otterwick.owner.member_id) == ["Nia Okafor"]
    log = client.get("/api/audit").json()["entries"][0]["words"]
    assert log.endswith(f"; their work went to {otterwick.user.name}")


def test_an_answer_is_taken_back_before_it_goes_out(three: list[FollowUp], otterwick: World) -> None:
    client, row = otterwick.console(), three[0]
    before = client.get(f"/api/follow-ups/{row.pk}").json()
    post(client, f"follow-ups/{row.pk}/answer", text="Yes, from six.", key="k1", then="wait")
    one = post(client, f"follow-ups/{row.pk}/take-back", key="k1").json()
    assert (one["state"], one["due"]) == (before["state"], before["due"])
    assert one["draft"] == "Yes, from six.", "whoever took it back from elsewhere finds it in the box again"
    answered = [each["receipt"] for each in one["timeline"] if each["kind"] == "answered"]
    assert answered == ["taken back before it went out"]
    mail = OutgoingMail.objects.get(key=f"answer-{row.pk}-k1")
    send(mail_id=mail.pk)
    mail.refresh_from_db()
    assert mail.state == OutgoingMail.SUPPRESSED
    post(client, f"follow-ups/{row.pk}/answer", text="Yes, from seven.", key="k2", then="finish")
    send(mail_id=OutgoingMail.objects.get(key=f"answer-{row.pk}-k2").pk)
    assert (
        post(client, f"follow-ups/{row.pk}/take-back", key="k2").json()["errors"][0]["message"]
        == "It has gone out already."
    )
    assert client.get(f"/api/follow-ups/{row.pk}").json()["state"] == "finished"


def test_a_promise_that_is_late_is_not_kept_though_nobody_has_answered(
    three: list[FollowUp], otterwick: World
) -> None:
    client = otterwick.console()

    def kept() -> tuple[int, int]:
        found = client.get("/api/follow-ups").json()
        return found["promises_counted"], found["promises_kept"]

    post(client, f"follow-ups/{three[0].pk}/answer", text="Yes.", key="k", then="finish")
    assert kept() == (1, 1)
    FollowUp.objects.filter(pk=three[1].pk).update(due=F("opened_at") - timedelta(hours=1), late_from=None)
    assert kept() == (2, 1)
    FollowUp.objects.filter(pk=three[1].pk).update(late_from=F("opened_at") + timedelta(hours=1))
    assert kept() == (1, 1), "the time that was asked for is not over yet"


def test_a_key_is_that_of_one_answer_and_what_has_just_gone_is_no_draft(
    three: list[FollowUp], otterwick: World
) -> None:
    client, row = otterwick.console(), three[0]
    one = f"follow-ups/{row.pk}"
    for _ in range(2):
        sent = post(client, f"{one}/answer", text="Yes, from six.", key="k1", then="finish")
        assert (sent.status_code, sent.json()["state"]) == (200, "finished")
    other = post(client, f"{one}/answer", text="Yes, from seven.", key="k1", then="finish")
    assert (other.status_code, other.json()["errors"][0]["field"]) == (422, "key")
    assert OutgoingMail.objects.filter(key__startswith=f"answer-{row.pk}-").count() == 1
    post(client, f"{one}/desk", draft="Yes, from six.", writing=True)
    assert client.get(f"/api/{one}").json()["draft"] == ""
    post(client, f"{one}/desk", draft="Yes, from six. And", writing=True)
    assert client.get(f"/api/{one}").json()["draft"] == "Yes, from six. And"


def test_kept_answers_are_filled_for_whom_they_are_sent_to(three: list[FollowUp], otterwick: World) -> None:
    client, staff = otterwick.console(), otterwick.staff()
    text = ["Hello ", {"slot": "first_name"}, ", we open ", {"slot": "next_opening"}, "."]
    one = post(client, "kept-answers", name=" Opening  hours ", group="Hours", text=text, for_all=True).json()
    mine = post(client, "kept-answers", name="Mine", text=["Yes."]).json()
    first = client.get("/api/kept-answers", {"followup_id": three[0].pk}).json()
    assert [(each["name"], each["words"]) for each in first] == [
        ("Mine", "Yes."),
        ("Opening hours", "Hello Ève, we open tomorrow at 09:00."),
    ]
    assert [each["name"] for each in staff.get("/api/kept-answers").json()] == ["Opening hours"]
    assert staff.delete(f"/api/kept-answers/{mine['id']}").status_code == 404
    changed = staff.put(
        f"/api/kept-answers/{one['id']}",
        {"name": "Hours", "text": ["Nine."], "for_all": True},
        content_type="application/json",
    )
    assert changed.json()["name"] == "Hours"
    post(client, f"follow-ups/{three[0].pk}/answer", text="Nine.", key="k", then="wait", kept=one["id"])
    assert [each["uses"] for each in client.get("/api/kept-answers").json() if each["id"] == one["id"]] == [1]
    for body in (
        {"name": " ", "text": ["x"]},
        {"name": "x", "text": [" "]},
        {"name": "x", "text": [{"slot": "secret"}]},
    ):
        assert post(client, "kept-answers", **body).status_code == 422
    assert client.delete(f"/api/kept-answers/{one['id']}").status_code == 204


def test_changed_hours_move_due_times_that_lie_ahead_and_say_so_before(
    three: list[FollowUp], otterwick: World
) -> None:
    client = otterwick.console()
    due = {row.pk: row.due for row in FollowUp.objects.all()}
    assert due[three[0].pk].isoformat() == "2026-11-24T16:05:00+00:00"
    hours = client.get("/api/hours").json()["main"]
    document = hours["document"]
    for stretch in document["week"]:
        if stretch["day"] == "tue":
            stretch["to"] = "15:05"
    said = post(client, f"hours/{hours['id']}/would-move", document=document).json()
    assert [(one["name"], one["was"], one["now"]) for one in said] == [
        (name, "2026-11-24T16:05:00Z", "2026-11-25T10:00:00Z")
        for name in ("Ève Lindqvist", "Nia Okafor", "Ife")
    ]
    assert {row.pk: row.due for row in FollowUp.objects.all()} == due
    put = {"document": document}
    assert client.put(f"/api/hours/{hours['id']}", put, content_type="application/json").status_code == 204
    assert [row.due.isoformat() for row in FollowUp.objects.filter(pk__in=[three[0].pk, three[1].pk])] == [
        "2026-11-25T10:00:00+00:00"
    ] * 2
    client.put(
        f"/api/hours/{hours['id']}",
        {"document": hours["document"] | {"week": []}},
        content_type="application/json",
    )
    assert FollowUp.objects.get(pk=three[0].pk).due.isoformat() == "2026-11-25T10:00:00+00:00"


def test_new_work_is_given_by_the_owners_rules(visitor: Visitor, otterwick: World, other: World) -> None:
    client, row = otterwick.console(), question(otterwick)
    staff = otterwick.staff()
    jory = Member.objects.exclude(pk=otterwick.owner.member_id).get(business_id=otterwick.owner.business_id)

    def put(*rules: dict[str, Any], by: Client = client) -> Any:
        return by.put("/api/give-rules", {"rules": list(rules)}, content_type="application/json")

    assert put({"kind": "inquiry", "touchpoint": row.pk, "member": jory.pk}, {}).status_code == 204
    assert put({}, by=staff).status_code == 403
    for wrong, field in (
        ({"member": other.owner.member_id}, "member"),
        ({"touchpoint": other.touchpoint.pk}, "touchpoint"),
    ):
        assert put(wrong).json()["errors"][0]["field"] == f"rules.0.{field}"
    said = [one["words"] for one in client.get("/api/give-rules").json()]
    assert said[1] == "everything goes to whoever at the counter has the least open"
    ask(visitor, row, 1, email="eve@post.example", name="Ève")
    visitor.post("intake", sending(otterwick.touchpoint, 2))
    given = dict(FollowUp.objects.values_list("kind", "member_id"))
    assert given == {"inquiry": jory.pk, "sign-up": otterwick.owner.member_id}
    assert FollowUp.objects.get(kind="inquiry").person.events.get(kind="given").data["by_rule"] is True


def test_files_go_along_with_a_mail_and_are_found_again(
    three: list[FollowUp], otterwick: World, settings: Any, tmp_path: Any
) -> None:
    settings.MEDIA_ROOT = str(tmp_path)
    client, one = otterwick.console(), three[0].pk
    chosen = client.post("/api/enclosures", {"file": SimpleUploadedFile("prices ü.pdf", b"%PDF-1.7 prices")})
    assert chosen.status_code == 201
    file = chosen.json()["id"]
    body = {"text": "Here they are.", "key": "f1", "then": "keep", "files": [file], "way": "mail"}
    said = client.post(f"/api/follow-ups/{one}/answer", body, content_type="application/json")
    assert said.status_code == 200
    event = next(event for event in said.json()["timeline"] if event["kind"] == "answered")
    assert event["data"]["enclosed"] == [{"enclosure": file, "name": "prices ü.pdf", "size": 15}]
    # Taken back, they can go with what is written instead.
    assert (
        "enclosed" not in post(client, f"follow-ups/{one}/take-back", key="f1").json()["timeline"][0]["data"]
    )
    body["key"] = "f1 again"
    said = client.post(f"/api/follow-ups/{one}/answer", body, content_type="application/json")
    event = max(
        (event for event in said.json()["timeline"] if "enclosed" in event["data"]), key=lambda one: one["id"]
    )
    mail = OutgoingMail.objects.get(pk=event["data"]["mail"])
    send(mail_id=mail.pk)
    [(name, content, kind)] = [
        (part.get_filename(), part.get_payload(decode=True), part.get_content_type())
        for part in django_mail.outbox[-1].message().walk()
        if part.get_filename()
    ]
    assert (name, content, kind) == ("prices ü.pdf", b"%PDF-1.7 prices", "application/pdf")
    got = client.get(f"/api/enclosures/{file}")
    assert (got.content, got["Content-Disposition"][:10]) == (b"%PDF-1.7 prices", "attachment")
    # It goes once, and what has gone is not left out; somebody else's is nobody's to send.
    again = body | {"key": "f2"}
    assert (
        client.post(f"/api/follow-ups/{one}/answer", again, content_type="application/json").status_code
        == 422
    )
    assert client.delete(f"/api/enclosures/{file}").status_code == 422
    theirs = (
        otterwick.staff().post("/api/enclosures", {"file": SimpleUploadedFile("a.txt", b"a")}).json()["id"]
    )
    wrong = client.post(
        f"/api/follow-ups/{one}/answer", again | {"files": [theirs]}, content_type="application/json"
    )
    assert (wrong.status_code, wrong.json()["errors"][0]["field"]) == (422, "files")
    assert client.post("/api/enclosures", {"file": SimpleUploadedFile("empty", b"")}).status_code == 422


def some_of_each(otterwick: World, count: int) -> None:
    """Work in every state and with every kind of time, of people who all have one tag."""
    now, far = clock.now(), timedelta(days=3)
    about = {"business_id": otterwick.owner.business_id}
    for number in range(count):
        step = timedelta(minutes=7 * (number % 40))
        due = (None, now - step, now + step, now + far)[number % 4]
        state, back = (
            ("for-us", None),
            ("put-off", now - step - timedelta(hours=1)),
            ("put-off", now + far - step),
            ("for-them", None),
            ("for-them", now - timedelta(hours=2)),
            ("for-them", now + far),
            ("for-us", None),
        )[number % 7]
        person = Person.objects.create(name=f"N{number}", created_at=now, **about)
        PersonTag.objects.create(person=person, tag="all", given_at=now, **about)
        FollowUp.objects.create(
            person=person,
            kind="inquiry",
            state=state,
            opened_at=now,
            due=due,
            back_at=back,
            page="https://otter.example/Gr%C3%B6%C3%9Fen/Kanu/?of=spring#top",
            **about,
        )


def test_a_costly_filter_lists_what_the_plain_list_lists(otterwick: World) -> None:
    some_of_each(otterwick, 280)
    client = otterwick.console()

    def pages(**wanted: str) -> tuple[list[list[int]], list[Any], int]:
        after, found = "", []
        while True:
            answer = client.get("/api/follow-ups", {**wanted, "after": after}).json()
            found.append([item["id"] for lane in answer["lanes"] for item in lane["items"]])
            if not after:
                foot, count = [answer["waiting"], answer["put_off"]], answer["open_count"]
            after = answer["after"]
            if not after:
                return found, [[one["id"] for one in part] for part in foot], count

    plain = pages()
    assert len(plain[0]) == 4
    assert sum(map(len, plain[0])) == plain[2]
    assert all(plain[1])
    assert pages(tag="all") == plain
    for state in ("for-us", "for-them", "put-off", "finished"):
        part = pages(state=state)
        assert pages(state=state, tag="all") == part, state
        assert part[2] == plain[2], state
        assert [bool(one) for one in part[1]] == [state == "for-them", state == "put-off"], state
    # However the letters of its page are written, and with all below it.
    for page in (
        "/größen/kanu",
        "/Gr%C3%B6%C3%9Fen/Kanu/",
        "https://otter.example/größen/kanu?x=1",
        "/größen/*",
        "/*",
    ):
        assert pages(page=page) == plain, page
    assert pages(page="/größen")[0] == [[]]


@pytest.mark.parametrize("year", [1, 1969, 2201, 9999])
def test_no_work_has_a_time_that_the_list_could_break_on(
    otterwick: World, visitor: Visitor, year: int
) -> None:
    visitor.post("intake", sending(otterwick.touchpoint))
    for field in ("due", "back_at", "opened_at"):
        with pytest.raises(IntegrityError, match="followup_times_near"), transaction.atomic():
            FollowUp.objects.update(**{field: datetime(year, 6, 1, tzinfo=UTC)})
    assert otterwick.console().get("/api/follow-ups").status_code == 200
