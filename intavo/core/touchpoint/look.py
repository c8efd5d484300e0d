"""How a touchpoint looks: values that may be left open, and what they come to.

A value that is not given follows the site's house style, where that says something, and else what suits
the stance; on a phone, what is given for phones, then what suits the stance there, then the desktop's.
"""

from typing import Any, Literal

from pydantic import Field, field_validator

from .base import HOUSE_LOGO, AssetId, Colour, Model
from .css import checked_css

Stance = Literal["pop-up", "card", "bar", "side-panel", "full-page", "in-page", "button"]
INTERRUPTING: frozenset[Stance] = frozenset({"pop-up", "card", "side-panel", "full-page"})


Queue = Literal["interrupting", "bar", "none"]


def queue_of(stance: Stance) -> Queue:
    """Which queue a stance waits in; "none" never waits."""
    return "interrupting" if stance in INTERRUPTING else "bar" if stance == "bar" else "none"


Place = Literal[
    "middle", "top", "bottom", "left", "right", "top-left", "top-right", "bottom-left", "bottom-right"
]
PLACES: dict[Stance, tuple[Place, ...]] = {
    "pop-up": (
        "middle",
        "top",
        "bottom",
        "left",
        "right",
        "top-left",
        "top-right",
        "bottom-left",
        "bottom-right",
    ),
    "card": ("bottom-right", "bottom-left", "top-right", "top-left", "left", "right", "top", "bottom"),
    "bar": ("top", "bottom"),
    "side-panel": ("right", "left"),
    "full-page": ("middle",),
    "in-page": ("middle",),
    "button": ("bottom-right", "bottom-left", "top-right", "top-left", "left", "right", "bottom", "top"),
}


class Font(Model):
    """A typeface: one of the system's, one that is shipped, or the site's own by name."""

    source: Literal["system", "shipped", "site"] = "system"
    name: str = Field("sans", min_length=1, max_length=200, pattern=r"^[\w .,'-]+$")


class Colours(Model):
    """Colours by role; what is left open follows."""

    card: Colour | None = None
    text: Colour | None = None
    headline: Colour | None = None
    button: Colour | None = None
    button_text: Colour | None = None
    button_hover: Colour | None = None
    field: Colour | None = None
    field_text: Colour | None = None
    field_border: Colour | None = None
    border: Colour | None = None
    backdrop: Colour | None = None
    cross: Colour | None = None


class Background(Model):
    """What the card is painted with: its colour, a gradient, a picture or a video."""

    kind: Literal["colour", "gradient", "picture", "video"] = "colour"
    start: Colour = "#ffffff"
    end: Colour = "#d9e9ea"
    angle: int = Field(160, ge=0, le=360)
    asset: AssetId | None = None
    focus_x: int = Field(50, ge=0, le=100)
    focus_y: int = Field(50, ge=0, le=100)
    bright: int = Field(0, ge=-80, le=80)
    wash: int = Field(0, ge=0, le=95)
    wash_colour: Colour = "#000000"


class Backdrop(Model):
    """What lies over the page behind: a strength in percent, and perhaps a picture or a video."""

    strength: int = Field(50, ge=0, le=95)
    asset: AssetId | None = None


class Cross(Model):
    """The close sign: a cross or a word, its size in CSS pixels, and the corner of the card it stands in."""

    style: Literal["sign", "word"] = "sign"
    word: str = Field("Close", min_length=1, max_length=40)
    size: int = Field(36, ge=24, le=64)
    place: Literal["end", "start"] = "end"


Motion = Literal["none", "rise", "slide", "fade", "grow"]


