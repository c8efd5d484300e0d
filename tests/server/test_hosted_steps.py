"""The hosted page without JavaScript, step by step, and what the visitor's side is told besides the document."""

import re
from typing import Any

import pytest
from django.test import Client

from intavo.accounts.edits import Edit
from intavo.followup.models import FollowUp
from intavo.intake.models import Quarantined, Submission
from intavo.people.models import Person
from intavo.sites.actions import set_house
from intavo.touchpoints import live as live_sites

from .conftest import Visitor, World, sending
from .test_afterwards import live


def hidden(page: str) -> dict[str, str]:
    """The hidden values of a page's form."""
    return dict(re.findall(r'<input type="hidden" name="([^"]+)" value="([^"]*)">', page))


def address(one: World, slug: str) -> str:
    """Where a touchpoint's own page is."""
    return f"/t/{one.site.slug}/{slug}"


def post(path: str, page: str, **typed: Any) -> tuple[int, str]:
    """Press a button of the page's form."""
    answer = Client().post(path, hidden(page) | typed)
    return answer.status_code, answer.content.decode()


def test_two_steps_carry_what_was_typed_and_send_it_together(otterwick: World) -> None:
    live(otterwick, "group")
    path = address(otterwick, "a-group")
    page = Client().get(path).content.decode()
    assert "How many of you?" in page
    assert "Your email" not in page
    _, page = post(path, page, people="14", day="2026-12-05", press="step")
    assert hidden(page)["people"] == "14"
    status, page = post(path, page, name="Ife", email="ife@post.example", wishes="Cake", press="send")
    assert (status, "We have it" in page, "We answer tomorrow by 13:35." in page) == (200, True, True)
    work = FollowUp.objects.get()
    assert work.excerpt in {"2026-12-05", "Cake"}
    assert Submission.objects.get().raw["answers"]["people"] == "14"


def test_what_was_left_out_on_an_earlier_step_is_said_and_nothing_is_lost(otterwick: World) -> None:
    live(otterwick, "group")
    path = address(otterwick, "a-group")
    _, page = post(path, Client().get(path).content.decode(), press="step", people="")
    status, page = post(path, page, name="Ife", email="ife@post.example", press="send")
    assert status == 422
    assert 'value="ife@post.example"' in page
    assert not Submission.objects.exists()


def test_back_goes_to_the_step_before(otterwick: World) -> None:
    live(otterwick, "group")
    path = address(otterwick, "a-group")
    _, page = post(path, Client().get(path).content.decode(), people="14", press="step")
    _, page = post(path, page, press="back")
    assert "How many of you?" in page
    assert 'value="14"' in page


def test_an_answer_chooses_the_step_and_a_score_is_sent_without_an_address(otterwick: World) -> None:
    live(otterwick, "score")
    path = address(otterwick, "a-score")
    page = Client().get(path).content.decode()
    assert page.count('type="radio"') == 11
    _, page = post(path, page, score="8", press="choose")
    assert "What would make it better?" in page
    status, page = post(path, page, better="Longer", press="send")
    assert (status, "Thank you" in page) == (200, True)
    assert (Submission.objects.get().person_id, Person.objects.count()) == (None, 0)


def test_every_kind_of_part_has_a_plain_form(otterwick: World) -> None:
    row = live(otterwick, "contact")
    page = Client().get(address(otterwick, "a-contact")).content.decode()
    assert "Open now" in page
    assert 'name="press" value="step"' in page
    for starter, words in (("price", "GBP 32.00"), ("links", "How to find us"), ("terms", "<hr>"), ("hours", "Wednesday"),
                           ("share", "readonly"), ("welcome", "shipped-hills"), ("notice", "We are moving.")):  # fmt: skip
        live(otterwick, starter)
        live_sites._sites.clear()
        assert words in Client().get(address(otterwick, f"a-{starter}")).content.decode(), starter
    assert row.slug == "a-contact"


def test_the_page_wears_the_house_style_and_asks_the_trap(otterwick: World) -> None:
    set_house(otterwick.owner, site_id=otterwick.site.pk, edit=Edit({"colours": {"button": "#a83a1f"}}))
    live(otterwick, "news")
    path = address(otterwick, "a-news")
    page = Client().get(path).content.decode()
    assert "--button:#a83a1f" in page
    typed = {"email": "ife@post.example", "news": "on", "press": "send", "website": "http://spam.example"}
    status, answer = post(path, page, **typed)
    assert (status, "Thank you" in answer) == (200, True)
    assert (Quarantined.objects.get().reason, Submission.objects.count()) == ("trap", 0)


