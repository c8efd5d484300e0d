"""What visitors are told in their tongue: every word has a translation, dates and clocks are the region's."""

import ast
import re
from datetime import UTC, datetime, timedelta
from pathlib import Path

import pytest

from intavo.core.dialogue import begin, straight, with_address_first
from intavo.core.people import email_address
from intavo.core.presence import Presence
from intavo.core.replies import (
    Cell,
    Promise,
    Reply,
    ReplySlotRun,
    Runs,
    Situation,
    choose,
    explain,
    fill,
    shipped,
    slots,
)
from intavo.core.say import day_name, moment_words, short_date, stamp, time_words
from intavo.core.showing import Hides
from intavo.core.tongues import SPOKEN, Phrase, Tongue, direction_of, in_tongue, say, tongue_of
from intavo.core.touchpoint import Document, for_visitors, speech_of
from scripts.cluster import ROOT
from scripts.words import catalogue, words

from .hours_examples import BOATHOUSE, LONDON, at

NOW = at("2026-11-24T14:05")
OTHERS = [one for one in SPOKEN if one != "en"]
PLACE = re.compile(r"\{\w+\}")


@pytest.mark.parametrize("language", OTHERS)
def test_every_word_is_translated_with_the_same_places(language: str) -> None:
    known = catalogue(language)
    found = {key: known.get(key) for key in words()}
    assert [key for key, one in found.items() if one is None or not str(one.string).strip()] == []
    wrong = [
        key
        for key, one in found.items()
        if sorted(PLACE.findall(key)) != sorted(PLACE.findall(str(one.string)))
    ]
    assert wrong == []


# What a member reads, or a machine.
MEMBERS = {"told.html", "told-of.html", "sender.html"}


@pytest.mark.parametrize(
    "page", [one for one in sorted((ROOT / "intavo/visitor/templates/visitor").iterdir()) if one.name not in MEMBERS],
    ids=lambda one: one.name,
)  # fmt: skip
def test_a_page_for_visitors_says_nothing_but_by_the_catalogue(page: Path) -> None:
    bare = re.sub(
        r"\{%.*?%\}|\{\{.*?\}\}|<style.*?</style>|<script.*?</script>|<!doctype html>", "", page.read_text()
    )
    said = re.findall(r'(?:aria-label|placeholder|title|alt)="([^"]*[A-Za-z]{2}[^"]*)"', bare)
    assert said + re.findall(r"[A-Za-z]{2,}", re.sub(r"<[^>]*>", "", bare)) == []


# Read by members alone: the mark of a rehearsal, and what stands on the stage where the owner has made nothing yet.
OWNERS = {
    "Rehearsal: nothing is counted or sent.", "End it", "Your ways to reach you stand here.",
    "Your questions & answers stand here; there are none yet.",
}  # fmt: skip
ENGLISH_WORDS = re.compile(
    r"['`](\(?[A-Za-z][a-z]+(?: [a-z]+)+[.?)]|[A-Z][a-z]+(?: (?:[a-z]+|\$\{))+[^'`]*|[A-Z][a-z]+ .*?\.)"
)


# Words of a document that the editor would write by itself.
WRITTEN = re.compile(r"\b(?:label: ?|says: ?\[\[|hint: ?|text: ?(?=['`][A-Z]))['`][A-Za-z]")


def test_the_editor_puts_no_words_of_its_own_into_what_visitors_read() -> None:
    places = [
        *(ROOT / "console/src/places/touchpoints").rglob("*.*"),
        *(ROOT / "console/src/places/hours").rglob("*.*"),
    ]
    names = {"look.ts", "channels.ts"}  # tables of names for the owner
    wrong = [
        f"{path.name}: {line.strip()[:80]}"
        for path in places
        if path.suffix in {".vue", ".ts"} and ".test." not in path.name and path.name not in names
        for line in path.read_text().splitlines()
        if WRITTEN.search(line)
    ]
    assert len(places) > 60
    assert wrong == []
    assert WRITTEN.search("{ id, label: 'Yes, please', tags: [] }")
    assert WRITTEN.search("says: [['And then?']]")


