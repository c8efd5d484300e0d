"""The demo business's own pictures and its tide table, drawn when the data is loaded."""

import io
import math

from PIL import Image, ImageDraw, ImageFont

WIDTH, HEIGHT = 1200, 900


def _png(picture: Image.Image) -> bytes:
    out = io.BytesIO()
    picture.save(out, "PNG")
    return out.getvalue()


def estuary() -> bytes:
    """The estuary on a still morning, two kayaks on it (PNG)."""
    picture = Image.new("RGB", (WIDTH, HEIGHT))
    draw = ImageDraw.Draw(picture)
    for row in range(HEIGHT):
        share = row / HEIGHT
        draw.line(
            [(0, row), (WIDTH, row)],
            fill=(round(188 - 60 * share), round(223 - 50 * share), round(227 - 20 * share)),
        )
    draw.ellipse([860, 120, 1000, 260], fill="#f3c64a")
    for base, swing, length, fill in (
        (380, 50, 190, "#8a9440"),
        (450, 34, 150, "#6d7a2a"),
        (540, 14, 120, "#2f7f8d"),
        (640, 16, 170, "#256a77"),
    ):
        line = [(x, base + swing * math.sin(x / length + base)) for x in range(0, WIDTH + 9, 8)]
        draw.polygon([(0, HEIGHT), *line, (WIDTH, HEIGHT)], fill=fill)
    for x, y, colour in ((330, 690, "#c3492b"), (680, 760, "#e9b44c")):
        draw.polygon([(x, y), (x + 220, y), (x + 180, y + 34), (x + 40, y + 34)], fill=colour)
        draw.line([(x + 60, y - 70), (x + 150, y + 40)], fill="#3b2a1a", width=8)
        draw.ellipse([x + 88, y - 62, x + 122, y - 28], fill="#3b2a1a")
        draw.polygon([(x + 84, y), (x + 126, y), (x + 118, y - 30), (x + 92, y - 30)], fill="#f7ead2")
    for x, y, length in ((80, 600, 140), (560, 620, 200), (900, 700, 160), (240, 820, 180)):
        draw.line([(x, y), (x + length, y)], fill="#9fd0d3", width=5)
    return _png(picture)


def logo() -> bytes:
    """Two paddles, crossed, on clear ground (PNG)."""
    picture = Image.new("RGBA", (360, 240), (0, 0, 0, 0))
    draw = ImageDraw.Draw(picture)
    for left, right, colour in ((40, 320, "#a83a1f"), (320, 40, "#3b2a1a")):
        draw.line([(left, 200), (right, 40)], fill=colour, width=12)
        for x, y in ((left, 200), (right, 40)):
            draw.ellipse([x - 34, y - 26, x + 34, y + 26], fill=colour)
    return _png(picture)


def night() -> bytes:
    """The water after dark (PNG)."""
    picture = Image.new("RGB", (WIDTH, HEIGHT))
    draw = ImageDraw.Draw(picture)
    for row in range(HEIGHT):
        share = row / HEIGHT
        draw.line(
            [(0, row), (WIDTH, row)],
            fill=(round(18 + 24 * share), round(28 + 40 * share), round(58 + 50 * share)),
        )
    for number in range(90):
        x, y = (number * 197) % WIDTH, (number * 89) % 420
        draw.ellipse([x, y, x + 1 + number % 3, y + 1 + number % 3], fill="#e8ecf4")
    draw.ellipse([820, 90, 920, 190], fill="#f4e9c8")
    line = [(x, 470 + 30 * math.sin(x / 160)) for x in range(0, WIDTH + 9, 8)]
    draw.polygon([(0, HEIGHT), *line, (WIDTH, HEIGHT)], fill="#10202b")
    draw.polygon([(0, HEIGHT), (0, 600), (WIDTH, 600), (WIDTH, HEIGHT)], fill="#16384a")
    for y in range(620, 880, 26):
        half = 26 + (y - 620) // 4
        draw.line([(870 - half, y), (870 + half, y)], fill="#c9bd92", width=4)
    return _png(picture)


def tide_table(month: str) -> bytes:
    """The month's safe hours on one page (PDF)."""
    page = Image.new("RGB", (1240, 1754), "white")
    draw = ImageDraw.Draw(page)
    large, small = ImageFont.load_default(52), ImageFont.load_default(28)
    draw.text((90, 90), "Otterwick estuary", "#3b2a1a", large)
    draw.text((90, 160), f"Safe paddling hours, {month}", "#a83a1f", small)
    for day in range(1, 32):
        minutes = (day * 49 + 380) % 720 + 300
        until = minutes + 170
        draw.text((90, 210 + day * 46), f"{day:>2}", "#3b2a1a", small)
        draw.text(
            (200, 210 + day * 46),
            f"{minutes // 60:02d}:{minutes % 60:02d} to {until // 60:02d}:{until % 60:02d}",
            "#3b2a1a",
            small,
        )
        draw.line([(90, 248 + day * 46), (1150, 248 + day * 46)], fill="#e2d9c6")
    out = io.BytesIO()
    page.save(out, "PDF", resolution=150)
    return out.getvalue()
