"""Business, sites, hours and rights."""

import json
from typing import Any

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client

from intavo.accounts.models import AuditEntry, Business
from intavo.hours.queries import main_hours
from intavo.touchpoints import live

from .conftest import Visitor, World

JSON: dict[str, Any] = {"content_type": "application/json"}


def put(client: Client, path: str, body: dict[str, Any]) -> Any:
    """PUT JSON."""
    return client.put(f"/api/{path}", body, **JSON)


def test_hosts_in_any_spelling_are_kept_as_hosts(otterwick: World) -> None:
    spelt = ["HTTPS://www.Otterwick.example:8443/x", "http://münchen.example/", "otterwick.example", ""]
    site = put(otterwick.console(), f"sites/{otterwick.site.pk}", {"name": "Site", "hosts": spelt}).json()
    assert site["hosts"] == ["otterwick.example", "xn--mnchen-3ya.example"]
    assert site["snippet"].startswith('<script async src="http')
    assert f"/e/{site['key']}.js" in site["snippet"]


def test_nonsense_is_refused_by_name_beside_its_field(otterwick: World) -> None:
    answer = put(
        otterwick.console(),
        f"sites/{otterwick.site.pk}",
        {"name": "S", "hosts": ["otterwick.example", "otter wick"]},
    )
    assert answer.status_code == 422
    [error] = answer.json()["errors"]
    assert error["field"] == "hosts.1"
    assert "otter wick" in error["message"]
    assert otterwick.site.hosts.count() == 1


def test_hours_are_changed_and_visitors_are_promised_by_them(otterwick: World, visitor: Visitor) -> None:
    assert "16:05" in visitor.plan().json()["hours"]["says"]["text"]
    hours = main_hours(otterwick.owner.business_id)
    document = {
        "timezone": "Europe/London",
        "week": [{"day": "tue", "from": "09:00", "to": "15:05"}],
        "exceptions": [],
    }
    assert put(otterwick.console(), f"hours/{hours.pk}", {"document": document}).status_code == 204

    live._sites[visitor.key].checked -= 1
    assert "on Tue 1 Dec by 10:00" in visitor.plan().json()["hours"]["says"]["text"]


def test_a_week_is_read_as_it_is_written_and_nothing_is_kept(otterwick: World) -> None:
    before = main_hours(otterwick.owner.business_id).document
    answer = otterwick.console().post("/api/hours/read", {"text": "Mon 9-12, 14-18"}, **JSON)
    assert answer.json()["week"] == [
        {"day": "mon", "from": "09:00", "to": "12:00"},
        {"day": "mon", "from": "14:00", "to": "18:00"},
    ]
    refused = otterwick.console().post("/api/hours/read", {"text": "Mon 9-17 by appointment"}, **JSON)
    assert refused.status_code == 422
    assert refused.json()["errors"] == [
        {"field": "text", "message": "“by” is no day, and cannot be read as hours"}
    ]
    assert main_hours(otterwick.owner.business_id).document == before


def test_what_somebody_would_be_told_is_explained(otterwick: World) -> None:
    client = otterwick.console()
    asked = {"day": "2026-11-29", "time": "11:40 pm"}
    found = client.get("/api/hours/explain", asked).json()
    assert (found["situation"], found["at"]) == ("after-hours", "2026-11-29T23:40:00Z")
    assert [one["about"].split(".")[0] for one in found["reasons"]] == [
        "hours",
        "hours",
        "replies",
        "promise",
    ]
    away = client.get("/api/hours/explain", {"day": "2026-11-24", "time": "10", "free": "false"}).json()
    assert away["situation"] == "nobody-free"


