"""A program of its own that decodes one picture and writes it anew, in little memory and little time.

`python -m intavo.touchpoints.decoding <picture> <folder> <box> <width>…` says as JSON what it is, and leaves
`<width>.webp` in the folder for each width; where it is none that is taken, {"wrong": words}; where it could
not be written, {"errno": number}. Whatever a picture does to its decoder, it does to this process alone.
"""

import json
import resource
import sys
from pathlib import Path

from PIL import Image, ImageOps, UnidentifiedImageError

from intavo.core.legibility import Pixel, boxed_in, hex_of

FORMATS = ("JPEG", "PNG", "WEBP", "AVIF", "GIF")
MOST_PIXELS, MOST_A_SIDE = 40_000_000, 12_000
MEMORY_BYTES, SECONDS = 1_000 * 1024 * 1024, 20
SAMPLE = 24
OTHERWISE = "This is not a picture that can be read: JPEG, PNG, WebP, AVIF or GIF."


class Wrong(Exception):
    """It is not taken; the words say why."""


def opened(path: Path) -> Image.Image:
    """A picture of one of the kinds that are taken, judged by its head alone: nothing is decoded yet."""
    try:
        picture = Image.open(path, formats=FORMATS)
    except Image.DecompressionBombError:
        raise Wrong(TOO_MANY) from None
    except (UnidentifiedImageError, OSError, SyntaxError, ValueError):
        raise Wrong(OTHERWISE) from None
    if max(picture.size) > MOST_A_SIDE or picture.width * picture.height > MOST_PIXELS:
        raise Wrong(TOO_MANY)
    return picture


TOO_MANY = "This picture is too large: at most 40 million pixels, and 12,000 on a side."


def decoded(picture: Image.Image, widest: int) -> Image.Image:
    """Its pixels, the right way up, of moving ones the first;
    no finer than is wanted for a picture so wide.
    """
    if picture.format == "JPEG":
        shorter = min(picture.size)
        picture.draft("RGB", (widest * picture.width // shorter, widest * picture.height // shorter))
    try:
        ImageOps.exif_transpose(picture, in_place=True)
        mode = "RGBA" if picture.has_transparency_data else "RGB"
        turned = picture if picture.mode == mode else picture.convert(mode)
        # Of what is far finer than is wanted, pixels are taken together first.
        coarser = turned.width // (2 * widest)
        return turned.reduce(coarser) if coarser > 1 else turned
    except (OSError, SyntaxError, ValueError, EOFError):
        raise Wrong(OTHERWISE) from None


def sampled(picture: Image.Image) -> list[list[Pixel]]:
    """A picture's pixels on a small grid; where it can be seen through, on white."""
    flat = picture
    if picture.mode == "RGBA":
        flat = Image.new("RGB", picture.size, "white")
        flat.paste(picture, mask=picture.getchannel("A"))
    wide = SAMPLE if flat.width >= flat.height else max(3, round(SAMPLE * flat.width / flat.height))
    tall = SAMPLE if flat.height >= flat.width else max(3, round(SAMPLE * flat.height / flat.width))
    small = flat.convert("RGB").resize((wide, tall), Image.Resampling.BOX)
    raw = small.tobytes()
    cells: list[Pixel] = [(raw[at], raw[at + 1], raw[at + 2]) for at in range(0, len(raw), 3)]
    return [cells[row * wide : (row + 1) * wide] for row in range(tall)]


def written(path: Path, folder: Path, widths: list[int], tallest: int) -> dict[str, object]:
    """Decode it and write it in each width that it has, at most so tall where that is not 0."""
    found = opened(path)
    longer = max(found.size)
    picture = decoded(found, max(widths))
    # What a JPEG was read less finely is still as large as it said.
    size = [round(side * longer / max(picture.size)) for side in picture.size]
    sizes = sorted({min(width, picture.width) for width in widths})
    for width in sizes:
        tall = picture.height * width / picture.width
        within = min(1.0, tallest / tall) if tallest else 1.0
        fitting = (max(1, round(width * within)), max(1, round(tall * within)))
        sized = picture.resize(fitting, Image.Resampling.LANCZOS)
        # Written anew, so that nothing but the pixels of what was uploaded stays.
        sized.save(folder / f"{width}.webp", "WEBP", quality=82, method=4)
    pixels = sampled(picture)
    return {
        "width": size[0], "height": size[1], "widths": sizes,
        "sample": [[hex_of(pixel) for pixel in line] for line in pixels],
        "boxed": picture.mode == "RGB" and boxed_in(pixels),
    }  # fmt: skip


def main() -> None:
    """Do it, within limits."""
    resource.setrlimit(resource.RLIMIT_AS, (MEMORY_BYTES, MEMORY_BYTES))
    resource.setrlimit(resource.RLIMIT_CPU, (SECONDS, SECONDS + 1))
    path, folder, tallest, *widths = sys.argv[1:]
    try:
        told = written(Path(path), Path(folder), [int(one) for one in widths], int(tallest))
    except Wrong as error:
        told = {"wrong": str(error)}
    except MemoryError:
        told = {"wrong": TOO_MANY}
    except OSError as error:
        told = {"errno": error.errno} if error.errno else {"wrong": OTHERWISE}
    print(json.dumps(told))


if __name__ == "__main__":
    main()
