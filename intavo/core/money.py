"""Amounts of money as people write them."""

import re
from dataclasses import dataclass

from babel import Locale, UnknownLocaleError
from babel.numbers import get_decimal_symbol, get_group_symbol, get_territory_currencies

_SIGNS = {"£": "GBP", "€": "EUR", "$": "", "zł": "PLN", "¥": "JPY", "₹": "INR"}
_DOLLARS = {"US", "AU", "CA", "NZ", "SG", "HK"}


@dataclass(frozen=True, slots=True)
class ReadMoney:
    """An amount in units of a currency, with a dot; `currency` only where one was written."""

    amount: str
    currency: str | None


def read_money(text: str, region: str) -> ReadMoney:
    """Understands "£289", "1,289", "289,50", "1.289,50 EUR" by the region's way of writing numbers (CLDR, by
    Babel).

    Where a mark could be read both ways, two digits behind the last mark are pence, and three are thousands
    only where the region groups with that mark. Raises ValueError, in words for the owner, for what is no
    amount.
    """
    given = " ".join(text.split())
    if not given:
        raise ValueError("Please write an amount, like 289 or 289.50.")
    currency, bare = _currency(given, region)
    digits = (
        bare.replace(" ", "").replace("\u00a0", "").replace("\u202f", "").replace("’", "").replace("'", "")
    )
    if not re.fullmatch(r"[0-9][0-9.,]*", digits):
        raise ValueError(f"“{given[:30]}” is not an amount; write it like 289 or 289.50.")
    whole, pence = _split(digits, region, given)
    if len(whole) > 9:
        raise ValueError("An amount has at most nine digits.")
    return ReadMoney(f"{int(whole)}.{pence}" if pence else str(int(whole)), currency)


def _currency(text: str, region: str) -> tuple[str | None, str]:
    for sign, code in _SIGNS.items():
        if sign in text:
            return code or _own(region), text.replace(sign, " ", 1).strip()
    found = re.search(r"(?:^|(?<=[\d\s]))([A-Za-z]{3})(?=[\d\s]|$)", text)
    if found:
        return found[1].upper(), (text[: found.start()] + text[found.end() :]).strip()
    return None, text


def _own(region: str) -> str:
    if region in _DOLLARS:
        return str(get_territory_currencies(region)[0])
    return "USD"


def _marks(region: str) -> tuple[str, str]:
    """The region's decimal and grouping marks, in the language that is spoken most there."""
    try:
        locale = Locale.parse(f"und_{region}")
    except (UnknownLocaleError, ValueError):
        locale = Locale("en")
    return get_decimal_symbol(locale), get_group_symbol(locale)


def _split(digits: str, region: str, given: str) -> tuple[str, str]:
    decimal, group = _marks(region)
    last = max(digits.rfind("."), digits.rfind(","))
    if last < 0:
        return digits, ""
    mark, behind = digits[last], digits[last + 1 :]
    single = digits.count(mark) == 1
    pence = len(behind) <= 2 and single if len(behind) != 3 else single and mark == decimal and mark != group
    head = digits[:last] if pence else digits
    groups = re.split(r"[.,]", head)
    sound = len(set(re.findall(r"[.,]", head)) - ({mark} if pence else set())) <= 1
    if len(groups) > 1 and (not sound or len(groups[0]) > 3 or any(len(one) != 3 for one in groups[1:])):
        raise ValueError(f"“{given[:30]}” can be read in more than one way; write it like 1289.50.")
    if pence and len(behind) == 3:
        raise ValueError(f"“{given[:30]}” has three digits behind its mark; write it like 1289.50.")
    return "".join(groups), behind if pence else ""
