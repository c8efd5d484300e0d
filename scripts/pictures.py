"""Draws the pictures that come with Intavo for starters, from nothing but shapes: `python -m
scripts.pictures`.
"""

import math
from collections.abc import Callable, Sequence
from pathlib import Path

from PIL import Image, ImageColor, ImageDraw

from intavo.touchpoints.shipped import FOLDER

WIDTH, HEIGHT, FINE = 960, 640, 2
Points = Sequence[tuple[float, float]]


class Board:
    """A drawing twice as large as it will be, so that edges come out smooth; lengths are those of the
    picture.
    """

    def __init__(self, top: str, foot: str) -> None:
        self.picture = Image.new("RGB", (WIDTH * FINE, HEIGHT * FINE))
        self.draw = ImageDraw.Draw(self.picture)
        above, below = ImageColor.getrgb(top), ImageColor.getrgb(foot)
        for row in range(HEIGHT * FINE):
            share = row / (HEIGHT * FINE)
            colour = tuple(round(a + (b - a) * share) for a, b in zip(above, below, strict=True))
            self.draw.line([(0, row), (WIDTH * FINE, row)], fill=colour)

    def shape(self, points: Points, fill: str) -> None:
        """A filled shape."""
        self.draw.polygon([(x * FINE, y * FINE) for x, y in points], fill=fill)

    def box(self, left: float, top: float, right: float, foot: float, fill: str, round_: float = 0) -> None:
        """A filled box, perhaps with round corners."""
        self.draw.rounded_rectangle(
            [left * FINE, top * FINE, right * FINE, foot * FINE], round_ * FINE, fill=fill
        )

    def disc(self, x: float, y: float, radius: float, fill: str) -> None:
        """A filled disc."""
        self.draw.ellipse(
            [(x - radius) * FINE, (y - radius) * FINE, (x + radius) * FINE, (y + radius) * FINE], fill=fill
        )

    def line(self, points: Points, fill: str, width: float) -> None:
        """A line."""
        self.draw.line(
            [(x * FINE, y * FINE) for x, y in points], fill=fill, width=round(width * FINE), joint="curve"
        )

    def ridge(self, base: float, swing: float, length: float, shift: float, fill: str) -> None:
        """A wavy ridge from edge to edge, filled down to the foot."""
        line = [
            (x, base + swing * math.sin(x / length + shift) + swing * 0.4 * math.sin(x / length * 2.3))
            for x in range(0, WIDTH + 9, 8)
        ]
        self.shape([(0, HEIGHT), *line, (WIDTH, HEIGHT)], fill)

    def save(self, path: Path) -> None:
        """Written small."""
        self.picture.resize((WIDTH, HEIGHT), Image.Resampling.LANCZOS).save(
            path, "WEBP", quality=80, method=6
        )


def hills() -> Board:
    """Hills in the morning."""
    board = Board("#f4d8b0", "#dfe7dc")
    board.disc(700, 190, 62, "#fff4d8")
    for base, swing, length, shift, fill in (
        (330, 46, 170, 0.2, "#b9cbc4"), (400, 52, 140, 1.4, "#8aa9a4"),
        (470, 48, 190, 2.2, "#5b8583"), (545, 40, 150, 3.6, "#2f5f63"),
    ):  # fmt: skip
        board.ridge(base, swing, length, shift, fill)
    return board


def pages() -> Board:
    """Printed pages, fanned out."""
    board = Board("#dfe9ea", "#c3d6d8")
    for turn, fill in ((-0.26, "#f3efe4"), (-0.04, "#faf7ef"), (0.18, "#ffffff")):

        def at(x: float, y: float, turn: float = turn) -> tuple[float, float]:
            return 480 + x * math.cos(turn) - y * math.sin(turn), 640 + x * math.sin(turn) + y * math.cos(
                turn
            )

        board.shape([at(-150, -520), at(150, -520), at(150, -90), at(-150, -90)], fill)
        for row in range(8):
            board.line([at(-115, -450 + row * 42), at(115 - (row % 3) * 50, -450 + row * 42)], "#9fb2b3", 7)
        board.line([at(-115, -488), at(-20, -488)], "#c8793b", 16)
    return board


def ribbon() -> Board:
    """A parcel with a ribbon."""
    board = Board("#f6e3da", "#eed0c2")
    board.box(270, 250, 690, 560, "#c9543a", 10)
    board.box(250, 200, 710, 280, "#b5452d", 10)
    board.box(445, 200, 515, 560, "#f8d98c")
    board.shape([(480, 205), (330, 95), (300, 190)], "#f8d98c")
    board.shape([(480, 205), (630, 95), (660, 190)], "#f8d98c")
    board.disc(480, 200, 30, "#e5b94f")
    return board


def chairs() -> Board:
    """A half circle of chairs."""
    board = Board("#f1ece2", "#d9cdb8")
    board.ridge(430, 4, 300, 0, "#c3ad8c")
    for number in range(7):
        x, y = 120 + number * 120, 400 + 70 * math.sin(math.pi * number / 6)
        fill = ("#3d6b70", "#a5532f", "#7a8b4d")[number % 3]
        board.box(x - 36, y - 110, x + 36, y - 20, fill, 12)
        board.box(x - 42, y - 22, x + 42, y + 4, fill, 8)
        for side in (-34, 26):
            board.box(x + side, y, x + side + 8, y + 74, "#4a3b2a")
    return board


