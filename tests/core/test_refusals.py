"""What is wrong in something that came in: the place is what was sent, whatever was tried to read it."""

from typing import Annotated

import pytest
from pydantic import BaseModel, Field, ValidationError

from intavo.core.refusals import wrongs


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
