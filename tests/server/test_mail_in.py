"""Mail that comes in: on the timeline of whom it is from, in its thread, once; and what comes back of ours."""

import json
import re
from collections.abc import Sequence
from contextlib import nullcontext
from datetime import timedelta
from smtplib import SMTPAuthenticationError, SMTPDataError, SMTPRecipientsRefused
from typing import Any
from unittest.mock import Mock

import pytest
from django.conf import settings
from django.core.mail import BadHeaderError, EmailMessage
from django.core.mail.backends.base import BaseEmailBackend
from django.test import Client

from intavo.accounts.models import Member
from intavo.apart import Busy, Unreadable
from intavo.core.mailin import answer_address, read_mail
from intavo.followup.models import FollowUp
from intavo.jobs import MOST_TRIES
from intavo.mail.actions import mail_in_of, send
from intavo.mail.models import OutgoingMail, Suppression
from intavo.mail.tasks import send_mail
from intavo.mailin import actions as mailin
from intavo.mailin.actions import set_mail_in
from intavo.mailin.aside import KEPT_FOR, clear_away, lying_aside
from intavo.mailin.models import IncomingMail
from intavo.people.effects import Erasing, person_erased
from intavo.people.models import Consent, Person, TimelineEvent
from intavo.talks.models import Message, Talk
from standins.mail import Kept, answer_to

from .conftest import Visitor, World, sending, try_of
from .test_inquiries import ask, question
from .test_talks import begin, say

SENDER = "tomasz@post.example"


def hand_in(world: World, raw: bytes, secret: str = "") -> Any:
    """Post a mail as a mail host does."""
    address = f"/in/mail/{secret or mail_in_of(world.business.pk).secret}"
    return Client().post(address, raw, content_type="message/rfc822")


def mail(text: str, sender: str = SENDER, **heads: str) -> bytes:
    """A mail with these heads."""
    given = {
        "From": f"Tomasz Wielgosz <{sender}>",
        "To": "hello@otterwick.example",
        "Subject": "Boats",
    } | heads
    head = "".join(f"{name.replace('_', '-')}: {value}\r\n" for name, value in given.items())
    return f"{head}\r\n{text}".encode()


@pytest.fixture
def asked(visitor: Visitor, otterwick: World) -> FollowUp:
    """A question that was answered by mail: it waits for them."""
    set_mail_in(otterwick.owner, address="answers@otterwick.example")
    assert ask(visitor, question(otterwick), 1, email=SENDER, name="Tomasz").status_code == 201
    row = FollowUp.objects.get()
    body = {"text": "We do, from age six.", "key": "k1", "then": "wait"}
    answered = otterwick.console().post(
        f"/api/follow-ups/{row.pk}/answer", body, content_type="application/json"
    )
    assert (answered.status_code, answered.json()["state"]) == (200, "for-them")
    row.refresh_from_db()
    return row


def ours(row: FollowUp) -> OutgoingMail:
    """Our answer to a follow-up."""
    return OutgoingMail.objects.get(key__startswith=f"answer-{row.pk}-")


def last_event(kind: str) -> dict[str, Any]:
    """What the timeline keeps of the last event of a kind."""
    data: dict[str, Any] = TimelineEvent.objects.filter(kind=kind).latest("pk").data
    return data


def test_an_answer_of_ours_is_signed_quotes_theirs_and_says_where_theirs_goes(asked: FollowUp) -> None:
    sent = ours(asked)
    assert sent.text.startswith(
        "We do, from age six.\n\nOwner of Otterwick\nOtterwick\n\n> Do you hire wetsuits\n> for children of 9?"
    )
    assert sent.reply_to == answer_address("answers@otterwick.example", asked.pk, settings.SECRET_KEY)


