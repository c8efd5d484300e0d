"""A name that a stranger typed, where it stands in a mail to an address that they typed as well."""

import re

_MOST_LETTERS, _MOST_WORDS = 60, 8
# What leads somewhere, or would be made a link by a mail program: an address, a page, a host, a number to
# call.
_LEADS = re.compile(r"@|://|/|\\|\bwww\b|[^\W\d_]{2,}\.[^\W\d_]{2,}|(?:\d\D?){5,}", re.IGNORECASE)
_LOOSE = re.compile(r"[\x00-\x1f\x7f-\x9f<>\[\]{}|\"\u2028\u2029\u200b-\u200f\u202a-\u202e\u2060-\u206f]+")


def name_in_mail(text: str) -> str:
    """The name as far as it can only be a name: one line without addresses, links and numbers; "" where it is
    none.

    Else whoever types somebody else's address could have our mail say to them what they like.
    """
    words = [word for word in _LOOSE.sub(" ", text).split() if not _LEADS.search(word)]
    name = " ".join(words)
    return name if len(words) <= _MOST_WORDS and len(name) <= _MOST_LETTERS else ""
