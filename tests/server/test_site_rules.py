"""What is set for a whole site, the pages that the script has seen, and hosts that are not on the list."""

import json
from typing import Any

import pytest
from allauth.account.models import EmailAddress
from django.db import OperationalError
from django.test import Client

from intavo.mail.models import OutgoingMail
from intavo.sites.models import Site, SitePage, Stranger
from intavo.touchpoints import live
from intavo.touchpoints.actions import make, save_draft, turn_on
from intavo.visitor import counting

from .conftest import World

ORIGIN = {"origin": "https://otterwick.example"}


def plan(
    world: World,
    path: str = "/trips",
    origin: dict[str, str] | None = None,
    kinds: tuple[str, ...] = ("Section",),
    of: str = "https://otterwick.example",
    sender: str = "127.0.0.1",
    **visitor: Any,
) -> Any:
    """Ask for the plan of a page."""
    page = {"url": f"{of}{path}", "title": "Trips", "kinds": kinds}
    body = json.dumps({"page": page, "device": "desktop", "visitor": visitor})
    caller = Client(REMOTE_ADDR=sender)
    return caller.post(f"/e/{world.site.key}/plan", body, "text/plain", headers=origin or ORIGIN)


def anew() -> None:
    """As if a second had passed."""
    live._sites.clear()
    counting.tally._written.clear()


def put(world: World, rules: dict[str, Any]) -> Any:
    """Set the rules of the site."""
    return world.console().put(
        f"/api/sites/{world.site.pk}/rules", json.dumps({"rules": rules}), "application/json"
    )


def shown(world: World, show: dict[str, Any]) -> str:
    """A pop-up with these rules, on; its short name."""
    row = make(world.owner, starter="news", name="With rules")
    document = json.loads(json.dumps(row.draft.document)) | {"show": show}
    save_draft(world.owner, touchpoint_id=row.pk, document=document, based_on=1)
    anew()
    return turn_on(world.owner, touchpoint_id=row.pk).slug


def test_rules_of_a_site_are_kept_said_in_the_plan_and_refused_with_their_place(otterwick: World) -> None:
    shown(otterwick, {"sentences": [{"who": [{"kind": "signed_in"}]}]})
    answer = put(
        otterwick,
        {"search": ["https://WWW.FindIt.example/q"], "give_way_to": ["#note"], "signed_in": ".account"},
    )
    assert answer.json()["rules"]["search"] == ["findit.example"]
    anew()
    said = plan(otterwick).json()
    assert said["give_way_to"][0] == "#note"
    assert said["wants"] == {"kinds": False, "signed_in": ".account"}
    for rules, field in (
        ({"search": ["find it"]}, "rules.search"),
        ({"give_way_to": ["div["]}, "rules.give_way_to"),
        (
            {"groups": [{"name": "A", "pages": [{"kind": "regex", "path": "("}]}]},
            "rules.groups.0.pages.0.path",
        ),
        ({"most_interruptions": 0}, "rules.most_interruptions"),
    ):
        refused = put(otterwick, rules)
        assert refused.status_code == 422
        assert refused.json()["errors"][0]["field"] == field
    assert put(otterwick, {}).json()["rules"]["give_way_to"] == []


def test_rules_reach_the_plan_arrival_groups_of_pages_and_the_cap(otterwick: World) -> None:
    put(
        otterwick,
        {
            "search": ["findit.example"],
            "most_interruptions": 1,
            "groups": [{"name": "Quiet", "pages": [{"kind": "exact", "path": "/lessons"}]}],
        },
    )
    slug = shown(
        otterwick,
        {
            "sentences": [
                {
                    "pages": [{"kind": "group", "path": "quiet"}],
                    "who": [{"kind": "arrival", "ways": ["search"]}],
                }
            ]
        },
    )
    found = {"arrival": {"url": "https://otterwick.example/lessons", "referrer": "https://findit.example/"}}
    for path, visitor, there in (
        ("/lessons", found, True), ("/trips", found, False), ("/lessons", {}, False), ("/lessons", found | {"interruptions": 1}, False),
    ):  # fmt: skip
        slugs = [entry["slug"] for entry in plan(otterwick, path, **visitor).json()["touchpoints"]]
        assert (slug in slugs) is there


def test_an_entry_holds_until_its_times_change(otterwick: World) -> None:
    slug = shown(
        otterwick,
        {
            "sentences": [
                {"during": {"start": "14:00", "end": "15:00"}, "moments": [[{"idle": 5}, {"view": "footer"}]]}
            ]
        },
    )
    entry = next(one for one in plan(otterwick).json()["touchpoints"] if one["slug"] == slug)
    assert entry["valid_until"] == "2026-11-24T15:00:00Z"
    assert entry["moments"] == [[{"idle": 5}, {"view": "footer"}]]


