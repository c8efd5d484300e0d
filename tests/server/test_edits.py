"""What two have open at once, from hours to sites: what both changed is kept, and a clash is said, not lost."""

from functools import partial
from typing import Any

import pytest
from django.conf import settings

from intavo.channels.models import Channel
from intavo.hours.models import HoursSet
from intavo.hours.queries import main_hours

from .conftest import WEEK, World
from .test_collisions import at_once


def hours(*days: tuple[str, str, str], odd: tuple[str, ...] = ()) -> dict[str, Any]:
    return {
        "timezone": "Europe/London",
        "week": [{"day": day, "from": start, "to": end} for day, start, end in days],
        "exceptions": [
            {"first": day, "last": day, "label": "", "holiday": False, "stretches": []} for day in odd
        ],
    }


def saved(world: World, row: HoursSet, document: Any, **more: Any) -> Any:
    return world.console().put(f"/api/hours/{row.pk}", {"document": document, **more}, "application/json")


def test_two_who_have_the_hours_open_both_save(otterwick: World) -> None:
    row = main_hours(otterwick.owner.business_id)
    base = row.document
    on_the_phone = base | {"exceptions": hours(odd=("2026-12-24",))["exceptions"]}
    in_the_shop = base | {"week": [*base["week"], {"day": "sat", "from": "10", "to": "12:30"}]}
    assert saved(otterwick, row, on_the_phone, based_on=base).status_code == 204
    assert saved(otterwick, row, in_the_shop, based_on=base).status_code == 204
    row.refresh_from_db()
    assert [str(one.first) for one in row.value.exceptions] == ["2026-12-24"]
    assert row.document["week"] == [*WEEK, {"day": "sat", "from": "10:00", "to": "12:30"}]
    # Taking one's own back leaves what the other did.
    assert (
        saved(otterwick, row, base, based_on=in_the_shop | {"week": row.document["week"]}).status_code == 204
    )
    row.refresh_from_db()
    assert row.document["week"] == WEEK
    assert len(row.value.exceptions) == 1


def test_what_both_changed_differently_is_for_the_second_to_say(otterwick: World) -> None:
    row = main_hours(otterwick.owner.business_id)
    base = hours(("mon", "09:00", "17:00"), ("tue", "09:00", "17:00"))
    assert saved(otterwick, row, base).status_code == 204
    first = hours(("mon", "10:00", "17:00"), ("tue", "09:00", "12:00"))
    second = hours(("mon", "08:00", "17:00"), ("tue", "09:00", "17:00"))
    assert saved(otterwick, row, first, based_on=base).status_code == 204
    clash = saved(otterwick, row, second, based_on=base)
    assert clash.status_code == 409
    assert clash.json()["title"].endswith("the same meanwhile: Monday (10:00–17:00).")
    row.refresh_from_db()
    assert row.document == first
    assert saved(otterwick, row, second, based_on=base, all_the_same=True).status_code == 204
    row.refresh_from_db()
    assert row.document == hours(("mon", "08:00", "17:00"), ("tue", "09:00", "12:00"))
    bad = saved(otterwick, row, second, based_on={"timezone": "Europe/Nowhere"})
    assert (bad.status_code, bad.json()["errors"][0]["field"]) == (422, "based_on")


def test_which_due_times_move_is_said_of_what_both_come_to(otterwick: World) -> None:
    row = main_hours(otterwick.owner.business_id)
    base = row.document
    moved = {"document": base, "based_on": base}
    found = otterwick.console().post(f"/api/hours/{row.pk}/would-move", moved, "application/json")
    assert (found.status_code, found.json()) == (200, [])