@pytest.mark.parametrize("by", ["In_Reply_To", "References", "To", "Subject"])
def test_their_answer_comes_back_to_its_follow_up(asked: FollowUp, otterwick: World, by: str) -> None:
    sent = ours(asked)
    head = {
        "In_Reply_To": sent.message_id,
        "References": f"<x@post.example> {sent.message_id}",
        "To": sent.reply_to.upper(),
        "Subject": f"Aw: {sent.subject}",
    }[by]
    raw = mail(
        "Good. Two then?\r\n\r\nOn Tue, 24 Nov, Otterwick wrote:\r\n> We do",
        Message_ID="<1@post.example>",
        **{by: head},
    )
    answer = hand_in(otterwick, raw)
    assert (answer.status_code, answer.json()) == (201, {"became": "message", "followup": asked.pk})
    asked.refresh_from_db()
    assert (asked.state, asked.excerpt, asked.due.isoformat()) == (
        "for-us",
        "Good. Two then?",
        "2026-11-24T16:05:00+00:00",
    )
    data = last_event("wrote by mail")
    assert (data["text"], data["quoted"]) == ("Good. Two then?", "On Tue, 24 Nov, Otterwick wrote:\n> We do")
    again = hand_in(otterwick, raw)
    assert (again.status_code, again.content) == (200, answer.content)
    assert TimelineEvent.objects.filter(kind="wrote by mail").count() == 1
    body = {"text": "Two it is.", "key": "k2", "then": "finish"}
    otterwick.console().post(f"/api/follow-ups/{asked.pk}/answer", body, content_type="application/json")
    second = OutgoingMail.objects.get(key=f"answer-{asked.pk}-k2")
    assert (second.in_reply_to, second.text[-20:].strip()) == ("<1@post.example>", "> Good. Two then?")


def test_somebody_new_asks_by_mail(otterwick: World) -> None:
    answer = hand_in(otterwick, mail("Have you a boat on Sunday?", sender="Nia@post.example"))
    row = FollowUp.objects.get(pk=answer.json()["followup"])
    assert (row.kind, row.excerpt, row.person.name) == (
        "inquiry",
        "Have you a boat on Sunday?",
        "Tomasz Wielgosz",
    )
    body = {"text": "Yes.", "key": "k", "then": "wait"}
    otterwick.console().post(f"/api/follow-ups/{row.pk}/answer", body, content_type="application/json")
    assert ours(row).subject == "Re: Boats"


def test_from_another_address_it_is_shown_as_such_and_joins_nobody(asked: FollowUp, otterwick: World) -> None:
    hand_in(
        otterwick,
        mail("It is me, from work.", sender="work@elsewhere.example", In_Reply_To=ours(asked).message_id),
    )
    assert last_event("wrote by mail")["from"] == "work@elsewhere.example"
    person = Person.objects.get()
    assert [one.shown for one in person.addresses.all()] == [SENDER]


def test_a_token_that_was_made_up_or_is_of_another_business_is_none(
    asked: FollowUp, otterwick: World, other: World
) -> None:
    made_up = f"answers+{asked.pk:x}-{'0' * 20}@otterwick.example"
    assert hand_in(otterwick, mail("Hi", sender="x@post.example", To=made_up)).json()["followup"] != asked.pk
    theirs = hand_in(other, mail("Hi", To=ours(asked).reply_to, In_Reply_To=ours(asked).message_id)).json()[
        "followup"
    ]
    assert FollowUp.objects.get(pk=theirs).business_id == other.business.pk
    asked.refresh_from_db()
    assert asked.state == "for-them"


def test_whoever_is_meant_is_the_one_who_wrote(otterwick: World) -> None:
    """The form of another program, a mail that was sent on, one of our own, one without an address."""
    form = hand_in(
        otterwick,
        mail("Is there a ramp?", "form@site.example", Reply_To="Ife <ife@post.example>", Message_ID="<1@x>"),
    )
    assert (form.status_code, form.json()["became"]) == (201, "message")
    ife = Person.objects.get()
    assert (ife.name, ife.addresses.get().key) == ("Ife", "ife@post.example")
    assert last_event("wrote by mail")["through"] == "form@site.example"
    sent_on = (
        "For you.\n\n---------- Forwarded message ---------\nFrom: Tomasz Wielgosz <tomasz@post.example>\n"
        "Date: today\nSubject: Boats\nTo: me\n\nDo you hire boats?"
    )
    member = otterwick.user.email
    assert (
        hand_in(otterwick, mail(sent_on, member, Message_ID="<2@x>", Subject="Fwd: Boats")).json()["became"]
        == "message"
    )
    tomasz = Person.objects.get(addresses__key=SENDER)
    told = last_event("wrote by mail")
    assert (tomasz.name, told["text"], told["subject"]) == ("Tomasz Wielgosz", "Do you hire boats?", "Boats")
    assert told["sent_on_by"] == "Tomasz Wielgosz", "the name that stands with the member's address"
    ours = hand_in(otterwick, mail("I rang him.", member, Message_ID="<3@x>", In_Reply_To="<2@x>")).json()
    assert (ours["became"], last_event("noted")["text"]) == ("noted", "I rang him.")
    assert not Person.objects.filter(addresses__key=member).exists()
    nobody = hand_in(otterwick, mail("Call me: 01632 960 417", Message_ID="<4@x>", From="Quill")).json()
    row = FollowUp.objects.select_related("person").get(pk=nobody["followup"])
    assert (row.person.name, row.person.addresses.count(), row.excerpt) == (
        "Quill",
        0,
        "Call me: 01632 960 417",
    )


