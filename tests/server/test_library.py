"""The library: what is taken in, what is refused, and how it is given out."""

import io
import struct
import time
import zlib
from pathlib import Path
from typing import Any

import pytest
from django.conf import settings
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client
from PIL import Image

from intavo.core.touchpoint import STARTERS, HouseStyle, Starter, readings
from intavo.touchpoints import pictures
from intavo.touchpoints.shipped import shipped_pixels

from .conftest import World


@pytest.fixture(autouse=True)
def _own_folder(monkeypatch: pytest.MonkeyPatch, tmp_path: Any) -> None:
    monkeypatch.setattr(settings, "MEDIA_ROOT", str(tmp_path / "uploads"))


def drawn(
    form: str = "PNG", mode: str = "RGB", size: tuple[int, int] = (1800, 900), colour: Any = "#336699"
) -> bytes:
    """A picture as a file."""
    out = io.BytesIO()
    Image.new(mode, size, colour).save(out, form)
    return out.getvalue()


def add(client: Client, data: bytes, kind: str = "picture", name: str = "boat.png") -> Any:
    """Put a file into the library."""
    return client.post("/api/library", {"file": SimpleUploadedFile(name, data), "kind": kind})


@pytest.mark.parametrize("form", ["PNG", "JPEG", "WEBP", "AVIF", "GIF"])
def test_a_picture_is_written_anew_in_a_few_widths(otterwick: World, form: str) -> None:
    asset = add(otterwick.console(), drawn(form)).json()
    sizes = {}
    for width in (200, 700, 1500, 5000):
        answer = Client().get(f"/m/{asset['public_id']}/{width}.webp")
        assert (answer.status_code, answer["Content-Type"], answer["Access-Control-Allow-Origin"]) == (
            200,
            "image/webp",
            "*",
        )
        sizes[width] = Image.open(io.BytesIO(answer.content)).width
    assert sizes == {200: 480, 700: 960, 1500: 1600, 5000: 1600}


def head_of_png(width: int, height: int) -> bytes:
    """The head of a picture that says so of itself, with hardly anything behind it."""

    def piece(name: bytes, data: bytes) -> bytes:
        return struct.pack(">I", len(data)) + name + data + struct.pack(">I", zlib.crc32(name + data))

    about = struct.pack(">IIBBBBB", width, height, 8, 2, 0, 0, 0)
    pixels = zlib.compress(b"\0" * 100_000)
    return b"\x89PNG\r\n\x1a\n" + piece(b"IHDR", about) + piece(b"IDAT", pixels) + piece(b"IEND", b"")


@pytest.mark.parametrize(("width", "height"), [(50_000, 50_000), (30_000, 10), (10, 12_001), (8_000, 5_001)])
def test_a_picture_that_is_too_large_is_refused_by_its_head(
    otterwick: World, width: int, height: int
) -> None:
    begun = time.process_time()
    answer = add(otterwick.console(), head_of_png(width, height))
    assert answer.status_code == 422
    [wrong] = answer.json()["errors"]
    assert (wrong["field"], wrong["message"][:26]) == ("file", "This picture is too large:")
    assert time.process_time() - begun < 8


@pytest.mark.parametrize("size", [(1080, 11_900), (5_000, 8_000), (1, 12_000)])
def test_tall_pictures_of_phones_are_taken(otterwick: World, size: tuple[int, int]) -> None:
    answer = add(otterwick.console(), drawn("PNG", size=size))
    assert answer.status_code == 201
    assert (answer.json()["width"], answer.json()["height"]) == size


