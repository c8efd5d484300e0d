"""People of a business: invited, joined, changed, taken out; and which of several businesses is open."""

import json
from typing import Any
from urllib.parse import quote

import pytest
from allauth.account.models import EmailAddress
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client

from intavo.accounts.models import AccountMail, Member, User
from intavo.people.models import Person

from .conftest import Visitor, World
from .test_followup_api import arrive

JSON: dict[str, Any] = {"content_type": "application/json"}


def somebody(email: str) -> Client:
    """Signed in, with a confirmed address, and in no business."""
    user = User.objects.create_user(email, "a long enough one")
    EmailAddress.objects.create(user=user, email=email, verified=True, primary=True)
    client = Client()
    client.force_login(user)
    return client


def invited(world: World, email: str = "Jory@Otterwick.example", role: str = "staff") -> int:
    """Invite somebody; the invitation's id."""
    answer = world.console().post(
        "/api/invitations", {"email": email, "role": role, "name": "Jory Tregenza"}, **JSON
    )
    assert answer.status_code == 201
    return int(answer.json()["id"])


def test_somebody_is_invited_by_mail_joins_and_works_there(otterwick: World) -> None:
    invited(otterwick)
    mail = AccountMail.objects.latest("id")
    assert mail.to.lower() == "jory@otterwick.example"
    assert "invites you" in mail.subject
    jory = somebody("jory@otterwick.example")
    me = jory.get("/api/me").json()
    assert (me["business"], [one["role"] for one in me["invitations"]]) == (None, ["staff"])
    assert jory.post(f"/api/invitations/{me['invitations'][0]['id']}/join").status_code == 204
    me = jory.get("/api/me").json()
    assert (me["name"], me["member"]["role"], me["invitations"]) == ("Jory Tregenza", "staff", [])
    assert otterwick.console().get("/api/invitations").json() == []
    assert (
        jory.put(
            "/api/business", {"name": "Mine", "mail_address": "a@x.example", "promise_minutes": 5}, **JSON
        ).status_code
        == 403
    )


def test_an_invitation_is_for_its_address_alone_and_can_be_taken_back(otterwick: World) -> None:
    number = invited(otterwick)
    assert somebody("else@heron.example").post(f"/api/invitations/{number}/join").status_code == 404
    assert otterwick.console().delete(f"/api/invitations/{number}").status_code == 204
    assert somebody("jory@otterwick.example").post(f"/api/invitations/{number}/join").status_code == 404


@pytest.mark.parametrize(
    ("email", "role", "field"), [("nobody", "staff", "email"), ("a@b.example", "king", "role")]
)
def test_a_wrong_invitation_is_refused_by_its_field(
    otterwick: World, email: str, role: str, field: str
) -> None:
    answer = otterwick.console().post("/api/invitations", {"email": email, "role": role}, **JSON)
    assert (answer.status_code, answer.json()["errors"][0]["field"]) == (422, field)


def test_the_last_owner_is_protected_until_there_is_another(otterwick: World) -> None:
    console, own = otterwick.console(), otterwick.owner.member_id
    assert console.delete(f"/api/members/{own}").json()["errors"][0]["field"] == "role"
    assert console.put(f"/api/members/{own}", {"role": "staff"}, **JSON).status_code == 422
    number = invited(otterwick, role="owner")
    jory = somebody("jory@otterwick.example")
    jory.post(f"/api/invitations/{number}/join")
    assert console.delete(f"/api/members/{own}").status_code == 204
    assert console.get("/api/members").status_code == 401
    assert [one["role"] for one in jory.get("/api/members").json()] == ["owner"]


def test_initials_and_roles_are_changed_and_staff_may_not(otterwick: World) -> None:
    number = invited(otterwick)
    jory = somebody("jory@otterwick.example")
    jory.post(f"/api/invitations/{number}/join")
    member = Member.objects.get(user__email="jory@otterwick.example")
    changed = (
        otterwick.console()
        .put(f"/api/members/{member.pk}", {"role": "owner", "initials": "j t"}, **JSON)
        .json()
    )
    assert (changed["role"], changed["initials"]) == ("owner", "JT")
    otterwick.console().put(f"/api/members/{member.pk}", {"role": "staff"}, **JSON)
    assert jory.delete(f"/api/members/{otterwick.owner.member_id}").status_code == 403
    assert jory.get("/api/audit").status_code == 403
    assert jory.delete(f"/api/members/{member.pk}").status_code == 204


def test_one_person_works_in_several_businesses(otterwick: World, other: World) -> None:
    console = other.console()
    user = User.objects.get(pk=other.owner.user_id)
    EmailAddress.objects.get_or_create(user=user, email=user.email, verified=True, primary=True)
    number = invited(otterwick, email=user.email)
    assert console.post(f"/api/invitations/{number}/join").status_code == 204
    me = console.get("/api/me").json()
    assert (me["business"]["id"], len(me["businesses"])) == (otterwick.owner.business_id, 2)
    back = console.post("/api/me/business", {"business_id": other.owner.business_id}, **JSON)
    assert (back.status_code, console.get("/api/me").json()["business"]["id"]) == (
        204,
        other.owner.business_id,
    )
    stranger = somebody("nobody@heron.example")
    assert (
        stranger.post("/api/me/business", {"business_id": other.owner.business_id}, **JSON).status_code == 403
    )


