"""Times of day as people type them."""

from datetime import time

import pytest
from hypothesis import given
from hypothesis import strategies as st

from intavo.core.hours import read_clock

READ = [
    ("8:30", "08:30"), ("08:30", "08:30"), ("9", "09:00"), ("9am", "09:00"), ("9 a.m.", "09:00"), ("5pm", "17:00"),
    ("5.30pm", "17:30"), ("9.30", "09:30"), ("9h30", "09:30"), ("9h", "09:00"), ("0900", "09:00"), ("1730", "17:30"),
    ("12am", "00:00"), ("12pm", "12:00"), ("noon", "12:00"), ("24:00", "24:00"), ("midnight", "24:00"), ("9 Uhr", "09:00"),
    (" 7 : 05 ", "07:05"), ("0:00", "00:00"),
]  # fmt: skip
REFUSED = ["", "soon", "25:00", "24:01", "9:60", "13pm", "0am", "9:5", "-1", "9:30:15", "٩", "9-17"]


@pytest.mark.parametrize(("text", "clock"), READ)
def test_times_are_read_as_people_type_them(text: str, clock: str) -> None:
    assert read_clock(text) == clock


@pytest.mark.parametrize("text", REFUSED)
def test_what_is_no_time_is_refused_and_quoted(text: str) -> None:
    with pytest.raises(ValueError, match="is not a time"):
        read_clock(text)


@given(st.times())
def test_every_time_comes_back_as_it_was(clock: time) -> None:
    assert read_clock(f"{clock:%H:%M}") == f"{clock:%H:%M}"