def table() -> Board:
    """A long table laid for many."""
    board = Board("#e9efe6", "#cfdcc9")
    board.shape([(120, 330), (840, 330), (960, 560), (0, 560)], "#b07a4a")
    board.shape([(0, 560), (960, 560), (960, 600), (0, 600)], "#8f5f36")
    for number in range(5):
        for y, size in ((375, 26), (500, 38)):
            x = 480 + (number - 2) * (150 if y < 400 else 190)
            board.disc(x, y, size, "#ffffff")
            board.disc(x, y, size * 0.62, "#dfe6e0")
    for x in (330, 480, 630):
        board.box(x - 9, 390, x + 9, 450, "#4d7a55", 6)
        board.disc(x, 384, 24, "#d8697a")
    return board


def market() -> Board:
    """A stall under a striped roof."""
    board = Board("#cfe5ec", "#eef4ee")
    board.box(170, 330, 790, 580, "#a8794d")
    board.box(200, 250, 220, 580, "#6f4d30")
    board.box(740, 250, 760, 580, "#6f4d30")
    for number in range(9):
        left = 140 + number * 76
        fill = "#c8472f" if number % 2 == 0 else "#fdf3e3"
        board.shape(
            [
                (left, 250),
                (left + 76, 250),
                (left + 66 + (number - 4) * 4, 130),
                (left + 10 + (number - 4) * 4, 130),
            ],
            fill,
        )
        board.disc(left + 38, 250, 38, fill)
    for number, fill in enumerate(("#e2a33b", "#c84f3c", "#6f9a4e", "#e2a33b", "#8a5aa0", "#c84f3c")):
        for offset in (0, 34, 68):
            board.disc(220 + number * 90 + offset * 0.7, 420 + (offset % 60) * 0.5, 22, fill)
    board.box(170, 450, 790, 580, "#8a6240")
    return board


def path() -> Board:
    """A path that leads back over a hill."""
    board = Board("#f3dcc4", "#f0e9d4")
    board.disc(220, 170, 54, "#fff3d6")
    board.ridge(360, 30, 210, 1.0, "#a9bd9a")
    board.ridge(430, 26, 260, 2.6, "#7f9f74")
    board.shape(
        [(560, 405), (585, 405), (640, 470), (560, 540), (700, 640), (380, 640), (470, 540), (590, 465)],
        "#f1e3c4",
    )
    for x, y, size in ((150, 430, 60), (230, 450, 46), (800, 420, 70)):
        board.box(x - 6, y, x + 6, y + size, "#5b4630")
        board.disc(x, y - size * 0.3, size * 0.75, "#4f7551")
    return board


def door() -> Board:
    """A shop door with a sign in it."""
    board = Board("#dcd3c4", "#c9bda8")
    board.box(300, 90, 660, 640, "#244c52", 8)
    board.box(340, 130, 620, 430, "#bfdde0", 6)
    board.shape([(340, 430), (340, 250), (480, 130), (560, 130)], "#d5eaec")
    board.line([(480, 130), (420, 240)], "#5b4630", 4)
    board.line([(480, 130), (540, 240)], "#5b4630", 4)
    board.box(400, 240, 560, 320, "#fff7e6", 8)
    board.disc(480, 280, 22, "#4d7a3c")
    board.disc(620, 480, 14, "#e4b95a")
    board.box(90, 330, 220, 640, "#9a6a3f", 10)
    board.disc(155, 300, 90, "#5d8a5a")
    return board


def signpost() -> Board:
    """A signpost with two arms."""
    board = Board("#cfe3ea", "#e9efe2")
    board.ridge(500, 20, 240, 0.5, "#9fb98c")
    board.box(468, 120, 492, 610, "#6b4f34", 4)
    board.shape([(300, 170), (700, 170), (770, 215), (700, 260), (300, 260)], "#fdf6e6")
    board.shape([(660, 300), (260, 300), (190, 345), (260, 390), (660, 390)], "#d9793f")
    board.line([(350, 215), (640, 215)], "#7b6a50", 8)
    board.line([(310, 345), (600, 345)], "#fdf6e6", 8)
    return board


def flags() -> Board:
    """A line of small flags."""
    board = Board("#bfdbe8", "#f0f3e6")
    colours = ("#c8472f", "#e9b44c", "#3f7d78", "#7a5a96", "#d97b93")
    for base in (170, 360):
        droop = [(x, base + 70 * math.sin(math.pi * x / WIDTH)) for x in range(0, WIDTH + 1, 16)]
        board.line(droop, "#5b5a52", 4)
        for number, (x, y) in enumerate(droop[1:-1:5]):
            board.shape([(x - 34, y), (x + 34, y), (x, y + 96)], colours[(number + base) % 5])
    return board


DRAWN: tuple[Callable[[], Board], ...] = (
    hills,
    pages,
    ribbon,
    chairs,
    table,
    market,
    path,
    door,
    signpost,
    flags,
)

if __name__ == "__main__":
    FOLDER.mkdir(exist_ok=True)
    for one in DRAWN:
        one().save(FOLDER / f"{one.__name__}.webp")