@pytest.mark.parametrize(
    ("more", "field"),
    [({"time": "soon"}, "time"), ({"day": "2026-02-30"}, "day"), ({"day": "9000-01-01"}, "day"), ({"offset": 5000}, "offset"),
     ({"hours_id": "x"}, "hours_id"), ({"time": "\x00"}, "time")],
)  # fmt: skip
def test_what_cannot_be_asked_is_refused_by_name(otterwick: World, more: dict[str, Any], field: str) -> None:
    answer = otterwick.console().get("/api/hours/explain", {"day": "2026-11-29", "time": "9"} | more)
    assert (answer.status_code, answer.json()["errors"][0]["field"]) == (422, field)
    assert (
        otterwick.console()
        .get("/api/hours/explain", {"day": "2026-11-29", "time": "9", "hours_id": str(10**9)})
        .status_code
        == 404
    )


def test_public_holidays_of_the_country_and_its_parts_are_offered(otterwick: World) -> None:
    client = otterwick.console()
    found = client.get("/api/hours/holidays").json()
    assert {"day": "2026-12-25", "label": "Christmas Day"} in found["days"]
    assert {"code": "SCT", "name": "Scotland"} in found["parts"]
    scottish = client.get("/api/hours/holidays", {"part": "SCT"}).json()["days"]
    assert [one["day"] for one in scottish if one not in found["days"]]
    assert client.get("/api/hours/holidays", {"part": "XX"}).json()["errors"][0]["field"] == "part"


CALENDAR = "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nBEGIN:VEVENT\r\nDTSTART;VALUE=DATE:20261228\r\nDTEND;VALUE=DATE:20270103\r\nSUMMARY:Away\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n"


def test_a_calendar_is_looked_at_and_nothing_is_kept(otterwick: World) -> None:
    hours = main_hours(otterwick.owner.business_id)
    client, before = otterwick.console(), hours.document
    body = {"file": SimpleUploadedFile("away.ics", CALENDAR.encode()), "document": json.dumps(before)}
    said = client.post("/api/hours/calendar", body).json()
    assert [(one["first"], one["last"], one["would"], one["label"]) for one in said["coming"]] == [
        ("2026-12-28", "2027-01-02", "closed", "Away")
    ]
    assert said["exceptions"][-1]["label"] == "Away"
    assert main_hours(otterwick.owner.business_id).document == before


@pytest.mark.parametrize(
    ("file", "document", "field"),
    [(b"\xff\xfe\x00", "{}", "hours.timezone"), (b"\xff\xfe\x00", None, "file"), (b"name,date", None, "file"), (CALENDAR.encode(), "[", "document"),
     (CALENDAR.encode(), "[" * 9000, "document"), (b"x" * (5 * 1024 * 1024 + 1), None, "file")],
)  # fmt: skip
def test_a_calendar_that_cannot_be_read_is_refused_by_name(
    otterwick: World, file: bytes, document: str | None, field: str
) -> None:
    said = document or json.dumps(main_hours(otterwick.owner.business_id).document)
    answer = otterwick.console().post(
        "/api/hours/calendar", {"file": SimpleUploadedFile("a.ics", file), "document": said}
    )
    assert (answer.status_code, answer.json()["errors"][0]["field"]) == (422, field)


def test_bad_hours_are_refused_with_the_place(otterwick: World) -> None:
    hours = main_hours(otterwick.owner.business_id)
    document = {"timezone": "Europe/London", "week": [{"day": "tue", "from": "09:00", "to": "25:00"}]}
    answer = put(otterwick.console(), f"hours/{hours.pk}", {"document": document})
    assert answer.status_code == 422
    assert answer.json()["errors"][0]["field"] == "hours.week.0.to"


def test_the_promise_can_be_changed_and_dropped(otterwick: World, visitor: Visitor) -> None:
    body = {"name": "Otterwick", "mail_address": "hello@otterwick.example", "promise_minutes": None}
    assert put(otterwick.console(), "business", body).status_code == 204
    assert visitor.plan().json()["hours"]["says"]["text"] == "We answer as soon as we can."
    assert otterwick.console().get("/api/hours").json()["promise_now"] == "as soon as we can"


