"""Mail that comes in: any mail is read, and what was said now stands apart from what is quoted."""

import resource
from datetime import UTC, datetime
from email.message import EmailMessage
from zoneinfo import ZoneInfo

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from intavo.core.mailin import (
    Forwarded,
    Invitation,
    Kind,
    Received,
    Sender,
    TooBig,
    is_no_reply,
    read_mail,
    said_and_quoted,
    whose,
)

HEAD = (
    b"From: Ife Dunmore <ife@post.example>\r\nTo: hello@otterwick.example\r\nMessage-ID: <7@post.example>\r\n"
)


def mail(body: bytes, more: bytes = b"") -> Received:
    """A mail with a body and more headers."""
    return read_mail(HEAD + more + b"\r\n" + body)


@pytest.mark.parametrize(
    ("text", "said", "quoted"),
    [
        ("Yes please.", "Yes please.", ""),
        ("Yes please.\n\nOn Tue, 24 Nov 2026 at 14:05, Otterwick <hello@otterwick.example> wrote:\n> Hello\n>\n> there",
         "Yes please.", "On Tue, 24 Nov 2026 at 14:05, Otterwick <hello@otterwick.example> wrote:\n> Hello\n>\n> there"),
        ("Ja.\n\nAm 24.11.2026 um 14:05 schrieb Otterwick:\n> Hallo", "Ja.", "Am 24.11.2026 um 14:05 schrieb Otterwick:\n> Hallo"),
        ("Oui.\n\nLe mar. 24 nov. 2026 à 14:05, Otterwick <hello@otterwick.example> a\nécrit :\n\n> Bonjour",
         "Oui.", "Le mar. 24 nov. 2026 à 14:05, Otterwick <hello@otterwick.example> a\nécrit :\n\n> Bonjour"),
        ("At four.\n\nOn 24 Nov 2026, at 14:05, Otterwick wrote:\n\nHello there, when?", "At four.",
         "On 24 Nov 2026, at 14:05, Otterwick wrote:\n\nHello there, when?"),
        ("At four.\n\n-----Original Message-----\nFrom: Otterwick <hello@otterwick.example>\nSent: 24 November 2026\n"
         "Subject: Boats\n\nWhen?", "At four.",
         "-----Original Message-----\nFrom: Otterwick <hello@otterwick.example>\nSent: 24 November 2026\nSubject: Boats\n\nWhen?"),
        ("Um vier.\n\n________________________________\nVon: Otterwick <hello@otterwick.example>\nGesendet: heute\nAn: ife@post.example\n"
         "Betreff: Boote\n\nWann?", "Um vier.",
         "________________________________\nVon: Otterwick <hello@otterwick.example>\nGesendet: heute\nAn: ife@post.example\n"
         "Betreff: Boote\n\nWann?"),
        ("> When?\n\nAt four.", "At four.", "> When?"),
        ("On 24 Nov Otterwick wrote:\n> When?\n\nAt four.", "At four.", "On 24 Nov Otterwick wrote:\n> When?"),
    ],
)  # fmt: skip
def test_what_was_written_now_stands_apart(text: str, said: str, quoted: str) -> None:
    assert said_and_quoted(text) == (said, quoted)
    assert said_and_quoted(text.replace("\n", "\r\n")) == (said, quoted)


@pytest.mark.parametrize(
    "text",
    [
        "> When?\nAt four.\n> And how many?\nThree.", "> only what you wrote", "Look:\n---------- Forwarded message ---------\n"
        "From: A <a@post.example>\nSubject: x\nTo: b\n\nHello", "My order:\nName: Ife\nPhone: 01632 960 417\nDate: 3 May",
        "Our plan from 3 May 2026:\nfirst we come,\nthen we go.", "----------------\nThree boats\n----------------\nTwo days",
        "He wrote to us: be there at 9.\nSo we shall.",
    ],
)  # fmt: skip
def test_when_in_doubt_nothing_is_hidden(text: str) -> None:
    assert said_and_quoted(text) == (text, "")


