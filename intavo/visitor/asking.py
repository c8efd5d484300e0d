"""What the script asks for besides a plan."""

from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field, StringConstraints

from intavo.core.showing.visit import Short


class Wanted(BaseModel):
    """The body of `more`: for which revision, and by whom."""

    model_config = ConfigDict(extra="ignore")
    touchpoint: str = Field(min_length=1, max_length=20)
    revision: int = Field(ge=1, le=2**31 - 1)
    visitor: Short | None = None
    code: bool = False
    # Where they are, as their browser names it; what is no zone is not looked at.
    zone: Short | None = None
    rehearsal: Annotated[str, StringConstraints(max_length=2000)] | None = None


class Helped(BaseModel):
    """The body of `helped`."""

    model_config = ConfigDict(extra="ignore")
    question: int = Field(ge=1)
    helped: bool
