"""Reaching somebody by mail."""

from typing import Any

from django.conf import settings

from intavo.accounts.models import Business, Member
from intavo.core.people import email_address
from intavo.people.models import Address
from intavo.people.ways import Gone, To, notes_on, register

from .actions import answers_to, is_queued, queue, withdraw
from .enclosing import chosen, release
from .models import OutgoingMail, Suppression


class ByMail:
    """To the first email address that they left."""

    key, words, order = "mail", "by mail", 20

    def reach(self, to: To) -> bool:
        """Whether they left an email address."""
        return _address(to) is not None

    def takes_files(self, to: To) -> bool:
        """Always."""
        return True

    def send(self, to: To, text: str, key: str) -> Gone:
        """Queue the mail."""
        address = email_address(to.mail_to) if to.mail_to else _address(to)
        assert address is not None
        business = Business.objects.get(pk=to.business_id)
        files = chosen(to.member_id, to.business_id, to.files) if to.files else []
        sent = queue(
            business,
            to=email_address(address.shown),
            subject=to.subject,
            text=_letter(business, to, text),
            key=_key(to, key),
            delay=settings.TAKEN_BACK_SECONDS,
            in_reply_to=to.their_mail,
            reply_to=answers_to(business.pk, to.followup_id),
            attached=to.entry,
        )
        for one in files:
            one.mail_id = sent.id
            one.save(update_fields=["mail"])
        said = (
            {"enclosed": [{"enclosure": one.pk, "name": one.name, "size": one.size} for one in files]}
            if files
            else {}
        )
        return Gone({"mail": sent.id, **said}, sent.message_id)

    def sent(self, to: To, key: str) -> bool:
        """Whether it is in the queue, or has gone out."""
        return is_queued(business_id=to.business_id, key=_key(to, key))

    def take_back(self, to: To, key: str) -> bool:
        """As long as it waits in the queue; its files can go with another."""
        if not withdraw(business_id=to.business_id, key=_key(to, key)):
            return False
        release(business_id=to.business_id, key=_key(to, key))
        return True

    def receipt(self, business_id: int, data: dict[str, Any]) -> str:
        """Whether the mail has left."""
        row = OutgoingMail.objects.filter(business_id=business_id, pk=data.get("mail") or 0).first()
        if row is None:
            return ""
        if row.state == OutgoingMail.FAILED:
            return f"not mailed: {row.wrong}"
        if row.state != OutgoingMail.SUPPRESSED:
            return "mailed" if row.state == OutgoingMail.SENT else ""
        left = Suppression.objects.filter(business_id=row.business_id, address_key=row.to_key).first()
        return f"not mailed: {LEFT_ALONE.get(left.reason if left else '', 'they do not want mail')}"


# Why an address is left alone, as an owner reads it.
LEFT_ALONE = {
    "bounced": "mail to this address comes back", "complained": "they called our mail spam",
}  # fmt: skip


@notes_on
def left_alone(business_id: int, kind: str, key: str) -> str:
    """Why nothing is mailed to an address."""
    if kind != Address.EMAIL:
        return ""
    row = Suppression.objects.filter(business_id=business_id, address_key=key).first()
    return LEFT_ALONE.get(row.reason, "they do not want mail") if row else ""


def _letter(business: Business, to: To, text: str) -> str:
    """The mail as it goes out: what was written, who wrote it, and what it answers."""
    member = Member.objects.select_related("user").filter(pk=to.member_id).first() if to.member_id else None
    signed = "\n".join(
        dict.fromkeys(one for one in (member.user.name if member else "", business.name) if one)
    )
    quoted = (
        "\n".join(f"> {line}".rstrip() for line in to.theirs.strip().split("\n")) if to.theirs.strip() else ""
    )
    return "\n\n".join(one for one in (text, signed, quoted) if one) + "\n"


def _key(to: To, key: str) -> str:
    return f"answer-{to.followup_id}-{key}"


def _address(to: To) -> Address | None:
    return Address.objects.filter(person_id=to.person_id, kind=Address.EMAIL).first()


register(ByMail())
