"""Whether the operator's own mail host found that a mail is not from whom it says.

Source: RFC 8601, RFC 7489.
"""

import re
from collections.abc import Iterable

_COMMENT = re.compile(r"\([^()]*\)")
_DMARC_FAILS = re.compile(r"\bdmarc\s*=\s*fail\b", re.IGNORECASE)


def fails(results: Iterable[str], host: str) -> bool:
    """Whether one of the `Authentication-Results` is of this host (by its own name for itself) and says that
    DMARC failed. What other hosts say of a mail, anybody can have written; "" is no host.
    """
    for said in results:
        by, _, rest = _COMMENT.sub(" ", said).partition(";")
        named = by.split()
        if host and named and named[0].casefold() == host.casefold() and _DMARC_FAILS.search(rest):
            return True
    return False
