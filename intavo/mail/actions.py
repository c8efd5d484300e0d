"""Writes on mail: put into the queue with the write that causes it, and sent by a job."""

import re
import secrets
import smtplib
import uuid
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from email.mime.text import MIMEText
from email.utils import formataddr, parseaddr

from django.conf import settings
from django.core.mail import EmailMessage
from django.db import IntegrityError, transaction
from django.utils.text import slugify

from intavo import clock
from intavo.accounts.models import AccountMail, Business
from intavo.accounts.rows import insert_with
from intavo.accounts.scope import held
from intavo.core.mailin import answer_address
from intavo.core.people import Address
from intavo.core.texts import one_line

from .effects import mail_given_up
from .enclosing import attach
from .models import MailIn, OutgoingMail, Suppression

# How the key of a mail begins that says thanks for what was sent.
THANKS = "thanks-"


@dataclass(frozen=True, slots=True)
class Queued:
    """A mail that is in the queue, or has gone out."""

    id: int
    message_id: str


# The job that sends a mail, put into the queue by the queue's own function, in the statement that keeps the
# mail.
_TO_SEND_IT = """procrastinate_defer_jobs_v1(ARRAY[
    ('mail', 'send_mail', 0, NULL, NULL, jsonb_build_object('mail_id', id), %s::timestamptz)
]::procrastinate_job_to_defer_v1[])"""


def queue(
    business: Business,
    *,
    to: Address,
    subject: str,
    text: str,
    key: str,
    delay: int = 0,
    reply_to: str = "",
    attached: tuple[str, str] = ("", ""),
    in_reply_to: str = "",
    unsubscribe: str = "",
) -> Queued:
    """Queue a mail in the caller's transaction; the same `key` again gives the one that is there.

    `delay` is the seconds to hold it back; `attached` the name and the text of a file that goes with it;
    `in_reply_to` the id of the mail that it answers; `unsubscribe` the address that ends mail of its kind.
    From an address that nobody has confirmed goes nothing: such mail comes from our own, in the business's
    name, and answers go to the business's.
    """
    sender = business.mail_address if business.mail_confirmed else own_address()
    message_id = f"<{uuid.uuid4()}@{sender.rpartition('@')[2]}>"
    begins = datetime.now(UTC) + timedelta(seconds=delay) if delay else None
    added = insert_with(
        OutgoingMail,
        _TO_SEND_IT,
        [begins],
        skip_doubles=True,
        business_id=business.pk,
        key=key,
        to=to.shown,
        to_key=to.key,
        subject=one_line(subject)[:300],
        text=text,
        from_name=one_line(business.name)[:120],
        from_address=sender,
        reply_to=reply_to
        or comes_in_at(business.pk)
        or (business.mail_address if sender != business.mail_address else ""),
        attachment_name=attached[0],
        attachment=attached[1],
        in_reply_to=in_reply_to[:200],
        unsubscribe=unsubscribe,
        message_id=message_id,
        state=OutgoingMail.WAITING,
        queued_at=clock.now(),
        sent_at=None,
    )
    if added is None:
        known = OutgoingMail.objects.get(business=business, key=key)
        return Queued(known.pk, known.message_id)
    return Queued(int(added[0]), message_id)


def new_secret() -> str:
    """A secret that mail is handed in under, of 128 random bits."""
    return secrets.token_hex(16)


def mail_in_of(business_id: int) -> MailIn:
    """How answers by mail come in to a business; made, and given its name, when it is first asked for."""
    row = MailIn.objects.get_or_create(business_id=business_id, defaults={"secret": new_secret()})[0]
    if settings.MAIL_IN_DOMAIN and not row.name:
        _give_name(row)
    return row


# Addresses that every domain has for itself. Source: RFC 2142.
_NOBODYS = {
    "abuse",
    "hostmaster",
    "info",
    "mail",
    "mailer-daemon",
    "no-reply",
    "postmaster",
    "security",
    "webmaster",
}