def test_what_a_picture_does_to_its_decoder_it_does_to_that_alone(
    otterwick: World, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(pictures, "_PROGRAM", "tests.server.decoder_that_dies")
    answer = add(otterwick.console(), drawn("PNG"))
    assert (answer.status_code, answer.json()["errors"][0]["field"]) == (422, "file")
    assert list(Path(settings.MEDIA_ROOT).rglob("*.*")) == []


def test_of_a_moving_picture_the_first_is_kept(otterwick: World) -> None:
    out = io.BytesIO()
    red, blue = (Image.new("RGB", (90, 60), colour) for colour in ("#cc0000", "#0000cc"))
    red.save(out, "GIF", save_all=True, append_images=[blue])
    asset = add(otterwick.console(), out.getvalue(), name="boat.gif").json()
    kept = Image.open(io.BytesIO(Client().get(f"/m/{asset['public_id']}/480.webp").content)).convert("RGB")
    pixel = kept.getpixel((5, 5))
    assert isinstance(pixel, tuple)
    assert pixel[0] > 150 > pixel[2]


def test_what_a_camera_wrote_into_a_picture_is_gone(otterwick: World) -> None:
    out = io.BytesIO()
    exif = Image.Exif()
    exif[0x010E] = "taken at home"
    Image.new("RGB", (50, 50)).save(out, "JPEG", exif=exif)
    asset = add(otterwick.console(), out.getvalue()).json()
    assert b"taken at home" not in Client().get(f"/m/{asset['public_id']}/480.webp").content


def test_transparency_stays_and_a_boxed_picture_is_pointed_out(otterwick: World) -> None:
    client = otterwick.console()
    clear = add(client, drawn(mode="RGBA", size=(60, 60), colour=(0, 0, 0, 0))).json()
    assert Image.open(io.BytesIO(Client().get(f"/m/{clear['public_id']}/480.webp").content)).mode == "RGBA"
    boxed = Image.new("RGB", (300, 300), "white")
    boxed.paste("#aa2211", (60, 60, 240, 240))
    out = io.BytesIO()
    boxed.save(out, "PNG")
    assert (clear["boxed"], add(client, out.getvalue()).json()["boxed"]) == (False, True)


@pytest.mark.parametrize(
    ("data", "kind", "said"),
    [
        (b"<svg xmlns='http://www.w3.org/2000/svg'><script>x</script></svg>", "picture", "SVG"),
        (b"GIF89a nonsense", "picture", "not a picture"),
        (b"", "picture", "empty"),
        (b"x" * (10 * 1024 * 1024 + 1), "picture", "at most 10 MB"),
        (b"MZ\x90 program", "file", "Files to give"),
        (b"not a film", "video", "not a video"),
        (b"x", "poem", "pictures, videos and files"),
    ],
)
def test_what_is_not_what_it_should_be_is_refused_with_the_reason(
    otterwick: World, data: bytes, kind: str, said: str
) -> None:
    answer = add(otterwick.console(), data, kind, "x.exe")
    assert answer.status_code == 422
    assert said in answer.json()["errors"][0]["message"]
    assert otterwick.console().get(f"/api/library?kind={kind}").json() == [] or kind == "picture"


def test_the_same_file_twice_is_one(otterwick: World) -> None:
    client = otterwick.console()
    assert (
        add(client, drawn()).json()["public_id"] == add(client, drawn(), name="other.png").json()["public_id"]
    )


def test_one_that_is_used_cannot_be_thrown_away(otterwick: World) -> None:
    client = otterwick.console()
    asset = add(client, drawn()).json()
    draft = client.get(f"/api/touchpoints/{otterwick.touchpoint.pk}").json()
    part = {"id": "p50", "kind": "picture", "asset": asset["public_id"]}
    draft["document"]["steps"][0]["parts"].insert(0, part)
    body = {"document": draft["document"], "based_on": draft["number"]}
    saved = client.put(f"/api/touchpoints/{draft['id']}/draft", body, content_type="application/json").json()
    assert "A picture has no description" in " ".join(one["message"] for one in saved["findings"])
    refused = client.delete(f"/api/library/{asset['id']}")
    assert "used by News of Otterwick" in refused.json()["title"]
    other = add(client, drawn(colour="#112233")).json()
    assert client.delete(f"/api/library/{other['id']}").status_code == 204
    assert Client().get(f"/m/{other['public_id']}/480.webp").status_code == 404


def test_a_video_is_given_in_pieces_and_a_file_as_a_download(otterwick: World) -> None:
    client = otterwick.console()
    film = add(client, b"\x00\x00\x00\x18ftypmp42" + b"x" * 100, "video", "film.mp4").json()
    piece = Client().get(f"/m/{film['public_id']}/video", HTTP_RANGE="bytes=4-7")
    assert (piece.status_code, piece.content, piece["Content-Range"]) == (206, b"ftyp", "bytes 4-7/112")
    page = add(client, b"%PDF-1.4 tides", "file", "tides.pdf").json()
    assert Client().get(f"/m/{page['public_id']}/file").status_code == 404
    draft = client.get(f"/api/touchpoints/{otterwick.touchpoint.pk}").json()
    does = {"action": "file", "asset": page["public_id"]}
    button = {"id": "p51", "kind": "button", "label": "The tides", "does": does}
    draft["document"]["steps"][0]["parts"].insert(0, button)
    body = {"document": draft["document"], "based_on": draft["number"]}
    assert (
        client.put(f"/api/touchpoints/{draft['id']}/draft", body, content_type="application/json").status_code
        == 200
    )
    answer = Client().get(f"/m/{page['public_id']}/file")
    assert answer["Content-Disposition"] == 'attachment; filename="tides.pdf"'
    assert answer["X-Content-Type-Options"] == "nosniff"


@pytest.mark.parametrize(
    ("asked", "status", "content", "told"),
    [
        ("bytes=108-", 206, 4, "bytes 108-111/112"),
        ("bytes=-4", 206, 4, "bytes 108-111/112"),
        ("bytes=-400", 206, 112, "bytes 0-111/112"),
        ("bytes=100-5000", 206, 12, "bytes 100-111/112"),
        ("bytes=112-", 416, 0, "bytes */112"),
        ("bytes=-0", 416, 0, "bytes */112"),
        ("bytes=7-4", 200, 112, None),
        ("bytes=0-1,4-5", 200, 112, None),
        ("bytes=-", 200, 112, None),
        ("lines=1-2", 200, 112, None),
    ],
)
def test_a_piece_of_a_video_is_what_was_asked_for(
    otterwick: World, asked: str, status: int, content: int, told: str | None
) -> None:
    film = add(otterwick.console(), b"\x00\x00\x00\x18ftypmp42" + b"x" * 100, "video", "film.mp4").json()
    answer = Client().get(f"/m/{film['public_id']}/video", HTTP_RANGE=asked)
    assert (answer.status_code, len(answer.content), answer.get("Content-Range")) == (status, content, told)


def test_pictures_that_come_with_it_are_there_for_everybody(otterwick: World) -> None:
    names = [one["public_id"] for one in otterwick.console().get("/api/library").json()]
    assert "shipped-hills" in names
    assert Client().get("/m/shipped-hills/960.webp").status_code == 200
    assert Client().get("/m/shipped-../../settings/960.webp").status_code == 404


@pytest.mark.parametrize("starter", STARTERS, ids=lambda one: one.key)
def test_every_starter_can_be_read_on_its_picture_and_in_a_house_style(starter: Starter) -> None:
    document = starter.document
    pixels = {name: found for name in document.assets() if (found := shipped_pixels(name)) is not None}
    assert pixels.keys() == document.assets()
    brown = HouseStyle.model_validate(
        {"colours": {"headline": "#3b2a1a", "text": "#3b2a1a", "card": "#fffaf0"}}
    )
    for house in (None, brown):
        read = [one for phone in (False, True) for one in readings(document, pixels, house, phone)]
        assert [(one.what, one.ratio) for one in read if not one.passes] == []
