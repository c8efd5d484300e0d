"""No route gives or changes anything of another business."""

import json
import re
from datetime import timedelta
from typing import Any

import pytest
from django.apps import apps
from django.db import transaction
from django.test import Client
from ninja import Schema

from intavo import clock
from intavo.accounts.models import AccountMail, Business, Invitation, SeenBrowser, User
from intavo.channels.models import Channel
from intavo.copies.models import Copy
from intavo.core.touchpoint import STARTERS
from intavo.followup.models import Batch, FollowUp, KeptAnswer, KeptFilter
from intavo.hours.queries import main_hours
from intavo.imports.models import Import
from intavo.intake.models import Quarantined
from intavo.mail.models import Enclosure
from intavo.mailin.models import IncomingFile, IncomingMail
from intavo.people.models import Address, Group, Merge, Person, TimelineEvent
from intavo.project.api import api
from intavo.talks.models import Gateway, Talk
from intavo.touchpoints.models import Asset, QuestionAnswer, RehearsalVisitor

from .conftest import Visitor, World, sending

PATHS: dict[str, dict[str, Any]] = json.loads(json.dumps(api.get_openapi_schema(), default=str))["paths"]
ROUTES = [(method, path) for path, methods in PATHS.items() for method in methods]
# A business itself; users, who may belong to several; and mail to them that waits.
SHARED = {AccountMail, SeenBrowser, User, Business}


@pytest.fixture
def theirs(otterwick: World) -> dict[str, Any]:
    """Ids of another business by the names that routes give them."""
    business, at = otterwick.owner.business_id, clock.now()
    Visitor(otterwick.site.key).post("intake", sending(otterwick.touchpoint))
    return {
        "touchpoint_id": otterwick.touchpoint.pk,
        "site_id": otterwick.site.pk,
        "hours_id": main_hours(otterwick.owner.business_id).pk,
        "followup_id": FollowUp.objects.get().pk,
        "channel_id": Channel.objects.create(
            business_id=business,
            document={"kind": "phone", "label": "Call", "handle": "01632 960123"},
            created_at=at,
        ).pk,
        "gateway_id": Gateway.objects.create(
            business_id=business,
            name="Wherry",
            address="https://w.example",
            bearer="",
            secret="",
            created_at=at,
        ).pk,
        "talk_id": Talk.objects.create(
            business_id=business, site=otterwick.site, begun_at=at, last_word_at=at
        ).pk,
        "import_id": Import.objects.create(
            business_id=business, name="x", form="csv", key="i", size=1, encoding="utf-8", added_at=at
        ).pk,
        "person_id": Person.objects.get().pk,
        "event_id": TimelineEvent.objects.earliest("pk").pk,
        "address_id": Address.objects.get().pk,
        "group_id": Group.objects.create(business_id=business, name="All", wanted={}).pk,
        "merge_id": Merge.objects.create(
            business_id=business, kept=Person.objects.get(), gone_id=10**9, at=at, record={"name": "x"}
        ).pk,
        "copy_id": Copy.objects.create(business_id=business, out=True, key="c", state="ready", at=at).pk,
        "enclosure_id": Enclosure.objects.create(
            business_id=business, key="e", name="a", type="text/plain", size=1, added_at=at
        ).pk,
        "key": "0" * 32,
        "number": 1,
        "answer_id": KeptAnswer.objects.create(business_id=business, name="Yes", text=["Yes"]).pk,
        "batch_id": Batch.objects.create(business_id=business, at=at, do="finish", words="finished").pk,
        "filter_id": KeptFilter.objects.create(business_id=business, name="Late", wanted={}).pk,
        "file_id": IncomingFile.objects.create(
            business_id=business,
            key="f",
            name="x",
            type="text/plain",
            size=1,
            risky=False,
            mail=IncomingMail.objects.create(
                business_id=business, mark="m", kind="message", became="message", received_at=at
            ),
        ).pk,
        "mail_id": IncomingMail.objects.get().pk,
        "situation": "open",
        "member_id": otterwick.owner.member_id,
        "invitation_id": Invitation.objects.create(
            business_id=business, email="x@y.example", role="staff", expires_at=at + timedelta(days=1)
        ).pk,
        "visitor_id": RehearsalVisitor.objects.create(business_id=business, name="Maya", document={}).pk,
        "asset_id": Asset.objects.create(
            business_id=business,
            kind="file",
            name="x",
            media_type="text/plain",
            size=1,
            digest="d",
            added_at=at,
        ).pk,
        "question_id": QuestionAnswer.objects.create(
            business_id=business, question="Q", answer="<p>A</p>"
        ).pk,
        "quarantined_id": Quarantined.objects.create(
            business_id=business,
            site=otterwick.site,
            client_id="c",
            touchpoint="tp",
            raw={},
            answer="{}",
            reason="trap",
            sender="s",
            received_at=at,
        ).pk,
    }