def test_what_is_not_said_of_the_business_stays(otterwick: World) -> None:
    before = otterwick.business
    assert put(otterwick.console(), "business", {"promise_minutes": 90}).status_code == 204
    assert put(otterwick.console(), "business", {"region": "IE"}).status_code == 204
    now = Business.objects.get(pk=before.pk)
    assert (now.name, now.mail_address, now.language) == (before.name, before.mail_address, before.language)
    assert (now.promise_minutes, now.region) == (90, "IE")
    for empty in ({"name": None}, {"name": ""}, {"mail_address": ""}):
        refused = put(otterwick.console(), "business", empty)
        assert (refused.status_code, refused.json()["errors"][0]["field"]) == (422, *empty)


@pytest.mark.parametrize(
    ("field", "value"), [("name", " "), ("mail_address", "hello"), ("promise_minutes", 0)]
)
def test_what_is_wrong_with_the_business_is_named(otterwick: World, field: str, value: object) -> None:
    body = {"name": "O", "mail_address": "hello@otterwick.example", "promise_minutes": 60} | {field: value}
    answer = put(otterwick.console(), "business", body)
    assert answer.status_code == 422
    assert answer.json()["errors"][0]["field"] == field


def test_staff_may_not_change_the_business_its_sites_or_its_hours(otterwick: World) -> None:
    staff = otterwick.staff()
    hours = main_hours(otterwick.owner.business_id)
    body = {"name": "O", "mail_address": "hello@otterwick.example", "promise_minutes": 60}
    assert put(staff, "business", body).status_code == 403
    assert put(staff, f"sites/{otterwick.site.pk}", {"name": "x", "hosts": ["x.example"]}).status_code == 403
    assert put(staff, f"hours/{hours.pk}", {"document": hours.document}).status_code == 403
    assert staff.get("/api/follow-ups").status_code == 200


def test_visitors_are_told_when_everybody_is_away(otterwick: World, visitor: Visitor) -> None:
    assert put(otterwick.console(), "counter", {"away": True}).status_code == 204
    assert visitor.plan().json()["hours"]["situation"] == "nobody-free"


def test_who_did_what_is_in_the_audit_log(otterwick: World) -> None:
    verbs = set(
        AuditEntry.objects.filter(business_id=otterwick.owner.business_id).values_list("verb", flat=True)
    )
    assert {"business founded", "site added", "touchpoint turned on", "hours changed"} <= verbs


def test_somebody_without_a_business_founds_one_and_a_bad_zone_is_named(
    db: None, django_user_model: Any
) -> None:
    client = Client()
    client.force_login(django_user_model.objects.create_user("new@x.example", "a long password"))
    assert client.get("/api/me").json()["business"] is None
    assert client.get("/api/follow-ups").status_code == 401
    bad = client.post("/api/business", {"name": "", "timezone": "Mars/Crater"}, **JSON)
    assert {error["field"] for error in bad.json()["errors"]} == {"name", "timezone"}
    assert (
        client.post("/api/business", {"name": "New", "timezone": "Europe/Paris"}, **JSON).status_code == 201
    )
    assert Business.objects.get(name="New").hours_sets.get().value.timezone == "Europe/Paris"


def test_times_are_taken_as_people_type_them(otterwick: World) -> None:
    hours = main_hours(otterwick.owner.business_id)
    week = [{"day": "mon", "from": "8:30", "to": "5pm"}]
    document = {"timezone": "Europe/London", "week": week, "exceptions": [
        {"first": "2026-12-24", "last": "2026-12-24", "label": "Eve", "holiday": False, "stretches": [{"from": "9", "to": "13.00"}]}
    ]}  # fmt: skip
    assert put(otterwick.console(), f"hours/{hours.pk}", {"document": document}).status_code == 204
    hours.refresh_from_db()
    assert hours.document["week"] == [{"day": "mon", "from": "08:30", "to": "17:00"}]
    assert hours.document["exceptions"][0]["stretches"] == [{"from": "09:00", "to": "13:00"}]


