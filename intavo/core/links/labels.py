"""What a new channel is called until its owner calls it otherwise."""

from ..tongues import Phrase, Tongue, say
from .model import Kind

_CALL, _CHAT = Phrase("Call us"), Phrase("Chat with us")
_LABELS: dict[Kind, Phrase] = {
    "phone": _CALL, "text": Phrase("Text us"), "mail": Phrase("Write to us"), "message-link": _CHAT,
    "map": Phrase("Find us"), "page": Phrase("Our page"), "matrix": _CHAT, "xmpp": _CHAT, "sip": _CALL,
}  # fmt: skip


def first_label(kind: Kind, tongue: Tongue) -> str:
    """The words on a new channel of a kind, as visitors read them."""
    return say(_LABELS[kind].key, tongue)
