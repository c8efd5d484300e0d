"""A name in a mail says nothing but a name."""

import re

import pytest
from hypothesis import given
from hypothesis import strategies as st

from intavo.core.people.naming import name_in_mail


@pytest.mark.parametrize(
    ("typed", "said"),
    [
        ("Ève Lindqvist", "Ève Lindqvist"),
        ("J. R. O’Neill-Smith", "J. R. O’Neill-Smith"),
        ("María del Carmen de la Vega", "María del Carmen de la Vega"),
        ("王小明", "王小明"),
        ("Eve\r\nBcc: nia@post.example", "Eve Bcc:"),
        ("Win at https://prize.example now", "Win at now"),
        ("Eve www.prize.example", "Eve"),
        ("prize.example/x", ""),
        ("PRİZE.example", ""),
        ("Call 01632 960 960", "Call 960 960"),
        ("Call 01632960960", "Call"),
        ("<b>Eve</b>", "b Eve"),
        ("you have been chosen and should look at your post today", ""),
        ("x" * 61, ""),
        ("", ""),
    ],
)
def test_what_leads_elsewhere_is_left_out(typed: str, said: str) -> None:
    assert name_in_mail(typed) == said


@given(st.text(alphabet=st.sampled_from("ab.@:/\\ \r\n\t\u2028<1Ö-www"), max_size=80))
def test_nothing_in_it_is_a_link_or_a_line(typed: str) -> None:
    said = name_in_mail(typed)
    assert not re.search(r"[\r\n\u2028<>@/\\]|\bwww\b|[^\W\d_]{2,}\.[^\W\d_]{2,}", said)
    assert said == name_in_mail(said)
