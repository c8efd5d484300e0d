"""Rows and cards of a file of people, read one at a time."""

import io

import pytest

from intavo.core.importing import Column, card_lines, csv_lines, read_card, read_row

COLUMNS = (
    Column.NAME,
    Column.EMAIL,
    Column.PHONE,
    Column.TAG,
    Column.CONSENT,
    Column.NOTE,
    Column.OWN,
    Column.IGNORED,
)
TITLES = ("Name", "Email", "Phone", "Tag", "Consent", "Note", "Boat", "Secret")


@pytest.mark.parametrize(
    ("text", "header", "found"),
    [
        ("a;b\r\n1;2\r\n", True, [("1", "2")]), ("a;b\n1;2\n", False, [("a", "b"), ("1", "2")]),
        ("sep=;\na;b\n1;2\n", True, [("1", "2")]), ("sep=;\n1;2\n", False, [("1", "2")]), ("\n;\n1;2\n", False, [("1", "2")]),
        ('"x;\ny";2', False, [("x;\ny", "2")]), ("", True, []), ("only;header", True, []), ("a\x00b;2", False, [("ab", "2")]),
    ],
)  # fmt: skip
def test_rows_are_read_as_spreadsheets_write_them(
    text: str, header: bool, found: list[tuple[str, ...]]
) -> None:
    lines = list(csv_lines(io.StringIO(text), ";", header))
    assert [one.cells for one in lines] == found
    assert [one.number for one in lines] == list(range(1, len(found) + 1))


def test_what_has_no_end_or_too_many_columns_is_said_and_the_rest_is_read() -> None:
    text = "a,b\n" + "x," * 600 + "\nlast,2\n" + '"' + "y" * 200_000
    lines = list(csv_lines(io.StringIO(text), ",", True))
    assert ["more than 500 columns" in lines[0].wrong, lines[1].cells, "has no end" in lines[2].wrong] == [
        True,
        ("last", "2"),
        True,
    ]


def test_a_row_is_somebody_with_what_they_are_known_by() -> None:
    cells = ("  Ève   L. ", "EVE@post.example", "01632 960741", "a; b|a", "ja", "'=note", "Red", "hidden")
    one = read_row(cells, COLUMNS, TITLES, "GB")
    assert (one.name, one.email.key, one.phone.key) == ("Ève L.", "eve@post.example", "+441632960741")
    assert (one.tags, one.agreed, one.note, one.own) == (("a", "b"), True, "=note", (("Boat", "Red"),))


@pytest.mark.parametrize(
    ("cells", "said"),
    [
        (("Nobody",), "neither an email"), (("x", "broken@"), "cannot be right"), (("x", "", "12"), "number"),
        (("", " ", ""), "neither an email"),
    ],
)  # fmt: skip
def test_a_row_that_is_nobody_says_why(cells: tuple[str, ...], said: str) -> None:
    with pytest.raises(ValueError, match=said):
        read_row(cells, COLUMNS, TITLES, "GB")


def test_a_number_that_is_none_stays_beside_an_email_and_no_is_no() -> None:
    one = read_row(("x", "x@post.example", "call me", "", "nein"), COLUMNS, TITLES, "GB")
    assert (one.phone, one.agreed, one.own) == (None, False, (("Phone", "call me"),))
    assert read_row(("x@post.example",), (Column.EMAIL,), (), "GB").agreed is None


def test_cards_are_told_apart_and_one_without_an_end_is_said() -> None:
    text = (
        "junk\nBEGIN:VCARD\nFN:A\nEND:VCARD\nbegin:vcard\nFN:B\nBEGIN:VCARD\nFN:C\nEND:VCARD\nBEGIN:VCARD\n"
    )
    assert [(one.number, one.wrong) for one in card_lines(io.StringIO(text))] == [
        (1, ""),
        (2, "The card has no end."),
        (3, ""),
        (4, "The card has no end."),
    ]


def test_a_card_without_a_full_name_is_called_by_its_parts() -> None:
    card = "BEGIN:VCARD\r\nVERSION:3.0\r\nN:Doe;Jo;;;\r\nEMAIL:jo@post.example\r\nORG:Quay;Boats\r\nEND:VCARD\r\n"
    one = read_card(card, "GB")
    assert (one.name, one.email.key, one.own) == (
        "Jo Doe",
        "jo@post.example",
        (("Organisation", "Quay Boats"),),
    )
    with pytest.raises(ValueError, match="cannot be read"):
        read_card("BEGIN:VCARD\nnothing", "GB")
