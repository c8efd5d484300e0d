"""What is wrong in something that came in: the place is what was sent, whatever was tried to read it."""

import copy
from collections.abc import Iterator
from typing import Annotated, Any

import pytest
from pydantic import BaseModel, Field, ValidationError

from intavo.core.refusals import wrongs
from intavo.core.touchpoint import STARTERS, Document


class Seats(BaseModel):
    many: Annotated[int, Field(ge=1)] | Annotated[str, Field(max_length=3)]


class Room(BaseModel):
    seats: list[Seats]
    hours: dict[str, int] | list[int] = {}


@pytest.mark.parametrize(
    ("sent", "place"),
    [
        ({"seats": [{"many": 2}, {"many": "plenty"}]}, "seats.1.many"),
        ({"seats": [{"many": 0}]}, "seats.0.many"),
        ({"seats": [{}]}, "seats.0.many"),
        ({"seats": [], "hours": {"mon": "x"}}, "hours.mon"),
        ({"seats": [], "hours": 3}, "hours"),
        ([], "all of it"),
    ],
)
def test_a_field_of_several_types_is_named_as_it_was_sent(sent: object, place: str) -> None:
    with pytest.raises(ValidationError) as caught:
        Room.model_validate(sent)

    found = wrongs(caught.value.errors(), whole="all of it")

    assert place in {where for where, _ in found}
    assert not any("[" in where or "constrained" in where for where, _ in found)
    assert all(words[:1].isupper() for _, words in found)


def spoilt(value: Any, odd: object) -> Iterator[Any]:
    """A value with each piece of it, at any depth, replaced by something odd."""
    yield odd
    for key in value if isinstance(value, dict) else range(len(value)) if isinstance(value, list) else ():
        for piece in spoilt(value[key], odd):
            whole = copy.copy(value)
            whole[key] = piece
            yield whole


@pytest.mark.parametrize("odd", [None, 7, -1, 1e300, "", "x", True, [], {}, [{}], {"kind": "none"}])
def test_what_is_wrong_in_a_document_is_never_said_in_the_words_of_a_library(odd: object) -> None:
    document = STARTERS[0].document.model_dump(mode="json")
    said = set[str]()
    for wrong in spoilt(document, odd):
        try:
            Document.model_validate(wrong)
        except ValidationError as error:
            said |= {words for _, words in wrongs(error.errors())}

    assert said
    assert [words for words in said if "nput should" in words or "xpected" in words or "_" in words] == []
