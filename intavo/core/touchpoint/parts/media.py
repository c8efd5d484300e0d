"""Pictures and videos."""

from collections.abc import Iterator
from typing import Any, ClassVar, Literal

from pydantic import Field

from ..after import After
from ..base import HOUSE_LOGO, AssetId, Colour
from ..finding import Known
from .part import Lacks, Offered, Part_

_LOGO: dict[str, Any] = {
    "kind": "picture", "asset": HOUSE_LOGO, "description": "Our logo", "focus_x": 0, "height": 48,
    "whole": True,
}  # fmt: skip


class _Media(Part_):
    """What is shown, and its description, which is read out to those who do not see it."""

    asset: AssetId | None = None
    description: str = Field("", max_length=500)

    def assets(self) -> Iterator[AssetId]:
        if self.asset is not None:
            yield self.asset

    def lacks(self, known: Known, after: After) -> Iterator[Lacks]:
        name = self.CALLED.lower()
        if self.asset is None:
            yield "look", f"No {name} is chosen."
        elif not self.description.strip():
            yield "look", f"A {name} has no description for those who do not see it."
        if self.asset == HOUSE_LOGO and not known.has_logo:
            yield "look", "The logo is asked for, but the site's house style has none."
        if self.asset in known.missing:
            yield "look", "A picture is not in your library."
        elif self.asset in known.boxed:
            yield "look", "A picture is boxed in a background of its own."


class Picture(_Media):
    """A picture: focus point in percent, brightness -80..80, a wash of colour over it in percent.

    `description` is read out to those who do not see it; empty says nothing at all. `follows` makes a
    click on it do what the step's first button does. `whole` shows all of it where its box is set, instead
    of filling the box. The asset `house-logo` is the site's logo; where there is none, nothing stands there.
    """

    CALLED: ClassVar = "Picture"
    VALUES: ClassVar = {
        "asset": "what is shown", "description": "description", "place": "where it stands",
        "focus_x": "focus across", "focus_y": "focus down", "bright": "brightness", "wash": "shaded",
        "wash_colour": "shaded with", "height": "height", "whole": "shown whole",
        "follows": "a click on it does what the button does",
    }  # fmt: skip
    OFFERED: ClassVar = (
        Offered("Words and pictures", "Picture", {"kind": "picture"}),
        Offered("Words and pictures", "Logo", _LOGO),
    )

    kind: Literal["picture"]
    place: Literal["inline", "above", "beside", "behind"] = "inline"
    focus_x: int = Field(50, ge=0, le=100)
    focus_y: int = Field(50, ge=0, le=100)
    bright: int = Field(0, ge=-80, le=80)
    wash: int = Field(0, ge=0, le=95)
    wash_colour: Colour = "#000000"
    height: int | None = Field(None, ge=24, le=1200)
    whole: bool = False
    follows: bool = False


class Video(_Media):
    """A video, muted until it is clicked."""

    CALLED: ClassVar = "Video"
    TALL: ClassVar = True
    VALUES: ClassVar = {
        "asset": "what is shown", "poster": "picture before it plays", "description": "description",
    }  # fmt: skip
    OFFERED: ClassVar = (Offered("Words and pictures", "Video", {"kind": "video"}),)

    kind: Literal["video"]
    poster: AssetId | None = None

    def assets(self) -> Iterator[AssetId]:
        yield from super().assets()
        if self.poster is not None:
            yield self.poster
