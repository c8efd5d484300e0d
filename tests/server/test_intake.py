"""What a visitor sends becomes one person, one follow-up and one mail."""

from concurrent.futures import ThreadPoolExecutor
from datetime import timedelta

import pytest
from django.conf import settings
from django.core import mail as outbox
from django.db import connections
from procrastinate.contrib.django.models import ProcrastinateJob

from intavo import clock
from intavo.core.hosts import host_of
from intavo.followup.models import FollowUp
from intavo.intake.models import Submission
from intavo.mail.actions import send
from intavo.mail.models import OutgoingMail, Suppression
from intavo.people import queries
from intavo.people.models import Address, Consent, Person, TimelineEvent
from intavo.touchpoints.actions import put_live, save_draft, turn_on

from .conftest import Visitor, World, sending


def test_a_signup_is_a_person_a_followup_a_consent_and_a_mail(visitor: Visitor, otterwick: World) -> None:
    answer = visitor.post("intake", sending(otterwick.touchpoint))
    assert answer.json() == {
        "next": "thanks",
        "says": {"title": "", "text": "We answer today by 16:05."},
        "code": None,
        "file": None,
        "suggest": None,
    }
    followup = FollowUp.objects.get()
    assert (followup.person.name, followup.kind, followup.state) == ("Ife", "sign-up", "for-us")
    assert followup.due.isoformat() == "2026-11-24T16:05:00+00:00"
    consent = Consent.objects.get()
    assert (consent.wording, consent.revision) == (
        "Send me the monthly news by email.",
        otterwick.touchpoint.live.number,
    )
    assert host_of(consent.page) == "otterwick.example"
    event = TimelineEvent.objects.get()
    assert event.data["typed"] == [["Your email", "ife.dunmore@post.example"], ["First name", "Ife"]]
    wanted = {"mail_id": OutgoingMail.objects.get().pk}
    assert ProcrastinateJob.objects.filter(task_name="send_mail", args=wanted).count() == 1


def test_the_thank_you_mail_says_the_promise_and_goes_out_once(visitor: Visitor, otterwick: World) -> None:
    visitor.post("intake", sending(otterwick.touchpoint))
    queued = OutgoingMail.objects.get()
    send(mail_id=queued.pk)
    send(mail_id=queued.pk)
    [sent] = outbox.outbox
    assert sent.to == ["ife.dunmore@post.example"]
    assert sent.from_email == "Otterwick <morwenna@otterwick.example>"
    assert "Hello Ife," in sent.body
    assert "We answer today by 16:05." in sent.body
    assert sent.extra_headers["Message-ID"] == queued.message_id


def test_a_suppressed_address_gets_no_mail(visitor: Visitor, otterwick: World) -> None:
    visitor.post("intake", sending(otterwick.touchpoint))
    Suppression.objects.create(
        business=otterwick.business,
        address_key="ife.dunmore@post.example",
        reason="bounced",
        since=clock.now(),
    )
    send(mail_id=OutgoingMail.objects.get().pk)
    assert outbox.outbox == []


def test_the_same_person_in_capitals_is_one_person_with_two_events(
    visitor: Visitor, otterwick: World
) -> None:
    visitor.post("intake", sending(otterwick.touchpoint, 1))
    shouted = {"email": "IFE.DUNMORE@POST.EXAMPLE", "name": "Mallory"}
    visitor.post("intake", sending(otterwick.touchpoint, 2, answers=shouted))
    person = Person.objects.get()
    assert person.name == "Ife"
    assert [event.data["typed"][1][1] for event in person.events.order_by("id")] == ["Ife", "Mallory"]
    assert FollowUp.objects.count() == 1
    assert Address.objects.count() == 1


def test_a_signup_that_asks_for_no_followup_has_no_due_time_and_says_nothing(
    visitor: Visitor, otterwick: World
) -> None:

    row = otterwick.touchpoint
    document = dict(row.draft.document) | {"after": {"follow_up": False}}
    save_draft(otterwick.owner, touchpoint_id=row.pk, document=document, based_on=row.draft.number)
    row = put_live(otterwick.owner, touchpoint_id=row.pk)
    assert visitor.post("intake", sending(row)).json()["says"] is None
    assert FollowUp.objects.get().due is None


