"""Amounts as people of a region write them."""

import pytest

from intavo.core.money import ReadMoney, read_money

READ = [
    ("£289", "GB", "289", "GBP"), ("289", "GB", "289", None), ("1,289", "GB", "1289", None), ("289.5", "GB", "289.5", None),
    ("289,50", "GB", "289.50", None), ("1,289.50", "GB", "1289.50", None), ("GBP 12", "GB", "12", "GBP"),
    ("1.289", "DE", "1289", None), ("1.289,50 €", "DE", "1289.50", "EUR"), ("289,50", "DE", "289.50", None),
    ("1 289,50", "FR", "1289.50", None), ("1’289.50", "CH", "1289.50", None), ("$12", "US", "12", "USD"),
    ("$12", "AU", "12", "AUD"), ("12,345,678", "US", "12345678", None), ("049", "GB", "49", None), ("20 zł", "PL", "20", "PLN"),
    ("0.99", "GB", "0.99", None),
]  # fmt: skip
REFUSED = ["", "free", "12 or 14", "-5", "1,28,9", "12..5", "1.2.3", "1234567890", "12.345", "٣"]


@pytest.mark.parametrize(("text", "region", "amount", "currency"), READ)
def test_amounts_are_read_as_the_region_writes_them(
    text: str, region: str, amount: str, currency: str | None
) -> None:
    assert read_money(text, region) == ReadMoney(amount, currency)


@pytest.mark.parametrize("text", REFUSED)
def test_what_is_no_amount_or_could_be_two_is_refused_in_words(text: str) -> None:
    with pytest.raises(ValueError, match=r"\w+ \w+"):
        read_money(text, "GB")