def test_a_time_that_the_page_was_not_given_by_us_counts_for_nothing(otterwick: World) -> None:
    live(otterwick, "news")
    path = address(otterwick, "a-news")
    page = Client().get(path).content.decode()
    status, _ = post(path, page, email="ife@post.example", news="on", press="send", since="forged")
    assert (status, Submission.objects.count()) == (200, 1)


def test_more_is_told_of_what_was_live_only(otterwick: World, visitor: Visitor) -> None:
    row = live(otterwick, "call-back")
    told = visitor.post("more", {"touchpoint": row.public_id, "revision": row.live.number})
    assert told.status_code == 200
    assert {slot["day"] for slot in told.json()["slots"]["time"]} >= {"Tue 24 Nov", "Wed 25 Nov"}
    assert (told.json()["hours"], told.json()["questions"]) == (None, [])
    assert visitor.post("more", {"touchpoint": row.public_id, "revision": 99}).status_code == 422
    assert visitor.post("more", {"touchpoint": row.public_id}).json()["errors"][0]["field"] == "revision"
    assert Visitor(otterwick.site.key, "https://else.example").post("more", {}).status_code == 403


@pytest.mark.parametrize("stance", ["pop-up", "bar", "button"])
def test_the_plan_says_how_it_stands_and_what_it_waits_for(
    otterwick: World, visitor: Visitor, stance: str
) -> None:
    row = live(otterwick, "news")
    client = otterwick.console()
    client.post(f"/api/touchpoints/{row.pk}/turn-into", {"stance": stance}, content_type="application/json")
    client.post(f"/api/touchpoints/{row.pk}/live")
    live_sites._sites.clear()
    entry = next(one for one in visitor.plan().json()["touchpoints"] if one["slug"] == "a-news")
    queue = {"pop-up": "interrupting", "bar": "bar", "button": "none"}[stance]
    assert (entry["stance"], entry["queue"], entry["needs_more"]) == (stance, queue, True)
    assert set(entry["document"]) >= {"version", "purpose", "stance", "steps", "look", "leaving"}
    assert "after" not in entry["document"]
    quiet = visitor.plan(storage=False).json()["touchpoints"]
    moments = next(one["moments"] for one in quiet if one["slug"] == "a-news")
    assert bool(moments) is (stance != "pop-up")


def test_about_to_leave_is_a_moment_of_its_own(otterwick: World, visitor: Visitor) -> None:
    live(otterwick, "parting")
    entry = next(one for one in visitor.plan().json()["touchpoints"] if one["slug"] == "a-parting")
    assert entry["moments"] == [[{"leave": True}]]
    assert [one["slug"] for one in visitor.plan(device="phone").json()["touchpoints"]] == [
        "news-of-otterwick"
    ]


def test_the_stage_is_told_the_same_as_visitors(otterwick: World) -> None:
    row = live(otterwick, "call-back")
    client = otterwick.console()
    told = client.get(f"/api/touchpoints/{row.pk}/extras").json()
    assert told["slots"]["time"][0]["time"] == "15:30"
    client.put(f"/api/touchpoints/{row.pk}/sites", {"site_ids": []}, content_type="application/json")
    assert client.get(f"/api/touchpoints/{row.pk}/extras").json() == {
        "slots": {},
        "hours": None,
        "questions": [],
        "code": None,
    }


def test_a_visitor_who_corrects_a_slip_before_confirming_leaves_nothing_behind(otterwick: World) -> None:
    row = live(otterwick, "file", after={"confirm": {"on": True, "subject": "Is it you?"}})
    visitor = Visitor(otterwick.site.key)
    wrong = sending(row, 1) | {"answers": {"email": "ife@pst.example"}}
    visitor.post("intake", wrong)
    visitor.post(
        "intake", sending(row, 2) | {"answers": {"email": "ife@post.example"}, "corrects": wrong["id"]}
    )
    assert [one.raw["answers"]["email"] for one in Submission.objects.all()] == ["ife@post.example"]


@pytest.mark.parametrize("odd", ["²", "٣", "9" * 5000, "-1", "1e9", "", " 2", "7"])
@pytest.mark.parametrize("field", ["revision", "score"])
def test_what_only_looks_like_a_number_is_no_fault_of_ours(otterwick: World, field: str, odd: str) -> None:
    live(otterwick, "score")
    path = address(otterwick, "a-score")
    page = Client().get(path).content.decode()
    status, _ = post(path, page, **{"score": "3", "press": "step"} | {field: odd})
    assert status in {200, 422}
