"""Every text of a step held against what is really behind it: colour, gradient, or the picture's pixels."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass

from ..legibility import SIGN, TEXT, Pixel, Pixels, Reading, brightened, cropped, mixed, reading, rgb
from .base import AssetId
from .document import Document, Step
from .look import Background, FullValues, HouseStyle, resolved
from .parts import Part, Picture, TextOn

_GRADIENT_STEPS = 12
_EVERYTHING: tuple[Pixel, ...] = ((0, 0, 0), (255, 255, 255))
_CARD_ASPECT = {"pop-up": 1.2, "card": 0.9, "bar": 10.0, "side-panel": 0.6, "full-page": 1.6, "in-page": 2.0}


@dataclass(frozen=True, slots=True)
class Behind:
    """What a step's texts stand on: the pixels, and what it is called."""

    pixels: list[Pixel]
    name: str

    @property
    def role(self) -> str | None:
        """The role of the colour that it is, if it is one."""
        return "card" if self.name == "card" else None


def readings(
    document: Document,
    pictures: Mapping[AssetId, Pixels],
    house: HouseStyle | None = None,
    phone: bool = False,
) -> list[Reading]:
    """How every text that a visitor sees reads, the worst first.
    `pictures` holds the pixels that are known.
    """
    look = resolved(document.look, document.stance, house)
    values: FullValues = look.phone if phone else look
    aspect = 0.7 if phone else _CARD_ASPECT.get(document.stance, 1.0)
    found: list[Reading] = []
    for step in document.steps:
        behind = _behind(step, values, pictures, aspect)
        found += [one for part in step.parts if not part.hidden for one in _part(part, values, behind)]
    found += _cross(document, values, pictures, aspect)
    kept = {(one.part, one.what): one for one in reversed(found)}
    return sorted(kept.values(), key=lambda one: (one.ratio / one.needed, one.part))


def _behind(step: Step, values: FullValues, pictures: Mapping[AssetId, Pixels], aspect: float) -> Behind:
    """What the texts of a step stand on; where the card is see-through, over the darkest and the lightest
    page.
    """
    solid = _painted(step, values, pictures, aspect)
    if not values.card_clear:
        return solid
    over = rgb(values.colours.backdrop), values.backdrop.strength / 100
    pages = [mixed(page, *over) for page in _EVERYTHING]
    card = 1 - values.card_clear / 100
    return Behind(
        [mixed(page, pixel, card) for pixel in solid.pixels for page in pages], f"see-through {solid.name}"
    )


def _painted(step: Step, values: FullValues, pictures: Mapping[AssetId, Pixels], aspect: float) -> Behind:
    picture = next((part for part in step.parts if _lies_behind(part)), None)
    card = rgb(values.colours.card)
    if isinstance(picture, Picture) and picture.asset in pictures:
        shown = Background(
            kind="picture",
            asset=picture.asset,
            focus_x=picture.focus_x,
            focus_y=picture.focus_y,
            bright=picture.bright,
            wash=picture.wash,
            wash_colour=picture.wash_colour,
        )
        return Behind(_pixels(shown, pictures, aspect, card), "picture")
    return Behind(_pixels(values.background, pictures, aspect, card), _called(values.background, pictures))


def _lies_behind(part: Part) -> bool:
    return isinstance(part, Picture) and part.place == "behind" and not part.hidden


def _called(background: Background, pictures: Mapping[AssetId, Pixels]) -> str:
    if background.kind == "picture" and background.asset in pictures:
        return "picture"
    if background.kind == "video" and background.asset is not None:
        return "video"
    return "gradient" if background.kind == "gradient" else "card"


def _pixels(
    background: Background, pictures: Mapping[AssetId, Pixels], aspect: float, card: Pixel
) -> list[Pixel]:
    if background.kind == "gradient":
        start, end = rgb(background.start), rgb(background.end)
        return [mixed(start, end, step / _GRADIENT_STEPS) for step in range(_GRADIENT_STEPS + 1)]
    if background.kind == "picture" and background.asset is not None and background.asset in pictures:
        wash = rgb(background.wash_colour)
        shown = cropped(pictures[background.asset], aspect, background.focus_x, background.focus_y)
        return [mixed(brightened(pixel, background.bright), wash, background.wash / 100) for pixel in shown]
    if background.kind == "video" and background.asset is not None:
        # What a film comes to show is not known: only what can be read on its darkest and its lightest is
        # sure.
        wash = rgb(background.wash_colour)
        return [
            mixed(brightened(pixel, background.bright), wash, background.wash / 100) for pixel in _EVERYTHING
        ]
    return [card]


def _part(part: Part, values: FullValues, behind: Behind) -> Iterator[Reading]:
    for text in part.texts(values):
        if text.on == "button":
            yield _main_button(part.id, text, values, behind)
        elif text.on == "field":
            yield reading(
                part.id, text.what, text.role, text.colour, [rgb(values.colours.field)], text.needed, "field"
            )
        else:
            what = text.what.replace("{on}", behind.name)
            yield reading(part.id, what, text.role, text.colour, behind.pixels, text.needed, behind.role)


def _main_button(part: str, text: TextOn, values: FullValues, behind: Behind) -> Reading:
    """Where the button is see-through, its words are held against it as it stands on what is behind."""
    colours = values.colours
    if not values.button_clear:
        return reading(part, text.what, "button", colours.button, [rgb(text.colour)], text.needed, text.role)
    fill, strength = rgb(colours.button), 1 - values.button_clear / 100
    seen = [mixed(pixel, fill, strength) for pixel in behind.pixels]
    return reading(part, f"See-through {text.what.lower()}", text.role, text.colour, seen, text.needed)


def _cross(
    document: Document, values: FullValues, pictures: Mapping[AssetId, Pixels], aspect: float
) -> Iterator[Reading]:
    if document.leaving.cross is None or document.stance in {"in-page", "button"}:
        return
    behind = _behind(document.steps[0], values, pictures, aspect)
    needed = SIGN if values.cross.style == "sign" else TEXT
    yield reading(
        "leaving",
        f"Close sign on {behind.name}",
        "cross",
        values.colours.cross,
        behind.pixels,
        needed,
        behind.role,
    )
