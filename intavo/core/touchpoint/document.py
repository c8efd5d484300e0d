"""The whole of a touchpoint as one versioned document."""

from collections.abc import Iterator
from typing import Annotated, Any, Literal, Self

from pydantic import Field, StringConstraints, model_validator

from .parts import Button, Consent, FieldPart, Id, Model, Part
from .rules import Show

Colour = Annotated[str, StringConstraints(pattern=r"^#[0-9a-fA-F]{6}$")]
Purpose = Literal["sign-up", "inquiry"]
Place = Literal["middle", "top", "bottom"]
LATEST_CROSS = 5


class Step(Model):
    """What is shown at one time."""

    id: Id
    parts: tuple[Part, ...] = Field(max_length=60)


class Colours(Model):
    """Colours by role, as #rrggbb."""

    card: Colour = "#ffffff"
    text: Colour = "#1a2326"
    button: Colour = "#0e4f57"
    button_text: Colour = "#ffffff"


class PhoneLook(Model):
    """What differs on a phone."""

    place: Place = "bottom"


class Look(Model):
    """How it looks; `width` is in CSS pixels."""

    place: Place = "middle"
    width: int = Field(480, ge=280, le=1200)
    colours: Colours = Colours()
    phone: PhoneLook = PhoneLook()


class Leaving(Model):
    """How the visitor gets rid of it: `cross` is the seconds until the close sign comes, None for none."""

    cross: int | None = Field(0, ge=0, le=60)
    outside: bool = True
    escape: bool = True


class ThankYou(Model):
    """A mail to the visitor straight after they sent it."""

    send: bool = True
    subject: str = Field("", max_length=200)
    text: str = Field("", max_length=5000)


class After(Model):
    """What follows: whether somebody answers, how soon (open minutes; None: the business's promise), mail."""

    follow_up: bool = False
    promise_minutes: int | None = Field(None, ge=1, le=60 * 24 * 30)
    thank_you: ThankYou = ThankYou(send=False)


class Document(Model):
    """A touchpoint's document, version 1; `model_validate` raises a ValidationError that names the place."""

    version: Literal[1] = 1
    purpose: Purpose
    stance: Literal["pop-up"] = "pop-up"
    steps: tuple[Step, ...] = Field(min_length=1, max_length=20)
    look: Look = Look()
    leaving: Leaving = Leaving()
    show: Show = Show()
    after: After = After()

    @model_validator(mode="after")
    def _holds_together(self) -> Self:
        _all_different("steps", [step.id for step in self.steps])
        _all_different("parts", [part.id for step in self.steps for part in step.parts])
        _all_different("fields", [part.name for part in self.parts() if isinstance(part, FieldPart | Consent)])
        for part in self.parts():
            following = part.does.next if isinstance(part, Button) else None
            if following is not None and self.step(following) is None:
                raise ValueError(f"the button {part.id} leads to the step “{following}”, which is not there")
        self._can_be_closed()
        return self

    def _can_be_closed(self) -> None:
        cross = self.leaving.cross is not None and self.leaving.cross <= LATEST_CROSS
        closing = any(isinstance(p, Button) and not p.hidden and p.does.action == "close" for p in self.steps[0].parts)
        if not cross and not closing:
            raise ValueError("leaving: a close sign within 5 seconds, or a button that closes, is needed")

    def parts(self) -> Iterator[Part]:
        """Every part of every step, in order."""
        for step in self.steps:
            yield from step.parts

    def step(self, id_: str) -> Step | None:
        """The step with this id."""
        return next((step for step in self.steps if step.id == id_), None)

    def consents(self) -> Iterator[Consent]:
        """Every consent that is asked for."""
        return (part for part in self.parts() if isinstance(part, Consent) and not part.hidden)


def _all_different(what: str, names: list[str]) -> None:
    twice = next((name for name in names if names.count(name) > 1), None)
    if twice is not None:
        raise ValueError(f"{what}: “{twice}” stands twice")


def for_visitors(document: Document) -> dict[str, Any]:
    """The document less what a visitor must not see: rules, what comes after, and hidden parts."""
    seen = document.model_dump(mode="json", exclude={"show", "after"})
    for step in seen["steps"]:
        step["parts"] = [part for part in step["parts"] if not part["hidden"]]
    return seen