def test_the_script_carries_no_words_of_its_own() -> None:
    found = {}
    for path in (ROOT / "visitor-script/src").rglob("*.ts"):
        if path.name.endswith(".test.ts") or "generated" in path.parts:
            continue
        lines = [line for line in path.read_text().split("\n") if "console.warn" not in line]
        said = [one for line in lines for one in ENGLISH_WORDS.findall(line) if one not in OWNERS]
        labels = [one for line in lines for one in re.findall(r"'aria-label': '([^']+)'", line)]
        if said or labels:
            found[path.name] = said + labels
    assert found == {}


@pytest.mark.parametrize(
    ("tongue", "by", "then", "full"),
    [
        (Tongue("en", "GB"), "today by 15:25", "on Saturday at 08:00", "Mon 14 Dec, 08:00"),
        (Tongue("en", "US"), "today by 3:25 PM", "on Saturday at 8:00 AM", "Mon, Dec 14, 8:00 AM"),
        (Tongue("en", "AU"), "today by 3:25 pm", "on Saturday at 8:00 am", "Mon 14 Dec, 8:00 am"),
        (Tongue("en", "IE"), "today by 15:25", "on Saturday at 08:00", "Mon, 14 Dec, 08:00"),
        (Tongue("de", "DE"), "heute bis 15:25", "am Samstag um 08:00", "Mo., 14. Dez., 08:00"),
        (Tongue("de", "US"), "heute bis 3:25 PM", "am Samstag um 8:00 AM", "Mo., 14. Dez., 8:00 AM"),
        (Tongue("fr", "FR"), "aujourd’hui avant 15:25", "samedi à 08:00", "lun. 14 déc., 08:00"),
        (Tongue("es", "ES"), "hoy antes de las 15:25", "el sábado a las 8:00", "lun, 14 dic, 8:00"),
        (Tongue("it", "IT"), "oggi entro le 15:25", "sabato alle 08:00", "lun 14 dic, 08:00"),
        (Tongue("nl", "NL"), "vandaag vóór 15:25", "zaterdag om 08:00", "ma 14 dec, 08:00"),
        (Tongue("pt", "PT"), "hoje até às 15:25", "no sábado às 08:00", "segunda, 14/12, 08:00"),
        (Tongue("pl", "PL"), "dzisiaj do 15:25", "w sobotę o 08:00", "pon., 14 gru, 08:00"),
        (Tongue("ja", "GB"), "today by 15:25", "on Saturday at 08:00", "Mon 14 Dec, 08:00"),
        (Tongue("ar", "GB"), "اليوم قبل الساعة 15:25", "يوم السبت الساعة 08:00", "الاثنين، 14 ديسمبر، 08:00"),
    ],
)
def test_moments_in_each_tongue(tongue: Tongue, by: str, then: str, full: str) -> None:
    assert moment_words(at("2026-11-24T15:25"), NOW, LONDON, "by", tongue) == by
    assert moment_words(at("2026-11-28T08:00"), NOW, LONDON, "at", tongue) == then
    assert stamp(at("2026-12-14T08:00"), LONDON, tongue) == full


def test_where_clocks_differ_the_zone_is_named_in_the_tongue() -> None:
    said = moment_words(NOW + timedelta(hours=1), NOW, LONDON, "at", Tongue("es", "ES"), -300)
    assert said == "hoy a las 15:05 (hora de Londres)"


@pytest.mark.parametrize("language", SPOKEN)
@pytest.mark.parametrize("now", Situation)
def test_what_ships_is_said_whole_in_every_language(language: str, now: Situation) -> None:
    tongue = Tongue(language, "DE")
    reply = shipped(now, tongue)
    told = fill(reply.title, {}, tongue) + fill(reply.text, {}, tongue)
    assert told
    assert "{" not in told
    assert (told == fill(shipped(now).title, {}) + fill(shipped(now).text, {})) is (language == "en")


def test_a_reply_is_in_the_touchpoints_language_before_the_visitors_and_the_business() -> None:
    german, english = Cell(Situation.OPEN, None, "de"), Cell(Situation.OPEN, None, "en")
    table = {german: Reply(title=("Danke",)), english: Reply(title=("Thanks",))}
    assert choose(table, Situation.OPEN, "en-GB", "en", speaks="de").cell == german
    assert choose(table, Situation.OPEN, "de-AT", "en").cell == german
    assert choose({}, Situation.OPEN, "en", "fr").cell.language == "en"
    assert choose({}, Situation.OPEN, "ja", "fr").cell.language == "fr"
    assert choose({}, Situation.OPEN, "ja", "cy").cell.language == "en"
    assert choose({}, Situation.OPEN, "en", "fr", speaks="pl").reply.title == ("Dziękujemy",)