def _give_name(row: MailIn) -> None:
    """The name of the business as an address can have it; with something after it where another has it."""
    called = Business.objects.values_list("name", flat=True).get(pk=row.business_id)
    plain = slugify(called)[:40].strip("-")
    names = [plain] if plain and plain not in _NOBODYS else []
    names += [f"{plain or 'mail'}-{secrets.token_hex(2 + tries)}" for tries in range(4)]
    for name in names:
        try:
            with transaction.atomic():
                row.name = name
                row.save(update_fields=["name"])
        except IntegrityError:
            continue
        return


def own_mailbox(row: MailIn) -> str:
    """A business's address at the operator's domain for mail that comes in; "" where there is none."""
    return f"{row.name}@{settings.MAIL_IN_DOMAIN}" if settings.MAIL_IN_DOMAIN and row.name else ""


def comes_in_at(business_id: int) -> str:
    """The address that answers come to; "" where the business takes none in, and they go to From."""
    row = mail_in_of(business_id)
    return row.address or (own_mailbox(row) if row.direct else "")


def answers_to(business_id: int, followup_id: int | None) -> str:
    """The address that answers about a follow-up come to; "" where the business takes none in, and they go to
    From.
    """
    if followup_id is None:
        return ""
    address = comes_in_at(business_id)
    return answer_address(address, followup_id, settings.SECRET_KEY) if address else ""


def suppress(*, business_id: int, address_key: str, reason: str) -> bool:
    """Leave an address alone from now on; says whether it was not left alone before.
    The first reason stays.
    """
    _, new = Suppression.objects.get_or_create(
        business_id=business_id, address_key=address_key, defaults={"reason": reason, "since": clock.now()}
    )
    return new


def forget(*, business_id: int, to_key: str, begins: str) -> None:
    """Forget the mails to an address whose key begins so, sent or not."""
    OutgoingMail.objects.filter(business_id=business_id, to_key=to_key, key__startswith=begins).delete()


def is_queued(*, business_id: int, key: str) -> bool:
    """Whether a mail with this key is there already, sent or not."""
    return OutgoingMail.objects.filter(business_id=business_id, key=key).exists()


def thanked_enough(*, business_id: int, to_key: str) -> bool:
    """Whether an address has had as many mails that say thanks as it is sent within a day: anybody can send
    something in anybody's name.
    """
    since = clock.now() - timedelta(days=1)
    mails = OutgoingMail.objects.filter(business_id=business_id, to_key=to_key, queued_at__gt=since)
    return bool(mails.filter(key__startswith=THANKS).count() >= settings.THANKS_A_DAY)


def withdraw(*, business_id: int, key: str) -> bool:
    """Take back a mail that has not been sent; says whether there was one."""
    waiting = OutgoingMail.objects.filter(business_id=business_id, key=key, state=OutgoingMail.WAITING)
    return waiting.update(state=OutgoingMail.SUPPRESSED) > 0


def send(*, mail_id: int) -> None:
    """Send a queued mail; one that is sent, taken back, suppressed or given up is left alone.

    What would fail again is given up at once: a mail that cannot be made, and one that the server refuses for
    good. Any other trouble is raised, so that it is tried again.
    """
    with transaction.atomic():
        mail = _waiting(mail_id)
        if mail is None:
            return
        if Suppression.objects.filter(business_id=mail.business_id, address_key=mail.to_key).exists():
            mail.state = OutgoingMail.SUPPRESSED
        else:
            try:
                _hand_over(mail)
            except (OSError, ValueError) as problem:
                mail.wrong = _for_good(problem)
                if not mail.wrong:
                    raise
                mail.state = OutgoingMail.FAILED
            else:
                mail.state, mail.sent_at = OutgoingMail.SENT, clock.now()
        mail.save(update_fields=["state", "sent_at", "wrong"])
        if mail.state == OutgoingMail.FAILED:
            mail_given_up.tell(mail)


