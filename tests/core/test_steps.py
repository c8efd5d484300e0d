"""Steps and what chooses them, purposes and stances, changes, the open file, slots for a call."""

import json
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Any, get_args

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError

from intavo.core.csvsafe import harmless
from intavo.core.hours import is_open
from intavo.core.slots import call_slots
from intavo.core.touchpoint import (
    STARTERS,
    AnswerErrors,
    BadFile,
    Document,
    Purpose,
    Stance,
    changes,
    check_answers,
    low_score,
    read,
    said_answers,
    way_to,
    with_confirmation,
    with_purpose,
    with_stance,
    written,
)
from intavo.core.touchpoint.answers import next_step
from intavo.core.touchpoint.leading import about_confirming
from intavo.core.touchpoint.rules import HowOften

from .hours_examples import BOATHOUSE

# Played by the script's own tests as well.
LEADING = json.loads((Path(__file__).parents[1] / "vectors" / "leading" / "steps.json").read_text())
BY_KEY = {one.key: one for one in STARTERS}
GROUP, SCORE, EITHER = (BY_KEY[key].document for key in ("group", "score", "either-or"))


def test_every_purpose_and_asking_has_a_starter_and_all_keys_differ() -> None:
    assert len(STARTERS) >= 16
    assert len(BY_KEY) == len(STARTERS)
    assert {one.document.purpose for one in STARTERS} == set(get_args(Purpose))
    assert {one.document.stance for one in STARTERS} == set(get_args(Stance))
    assert {one.asks for one in STARTERS} == {"nothing", "click", "address", "several"}


@pytest.mark.parametrize("key", sorted(BY_KEY.keys() - {"call", "empty", "message-link", "talk"}))
def test_every_starter_that_opens_has_a_picture_with_its_description(key: str) -> None:
    pictures = [part for part in BY_KEY[key].document.parts() if part.kind == "picture"]
    assert pictures
    assert all(part.asset and part.description for part in pictures)


@pytest.mark.parametrize(
    ("document", "step", "answers", "way"),
    [
        (GROUP, "reach", {"people": "12"}, ["ask", "reach"]),
        (SCORE, "sorry", {"score": "3"}, ["ask", "sorry"]),
        (SCORE, "glad", {"score": "9"}, ["ask", "glad"]),
        (SCORE, "glad", {"score": "3"}, ["glad"]),
        (EITHER, "before", {"choice": "before"}, ["ask", "before"]),
    ],
)
def test_answers_choose_the_way(document: Document, step: str, answers: dict, way: list[str]) -> None:
    assert [one.id for one in way_to(document, step, answers)] == way


@pytest.mark.parametrize("case", LEADING, ids=lambda one: one["name"])
def test_a_step_leads_where_the_script_goes_too(case: dict) -> None:
    steps = [{"id": "ask", "parts": case["parts"]}, *({"id": one} for one in ("sorry", "glad", "thanks"))]
    document = Document.model_validate({"purpose": "feedback", "stance": "in-page", "steps": steps})
    assert next_step(document, "ask", case["answers"]) == case["next"]


def test_what_an_earlier_step_requires_cannot_be_left_out() -> None:
    with pytest.raises(AnswerErrors) as refused:
        check_answers(GROUP, "reach", {"email": "a@post.example", "name": "A"}, {}, "GB")
    assert [field for field, _ in refused.value.errors] == ["answers.people"]
    checked = check_answers(
        GROUP, "reach", {"email": "a@post.example", "name": "A", "people": "12"}, {}, "GB"
    )
    assert (checked.next, checked.values["people"]) == ("thanks", "12")


@pytest.mark.parametrize(
    ("answers", "place"),
    [({"people": "1"}, "answers.people"), ({"people": "many"}, "answers.people"), ({"people": "3", "day": "soon"}, "answers.day"),
     ({"people": "3", "occasion": "war"}, "answers.occasion")],
)  # fmt: skip
def test_numbers_days_and_choices_are_checked(answers: dict, place: str) -> None:
    with pytest.raises(AnswerErrors) as refused:
        check_answers(GROUP, "ask", answers, {}, "GB")
    assert [field for field, _ in refused.value.errors] == [place]