@given(
    st.lists(
        st.sampled_from(
            [
                "> a",
                "b",
                "",
                "On 3 May X wrote:",
                "From: a@b.example",
                "Subject: x",
                "-----a b c-----",
                ">> d",
            ]
        )
    )
)
def test_nothing_of_a_text_is_lost(lines: list[str]) -> None:
    said, quoted = said_and_quoted("\n".join(lines))
    kept = [line for line in f"{said}\n{quoted}".split("\n") if line.strip()]
    assert sorted(kept) == sorted(line for line in lines if line.strip())


def test_a_mail_is_read_whole() -> None:
    sent = EmailMessage()
    sent["From"], sent["To"] = (
        "Inês Quillet <ines@post.example>",
        "Otterwick <hello@otterwick.example>, b@post.example",
    )
    sent["Subject"], sent["Message-ID"] = "Två båtar på lördag", "<1@post.example>"
    sent["In-Reply-To"], sent["References"] = (
        "<2@otterwick.example>",
        "<0@otterwick.example> <2@otterwick.example>",
    )
    sent.set_content("Can we have two?\n\nOn Tue, 24 Nov, Otterwick wrote:\n> Which?\n")
    sent.add_alternative("<p>Can we have <b>two</b>?</p>", subtype="html")
    sent.add_attachment(b"%PDF-1.4 x", maintype="application", subtype="octet-stream", filename="plan.pdf")
    sent.add_attachment(b"MZ\x90\x00", maintype="image", subtype="png", filename="picture.png")
    found = read_mail(sent.as_bytes())
    assert found.sender == ("ines@post.example", "Inês Quillet")
    assert found.to == ("hello@otterwick.example", "b@post.example")
    assert (found.subject, found.message_id) == ("Två båtar på lördag", "<1@post.example>")
    assert (found.in_reply_to, found.references) == (
        "<2@otterwick.example>",
        ("<0@otterwick.example>", "<2@otterwick.example>"),
    )
    assert (found.said, found.kind) == ("Can we have two?", Kind.MESSAGE)
    assert found.quoted.endswith("> Which?")
    assert [(one.name, one.type, one.risky) for one in found.files] == [
        ("plan.pdf", "application/pdf", False),
        ("picture.png", "application/vnd.microsoft.portable-executable", True),
    ]


@pytest.mark.parametrize(
    ("body", "more", "text"),
    [
        (b"caf\xe9", b"Content-Type: text/plain; charset=iso-8859-1\r\n", "café"),
        (b"caf\xc3\xa9", b"Content-Type: text/plain; charset=utf-8\r\nContent-Transfer-Encoding: 8bit\r\n", "café"),
        (b"caf\xc3\xa9", b"", "café"), (b"\x93caf\xe9\x94", b"Content-Type: text/plain; charset=us-ascii\r\n", "“café”"),
        (b"caf=C3=A9=\r\n au lait", b"Content-Type: text/plain; charset=utf-8\r\nContent-Transfer-Encoding: quoted-printable\r\n", "café au lait"),
        (b"Y2Fmw6k", b"Content-Type: text/plain; charset=utf-8\r\nContent-Transfer-Encoding: base64\r\n", "café"),
        (b"caf\xe9", b"Content-Type: text/plain; charset=no-such-thing\r\n", "café"),
        (b"caf\xe9", b"Content-Type: text/plain; charset=base64\r\n", "café"),
        ("жду".encode("koi8-r"), b"Content-Type: text/plain; charset=KOI8-R\r\n", "жду"),
        ("日曜".encode("iso-2022-jp"), b"Content-Type: text/plain; charset=iso-2022-jp\r\n", "日曜"),
        (b"one \r\ntwo\r\n> a \r\n> b\r\n", b"Content-Type: text/plain; format=flowed\r\n", "one two\n> a b\n"),
        (b"<style>x{}</style><p>Hello<br>there</p><blockquote>you</blockquote><script>alert(1)</script>",
         b"Content-Type: text/html\r\n", "Hello\nthere\n\n> you"),
        (b"<p>See <a href='https://post.example/x'>this</a> &amp; that", b"Content-Type: text/html\r\n",
         "See this (https://post.example/x) & that"),
        (b"a\x00b", b"", "ab"),
    ],
)  # fmt: skip
def test_any_charset_and_encoding_is_read(body: bytes, more: bytes, text: str) -> None:
    assert mail(body, more).text == text


