"""Parts that a visitor fills in."""

from collections.abc import Iterator
from datetime import date, datetime
from typing import Any, ClassVar, Literal, Self

from pydantic import Field, model_validator

from ...legibility import SIGN
from ...people import email_address, phone_number
from ...say import day_and_time
from ...tongues import Phrase
from ..after import After
from ..base import Id, Model
from ..finding import Known
from ..look import FullValues
from .part import Asked, Lacks, Offered, Part_, TextOn, one_of

Input = Literal[
    "email", "name", "text", "phone", "long", "choice", "several", "number", "date", "slot", "hidden"
]
LIGHT_INPUTS = frozenset({"email", "name", "text", "phone", "long", "number", "date", "hidden"})
_LONGEST = {"email": 254, "phone": 60, "long": 5000}
_ELSE_LONGEST = 300
CHOICES = [{"value": "choice-1", "label": "This"}, {"value": "choice-2", "label": "That"}]


class Option(Model):
    """One choice: what is kept, what is read, and the step it leads to."""

    value: str = Field(min_length=1, max_length=120)
    label: str = Field("", max_length=200)
    next: Id | None = None


def _field(shown: str, input_: str, name: str, label: str, **more: Any) -> Offered:
    return Offered(
        "To fill in", shown, {"kind": "field", "input": input_, "name": name, "label": label, **more}
    )


class FieldPart(Asked):
    """A field. `options` belong to choice and several, `least`/`most` to number, `value` to hidden.

    A slot offers times for a call: `minutes` long, `notice` minutes ahead at least, `capacity` at once.
    """

    CALLED: ClassVar = "Field"
    VALUES: ClassVar = {
        "input": "kind", "name": "name in answers", "hint": "hint in the field",
        "required": "must be filled in", "options": "choices", "least": "least", "most": "most",
        "value": "value", "minutes": "how long", "notice": "notice", "capacity": "how many at once",
    }  # fmt: skip
    OFFERED: ClassVar = (
        _field("Email field", "email", "email", "Your email", required=True),
        _field("First name field", "name", "name", "First name"),
        _field("Phone field", "phone", "phone", "Your phone number"),
        _field("Short field", "text", "short", "A few words"),
        _field("Long field", "long", "message", "Your message"),
        _field("One of several", "choice", "choice", "Which one?", options=CHOICES),
        _field("Any of several", "several", "several", "Which of these?", options=CHOICES),
        _field("Number field", "number", "number", "How many?"),
        _field("Day field", "date", "day", "Which day?"),
        _field("Time for a call", "slot", "time", "When shall we call?", required=True),
        _field("Hidden value", "hidden", "hidden", ""),
    )

    kind: Literal["field"]
    input: Input
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

    @property
    def asked(self) -> str:
        return self.label or self.name

    def leads_to(self) -> Iterator[str]:
        return (option.next for option in self.options if option.next)

    def chosen(self, given: str) -> str | None:
        return next((option.next for option in self.options if option.value == given), None)

    def checked(self, given: str, region: str) -> str:
        if self.input == "hidden":
            return self.value
        if not given:
            if self.required and not self.hidden:
                named = Phrase("Please fill in “{label}”.", label=self.label)
                raise ValueError(named if self.label else Phrase("Please fill this in."))
            return ""
        longest = _LONGEST.get(self.input, _ELSE_LONGEST)
        if self.input != "several" and len(given) > longest:
            raise ValueError(Phrase("This is too long: at most {most} characters.", most=longest))
        return self._typed(given, region)

    def _typed(self, given: str, region: str) -> str:
        known = [option.value for option in self.options]
        if self.input == "email":
            return email_address(given).shown
        if self.input == "phone":
            return phone_number(given, region).shown
        if self.input == "choice":
            return one_of(given, known)
        if self.input == "several":
            return "\n".join(one_of(one, known) for one in given.split("\n") if one)
        if self.input == "number":
            return self._number(given)
        return _date(given) if self.input == "date" else given

    def _number(self, given: str) -> str:
        text = given.replace(",", ".")
        try:
            number = float(text)
        except ValueError:
            raise ValueError(Phrase("Please write a number.")) from None
        if self.least is not None and number < self.least:
            raise ValueError(Phrase("Please write {least} or more.", least=self.least))
        if self.most is not None and number > self.most:
            raise ValueError(Phrase("Please write {most} or less.", most=self.most))
        return text

    def as_read(self, value: str) -> str:
        if self.input == "slot":
            try:
                at = datetime.fromisoformat(value)
            except ValueError:
                return value
            return day_and_time(at)
        labels = {option.value: option.label or option.value for option in self.options}
        return ", ".join(labels.get(one, one) for one in value.split("\n")) if labels else value

    def lacks(self, known: Known, after: After) -> Iterator[Lacks]:
        if self.input in {"choice", "several"} and not self.options:
            yield "stops", "A field offers nothing to choose."
        elif self.input != "hidden" and not self.label.strip():
            yield "stops", "A field has no label."

    def texts(self, look: FullValues) -> Iterator[TextOn]:
        colours = look.colours
        yield TextOn("Label on {on}", "text", colours.text)
        yield TextOn("Words in the field", "field_text", colours.field_text, "field")
        yield TextOn("Edge of the field", "field_border", colours.field_border, "field", SIGN)

    def loads_alone(self) -> bool:
        return self.input in LIGHT_INPUTS

    def fits_a_bar(self) -> bool:
        return self.input != "long"


def _date(given: str) -> str:
    try:
        return date.fromisoformat(given).isoformat()
    except ValueError:
        raise ValueError(Phrase("Please choose a day.")) from None


class Consent(Part_):
    """A tick with the wording that is agreed to; never ticked beforehand."""

    CALLED: ClassVar = "Consent tick"
    ON_CARD: ClassVar = "Consent"
    LIGHT: ClassVar = True
    VALUES: ClassVar = {"name": "name in answers", "required": "must be filled in"}
    OFFERED: ClassVar = (
        Offered(
            "To fill in",
            "Consent tick",
            {"kind": "consent", "name": "consent", "text": "Yes, write to me by email.", "required": True},
        ),
    )

    kind: Literal["consent"]
    name: Id
    text: str = Field("", max_length=1000)
    required: bool = False

    def lacks(self, known: Known, after: After) -> Iterator[Lacks]:
        if not self.text.strip():
            yield "stops", "The consent tick has no wording."
