"""The address that a business's mail comes from: whoever reads it says first that it may."""

import json
import re
from typing import Any

from allauth.account.models import EmailAddress
from django.core import mail as outbox
from django.test import Client

from intavo.accounts.models import AccountMail, Business
from intavo.mail import actions as mail
from intavo.touchpoints import live

from .conftest import Visitor, World, sending


def change(world: World, address: str) -> Any:
    """Have mail come from an address."""
    body = {"name": "Otterwick", "mail_address": address, "promise_minutes": 120}
    return world.console().put("/api/business", json.dumps(body), "application/json")


def confirmed(world: World) -> bool:
    """What the owner is told of it."""
    return bool(world.console().get("/api/me").json()["business"]["mail_confirmed"])


def sent(world: World, number: int) -> outbox.EmailMessage:
    """The thank-you mail of one more sign-up, as it goes out."""
    live._sites.clear()
    Visitor(world.site.key).post("intake", sending(world.touchpoint, number))
    row = world.business.outgoingmail_set.latest("pk")
    mail.send(mail_id=row.pk)
    return outbox.outbox[-1]


def link() -> str:
    """Where the newest mail of Intavo's own leads."""
    found = re.search(r"http://127.0.0.1:8400(/sender/\S+)", AccountMail.objects.latest("pk").text)
    assert found
    return found[1]


def test_nothing_goes_out_from_an_address_before_its_reader_says_so(otterwick: World) -> None:
    assert change(otterwick, "boss@elsewhere.example").status_code == 204
    assert not confirmed(otterwick)
    first = sent(otterwick, 1)
    assert (first.from_email, first.reply_to) == (
        "Otterwick <no-reply@intavo.example>",
        ["boss@elsewhere.example"],
    )
    [asked] = AccountMail.objects.all()
    assert (asked.to, asked.subject) == ("boss@elsewhere.example", "May mail come from this address?")
    assert "Otterwick" not in asked.text
    assert "<button" in Client().get(link()).content.decode()
    assert not confirmed(otterwick)
    assert Client().post(link()).status_code == 200
    assert confirmed(otterwick)
    second = sent(otterwick, 2)
    assert (second.from_email, second.reply_to) == ("Otterwick <boss@elsewhere.example>", [])


def test_a_link_for_an_address_before_confirms_no_other(otterwick: World) -> None:
    change(otterwick, "boss@elsewhere.example")
    old = link()
    change(otterwick, "victim@elsewhere.example")
    for method in (Client().get, Client().post):
        assert method(old).status_code == 404
        assert method("/sender/nonsense").status_code == 404
    assert not confirmed(otterwick)


def test_a_members_own_confirmed_address_needs_no_question(otterwick: World) -> None:
    EmailAddress.objects.create(user=otterwick.user, email="Hello@otterwick.example", verified=True)
    change(otterwick, "hello@otterwick.example")
    assert confirmed(otterwick)
    assert not AccountMail.objects.exists()


def test_an_address_is_asked_a_few_times_a_day(otterwick: World) -> None:
    change(otterwick, "boss@elsewhere.example")
    again = [otterwick.console().post("/api/business/sender").status_code for _ in range(6)]
    assert again == [204] * 4 + [422] * 2
    assert AccountMail.objects.count() == 5
    answer = change(otterwick, "other@elsewhere.example")
    assert answer.json()["errors"][0]["field"] == "mail_address"
    assert Business.objects.get(pk=otterwick.business.pk).mail_address == "boss@elsewhere.example"