@pytest.mark.parametrize(
    ("head", "kind"),
    [
        (b"Auto-Submitted: auto-replied\r\n", Kind.AUTO_REPLY), (b"Auto-Submitted: no\r\n", Kind.MESSAGE),
        (b"Precedence: bulk\r\n", Kind.MESSAGE), (b"X-Autoreply: yes\r\n", Kind.AUTO_REPLY),
        (b"Auto-Submitted: auto-generated (vacation)\r\n", Kind.AUTO_REPLY), (b"X-Auto-Response-Suppress: All\r\n", Kind.MESSAGE),
        (b"Precedence: first-class\r\n", Kind.MESSAGE), (b"Precedence: auto_reply\r\n", Kind.AUTO_REPLY),
        (b"List-Unsubscribe: <https://post.example>\r\nPrecedence: list\r\n", Kind.MESSAGE),
    ],
)  # fmt: skip
def test_what_answers_by_itself_is_known(head: bytes, kind: Kind) -> None:
    assert mail(b"I am away", head).kind is kind


def report(kind: str, machine: str, extra: str = "") -> bytes:
    """A report of three parts."""
    return (
        f"From: MAILER-DAEMON@post.example\r\nContent-Type: multipart/report; report-type={kind}; boundary=b\r\n\r\n"
        f"--b\r\nContent-Type: text/plain\r\n\r\nSorry.\r\n--b\r\n{machine}\r\n--b\r\nContent-Type: message/rfc822\r\n\r\n"
        f"From: hello@otterwick.example\r\nTo: gone@post.example\r\nMessage-ID: <9@otterwick.example>\r\n\r\nHello{extra}\r\n--b--\r\n"
    ).encode()


@pytest.mark.parametrize(
    ("fields", "kind", "recipient", "permanent"),
    [
        ("Final-Recipient: rfc822; gone@post.example\r\nAction: failed\r\nStatus: 5.1.1", Kind.BOUNCE, "gone@post.example", True),
        ("Final-Recipient: RFC822;full@post.example\r\nAction: failed\r\nStatus: 4.2.2", Kind.BOUNCE, "full@post.example", False),
        ("Final-Recipient: rfc822; slow@post.example\r\nAction: delayed\r\nStatus: 4.4.1", Kind.BOUNCE, "slow@post.example", False),
        ("Final-Recipient: utf-8; zoë@post.example\r\nAction: failed\r\nStatus: 5.1.1", Kind.BOUNCE, "zoë@post.example", True),
        ("Original-Recipient: rfc822; gone@post.example\r\nAction: failed\r\nDiagnostic-Code: smtp; 550 no such user",
         Kind.BOUNCE, "gone@post.example", True),
    ],
)  # fmt: skip
def test_what_came_back_says_whose_address_and_whether_for_good(
    fields: str, kind: Kind, recipient: str, permanent: bool
) -> None:
    machine = (
        f"Content-Type: message/delivery-status\r\n\r\nReporting-MTA: dns; post.example\r\n\r\n{fields}\r\n"
    )
    found = read_mail(report("delivery-status", machine))
    assert (found.kind, found.final_recipient, found.permanent) == (kind, recipient, permanent)
    assert (found.said, found.files) == ("Sorry.", ())


def test_a_complaint_says_whose_it_is() -> None:
    machine = "Content-Type: message/feedback-report\r\n\r\nFeedback-Type: abuse\r\nUser-Agent: x/1\r\nVersion: 1\r\n"
    assert read_mail(report("feedback-report", machine)).kind is Kind.COMPLAINT
    assert read_mail(report("feedback-report", machine)).final_recipient == "gone@post.example"
    named = machine + "Original-Rcpt-To: <other@post.example>\r\n"
    assert read_mail(report("feedback-report", named)).final_recipient == "other@post.example"