def test_hours_are_made_renamed_chosen_for_a_site_and_deleted_when_nothing_follows_them(
    otterwick: World,
) -> None:
    console = otterwick.console()
    document = {
        "timezone": "Europe/London",
        "week": [{"day": "sat", "from": "10:00", "to": "12:00"}],
        "exceptions": [],
    }
    made = console.post(
        "/api/hours", {"name": "Stall", "document": document}, content_type="application/json"
    ).json()
    assert put(console, f"hours/{made['id']}/name", {"name": "Market stall"}).status_code == 204
    again = console.post(
        "/api/hours", {"name": "market stall", "document": document}, content_type="application/json"
    )
    assert again.json()["errors"][0]["field"] == "name"
    assert put(console, f"sites/{otterwick.site.pk}/hours", {"hours_id": made["id"]}).status_code == 204
    assert main_hours(otterwick.owner.business_id).name == "Market stall"
    refused = console.delete(f"/api/hours/{made['id']}").json()["errors"][0]["message"]
    assert "the site" in refused
    first = next(one["id"] for one in console.get("/api/hours").json()["others"])
    assert put(console, f"sites/{otterwick.site.pk}/hours", {"hours_id": first}).status_code == 204
    assert console.delete(f"/api/hours/{made['id']}").status_code == 204
    assert "only hours" in console.delete(f"/api/hours/{first}").json()["errors"][0]["message"]


def test_hours_that_a_touchpoint_follows_are_not_deleted(otterwick: World) -> None:
    console, row = otterwick.console(), otterwick.touchpoint
    document = {"timezone": "Europe/London", "week": [], "exceptions": []}
    made = console.post(
        "/api/hours", {"name": "Late", "document": document}, content_type="application/json"
    ).json()
    draft = console.get(f"/api/touchpoints/{row.pk}").json()
    draft["document"]["show"]["sentences"][0]["during"] |= {"only": "open", "hours": made["id"]}
    body = {"document": draft["document"], "based_on": draft["number"]}
    assert put(console, f"touchpoints/{row.pk}/draft", body).status_code == 200
    refused = console.delete(f"/api/hours/{made['id']}").json()["errors"][0]["message"]
    assert f"“{row.name}”" in refused


def test_replies_are_edited_and_put_back(otterwick: World, visitor: Visitor) -> None:
    console = otterwick.console()
    reply = {"title": ["Hello"], "text": ["You hear from us ", {"slot": "promise"}, "."]}
    assert put(console, "replies/open", {"reply": reply}).status_code == 204
    assert visitor.plan().json()["hours"]["says"] == {
        "title": "Hello",
        "text": "You hear from us today by 16:05.",
    }
    assert put(console, "replies/open", {"reply": {"text": [{"slot": "nonsense"}]}}).status_code == 422
    assert put(console, "replies/sometimes", {"reply": reply}).json()["errors"][0]["field"] == "situation"
    assert console.delete("/api/replies/open").status_code == 204
    told = {one["situation"]: one for one in console.get("/api/hours").json()["told"]}
    assert (told["open"]["title"], told["open"]["own"]) == ("Thank you", False)


def test_no_untrue_date_is_previewed_for_a_holiday_that_never_comes(otterwick: World) -> None:
    told = {one["situation"]: one for one in otterwick.console().get("/api/hours").json()["told"]}
    assert told["holiday"]["comes"] is False
    assert "(when you open again)" in told["holiday"]["text"]
    assert told["after-hours"]["comes"] is True


def test_the_name_of_a_business_is_one_line_of_a_mails_head(otterwick: World) -> None:
    client = otterwick.console()
    said = {
        "name": "Otter\r\nBcc: win@prize.example\u2028wick\t ",
        "mail_address": "a@b.example",
        "promise_minutes": 60,
    }
    assert client.put("/api/business", said, **JSON).status_code == 204
    assert client.get("/api/me").json()["business"]["name"] == "Otter Bcc: win@prize.example wick"
    for name in ("x" * 121, "\r\n \u2028"):
        refused = client.put("/api/business", said | {"name": name}, **JSON)
        assert (refused.status_code, refused.json()["errors"][0]["field"]) == (422, "name"), name
