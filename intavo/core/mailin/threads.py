"""Which thread a mail belongs to: a signed part in the address it was sent to, and subjects as they are
compared.
"""

import hashlib
import hmac
import re

_ANSWERED = re.compile(r"\+([0-9a-f]{1,15})-([0-9a-f]{20})@", re.IGNORECASE)
_RE = re.compile(r"^\s*((re|aw|sv|vs|antw|ref|rif|odp|fwd?|wg|tr|rv)\s*(\[\d+\])?\s*:\s*)+", re.IGNORECASE)


def answer_address(address: str, followup: int, secret: str) -> str:
    """The address that answers about a follow-up come to: `answers+<token>@…`, which nobody can make up."""
    local, _, host = address.rpartition("@")
    return f"{local}+{followup:x}-{_mark(followup, secret)}@{host}"


def followup_of(addresses: tuple[str, ...], secret: str) -> int | None:
    """The follow-up that one of the addresses was made for; None where none was, in any case of letters."""
    for one in addresses:
        found = _ANSWERED.search(one)
        if found and hmac.compare_digest(found[2].lower(), _mark(int(found[1], 16), secret)):
            return int(found[1], 16)
    return None


def _mark(followup: int, secret: str) -> str:
    return hmac.new(secret.encode(), f"answers {followup}".encode(), hashlib.sha256).hexdigest()[:20]


def bare_subject(subject: str) -> str:
    """A subject without what mail programs put before it, for comparing."""
    return " ".join(_RE.sub("", subject).split()).casefold()
