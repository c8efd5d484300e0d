"""A business whose visitors are spoken to in another tongue: plan, errors, replies, pages, mail and calls."""

import re
from collections.abc import Callable
from typing import Any

import pytest
from django.test import Client

from intavo.accounts.actions import change_business
from intavo.accounts.edits import Edit
from intavo.accounts.models import Business
from intavo.intake.models import Booking
from intavo.mail.models import OutgoingMail
from intavo.sites.actions import change_site
from intavo.touchpoints import live
from intavo.touchpoints.actions import make, save_draft, turn_on
from intavo.touchpoints.models import Touchpoint

from .conftest import Visitor, World, sending


def made(world: World, starter: str, **more: Any) -> Touchpoint:
    """A live touchpoint from a starter, with something of its document changed."""
    row = make(world.owner, starter=starter, name=f"A {starter} {more.get('language', '')}")
    document = dict(row.draft.document)
    after = document["after"] | more.pop("after", {})
    save_draft(world.owner, touchpoint_id=row.pk, document=document | more | {"after": after}, based_on=1)
    return turn_on(world.owner, touchpoint_id=row.pk)


def spoken(world: World, language: str, region: str = "DE") -> None:
    """The business speaks to its visitors so from now on."""
    business = world.business
    change_business(
        world.owner,
        name=business.name,
        mail_address=business.mail_address,
        promise_minutes=120,
        language=language,
        region=region,
    )


@pytest.fixture
def german(otterwick: World) -> World:
    spoken(otterwick, "de")
    return otterwick


def seen(visitor: Visitor, row: Touchpoint) -> Any:
    """A touchpoint as the plan gives it."""
    plan = visitor.plan("/", open=row.slug).json()
    return next(one for one in plan["touchpoints"] if one["id"] == row.public_id)["document"]


def test_which_language_holds_the_touchpoints_the_sites_or_the_businesss(
    otterwick: World, visitor: Visitor
) -> None:
    own = made(otterwick, "question", language="fr")
    row, tongues = otterwick.touchpoint, []
    changes: tuple[Callable[[], object], ...] = (
        lambda: None,
        lambda: spoken(otterwick, "de"),
        lambda: said_by_the_site(otterwick, "pl"),
    )
    for change in changes:
        change()
        live._sites.clear()  # what is known of a site is good for a second
        plan = {
            one["lang"]: one["words"]["close"]
            for one in (seen(visitor, each)["speech"] for each in (row, own))
        }
        tongues.append(plan)
    assert tongues == [
        {"en": "Close", "fr": "Fermer"},
        {"de": "Schließen", "fr": "Fermer"},
        {"pl": "Zamknij", "fr": "Fermer"},
    ]


def said_by_the_site(world: World, language: str) -> None:
    site = world.site
    said = {"name": site.name, "hosts": ["otterwick.example"], "language": language}
    change_site(world.owner, site_id=site.pk, edit=Edit(said))


def test_errors_and_the_reply_are_in_the_tongue(german: World, visitor: Visitor) -> None:
    row = german.touchpoint
    wrong = visitor.post("intake", sending(row, answers={"email": "ife"}, consents={}))
    assert [one["message"] for one in wrong.json()["errors"]] == [
        "Eine E-Mail-Adresse enthält ein @, etwa name@example.com.",
        "Bitte setzen Sie hier ein Häkchen, um fortzufahren.",
    ]
    assert wrong.json()["title"] == "Etwas stimmt noch nicht."
    taken = visitor.post("intake", sending(row, 2))
    assert taken.json()["says"] == {"title": "Vielen Dank", "text": "Wir antworten heute bis 16:05."}


def test_a_touchpoint_of_its_own_language_speaks_it_all_through(otterwick: World, visitor: Visitor) -> None:
    row = made(otterwick, "question", language="es")
    missing = visitor.post("intake", sending(row, answers={}, consents={}))
    assert all(one["message"].startswith("Rellene «") for one in missing.json()["errors"])
    taken = visitor.post(
        "intake", sending(row, 2, answers={"question": "¿Cuándo?", "email": "ife@post.example"})
    )
    assert taken.json()["says"]["text"] == "Respondemos hoy antes de las 16:05."


