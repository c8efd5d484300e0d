"""Mail that comes in, read: what was said now, what it answers, and what kind of mail it is."""

from .authentic import fails
from .forwarding import is_no_reply, whose
from .inviting import Says, answered, invitation_kept
from .model import Forwarded, Invitation, Kind, MailFile, Received, Sender, TooBig
from .quoting import said_and_quoted
from .reading import read_mail
from .threads import answer_address, bare_subject, followup_of

__all__ = [
    "Forwarded",
    "Invitation",
    "Kind",
    "MailFile",
    "Received",
    "Says",
    "Sender",
    "TooBig",
    "answer_address",
    "answered",
    "bare_subject",
    "fails",
    "followup_of",
    "invitation_kept",
    "is_no_reply",
    "read_mail",
    "said_and_quoted",
    "whose",
]
