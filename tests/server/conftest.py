"""A business with a site and a live touchpoint, made through the same actions as everybody's.

One is founded once for each worker and is there in every test; what a test does to it is rolled back.
"""

import gzip
import json
from collections.abc import Iterator
from dataclasses import dataclass
from types import SimpleNamespace
from typing import Any, cast

import pytest
from allauth.account.models import EmailAddress
from allauth.usersessions.models import UserSession
from django.conf import settings
from django.contrib.auth.hashers import get_hashers
from django.db import connection
from django.test import Client, override_settings
from procrastinate import JobContext
from pydantic import TypeAdapter

from intavo.accounts import quotas
from intavo.accounts.actions import add_member, found_business
from intavo.accounts.actor import Actor, member_actor
from intavo.accounts.edits import Edit
from intavo.accounts.models import Business, Member, User
from intavo.core.rights import Role
from intavo.hours.actions import set_hours
from intavo.hours.queries import main_hours
from intavo.people import queries as people_queries
from intavo.sites.actions import add_site
from intavo.sites.models import Site
from intavo.talks import queries as talk_queries
from intavo.touchpoints import live, revisions
from intavo.touchpoints.actions import make, save_draft, turn_on
from intavo.touchpoints.models import Touchpoint
from intavo.visitor import counting
from intavo.visitor.wire import ANSWERED
from tests.databases import fresh_database

NOW = "2026-11-24T14:05:00+00:00"
WEEK = [{"day": day, "from": "09:00", "to": "17:30"} for day in ("mon", "tue", "wed", "thu", "fri")]
PASSWORD = "correct horse paddle"
FAST = ["django.contrib.auth.hashers.MD5PasswordHasher"]
OTTERWICK = ("Otterwick", "morwenna@otterwick.example", "https://www.Otterwick.example/")


@dataclass
class World:
    """One business and what belongs to it."""

    owner: Actor
    site: Site
    touchpoint: Touchpoint

    @property
    def business(self) -> Business:
        return Business.objects.get(pk=self.owner.business_id)

    @property
    def user(self) -> User:
        return User.objects.get(pk=self.owner.user_id)

    def console(self) -> Client:
        """A browser in which the owner is signed in."""
        client = Client()
        client.force_login(self.user)
        return client

    def staff(self, role: Role = Role.STAFF) -> Client:
        """A browser in which somebody of the staff is signed in, or somebody with another role."""
        user = User.objects.create_user(
            f"staff{self.owner.business_id}@x.example", PASSWORD, name="Sable Okonjo"
        )
        add_member(self.owner, user=user, role=role)
        client = Client()
        client.force_login(user)
        return client


def world(name: str, email: str, host: str, **after: Any) -> World:
    """A business open 09:00–17:30 with a live sign-up that asks for follow-up."""
    user = User.objects.create_user(email, PASSWORD, name=f"Owner of {name}")
    EmailAddress.objects.create(user=user, email=email, verified=True, primary=True)
    owner = found_business(user=user, name=name, timezone="Europe/London")
    UserSession.objects.create(
        user_id=owner.user_id, ip="127.0.0.1", session_key=f"of {email}", user_agent="a test"
    )
    hours = main_hours(owner.business_id)
    weekdays = Edit({"timezone": "Europe/London", "week": WEEK, "exceptions": []})
    set_hours(owner, hours_id=hours.pk, edit=weekdays)
    site = add_site(owner, name=name, hosts=[host])
    row = make(owner, starter="news", name=f"News of {name}")
    document = dict(row.draft.document)
    document["after"] = document["after"] | {"follow_up": True} | after
    save_draft(owner, touchpoint_id=row.pk, document=document, based_on=1)
    return World(owner, site, turn_on(owner, touchpoint_id=row.pk))


@pytest.fixture(autouse=True)
def _still(monkeypatch: pytest.MonkeyPatch, tmp_path: Any) -> None:
    """The clock stands, nothing is remembered of the test before, and passwords are hashed fast."""
    monkeypatch.setattr(settings, "PASSWORD_HASHERS", FAST)
    # Every client that is made would look through all built files; what is sent is tested on a running server.
    monkeypatch.setattr(settings, "WHITENOISE_USE_FINDERS", False)
    get_hashers.cache_clear()  # type: ignore[attr-defined]  # Django caches it so
    monkeypatch.setenv("INTAVO_NOW", NOW)
    live._sites.clear()
    # What is remembered of rows is of those that were rolled back.
    people_queries._domains.clear()
    revisions._published.cache_clear()
    revisions.document_of.cache_clear()
    counting.tally.forget()
    talk_queries._noted.clear()
    quotas._shown.clear()
    loader = tmp_path / "loader.js"
    loader.write_text("/* the loader */")
    monkeypatch.setattr(settings, "LOADER_FILE", loader)