def test_mail_and_the_page_to_confirm_are_in_the_tongue(german: World, visitor: Visitor) -> None:
    row = made(german, "news", after={"confirm": {"on": True, "subject": "Bitte bestätigen"}})
    assert visitor.post("intake", sending(row)).status_code == 201
    mail = OutgoingMail.objects.get(key__startswith="confirm-")
    assert mail.text.startswith("Guten Tag Ife,")
    assert "Bitte bestätigen Sie hier: http" in mail.text
    link = re.search(r"/c/\S+", mail.text)
    assert link is not None
    page = Client().get(link[0]).content.decode()
    assert '<html lang="de" dir="ltr">' in page
    assert "Noch ein Klick" in page
    assert "Ja, das war ich" in page
    assert "Sie können diese Seite schließen." in Client().post(link[0]).content.decode()
    assert (
        "Dieser Link gilt nicht mehr"
        in Client().get("/c/unknown", HTTP_ACCEPT_LANGUAGE="de-AT,en").content.decode()
    )


def test_the_hosted_page_says_what_it_says_in_the_tongue(german: World) -> None:
    path = f"/t/{german.site.slug}/{german.touchpoint.slug}"
    page = Client().get(path).content.decode()
    assert '<html lang="de" dir="ltr">' in page
    assert "(wenn Sie mögen)" in page
    wrong = Client().post(path, dict(re.findall(r'type="hidden" name="(\w+)" value="(\w*)"', page)))
    assert "Bitte füllen Sie „Your email“ aus." in wrong.content.decode()
    assert "Das gibt es hier nicht mehr" in Client().get(f"/t/{german.site.slug}/gone").content.decode()


def test_an_arabic_page_is_read_from_the_right(otterwick: World, visitor: Visitor) -> None:
    row = made(otterwick, "question", language="ar")
    assert seen(visitor, row)["speech"]["dir"] == "rtl"
    assert (
        '<html lang="ar" dir="rtl">' in Client().get(f"/t/{otterwick.site.slug}/{row.slug}").content.decode()
    )


def calling(world: World, part: Any = None, after: Any = None) -> Touchpoint:
    """A call-back that asks for an address as well, with one more part and more after it."""
    row = make(world.owner, starter="call-back", name="Call me back")
    document = dict(row.draft.document)
    email = {"id": "pe", "kind": "field", "input": "email", "name": "email", "label": "Email"}
    document["steps"][0]["parts"] += [email, part] if part else [email]
    document["after"] |= after or {}
    save_draft(world.owner, touchpoint_id=row.pk, document=document, based_on=1)
    return turn_on(world.owner, touchpoint_id=row.pk)


@pytest.mark.parametrize(
    ("language", "region", "slot", "told", "subject", "on_the_page"),
    [
        ("de", "DE", ("Di., 24. Nov.", "15:30"), "Wir rufen Sie heute um 15:30 an.",
         "Ihr Anruf mit Otterwick ist gebucht: Di., 24. Nov., 15:30", "Verschieben auf"),
        ("en", "US", ("Tue, Nov 24", "3:30 PM"), "We call you today at 3:30 PM.",
         "Your call with Otterwick is booked: Tue, Nov 24, 3:30 PM", "Move it to"),
    ],
)  # fmt: skip
def test_a_call_is_offered_booked_mailed_and_moved_in_the_tongue(
    otterwick: World,
    visitor: Visitor,
    language: str,
    region: str,
    slot: tuple[str, str],
    told: str,
    subject: str,
    on_the_page: str,
) -> None:
    spoken(otterwick, language, region)
    row = calling(otterwick)
    asked = {"touchpoint": row.public_id, "revision": row.live.number}
    first = visitor.post("more", asked).json()["slots"]["time"][0]
    assert (first["day"], first["time"]) == slot
    answers = {"phone": "+447700900111", "email": "ife@post.example", "time": first["value"]}
    sent = visitor.post("intake", sending(row, answers=answers, consents={}))
    assert sent.json()["says"]["text"] == told
    us, them = OutgoingMail.objects.order_by("pk")
    assert them.subject == subject
    assert us.subject.startswith("A call is booked: Ife") or us.subject.startswith(
        "A call is booked: somebody"
    )
    page = Client().get(f"/b/{Booking.objects.get().token}").content.decode()
    assert on_the_page in page
    assert f"{slot[0]}, {slot[1]}" in page


