"""Whether texts can be read on what is behind them, and how much of a phone is covered.

Colours are #rrggbb; pixels are rows of (red, green, blue). Source of contrast: WCAG 2.2, relative
luminance and contrast ratio.
"""

import colorsys
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

Pixel = tuple[int, int, int]
Pixels = Sequence[Sequence[Pixel]]

TEXT, LARGE, SIGN = 4.5, 3.0, 3.0
# The worst of a picture is a few odd pixels; what most of a letter stands on is what counts.
WORST_SHARE = 0.1


def rgb(colour: str) -> Pixel:
    """The three parts of a colour, 0 to 255; ValueError for what is none."""
    if len(colour) != 7 or colour[0] != "#":
        raise ValueError(f"“{colour}” is not a colour like #0e4f57")
    return int(colour[1:3], 16), int(colour[3:5], 16), int(colour[5:7], 16)


def hex_of(pixel: Pixel) -> str:
    """A colour as it is written."""
    return f"#{pixel[0]:02x}{pixel[1]:02x}{pixel[2]:02x}"


def luminance(pixel: Pixel) -> float:
    """Relative luminance from 0 (black) to 1 (white)."""
    red, green, blue = (
        part / 255 / 12.92 if part / 255 <= 0.04045 else ((part / 255 + 0.055) / 1.055) ** 2.4
        for part in pixel
    )
    return 0.2126 * red + 0.7152 * green + 0.0722 * blue


def contrast(pixel: Pixel, other: Pixel) -> float:
    """The contrast ratio of two colours, 1 to 21."""
    light, dark = sorted((luminance(pixel), luminance(other)), reverse=True)
    return (light + 0.05) / (dark + 0.05)


def mixed(below: Pixel, above: Pixel, strength: float) -> Pixel:
    """What is seen of a colour under another one of a strength from 0 to 1."""
    red, green, blue = (round(b * (1 - strength) + a * strength) for b, a in zip(below, above, strict=True))
    return red, green, blue


def brightened(pixel: Pixel, percent: int) -> Pixel:
    """A pixel made brighter or darker as CSS `brightness()` does; 0 leaves it."""
    red, green, blue = (min(255, round(part * (1 + percent / 100))) for part in pixel)
    return red, green, blue


def worst_contrast(text: Pixel, behind: Iterable[Pixel]) -> float:
    """The contrast that a text has on nearly all of the pixels behind it: the tenth-worst of a hundred."""
    return _worst(luminance(text), [luminance(pixel) for pixel in behind])


def _worst(text: float, behind: Sequence[float]) -> float:
    if not behind:
        raise ValueError("there is nothing behind the text")
    ratios = sorted((max(text, other) + 0.05) / (min(text, other) + 0.05) for other in behind)
    return ratios[int(len(ratios) * WORST_SHARE)]


def nearest_passing(text: str, behind: Sequence[Pixel], needed: float) -> str | None:
    """The shade nearest to a colour, of the same hue, that passes on what is behind; None if none does.

    Lightness is moved in steps of a hundredth, both ways; hue and saturation stay.
    """
    hue, light, full = colorsys.rgb_to_hls(*(part / 255 for part in rgb(text)))
    lights = [luminance(pixel) for pixel in behind]
    for step in range(101):
        for tried in (light - step / 100, light + step / 100):
            red, green, blue = (
                round(part * 255) for part in colorsys.hls_to_rgb(hue, min(1, max(0, tried)), full)
            )
            if _worst(luminance((red, green, blue)), lights) >= needed:
                return hex_of((red, green, blue))
    return None


def cropped(pixels: Pixels, aspect: float, focus_x: int, focus_y: int) -> list[Pixel]:
    """The pixels of a picture that a box of an aspect (width by height) shows, as CSS `object-fit: cover`
    does.

    The focus is in percent of the picture. A picture without pixels is a ValueError.
    """
    rows, columns = len(pixels), len(pixels[0]) if pixels else 0
    if not rows or not columns:
        raise ValueError("the picture has no pixels")
    wide = max(1, min(columns, round(rows * aspect)))
    tall = max(1, min(rows, round(columns / aspect)))
    left = round((columns - wide) * focus_x / 100)
    top = round((rows - tall) * focus_y / 100)
    return [pixel for row in pixels[top : top + tall] for pixel in row[left : left + wide]]


@dataclass(frozen=True, slots=True)
class Reading:
    """How one text reads: its part, what it is, its colour, the ratio and the one that is needed.

    `role` is the colour to change; `better` the nearest shade of it that passes (None if it passes, or none
    does). Where it stands on one plain colour, `behind_role` is that colour and `behind_better` its shade.
    """

    part: str
    what: str
    role: str
    colour: str
    ratio: float
    needed: float
    better: str | None
    behind_role: str | None = None
    behind_better: str | None = None

    @property
    def passes(self) -> bool:
        """Whether it can be read."""
        return self.ratio >= self.needed


def reading(
    part: str,
    what: str,
    role: str,
    colour: str,
    behind: Sequence[Pixel],
    needed: float,
    on: str | None = None,
) -> Reading:
    """How a text in a colour reads on what is behind it; `on` is the role of that, where it is one plain
    colour.
    """
    # Said as it is shown, to a tenth, but never rounded up over the line.
    ratio = int(worst_contrast(rgb(colour), behind) * 100) / 100
    better = None if ratio >= needed else nearest_passing(colour, behind, needed)
    if better is None or on is None or len(behind) != 1:
        return Reading(part, what, role, colour, ratio, needed, better)
    other = nearest_passing(_hex(behind[0]), [rgb(colour)], needed)
    return Reading(part, what, role, colour, ratio, needed, better, on, other)


def _hex(pixel: Pixel) -> str:
    return "#" + "".join(f"{channel:02x}" for channel in pixel)


def covered(width: float, height: float, screen_width: float = 375, screen_height: float = 667) -> float:
    """The share of a screen, 0 to 1, that a box of CSS pixels covers; ValueError for a screen of nothing."""
    if screen_width <= 0 or screen_height <= 0:
        raise ValueError("a screen has some width and height")
    seen = max(0.0, min(width, screen_width)) * max(0.0, min(height, screen_height))
    return seen / (screen_width * screen_height)


def boxed_in(pixels: Pixels) -> bool:
    """Whether a picture carries a background of its own: opaque, with one even colour all around its edge."""
    if len(pixels) < 3 or len(pixels[0]) < 3:
        return False
    edge = [*pixels[0], *pixels[-1], *(row[0] for row in pixels), *(row[-1] for row in pixels)]
    first = edge[0]
    even = all(max(abs(a - b) for a, b in zip(pixel, first, strict=True)) <= 6 for pixel in edge)
    inner = [pixel for row in pixels[1:-1] for pixel in row[1:-1]]
    differs = any(max(abs(a - b) for a, b in zip(pixel, first, strict=True)) > 40 for pixel in inner)
    return even and differs
