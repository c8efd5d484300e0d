"""Parts that tell what the business knows: its hours, its questions & answers, when somebody answers."""

from collections.abc import Iterator
from typing import ClassVar, Literal

from pydantic import Field

from ..after import After
from ..finding import Known
from .part import Lacks, Offered, Part_


class HoursPart(Part_):
    """Whether it is open now, and the week."""

    CALLED: ClassVar = "Opening hours"
    ON_CARD: ClassVar = "Hours"
    TALL: ClassVar = True
    TELLS: ClassVar = True
    VALUES: ClassVar = {"now": "now", "week": "the week"}
    OFFERED: ClassVar = (Offered("To show", "Opening hours", {"kind": "hours"}),)

    kind: Literal["hours"]
    now: bool = True
    week: bool = True


class Questions(Part_):
    """The business's questions & answers, all or one group of them."""

    CALLED: ClassVar = "Questions & answers"
    ON_CARD: ClassVar = "Questions"
    TALL: ClassVar = True
    TELLS: ClassVar = True
    VALUES: ClassVar = {"group": "which ones", "search": "can be searched", "helped": "asks “did this help?”"}
    OFFERED: ClassVar = (Offered("To show", "Questions & answers", {"kind": "questions"}),)

    kind: Literal["questions"]
    group: str = Field("", max_length=120)
    search: bool = True
    helped: bool = True

    def lacks(self, known: Known, after: After) -> Iterator[Lacks]:
        if known.questions is None:
            return
        if not known.questions:
            yield "look", "It shows questions & answers, but there are none yet: visitors see nothing."
        elif self.group and self.group not in known.questions:
            yield "look", f"There are no questions & answers of the group “{self.group}”."


class ReplyPart(Part_):
    """Where the visitor is told when somebody answers."""

    CALLED: ClassVar = "When somebody answers"
    ON_CARD: ClassVar = "Reply"
    LIGHT: ClassVar = True
    OFFERED: ClassVar = (Offered("To show", "When somebody answers", {"kind": "reply"}),)

    kind: Literal["reply"]