def test_the_owners_reply_in_another_tongue_puts_no_word_of_it_into_ours(
    otterwick: World, visitor: Visitor, monkeypatch: pytest.MonkeyPatch
) -> None:
    said_by_the_site(otterwick, "de")
    reply = {"title": ["Ahoy"], "text": ["You hear from us ", {"slot": "promise"}, "."]}
    put = otterwick.console().put("/api/replies/open", {"reply": reply}, "application/json")
    assert put.status_code == 204
    live._sites.clear()
    shows = {"id": "ph", "kind": "hours"}
    thanks = {"send": True, "subject": "Danke", "text": ["Antwort ", {"slot": "promise"}, "."]}
    row = calling(otterwick, shows, {"thank_you": thanks})
    more = visitor.post("more", {"touchpoint": row.public_id, "revision": row.live.number}).json()
    assert more["hours"]["says"] == "Jetzt geöffnet, bis 17:30"
    answers = {
        "phone": "+447700900111",
        "email": "ife@post.example",
        "time": more["slots"]["time"][0]["value"],
    }
    sent = visitor.post("intake", sending(row, answers=answers, consents={}))
    assert sent.json()["says"] == {
        "title": "Ihr Anruf ist gebucht",
        "text": "Wir rufen Sie heute um 15:30 an.",
    }
    assert "Antwort heute um 15:30." in OutgoingMail.objects.get(subject="Danke").text
    # What the owner wrote stays as it was written, all of it.
    question = made(otterwick, "question")
    asked = sending(question, 2, answers={"question": "Wann?", "email": "ife@post.example"})
    assert visitor.post("intake", asked).json()["says"]["text"] == "You hear from us today by 16:05."
    monkeypatch.setenv("INTAVO_NOW", "2026-11-24T19:00:00+00:00")
    later = visitor.post("more", {"touchpoint": row.public_id, "revision": row.live.number}).json()
    assert later["hours"]["says"] == "Gerade geschlossen, wieder offen morgen um 09:00"


def test_what_a_script_says_of_times_is_in_what_its_touchpoint_speaks(
    talking: World, visitor: Visitor
) -> None:
    reply = {"title": ["Ahoy"], "text": ["You hear from us ", {"slot": "promise"}, "."]}
    put = talking.console().put("/api/replies/open", {"reply": reply}, "application/json")
    assert put.status_code == 204
    said_by_the_site(talking, "de")
    live._sites.clear()
    talk = visitor.post("talks", sending(talking.touchpoint)).json()["talk"]
    steps: list[dict[str, Any]] = [
        {"choice": "c1"}, {"text": "Samstag"}, {"address": {"email": "ife@post.example"}},
    ]  # fmt: skip
    for number, step in enumerate(steps, 1):
        told = visitor.post(f"talks/{talk}/messages", {"id": f"message-{number}", **step}).json()
    assert told["messages"][-1]["text"] == "One of us answers heute bis 16:05."


def test_a_region_sets_the_consoles_clock_dates_and_week(otterwick: World) -> None:
    spoken(otterwick, "en", "US")
    console = otterwick.console()
    me = console.get("/api/me").json()["business"]
    assert (me["region"], me["currency"], me["week_start"], me["language"]) == ("US", "USD", 6, "en")
    assert console.get("/api/day").json()["until"] == "open till 5:30 PM"
    assert console.get("/api/hours").json()["promise_now"] == "today by 4:05 PM"
    spoken(otterwick, "de", "DE")
    assert console.get("/api/day").json()["until"] == "open till 17:30"
    # An English sentence of the console, with the region's clock; what visitors are told is in theirs.
    told = {one["situation"]: one for one in console.get("/api/hours").json()["told"]}
    assert told["open"]["text"] == "Wir antworten heute bis 16:05."
    assert console.get("/api/hours").json()["promise_now"] == "today by 16:05"


def test_one_members_clock_is_not_the_next_ones(otterwick: World, other: World) -> None:
    spoken(otterwick, "en", "US")
    for _ in range(2):
        assert otterwick.console().get("/api/day").json()["until"] == "open till 5:30 PM"
        assert other.console().get("/api/day").json()["until"] == "open till 17:30"


@pytest.mark.parametrize(("region", "language"), [("DE", "de"), ("US", "en"), ("BR", "pt"), ("JP", "ja")])
def test_a_new_business_speaks_what_is_spoken_in_its_country(
    otterwick: World, region: str, language: str
) -> None:
    user = otterwick.user
    client = Client()
    client.force_login(user)
    body = {"name": "Another", "timezone": "Europe/London", "region": region}
    assert client.post("/api/business", body, content_type="application/json").status_code == 201
    assert Business.objects.latest("pk").language == language


