"""What a file of people is, from its first bytes."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from intavo.core.csvsafe import one_cell, pieces_of
from intavo.core.importing import guess

COMMA = 'Name,Email,Phone,Tags,Notes,Boat\nIfe Dunmore,ife@post.example,07700 900123,trips,"Likes\nthe estuary",double\n'


@pytest.mark.parametrize(
    ("text", "encoding", "delimiter", "header", "columns"),
    [
        (COMMA, "utf-8", ",", True, ["name", "email", "phone", "tag", "note", "own"]),
        ("Vorname;Nachname;E-Mail;Telefon;Einwilligung\nJörg;Kühn;joerg@post.example;+49 30 1234567;ja\n", "windows-1252", ";", True,
         ["name", "name", "email", "phone", "consent"]),
        ("Prénom\tCourriel\nÈve\teve@post.example\n", "utf-16", "\t", True, ["name", "email"]),
        ("Prénom\tCourriel\nÈve\teve@post.example\n", "utf-16-le", "\t", True, ["name", "email"]),
        ("Prénom|Courriel\nÈve|eve@post.example\n", "utf-8-sig", "|", True, ["name", "email"]),
        ("Ife Dunmore,ife@post.example,07700 900123\nNia,nia@post.example,01632 960417\n", "utf-8", ",", False, ["name", "email", "phone"]),
        ("ife@post.example\nnia@post.example\n", "utf-8", ",", False, ["email"]),
        ("Address\nife@post.example\nnia@post.example\n", "utf-8", ",", True, ["email"]),
        ("sep=;\nName;Email\nA, B;a@post.example\n", "utf-8", ";", True, ["name", "email"]),
        ("Email,Second email,,Since,Amount\na@post.example,b@post.example,,2026-11-24,12.50\n", "utf-8", ",", True,
         ["email", "own", "ignored", "own", "own"]),
        ("Email;Note\na@post.example;\"one; two\"\nb@post.example;three, four, five\n", "utf-8", ";", True, ["email", "note"]),
        ("id,name,email,other emails,tags,agreed to,as data,Email,name\n1,Ife,a@post.example,b@post.example,x,,{},c@post.example,Y\n",
         "utf-8", ",", True, ["ignored", "name", "email", "email", "tag", "ignored", "data", "own", "own"]),
        ("Name,Phone\nIfe,none\nNia,no\n", "utf-8", ",", True, ["name", "own"]),
        ("", "utf-8", ",", False, []), ("\n\n", "utf-8", ",", False, []),
    ],
)  # fmt: skip
def test_a_file_is_taken_for_what_it_is(
    text: str, encoding: str, delimiter: str, header: bool, columns: list[str]
) -> None:
    found = guess(text.encode(encoding))
    assert (found.encoding, found.delimiter, found.header, list(found.columns)) == (
        encoding,
        delimiter,
        header,
        columns,
    )
    assert len(found.titles) == len(columns)


def test_a_letter_that_is_cut_off_changes_nothing() -> None:
    raw = "Name,Email\nÈve,eve@post.example\nÈ".encode()
    assert guess(raw[:-1]).encoding == "utf-8"
    assert guess(raw[:-1] + b"\xe9 more text").encoding == "windows-1252"


def test_a_file_of_a_million_columns_or_of_one_line_is_looked_at_in_time() -> None:
    assert len(guess(b"a," * 1_000_000).columns) == 500
    assert guess(b'"' + b"x" * 2_000_000).delimiter == ","


@given(st.binary(max_size=400) | st.text(alphabet=',;\t|"\n\r a@.0é\x00', max_size=200).map(str.encode))
def test_any_bytes_are_looked_at(head: bytes) -> None:
    found = guess(head)
    assert len(found.columns) == len(found.titles)
    assert head.decode(found.encoding, "replace") is not None
    assert [one for one in found.columns if one == "email"][1:] == []


@given(
    st.lists(
        st.text(min_size=1, max_size=20)
        .map(str.strip)
        .filter(lambda one: one and one == " ".join(one.split()))
    )
)
def test_several_stand_in_one_cell(pieces: list[str]) -> None:
    assert pieces_of(one_cell(pieces)) == pieces
