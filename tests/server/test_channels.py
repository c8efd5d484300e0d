"""Channels through the console and as visitors meet them: kept, refused with their place, planned, followed, undone."""

import json
from typing import Any

import pytest
from django.db import connection
from django.test import Client
from django.test.utils import CaptureQueriesContext

from intavo.accounts.models import AuditEntry, Business, Member
from intavo.channels.models import Channel
from intavo.core.rights import Role
from intavo.hours.actions import add_hours
from intavo.hours.models import HoursSet
from intavo.results.models import Beat
from intavo.touchpoints import live
from intavo.touchpoints.actions import make, save_draft, turn_on
from intavo.touchpoints.models import Touchpoint

from .conftest import Visitor, World

PHONE = {"kind": "phone", "label": "Call us", "handle": "01632 960123"}
LINK = {"kind": "message-link", "label": "Chat", "template": "https://w.example/to/{handle}{?text}", "handle": "otter",
        "text": ["Looking at ", {"slot": "page_title"}, ". ", {"slot": "short_code"}]}  # fmt: skip


def send(client: Client, method: str, path: str, body: Any = None) -> Any:
    return getattr(client, method)(f"/api/{path}", json.dumps(body or {}), content_type="application/json")


def added(world: World, document: dict[str, Any]) -> dict[str, Any]:
    answer = send(world.console(), "post", "channels", {"document": document})
    assert answer.status_code == 201, answer.content
    return answer.json()


def menu(world: World, channels: Any = "all") -> Touchpoint:
    row = make(world.owner, starter="reach", name="Menu")
    document = dict(row.draft.document)
    document["steps"][0]["parts"][-1]["channels"] = channels
    save_draft(world.owner, touchpoint_id=row.pk, document=document, based_on=1)
    row = turn_on(world.owner, touchpoint_id=row.pk)
    live._sites.clear()
    return row


def test_a_channel_is_kept_with_its_links_and_today_and_can_be_had_back(otterwick: World) -> None:
    one, client = added(otterwick, PHONE), otterwick.console()
    assert (one["link"], one["reachable"], one["situation"]) == ("tel:+441632960123", True, "open")
    assert [(s["start"][11:16], s["end"][11:16]) for s in one["today"]] == [("09:00", "17:30")]
    place = added(
        otterwick,
        {"kind": "map", "label": "Find us", "handle": "50.1, -4.2", "template": "https://m.example/q"},
    )
    assert (place["always"], place["link"], place["on_a_phone"]) == (
        True,
        "https://m.example/q",
        "geo:50.1,-4.2",
    )
    send(client, "post", "channels/order", {"channel_ids": [place["id"], one["id"]]})
    assert [row["id"] for row in client.get("/api/channels").json()["channels"]] == [place["id"], one["id"]]
    assert send(client, "delete", f"channels/{one['id']}").status_code == 204
    assert client.get(f"/api/channels/{one['id']}").status_code == 404
    assert send(client, "post", f"channels/{one['id']}/back").status_code == 200
    verbs = list(AuditEntry.objects.order_by("pk").values_list("verb", flat=True))[-5:]
    assert verbs == [
        "channel added",
        "channel added",
        "channels ordered",
        "channel deleted",
        "channel brought back",
    ]


@pytest.mark.parametrize(
    ("document", "field"),
    [({"handle": "12"}, "document.handle"), ({"handle": "+44 000"}, "document.handle"), ({"kind": "smoke"}, "document.kind"),
     ({"kind": "page", "handle": "java\tscript:alert(1)"}, "document.handle"), ({"kind": "page", "handle": "data:text/html,x"}, "document.handle"),
     ({"kind": "message-link"}, "document"), ({"kind": "message-link", "template": "https://x.example/"}, "document"),
     ({"hours": [999_999]}, "document.hours"), ({"people": [{"name": "A", "member": 999_999}]}, "document.people.0.member"),
     ({"label": ""}, "document.label"), ({"text": ["x" * 1001]}, "document.text.0")],
)  # fmt: skip
def test_what_leads_nowhere_is_refused_at_its_place_and_changes_nothing(
    otterwick: World, document: dict[str, Any], field: str
) -> None:
    answer = send(otterwick.console(), "post", "channels", {"document": PHONE | document})
    assert answer.status_code == 422
    assert answer.json()["errors"][0]["field"].startswith(field)
    assert not Channel.objects.exists()


def test_staff_may_look_and_not_change(otterwick: World) -> None:
    one, staff = added(otterwick, PHONE), otterwick.staff()
    assert staff.get(f"/api/channels/{one['id']}").status_code == 200
    assert send(staff, "put", f"channels/{one['id']}", {"document": PHONE}).status_code == 403
    assert send(staff, "delete", f"channels/{one['id']}").status_code == 403


