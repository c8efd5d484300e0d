"""Every write on what visitors send."""

from .confirming import ask_to_confirm, confirm, erase_unconfirmed, pending_of
from .quarantine import release, throw_out
from .receiving import Answered, Sender, Sent, looked_up, receive, replayed
from .reporting import daily_csv, tell_of_drains

__all__ = [
    "Answered",
    "Sender",
    "Sent",
    "ask_to_confirm",
    "confirm",
    "daily_csv",
    "erase_unconfirmed",
    "looked_up",
    "pending_of",
    "receive",
    "release",
    "replayed",
    "tell_of_drains",
    "throw_out",
]
