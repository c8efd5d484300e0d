"""The stand-ins and the demo business's site, as a browser meets them."""

import json
import smtplib
import threading
import urllib.request
from collections.abc import Iterator
from email.message import EmailMessage
from http.server import ThreadingHTTPServer
from pathlib import Path
from urllib.error import HTTPError

import pytest
from aiosmtpd.controller import Controller

from demo import serve
from demo.business import DEMO, SITE_KEY
from scripts.ports import claim_port
from standins.mail import Box, Taker, handler

PAGES = (
    "/", "/trips", "/trips/sunrise", "/trips/after-dark", "/lessons", "/hire", "/groups", "/blog",
    "/blog/reading-a-tide-table", "/blog/what-to-wear-in-march", "/contact",
)  # fmt: skip


@pytest.fixture
def box(tmp_path: Path) -> Box:
    return Box(tmp_path)


@pytest.fixture
def web(box: Box) -> Iterator[str]:
    server = ThreadingHTTPServer(("127.0.0.1", 0), handler(box))
    threading.Thread(target=server.serve_forever, daemon=True).start()
    yield f"http://127.0.0.1:{server.server_port}"
    server.shutdown()
    server.server_close()


def letter(subject: str, text: str) -> EmailMessage:
    """A mail."""
    message = EmailMessage()
    message["From"], message["To"], message["Subject"] = "a@x.example", "b@x.example", subject
    message.set_content(text)
    return message


def read(url: str) -> str:
    """What an address answers."""
    with urllib.request.urlopen(url) as answer:
        return answer.read().decode()


def test_a_mail_sent_by_smtp_can_be_read(box: Box, web: str) -> None:
    port = claim_port(18425)
    smtp = Controller(Taker(box), hostname="127.0.0.1", port=port)
    smtp.start()
    try:
        with smtplib.SMTP("127.0.0.1", port) as client:
            client.send_message(letter("Hello", "See http://x.example/a?b=1&c=2"))
    finally:
        smtp.stop()
    [mail] = json.loads(read(f"{web}/mails.json"))
    assert (mail["to"], mail["subject"], mail["text"].strip()) == (
        "b@x.example",
        "Hello",
        "See http://x.example/a?b=1&c=2",
    )
    assert '<a href="http://x.example/a?b=1&amp;c=2">' in read(f"{web}/mails/{mail['name']}")


def test_the_newest_mail_comes_first_and_words_cannot_become_markup(box: Box, web: str) -> None:
    box.keep(letter("First", "x").as_bytes())
    box.keep(letter("<script>alert(1)</script>", "<img onerror=x>").as_bytes())
    page = read(web)
    assert page.index("&lt;script&gt;") < page.index("First")
    assert "<script>alert" not in page
    assert "<img" not in read(f"{web}/mails/000002")


def test_however_many_there_are_the_list_goes_on_a_hundred_at_a_time(
    box: Box, web: str, tmp_path: Path
) -> None:
    for at in range(250):
        box.keep(letter(f"Number {at}", "x").as_bytes())
    pages = [read(f"{web}/{more}") for more in ("", "?before=000151", "?before=000051", "?before=none")]
    assert [page.count("<a href='/mails/") for page in pages] == [100, 100, 50, 100]
    assert "href='/?before=000151'" in pages[0]
    assert "Older mail" not in pages[2]
    assert [mail["subject"] for mail in json.loads(read(f"{web}/mails.json"))][::249] == [
        "Number 249",
        "Number 0",
    ]
    again = Box(tmp_path)
    again.keep(letter("After a start", "x").as_bytes())
    assert again.names()[0] == "000251"


def test_what_is_attached_can_be_read(box: Box, web: str) -> None:
    mail = letter("Yesterday", "in the file")
    mail.add_attachment("name,email\r\nIfe,ife@x.example\r\n", subtype="csv", filename="tide table.csv")
    box.keep(mail.as_bytes())
    page = read(f"{web}/mails/000001")
    assert "href='/mails/000001/tide%20table.csv'" in page
    assert "ife@x.example" in read(f"{web}/mails/000001/tide%20table.csv")
    assert json.loads(read(f"{web}/mails.json"))[0]["files"] == ["tide table.csv"]
    with pytest.raises(HTTPError, match="404"):
        read(f"{web}/mails/000001/other.csv")


def test_what_is_not_there_is_404_and_forgetting_empties_it(box: Box, web: str) -> None:
    box.keep(letter("x", "y").as_bytes())
    for name in ("999999", "..%2F..%2Fetc%2Fpasswd"):
        with pytest.raises(HTTPError, match="404"):
            read(f"{web}/mails/{name}")
    urllib.request.urlopen(urllib.request.Request(f"{web}/forget", method="POST"))
    assert json.loads(read(f"{web}/mails.json")) == []


@pytest.mark.parametrize("path", PAGES)
def test_every_page_of_the_demo_site_carries_the_one_line(path: str) -> None:
    html = (serve.page(path, "http://127.0.0.1:8400", DEMO) or b"").decode()
    assert html.count(f'<script async src="http://127.0.0.1:8400/e/{SITE_KEY}.js"></script>') == 1
    assert "<h1>" in html
    assert "$" not in html


@pytest.mark.parametrize("path", ["/nowhere", "/../business", "/_layout/..", "/..%2f"])
def test_a_path_that_is_no_page_gives_none(path: str) -> None:
    assert serve.page(path, "x", DEMO) is None
