"""Conversations in the page: begun, carried on by script and people, kept once, and mailed to those who have left."""

import json
from typing import Any

import pytest
from django.db import connection
from django.test import Client
from django.test.utils import CaptureQueriesContext

from intavo.accounts.actions import set_away
from intavo.core.presence import Until
from intavo.followup.models import FollowUp
from intavo.hours.actions import go_away
from intavo.mail.models import OutgoingMail
from intavo.people.models import Person, PersonTag
from intavo.talks import leaving
from intavo.talks.actions import held_talk
from intavo.talks.leaving import mail_if_gone, tell_late
from intavo.talks.models import Message, Talk
from intavo.talks.queries import poll
from intavo.touchpoints import live
from intavo.visitor import talking as visitor_talking

from .conftest import Visitor, World, sending


def begin(world: World, visitor: Visitor) -> dict[str, Any]:
    answer = visitor.post("talks", sending(world.touchpoint))
    assert answer.status_code == 201, answer.content
    return answer.json()


def say(visitor: Visitor, talk: str, number: int, **what: Any) -> Any:
    return visitor.post(f"talks/{talk}/messages", {"id": f"message-{number}", **what})


def look(visitor: Visitor, talk: str, after: int = 0, **headers: str) -> Any:
    return Client().get(
        f"/e/{visitor.key}/talks/{talk}?after={after}", headers={"Origin": visitor.origin, **headers}
    )


def test_the_script_leads_to_a_person_and_the_words_stand_on_the_list(
    talking: World, visitor: Visitor
) -> None:
    begun = begin(talking, visitor)
    assert [one["text"] for one in begun["messages"]] == ["Hello. What is it about?"]
    assert [one["id"] for one in begun["choices"]] == ["c1", "c2", "c3"]
    assert (begun["situation"], begun["asks"]) == ("open", None)
    assert not Person.objects.exists()
    assert not FollowUp.objects.exists()
    talk = begun["talk"]
    told = say(visitor, talk, 1, choice="c2").json()
    assert [one["text"] for one in told["messages"]] == ["Opening hours", "We are open till 17:30."]
    asked = say(visitor, talk, 2, choice="c1").json()
    assert asked["asks"] == "text"
    assert say(visitor, talk, 3, text="Saturday").json()["asks"] == "email"
    again = say(visitor, talk, 4, address={"email": "nope"}).json()
    assert "once more" in again["messages"][-1]["text"]
    done = say(visitor, talk, 5, address={"email": "Ife@post.example"}).json()
    assert done["messages"][-1]["text"] == "One of us answers today by 16:05."
    assert done["handed"]
    followup = FollowUp.objects.get()
    assert (followup.kind, followup.person.addresses.get().key) == ("message", "ife@post.example")
    assert followup.excerpt == "Saturday"
    assert Person.objects.count() == 1
    assert [tag.tag for tag in PersonTag.objects.all()] == ["booking"]
    seen = talking.console().get(f"/api/follow-ups/{followup.pk}/talk").json()
    assert [one["source"] for one in seen["messages"]].count("them") == 5


def test_the_same_message_again_gives_the_same_bytes_and_is_kept_once(
    talking: World, visitor: Visitor
) -> None:
    talk = begin(talking, visitor)["talk"]
    first, second = (say(visitor, talk, 1, text="Is the slip free?") for _ in range(2))
    assert (first.status_code, second.status_code) == (201, 200)
    assert first.content == second.content
    assert Message.objects.filter(source="them").count() == 1


def test_both_sides_see_each_others_words_and_nothing_new_costs_one_query(
    talking: World, visitor: Visitor
) -> None:
    talk = begin(talking, visitor)["talk"]
    say(visitor, talk, 1, text="Is the slip free?")
    followup, console = FollowUp.objects.get(), talking.console()
    assert [one["key"] for one in console.get(f"/api/follow-ups/{followup.pk}").json()["ways"]] == ["talk"]
    body = {"text": "It is, till six.", "key": "k1", "then": "wait"}
    answered = console.post(
        f"/api/follow-ups/{followup.pk}/answer", json.dumps(body), content_type="application/json"
    )
    assert answered.status_code == 200
    assert answered.json()["timeline"][-2]["receipt"] == "in the page, not seen yet"
    seen = look(visitor, talk, 3)
    assert [(one["from"], one["text"], one["who"]["name"]) for one in seen.json()["messages"]] == [
        ("us", "It is, till six.", "Owner of Otterwick")
    ]
    tag = look(visitor, talk, 4)["ETag"]
    with CaptureQueriesContext(
        connection,
    ) as queries:
        nothing = look(visitor, talk, 4, **{"If-None-Match": tag})
    assert nothing.status_code == 304
    assert len(queries) == 1
    assert console.get(f"/api/follow-ups/{followup.pk}").json()["timeline"][-2]["receipt"] == "they have it"
    say(visitor, talk, 2, text="Thank you!")
    followup.refresh_from_db()
    assert followup.state == "for-us"