def test_that_a_mail_was_read_is_no_work(asked: FollowUp, otterwick: World) -> None:
    receipt = (
        f"From: {SENDER}\r\nIn-Reply-To: {ours(asked).message_id}\r\nContent-Type: multipart/report; boundary=b\r\n\r\n"
        "--b\r\n\r\nIt was read.\r\n--b\r\nContent-Type: message/disposition-notification\r\n\r\n"
        f"Final-Recipient: rfc822; {SENDER}\r\nDisposition: automatic-action/MDN-sent-automatically; displayed\r\n--b--\r\n"
    )
    hand_in(otterwick, receipt.encode())
    asked.refresh_from_db()
    assert asked.state == "for-them"
    assert not TimelineEvent.objects.filter(kind="wrote by mail").exists()


def test_what_is_not_on_the_list_is_found_and_taken_up(
    asked: FollowUp, otterwick: World, other: World, monkeypatch: pytest.MonkeyPatch
) -> None:
    client = otterwick.console()
    hand_in(otterwick, mail("I am away. Ring Quill.", Message_ID="<1@x>", Auto_Submitted="auto-replied"))
    new = {"Message_ID": "<2@x>", "Auto_Submitted": "auto-replied"}
    hand_in(otterwick, mail("Closed in May", "shop@post.example", **new))
    hand_in(otterwick, mail("On the list", Message_ID="<3@x>"))
    rows = client.get("/api/mail-aside").json()
    assert [(one["sender"], one["kind"], one["said"]) for one in rows] == [
        ("shop@post.example", "auto-reply", "Closed in May"), (SENDER, "auto-reply", "I am away. Ring Quill."),
    ]  # fmt: skip
    assert [one["said"] for one in client.get("/api/mail-aside?q=quill away").json()] == [
        "I am away. Ring Quill."
    ]
    assert client.get("/api/day").json()["mail_aside"] == 2
    assert other.console().get("/api/mail-aside").json() == []
    body = {"through": rows[0]["id"]}
    assert client.post("/api/mail-aside/looked", body, content_type="application/json").status_code == 204
    assert client.get("/api/day").json()["mail_aside"] == 0
    shop, tomasz = (f"/api/mail-aside/{one['id']}/take-up" for one in rows)
    assert other.console().post(shop).status_code == 404
    opened = [client.post(shop).json()["followup_id"] for _ in range(2)]
    assert opened[0] == opened[1]
    row = FollowUp.objects.select_related("person").get(pk=opened[0])
    assert (row.state, row.subject, row.excerpt) == ("for-us", "Boats", "Closed in May")
    assert row.person.addresses.get().key == "shop@post.example"
    assert last_event("wrote by mail")["text"] == "Closed in May"
    assert client.post(tomasz).json()["followup_id"] == asked.pk
    assert client.get("/api/mail-aside").json() == []


def test_what_nobody_takes_up_is_forgotten_and_erased(otterwick: World) -> None:
    away = {"Auto_Submitted": "auto-replied", "Content_Type": "multipart/mixed; boundary=b"}
    text = (
        "--b\r\n\r\nClosed\r\n--b\r\nContent-Type: application/pdf; name=map.pdf\r\n\r\n%PDF-1\r\n--b--\r\n"
    )
    for number in (1, 2):
        hand_in(otterwick, mail(text, f"shop{number}@post.example", Message_ID=f"<{number}@x>", **away))
    old, young = IncomingMail.objects.order_by("pk")
    IncomingMail.objects.filter(pk=old.pk).update(received_at=old.received_at - KEPT_FOR - timedelta(hours=1))
    clear_away()
    old.refresh_from_db()
    assert (old.aside, old.said, old.sender, old.files.count()) == (False, "", "", 0)
    assert [one.pk for one in lying_aside(otterwick.owner)] == [young.pk]
    assert hand_in(otterwick, mail(text, "shop1@post.example", Message_ID="<1@x>", **away)).status_code == 200
    person_erased.tell(Erasing(otterwick.business.pk, 0, ("shop2@post.example",)))
    assert not IncomingMail.objects.filter(pk=young.pk).exists()


