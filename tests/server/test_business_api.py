"""Business, sites, hours and rights."""

from typing import Any

import pytest
from django.test import Client

from intavo.accounts.models import AuditEntry, Business
from intavo.hours.queries import main_hours
from intavo.touchpoints import live

from .conftest import Visitor, World

JSON = {"content_type": "application/json"}


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
        otterwick.console(), f"sites/{otterwick.site.pk}", {"name": "S", "hosts": ["otterwick.example", "otter wick"]}
    )
    assert answer.status_code == 422
    [error] = answer.json()["errors"]
    assert error["field"] == "hosts.1"
    assert "otter wick" in error["message"]
    assert otterwick.site.hosts.count() == 1


def test_hours_are_changed_and_visitors_are_promised_by_them(otterwick: World, visitor: Visitor) -> None:
    assert "16:05" in visitor.plan().json()["hours"]["says"]["text"]
    hours = main_hours(otterwick.owner.business_id)
    document = {"timezone": "Europe/London", "week": [{"day": "tue", "from": "09:00", "to": "15:05"}], "exceptions": []}
    assert put(otterwick.console(), f"hours/{hours.pk}", {"document": document}).status_code == 204

    live._sites[visitor.key].checked -= 1
    assert "on Tue 1 Dec by 10:00" in visitor.plan().json()["hours"]["says"]["text"]


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


@pytest.mark.parametrize(("field", "value"), [("name", " "), ("mail_address", "hello"), ("promise_minutes", 0)])
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
    verbs = set(AuditEntry.objects.filter(business_id=otterwick.owner.business_id).values_list("verb", flat=True))
    assert {"business founded", "site added", "touchpoint turned on", "hours changed"} <= verbs


def test_somebody_without_a_business_founds_one_and_a_bad_zone_is_named(db: None, django_user_model) -> None:
    client = Client()
    client.force_login(django_user_model.objects.create_user("new@x.example", "a long password"))
    assert client.get("/api/me").json()["business"] is None
    assert client.get("/api/follow-ups").status_code == 401
    bad = client.post("/api/business", {"name": "", "timezone": "Mars/Crater"}, **JSON)
    assert {error["field"] for error in bad.json()["errors"]} == {"name", "timezone"}
    assert client.post("/api/business", {"name": "New", "timezone": "Europe/Paris"}, **JSON).status_code == 201
    assert Business.objects.get(name="New").hours_sets.get().value.timezone == "Europe/Paris"
