"""Parts that a visitor fills in."""

from typing import Literal, Self

from pydantic import Field, model_validator

from .base import Id, Model
from .part import Part_ as _Part

Input = Literal["email", "name", "text", "phone", "long", "choice", "several", "number", "date", "slot", "hidden"]


class Option(Model):
    """One choice: what is kept, what is read, and the step it leads to."""

    value: str = Field(min_length=1, max_length=120)
    label: str = Field("", max_length=200)
    next: Id | None = None


class FieldPart(_Part):
    """A field. `options` belong to choice and several, `least`/`most` to number, `value` to hidden.

    A slot offers times for a call: `minutes` long, `notice` minutes ahead at least, `capacity` at once.
    """

    kind: Literal["field"]
    input: Input
    name: Id
    label: str = Field("", max_length=200)
    hint: str = Field("", max_length=200)
    required: bool = False
    options: tuple[Option, ...] = Field((), max_length=50)
    least: int | None = Field(None, ge=-1_000_000_000, le=1_000_000_000)
    most: int | None = Field(None, ge=-1_000_000_000, le=1_000_000_000)
    value: str = Field("", max_length=500)
    minutes: int = Field(30, ge=5, le=480)
    notice: int = Field(60, ge=0, le=60 * 24 * 14)
    capacity: int = Field(1, ge=1, le=50)

    @model_validator(mode="after")
    def _sound(self) -> Self:
        values = [option.value for option in self.options]
        if len(values) != len(set(values)):
            raise ValueError("two choices are the same")
        if self.least is not None and self.most is not None and self.least > self.most:
            raise ValueError("the least is more than the most")
        return self


class Consent(_Part):
    """A tick with the wording that is agreed to; never ticked beforehand."""

    kind: Literal["consent"]
    name: Id
    text: str = Field("", max_length=1000)
    required: bool = False