def test_whatever_was_said_in_a_conversation_is_found(talking: World, visitor: Visitor, other: World) -> None:
    talk = begin(talking, visitor)["talk"]
    say(visitor, talk, 1, text="Is the slip free?")
    say(visitor, talk, 2, text="We come with a crème-coloured dinghy.")
    found = talking.console().get("/api/find?q=creme dinghy").json()
    assert [(one["where"], "dinghy" in one["text"]) for one in found] == [("in a conversation", True)]
    listed = talking.console().get("/api/follow-ups?q=dinghy").json()
    assert len([one for lane in listed["lanes"] for one in lane["items"]]) == 1
    # The words of the script are nobody's; and another business finds none of it.
    assert talking.console().get("/api/find?q=Hello about").json() == []
    assert other.console().get("/api/find?q=dinghy").json() == []


def test_who_has_left_gets_the_answer_by_mail_once(talking: World, visitor: Visitor) -> None:
    talk = begin(talking, visitor)["talk"]
    say(visitor, talk, 1, choice="c1")
    say(visitor, talk, 2, text="Sunday")
    row, console = Talk.objects.get(), talking.console()

    def left() -> str:
        return str(console.get(f"/api/follow-ups/{row.followup_id}/talk").json()["left"])

    assert left() == ""
    Talk.objects.update(seen_at="2020-01-01T00:00:00Z")
    assert left() == "has left the page, and no address: they read an answer if they come back"
    say(visitor, talk, 3, address={"email": "ife@post.example"})
    row.refresh_from_db()
    look(visitor, talk)
    for number, text in enumerate(("One line.", "Another.")):
        body = {"text": text, "key": f"k{number}", "then": "keep"}
        path = f"/api/follow-ups/{row.followup_id}/answer"
        assert console.post(path, json.dumps(body), content_type="application/json").status_code == 200
    assert not mail_if_gone(row.pk)
    Talk.objects.update(seen_at="2020-01-01T00:00:00Z")
    assert left() == "has left the page: what they have not seen goes to them by mail"
    assert mail_if_gone(row.pk)
    assert not mail_if_gone(row.pk)
    mail = OutgoingMail.objects.get()
    assert (mail.to, "One line.\n\nAnother." in mail.text) == ("ife@post.example", True)
    step_back = f"https://otterwick.example/trips#intavo-{talking.touchpoint.slug}"
    assert mail.text.endswith(
        f"\n\n> Change a booking\n> Sunday\n\nAnswer this mail, or go on in the conversation: {step_back}\n"
    )