def test_answers_are_said_as_people_read_them() -> None:
    call = BY_KEY["call-back"].document
    assert said_answers(call, {"time": "2026-11-25T10:30:00+00:00", "phone": "07700 900123"}) == [
        ["When?", "Wed 25 Nov, 10:30"],
        ["Your phone number", "07700 900123"],
    ]
    assert said_answers(GROUP, {"occasion": "school", "people": "14"})[1] == [
        "What is the occasion?",
        "School or club",
    ]
    assert said_answers(EITHER, {"choice": "before"}) == [
        ["Your first time, or have you done this before?", "Done it before"]
    ]
    assert said_answers(call, {"time": "soon"}) == [["When?", "soon"]]


def test_a_low_score_is_one_at_or_below_its_line() -> None:
    assert [low_score(SCORE, {"score": str(n)}) for n in (0, 6, 7, 10)] == [True, True, False, False]
    assert not low_score(SCORE, {})
    with pytest.raises(AnswerErrors):
        check_answers(SCORE, "ask", {"score": "11"}, {}, "GB")


@pytest.mark.parametrize("key", BY_KEY)
@pytest.mark.parametrize("purpose", get_args(Purpose))
def test_another_purpose_keeps_every_word_and_the_look(key: str, purpose: Purpose) -> None:
    before = BY_KEY[key].document
    after = with_purpose(before, purpose)
    assert after.purpose == purpose
    assert after.look == before.look
    kept = {part.id: part.model_dump(exclude={"hidden"}) for part in after.parts()}
    assert all(kept[part.id] == part.model_dump(exclude={"hidden"}) for part in before.parts())


def test_going_to_another_purpose_and_back_shows_the_same_fields_again() -> None:
    before = BY_KEY["news"].document
    notice = with_purpose(before, "notice")
    assert all(part.hidden for part in notice.fields())
    back = with_purpose(notice, "sign-up")
    assert [part.name for part in back.fields("email") if not part.hidden] == ["email"]
    assert not next(back.consents()).hidden


@pytest.mark.parametrize("stance", get_args(Stance))
def test_another_stance_keeps_words_and_colours_and_can_be_closed(stance: Stance) -> None:
    data = BY_KEY["news"].document.model_dump(mode="json")
    data["stance"], data["leaving"]["cross"], data["look"]["place"] = "in-page", None, "middle"
    data["look"]["colours"]["button"] = "#112233"
    after = with_stance(Document.model_validate(data), stance)
    assert [part.id for part in after.parts()] == [
        part["id"] for step in data["steps"] for part in step["parts"]
    ]
    assert after.look.colours.button == "#112233"
    assert with_stance(after, "pop-up").leaving.cross == 0


def changed(edit: Any) -> list[str]:
    """What the list says after an edit of the group starter."""
    data = json.loads(GROUP.model_dump_json())
    edit(data)
    return [one.words for one in changes(GROUP, Document.model_validate(data))]


def test_changes_are_said_in_words() -> None:
    def edit(data: dict) -> None:
        parts = data["steps"][0]["parts"]
        parts[1]["text"] = "More than four?"
        parts[2]["hidden"] = True
        data["look"]["phone"]["width"] = 300
        data["after"]["tags"] = ["groups"]
        parts.append({"id": "p99", "kind": "line"})

    assert changed(edit) == [
        "Line: new",
        "Headline: “Coming as a group?” becomes “More than four?”",
        "Text: hidden",
        "Width, on phones: as elsewhere → 300",
        "They get these tags: none → groups",
    ]
    assert changed(lambda data: None) == []
    assert changed(lambda data: data["steps"][0]["parts"].reverse()) == ["The order of the parts"]


@pytest.mark.parametrize(
    ("edit", "words"),
    [
        (lambda d: d["look"].update(pushes=False), ["Moves the page aside: as the house style → no"]),
        (lambda d: d["look"]["colours"].update(card="#000000"), ["Colour of “Card”: as the house style → #000000"]),
        (lambda d: d["show"]["how_often"].update(every="visit"), ["The show sentence, how often: at most once in 3 days → at most once a visit"]),
        (lambda d: d["leaving"].update(escape=False), ["Closed by Esc: yes → no"]),
        (lambda d: d["after"]["thank_you"].update(subject="Ho"),
         ["Subject of the thanks: “Your group” → “Ho”"]),
        (lambda d: d["steps"][0].update(name="Plan"), ["Step “What” is called “Plan”"]),
        (lambda d: d.update(purpose="notice"), ["What it is for: Inquiry → Notice"]),
        (lambda d: d.update(stance="card"), ["How it stands: Side panel → Card"]),
        (lambda d: d["look"].update(cross={"style": "word", "word": "No, thank you", "size": 36, "place": "end"}),
         ["Close sign: as the house style → a word, word “No, thank you”, size 36, at the end"]),
        (lambda d: d["look"].update(arrival="rise", house=False),
         ["Follows the house style: yes → no", "Comes: as usual → rises"]),
        (lambda d: d["after"].update(promise_minutes=1500), ["Answered within: 8 h → 25 h"]),
        (lambda d: d["after"].update(hours=3), ["Which hours apply: chosen"]),
    ],
)  # fmt: skip
def test_each_change_has_its_before_and_after(edit: Any, words: list[str]) -> None:
    assert changed(edit) == words