def give_up(*, mail_id: int) -> None:
    """Say to whoever waits for a mail that it did not go out in all the tries that it had."""
    with transaction.atomic():
        mail = _waiting(mail_id)
        if mail is not None:
            mail.state, mail.wrong = OutgoingMail.FAILED, "the mail server could not be reached for hours"
            mail.save(update_fields=["state", "wrong"])
            mail_given_up.tell(mail)


def _waiting(mail_id: int) -> OutgoingMail | None:
    return held(OutgoingMail.objects.filter(pk=mail_id, state=OutgoingMail.WAITING))


_PERMANENT = 500
# It does not know who we are, which whoever runs it can mend. Source: RFC 4954, 6.
_UNKNOWN_TO_IT = {530, 534, 535, 538}


def _for_good(problem: Exception) -> str:
    """Why a mail can never go out, in words for the owner; "" where another try may help. Source: RFC 5321,
    4.2.1.
    """
    if isinstance(problem, ValueError):
        return "a mail cannot be made of it"
    codes = []
    if isinstance(problem, smtplib.SMTPRecipientsRefused):
        codes = [code for code, _ in problem.recipients.values()]
    elif isinstance(problem, smtplib.SMTPResponseException):
        codes = [problem.smtp_code]
    if not codes or min(codes) < _PERMANENT or _UNKNOWN_TO_IT & set(codes):
        return ""
    refused = "the address" if isinstance(problem, smtplib.SMTPRecipientsRefused) else "it"
    return f"the mail server refuses {refused} ({max(codes)})"


def _hand_over(mail: OutgoingMail) -> None:
    headers = {"Message-ID": mail.message_id, "Date": mail.queued_at.strftime("%a, %d %b %Y %H:%M:%S +0000")}
    if mail.in_reply_to:
        headers |= {"In-Reply-To": mail.in_reply_to, "References": mail.in_reply_to}
    headers |= _ended_by(mail.unsubscribe)
    sender = formataddr((mail.from_name, mail.from_address))
    reply_to = [mail.reply_to] if mail.reply_to else None
    message = EmailMessage(mail.subject, mail.text, sender, [mail.to], headers=headers, reply_to=reply_to)
    if mail.attachment_name:
        message.attach(_attachment(mail.attachment_name, mail.attachment))
    attach(message, mail)
    message.send()


def _ended_by(address: str) -> dict[str, str]:
    """What says where mail of its kind is ended, if there is such an address. Source: RFC 8058."""
    if not address:
        return {}
    return {"List-Unsubscribe": f"<{address}>", "List-Unsubscribe-Post": "List-Unsubscribe=One-Click"}


def _attachment(name: str, text: str) -> MIMEText:
    """A file that goes with a mail: CSV, or a calendar entry,
    which says its method in its type (RFC 6047).
    """
    calendar = name.endswith(".ics")
    attached = MIMEText(text, "calendar" if calendar else "csv", "utf-8")
    if calendar:
        method = re.search(r"^METHOD:([A-Z]+)\r?$", text, re.MULTILINE)
        attached.set_param("method", method[1] if method else "REQUEST")
    attached.add_header("Content-Disposition", "attachment", filename=name)
    return attached


def send_account_mail(*, mail_id: int) -> None:
    """Send a mail of Intavo itself (verify, reset, invite, remind), and forget it; one that is gone is left
    alone.

    One that can never go out is forgotten as well; any other trouble is raised, so that it is tried again.
    """
    with transaction.atomic():
        row = AccountMail.objects.select_for_update().filter(pk=mail_id).first()
        if row is None:
            return
        try:
            headers = _ended_by(row.unsubscribe)
            EmailMessage(row.subject, row.text, settings.DEFAULT_FROM_EMAIL, [row.to], headers=headers).send()
        except (OSError, ValueError) as problem:
            if not _for_good(problem):
                raise
        row.delete()


def own_address() -> str:
    """The address that Intavo itself writes from."""
    return parseaddr(settings.DEFAULT_FROM_EMAIL)[1]
