"""What goes over the wire, as the running server sends it."""

import gzip
import re
from urllib.parse import urlsplit
from urllib.request import Request, urlopen

import brotli
import httpx
import pytest

from demo.business import OWNER
from scripts.cluster import ROOT
from scripts.stack import Stack
from tests.signing import cookies_of

pytestmark = pytest.mark.xdist_group("the stack")

# As the budgets have it, compressed.
LOADER = 12 * 1024


def sent(address: str, takes: str) -> tuple[bytes, str, str]:
    """The bytes that come for an address, how they are packed, and what the answer depends on."""
    with urlopen(Request(address, headers={"Accept-Encoding": takes}), timeout=20) as answer:
        return answer.read(), answer.headers.get("Content-Encoding", ""), answer.headers.get("Vary", "")


@pytest.mark.parametrize(
    ("takes", "how"), [("gzip, deflate, br, zstd", "br"), ("gzip", "gzip"), ("identity", ""), ("", "")]
)
def test_scripts_are_sent_as_the_asker_takes_them(stack: Stack, takes: str, how: str) -> None:
    site = urlsplit(stack.site_url)
    asked = Request(f"http://127.0.0.1:{site.port}/contact", headers={"Host": site.netloc})
    page = urlopen(asked, timeout=20).read().decode()
    loader = re.search(r'src="([^"]+/e/[^/"]+\.js)"', page)
    assert loader
    unpack = {"br": brotli.decompress, "gzip": gzip.decompress, "": bytes}[how]
    plain = sent(loader[1], "identity")[0]
    for address in (loader[1], f"{stack.base_url}/static/touch/more.js"):
        body, packed, vary = sent(address, takes)
        assert (packed, "Accept-Encoding" in vary) == (how, True), address
        whole = unpack(body)
        assert whole == plain or address != loader[1]
        assert len(body) < len(whole) or not how
    if how:
        assert len(sent(loader[1], takes)[0]) <= LOADER


def test_what_members_are_told_is_packed_and_kept_by_nobody(stack: Stack) -> None:
    cookies = {one["name"]: one["value"] for one in cookies_of(stack, OWNER)}
    with httpx.Client(base_url=stack.base_url, cookies=cookies, timeout=60) as client:
        for path, packs in (
            ("/api/follow-ups", True), ("/api/people", True), ("/api/mail-in", False), ("/api/me", False),
        ):  # fmt: skip
            answer = client.get(path, headers={"Accept-Encoding": "gzip"})
            assert answer.headers["cache-control"] == "private, no-store", path
            assert (answer.headers.get("content-encoding") == "gzip") is packs, path
        signed = client.get("/_allauth/browser/v1/auth/session")
        assert "no-store" in signed.headers["cache-control"]


def test_nothing_on_the_console_is_fetched_from_elsewhere() -> None:
    built = (ROOT / "console" / "dist").rglob("*")
    text = "".join(path.read_text(errors="ignore") for path in built if path.suffix in {".html", ".css"})
    assert text
    assert not re.findall(r"""url\(["']?https?:|src=["']https?:""", text)
