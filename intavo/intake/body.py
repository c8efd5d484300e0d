"""The body of an intake, what a visitor sends, and what it is answered."""

from typing import NotRequired

from pydantic import BaseModel, ConfigDict, Field
from typing_extensions import TypedDict

from intavo.core.replies import Told
from intavo.core.showing.visit import Page, Short
from intavo.core.texts import Kept
from intavo.core.touchpoint.rules import VisitorDevice


class Sender(BaseModel):
    """The visitor as they send something."""

    model_config = ConfigDict(extra="ignore")
    id: Short | None = None
    utc_offset: int | None = Field(None, ge=-24 * 60, le=24 * 60)
    visits: int = Field(1, ge=0)
    # "" where they do not say it.
    language: str = Field("", max_length=35)


class Sent(BaseModel):
    """The body of an intake.

    `corrects` names an earlier one whose address was a slip; `trap` is what stood in the field that only
    machines fill in; `work` is the answer to the piece of work, where one was asked for.
    """

    model_config = ConfigDict(extra="ignore")
    id: Kept = Field(min_length=8, max_length=80)
    touchpoint: str = Field(min_length=1, max_length=20)
    revision: int = Field(ge=1, le=2**31 - 1)
    variant: str | None = Field(None, max_length=40)
    step: str = Field("ask", max_length=40)
    answers: dict[str, str] = Field(default_factory=dict, max_length=100)
    consents: dict[str, bool] = Field(default_factory=dict, max_length=100)
    page: Page
    device: VisitorDevice
    visitor: Sender = Sender()
    elapsed_ms: int | None = Field(None, ge=0)
    corrects: str | None = Field(None, max_length=80)
    trap: str = Field("", max_length=1000)
    work: str = Field("", max_length=4000)


class FileGiven(TypedDict):
    """The signed link of a file that is given, and its words."""

    url: str
    label: str


class Suggested(TypedDict):
    """Another address that they may have meant."""

    email: str


class Taken(TypedDict):
    """What is answered to what was taken in: the step that comes next, what is said, and what they are given.

    `tags` are what they have from now on, if anything.
    """

    next: str | None
    says: Told | None
    code: str | None
    file: FileGiven | None
    suggest: Suggested | None
    tags: NotRequired[list[str]]