def test_an_answer_of_the_group_ends_the_others_too(otterwick: World) -> None:
    group = {"group": "News", "until": {"answered": True, "group": True}}
    first, second = shown(otterwick, group), shown(otterwick, group)
    entries = plan(otterwick).json()["touchpoints"]
    answered = {
        next(one["id"] for one in entries if one["slug"] == first): {"answered": "2026-11-20T10:00:00Z"}
    }
    page = {"url": "https://otterwick.example/trips"}
    body = json.dumps({"page": page, "device": "desktop", "memory": answered})
    again = (
        Client()
        .post(f"/e/{otterwick.site.key}/plan", body, "text/plain", headers=ORIGIN)
        .json()["touchpoints"]
    )
    assert {first, second}.isdisjoint(one["slug"] for one in again)


def test_where_visits_came_from_is_counted_once_a_visit_and_offered(otterwick: World, other: World) -> None:
    def visit(referrer: str, query: str = "", pages: int = 1) -> None:
        counting.tally._written.clear()
        arrival = {"url": f"https://otterwick.example/{query}", "referrer": referrer}
        plan(otterwick, "/trips", arrival=arrival, pages_this_visit=pages)

    for _ in range(2):
        visit("https://www.chatter.example/talk/7?who=me", "?utm_medium=Social")
    visit("https://findit.example/")
    visit("https://findit.example/", pages=2)
    visit("https://otterwick.example/hire")
    visit("")
    address = f"/api/sites/{otterwick.site.pk}/sources"
    assert otterwick.console().get(address).json() == [
        {"kind": "host", "name": "chatter.example", "visits": 2},
        {"kind": "medium", "name": "social", "visits": 2},
        {"kind": "host", "name": "findit.example", "visits": 1},
    ]
    assert other.console().get(address).status_code == 404


def test_pages_that_were_seen_are_counted_and_matched(otterwick: World) -> None:
    for path in ("/trips", "/trips/?a=1", "/trips/Sunrise", "/hire"):
        counting.tally._written.clear()
        plan(otterwick, path)
    console = otterwick.console()
    pages = console.get(f"/api/sites/{otterwick.site.pk}/pages").json()
    assert [(one["path"], one["views"], one["kinds"]) for one in pages] == [
        ("/trips", 2, ["section"]),
        ("/hire", 1, ["section"]),
        ("/trips/sunrise", 1, ["section"]),
    ]
    asked = {
        "sentence": {
            "pages": [{"kind": "below", "path": "/trips"}],
            "landing": [{"kind": "exact", "path": "/"}],
        }
    }
    answer = console.post(f"/api/sites/{otterwick.site.pk}/matching", json.dumps(asked), "application/json")
    assert answer.json() == {"paths": ["/trips", "/trips/sunrise"], "of": 3}
    assert SitePage.objects.filter(business_id=otterwick.owner.business_id).count() == 3


def paths(world: World) -> list[str]:
    """The pages that are listed."""
    return [one["path"] for one in world.console().get(f"/api/sites/{world.site.pk}/pages").json()]


def test_a_page_is_listed_once_two_visitors_or_a_member_asked_for_it_and_invented_ones_hide_none(
    otterwick: World,
) -> None:
    for number in range(60):
        counting.tally._written.clear()
        plan(otterwick, f"/invented/{number}", sender="203.0.113.9")
        plan(otterwick, f"/invented/{number}", sender="203.0.113.9")
    plan(otterwick, "/real", sender="203.0.113.9")
    assert paths(otterwick) == []
    for path, sender in (("/real", "203.0.113.10"), ("/own", "127.0.0.1")):
        counting.tally._written.clear()
        plan(otterwick, path, sender=sender)
    assert paths(otterwick) == ["/real", "/own"]
    for number in range(600):
        counting.tally._written.clear()
        plan(otterwick, f"/flood/{number}", sender="203.0.113.9")
    assert SitePage.objects.filter(site=otterwick.site, counts=False).count() == 500
    assert paths(otterwick) == ["/real", "/own"]


def test_an_odd_address_of_a_page_holds_up_neither_its_plan_nor_what_is_counted(otterwick: World) -> None:
    for path in ("/%00", "/a%00b", "/%ed%a0%80", "/trips", "/\ud800", f"/{'x' * 3000}", "/%F0%9F%9B%B6"):
        assert plan(otterwick, path).status_code == 200, path
    counting.tally._written.clear()
    assert plan(otterwick, "/trips").status_code == 200
    assert {"/trips", "/🛶"} <= set(paths(otterwick))


def test_counting_that_fails_is_in_nobodys_way(otterwick: World, monkeypatch: pytest.MonkeyPatch) -> None:
    def away(*_: Any, **__: Any) -> None:
        raise OperationalError("the database is away")

    monkeypatch.setattr(counting, "count_pages", away)
    assert plan(otterwick).status_code == 200
    monkeypatch.undo()
    counting.tally._written.clear()
    assert plan(otterwick).status_code == 200
    assert paths(otterwick) == ["/trips"]