def test_a_manager_changes_hours_channels_and_replies_and_nothing_of_the_business(otterwick: World) -> None:
    one, manager = added(otterwick, PHONE), otterwick.staff(Role.MANAGER)
    assert manager.get("/api/me").json()["rights"] == ["see", "follow-up", "touchpoints", "hours"]
    hours = manager.get("/api/hours").json()["main"]
    reply = {"title": [], "text": ["Ring the bell."]}
    assert send(manager, "put", f"channels/{one['id']}", {"document": PHONE}).status_code == 200
    assert send(manager, "put", f"hours/{hours['id']}", {"document": hours["document"]}).status_code == 204
    assert send(manager, "put", "replies/open", {"reply": reply}).status_code == 204
    assert (
        send(
            manager, "put", "business", {"name": "Theirs", "mail_address": "", "promise_minutes": 60}
        ).status_code
        == 403
    )
    assert manager.get("/api/audit").status_code == 403


def test_the_plan_gives_the_channels_of_its_touchpoints_without_a_query(
    otterwick: World, visitor: Visitor
) -> None:
    phone, chat = added(otterwick, PHONE), added(otterwick, LINK)
    row = menu(otterwick)
    visitor.plan("/trips")
    with CaptureQueriesContext(connection) as queries:
        said = visitor.plan(
            "/trips", page={"url": "https://otterwick.example/trips", "title": "Trips & more"}
        ).json()
    assert len(queries) == 0
    ways = said["channels"]
    assert list(ways) == [phone["public_id"], chat["public_id"]]
    assert (ways[phone["public_id"]]["situation"], ways[phone["public_id"]]["hidden"]) == ("open", False)
    link = ways[chat["public_id"]]["by"][row.public_id]
    assert link.startswith("https://w.example/to/otter?text=Looking%20at%20Trips%20%26%20more.%20%23")


def test_closed_is_said_or_hidden_by_the_table_and_the_plan_runs_out_at_opening(
    otterwick: World, visitor: Visitor, monkeypatch: pytest.MonkeyPatch
) -> None:
    phone = added(otterwick, PHONE)
    hidden = added(otterwick, PHONE | {"label": "Only open", "while_closed": "hide"})
    client = otterwick.console()
    reply = {"title": ["Shut"], "text": ["Back ", {"slot": "next_opening"}, "."], "button": "Call tomorrow"}
    body = {"reply": reply, "column": phone["public_id"], "language": ""}
    assert send(client, "put", "replies/after-hours", body).status_code == 204
    row = menu(otterwick, [phone["public_id"], hidden["public_id"]])
    monkeypatch.setenv("INTAVO_NOW", "2026-11-24T20:05:00+00:00")
    said = visitor.plan("/trips").json()
    way = said["channels"][phone["public_id"]]
    assert (way["situation"], way["button"]) == ("after-hours", "Call tomorrow")
    assert way["says"] == {"title": "Shut", "text": "Back tomorrow at 09:00."}
    assert said["channels"][hidden["public_id"]]["hidden"]
    entry = next(one for one in said["touchpoints"] if one["id"] == row.public_id)
    assert entry["valid_until"] == "2026-11-25T09:00:00Z"
    hosted = Client().get(f"/t/{otterwick.site.slug}/{row.slug}").content.decode()
    assert "Call tomorrow" in hosted
    assert "Only open" not in hosted


def test_a_button_says_what_the_table_says_for_the_situation_and_its_own_words_else(
    otterwick: World, visitor: Visitor, monkeypatch: pytest.MonkeyPatch
) -> None:
    added(otterwick, PHONE)
    row, plain = menu(otterwick), make(otterwick.owner, starter="talk", name="Talk")
    turn_on(otterwick.owner, touchpoint_id=plain.pk)
    client = otterwick.console()

    def write(situation: str, column: str, reply: dict[str, Any]) -> None:
        body = {"reply": {"title": ["Shut"]} | reply, "column": column, "language": ""}
        assert send(client, "put", f"replies/{situation}", body).status_code == 204
        live._sites.clear()

    def labels() -> list[str]:
        entries = {one["id"]: one for one in visitor.plan("/trips").json()["touchpoints"]}
        return [entries[one.public_id]["document"]["face"]["label"] for one in (row, plain)]

    usual = labels()
    write("after-hours", "", {"button": "Leave word"})
    write("open", "", {"button": "Not for an open door"})
    assert labels() == usual
    monkeypatch.setenv("INTAVO_NOW", "2026-11-24T20:05:00+00:00")
    assert labels() == ["Leave word", "Leave word"]
    write("after-hours", plain.public_id, {"button": "Write to us tonight"})
    assert labels() == ["Leave word", "Write to us tonight"]
    write("after-hours", plain.public_id, {})
    assert labels() == ["Leave word", usual[1]]


