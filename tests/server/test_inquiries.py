"""Questions: by email or by phone only, with their own promise, and perhaps from somebody known."""

import json
from typing import Any

import pytest

from intavo.followup.models import FollowUp
from intavo.mail.models import OutgoingMail
from intavo.people.models import Person
from intavo.touchpoints.actions import make, put_live, save_draft, turn_on
from intavo.touchpoints.models import Touchpoint

from .conftest import Visitor, World, sending


def question(world: World, **after: Any) -> Touchpoint:
    """A live question with an optional email and an optional phone."""
    row = make(world.owner, starter="question", name="Ask us")
    document = json.loads(json.dumps(row.draft.document))
    for part in document["steps"][0]["parts"]:
        if part.get("name") == "email":
            part["required"] = False
    phone = {
        "id": "p70",
        "kind": "field",
        "input": "phone",
        "name": "phone",
        "label": "Phone",
        "required": False,
    }
    document["steps"][0]["parts"].insert(4, phone)
    document["after"] |= after
    save_draft(world.owner, touchpoint_id=row.pk, document=document, based_on=1)
    return turn_on(world.owner, touchpoint_id=row.pk)


def ask(visitor: Visitor, row: Touchpoint, number: int, **answers: str) -> Any:
    """Send a question."""
    given = {"question": "Do you hire wetsuits\nfor children of 9?"} | answers
    return visitor.post("intake", sending(row, number, answers=given, consents={}))


def test_a_question_is_always_due_and_its_words_stand_in_the_list(visitor: Visitor, otterwick: World) -> None:
    answer = ask(visitor, question(otterwick, follow_up=False), 1, email="t@post.example", name="Tomasz")
    assert answer.json()["says"]["text"] == "We answer today by 16:05."
    followup = FollowUp.objects.get()
    assert (followup.kind, followup.excerpt) == ("inquiry", "Do you hire wetsuits for children of 9?")


def test_a_name_cannot_make_our_mail_lead_elsewhere(visitor: Visitor, otterwick: World) -> None:
    name = "Eve look at https://prize.example/x or write to win@prize.example"
    assert ask(visitor, question(otterwick), 1, email="t@post.example", name=name).status_code == 201
    text = OutgoingMail.objects.get().text
    assert text.startswith("Hello Eve look at or write to,")
    assert "prize" not in text
    # The card has it as it was typed.
    assert Person.objects.get().name == name


def test_its_own_promise_wins_over_the_businesss(visitor: Visitor, otterwick: World) -> None:
    answer = ask(visitor, question(otterwick, promise_minutes=480), 1, email="t@post.example")
    assert answer.json()["says"]["text"] == "We answer tomorrow by 13:35."


def test_somebody_without_an_email_is_known_by_phone_and_cannot_be_mailed(
    visitor: Visitor, otterwick: World
) -> None:
    row = question(otterwick)
    assert ask(visitor, row, 1, phone="07700 900142").status_code == 201
    assert ask(visitor, row, 2, phone="+44 7700 900142", name="Hedra").status_code == 201
    person = Person.objects.get()
    assert person.name == "Hedra"
    assert OutgoingMail.objects.count() == 0
    client = otterwick.console()
    pk = FollowUp.objects.get().pk
    assert client.get(f"/api/follow-ups/{pk}").json()["can_mail"] is False
    body = {"text": "Hello", "key": "k", "then": "wait"}
    refused = client.post(f"/api/follow-ups/{pk}/answer", body, content_type="application/json")
    assert refused.status_code == 422
    assert "no email address" in refused.json()["title"]


def test_one_phone_on_two_emails_is_two_people_and_a_suggestion(visitor: Visitor, otterwick: World) -> None:
    row = question(otterwick)
    ask(visitor, row, 1, email="a@post.example", phone="07700 900142", name="Ann")
    ask(visitor, row, 2, email="b@post.example", phone="07700 900142", name="Ben")
    assert Person.objects.count() == 2
    ben = FollowUp.objects.get(person__name="Ben").pk
    [perhaps] = otterwick.console().get(f"/api/follow-ups/{ben}").json()["perhaps_same"]
    assert (perhaps["name"], perhaps["why"]) == ("Ann", "the same phone number")


@pytest.mark.parametrize(
    ("answers", "field"),
    [
        ({}, "answers.email"),
        ({"phone": "12"}, "answers.phone"),
        ({"email": "t@post.example", "question": " "}, "answers.question"),
    ],
)
def test_what_is_missing_or_wrong_is_named(
    visitor: Visitor, otterwick: World, answers: dict, field: str
) -> None:
    refused = ask(visitor, question(otterwick), 1, **answers)
    assert refused.status_code == 422
    assert [error["field"] for error in refused.json()["errors"]] == [field]
    assert Person.objects.count() == 0


def test_a_question_and_a_signup_are_two_pieces_of_work_for_one_person(
    visitor: Visitor, otterwick: World
) -> None:
    visitor.post("intake", sending(otterwick.touchpoint, 1))
    ask(visitor, question(otterwick), 2, email="IFE.Dunmore@post.example")
    assert Person.objects.count() == 1
    assert set(FollowUp.objects.values_list("kind", flat=True)) == {"sign-up", "inquiry"}


def test_the_answers_of_a_touchpoint_stand_in_a_table_over_all_versions(
    visitor: Visitor, otterwick: World, other: World
) -> None:
    row = question(otterwick)
    ask(visitor, row, 1, email="eve@post.example", name="Ève", question="=cmd: suits?")
    document = json.loads(json.dumps(row.live.document))
    document["steps"][0]["parts"].insert(
        2,
        {
            "id": "p71",
            "kind": "field",
            "input": "text",
            "name": "boat",
            "label": "Which boat?",
            "required": False,
        },
    )
    row = save_and_put_live(otterwick, row, document)
    ask(visitor, row, 2, email="nia@post.example", question="When is low tide?", boat="The red one")
    client, address = otterwick.console(), f"/api/touchpoints/{row.pk}/answers"
    table = client.get(address).json()
    assert {"question", "email", "boat"} <= {one["name"] for one in table["columns"]}
    assert [one["cells"].get("boat") for one in table["rows"]] == ["The red one", None]
    assert [one["person_id"] for one in table["rows"]] == list(
        Person.objects.order_by("-pk").values_list("pk", flat=True)
    )
    assert [one["cells"]["email"] for one in client.get(address, {"q": "LOW tide"}).json()["rows"]] == [
        "nia@post.example"
    ]
    assert client.get(address, {"before": table["rows"][0]["id"]}).json()["rows"] == table["rows"][1:]
    text = client.get(f"{address}-csv", {"q": "suits"}).getvalue().decode()
    assert ("'=cmd: suits?" in text, "nia@" in text) == (True, False)
    assert (
        other.console().get(address).status_code == other.console().get(f"{address}-csv").status_code == 404
    )


def save_and_put_live(world: World, row: Touchpoint, document: dict[str, Any]) -> Touchpoint:
    """Another version, live."""
    number = Touchpoint.objects.get(pk=row.pk).draft.number
    save_draft(world.owner, touchpoint_id=row.pk, document=document, based_on=number)
    return put_live(world.owner, touchpoint_id=row.pk)