def body_for(path: str) -> dict[str, Any]:
    """A body that is right but for whose it is about."""
    if "channels" in path:
        return {
            "document": {"kind": "phone", "label": "Call", "handle": "01632 960123"},
            "channel_ids": [],
            "text": "x",
        }
    if "/join" in path:
        return {"gone_id": 1, "name": "kept"}
    document = (
        {"timezone": "Europe/London"} if "hours" in path else STARTERS[0].document.model_dump(mode="json")
    )
    based_on: Any = document if "hours" in path else 1
    if "/sites/" in path and "hours" not in path:
        based_on = {"hosts": ["ours.example"]} if path.endswith("}") else {}
    return {
        "document": document, "based_on": based_on, "name": "Ours now", "hosts": ["ours.example"],
        "text": "Hello", "says": "accepted", "key": "k", "then": "wait", "until": "2026-12-01T10:00:00Z", "outcome": "won",
        "timezone": "Europe/London", "time": "2026-12-01T10:00:00Z", "mail_address": "a@x.example", "promise_minutes": 5, "away": False,
        "starter": "news", "site_ids": [], "touchpoint_ids": [], "codes": "A", "house": {}, "rules": {}, "sentence": {}, "question": "Q?",
        "answer": "<p>A</p>", "question_ids": [], "on": False, "to": "a@x.example", "hours_id": 1, "reply": {}, "business_id": 1, "email": "a@x.example", "role": "staff", "tag": "x", "do": "finish", "wanted": {}, "gone_id": 1, "other_id": 1, "visitor": {"at": "2026-11-24T14:05:00Z"}, "deeds": [],
    }  # fmt: skip


def everything_of(business: int) -> dict[str, list[dict[str, Any]]]:
    """All rows of a business."""
    models = [
        m for m in apps.get_models() if any(f.name in {"business", "business_id"} for f in m._meta.fields)
    ]
    return {
        m._meta.label: list(m._base_manager.filter(business_id=business).order_by("pk").values())
        for m in models
    }


def wrong_with(client: Client, method: str, path: str, theirs: dict[str, Any]) -> list[str]:
    """What a route gives or changes of another business, asked with its ids; nothing it does stays."""
    named = set(re.findall(r"\{(\w+)\}", path)) - {"situation"}
    address = re.sub(r"\{(\w+)\}", lambda place: str(theirs[place[1]]), path)
    body = json.dumps(body_for(path) | {"site_id": theirs["site_id"]})
    with transaction.atomic():
        answer = client.generic(method.upper(), address, body, "application/json")
        text = answer.content.decode()
        # Unlike a failing statement, this leaves the rows to be looked at before they are rolled back.
        changed = method != "get" and everything_of(theirs["business"]) != theirs["before"]
        transaction.set_rollback(True)
    right = answer.status_code == 404 if named else answer.status_code < 500
    shown = [word for word in ("Otterwick", "ife.dunmore") if word in text]
    return [
        *([] if right else [f"answers {answer.status_code}"]),
        *shown,
        *(["changes rows"] if changed else []),
    ]


def test_no_route_gives_or_changes_anything_with_another_businesss_ids(
    otterwick: World, other: World, theirs: dict[str, Any]
) -> None:
    business = otterwick.owner.business_id
    about = theirs | {"business": business, "before": everything_of(business)}
    client = other.console()
    wrong = {
        f"{method} {path}": found
        for method, path in ROUTES
        if (found := wrong_with(client, method, path, about))
    }
    assert len(ROUTES) > 200
    assert wrong == {}


def test_no_route_is_open_without_signing_in(db: None) -> None:
    client = Client()
    answers = {
        f"{method} {path}": client.generic(
            method.upper(), re.sub(r"\{\w+\}", "1", path), "{}", "application/json"
        ).status_code
        for method, path in ROUTES
    }
    assert {route: status for route, status in answers.items() if status != 401} == {}


def test_every_table_of_ours_belongs_to_a_business() -> None:
    ours = [model for model in apps.get_models() if model.__module__.startswith("intavo.")]
    without = [m for m in ours if not {"business", "business_id"} & {f.name for f in m._meta.fields}]
    assert set(without) == SHARED


def test_no_two_shapes_of_the_console_have_one_name() -> None:
    """The console's types are made by name: of two different ones only one would be known."""
    shapes: dict[str, set[str]] = {}
    for one in Schema.__subclasses__():
        if one.__module__.startswith("intavo."):
            shapes.setdefault(one.__name__, set()).add(json.dumps(one.model_json_schema(), sort_keys=True))
    assert {name for name, kinds in shapes.items() if len(kinds) > 1} == set()