def test_a_button_is_gone_while_its_own_cell_hides_it_and_its_column_says_so(
    otterwick: World, visitor: Visitor, monkeypatch: pytest.MonkeyPatch
) -> None:
    added(otterwick, PHONE)
    row, client = menu(otterwick), otterwick.console()
    columns = {one["id"]: one for one in client.get("/api/replies").json()["columns"]}
    assert columns[row.public_id]["hides"]
    body = {"reply": {"hidden": True}, "column": row.public_id, "language": ""}
    assert send(client, "put", "replies/after-hours", body).status_code == 204

    def there() -> dict[str, Any] | None:
        live._sites.clear()
        return next(
            (one for one in visitor.plan("/trips").json()["touchpoints"] if one["id"] == row.public_id), None
        )

    by_day = there()
    assert by_day is not None
    assert by_day["valid_until"] == "2026-11-24T17:30:00Z"
    monkeypatch.setenv("INTAVO_NOW", "2026-11-24T20:05:00+00:00")
    assert there() is None


def test_a_touchpoint_follows_several_sets_of_hours(
    otterwick: World, visitor: Visitor, monkeypatch: pytest.MonkeyPatch
) -> None:
    evening = add_hours(
        otterwick.owner,
        name="Evening",
        document={
            "timezone": "Europe/London",
            "week": [{"day": "tue", "from": "19:00", "to": "22:00"}],
            "exceptions": [],
        },
    )
    row = make(otterwick.owner, starter="talk", name="Talk")
    document = dict(row.draft.document)
    document["after"] |= {"also_hours": [evening.pk]}
    save_draft(otterwick.owner, touchpoint_id=row.pk, document=document, based_on=1)
    turn_on(otterwick.owner, touchpoint_id=row.pk)
    monkeypatch.setenv("INTAVO_NOW", "2026-11-24T20:05:00+00:00")
    live._sites.clear()
    site = live.live_site(otterwick.site.key)
    assert site is not None
    entry = next(one for one in visitor.plan("/trips").json()["touchpoints"] if one["id"] == row.public_id)
    assert entry["valid_until"] == "2026-11-24T22:00:00Z"
    refused = send(otterwick.console(), "delete", f"hours/{evening.pk}")
    assert "Talk" in refused.json()["errors"][0]["message"]
    other = dict(document, after=document["after"] | {"also_hours": [10**9]})
    body = {"document": other, "based_on": 2}
    assert (
        send(otterwick.console(), "put", f"touchpoints/{row.pk}/draft", body).json()["errors"][0]["field"]
        == "after.hours"
    )


def test_a_button_with_hours_of_its_own_is_planned_until_they_change(
    otterwick: World, visitor: Visitor, monkeypatch: pytest.MonkeyPatch
) -> None:
    short = add_hours(
        otterwick.owner,
        name="Lunch",
        document={
            "timezone": "Europe/London",
            "week": [{"day": "tue", "from": "12:00", "to": "15:00"}],
            "exceptions": [],
        },
    )
    row = make(otterwick.owner, starter="talk", name="Talk")
    document = dict(row.draft.document)
    document["after"]["hours"] = short.pk
    save_draft(otterwick.owner, touchpoint_id=row.pk, document=document, based_on=1)
    turn_on(otterwick.owner, touchpoint_id=row.pk)

    def until() -> str:
        live._sites.clear()
        entries = {one["id"]: one for one in visitor.plan("/trips").json()["touchpoints"]}
        return str(entries[row.public_id]["valid_until"])

    assert until() == "2026-11-24T15:00:00Z"
    monkeypatch.setenv("INTAVO_NOW", "2026-11-24T15:05:00+00:00")
    assert until() == "2026-11-24T17:30:00Z"


def test_a_click_is_counted_with_its_channel_and_a_made_up_one_is_not(
    otterwick: World, visitor: Visitor
) -> None:
    phone, row = added(otterwick, PHONE), menu(otterwick)
    beat = {"touchpoint": row.public_id, "revision": row.live.number, "what": "clicked", "device": "phone",
            "page": {"url": "https://otterwick.example/"}, "at": "2026-11-24T14:05:00Z"}  # fmt: skip
    beats = [
        beat | {"id": f"beat-{n}-xx", "channel": id_}
        for n, id_ in enumerate((phone["public_id"], "ch_nobody", ""))
    ]
    assert visitor.post("beats", beats).json() == {"kept": 3, "refused": 0}
    assert sorted(Beat.objects.values_list("channel", flat=True)) == ["", "", phone["public_id"]]


