"""Hours and channels that two have open at once: what both changed is kept, and a clash is said, not lost."""

from typing import Any

from intavo.channels.models import Channel
from intavo.hours.models import HoursSet
from intavo.hours.queries import main_hours

from .conftest import WEEK, World


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
