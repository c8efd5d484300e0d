"""The address that a business has at the operator's domain, and what stands over an answer that comes there."""

import re

import pytest
from django.conf import settings

from intavo.accounts.models import Business
from intavo.followup.models import FollowUp
from intavo.mail.models import OutgoingMail

from .conftest import Visitor, World, sending
from .test_inquiries import ask, question
from .test_mail_in import SENDER, hand_in, mail, ours


def test_an_answer_has_its_subject_in_what_visitors_are_spoken_to_in(
    visitor: Visitor, otterwick: World
) -> None:
    Business.objects.update(language="de", region="DE")
    ask(visitor, question(otterwick), 7, email=SENDER, name="Tomasz")
    row = FollowUp.objects.latest("pk")
    body = {"text": "Ja, ab sieben.", "key": "k1", "then": "wait"}
    otterwick.console().post(f"/api/follow-ups/{row.pk}/answer", body, content_type="application/json")
    assert ours(row).subject == "Re: Ihre Frage an Otterwick"


def test_answers_come_to_an_address_of_ones_own_from_the_first_mail_on(
    visitor: Visitor, otterwick: World, other: World, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(settings, "MAIL_IN_DOMAIN", "in.intavo.example")
    monkeypatch.setattr(settings, "MAIL_IN_SECRET", "for all of them")
    console = otterwick.console()
    own = console.get("/api/mail-in").json()["own"]
    assert own == "otterwick@in.intavo.example"
    Business.objects.filter(pk=other.business.pk).update(name="Otterwick!")
    theirs = other.console().get("/api/mail-in").json()["own"]
    assert (theirs != own, theirs.startswith("otterwick-")) == (True, True)
    # What goes out says so, whether or not it is about a follow-up.
    visitor.post("intake", sending(otterwick.touchpoint))
    assert OutgoingMail.objects.latest("pk").reply_to == own
    assert ask(visitor, question(otterwick), 7, email=SENDER, name="Tomasz").status_code == 201
    row = FollowUp.objects.latest("pk")
    body = {"text": "We do.", "key": "k1", "then": "wait"}
    assert (
        console.post(f"/api/follow-ups/{row.pk}/answer", body, content_type="application/json").status_code
        == 200
    )
    assert ours(row).reply_to.startswith("otterwick+")
    # By whichever of the two it comes, it comes to them; to nobody's name, to nobody.
    for to, became in ((own.upper(), 201), (theirs, 201), ("nobody@in.intavo.example", 422)):
        raw = mail("Hello?", sender=f"{became}@{to.split('@')[0].lower()}.example", To=to)
        assert hand_in(otterwick, raw, "for all of them").status_code == became
    assert FollowUp.objects.filter(business_id=other.business.pk).count() == 1
    # An owner may want them where their mail comes from.
    kept = console.put(
        "/api/mail-in", {"address": "", "direct": False}, content_type="application/json"
    ).json()
    assert kept["direct"] is False
    ask(visitor, question(otterwick), 8, email="nia@post.example", name="Nia")
    assert own not in OutgoingMail.objects.latest("pk").reply_to


@pytest.mark.parametrize("called", ["Info", "Postmaster", "宇宙", "...", "A" * 100])
def test_whatever_a_business_is_called_it_has_an_address(
    otterwick: World, monkeypatch: pytest.MonkeyPatch, called: str
) -> None:
    monkeypatch.setattr(settings, "MAIL_IN_DOMAIN", "in.intavo.example")
    Business.objects.update(name=called)
    own = otterwick.console().get("/api/mail-in").json()["own"]
    assert re.fullmatch(r"[a-z0-9]+(-[a-z0-9]+)*@in\.intavo\.example", own)
    assert own.partition("@")[0] not in {"info", "postmaster"}