def test_when_closed_the_after_hours_reply_is_given(
    visitor: Visitor, otterwick: World, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setenv("INTAVO_NOW", "2026-11-27T20:00:00+00:00")
    says = visitor.post("intake", sending(otterwick.touchpoint)).json()["says"]
    assert says["title"] == "We are closed just now"
    assert says["text"] == "We open again on Monday at 09:00 and answer on Monday by 11:00."


def test_a_slip_in_a_domain_is_offered_and_taking_it_leaves_no_trace(
    visitor: Visitor, otterwick: World
) -> None:
    for number in range(3):
        visitor.post(
            "intake",
            sending(otterwick.touchpoint, 100 + number, answers={"email": f"a{number}@otterwick.example"}),
        )
    queries._domains.clear()
    slip = visitor.post("intake", sending(otterwick.touchpoint, 1, answers={"email": "ife@otterwik.example"}))
    assert slip.status_code == 201
    assert slip.json()["suggest"] == {"email": "ife@otterwick.example"}
    assert Address.objects.filter(key="ife@otterwik.example").exists()
    mended = sending(
        otterwick.touchpoint, 2, answers={"email": "ife@otterwick.example"}, corrects=f"{1:032x}"
    )
    assert visitor.post("intake", mended).json()["suggest"] is None
    assert not Address.objects.filter(key="ife@otterwik.example").exists()
    assert Person.objects.count() == 4
    assert OutgoingMail.objects.get(to_key="ife@otterwik.example").state == OutgoingMail.SUPPRESSED


def test_a_correction_never_takes_away_somebody_who_was_known_before(
    visitor: Visitor, otterwick: World
) -> None:
    visitor.post("intake", sending(otterwick.touchpoint, 1))
    visitor.post("intake", sending(otterwick.touchpoint, 2))
    visitor.post(
        "intake", sending(otterwick.touchpoint, 3, answers={"email": "b@post.example"}, corrects=f"{2:032x}")
    )
    assert Address.objects.filter(key="ife.dunmore@post.example").exists()


# Naming the apps lets the test clean up by cascade, which the partitioned table of beats needs.
@pytest.mark.django_db(transaction=True, available_apps=settings.INSTALLED_APPS)
def test_the_same_address_from_many_tabs_at_once_is_one_person(visitor: Visitor, otterwick: World) -> None:
    def one(number: int) -> int:
        try:
            return visitor.post("intake", sending(otterwick.touchpoint, number)).status_code
        finally:
            connections.close_all()

    with ThreadPoolExecutor(6) as pool:
        codes = list(pool.map(one, [1, 1, 2, 3, 4, 5, 6, 6]))
    assert sorted(codes) == [200, 200, 201, 201, 201, 201, 201, 201]
    assert (Person.objects.count(), FollowUp.objects.count(), Submission.objects.count()) == (1, 1, 6)


def test_a_stranger_in_whose_name_others_send_gets_few_mails_and_nothing_is_lost(
    otterwick: World, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(settings, "THANKS_A_DAY", 3)
    document = dict(otterwick.touchpoint.live.document)
    document["after"] |= {"thank_you": {"send": True, "subject": "Thank you", "text": ["Thank you."]}}
    save_draft(
        otterwick.owner,
        touchpoint_id=otterwick.touchpoint.pk,
        document=document,
        based_on=otterwick.touchpoint.draft.number,
    )
    row, visitor = (
        turn_on(otterwick.owner, touchpoint_id=otterwick.touchpoint.pk),
        Visitor(otterwick.site.key),
    )

    def thanked(address: str) -> int:
        return OutgoingMail.objects.filter(to=address, key__startswith="thanks-").count()

    for number in range(6):
        body = sending(row, number, answers={"email": "stranger@post.example"})
        assert visitor.post("intake", body).status_code == 201
    visitor.post("intake", sending(row, 9, answers={"email": "other@post.example"}))
    assert (Submission.objects.count(), thanked("stranger@post.example"), thanked("other@post.example")) == (
        7,
        3,
        1,
    )
    later = clock.now() + timedelta(days=1, minutes=1)
    monkeypatch.setattr(clock, "now", lambda: later)
    visitor.post("intake", sending(row, 10, answers={"email": "stranger@post.example"}))
    assert thanked("stranger@post.example") == 4
