"""Questions with choices, and scores."""

from collections.abc import Iterator
from typing import ClassVar, Literal

from pydantic import Field

from ...door import whole_number
from ..after import After
from ..base import Id, Model
from ..finding import Known
from .fields import CHOICES, Option
from .part import Asked, Lacks, Offered, one_of

BAND_MOST = 1000


class Question(Asked):
    """A question with choices; each may go to a step of its own."""

    CALLED: ClassVar = "Question with choices"
    ON_CARD: ClassVar = "Question"
    VALUES: ClassVar = {"name": "name in answers", "options": "choices"}
    OFFERED: ClassVar = (
        Offered(
            "To click",
            "Question with choices",
            {"kind": "question", "name": "choice", "text": "Which is it?", "options": CHOICES},
        ),
    )

    kind: Literal["question"]
    text: str = Field("", max_length=300)
    options: tuple[Option, ...] = Field((), max_length=20)

    @property
    def asked(self) -> str:
        return self.text or self.name

    def leads_to(self) -> Iterator[str]:
        return (option.next for option in self.options if option.next)

    def chosen(self, given: str) -> str | None:
        return next((option.next for option in self.options if option.value == given), None)

    def checked(self, given: str, region: str) -> str:
        return one_of(given, [option.value for option in self.options]) if given else ""

    def as_read(self, value: str) -> str:
        return next((option.label or value for option in self.options if option.value == value), value)

    def lacks(self, known: Known, after: After) -> Iterator[Lacks]:
        if len(self.options) < 2:
            yield "stops", "A question has fewer than two choices."


class Band(Model):
    """The step that scores from `least` to `most` go to."""

    least: int = Field(ge=0, le=BAND_MOST)
    most: int = Field(ge=0, le=BAND_MOST)
    next: Id


class Score(Asked):
    """A score to give; `bands` choose the next step, `low` and below opens a follow-up."""

    CALLED: ClassVar = "Score"
    ON_CARD: ClassVar = "Score"
    TALL: ClassVar = True
    VALUES: ClassVar = {
        "name": "name in answers", "least": "least", "most": "most", "least_label": "words at the least",
        "most_label": "words at the most", "low": "low score", "bands": "where scores lead",
    }  # fmt: skip
    OFFERED: ClassVar = (
        Offered(
            "To click",
            "Score",
            {
                "kind": "score",
                "name": "score",
                "text": "How was it?",
                "least_label": "not good",
                "most_label": "very good",
            },
        ),
    )

    kind: Literal["score"]
    text: str = Field("", max_length=300)
    least: int = Field(0, ge=0, le=1)
    most: int = Field(10, ge=3, le=10)
    least_label: str = Field("", max_length=60)
    most_label: str = Field("", max_length=60)
    low: int = Field(6, ge=0, le=10)
    bands: tuple[Band, ...] = Field((), max_length=11)

    @property
    def asked(self) -> str:
        return self.text or self.name

    def leads_to(self) -> Iterator[str]:
        return (band.next for band in self.bands)

    def chosen(self, given: str) -> str | None:
        """The step of the band that a score lies in."""
        score = whole_number(given)
        return next(
            (one.next for one in self.bands if score is not None and one.least <= score <= one.most), None
        )

    def checked(self, given: str, region: str) -> str:
        return one_of(given, [str(score) for score in range(self.least, self.most + 1)]) if given else ""
