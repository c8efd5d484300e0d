"""A visitor's answers held against the steps that they went through."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass

from ..tongues import Phrase
from .document import Document, Step
from .parts import Asked, Button, Consent, Part, Score


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
            if isinstance(part, Asked):
                value = part.checked(answers.get(part.name, "").replace("\x00", "").strip(), region)
                if value:
                    values[part.name] = value
            elif isinstance(part, Consent) and not part.hidden:
                if consents.get(part.name, False):
                    agreed[part.name] = part.text
                elif part.required:
                    raise ValueError(Phrase("Please tick this to go on."))
        except ValueError as error:
            errors.append((_place(part), str(error)))
    if errors:
        raise AnswerErrors(errors)
    return Checked(values, agreed, next_step(document, step_id, values))


def way_to(document: Document, step_id: str, answers: Mapping[str, str]) -> list[Step]:
    """The steps that these answers lead through, up to and with `step_id`;
    that alone where none leads there.
    """
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
    given = answers.get(part.name, "") if isinstance(part, Asked) else ""
    return part.chosen(given) if given and isinstance(part, Asked) else None


def low_score(document: Document, values: Mapping[str, str]) -> bool:
    """Whether any score that was given is so low that it asks for a follow-up."""
    scores = (part for part in document.parts() if isinstance(part, Score))
    return any(int(values[part.name]) <= part.low for part in scores if part.name in values)


def _place(part: Part) -> str:
    """The field of a part as errors name it."""
    if isinstance(part, Asked):
        return f"answers.{part.name}"
    return f"consents.{part.name}" if isinstance(part, Consent) else part.id


def asked_fields(document: Document) -> Iterator[tuple[str, str]]:
    """Names and labels of everything that can be answered, in order."""
    return ((part.name, part.asked) for part in document.parts() if isinstance(part, Asked))


def said_answers(document: Document, values: Mapping[str, str]) -> list[list[str]]:
    """What was answered as people read it: pairs of what was asked and the answer, in order.

    A choice is said by its label, a time for a call as "Wed 25 Nov, 10:30" in the hours' zone.
    """
    asked = (part for part in document.parts() if isinstance(part, Asked) and part.name in values)
    return [[part.asked, part.as_read(values[part.name])] for part in asked]