class LookValues(Model):
    """Every value of a look; None follows. Lengths are CSS pixels; `…_clear` is how much shines through, in
    percent.

    `edge` is the distance from every edge; for a button it is that from the side, and `edge_y` from top or
    foot.
    """

    place: Place | None = None
    edge: int | None = Field(None, ge=0, le=200)
    edge_y: int | None = Field(None, ge=0, le=400)
    width: int | None = Field(None, ge=200, le=1600)
    height: Literal["content", "screen"] | int | None = None
    content: Literal["top", "middle", "bottom"] | None = None
    spacing: int | None = Field(None, ge=4, le=80)
    corners: int | None = Field(None, ge=0, le=60)
    border: int | None = Field(None, ge=0, le=20)
    shadow: Literal["none", "soft", "strong"] | None = None
    background: Background | None = None
    backdrop: Backdrop | None = None
    arrival: Motion | None = None
    going: Motion | None = None
    font: Font | None = None
    head_font: Font | None = None
    size: int | None = Field(None, ge=12, le=24)
    head_size: int | None = Field(None, ge=14, le=72)
    weight: int | None = Field(None, ge=300, le=800)
    head_weight: int | None = Field(None, ge=300, le=900)
    button_font: Font | None = None
    button_size: int | None = Field(None, ge=12, le=28)
    card_clear: int | None = Field(None, ge=0, le=90)
    button_clear: int | None = Field(None, ge=0, le=90)
    colours: Colours = Colours()
    cross: Cross | None = None
    pushes: bool | None = None
    stays: bool | None = None

    @field_validator("height")
    @classmethod
    def _some_height(cls, value: str | int | None) -> str | int | None:
        if isinstance(value, int) and not 80 <= value <= 2000:
            raise ValueError("a set height is 80 to 2000 pixels")
        return value


class Look(LookValues):
    """The look of a touchpoint. `house`: what is left open follows the site's house style."""

    house: bool = True
    phone: LookValues = LookValues()
    css: str = Field("", max_length=20_000)

    @field_validator("css")
    @classmethod
    def _checked(cls, value: str) -> str:
        return checked_css(value)


class HouseStyle(Model):
    """A site's fonts, colours, corners and logo."""

    font: Font | None = None
    head_font: Font | None = None
    corners: int | None = Field(None, ge=0, le=60)
    colours: Colours = Colours()
    logo: AssetId | None = None

    @field_validator("logo")
    @classmethod
    def _a_picture(cls, value: AssetId | None) -> AssetId | None:
        return None if value == HOUSE_LOGO else value

    def values(self) -> LookValues:
        """What it says of a look."""
        return LookValues(
            font=self.font, head_font=self.head_font, corners=self.corners, colours=self.colours
        )


class FullColours(Model):
    """Colours by role, all of them known."""

    card: Colour
    text: Colour
    headline: Colour
    button: Colour
    button_text: Colour
    button_hover: Colour
    field: Colour
    field_text: Colour
    field_border: Colour
    border: Colour
    backdrop: Colour
    cross: Colour


class FullValues(Model):
    """A look with every value known."""

    place: Place
    edge: int
    edge_y: int
    width: int
    height: Literal["content", "screen"] | int
    content: Literal["top", "middle", "bottom"]
    spacing: int
    corners: int
    border: int
    shadow: Literal["none", "soft", "strong"]
    background: Background
    backdrop: Backdrop
    arrival: Motion
    going: Motion
    font: Font
    head_font: Font
    size: int
    head_size: int
    weight: int
    head_weight: int
    button_font: Font
    button_size: int
    card_clear: int
    button_clear: int
    colours: FullColours
    cross: Cross
    pushes: bool
    stays: bool


class FullLook(FullValues):
    """What a visitor's browser draws with: on a desktop and on a phone."""

    phone: FullValues
    css: str = ""