def test_slots_are_filled_in_the_tongue() -> None:
    tongue = Tongue("de", "DE")
    found = slots(BOATHOUSE, NOW, LONDON, None, tongue=tongue)
    assert (found["promise"], found["closing_time"]) == ("so bald wie möglich", "17:30")
    assert slots(BOATHOUSE, NOW, LONDON, None, tongue=Tongue("en", "US"))["closing_time"] == "5:30 PM"


@pytest.mark.parametrize(
    ("text", "minutes", "said"),
    [
        ((ReplySlotRun(slot="promise"),), 120, "Maw, 24 Tach 16:05"),
        (("Diolch ", ReplySlotRun(slot="first_name")), None, "Diolch"),
        (("Ar agor tan ", ReplySlotRun(slot="closing_time")), None, "Ar agor tan 17:30"),
        # No words of ours stand in the middle of theirs: all of it is said in the business's language.
        ((ReplySlotRun(slot="promise"),), None, "We answer as soon as we can."),
        ((ReplySlotRun(slot="open_now"),), 120, "We answer today by 16:05."),
    ],
)
def test_a_language_that_we_have_no_words_in_is_whole_or_not_at_all(
    text: Runs, minutes: int | None, said: str
) -> None:
    table = {
        Cell(Situation.OPEN, None, "cy"): Reply(text=text),
        Cell(Situation.OPEN, None, "en"): Reply(text=("We answer ", ReplySlotRun(slot="promise"), ".")),
    }
    told = explain(
        BOATHOUSE, NOW, table=table, language="cy-GB", promise=Promise.of_minutes(minutes), region="GB"
    )
    assert told.text == said


def test_words_with_places_are_made_anew_and_an_owners_words_stay() -> None:
    error = Phrase("Please fill in “{label}”.", label="Yes")
    assert error == "Please fill in “Yes”."
    assert in_tongue(error, Tongue("de", "DE")) == "Bitte füllen Sie „Yes“ aus."
    assert in_tongue("Yes", Tongue("de", "DE")) == "Yes"
    assert say("Yes", Tongue("de", "DE")) == "Ja"


def test_why_an_address_cannot_be_right_is_said_in_english_alone() -> None:
    with pytest.raises(ValueError, match="cannot be right: ") as error:
        email_address("name@exa mple.com")
    told = error.value.args[0]
    assert in_tongue(told, Tongue("de", "DE")) == "Diese E-Mail-Adresse kann nicht stimmen."


def test_which_tongue_is_spoken() -> None:
    assert tongue_of(("", "de-AT", "en"), "AT") == Tongue("de", "AT")
    assert tongue_of(("", ""), "GB") == Tongue("en", "GB")
    assert Tongue("ja", "JP").spoken == "en"
    assert (direction_of("ar"), direction_of("he-IL"), direction_of("de"), direction_of("xx")) == (
        "rtl",
        "rtl",
        "ltr",
        "ltr",
    )


def document(*parts: dict[str, object], **more: object) -> Document:
    steps = [{"id": "one", "parts": [{"id": f"p{at}", **part} for at, part in enumerate(parts)]}]
    return Document.model_validate({"purpose": "notice", "stance": "card", "steps": steps, **more})


def test_a_touchpoint_gets_the_words_that_it_needs_and_no_others() -> None:
    plain = speech_of(document({"kind": "text", "html": "<p>Hi</p>"}), Tongue("fr", "CA"))
    assert (plain["lang"], plain["locale"], plain["dir"]) == ("fr", "fr-CA", "")
    assert set(plain["words"]) == {"close", "message", "trap", "kept", "thanks"}
    assert plain["words"]["close"] == "Fermer"
    field: dict[str, object] = {"kind": "field", "input": "slot", "name": "time", "label": "When?"}
    asks = speech_of(document(field, {"kind": "share"}), Tongue("ar", "AE"))
    assert {"optional", "no_time", "copy_link"} <= set(asks["words"])
    assert "send" not in asks["words"]
    assert asks["dir"] == "rtl"
    said = speech_of(document({"kind": "line"}, language="fr"), Tongue("fr", "CA"))
    assert said["dir"] == "ltr"
    hidden = speech_of(document(field | {"hidden": True}), Tongue())
    assert "no_time" not in hidden["words"]