def test_the_short_link_leads_on_or_says_what_is_said_and_counts_where_it_was_printed(
    otterwick: World, monkeypatch: pytest.MonkeyPatch
) -> None:
    page = added(otterwick, {"kind": "page", "label": "Tides", "handle": "https://tides.example/x"})
    phone = added(otterwick, PHONE)
    assert Client().get(f"/l/{page['public_id']}?at=van")["Location"] == "https://tides.example/x"
    assert 'href="tel:+441632960123"' in Client().get(f"/l/{phone['public_id']}").content.decode()
    monkeypatch.setenv("INTAVO_NOW", "2026-11-24T20:05:00+00:00")
    assert "We open again tomorrow at 09:00" in Client().get(f"/l/{phone['public_id']}").content.decode()
    assert Client().get(f"/l/{phone['public_id']}.svg").content.startswith(b"<?xml")
    one = otterwick.console().get(f"/api/channels/{page['id']}").json()
    assert one["printed"] == [{"place": "van", "count": 1}]
    for missing in ("/l/ch_nobody", "/l/ch_nobody.svg", f"/l/{page['public_id']}.gif"):
        assert Client().get(missing).status_code == 404


def test_what_is_pasted_and_one_example_link_are_understood(otterwick: World) -> None:
    client = otterwick.console()
    read = send(client, "post", "channels/read", {"text": "07700 900123"}).json()
    assert (read["kind"], "text" in read["others"]) == ("phone", True)
    assert (read["labels"]["phone"], read["labels"]["text"]) == ("Call us", "Text us")
    Business.objects.filter(pk=otterwick.owner.business_id).update(language="pt")
    portuguese = send(client, "post", "channels/read", {"text": "07700 900123"}).json()["labels"]
    assert portuguese["phone"] == "Ligue-nos", (
        "a new channel is called in the language that visitors are spoken to in"
    )
    assert send(client, "post", "channels/read", {"text": "javascript:alert(1)"}).status_code == 422
    example = {"example": "https://w.example/to/otter?text=hello%20there"}
    assert (
        send(client, "post", "channels/template", example).json()["template"]
        == "https://w.example/to/{handle}{?text}"
    )
    assert send(client, "post", "channels/template", {"example": "https://w.example/"}).status_code == 422


def test_a_set_that_is_deleted_is_followed_by_another_and_comes_back(otterwick: World) -> None:
    client = otterwick.console()
    document = {
        "timezone": "Europe/London",
        "week": [{"day": "tue", "from": "10:00", "to": "12:00"}],
        "exceptions": [],
    }
    line = send(client, "post", "hours", {"name": "Phone line", "document": document}).json()["id"]
    main = HoursSet.objects.order_by("pk")[0].pk
    one = added(otterwick, PHONE | {"hours": [line]})
    assert one["situation"] == "after-hours"
    followed = client.get(f"/api/hours/{line}/followed").json()
    assert (followed["words"], followed["by"]) == ("It goes for 1 channel.", ["the channel Call us"])
    refused = send(client, "delete", f"hours/{line}")
    assert refused.json()["errors"][0]["field"] == "instead"
    assert send(client, "delete", f"hours/{line}?instead={main}").status_code == 204
    assert client.get(f"/api/channels/{one['id']}").json()["situation"] == "open"
    assert send(client, "post", f"hours/{line}/back").status_code == 204
    assert client.get(f"/api/channels/{one['id']}").json()["situation"] == "after-hours"


def test_hours_are_given_out_at_a_secret_address_and_as_json_ld(otterwick: World) -> None:
    client, main = otterwick.console(), HoursSet.objects.order_by("pk")[0].pk
    assert client.get(f"/api/hours/{main}/out").json()["address"] is None
    out = send(client, "post", f"hours/{main}/out").json()
    assert '"openingHoursSpecification"' in out["json_ld"]
    path = (
        out["address"].partition("8400")[2]
        or out["address"].rpartition("/h/")[1] + out["address"].rpartition("/h/")[2]
    )
    calendar = Client().get(path)
    assert calendar["Content-Type"].startswith("text/calendar")
    assert b"BEGIN:VEVENT" in calendar.content
    send(client, "delete", f"hours/{main}/out")
    assert Client().get(path).status_code == 404


