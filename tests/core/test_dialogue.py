"""Conversations by a script: what is said and offered, what comes of an answer, and scripts that hold together."""

import json
from pathlib import Path
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError

from intavo.core.dialogue import (
    Address,
    Goal,
    HandOver,
    Offer,
    Script,
    Series,
    Tagged,
    Turn,
    begin,
    offered,
    take,
)
from intavo.core.replies import ReplySlot

OFFERED = json.loads((Path(__file__).parents[1] / "vectors" / "dialogue" / "offered.json").read_text())
WORDS: dict[ReplySlot, str] = {"closing_time": "17:30", "promise": "today by 16:05"}
BOATHOUSE: dict[str, Any] = {
    "version": 1, "start": "hello", "turns": [
        {"id": "hello", "says": [["Hello, you have reached the boathouse. What is it about?"]],
         "choices": [{"id": "c1", "label": "Change a booking", "tags": ["booking"], "next": "which"},
                     {"id": "c2", "label": "Opening hours", "says": [["We are open till ", {"slot": "closing_time"}, "."]], "next": "more"},
                     {"id": "c3", "label": "Something else", "next": "mail", "goal": True, "series": "tips"}]},
        {"id": "more", "says": ["Anything else?"], "choices": [{"id": "no", "label": "No"}, {"id": "yes", "label": "Yes", "next": "hello"}]},
        {"id": "which", "says": [["Which day is it?"]], "asks": "text", "next": "thanks"},
        {"id": "thanks", "says": ["Thank you."], "goal": True, "next": "hand"},
        {"id": "mail", "says": [["Where can we reach you?"]], "asks": "email", "next": "hand", "may_skip": True},
        {"id": "hand", "says": [["One of us answers ", {"slot": "promise"}, "."]], "hands_over": True},
    ],
}  # fmt: skip
OFFERS = (Offer("c1", "Change a booking"), Offer("c2", "Opening hours"), Offer("c3", "Something else"))
HANDED = "One of us answers today by 16:05."


def talk(*said: dict[str, Any], script: dict[str, Any] = BOATHOUSE) -> list[Turn]:
    """Every turn of a conversation."""
    turns = [begin(script, WORDS)]
    for one in said:
        turns.append(take(script, json.loads(json.dumps(turns[-1].state)), one, WORDS))
    return turns


def choice(id_: str) -> dict[str, Any]:
    """A click on a choice."""
    return {"choice": id_}


def test_it_begins_with_its_first_words_and_choices() -> None:
    [turn] = talk()
    assert turn.messages == ("Hello, you have reached the boathouse. What is it about?",)
    assert (turn.choices, turn.asks, turn.effects) == (OFFERS, None, ())


def test_a_choice_tags_and_leads_on_through_turns_that_wait_for_nothing() -> None:
    _, which, last = talk(choice("c1"), {"text": "Saturday"})
    assert (which.messages, which.asks, which.effects) == (
        ("Which day is it?",),
        "text",
        (Tagged(("booking",)),),
    )
    assert last.messages == ("Thank you.", HANDED)
    assert last.effects == (Goal(), HandOver())


def test_a_choice_answers_by_itself_with_its_slots_filled() -> None:
    _, more, done = talk(choice("c2"), choice("no"))
    assert more.messages == ("We are open till 17:30.", "Anything else?")
    assert [one.label for one in more.choices] == ["No", "Yes"]
    assert (done.messages, done.effects, done.choices) == ((), (), more.choices)


def test_what_a_choice_brings_with_it_is_told() -> None:
    assert talk(choice("c3"))[-1].effects == (Series("tips"), Goal())


@pytest.mark.parametrize(
    "said", [{"text": "Do you hire wetsuits?"}, {"address": {"email": "ife@post.example"}}]
)
def test_a_text_where_choices_stand_is_for_a_person_and_never_a_loop(said: dict[str, Any]) -> None:
    _, handed, after, later = talk(said, {"text": "Hello?"}, {"text": "Anybody?"})
    assert (handed.messages, handed.effects, handed.choices) == ((HANDED,), (HandOver(),), ())
    assert [(one.messages, one.effects) for one in (after, later)] == [((), ()), ((), ())]


def test_a_text_after_the_end_is_for_a_person_too() -> None:
    assert HandOver() in talk(choice("c2"), choice("no"), {"text": "One more thing"})[-1].effects


@pytest.mark.parametrize("said", [{"text": " Ife@Post.example "}, {"address": {"email": "Ife@Post.example"}}])
def test_an_address_that_is_asked_for_is_taken(said: dict[str, Any]) -> None:
    last = talk(choice("c3"), said)[-1]
    assert last.effects == (Address("email", "ife@post.example", "Ife@Post.example"), HandOver())
    assert last.messages == (HANDED,)


def test_an_address_that_does_not_hold_is_asked_for_once_more_and_then_taken_as_text() -> None:
    asked, again, on = talk(choice("c3"), {"text": "nope"}, {"text": "nope"})[1:]
    assert asked.choices == (Offer("skip", "Rather not"),)
    assert (again.asks, len(again.messages), again.effects) == ("email", 1, ())
    assert (on.messages, on.effects) == ((HANDED,), (HandOver(),))
    mended = talk(choice("c3"), {"text": "nope"}, {"text": "ife@post.example"})[-1]
    assert mended.effects[0] == Address("email", "ife@post.example", "ife@post.example")


def test_a_question_that_may_be_skipped_can_be() -> None:
    assert talk(choice("c3"), choice("skip"))[-1].effects == (HandOver(),)


