"""The pictures that come with Intavo, for starters: drawn for it, and free for every business to use."""

from functools import lru_cache
from pathlib import Path

from PIL import Image

from intavo.core.legibility import Pixels

FOLDER = Path(__file__).parent / "shipped"
PREFIX = "shipped-"


def shipped_names() -> list[str]:
    """The ids of all of them."""
    return sorted(f"{PREFIX}{path.stem}" for path in FOLDER.glob("*.webp"))


def shipped_path(public_id: str) -> Path | None:
    """Where one lies; None if there is no such."""
    if public_id not in shipped_names():
        return None
    return FOLDER / f"{public_id.removeprefix(PREFIX)}.webp"


@lru_cache(maxsize=64)
def shipped_pixels(public_id: str) -> Pixels | None:
    """Its pixels on a small grid."""
    path = shipped_path(public_id) if public_id.startswith(PREFIX) else None
    if path is None:
        return None
    with Image.open(path) as picture:
        small = picture.convert("RGB").resize((24, 16), Image.Resampling.BOX)
    raw = small.tobytes()
    cells = [(raw[at], raw[at + 1], raw[at + 2]) for at in range(0, len(raw), 3)]
    return [cells[row * 24 : (row + 1) * 24] for row in range(16)]
