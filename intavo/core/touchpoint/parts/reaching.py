"""Parts through which the business is reached: its channels."""

from collections.abc import Iterator
from typing import Annotated, Any, ClassVar, Literal

from pydantic import Field, StringConstraints, create_model

from ...dialogue.script import STRAIGHT, Script
from ..after import After
from ..finding import Known
from .part import Lacks, Offered, Part_

ChannelId = Annotated[str, StringConstraints(pattern=r"^ch_[0-9a-z]{1,17}$")]
# "as" is a word of Python's own, so the field cannot be written into a class.
_AS: Any = {"as": (Literal["rows", "tiles", "signs"], "rows")}
_Shaped: Any = create_model("_Shaped", __base__=Part_, **_AS)


class Channels(_Shaped):
    """Channels, as rows, tiles or round signs; with `people`, those who stand behind them can be chosen."""

    CALLED: ClassVar = "Ways to reach you"
    ON_CARD: ClassVar = "Channels"
    TALL: ClassVar = True
    VALUES: ClassVar = {"channels": "which ones", "as": "how they stand", "people": "who is behind them"}
    OFFERED: ClassVar = (Offered("To reach you", "Ways to reach you", {"kind": "channels"}),)

    kind: Literal["channels"]
    channels: Annotated[tuple[ChannelId, ...], Field(max_length=60)] | Literal["all"] = "all"
    people: bool = True

    def offers(self) -> Iterator[str]:
        yield from (self.channels,) if isinstance(self.channels, str) else self.channels

    def lacks(self, known: Known, after: After) -> Iterator[Lacks]:
        if known.channels is None:
            return
        named = set() if self.channels == "all" else set(self.channels)
        if not known.channels:
            yield "stops", "It shows ways to reach you, but there are no channels yet."
        elif self.channels != "all" and not named & set(known.channels):
            yield "stops", "None of its ways to reach you is there any more."
        elif named - set(known.channels):
            yield "look", "A way to reach you that it shows is not there any more."


class Talk(Part_):
    """A conversation in the page: by its script as far as that goes, and then with a person."""

    CALLED: ClassVar = "Conversation"
    ON_CARD: ClassVar = "Conversation"
    TALL: ClassVar = True
    TELLS: ClassVar = True
    VALUES: ClassVar = {
        "script": "what is said", "hint": "hint in the field", "files": "they may send pictures and PDF",
    }  # fmt: skip
    OFFERED: ClassVar = (Offered("To reach you", "Conversation", {"kind": "talk"}),)

    kind: Literal["talk"]
    script: Script = STRAIGHT
    hint: str = Field("Write to us", max_length=120)
    files: bool = False