def test_away_ends_by_itself_and_outside_of_their_times_somebody_counts_as_away(
    otterwick: World, visitor: Visitor, monkeypatch: pytest.MonkeyPatch
) -> None:
    client = otterwick.console()

    def situation() -> str:
        live._sites.clear()
        return str(visitor.plan("/").json()["hours"]["situation"])

    assert send(client, "put", "counter", {"away": True, "until": "1-hour"}).status_code == 204
    assert situation() == "nobody-free"
    assert client.get("/api/counter").json()[0]["back"] == "today at 15:05"
    monkeypatch.setenv("INTAVO_NOW", "2026-11-24T15:05:00+00:00")
    assert situation() == "open"
    for time in ("2026-11-24T15:00:00Z", "2027-11-24T15:00:00Z", None):
        body = {"away": True, "until": "time", "time": time}
        assert send(client, "put", "counter", body).json()["errors"][0]["field"] == "time"
    document = {
        "timezone": "Europe/London",
        "week": [{"day": "mon", "from": "10:00", "to": "12:00"}],
        "exceptions": [],
    }
    mondays = send(client, "post", "hours", {"name": "Mondays", "document": document}).json()["id"]
    member = Member.objects.get(business_id=otterwick.owner.business_id).pk
    assert send(client, "put", f"members/{member}/hours", {"hours_id": mondays}).status_code == 204
    assert situation() == "nobody-free"


def test_the_table_of_replies_inherits_and_says_from_where(otterwick: World) -> None:
    client, phone = otterwick.console(), added(otterwick, PHONE)
    cells = {"open": {"title": ["Hello"]}, "holiday": {"hidden": True}}
    for situation, reply in cells.items():
        body = {"reply": reply, "column": phone["public_id"], "language": "en"}
        assert send(client, "put", f"replies/{situation}", body).status_code == 204
    assert (
        send(client, "put", "replies/open", {"reply": {"title": ["Diolch"]}, "language": "cy"}).status_code
        == 204
    )
    table = client.get("/api/replies?language=cy").json()
    rows = {row["situation"]: row["cells"] for row in table["rows"]}
    assert [one["own"] for one in rows["open"]] == [True, False]
    assert (rows["open"][1]["title"], rows["open"][1]["from_language"]) == ("Hello", "en")
    assert rows["holiday"][1]["hidden"]
    assert [(one["code"], one["written"]) for one in table["languages"]] == [("en", 2), ("cy", 1)]
    assert (
        send(client, "put", "replies/open", {"reply": {}, "column": "ch_nobody"}).json()["errors"][0]["field"]
        == "column"
    )
    assert client.get("/api/replies?language=klingon").status_code == 422
    explained = client.get(f"/api/hours/explain?day=2026-11-24&time=10:00&column={phone['public_id']}").json()
    assert explained["title"] == "Hello"
    assert f"replies.open.{phone['public_id']}.en" in [one["about"] for one in explained["reasons"]]


def test_the_rehearsal_says_how_each_channel_is_met_and_what_the_counter_hides(otterwick: World) -> None:
    phone = added(otterwick, PHONE)
    added(otterwick, PHONE | {"label": "Only open", "while_closed": "hide"})
    row, client = menu(otterwick), otterwick.console()
    reply = {"text": ["Ring tomorrow."], "button": "Call then"}
    for situation, column, told in (
        ("after-hours", phone["public_id"], reply), ("nobody-free", row.public_id, {"hidden": True}),
    ):  # fmt: skip
        body = {"reply": told, "column": column, "language": ""}
        assert send(client, "put", f"replies/{situation}", body).status_code == 204
    live._sites.clear()

    def played(at: str, **more: Any) -> dict[str, Any]:
        body = {"site_id": otterwick.site.pk, "visitor": {"at": at} | more, "deeds": [{"do": "page", "at": 0, "url": "/"}],
                "length": 30}  # fmt: skip
        answer = send(client, "post", "rehearsals", body)
        assert answer.status_code == 200, answer.content
        [track] = [one for one in answer.json()["tracks"] if one["id"] == row.pk]
        return track["stretches"][-1]

    late = played("2026-11-24T20:05:00Z")
    assert late["channels"] == ["Call us: “Call then”, and beside it “Ring tomorrow.”", "Only open: hidden"]
    assert played("2026-11-24T12:05:00Z")["doing"] == "on screen"
    away = played("2026-11-24T12:05:00Z", at_counter=False)
    assert away["doing"] != "on screen"
    assert any("Hidden while it is “open, nobody free”" in one["words"] for one in away["reasons"])