_COLOURS: dict[str, str] = {
    "card": "#ffffff", "text": "#1a2326", "button": "#0e4f57", "button_text": "#ffffff", "field": "#ffffff",
    "field_text": "#1a2326", "field_border": "#6b777a", "border": "#d3dad9", "backdrop": "#0a1214",
}  # fmt: skip
_BASE: dict[str, Any] = {
    "place": "middle", "edge": 16, "edge_y": None, "width": 480, "height": "content", "content": "top",
    "spacing": 28, "corners": 14, "border": 0,
    "shadow": "strong", "background": Background(), "backdrop": Backdrop(), "arrival": "rise",
    "going": "fade", "font": Font(), "head_font": None, "size": 16, "head_size": 24, "weight": 400,
    "head_weight": 700, "button_font": None, "button_size": None, "card_clear": 0, "button_clear": 0,
    "cross": Cross(), "pushes": True, "stays": True,
}  # fmt: skip
_STANCES: dict[Stance, dict[str, Any]] = {
    "pop-up": {},
    "card": {"place": "bottom-right", "width": 360, "spacing": 20, "head_size": 20, "shadow": "soft",
             "backdrop": Backdrop(strength=0)},
    "bar": {"place": "top", "width": 1100, "spacing": 10, "edge": 0, "corners": 0, "head_size": 17,
            "size": 15, "shadow": "soft", "arrival": "slide", "backdrop": Backdrop(strength=0)},
    "side-panel": {"place": "right", "width": 420, "edge": 0, "corners": 0, "height": "screen",
                   "arrival": "slide"},
    "full-page": {"width": 720, "edge": 0, "corners": 0, "height": "screen", "content": "middle",
                  "head_size": 36, "arrival": "fade"},
    "in-page": {"width": 640, "edge": 0, "shadow": "none", "border": 1, "arrival": "none",
                "backdrop": Backdrop(strength=0)},
    "button": {"place": "bottom-right", "width": 340, "spacing": 18, "head_size": 19, "shadow": "soft",
               "arrival": "none", "backdrop": Backdrop(strength=0)},
}  # fmt: skip
_PHONES: dict[Stance, dict[str, Any]] = {
    "pop-up": {"place": "bottom", "edge": 8, "spacing": 18, "head_size": 21},
    "card": {"place": "bottom", "edge": 8, "spacing": 16},
    "bar": {"spacing": 8, "head_size": 16},
    "side-panel": {"spacing": 20, "head_size": 22},
    "full-page": {"spacing": 22, "head_size": 26},
    "in-page": {"spacing": 18, "head_size": 21},
    "button": {"edge": 12, "spacing": 16},
}


def resolved(look: Look, stance: Stance, house: HouseStyle | None = None) -> FullLook:
    """A look with every value known; `house` is the site's style, taken only if the look follows it."""
    styled = _given(house.values()) if house is not None and look.house else {}
    colours = _over(_some(house.colours) if house is not None and look.house else {}, _some(look.colours))
    desktop = _BASE | _STANCES[stance] | styled | _given(look)
    phone_colours = _over(colours, _some(look.phone.colours))
    phone = desktop | _PHONES[stance] | _given(look.phone)
    if "place" in _given(look) and stance != "pop-up" and stance != "card":
        # Only where it covers the phone's whole width does another place suit it better there.
        phone["place"] = look.phone.place or look.place
    full = {**_followed(desktop, stance), "colours": _full_colours(colours)}
    return FullLook.model_validate(
        full
        | {"phone": {**_followed(phone, stance), "colours": _full_colours(phone_colours)}, "css": look.css}
    )


def _given(values: LookValues) -> dict[str, Any]:
    names = set(LookValues.model_fields) - {"colours"}
    return {name: value for name in names if (value := getattr(values, name)) is not None}


def _some(colours: Colours) -> dict[str, str]:
    return {name: value for name, value in colours.model_dump().items() if value is not None}


# A colour that follows another: where that one departs, what was followed so far says nothing of this one.
_FOLLOWS = {"headline": "text", "cross": "text", "button_hover": "button"}


def _over(followed: dict[str, str], own: dict[str, str]) -> dict[str, str]:
    return {name: value for name, value in followed.items() if _FOLLOWS.get(name) not in own} | own


def _full_colours(given: dict[str, str]) -> FullColours:
    known = _COLOURS | given
    return FullColours.model_validate({name: known[other] for name, other in _FOLLOWS.items()} | known)


def _followed(values: dict[str, Any], stance: Stance) -> dict[str, Any]:
    """What follows another value where it says nothing;
    a place that the stance cannot take is its usual one.
    """
    place = values["place"] if values["place"] in PLACES[stance] else PLACES[stance][0]
    follows = {"head_font": "font", "button_font": "font", "button_size": "size", "edge_y": "edge"}
    missing = {name: values[other] for name, other in follows.items() if values[name] is None}
    return values | missing | {"place": place}


def departures(look: Look, house: HouseStyle) -> list[str]:
    """Where a look that follows its house style says something else, by the names of the values."""
    styled, own = house.values(), _given(look)
    values = [name for name in _given(styled) if name in own and own[name] != getattr(styled, name)]
    theirs, ours = _some(styled.colours), _some(look.colours)
    return sorted(values) + sorted(
        f"colours.{name}" for name in theirs if ours.get(name, theirs[name]) != theirs[name]
    )