@pytest.mark.parametrize(
    ("before", "said"),
    [([], choice("c9")), ([], choice("skip")), ([choice("c3")], choice("c1")), ([{"text": "x"}], choice("c1")),
     ([], {"text": "  "}), ([], {}), ([], {"text": None}), ([], {"address": {}}), ([], {"address": {"email": 5}})],
)  # fmt: skip
def test_what_is_not_offered_or_says_nothing_is_refused(
    before: list[dict[str, Any]], said: dict[str, Any]
) -> None:
    with pytest.raises(ValueError, match=r"offered|nothing was said"):
        talk(*before, said)


def test_a_state_of_an_older_script_stays_with_a_person() -> None:
    turn = take(BOATHOUSE, {"at": "gone"}, {"text": "Still there?"}, WORDS)
    assert turn.effects == (HandOver(),)
    assert take(BOATHOUSE, turn.state, {"text": "Yes?"}, WORDS).effects == ()


def turns(*some: dict[str, Any]) -> dict[str, Any]:
    """A script of these turns, which begins with "a"."""
    return {"start": "a", "turns": list(some)}


def to(id_: str, **more: Any) -> dict[str, Any]:
    """A choice that leads to a turn."""
    return {"id": "c", "label": "On", "next": id_, **more}


@pytest.mark.parametrize(
    ("script", "said"),
    [
        (turns({"id": "b"}), "“a”: the conversation begins with it"),
        (turns({"id": "a", "next": "b"}), "“a”: it leads to “b”, which does not exist"),
        (turns({"id": "a", "choices": [to("x")]}), "“a”: it leads to “x”"),
        (turns({"id": "a"}, {"id": "b"}), "“b”: nobody ever gets here"),
        (turns({"id": "a"}, {"id": "a"}), "“a”: there are two of this id"),
        (turns({"id": "a", "next": "b"}, {"id": "b", "next": "a"}), "“a”: from here on the conversation cannot end"),
        (turns({"id": "a", "choices": [to("a")]}), "“a”: from here on the conversation cannot end"),
        (turns({"id": "a", "asks": "text", "next": "b"}, {"id": "b", "asks": "text", "next": "a"}), "cannot end"),
        (turns({"id": "a", "choices": [to("a"), to("a")]}), "“a”: two of its choices are “c”"),
        (turns({"id": "a", "choices": [{"id": "c", "label": "x"}], "asks": "text"}), "one of them"),
        (turns({"id": "a", "asks": "text", "hands_over": True}), "one of them"),
        (turns({"id": "a", "may_skip": True}), "only a question can be skipped"),
        (turns({"id": "a", "hands_over": True, "next": "a"}), "“a”: what comes next"),
        (turns(), "at least 1 item"),
    ],
)  # fmt: skip
def test_a_script_that_does_not_hold_together_is_refused_with_its_place(
    script: dict[str, Any], said: str
) -> None:
    with pytest.raises(ValidationError, match=said):
        Script.model_validate(script)


_IDS = ["a", "b", "d", "e"]


@st.composite
def scripts(draw: st.DrawFn) -> dict[str, Any]:
    """Scripts that hold together: every turn leads to any, those that nobody reaches are left out, the last hands over."""
    made: list[dict[str, Any]] = [{"id": "e", "hands_over": True}]
    for id_ in ("d", "b", "a"):
        later = st.sampled_from([one["id"] for one in made])
        kind = draw(st.sampled_from(["choices", "text", "email", "goes on"]))
        if kind == "choices":
            ways = draw(
                st.lists(
                    later | st.sampled_from([None, *_IDS[: _IDS.index(id_) + 1]]), min_size=1, max_size=3
                )
            )
            turn = {
                "id": id_,
                "choices": [{"id": f"c{at}", "label": "x", "next": way} for at, way in enumerate(ways)],
            }
        else:
            turn = {"id": id_, "next": draw(later), **({} if kind == "goes on" else {"asks": kind})}
        made.insert(0, turn)
    found, waiting = {"a"}, ["a"]
    while waiting:
        here = waiting.pop()
        one = next(each for each in made if each["id"] == here)
        ways = [one.get("next"), *(each["next"] for each in one.get("choices", []))]
        waiting += [way for way in ways if way and way not in found]
        found |= {way for way in ways if way}
    return turns(*(one for one in made if one["id"] in found))


_said = st.sampled_from(
    [choice("c0"), choice("c1"), {"text": "nope"}, {"address": {"email": "ife@post.example"}}]
)


@given(scripts(), st.lists(_said, max_size=12))
def test_whatever_is_said_a_script_answers_or_a_person_does(
    data: dict[str, Any], said: list[dict[str, Any]]
) -> None:
    try:
        script = Script.model_validate(data)
    except ValidationError as refused:
        assert "cannot end" in str(refused)  # noqa: PT017  # choices that only lead back are all that may be wrong
        return
    played = [begin(script, WORDS)]
    for one in [*said, {"text": "a"}]:
        turn = played[-1]
        assert len(json.dumps(turn.state)) < 100
        assert turn.choices or turn.asks or turn.state.get("handed")
        try:
            played.append(take(script, turn.state, one, WORDS))
        except ValueError:
            continue
    assert sum(HandOver() in turn.effects for turn in played) <= 1


@pytest.mark.parametrize(("typed", "ids"), OFFERED["typed"])
def test_questions_that_match_what_is_typed_are_offered(typed: str, ids: list[int]) -> None:
    assert list(offered(OFFERED["questions"], typed)) == ids


def test_a_slot_that_nothing_is_known_for_has_words_that_are_always_true() -> None:
    handed = take(BOATHOUSE, begin(BOATHOUSE, {}).state, {"text": "Hello?"}, {})
    assert handed.messages == ("One of us answers as soon as we can.",)