def test_an_invitation_is_read(otterwick: World) -> None:
    event = "BEGIN:VEVENT\r\nUID:7\r\nSUMMARY:Boats\r\nDTSTART:20261125T103000Z\r\nDTEND:20261125T110000Z\r\nEND:VEVENT"
    calendar = f"BEGIN:VCALENDAR\r\nMETHOD:REQUEST\r\n{event}\r\nEND:VCALENDAR\r\n"
    hand_in(otterwick, mail(calendar, Content_Type="text/calendar; method=REQUEST"))
    told = last_event("wrote by mail")["invitation"]
    assert (told["summary"], told["start"], told["end"]) == (
        "Boats",
        "2026-11-25T10:30:00Z",
        "2026-11-25T11:00:00Z",
    )


def test_an_automatic_reply_is_noted_and_changes_nothing(asked: FollowUp, otterwick: World) -> None:
    away = mail("Away till Monday", In_Reply_To=ours(asked).message_id, Auto_Submitted="auto-replied")
    assert hand_in(otterwick, away).json()["became"] == "noted"
    asked.refresh_from_db()
    assert asked.state == "for-them"
    assert last_event("answered by itself")["text"] == "Away till Monday"
    stranger = mail("Away", sender="nobody@post.example", Auto_Submitted="auto-replied")
    assert hand_in(otterwick, stranger).json() == {"became": "nobody", "followup": None}
    assert Person.objects.count() == 1


def kept(row: OutgoingMail, tmp_path: Any) -> Kept:
    """A mail of ours as the stand-in has it."""
    heads = f"From: {row.from_address}\r\nTo: {row.to}\r\nSubject: {row.subject}\r\nMessage-ID: {row.message_id}\r\nDate: x\r\n"
    return Kept("1", message_of(f"{heads}\r\n{row.text}".encode()))


def message_of(raw: bytes) -> Any:
    """A mail as the stand-in reads it."""
    from email import message_from_bytes, policy

    return message_from_bytes(raw, policy=policy.default)


def test_what_comes_back_for_good_is_said_and_the_address_left_alone(
    asked: FollowUp, otterwick: World, tmp_path: Any
) -> None:
    full = answer_to(kept(ours(asked), tmp_path), "full", "", "")
    assert hand_in(otterwick, full).json()["became"] == "came-back"
    assert (Suppression.objects.count(), FollowUp.objects.get().state) == (0, "for-them")
    gone = answer_to(kept(ours(asked), tmp_path), "gone", "", "")
    assert hand_in(otterwick, gone).json() == {"became": "came-back", "followup": asked.pk}
    asked.refresh_from_db()
    assert (asked.state, Suppression.objects.get().reason) == ("for-us", "bounced")
    assert last_event("mail came back") | {"mail": 0} == {"address": SENDER, "permanent": True, "mail": 0}
    client = otterwick.console()
    body = {"text": "Hello?", "key": "k3", "then": "wait"}
    client.post(f"/api/follow-ups/{asked.pk}/answer", body, content_type="application/json")
    send(mail_id=OutgoingMail.objects.get(key=f"answer-{asked.pk}-k3").pk)
    last = client.get(f"/api/follow-ups/{asked.pk}").json()["timeline"]
    assert [one["receipt"] for one in last if one["kind"] == "answered"][
        -1
    ] == "not mailed: mail to this address comes back"


def test_a_report_about_a_mail_that_was_never_sent_changes_nothing(
    asked: FollowUp, otterwick: World, tmp_path: Any
) -> None:
    made_up = answer_to(kept(ours(asked), tmp_path), "gone", "", "").replace(
        ours(asked).message_id.encode(), b"<0@x>"
    )
    assert hand_in(otterwick, made_up).json()["became"] == "nobody"
    assert Suppression.objects.count() == 0