def test_the_log_says_who_did_what_filtered_and_in_pages(otterwick: World) -> None:
    invited(otterwick)
    log = otterwick.console().get("/api/audit").json()
    assert log["entries"][0]["verb"] == "member invited"
    assert log["entries"][0]["words"].lower() == "invited jory@otterwick.example as staff"
    only = otterwick.console().get("/api/audit?verb=site added").json()
    assert {one["verb"] for one in only["entries"]} == {"site added"}
    older = otterwick.console().get(f"/api/audit?before={log['entries'][0]['id']}").json()
    assert log["entries"][0]["id"] not in [one["id"] for one in older["entries"]]


def test_ones_own_name_is_changed(otterwick: World) -> None:
    console = otterwick.console()
    assert console.put("/api/me", {"name": " Morwenna  H. "}, **JSON).status_code == 204
    assert console.get("/api/me").json()["name"] == "Morwenna H."
    assert console.put("/api/me", {"name": " "}, **JSON).json()["errors"][0]["field"] == "name"


@pytest.mark.parametrize("odd", ["\x00", "a\x00b", "\ud800", "9" * 40])
@pytest.mark.parametrize(
    "path", ["audit?verb=", "audit?before=", "audit?member=", "address?text=", "money?text=", "places?zone="]
)
def test_odd_questions_are_never_a_fault_of_the_server(otterwick: World, path: str, odd: str) -> None:
    answer = otterwick.console().get(f"/api/{path}{quote(odd, errors='surrogatepass')}")
    assert answer.status_code in {200, 422}


@pytest.mark.parametrize("odd", ["\u0000", "x\u0000", "\ud800", "9" * 5000, ""])
def test_odd_bodies_are_never_a_fault_of_the_server(otterwick: World, odd: str) -> None:
    console, business = otterwick.console(), otterwick.owner.business_id
    bodies = {
        ("post", "invitations"): {"email": odd, "role": odd, "name": odd},
        ("put", f"members/{otterwick.owner.member_id}"): {"role": "owner", "initials": odd},
        ("put", "me"): {"name": odd}, ("post", "hours"): {"name": odd, "document": {"timezone": odd, "week": odd}},
        ("put", "replies/open"): {"reply": {"title": [odd], "text": odd}}, ("post", "me/business"): {"business_id": business},
        ("put", f"touchpoints/{otterwick.touchpoint.pk}/draft"): {"document": {"steps": odd, "look": {"css": odd}}, "based_on": 2, "as_far": True},
    }  # fmt: skip
    for (method, path), body in bodies.items():
        answer = getattr(console, method)(f"/api/{path}", json.dumps(body), **JSON)
        assert answer.status_code < 500, (path, answer.content)


EVERYBODYS = (
    "/api/people", "/api/people-export?form=csv", "/api/groups", "/api/people-suggested", "/api/imports",
)  # fmt: skip


def test_an_owner_says_who_sees_everybody(
    otterwick: World, visitor: Visitor, monkeypatch: pytest.MonkeyPatch
) -> None:
    arrive(visitor, otterwick, monkeypatch, {"Ife Dunmore": "12:00"})
    owner, staff = otterwick.console(), otterwick.staff()
    member = Member.objects.get(role="staff").pk
    paths = (
        *EVERYBODYS,
        f"/api/people/{Person.objects.get().pk}/export",
        f"/api/touchpoints/{otterwick.touchpoint.pk}/answers",
        f"/api/touchpoints/{otterwick.touchpoint.pk}/answers-csv",
    )
    assert {path: staff.get(path).status_code for path in paths} == dict.fromkeys(paths, 200)
    body = {"role": "staff", "sees_everybody": False}
    assert staff.put(f"/api/members/{member}", body, "application/json").status_code == 403
    assert owner.put(f"/api/members/{member}", body, "application/json").json()["sees_everybody"] is False
    assert {path: staff.get(path).status_code for path in paths} == dict.fromkeys(paths, 403)
    assert staff.get("/api/me").json()["member"]["sees_everybody"] is False
    file = SimpleUploadedFile("people.csv", b"Email\na@post.example\n")
    assert staff.post("/api/imports", {"file": file}).status_code == 403
    # Who is on the list is worked all the same.
    assert staff.get("/api/follow-ups").json()["open_count"] == 1
    assert staff.get(f"/api/people/{Person.objects.get().pk}").status_code == 200
    # Without a word about it, it stays; an owner always does.
    assert (
        owner.put(f"/api/members/{member}", {"role": "manager"}, "application/json").json()["sees_everybody"]
        is False
    )
    assert (
        owner.put(f"/api/members/{member}", {"role": "owner"}, "application/json").json()["sees_everybody"]
        is True
    )
    assert "no longer lets" in str(owner.get("/api/audit").content)
