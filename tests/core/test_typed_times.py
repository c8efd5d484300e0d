"""Times of day as people type them."""

import json
from datetime import time
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from intavo.core.hours import read_clock

# The console reads the same, in console/src/lib/clocktime.test.ts.
VECTORS = json.loads((Path(__file__).parent / "typed_times.json").read_text())


@pytest.mark.parametrize(("text", "clock"), VECTORS["read"])
def test_times_are_read_as_people_type_them(text: str, clock: str) -> None:
    assert read_clock(text) == clock


@pytest.mark.parametrize("text", VECTORS["refused"])
def test_what_is_no_time_is_refused_and_quoted(text: str) -> None:
    with pytest.raises(ValueError, match="is not a time"):
        read_clock(text)


@given(st.times())
def test_every_time_comes_back_as_it_was(clock: time) -> None:
    assert read_clock(f"{clock:%H:%M}") == f"{clock:%H:%M}"