def test_a_report_that_names_no_mail_of_ours_proves_nothing(
    asked: FollowUp, otterwick: World, tmp_path: Any
) -> None:
    full = answer_to(kept(ours(asked), tmp_path), "gone", "", "").decode()
    cut = re.sub(r"(?im)^(message-id|in-reply-to|references):.*\r?\n", "", full).replace("+", "-")
    assert hand_in(otterwick, cut.encode()).json()["became"] == "nobody"
    assert not Suppression.objects.exists()
    # It lies in the tray; sent to the address that our answer went out with, it is believed.
    assert lying_aside(otterwick.owner).count() == 1
    marked = re.sub(r"(?im)^to:.*$", f"To: {ours(asked).reply_to}", cut, count=1)
    assert hand_in(otterwick, marked.encode()).json()["became"] == "came-back"
    assert Suppression.objects.get().reason == "bounced"


def test_mail_that_is_perhaps_not_from_its_sender_is_heard_and_joins_nobody(
    asked: FollowUp, otterwick: World, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(settings, "MAIL_IN_HOST", "mx.otterwick.example")
    fails = "mx.otterwick.example; spf=pass; dmarc=fail (p=NONE) header.from=post.example"
    heads = {"In_Reply_To": ours(asked).message_id, "Authentication_Results": fails}
    taken = hand_in(otterwick, mail("Send the money elsewhere, please.", **heads)).json()
    assert (taken["became"], taken["followup"] != asked.pk) == ("message", True)
    row = FollowUp.objects.get(pk=taken["followup"])
    assert (row.person_id != asked.person_id, row.person.addresses.count()) == (True, 0)
    assert last_event("wrote by mail")["perhaps_from"] == SENDER
    # In a member's name it is no note of ours; what another host says of it is not believed.
    member = Member.objects.get(pk=otterwick.owner.member_id).user.email
    forged = mail("Finish this.", sender=member, Authentication_Results=fails)
    assert hand_in(otterwick, forged).json()["became"] == "message"
    heads["Authentication_Results"] = fails.replace("mx.otterwick", "mx.elsewhere")
    assert hand_in(otterwick, mail("Thank you.", **heads)).json()["followup"] == asked.pk


def test_who_calls_it_spam_has_agreed_to_nothing_any_more(
    visitor: Visitor, otterwick: World, tmp_path: Any
) -> None:
    visitor.post("intake", sending(otterwick.touchpoint))
    sent = OutgoingMail.objects.get()
    assert hand_in(otterwick, answer_to(kept(sent, tmp_path), "spam", "", "")).json()["became"] == "withdrawn"
    assert Consent.objects.get().withdrawn_at is not None
    assert Suppression.objects.get().reason == "complained"


def test_an_answer_to_a_thank_you_opens_a_question(visitor: Visitor, otterwick: World) -> None:
    visitor.post("intake", sending(otterwick.touchpoint))
    sign_up = FollowUp.objects.get()
    sent = OutgoingMail.objects.get()
    raw = mail("When is the next walk?", sender=sent.to, In_Reply_To=sent.message_id)
    answer = hand_in(otterwick, raw).json()
    row = FollowUp.objects.get(pk=answer["followup"])
    assert (row.pk != sign_up.pk, row.kind, row.person_id) == (True, "inquiry", sign_up.person_id)


def test_files_are_kept_for_download_and_never_shown(otterwick: World, other: World) -> None:
    from email.message import EmailMessage

    made = EmailMessage()
    made["From"], made["To"] = "nia@post.example", "hello@otterwick.example"
    made.set_content("See the plan")
    made.add_attachment(b"%PDF-1.4", maintype="application", subtype="pdf", filename="../plan.pdf")
    made.add_attachment(
        b"<html><script>alert(1)</script>", maintype="image", subtype="png", filename="photo.png"
    )
    hand_in(otterwick, made.as_bytes())
    files = last_event("wrote by mail")["files"]
    assert [(one["name"], one["risky"]) for one in files] == [("plan.pdf", False), ("photo.png", True)]
    page = otterwick.console().get(f"/api/mail-files/{files[1]['id']}")
    assert page["Content-Type"] == "application/octet-stream"
    assert page["Content-Disposition"].startswith("attachment")
    assert other.console().get(f"/api/mail-files/{files[1]['id']}").status_code == 404


def test_their_mailed_answer_goes_on_in_the_same_talk(
    visitor: Visitor, otterwick: World, talking: World
) -> None:
    begun = begin(talking, visitor)
    say(visitor, begun["talk"], 1, choice="c3")
    say(visitor, begun["talk"], 2, text="Do you hire by the week?")
    talk = Talk.objects.get()
    row = FollowUp.objects.get(pk=talk.followup_id)
    row.person.addresses.create(
        business=row.business, kind="email", key=SENDER, shown=SENDER, domain="post.example"
    )
    raw = mail(
        "By the week, please.", To=answer_address("answers@otterwick.example", row.pk, settings.SECRET_KEY)
    )
    assert hand_in(otterwick, raw).json()["followup"] == row.pk
    said = Message.objects.filter(talk=talk).latest("n")
    assert (said.source, said.text) == ("them", "By the week, please.")
    poll = Client().get(
        f"/e/{visitor.key}/talks/{begun['talk']}?after={said.n - 1}", HTTP_ORIGIN=visitor.origin
    )
    assert [one["text"] for one in poll.json()["messages"]] == ["By the week, please."]


@pytest.mark.parametrize(
    ("raw", "status"),
    [(b"", 422), (b"\r\n", 422), (b"x" * (26 * 1024 * 1024), 413), (b"\x00\xff" * 50, 201),
     (b"From: a\r\nContent-Type: multipart/mixed; boundary=b\r\n\r\n" + b"--b\r\n\r\nx\r\n" * 300, 413)],
)  # fmt: skip
def test_what_is_no_mail_is_refused_and_what_can_be_read_is_taken(
    otterwick: World, raw: bytes, status: int
) -> None:
    assert hand_in(otterwick, raw).status_code == status


@pytest.mark.parametrize(("bears", "became"), [(100_000, "message"), (0, None)])
def test_a_mail_that_its_reader_cannot_bear_is_read_as_far_as_its_beginning_goes(
    otterwick: World, monkeypatch: pytest.MonkeyPatch, bears: int, became: str | None
) -> None:
    def reader(read: Any, seconds: float, raw: bytes) -> Any:
        if len(raw) > bears:
            raise Unreadable
        return read(raw)

    monkeypatch.setattr(mailin, "apart", reader)
    answer = hand_in(otterwick, mail("Is there a boat?\r\n" * 10_000))
    assert answer.json().get("became") == became
    assert answer.status_code == (201 if became else 413)
    assert FollowUp.objects.filter(excerpt__startswith="Is there a boat?").count() == bool(became)


def test_while_too_many_mails_are_read_it_is_to_be_handed_in_again(
    otterwick: World, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(mailin, "apart", Mock(side_effect=Busy))
    answer = hand_in(otterwick, mail("Is there a boat?"))
    assert (answer.status_code, answer["Retry-After"]) == (429, "30")
    assert not IncomingMail.objects.exists()


def test_a_mailbox_that_is_none(otterwick: World, monkeypatch: pytest.MonkeyPatch) -> None:
    assert hand_in(otterwick, mail("Hi"), "0" * 32).status_code == 404
    assert hand_in(otterwick, mail("Hi"), "0" * 300).status_code == 404
    assert Client().get(f"/in/mail/{mail_in_of(otterwick.business.pk).secret}").status_code == 405
    assert Client().post("/in/mail/").status_code == 404


def test_one_secret_for_all_finds_whose_mail_it_is(
    asked: FollowUp, otterwick: World, other: World, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(settings, "MAIL_IN_SECRET", "for all of them")
    answered = hand_in(
        otterwick, mail("Yes", To="x@y.example", In_Reply_To=ours(asked).message_id), "for all of them"
    )
    assert answered.json()["followup"] == asked.pk
    sent_there = hand_in(otterwick, mail("Hi", To=other.business.mail_address), "for all of them")
    assert IncomingMail.objects.latest("pk").business_id == other.business.pk
    assert sent_there.status_code == 201
    assert hand_in(otterwick, mail("Hi", To="nobody@y.example"), "for all of them").status_code == 422


def test_where_answers_go_is_the_owners_to_say(otterwick: World) -> None:
    client = otterwick.console()
    before = client.get("/api/mail-in").json()
    assert before["address"] == ""
    refused = client.put(
        "/api/mail-in", {"address": "answers+1@otterwick.example"}, content_type="application/json"
    )
    assert refused.json()["errors"][0]["field"] == "address"
    kept_one = client.put(
        "/api/mail-in", {"address": "answers@otterwick.example"}, content_type="application/json"
    ).json()
    assert kept_one["address"] == "answers@otterwick.example"
    renewed = client.post("/api/mail-in/renew").json()["url"]
    assert renewed != before["url"]
    assert (
        Client()
        .post(before["url"].partition("8400")[2], mail("Hi"), content_type="message/rfc822")
        .status_code
        == 404
    )
    assert otterwick.staff().get("/api/mail-in").status_code == 403


def test_the_stand_in_writes_mails_that_are_read_as_meant(asked: FollowUp, tmp_path: Any) -> None:
    found = {
        how: read_mail(answer_to(kept(ours(asked), tmp_path), how, "Yes.", ""))
        for how in ("answer", "away", "gone", "full", "spam")
    }
    assert {how: (one.kind.value, one.permanent) for how, one in found.items()} == {
        "answer": ("message", None),
        "away": ("auto-reply", None),
        "gone": ("bounce", True),
        "full": ("bounce", False),
        "spam": ("complaint", None),
    }
    assert json.dumps(found["answer"].said) == '"Yes."'


class Refuses(BaseEmailBackend):
    """A mail server that says no, or is not there."""

    problem: Exception = OSError("away")

    def send_messages(self, email_messages: Sequence[EmailMessage]) -> int:
        """Nothing goes out."""
        raise self.problem


def codes(**said: int) -> SMTPRecipientsRefused:
    """What a server says of addresses."""
    return SMTPRecipientsRefused({f"{name}@post.example": (code, b"no") for name, code in said.items()})


@pytest.mark.parametrize(
    ("problem", "last", "why"),
    [
        (codes(eve=550), False, "the mail server refuses the address (550)"),
        (SMTPDataError(554, b"spam"), False, "the mail server refuses it (554)"),
        (BadHeaderError("two lines"), False, "a mail cannot be made of it"),
        (codes(eve=450), False, None),
        (SMTPDataError(451, b"later"), False, None),
        (SMTPAuthenticationError(535, b"who are you"), False, None),
        (ConnectionRefusedError("away"), False, None),
        (ConnectionRefusedError("away"), True, "the mail server could not be reached for hours"),
    ],
)
def test_what_can_never_be_mailed_is_said_once_and_is_for_us_again(
    visitor: Visitor,
    otterwick: World,
    monkeypatch: pytest.MonkeyPatch,
    problem: Exception,
    last: bool,
    why: str | None,
) -> None:
    ask(visitor, question(otterwick, thank_you={"send": False}), 1, email="eve@post.example", name="Eve")
    client, pk = otterwick.console(), FollowUp.objects.get().pk
    body = {"text": "Yes, we do.", "key": "k", "then": "wait"}
    assert (
        client.post(f"/api/follow-ups/{pk}/answer", body, content_type="application/json").status_code == 200
    )
    mail = OutgoingMail.objects.get()
    monkeypatch.setattr(settings, "EMAIL_BACKEND", f"{__name__}.Refuses")
    monkeypatch.setattr(Refuses, "problem", problem)
    if why is None:
        with pytest.raises(type(problem)):
            send_mail.func(try_of(MOST_TRIES - 1), mail_id=mail.pk)
        assert OutgoingMail.objects.get().state == OutgoingMail.WAITING
        return
    with pytest.raises(type(problem)) if last else nullcontext():
        send_mail.func(try_of(MOST_TRIES), mail_id=mail.pk)
    # It has been given up: once more changes nothing.
    send_mail.func(try_of(MOST_TRIES), mail_id=mail.pk)
    said = client.get(f"/api/follow-ups/{pk}").json()
    told = [one for one in said["timeline"] if one["kind"] == "not delivered"]
    assert [one["data"]["reason"] for one in told] == [why]
    assert [one["receipt"] for one in said["timeline"] if one["kind"] == "answered"] == [f"not mailed: {why}"]
    assert (said["state"], said["due"]) == ("for-us", "2026-11-24T16:05:00Z")