def test_a_port_or_scheme_that_a_visitor_says_changes_no_link(otterwick: World) -> None:
    link = f"/l/{otterwick.site.slug}/{otterwick.touchpoint.slug}"
    for sender in ("203.0.113.9", "203.0.113.10", "127.0.0.1"):
        counting.tally._written.clear()
        plan(otterwick, of="http://otterwick.example:6666", sender=sender)
        assert Client().get(link)["Location"].startswith("https://www.otterwick.example/#")


def test_where_no_scheme_was_written_a_members_own_browser_says_it(other: World) -> None:
    link, origin = f"/l/{other.site.slug}/{other.touchpoint.slug}", {"origin": "http://heronsgate.example"}
    for sender, home in (
        ("203.0.113.9", "https://heronsgate.example"),
        ("127.0.0.1", "http://heronsgate.example:81"),
    ):
        counting.tally._written.clear()
        assert plan(other, "/", origin, of="http://heronsgate.example:81", sender=sender).status_code == 200
        assert Client().get(link)["Location"].startswith(f"{home}/#")


def test_hosts_that_several_met_stand_before_invented_ones(otterwick: World) -> None:
    for sender in ("203.0.113.9", "203.0.113.10"):
        counting.tally._written.clear()
        plan(otterwick, origin={"origin": "https://copy.example"}, sender=sender)
    for number in range(40):
        counting.tally._written.clear()
        plan(otterwick, origin={"origin": f"https://invented-{number}.example"}, sender="203.0.113.9")
    told = otterwick.console().get("/api/sites").json()[0]["strangers"]
    assert (told[0], len(told)) == ("copy.example", 20)


def test_a_view_for_which_the_script_asks_twice_counts_once_and_its_kinds_stay(otterwick: World) -> None:
    shown(otterwick, {"sentences": [{"kinds": ["section"]}]})
    for kinds in ((), ("Section",), ()):
        counting.tally._written.clear()
        plan(otterwick, "/trips", kinds=kinds, arrival={"url": "", "referrer": "https://findit.example/"})
    console = otterwick.console()
    [page] = console.get(f"/api/sites/{otterwick.site.pk}/pages").json()
    assert (page["views"], page["kinds"]) == (2, ["section"])
    assert [one["visits"] for one in console.get(f"/api/sites/{otterwick.site.pk}/sources").json()] == [2]


def test_a_host_that_is_not_on_the_list_is_told_to_the_owner_until_it_is_added(otterwick: World) -> None:
    for _ in range(3):
        assert plan(otterwick, origin={"origin": "https://copy.example"}).status_code == 403
    assert plan(otterwick, origin={"origin": "null"}).status_code == 403
    console = otterwick.console()
    assert console.get("/api/sites").json()[0]["strangers"] == ["copy.example"]
    body = {"name": "Otterwick", "hosts": ["otterwick.example", "copy.example"]}
    console.put(f"/api/sites/{otterwick.site.pk}", json.dumps(body), "application/json")
    assert console.get("/api/sites").json()[0]["strangers"] == []
    assert not Stranger.objects.exists()


def test_forgetting_past_showings_raises_the_generation(otterwick: World) -> None:
    before = plan(otterwick).json()["touchpoints"][0]["generation"]
    answer = otterwick.console().post(f"/api/touchpoints/{otterwick.touchpoint.pk}/forget-showings")
    assert answer.status_code == 200
    anew()
    assert plan(otterwick).json()["touchpoints"][0]["generation"] == before + 1


def test_whoever_keeps_the_site_is_written_to(otterwick: World) -> None:
    console = otterwick.console()
    address = f"/api/sites/{otterwick.site.pk}/instructions"
    refused = console.post(address, json.dumps({"to": "nobody"}), "application/json")
    assert refused.json()["errors"][0]["field"] == "to"
    kim = json.dumps({"to": "kim@keeper.example"})
    answer = console.post(address, kim, "application/json")
    assert (answer.status_code, "Copy the text" in answer.json()["errors"][0]["message"]) == (422, True)
    assert f"/e/{otterwick.site.key}.js" in console.get(address).json()["text"]
    EmailAddress.objects.create(user=otterwick.user, email="kim@keeper.example", verified=True)
    Site.objects.update(name="Win a boat at https://x.example")
    for _ in range(5):
        assert console.post(address, kim, "application/json").status_code == 202
    mail = OutgoingMail.objects.get(to="kim@keeper.example")
    assert f"/e/{otterwick.site.key}.js" in mail.text
    assert "Win" not in mail.subject + mail.text
    assert mail.reply_to == otterwick.user.email
    assert console.post(address, kim, "application/json").status_code == 422