def test_what_the_owner_left_as_it_ships_is_said_in_the_tongue() -> None:
    for hint, said in (("Write to us", "Schreiben Sie uns"), ("Ask away", "Ask away")):
        seen = for_visitors(document({"kind": "talk", "hint": hint}), tongue=Tongue("de", "DE"))
        assert seen["steps"][0]["parts"][0]["hint"] == said


def test_a_conversation_without_a_script_of_its_own_speaks_the_tongue() -> None:
    tongue = Tongue("de", "DE")
    turn = begin(with_address_first(straight(tongue), tongue), {})
    assert turn.messages[0].startswith("Hinterlassen Sie zuerst")
    assert in_tongue(turn.choices[0].label, tongue) == "Lieber nicht"


def test_names_and_times_by_themselves() -> None:
    assert (day_name(5, Tongue("pl", "PL")), day_name(0)) == ("sobota", "Monday")
    assert time_words(datetime(2026, 1, 1, 0, 5, tzinfo=UTC).time(), Tongue("en", "US")) == "12:05 AM"
    assert short_date(NOW.date(), Tongue("en", "CA")).startswith("Tue")


# Where what a visitor sends is read; and what is said there to a program, or to a member, alone.
READ_IN = (
    "core/touchpoint/answers.py", "core/touchpoint/parts/part.py", "core/touchpoint/parts/fields.py",
    "core/touchpoint/parts/choosing.py", "core/people/matching.py", "intake/actions/sent.py", "intake/actions/slots.py",
    "intake/actions/calls.py", "talks/files.py", "talks/actions.py",
)  # fmt: skip
OF_PROGRAMS = {
    "This revision was never live.", "There is no such touchpoint.", "There is no conversation of this touchpoint.",
    "There is no step “", "two choices are the same", "the least is more than the most",
    "say a text, a choice, or an address: one of them", "please write something",
}  # fmt: skip


def said_plainly(tree: ast.AST) -> set[str]:
    """What is raised in words that are no Phrase."""
    found: set[str] = set()
    for raised in (
        node.exc for node in ast.walk(tree) if isinstance(node, ast.Raise) and node.exc is not None
    ):
        marked = {
            id(inner)
            for call in ast.walk(raised)
            if isinstance(call, ast.Call) and isinstance(call.func, ast.Name) and call.func.id == "Phrase"
            for inner in ast.walk(call)
        }
        for one in ast.walk(raised):
            if isinstance(one, ast.Constant) and isinstance(one.value, str) and id(one) not in marked:
                found |= {one.value} if " " in one.value.strip() else set()
    return found


@pytest.mark.parametrize("path", READ_IN)
def test_what_is_refused_of_a_visitor_is_said_by_the_catalogue(path: str) -> None:
    assert said_plainly(ast.parse((ROOT / "intavo" / path).read_text())) - OF_PROGRAMS == set()


def test_the_search_for_plain_words_finds_them() -> None:
    tree = ast.parse('raise Refused(("time", "Please choose."), ("day", Phrase("Not that day.")))')
    assert said_plainly(tree) == {"Please choose."}


def test_a_button_is_hidden_by_the_reply_that_its_own_language_would_give() -> None:
    table = {Cell(Situation.OPEN, "tp_1", "de"): Reply(hidden=True)}
    spoken_german, silent = (
        Hides(table, "tp_1", "en", BOATHOUSE, (Presence(1),), speaks) for speaks in ("de", "")
    )
    assert spoken_german.now(NOW, "en") is Situation.OPEN
    assert silent.now(NOW, "en") is None
    assert silent.now(NOW, "de-AT") is Situation.OPEN


def test_every_word_that_a_conversation_says_goes_with_its_plan() -> None:
    document = Document.model_validate(
        {"purpose": "message", "steps": [{"id": "ask", "parts": [{"id": "p1", "kind": "talk"}]}]}
    )
    source = "".join(
        (ROOT / "visitor-script" / "src" / "more" / name).read_text() for name in ("talking.ts", "telling.ts")
    )
    said = set(re.findall(r"say\(this\.drawing, '(\w+)'", source)) | {"helped", "yes", "no", "good", "ask_us"}
    assert said - set(speech_of(document, Tongue("en", "GB"))["words"]) == set()
