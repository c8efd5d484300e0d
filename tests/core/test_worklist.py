"""The filter of the follow-up list: what it lets through, and its sentence."""

from typing import Any

import pytest
from pydantic import ValidationError

from intavo.core.worklist import ListFilter, filter_words


@pytest.mark.parametrize(
    ("wanted", "words"),
    [
        ({}, "everything still open from any touchpoint for anybody"),
        ({"kind": "inquiry", "touchpoint": 3, "member": 7}, "inquiries still open from Boathouse question for Jory"),
        ({"touchpoint": 0, "member": 0, "state": "finished"}, "everything finished from no touchpoint for nobody yet"),
        ({"touchpoint": 4, "member": 8}, "everything still open from a touchpoint that is gone for somebody who has left"),
        ({"tag": "school", "since": "2026-11-01", "q": "wetsuit"},
         "everything still open from any touchpoint for anybody, tagged “school”, since 2026-11-01, with “wetsuit” in it"),
    ],
)  # fmt: skip
def test_a_filter_reads_as_a_sentence(wanted: dict[str, Any], words: str) -> None:
    found = ListFilter.model_validate(wanted)
    assert filter_words(found, {3: "Boathouse question"}, {7: "Jory"}) == words
    assert found.narrows is bool(wanted)


@pytest.mark.parametrize(
    "wanted",
    [{"kind": "x"}, {"member": -1}, {"since": "soon"}, {"q": "x" * 201}, {"state": "lost"}, {"tag": "a\x00"}],
)
def test_what_is_no_filter_is_refused(wanted: dict[str, Any]) -> None:
    with pytest.raises(ValidationError):
        ListFilter.model_validate(wanted)