def test_a_language_or_region_that_is_none_is_refused_with_its_field(otterwick: World) -> None:
    console = otterwick.console()
    about = {"name": "Otterwick", "mail_address": "hello@otterwick.example", "promise_minutes": 120}
    for field, value in (("language", "klingon"), ("region", "Q7"), ("region", "QQ")):
        answer = console.put("/api/business", about | {field: value}, content_type="application/json")
        assert (answer.status_code, answer.json()["errors"][0]["field"]) == (422, field)
    site = f"/api/sites/{otterwick.site.pk}"
    answer = console.put(
        site, {"hosts": ["otterwick.example"], "language": "deutsch"}, content_type="application/json"
    )
    assert (answer.status_code, answer.json()["errors"][0]["field"]) == (422, "language")


def test_the_editor_draws_in_the_tongue_and_says_what_changed(german: World) -> None:
    row, console = german.touchpoint, german.console()
    one = console.get(f"/api/touchpoints/{row.pk}").json()
    assert one["speech"]["words"]["close"] == "Schließen"
    document = one["document"] | {"language": "it"}
    body = {"document": document, "based_on": one["number"]}
    changed = console.put(f"/api/touchpoints/{row.pk}/draft", body, content_type="application/json").json()
    assert changed["speech"]["words"]["close"] == "Chiudi"
    assert [each["words"] for each in changed["changes"]] == ["Language: as its site → Italian"]


def test_a_starter_begins_in_what_the_visitors_read(german: World) -> None:
    console = german.console()
    shown = {one["key"]: one["seen"] for one in console.get("/api/starters").json()}
    labels = [part.get("label") for part in shown["question"]["steps"][0]["parts"]]
    assert "Meine Frage senden" in labels
    assert shown["question"]["speech"]["lang"] == "de"
    row = make(german.owner, starter="news", name="Neues")
    said = [part.get("label") or part.get("text") for part in row.draft.document["steps"][0]["parts"]]
    assert {"Ihre E-Mail-Adresse", "Vorname", "Halten Sie mich auf dem Laufenden"} <= set(said)
    # What is still as it shipped is looked at, in whichever language.
    found = console.get(f"/api/touchpoints/{row.pk}").json()["findings"]
    assert any("starter's words" in one["message"] for one in found)


def test_what_turning_adds_is_in_the_tongue_and_the_owners_words_stay(german: World) -> None:
    console, row = german.console(), german.touchpoint
    path = f"/api/touchpoints/{row.pk}"
    turned = console.post(f"{path}/turn-into", {"purpose": "inquiry"}, content_type="application/json").json()
    labels = [part.get("label") for part in turned["document"]["steps"][0]["parts"]]
    assert "Ihre Frage" in labels
    assert "Keep me posted" in labels  # the English of before was the owner's choice
    confirms = console.post(f"{path}/turn-into", {"confirm": True}, content_type="application/json").json()
    heads = [step["parts"][0]["text"] for step in confirms["document"]["steps"]]
    assert "Schauen Sie in Ihre E-Mail" in heads
    back = console.post(f"{path}/turn-into", {"confirm": False}, content_type="application/json").json()
    assert "Schauen Sie in Ihre E-Mail" not in [
        step["parts"][0]["text"] for step in back["document"]["steps"]
    ]


def comes_to(visitor: Visitor, language: str) -> set[str]:
    """Which touchpoints come by themselves to somebody who reads a language."""
    live._sites.clear()
    plan = visitor.plan("/", visitor={"language": language}).json()
    return {one["slug"] for one in plan["touchpoints"] if one["moments"]}


def test_the_ready_check_names_what_a_copy_says_in_the_first_language(otterwick: World) -> None:
    console, row = otterwick.console(), otterwick.touchpoint
    first = console.get(f"/api/touchpoints/{row.pk}").json()
    first["document"]["steps"][0]["parts"][0]["text"] = "Letters from the boathouse, once a month"
    kept = {"document": first["document"], "based_on": first["number"]}
    console.put(f"/api/touchpoints/{row.pk}/draft", kept, content_type="application/json")
    made = console.post(
        f"/api/touchpoints/{row.pk}/copy", {"language": "de"}, content_type="application/json"
    ).json()
    part = made["document"]["steps"][0]["parts"][0]
    assert [(one["message"], one["place"]) for one in made["findings"] if "as in" in one["message"]] == [
        ("A text is still as in “News of Otterwick”: write it in German.", part["id"])
    ]
    part["text"] = "Briefe aus dem Bootshaus, einmal im Monat"
    kept = {"document": made["document"], "based_on": made["number"]}
    now = console.put(f"/api/touchpoints/{made['id']}/draft", kept, content_type="application/json").json()
    assert not [one for one in now["findings"] if "as in" in one["message"]]


