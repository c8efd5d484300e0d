"""Who is the same person: addresses as they are matched, likely slips, and suggested merges."""

import re
import unicodedata
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from functools import lru_cache
from itertools import combinations

import phonenumbers
from email_validator import SPECIAL_USE_DOMAIN_NAMES, EmailNotValidError, validate_email

from ..tongues import Phrase

USUAL_FROM = 3
_SPECIAL = frozenset(SPECIAL_USE_DOMAIN_NAMES)


@dataclass(frozen=True, slots=True)
class Address:
    """An address as it is matched (`key`) and as it was typed (`shown`)."""

    key: str
    shown: str

    @property
    def domain(self) -> str:
        """What stands after the @ of an email address."""
        return self.key.rpartition("@")[2]


# Of such an address the whole check says nothing else, at fifty times the cost: it is held against that by a
# test.
_PLAIN = re.compile(
    r"[A-Za-z0-9_+-]+(?:\.[A-Za-z0-9_+-]+)*@((?:[A-Za-z0-9]+(?:-[A-Za-z0-9]+)*\.)+[A-Za-z]{2,})"
)
_PLAIN_DOMAIN, _PLAIN_LOCAL = 63, 64


def _is_plain(shown: str) -> bool:
    found = _PLAIN.fullmatch(shown)
    if found is None or len(found[1]) > _PLAIN_DOMAIN or len(shown) - len(found[1]) - 1 > _PLAIN_LOCAL:
        return False
    labels = found[1].lower().split(".")
    return not any(".".join(labels[at:]) in _SPECIAL for at in range(len(labels)))


@lru_cache(maxsize=512)  # asked for twice on the way of every answer
def email_address(text: str) -> Address:
    """An email address: NFKC, trimmed, domain in lower case and IDNA, matched case-folded.

    Raises ValueError with words for the person who typed it. Source: RFC 5321 and 5322 by the
    email-validator package; no name server is asked.
    """
    shown = unicodedata.normalize("NFKC", text).strip()
    if not shown:
        raise ValueError(Phrase("Please write your email address."))
    if "@" not in shown:
        raise ValueError(Phrase("An email address has an @ in it, like name@example.com."))
    if _is_plain(shown):
        return Address(shown.lower(), shown)
    try:
        found = validate_email(shown, check_deliverability=False, test_environment=True)
    except EmailNotValidError as error:
        why = f"This email address cannot be right: {_lowered(str(error))}"
        raise ValueError(Phrase("This email address cannot be right.", english=why)) from None
    return Address(f"{found.local_part}@{found.ascii_domain}".casefold(), shown)


def _lowered(text: str) -> str:
    return text[:1].lower() + text[1:]


def phone_number(text: str, region: str) -> Address:
    """A phone number in E.164, read with the business's region (ISO 3166-1 alpha-2).

    Refused (ValueError) only if no such number is possible: numbers kept for fiction are possible.
    Source: ITU-T E.164 by the phonenumbers package.
    """
    shown = " ".join(text.split())
    try:
        number = phonenumbers.parse(shown, region)
    except phonenumbers.NumberParseException:
        raise ValueError(Phrase("This does not look like a phone number.")) from None
    if not phonenumbers.is_possible_number(number):
        raise ValueError(Phrase("This phone number has too few or too many digits."))
    return Address(phonenumbers.format_number(number, phonenumbers.PhoneNumberFormat.E164), shown)


def likely_slip(domain: str, used: Mapping[str, int]) -> str | None:
    """A domain one edit from `domain` that three or more people use, the most used first; or None.

    An edit is a letter put in, left out, changed, or swapped with its neighbour. A domain that is
    itself in use by three or more is never called a slip.
    """
    if used.get(domain, 0) >= USUAL_FROM:
        return None
    near = [
        (-count, name) for name, count in used.items() if count >= USUAL_FROM and one_edit_apart(domain, name)
    ]
    return min(near)[1] if near else None


def one_edit_apart(word: str, other: str) -> bool:
    """Whether two texts differ by one insertion, deletion, change or swap of neighbours."""
    if word == other or abs(len(word) - len(other)) > 1:
        return False
    short, long = sorted((word, other), key=len)
    at = next((i for i, (a, b) in enumerate(zip(short, long, strict=False)) if a != b), len(short))
    if len(short) < len(long):
        return short[at:] == long[at + 1 :]
    changed = short[at + 1 :] == long[at + 1 :]
    return changed or (short[at : at + 2] == long[at : at + 2][::-1] and short[at + 2 :] == long[at + 2 :])


@dataclass(frozen=True, slots=True)
class Card:
    """What is known of one person for matching."""

    id: int
    emails: frozenset[str] = frozenset()
    phones: frozenset[str] = frozenset()


@dataclass(frozen=True, slots=True)
class Match:
    """Whom something new belongs to (None: somebody new), and with whom a merge is suggested."""

    person: int | None
    suggest: int | None = None


def match(email: str | None, phone: str | None, by_email: int | None, by_phone: Iterable[Card]) -> Match:
    """Email decides; a phone joins only when there is no email.

    `by_email` is the person with this email, `by_phone` all people with this phone. An email and a
    phone of two people, or a phone already on another email, is a suggested merge and never done here.
    """
    holders = sorted(by_phone, key=lambda card: card.id)
    if email is None:
        return Match(holders[0].id if phone is not None and holders else None)
    others = [card.id for card in holders if card.id != by_email]
    return Match(by_email, others[0] if phone is not None and others else None)


def suggested_merges(cards: Iterable[Card]) -> list[tuple[int, int]]:
    """Pairs of people who share a phone, each pair once, smaller id first."""
    by_phone: dict[str, list[int]] = {}
    for card in cards:
        for phone in card.phones:
            by_phone.setdefault(phone, []).append(card.id)
    return sorted({pair for ids in by_phone.values() for pair in combinations(sorted(set(ids)), 2)})


def filled(old: str, new: str) -> str:
    """What a card keeps: what it has; a blank never overwrites, and nobody is renamed by typing."""
    return old or new.strip()
