"""A visitor's answers held against the step that they saw."""

from collections.abc import Mapping
from dataclasses import dataclass

from ..people import email_address, phone_number
from .document import Document
from .parts import Consent, FieldPart, Part

_LONGEST = {"email": 254, "text": 300, "phone": 60, "long": 5000}


class AnswerErrors(ValueError):
    """What is wrong with the answers, as pairs of the field's place and words for the visitor."""

    def __init__(self, errors: list[tuple[str, str]]) -> None:
        super().__init__("; ".join(f"{field}: {message}" for field, message in errors))
        self.errors = errors


@dataclass(frozen=True, slots=True)
class Checked:
    """Answers that hold: values by name, wordings agreed to by name, and the step that comes next."""

    values: dict[str, str]
    agreed: dict[str, str]
    next: str | None


def check_answers(
    document: Document, step_id: str, answers: Mapping[str, str], consents: Mapping[str, bool], region: str
) -> Checked:
    """The answers to one step, trimmed; raises AnswerErrors that name every field that is wrong.

    A hidden field may be answered but is never required; a name that the step does not ask for is
    passed over. `region` reads phone numbers without a country code.
    """
    step = document.step(step_id)
    if step is None:
        raise AnswerErrors([("step", f"There is no step “{step_id}”.")])
    errors: list[tuple[str, str]] = []
    values: dict[str, str] = {}
    agreed: dict[str, str] = {}
    for part in step.parts:
        try:
            if isinstance(part, FieldPart):
                value = _field(part, answers.get(part.name, ""), region)
                if value:
                    values[part.name] = value
            elif isinstance(part, Consent) and not part.hidden:
                if consents.get(part.name, False):
                    agreed[part.name] = part.text
                elif part.required:
                    raise ValueError("Please tick this to go on.")
        except ValueError as error:
            errors.append((_place(part), str(error)))
    if errors:
        raise AnswerErrors(errors)
    return Checked(values, agreed, next_step(document, step_id))


def _place(part: Part) -> str:
    """The field of a part as errors name it."""
    if isinstance(part, FieldPart):
        return f"answers.{part.name}"
    return f"consents.{part.name}" if isinstance(part, Consent) else part.id


def _field(part: FieldPart, given: str, region: str) -> str:
    value = given.replace("\x00", "").strip()
    if not value:
        if part.required and not part.hidden:
            raise ValueError(f"Please fill in “{part.label}”." if part.label else "Please fill this in.")
        return ""
    if len(value) > _LONGEST[part.input]:
        raise ValueError(f"This is too long: at most {_LONGEST[part.input]} characters.")
    if part.input == "email":
        return email_address(value).shown
    if part.input == "phone":
        return phone_number(value, region).shown
    return value


def next_step(document: Document, step_id: str) -> str | None:
    """The step that the sending button of a step leads to."""
    step = document.step(step_id)
    buttons = (part for part in (step.parts if step else ()) if part.kind == "button" and not part.hidden)
    return next((button.does.next for button in buttons if button.does.action == "send"), None)