def test_a_copy_in_another_language_is_for_who_reads_it_and_the_first_for_all_others(
    otterwick: World, visitor: Visitor
) -> None:
    console, row = otterwick.console(), otterwick.touchpoint
    made = console.post(
        f"/api/touchpoints/{row.pk}/copy", {"language": "de"}, content_type="application/json"
    ).json()
    assert (made["name"], made["document"]["language"]) == ("News of Otterwick, German", "de")
    labels = [part.get("label") for part in made["document"]["steps"][0]["parts"]]
    assert "Halten Sie mich auf dem Laufenden" in labels
    assert comes_to(visitor, "de-AT") == {row.slug}
    console.post(f"/api/touchpoints/{made['id']}/on", {}, content_type="application/json")
    assert comes_to(visitor, "de-AT") == {made["slug"]}
    assert comes_to(visitor, "fr") == {row.slug}
    others = console.get(f"/api/touchpoints/{row.pk}").json()["in_other_languages"]
    assert [(one["language"], one["on"]) for one in others] == [("de", True)]
    again = console.post(
        f"/api/touchpoints/{made['id']}/copy", {"language": "fr"}, content_type="application/json"
    ).json()
    assert {one["language"] for one in again["in_other_languages"]} == {"", "de"}
    console.post(f"/api/touchpoints/{again['id']}/on", {}, content_type="application/json")
    assert [comes_to(visitor, one) for one in ("fr", "de", "pl")] == [
        {again["slug"]},
        {made["slug"]},
        {row.slug},
    ]
    console.post(f"/api/touchpoints/{made['id']}/off", {}, content_type="application/json")
    assert comes_to(visitor, "de") == {row.slug}
    wrong = console.post(
        f"/api/touchpoints/{row.pk}/copy", {"language": "xx"}, content_type="application/json"
    )
    assert (wrong.status_code, wrong.json()["errors"][0]["field"]) == (422, "language")


def test_a_copy_says_what_shipped_in_its_own_language_whatever_it_was_in(german: World) -> None:
    first = make(german.owner, starter="question", name="Frage")
    path = f"/api/touchpoints/{first.pk}/copy"
    made = [
        german.console().post(path, {"language": one}, content_type="application/json").json()
        for one in ("it", "en")
    ]
    labels = [[part.get("label") for part in one["document"]["steps"][0]["parts"]] for one in made]
    assert "Meine Frage senden" in [part.get("label") for part in first.draft.document["steps"][0]["parts"]]
    assert "Invia la mia domanda" in labels[0]
    assert "Send my question" in labels[1]


def test_what_can_be_added_in_the_editor_is_in_what_visitors_read_and_in_the_countrys_money(
    german: World,
) -> None:
    client, path = german.console(), f"/api/touchpoints/{german.touchpoint.pk}/addable"
    found = client.get(path).json()
    assert found["parts"]["To click"]["Button to a page"]["label"] == "Weiterlesen"
    assert [
        found["parts"]["To fill in"]["One of several"]["options"][0]["label"],
        found["following"][0]["text"],
    ] == [
        "Dies",
        "Und dann",
    ]
    assert [one["kind"] for one in found["thanks"]] == ["headline", "reply", "button"]
    assert found["thanks"][2]["label"] == "Zurück zur Seite"
    assert (found["words"]["greeting"], found["words"]["yes"]) == ("Können wir helfen?", "Ja, bitte")
    [price] = [one for kinds in found["parts"].values() for one in kinds.values() if one["kind"] == "price"]
    assert price["currency"] == "EUR"
    french = client.get(f"{path}?language=fr").json()
    assert french["thanks"][0]["text"] == "Merci"
    assert client.get(f"{path}?language=x!").status_code == 422
    assert {one["id"] for kinds in found["parts"].values() for one in kinds.values()} == {"p"}
