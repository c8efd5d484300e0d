"""The parts of a step: each one piece of content with an id that never changes."""

from typing import Annotated, Literal

import nh3
from pydantic import BaseModel, ConfigDict, Field, StringConstraints, field_validator

Id = Annotated[str, StringConstraints(pattern=r"^[a-z][a-z0-9_-]{0,39}$")]
Device = Literal["desktop", "phone"]


class Model(BaseModel):
    """Base of everything in a document: immutable, and an unknown field is refused by name."""

    model_config = ConfigDict(frozen=True, extra="forbid", json_schema_serialization_defaults_required=True)


class _Part(Model):
    id: Id
    on: tuple[Device, ...] = ("desktop", "phone")
    hidden: bool = False


class Headline(_Part):
    """A line of large words."""

    kind: Literal["headline"]
    text: str = Field("", max_length=300)


class Text(_Part):
    """Rich text, sanitised when it is read: only the elements listed survive."""

    kind: Literal["text"]
    html: str = Field("", max_length=10_000)

    @field_validator("html")
    @classmethod
    def _sanitised(cls, value: str) -> str:
        return nh3.clean(
            value,
            tags={"p", "br", "b", "strong", "i", "em", "a", "ul", "ol", "li"},
            attributes={"a": {"href"}},
            url_schemes={"http", "https", "mailto", "tel"},
        )


class FieldPart(_Part):
    """A field that the visitor fills in."""

    kind: Literal["field"]
    input: Literal["email", "text", "phone", "long"]
    name: Id
    label: str = Field("", max_length=200)
    required: bool = False


class Consent(_Part):
    """A tick with the wording that is agreed to; never ticked beforehand."""

    kind: Literal["consent"]
    name: Id
    text: str = Field("", max_length=1000)
    required: bool = False


class Does(Model):
    """What a button does: send the step's answers and go on to `next`, or close."""

    action: Literal["send", "close"]
    next: Id | None = None


class Button(_Part):
    """A button."""

    kind: Literal["button"]
    label: str = Field("", max_length=200)
    does: Does


class ReplyPart(_Part):
    """Where the visitor is told when somebody answers."""

    kind: Literal["reply"]


Part = Annotated[Headline | Text | FieldPart | Consent | Button | ReplyPart, Field(discriminator="kind")]