def test_closed_says_so_and_asks_for_an_address_first(
    talking: World, visitor: Visitor, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setenv("INTAVO_NOW", "2026-11-24T20:05:00+00:00")
    begun = begin(talking, visitor)
    assert (begun["situation"], begun["asks"]) == ("after-hours", "email")
    assert "We open again tomorrow at 09:00" in begun["says"]["text"]
    skipped = say(visitor, begun["talk"], 1, choice="skip").json()
    assert skipped["messages"][-1]["text"] == "Hello. What is it about?"
    said = say(visitor, begun["talk"], 2, text="A question").json()
    assert said["messages"][-1]["text"] == "One of us answers tomorrow by 11:00."


def test_that_somebody_is_here_or_not_any_more_is_heard_of_with_the_next_look(
    talking: World, visitor: Visitor
) -> None:
    talk = begin(talking, visitor)["talk"]
    first = look(visitor, talk, 1)
    seen = {"If-None-Match": first["ETag"]}
    assert (first.json()["situation"], look(visitor, talk, 1, **seen).status_code) == ("open", 304)
    go_away(talking.owner, until=Until.HOUR)
    live._sites.clear()
    away = look(visitor, talk, 1, **seen)
    assert away.json()["situation"] == "nobody-free"
    assert "We are away from the counter just now" in away.json()["says"]["text"]
    set_away(talking.owner, None)
    live._sites.clear()
    assert look(visitor, talk, 1, **{"If-None-Match": away["ETag"]}).json()["situation"] == "open"


def test_back_at_is_said_while_nobody_is_at_the_counter(talking: World, visitor: Visitor) -> None:
    go_away(talking.owner, until=Until.HOUR)
    assert begin(talking, visitor)["situation"] == "nobody-free"


def test_somebody_known_by_their_address_is_the_same_person(talking: World, visitor: Visitor) -> None:
    for _ in range(2):
        talk = begin(talking, visitor)["talk"]
        say(visitor, talk, 1, choice="c1")
        say(visitor, talk, 2, text="Monday")
        say(visitor, talk, 3, address={"email": "ife@post.example"})
    assert Person.objects.count() == 1
    assert FollowUp.objects.count() == 1
    assert Talk.objects.filter(followup=FollowUp.objects.get()).count() == 2


def test_late_is_told_once_and_truly(
    talking: World, visitor: Visitor, monkeypatch: pytest.MonkeyPatch
) -> None:
    talk = begin(talking, visitor)["talk"]
    say(visitor, talk, 1, text="Hello?")
    assert tell_late() == 0
    monkeypatch.setenv("INTAVO_NOW", "2026-11-24T16:06:00+00:00")
    assert (tell_late(), tell_late()) == (1, 0)
    assert (
        look(visitor, talk, 3).json()["messages"][-1]["text"].endswith("One of us answers tomorrow by 09:36.")
    )


@pytest.mark.parametrize(
    ("body", "field"),
    [({"text": "x" * 4001}, "text"), ({"choice": "c9"}, "choice"), ({"text": "  "}, "body"), ({}, "body"),
     ({"text": "a", "choice": "c1"}, "body"), ({"text": "a\x00b"}, "text"), ({"address": {"email": ""}}, "body"),
     ({"text": 5}, "text"), ({"address": ["a"]}, "address")],
)  # fmt: skip
def test_what_cannot_be_a_message_is_refused_with_its_place_and_changes_nothing(
    talking: World, visitor: Visitor, body: dict[str, Any], field: str
) -> None:
    talk = begin(talking, visitor)["talk"]
    answer = say(visitor, talk, 1, **body)
    assert (answer.status_code, answer.json()["errors"][0]["field"]) == (422, field)
    assert not Message.objects.filter(source="them").exists()


def test_a_guessed_token_and_one_of_another_site_are_not_found(
    talking: World, visitor: Visitor, other: World
) -> None:
    talk = begin(talking, visitor)["talk"]
    assert look(visitor, "0" * 32).status_code == 404
    theirs = Visitor(other.site.key, "https://heronsgate.example")
    assert look(theirs, talk).status_code == 404
    assert say(theirs, talk, 1, text="Hello").status_code == 404
    assert look(visitor, talk, after="²").status_code == 422  # type: ignore[arg-type]


def test_more_than_ten_a_minute_have_to_wait_and_nothing_is_lost(talking: World, visitor: Visitor) -> None:
    talk = begin(talking, visitor)["talk"]
    said = [say(visitor, talk, number, text="Hello") for number in range(12)]
    assert [one.status_code for one in said] == [201] * 10 + [429] * 2
    assert int(said[-1]["Retry-After"]) > 0


def test_what_one_of_us_did_before_they_said_who_they_are_stays(talking: World, visitor: Visitor) -> None:
    for number in range(2):
        talk = begin(talking, visitor)["talk"]
        say(visitor, talk, 1, choice="c1")
        if number:
            opened = FollowUp.objects.exclude(person__addresses__kind="email").get()
            console, path = talking.console(), f"/api/follow-ups/{opened.pk}"
            note = {"text": "Sounds like Ife"}
            assert console.post(f"{path}/note", note, content_type="application/json").status_code == 200
            tag = {"tag": "regular", "on": True}
            assert console.post(f"{path}/tag", tag, content_type="application/json").status_code == 200
        say(visitor, talk, 2, text="Monday")
        say(visitor, talk, 3, address={"email": "ife@post.example"})
    ife = Person.objects.get()
    assert set(ife.tags.values_list("tag", flat=True)) == {"booking", "regular"}
    assert ife.events.filter(kind="noted").count() == 1
    # That they are one is said, and can be undone.
    assert ife.events.filter(kind="joined").count() == ife.merges.count() == 1
    assert FollowUp.objects.exclude(state="finished").get().person == ife


def test_who_is_answered_just_then_is_not_told_that_we_are_late(
    talking: World, visitor: Visitor, monkeypatch: pytest.MonkeyPatch
) -> None:
    talk = begin(talking, visitor)["talk"]
    say(visitor, talk, 1, text="Hello?")
    monkeypatch.setenv("INTAVO_NOW", "2026-11-24T16:06:00+00:00")

    def answered_meanwhile(rows: Any) -> Talk | None:
        FollowUp.objects.update(state="them", due=None)
        return held_talk(rows)

    monkeypatch.setattr(leaving, "held_talk", answered_meanwhile)
    assert tell_late() == 0
    assert not Talk.objects.get().told_late


def test_one_that_is_erased_while_it_is_asked_for_is_not_there(
    talking: World, visitor: Visitor, monkeypatch: pytest.MonkeyPatch
) -> None:
    talk = begin(talking, visitor)["talk"]
    say(visitor, talk, 1, text="Hello?")

    def erased(*about: Any) -> Any:
        known = poll(*about)
        Talk.objects.all().delete()
        return known

    monkeypatch.setattr(visitor_talking, "poll", erased)
    whole = Client().get(f"/e/{visitor.key}/talks/{talk}?whole=1", headers={"Origin": visitor.origin})
    assert whole.status_code == 404