def test_that_a_mail_was_read_is_no_word_of_theirs() -> None:
    machine = (
        "Content-Type: message/disposition-notification\r\n\r\nFinal-Recipient: rfc822; ife@post.example\r\n"
        "Disposition: manual-action/MDN-sent-manually; displayed\r\n"
    )
    found = read_mail(report("disposition-notification", machine))
    assert (found.kind, found.final_recipient) == (Kind.RECEIPT, "ife@post.example")
    assert found.about == ("<9@otterwick.example>",)


OWN = ("hello@otterwick.example",)
INNER = "Where is the slipway?"
HEADS = {
    "en": ("---------- Forwarded message ---------", "From", "Date", "Subject", "To"),
    "de": ("---------- Weitergeleitete Nachricht ---------", "Von", "Gesendet", "Betreff", "An"),
    "fr": ("---------- Message transféré ---------", "De", "Date", "Objet", "À"),
    "it": ("Inizio messaggio inoltrato:", "Da", "Data", "Oggetto", "A"),
    "nl": ("Begin doorgestuurd bericht:", "Van", "Datum", "Onderwerp", "Aan"),
    "pl": ("-------- Przekazana wiadomość --------", "Od", "Data", "Temat", "Do"),
}


@pytest.mark.parametrize("language", HEADS)
@pytest.mark.parametrize("mark", ["", "> "])
def test_a_mail_that_was_sent_on_says_who_wrote_it(language: str, mark: str) -> None:
    rule, sender, date, subject, to = HEADS[language]
    heads = [
        f"{sender}: Ife Dunmore <ife@post.example>", f"{date}: 24.11.2026 14:05", f"{subject}: Slipway",
        f"{to}: hello@otterwick.example", "", INNER,
    ]  # fmt: skip
    rule = rule.removeprefix("Inizio ") if language == "it" else rule.removeprefix("Begin ")
    body = "Can you answer this?\n\n" + rule + "\n" + "\n".join(mark + line for line in heads)
    found = read_mail(
        b"From: Jory <hello@otterwick.example>\r\nSubject: Fwd: Slipway\r\n"
        b"Content-Type: text/plain; charset=utf-8\r\n\r\n" + body.encode()
    )
    assert found.forwarded == Forwarded(Sender("ife@post.example", "Ife Dunmore"), "Slipway", INNER)
    assert whose(found, OWN) == Sender("ife@post.example", "Ife Dunmore")
    assert whose(found, ()) == Sender("hello@otterwick.example", "Jory")


def test_a_mail_that_was_sent_on_as_a_file_says_who_wrote_it() -> None:
    inner = EmailMessage()
    inner["From"], inner["Subject"] = "Ife Dunmore <ife@post.example>", "Slipway"
    inner.set_content(INNER)
    inner.add_attachment(b"%PDF-1", maintype="application", subtype="pdf", filename="map.pdf")
    outer = EmailMessage()
    outer["From"], outer["Subject"] = "hello@otterwick.example", "WG: Slipway"
    outer.set_content("For you")
    outer.add_attachment(inner)
    found = read_mail(outer.as_bytes())
    assert found.forwarded == Forwarded(Sender("ife@post.example", "Ife Dunmore"), "Slipway", f"{INNER}\n")
    assert (found.said, [one.type for one in found.files]) == ("For you", ["message/rfc822"])


@pytest.mark.parametrize(
    ("heads", "customer"),
    [
        ("From: Form <form@site.example>\r\nReply-To: Ife <ife@post.example>", Sender("ife@post.example", "Ife")),
        ("From: a@post.example\r\nReply-To: no-reply@post.example, ife@post.example", Sender("ife@post.example", "")),
        ("From: Ife <ife@post.example>\r\nReply-To: IFE@post.example", Sender("ife@post.example", "Ife")),
        ("From: Ife <ife@post.example>\r\nReply-To: noreply@shop.example", Sender("ife@post.example", "Ife")),
        ("From: ife@post.example\r\nReply-To: hello@otterwick.example", Sender("ife@post.example", "")),
        ("From: HELLO@otterwick.example\r\nReply-To: Ife <ife@post.example>", Sender("ife@post.example", "Ife")),
        ("From: Somebody", None),
    ],
)  # fmt: skip
def test_who_the_customer_is(heads: str, customer: Sender | None) -> None:
    assert whose(read_mail(f"{heads}\r\n\r\nHello".encode()), OWN) == customer