def test_two_who_have_a_channel_open_both_save(otterwick: World) -> None:
    console = otterwick.console()
    phone = {"kind": "phone", "label": "Call us", "handle": "020 7946 0018"}
    made = console.post("/api/channels", {"document": phone}, "application/json").json()
    base, path = made["document"], f"/api/channels/{made['id']}"

    def put(**changed: Any) -> Any:
        more = {"based_on": base, "all_the_same": changed.pop("all_the_same", False)}
        return console.put(path, {"document": base | changed, **more}, "application/json")

    assert put(label="Ring us").status_code == 200
    both = put(while_closed="hide").json()["document"]
    assert (both["label"], both["while_closed"]) == ("Ring us", "hide")
    clash = put(label="Phone us", goal=True)
    assert (clash.status_code, clash.json()["title"].rpartition(": ")[2]) == (409, "what visitors read.")
    assert Channel.objects.get().value.label == "Ring us"
    kept = put(label="Phone us", goal=True, all_the_same=True).json()["document"]
    assert (kept["label"], kept["while_closed"], kept["goal"]) == ("Phone us", "hide", True)
    bad = console.put(path, {"document": base, "based_on": {"kind": "pigeon"}}, "application/json")
    assert (bad.status_code, bad.json()["errors"][0]["field"]) == (422, "based_on")


def test_two_who_have_a_reply_open_both_save(otterwick: World) -> None:
    console = otterwick.console()

    def cell() -> Any:
        [row] = [
            one for one in console.get("/api/replies").json()["rows"] if one["situation"] == "after-hours"
        ]
        return row["cells"][0]

    base = cell()["reply"]

    def put(**changed: Any) -> Any:
        more = {"based_on": base, "all_the_same": changed.pop("all_the_same", False)}
        return console.put("/api/replies/after-hours", {"reply": base | changed, **more}, "application/json")

    # The first of them makes it a cell of its own.
    assert not cell()["own"]
    assert put(button="Leave us a line").status_code == 204
    assert put(tone="quiet", title=["Shut"]).status_code == 204
    said = cell()
    assert (said["own"], said["reply"]["button"], said["title"], said["reply"]["tone"]) == (
        True,
        "Leave us a line",
        "Shut",
        "quiet",
    )
    clash = put(title=["Gone home"])
    assert clash.status_code == 409
    assert clash.json()["title"].endswith("the same meanwhile: the title.")
    assert cell()["title"] == "Shut"
    assert put(title=["Gone home"], all_the_same=True).status_code == 204
    assert (cell()["title"], cell()["reply"]["button"]) == ("Gone home", "Leave us a line")
    odd = console.put("/api/replies/after-hours", {"reply": base, "based_on": {"x": 1}}, "application/json")
    assert (odd.status_code, odd.json()["errors"][0]["field"]) == (422, "based_on")


def test_two_who_have_a_site_open_both_save(otterwick: World) -> None:
    console, path = otterwick.console(), f"/api/sites/{otterwick.site.pk}"
    [site] = console.get("/api/sites").json()
    base = {name: site[name] for name in ("name", "hosts", "language")}

    def put(**changed: Any) -> Any:
        more = {"based_on": base, "all_the_same": changed.pop("all_the_same", False)}
        return console.put(path, base | changed | more, "application/json")

    assert put(hosts=[*base["hosts"], "https://www.shop.example/"]).status_code == 200
    both = put(hosts=[*base["hosts"], "blog.example"], language="de").json()
    assert set(both["hosts"]) == {*base["hosts"], "shop.example", "blog.example"}
    assert (both["name"], both["language"]) == (base["name"], "de")
    # Taking out one that was there leaves what others have put in.
    assert set(put(hosts=["later.example"]).json()["hosts"]) == {
        "shop.example",
        "blog.example",
        "later.example",
    }
    clash = put(language="fr")
    assert (clash.status_code, clash.json()["title"].rpartition(": ")[2]) == (409, "its language.")
    assert put(language="fr", all_the_same=True).json()["language"] == "fr"
    bare = {"hosts": ["shop.example", "blog.example", "later.example"]}
    none = console.put(path, base | {"hosts": base["hosts"], "based_on": base | bare}, "application/json")
    assert set(none.json()["hosts"]) == set(base["hosts"])
    # Each takes out what the other leaves: none is left.
    two = {"hosts": ["one.example", "two.example"]}
    assert console.put(path, base | two, "application/json").status_code == 200
    first = console.put(path, base | {"hosts": ["one.example"], "based_on": base | two}, "application/json")
    assert first.json()["hosts"] == ["one.example"]
    last = console.put(path, base | {"hosts": ["two.example"], "based_on": base | two}, "application/json")
    assert (last.status_code, last.json()["errors"][0]["field"]) == (422, "hosts")
    odd = console.put(path, base | {"based_on": base | {"hosts": ["no host"]}}, "application/json")
    assert (odd.status_code, odd.json()["errors"][0]["field"]) == (422, "based_on")