@pytest.mark.parametrize("key", BY_KEY)
def test_no_change_of_a_document_goes_unsaid(key: str) -> None:
    before = BY_KEY[key].document
    data = before.model_dump(mode="json")
    for whole in ("leaving", "after", "guard", "face", "spot", "show", "look"):
        for name, value in data[whole].items():
            if isinstance(value, bool):
                turned = json.loads(json.dumps(data))
                turned[whole][name] = not value
                try:
                    after = Document.model_validate(turned)
                except ValidationError:
                    continue
                assert changes(before, after), f"{whole}.{name}"


@pytest.mark.parametrize(
    ("first", "then", "words"),
    [
        (
            {"pages": [{"kind": "exact", "path": f"/{name}"} for name in "abcde"]},
            {"pages": [{"kind": "exact", "path": f"/{name}"} for name in "abcdf"]},
            "The show sentence, where: on /a, /b, /c, /d and /e → on /a, /b, /c, /d and /f",
        ),
        (
            {"pages": [{"kind": "contains", "path": "x", "query": False}]},
            {"pages": [{"kind": "contains", "path": "x", "query": True}]},
            "The show sentence: something that its words leave out",
        ),
        (
            {"during": {"only": "open", "hours": None}},
            {"during": {"only": "open", "hours": 7}},
            "The show sentence: something that its words leave out",
        ),
    ],
)
def test_what_the_words_of_a_sentence_leave_out_is_said_as_well(
    first: dict[str, Any], then: dict[str, Any], words: str
) -> None:
    before, after = (
        Document.model_validate(GROUP.model_dump(mode="json") | {"show": {"sentences": [sentence]}})
        for sentence in (first, then)
    )
    assert [change.words for change in changes(before, after)] == [words]


@pytest.mark.parametrize("every", get_args(HowOften.model_fields["every"].annotation))
def test_every_way_of_how_often_is_said(every: str) -> None:
    words = changed(lambda data: data["show"]["how_often"].update(every=every, most=2))
    assert [one.startswith("The show sentence, how often: ") for one in words] == [True]


@pytest.mark.parametrize("key", BY_KEY)
def test_a_file_comes_back_as_it_went_out(key: str) -> None:
    assert read(written(BY_KEY[key].document)) == BY_KEY[key].document


@pytest.mark.parametrize(
    ("text", "place", "said"),
    [
        ("{", "line 1", "not JSON"),
        ("[]", "file", "one object"),
        ("{}", "version", "which version"),
        ('{"version": 7}', "version", "of version 7"),
        ('{"version": 1, "purpose": "war", "steps": []}', "purpose", "sign-up"),
        ('{"version": 1, "purpose": "notice", "steps": [{"id": "ask", "parts": [{"id": "p1", "kind": "headline", "size": 3}]}]}',
         "steps.0.parts.0.size", "small"),
    ],
)  # fmt: skip
def test_a_file_that_cannot_be_taken_in_says_where(text: str, place: str, said: str) -> None:
    with pytest.raises(BadFile) as refused:
        read(text)
    assert any(at == place and said in words for at, words in refused.value.errors)


def test_a_file_takes_nobody_of_the_business_along() -> None:
    data = json.loads(GROUP.model_dump_json())
    data["after"] |= {"tell": [4], "hours": 7}
    out = json.loads(written(Document.model_validate(data)))
    assert (out["after"]["tell"], out["after"]["hours"]) == ([], None)


AT = datetime(2026, 11, 24, 14, 5, tzinfo=UTC)


@given(st.integers(5, 240), st.integers(0, 3000))
def test_slots_are_whole_open_and_after_the_notice(minutes: int, notice: int) -> None:
    length = timedelta(minutes=minutes)
    for slot in call_slots(BOATHOUSE, AT, length, timedelta(minutes=notice), {}, 1):
        assert slot.start >= AT + timedelta(minutes=notice)
        assert slot.end.astimezone(UTC) - slot.start.astimezone(UTC) == length
        assert is_open(BOATHOUSE, slot.start)
        assert is_open(BOATHOUSE, slot.end - timedelta(seconds=1))