@pytest.fixture(scope="session")
def django_db_setup(worker_id: str, django_db_blocker: Any) -> Iterator[None]:
    """A database of this worker's own, with a business in it."""
    with django_db_blocker.unblock(), pytest.MonkeyPatch.context() as patch:
        connection.close()
        connection.settings_dict["NAME"] = fresh_database(f"intavo_server_{worker_id}").rpartition("/")[2]
        patch.setenv("INTAVO_NOW", NOW)
        with override_settings(PASSWORD_HASHERS=FAST):
            get_hashers.cache_clear()  # type: ignore[attr-defined]  # Django caches it so
            world(*OTTERWICK)
    yield
    with django_db_blocker.unblock():
        connection.close()


@pytest.fixture
def otterwick(db: None) -> World:
    """As it was founded; founded anew where a test that commits has emptied all tables."""
    member = Member.objects.filter(user__email=OTTERWICK[1]).first()
    if member is None:
        return world(*OTTERWICK)
    site = Site.objects.get(business_id=member.business_id)
    row = Touchpoint.objects.select_related("draft", "live").get(business_id=member.business_id)
    return World(member_actor(member), site, row)


@pytest.fixture
def other(db: None) -> World:
    return world("Heronsgate", "edda@heronsgate.example", "heronsgate.example")


def held_to_the_wire(what: str, answer: Any) -> None:
    """What is answered at an address of the visitor's is what `wire` says of it, and nothing else."""
    if not answer.content:
        assert answer.status_code in {204, 304}, what
        return
    kind = what.partition("?")[0].rpartition("/")[2] if answer.status_code < 400 else "problem"
    said = ANSWERED["messages" if kind == "files" else kind]
    packed = answer.headers.get("Content-Encoding") == "gzip"
    TypeAdapter(said).validate_json(
        gzip.decompress(answer.content) if packed else answer.content, extra="forbid"
    )


@dataclass
class Visitor:
    """A browser on a site's page, speaking the protocol."""

    key: str
    origin: str = "https://otterwick.example"

    def post(self, what: str, body: Any, **headers: str) -> Any:
        text = body if isinstance(body, (str, bytes)) else json.dumps(body)
        named = {"HTTP_ORIGIN": self.origin} | headers
        sent: dict[str, Any] = {name: value for name, value in named.items() if value is not None}
        answer = Client().post(f"/e/{self.key}/{what}", text, content_type="text/plain;charset=UTF-8", **sent)
        held_to_the_wire(what, answer)
        return answer

    def plan(self, path: str = "/", **more: Any) -> Any:
        body = {"page": {"url": f"{self.origin}{path}"}, "device": "desktop"} | more
        return self.post("plan", body)


def try_of(number: int) -> JobContext:
    """What a job is told of how often it was tried before."""
    return cast("JobContext", SimpleNamespace(job=SimpleNamespace(attempts=number)))


def sending(touchpoint: Touchpoint, number: int = 1, **more: Any) -> dict[str, Any]:
    """What the script sends for a sign-up."""
    return {
        "id": f"{number:032x}",
        "touchpoint": touchpoint.public_id,
        "revision": touchpoint.live.number,
        "variant": None,
        "step": "ask",
        "answers": {"email": "ife.dunmore@post.example", "name": "Ife"},
        "consents": {"news": True},
        "page": {"url": "https://otterwick.example/trips", "title": "Trips"},
        "device": "phone",
        "visitor": {"id": "6f0c", "utc_offset": 0, "visits": 2},
        "elapsed_ms": 9400,
    } | more


@pytest.fixture
def visitor(otterwick: World) -> Visitor:
    return Visitor(otterwick.site.key)


SCRIPT: dict[str, Any] = {
    "start": "hello",
    "turns": [
        {"id": "hello", "says": [["Hello. What is it about?"]], "choices": [
            {"id": "c1", "label": "Change a booking", "tags": ["booking"], "next": "which"},
            {"id": "c2", "label": "Opening hours", "says": [["We are open till ", {"slot": "closing_time"}, "."]]},
            {"id": "c3", "label": "Something else", "next": "hand"}]},
        {"id": "which", "says": [["Which day is it?"]], "asks": "text", "next": "mail"},
        {"id": "mail", "says": [["Where can we reach you?"]], "asks": "email", "next": "hand", "may_skip": True},
        {"id": "hand", "says": [["One of us answers ", {"slot": "promise"}, "."]], "hands_over": True},
    ],
}  # fmt: skip


@pytest.fixture
def talking(otterwick: World) -> World:
    row = make(otterwick.owner, starter="empty", name="Talk to us")
    document = dict(row.draft.document)
    document["steps"] = [{"id": "ask", "parts": [{"id": "p1", "kind": "talk", "script": SCRIPT}]}]
    save_draft(otterwick.owner, touchpoint_id=row.pk, document=document, based_on=1)
    otterwick.touchpoint = turn_on(otterwick.owner, touchpoint_id=row.pk)
    return otterwick