@pytest.mark.parametrize(
    ("address", "nobody"),
    [
        ("no-reply@a.example", True), ("noreply@a.example", True), ("do_not_reply@a.example", True),
        ("nicht-antworten@a.example", True), ("ne-pas-repondre@a.example", True), ("bounces+x@a.example", True),
        ("reply@a.example", False), ("norah@a.example", False), ("no-replyanna@a.example", False),
    ],
)  # fmt: skip
def test_addresses_that_nobody_reads(address: str, nobody: bool) -> None:
    assert is_no_reply(address) is nobody


CALENDAR = """BEGIN:VCALENDAR
METHOD:REQUEST
BEGIN:VEVENT
UID:7@post.example
SUMMARY:Look at the boats
DTSTART;TZID=Europe/London:20261125T103000
{end}
LOCATION:Boathouse
ORGANIZER;CN=Ife Dunmore:mailto:ife@post.example
END:VEVENT
END:VCALENDAR
"""


@pytest.mark.parametrize("end", ["DTEND;TZID=Europe/London:20261125T110000", "DURATION:PT30M"])
def test_an_invitation_says_what_when_where_and_who(end: str) -> None:
    found = mail(CALENDAR.format(end=end).encode(), b"Content-Type: text/calendar; method=REQUEST\r\n")
    london = ZoneInfo("Europe/London")
    start, over = datetime(2026, 11, 25, 10, 30, tzinfo=london), datetime(2026, 11, 25, 11, tzinfo=london)
    assert found.invitation == Invitation(
        "REQUEST",
        "7@post.example",
        "Look at the boats",
        start,
        over,
        "Boathouse",
        "Ife Dunmore",
        "ife@post.example",
    )
    day = CALENDAR.format(end="X-A:1").replace(
        "DTSTART;TZID=Europe/London:20261125T103000", "DTSTART;VALUE=DATE:20261125"
    )
    whole = mail(day.encode(), b"Content-Type: text/calendar\r\n").invitation
    assert whole is not None
    assert (whole.start, whole.end) == (
        datetime(2026, 11, 25, tzinfo=UTC),
        datetime(2026, 11, 26, tzinfo=UTC),
    )
    assert mail(b"BEGIN:VCALENDAR\r\nBEGIN:", b"Content-Type: text/calendar\r\n").invitation is None


def test_parts_without_a_boundary_are_told_by_how_they_begin() -> None:
    found = mail(
        b"--x1\r\n\r\nHello\r\n--x1\r\nContent-Type: application/pdf\r\n\r\n%PDF-1\r\n--x1--\r\n",
        b"Content-Type: multipart/mixed\r\n",
    )
    assert (found.said, [(one.name, one.type) for one in found.files]) == (
        "Hello",
        [("file-1", "application/pdf")],
    )


def test_a_name_that_holds_an_address_is_not_the_sender() -> None:
    raw = b"From: =?utf-8?q?=22boss=22_=3Cboss=40otterwick=2Eexample=3E?= <other@post.example>\r\n\r\nHi"
    assert read_mail(raw).sender.address == "other@post.example"


def nested(levels: int) -> bytes:
    """Parts within parts."""
    heads = b"".join(
        b"--b%d\r\nContent-Type: multipart/mixed; boundary=b%d\r\n\r\n" % (n, n + 1) for n in range(levels)
    )
    return (
        HEAD + b"Content-Type: multipart/mixed; boundary=b0\r\n\r\n" + heads + b"--b%d\r\n\r\nhi\r\n" % levels
    )


@pytest.mark.parametrize(
    ("raw", "fits"),
    [
        (HEAD + b"Content-Type: multipart/mixed; boundary=b\r\n\r\n" + b"--b\r\n\r\nx\r\n" * 200, True),
        (HEAD + b"Content-Type: multipart/mixed; boundary=b\r\n\r\n" + b"--b\r\n\r\nx\r\n" * 201, False),
        (HEAD + b"Content-Type: multipart/mixed; boundary=b\r\n\r\n" + b"--b\r\n\r\nx\r\n" * 10_000, False),
        (nested(150), True), (nested(3_000), False), (HEAD + b"\r\n" + b"x" * (25 * 1024 * 1024), False),
    ],
)  # fmt: skip
def test_only_what_is_too_big_is_refused(raw: bytes, fits: bool) -> None:
    if fits:
        assert read_mail(raw).sender.address == "ife@post.example"
    else:
        with pytest.raises(TooBig):
            read_mail(raw)


