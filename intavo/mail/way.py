"""Reaching somebody by mail."""

from typing import Any

from intavo.accounts.models import Business
from intavo.core.people import email_address
from intavo.people.models import Address
from intavo.people.ways import Gone, To, register

from .actions import is_queued, queue
from .models import OutgoingMail


class ByMail:
    """To the first email address that they left."""

    key, words, order = "mail", "by mail", 20

    def reach(self, to: To) -> bool:
        """Whether they left an email address."""
        return _address(to) is not None

    def send(self, to: To, text: str, key: str) -> Gone:
        """Queue the mail."""
        address = _address(to)
        assert address is not None
        business = Business.objects.get(pk=to.business_id)
        sent = queue(
            business, to=email_address(address.shown), subject=to.subject, text=text, key=_key(to, key)
        )  # fmt: skip
        return Gone({"mail": sent.id}, sent.message_id)

    def sent(self, to: To, key: str) -> bool:
        """Whether it is in the queue, or has gone out."""
        return is_queued(business_id=to.business_id, key=_key(to, key))

    def receipt(self, data: dict[str, Any]) -> str:
        """Whether the mail has left."""
        row = OutgoingMail.objects.filter(pk=data.get("mail") or 0).first()
        return "" if row is None else _STATES.get(row.state, "")


_STATES = {OutgoingMail.SENT: "mailed", OutgoingMail.SUPPRESSED: "not mailed: they do not want mail"}


def _key(to: To, key: str) -> str:
    return f"answer-{to.followup_id}-{key}"


def _address(to: To) -> Address | None:
    return Address.objects.filter(person_id=to.person_id, kind=Address.EMAIL).first()


register(ByMail())
