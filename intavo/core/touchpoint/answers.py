"""A visitor's answers held against the steps that they went through."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from datetime import date, datetime

from ..people import email_address, phone_number
from ..say import short_date
from .document import Document, Step
from .fields import Consent, FieldPart
from .parts import Button, Part, Question, Score

_LONGEST = {"email": 254, "phone": 60, "long": 5000}


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
    """The answers up to one step, trimmed; raises AnswerErrors that name every field that is wrong.

    Every step on the way that these answers take to `step_id` is checked, so that what an earlier step
    requires cannot be left out. A hidden field may be answered but is never required; a name that is not
    asked for is passed over. `region` reads phone numbers without a country code.
    """
    if document.step(step_id) is None:
        raise AnswerErrors([("step", f"There is no step “{step_id}”.")])
    errors: list[tuple[str, str]] = []
    values: dict[str, str] = {}
    agreed: dict[str, str] = {}
    for part in (part for step in way_to(document, step_id, answers) for part in step.parts):
        try:
            if isinstance(part, FieldPart | Question | Score):
                value = _value(part, answers.get(part.name, ""), region)
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
    return Checked(values, agreed, next_step(document, step_id, values))


def way_to(document: Document, step_id: str, answers: Mapping[str, str]) -> list[Step]:
    """The steps that these answers lead through, up to and with `step_id`; that alone where none leads there."""
    walked: list[Step] = []
    step = document.steps[0]
    while step not in walked:
        walked.append(step)
        if step.id == step_id:
            return walked
        following = next_step(document, step.id, answers)
        found = document.step(following) if following else None
        if found is None:
            break
        step = found
    found = document.step(step_id)
    return [found] if found else []


def next_step(document: Document, step_id: str, answers: Mapping[str, str]) -> str | None:
    """The step that comes after one: chosen by an answer, else where its button leads."""
    step = document.step(step_id)
    shown = [part for part in (step.parts if step else ()) if not part.hidden]
    chosen = next((leads for part in shown if (leads := _chosen(part, answers))), None)
    buttons = (part.does for part in shown if isinstance(part, Button))
    return chosen or next((does.next for does in buttons if does.action in {"send", "step"}), None)


def _chosen(part: Part, answers: Mapping[str, str]) -> str | None:
    """The step that the answer to a part chooses."""
    given = answers.get(part.name, "") if isinstance(part, FieldPart | Question | Score) else ""
    if not given:
        return None
    if isinstance(part, Score):
        return part.next_for(int(given)) if given.isdigit() else None
    options = part.options if isinstance(part, FieldPart | Question) else ()
    return next((option.next for option in options if option.value == given), None)


def low_score(document: Document, values: Mapping[str, str]) -> bool:
    """Whether any score that was given is so low that it asks for a follow-up."""
    scores = (part for part in document.parts() if isinstance(part, Score))
    return any(int(values[part.name]) <= part.low for part in scores if part.name in values)


def _place(part: Part) -> str:
    """The field of a part as errors name it."""
    if isinstance(part, FieldPart | Question | Score):
        return f"answers.{part.name}"
    return f"consents.{part.name}" if isinstance(part, Consent) else part.id


def _value(part: FieldPart | Question | Score, given: str, region: str) -> str:
    value = given.replace("\x00", "").strip()
    if isinstance(part, Question):
        return _one_of(value, [option.value for option in part.options]) if value else ""
    if isinstance(part, Score):
        return _one_of(value, [str(score) for score in range(part.least, part.most + 1)]) if value else ""
    if part.input == "hidden":
        return part.value
    if not value:
        if part.required and not part.hidden:
            raise ValueError(f"Please fill in “{part.label}”." if part.label else "Please fill this in.")
        return ""
    longest = _LONGEST.get(part.input, 300)
    if part.input != "several" and len(value) > longest:
        raise ValueError(f"This is too long: at most {longest} characters.")
    return _typed(part, value, region)


def _typed(part: FieldPart, value: str, region: str) -> str:
    if part.input == "email":
        return email_address(value).shown
    if part.input == "phone":
        return phone_number(value, region).shown
    if part.input == "choice":
        return _one_of(value, [option.value for option in part.options])
    if part.input == "several":
        known = [option.value for option in part.options]
        return "\n".join(_one_of(one, known) for one in value.split("\n") if one)
    if part.input == "number":
        return _number(part, value)
    if part.input == "date":
        return _date(value)
    return value


def _one_of(value: str, known: list[str]) -> str:
    if value not in known:
        raise ValueError("Please choose one of what is offered.")
    return value


def _number(part: FieldPart, value: str) -> str:
    text = value.replace(",", ".")
    try:
        number = float(text)
    except ValueError:
        raise ValueError("Please write a number.") from None
    if part.least is not None and number < part.least:
        raise ValueError(f"Please write {part.least} or more.")
    if part.most is not None and number > part.most:
        raise ValueError(f"Please write {part.most} or less.")
    return text


def _date(value: str) -> str:
    try:
        return date.fromisoformat(value).isoformat()
    except ValueError:
        raise ValueError("Please choose a day.") from None


def asked_fields(document: Document) -> Iterator[tuple[str, str]]:
    """Names and labels of everything that can be answered, in order."""
    for part in document.parts():
        if isinstance(part, FieldPart):
            yield part.name, part.label or part.name
        elif isinstance(part, Question | Score):
            yield part.name, part.text or part.name


def said_answers(document: Document, values: Mapping[str, str]) -> list[list[str]]:
    """What was answered as people read it: pairs of what was asked and the answer, in order.

    A choice is said by its label, a time for a call as "Wed 25 Nov, 10:30" in the hours' zone.
    """
    known = {part.name: part for part in document.parts() if isinstance(part, FieldPart | Question)}
    asked = ((name, label) for name, label in asked_fields(document) if name in values)
    return [[label, _read(known.get(name), values[name])] for name, label in asked]


def _read(part: FieldPart | Question | None, value: str) -> str:
    if isinstance(part, FieldPart) and part.input == "slot":
        try:
            at = datetime.fromisoformat(value)
        except ValueError:
            return value
        return f"{short_date(at.date())}, {at:%H:%M}"
    labels = {option.value: option.label or option.value for option in part.options} if part else {}
    return ", ".join(labels.get(one, one) for one in value.split("\n")) if labels else value