# Each of them took minutes, or all the memory there is, of a reader that is not on its guard.
MOST = 25 * 1024 * 1024
PARTS, HTML = b"Content-Type: multipart/mixed; boundary=b\r\n\r\n", b"Content-Type: text/html\r\n\r\n"
HEAVY = {
    "a file": PARTS
    + b"--b\r\nContent-Transfer-Encoding: base64\r\nContent-Type: a/b\r\n\r\n"
    + b"QUJD" * 19 * 300_000,
    "many parts": PARTS + b"--b\r\n\r\nx\r\n" * 400_000,
    "boundaries that are none": PARTS + b"--b\r\n\r\n" + b"\n--bx" * 4_000_000,
    "mails in mails": b"Content-Type: message/rfc822\r\n\r\n" * 150 + b"x" * 20_000_000,
    "comments without end": HTML + b"<!--" * 5_000_000,
    "tags without end": HTML + b"<a " * 5_000_000,
    "quotes in quotes": HTML + b"<blockquote>x" * 400_000,
    "short runs": HTML + b"<p><b>x</b>" * 2_000_000,
    "heads without end": b"X: y\r\n" * 3_000_000,
    "a subject without end": b"Subject: " + b"=?utf-8?q?x?= " * 1_500_000,
}


@pytest.mark.parametrize("what", HEAVY)
def test_no_mail_holds_up_the_others(what: str) -> None:
    before = resource.getrusage(resource.RUSAGE_SELF)
    try:
        assert read_mail((HEAD + HEAVY[what])[:MOST]).sender.address == "ife@post.example"
    except TooBig:
        assert what == "many parts"
    after = resource.getrusage(resource.RUSAGE_SELF)
    assert after.ru_utime - before.ru_utime < AT_MOST, "seconds of the processor"


# On a machine that is slow, too: what is meant are those that took a minute and more.
AT_MOST = 15


PIECES = st.sampled_from(
    [
        b"Content-Type: ",
        b"multipart/mixed; boundary=b\r\n",
        b"text/html; charset=",
        b"utf-16",
        b"\r\n\r\n",
        b"--b\r\n",
        b"From: ",
        b"=?utf-8?b?",
        b"=?x?q?=FF?=",
        b"<a@",
        b"\x00",
        b"\xff\xfe",
        b"Content-Transfer-Encoding: base64\r\n",
        b"====",
        b"message/rfc822\r\n",
        b"message/delivery-status\r\n",
        b"message/disposition-notification\r\n",
        b"text/calendar; method=REQUEST\r\n",
        b"Reply-To: ",
        b"Subject: Fwd: ",
        b"BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\n",
        b"---- Forwarded message ----\r\n",
        b"multipart/mixed\r\n",
        b"Message-ID: <",
        b'To: ,,<>,"\\',
        b"filename*=utf-8''%ff%00",
        b"Content-Disposition: attachment; ",
        b'name="..\\..\\x.exe"',
        b"uuencode\r\n",
        b"<blockquote>",
        b"References: <<<>>>",
    ]
)


@settings(max_examples=300)
@given(st.lists(PIECES | st.binary(max_size=12), max_size=40))
def test_any_bytes_are_read_and_can_be_kept(pieces: list[bytes]) -> None:
    found = read_mail(b"".join(pieces))
    texts = [
        found.subject,
        found.text,
        found.said,
        *found.sender,
        *found.to,
        *(one.name for one in found.files),
    ]
    assert not any("\x00" in one or any("\ud800" <= letter <= "\udfff" for letter in one) for one in texts)
    assert all(one.name and not set(one.name) & set("/\\") for one in found.files)
    assert isinstance(found.kind, Kind)