def test_a_full_slot_is_not_offered_and_the_grid_begins_with_the_stretch() -> None:
    half_hours = call_slots(BOATHOUSE, AT, timedelta(minutes=30), timedelta(0), {}, 2)
    assert half_hours[0].start.minute % 30 == 0
    first = half_hours[0].start
    once, twice = ({first.astimezone(UTC): count} for count in (1, 2))
    assert call_slots(BOATHOUSE, AT, timedelta(minutes=30), timedelta(0), once, 2) == half_hours
    assert call_slots(BOATHOUSE, AT, timedelta(minutes=30), timedelta(0), twice, 2) == half_hours[1:]


@pytest.mark.parametrize("cell", ["=1+1", "+44", "-2", "@x", "\tx"])
def test_a_cell_is_never_a_formula(cell: str) -> None:
    assert harmless(cell) == f"'{cell}"
    assert harmless(f"a{cell}") == f"a{cell}"


def after_sending(document: Document) -> Any:
    """The step that sending leads to."""
    sends = next(one.does for one in document.parts() if one.kind == "button" and one.does.action == "send")
    return document.step(sends.next or "")


@pytest.mark.parametrize("purpose", ["sign-up", "inquiry"])
def test_what_was_begun_empty_and_made_to_ask_thanks_whoever_sends_it(purpose: Purpose) -> None:
    empty = Document.model_validate({"purpose": "notice", "steps": [{"id": "ask", "parts": []}]})
    thanks = after_sending(with_purpose(empty, purpose))
    assert thanks.id != "ask"
    assert [part.kind for part in thanks.parts] == ["headline", "reply", "button"]


@pytest.mark.parametrize("key", ["code", "news"])
def test_confirming_first_makes_the_steps_true_and_back_again(key: str) -> None:
    before = BY_KEY[key].document
    asked = with_confirmation(before, True)
    here = after_sending(asked)
    assert (here.parts[0].text, asked.after.confirm.next) == ("Look in your mail", "thanks")
    assert not [part for part in here.parts if part.kind == "code"]
    assert ("The code" in here.parts[1].html) is (key == "code")
    assert asked.after.confirm.subject
    assert asked.after.confirm.text
    again = with_confirmation(asked, False)
    assert again.steps == before.steps
    assert again.after.confirm.on is False


def test_not_confirming_any_more_thanks_at_once() -> None:
    at_once = with_confirmation(BY_KEY["file"].document, False)
    assert after_sending(at_once).parts[0].text == "Thank you"


@pytest.mark.parametrize(
    "said",
    [
        "Look in your mail", "Check your inbox", "Schauen Sie in Ihr Postfach", "Regardez vos courriels",
        "Mire su bandeja de entrada", "Controlla la tua email", "Kijk in je mailbox", "Sprawdź skrzynkę",
        "Veja o seu correio", "انظر في بريدك", "افتح البريد", "Merci de confirmer", "Bitte bestätigen",
    ],
)  # fmt: skip
def test_that_they_are_to_look_in_their_mail_is_understood_in_every_language(said: str) -> None:
    assert not _findings_on(said, confirms=True)


@pytest.mark.parametrize("said", ["Grazie della risposta", "Thank you", "Das ging raus"])
def test_that_they_are_not_told_to_look_in_their_mail_is_found(said: str) -> None:
    assert _findings_on(said, confirms=True) == [
        "They confirm by mail first, but nothing tells them to look in their mail."
    ]


@pytest.mark.parametrize("said", ["Please confirm", "Bitte bestätigen Sie", "Potwierdź adres", "أكّد عنوانك"])
def test_speaking_of_confirming_where_nobody_confirms_is_found_in_every_language(said: str) -> None:
    assert _findings_on(said, confirms=False) == ["It speaks of confirming, but they are not asked to."]


def _findings_on(said: str, confirms: bool) -> list[str]:
    """What is found on a step of these words, to which sending leads."""
    steps = [
        {
            "id": "ask",
            "parts": [
                {"id": "p1", "kind": "button", "label": "Go", "does": {"action": "send", "next": "then"}}
            ],
        },
        {"id": "then", "parts": [{"id": "p2", "kind": "headline", "text": said}]},
    ]
    document = Document.model_validate(
        {"purpose": "feedback", "steps": steps, "after": {"confirm": {"on": confirms}}}
    )
    return [one.message for one in about_confirming(document)]