def test_two_who_have_a_house_style_or_the_rules_of_a_site_open_both_save(otterwick: World) -> None:
    console, path = otterwick.console(), f"/api/sites/{otterwick.site.pk}"

    def put(what: str, value: Any, **more: Any) -> Any:
        return console.put(f"{path}/{what}", {what: value, **more}, "application/json")

    base = {"corners": 4, "colours": {"card": "#ffffff"}}
    assert put("house", base).status_code == 200
    assert (
        put("house", base | {"colours": {"card": "#ffffff", "text": "#111111"}}, based_on=base).status_code
        == 200
    )
    both = put("house", base | {"corners": 8}, based_on=base).json()["house"]
    assert (both["corners"], both["colours"]["text"]) == (8, "#111111")
    clash = put("house", base | {"corners": 2}, based_on=base)
    assert (clash.status_code, clash.json()["title"].rpartition(": ")[2]) == (409, "Corners.")
    assert (
        put("house", base | {"corners": 2}, based_on=base, all_the_same=True).json()["house"]["corners"] == 2
    )
    odd = put("house", base, based_on={"corners": 900})
    assert (odd.status_code, odd.json()["errors"][0]["field"]) == (422, "based_on")

    rules = console.get("/api/sites").json()[0]["rules"]
    assert put("rules", rules | {"search": ["findit.example"]}, based_on=rules).status_code == 200
    told = put("rules", rules | {"search": ["seek.example"], "most_interruptions": 2}, based_on=rules).json()
    assert set(told["rules"]["search"]) == {"findit.example", "seek.example"}
    clash = put("rules", rules | {"most_interruptions": 3}, based_on=rules)
    assert clash.status_code == 409
    assert clash.json()["title"].endswith("the same meanwhile: how often a visit is interrupted.")
    odd = put("rules", rules, based_on={"most_interruptions": 0})
    assert (odd.status_code, odd.json()["errors"][0]["field"]) == (422, "based_on")


@pytest.mark.django_db(transaction=True, available_apps=settings.INSTALLED_APPS)
def test_hosts_that_are_put_in_at_the_same_moment_are_all_kept(otterwick: World) -> None:
    [site] = otterwick.console().get("/api/sites").json()
    base = {name: site[name] for name in ("name", "hosts", "language")}

    def put(host: str) -> int:
        body = base | {"hosts": [*base["hosts"], host], "based_on": base}
        client = otterwick.console()
        return client.put(f"/api/sites/{site['id']}", body, "application/json").status_code

    more = [f"{name}.example" for name in ("shop", "blog", "school", "fleet")]
    assert at_once([partial(put, host) for host in more]) == [200] * 4
    assert set(otterwick.console().get("/api/sites").json()[0]["hosts"]) == {*base["hosts"], *more}


def test_whose_new_work_is_is_not_said_over_what_somebody_else_said(otterwick: World) -> None:
    console = otterwick.console()

    def put(rules: list[Any], **more: Any) -> Any:
        return console.put("/api/give-rules", {"rules": rules, **more}, "application/json")

    def kept() -> Any:
        return [one["rule"].get("tag") for one in console.get("/api/give-rules").json()]

    assert put([{"tag": "fleet"}], based_on=[]).status_code == 204
    clash = put([{"tag": "school"}], based_on=[])
    assert (clash.status_code, kept()) == (409, ["fleet"])
    assert clash.json()["title"].endswith("the same meanwhile: whose new work is.")
    assert put([{"tag": "school"}], based_on=[], all_the_same=True).status_code == 204
    assert kept() == ["school"]
    # What it was made from may name somebody who has gone since.
    assert put([], based_on=[{"member": 4_000_000}]).status_code == 409
    assert put([], based_on=[{"tag": "school"}]).status_code == 204
    assert kept() == []
