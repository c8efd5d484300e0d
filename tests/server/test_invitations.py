"""What comes with a mail besides words: invitations that are answered as calendars read it, and pictures."""

from base64 import b64encode
from email import message_from_bytes
from typing import Any

import pytest
from django.core import mail as django_mail
from icalendar import Calendar

from intavo.followup.models import FollowUp
from intavo.mail.actions import send
from intavo.mail.models import OutgoingMail
from intavo.people.models import TimelineEvent

from .conftest import World
from .test_mail_in import SENDER, hand_in, mail

EVENT = (
    "BEGIN:VEVENT\r\nUID:7@post.example\r\nSEQUENCE:2\r\nSUMMARY:Boats\r\nDTSTART:20261125T103000Z\r\n"
    "{organizer}ATTENDEE:mailto:boats@otterwick.example\r\nATTENDEE:mailto:HELLO@Otterwick.example\r\nEND:VEVENT"
)


def invited(
    world: World, organizer: str = f"ORGANIZER;CN=Ife:MAILTO:{SENDER}\r\n", method: str = "REQUEST"
) -> tuple[FollowUp, int]:
    """Somebody invites us by mail: their follow-up, and the entry of the timeline."""
    calendar = (
        f"BEGIN:VCALENDAR\r\nMETHOD:{method}\r\n{EVENT.format(organizer=organizer)}\r\nEND:VCALENDAR\r\n"
    )
    hand_in(
        world, mail(calendar, Content_Type=f"text/calendar; method={method}", Subject="Boats on Wednesday")
    )
    return FollowUp.objects.latest("pk"), TimelineEvent.objects.filter(kind="wrote by mail").latest("pk").pk


def says(world: World, row: FollowUp, event: int, word: str) -> Any:
    path = f"/api/follow-ups/{row.pk}/invitations/{event}"
    return world.console().post(path, {"says": word}, content_type="application/json")


def test_an_invitation_is_accepted_by_mail_as_calendars_read_it(otterwick: World) -> None:
    otterwick.business.__class__.objects.filter(pk=otterwick.business.pk).update(
        mail_address="hello@otterwick.example"
    )
    row, event = invited(otterwick)
    for word in ("accepted", "accepted", "declined", "accepted"):
        assert says(otterwick, row, event, word).status_code == 200
    # The same again is no other mail.
    mails = list(OutgoingMail.objects.filter(key__contains="invitation").order_by("pk"))
    assert [one.text.partition("\n")[0] for one in mails] == [
        "We accept: Boats", "We cannot come: Boats", "We accept: Boats",
    ]  # fmt: skip
    assert (mails[0].to, mails[0].subject) == (SENDER, "Re: Boats on Wednesday")
    send(mail_id=mails[0].pk)
    sent = message_from_bytes(django_mail.outbox[-1].message().as_bytes())
    [part] = [one for one in sent.walk() if one.get_content_type() == "text/calendar"]
    assert part.get_param("method") == "REPLY"
    payload = part.get_payload(decode=True)
    assert isinstance(payload, bytes)
    calendar = Calendar.from_ical(payload)
    [entry] = calendar.walk("VEVENT")
    assert (calendar["METHOD"], entry["UID"], entry["SEQUENCE"], entry["ORGANIZER"]) == (
        "REPLY", "7@post.example", 2, f"mailto:{SENDER}",
    )  # fmt: skip
    assert (entry["ATTENDEE"], entry["ATTENDEE"].params["PARTSTAT"]) == (
        "mailto:HELLO@Otterwick.example",
        "ACCEPTED",
    )
    answered = TimelineEvent.objects.filter(kind="answered").values_list("data__text", flat=True)
    assert list(answered.order_by("pk"))[:2] == ["We accept: Boats", "We cannot come: Boats"]
    row.refresh_from_db()
    assert row.state == "for-us"


@pytest.mark.parametrize(
    ("organizer", "method", "why"),
    [
        ("", "REQUEST", "This is no invitation that can be answered."),
        (f"ORGANIZER:mailto:{SENDER}\r\n", "CANCEL", "This is no invitation that can be answered."),
        (f"ORGANIZER:mailto:{SENDER}\r\n", "REPLY", "This is no invitation that can be answered."),
        ("ORGANIZER:mailto:nobody at all\r\n", "REQUEST", "The invitation says nowhere whom to answer."),
        (
            "ORGANIZER:mailto:a@b.example%0ABcc:c@d.example\r\n",
            "REQUEST",
            "The invitation says nowhere whom to answer.",
        ),
    ],
)
def test_what_is_no_invitation_is_not_answered(
    otterwick: World, organizer: str, method: str, why: str
) -> None:
    row, event = invited(otterwick, organizer, method)
    answer = says(otterwick, row, event, "accepted")
    assert (answer.status_code, answer.json()["errors"][0]["message"]) == (422, why)
    assert says(otterwick, row, event, "perhaps").status_code == 422
    assert not OutgoingMail.objects.filter(key__contains="invitation").exists()


@pytest.mark.parametrize(
    "kept", [None, [], 7, {"method": "REQUEST", "uid": 3}, {"method": "REQUEST", "start": "no"}]
)
def test_what_a_copy_made_of_it_is_no_invitation(otterwick: World, kept: Any) -> None:
    row, event = invited(otterwick)
    data = TimelineEvent.objects.get(pk=event).data | {"invitation": kept}
    TimelineEvent.objects.filter(pk=event).update(data=data)
    assert says(otterwick, row, event, "accepted").status_code == 422


@pytest.mark.parametrize(
    ("kind", "content", "drawn"),
    [
        ("image/png", b"\x89PNG\r\n\x1a\n" + b"0" * 40, True),
        ("image/png", b"<svg xmlns='http://www.w3.org/2000/svg'><script>1</script></svg>", False),
        ("image/svg+xml", b"<svg xmlns='http://www.w3.org/2000/svg'/>", False),
        ("application/pdf", b"%PDF-1.4", False),
    ],
)
def test_a_picture_in_a_mail_is_seen_and_nothing_else(
    otterwick: World, kind: str, content: bytes, drawn: bool
) -> None:
    inner = b64encode(content).decode()
    text = (
        "--b\r\nContent-Type: text/plain\r\n\r\nLook at this.\r\n--b\r\n"
        f"Content-Type: {kind}; name=a\r\nContent-ID: <a>\r\nContent-Disposition: inline\r\n"
        f"Content-Transfer-Encoding: base64\r\n\r\n{inner}\r\n--b--\r\n"
    )
    hand_in(otterwick, mail(text, Content_Type="multipart/related; boundary=b"))
    [file] = TimelineEvent.objects.filter(kind="wrote by mail").latest("pk").data["files"]
    assert file["picture"] is drawn
    answer = otterwick.console().get(f"/api/mail-files/{file['id']}")
    assert (answer["Content-Type"].startswith("image/png"), answer["X-Content-Type-Options"]) == (
        drawn,
        "nosniff",
    )
