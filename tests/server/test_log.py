"""What stands in the log, and what does not."""

import logging
from typing import Any

import pytest
from django.db import IntegrityError, OperationalError
from django.test import Client

from intavo.project.log import formatter

from .conftest import World

TYPED = "ife@post.example"


def line(said: str = "It failed", error: Exception | None = None) -> str:
    """The line of a record, of an error that was raised here."""
    info: Any = None
    if error is not None:
        try:
            raise ValueError(TYPED) from error
        except ValueError as raised:
            info = (type(raised), raised, raised.__traceback__)
    return formatter().format(logging.LogRecord("intavo", logging.ERROR, __file__, 1, said, (), info))


def test_an_exception_leaves_its_way_and_never_what_somebody_typed() -> None:
    written = line(error=IntegrityError(f"Key (key)=({TYPED}) already exists."))
    assert "in line" in written
    assert "builtins.ValueError" in written
    assert "django.db.utils.IntegrityError" in written
    assert TYPED not in written
    assert "\n" not in written


def test_what_is_said_about_machines_stays() -> None:
    assert "connection refused" in line(error=OperationalError("connection refused"))


def test_secrets_in_addresses_are_left_out() -> None:
    assert "Not Found: /c/…" in line("Not Found: /c/9fJ3kd93kdl")
    assert "/in/mail/…" in line("Method Not Allowed (GET): /in/mail/0a1b2c")


def test_every_request_has_an_id_which_its_lines_have(
    otterwick: World, caplog: pytest.LogCaptureFixture, monkeypatch: pytest.MonkeyPatch
) -> None:
    lines: list[str] = []

    class Kept(logging.Handler):
        def emit(self, record: logging.LogRecord) -> None:
            lines.append(formatter().format(record))

    handler = Kept()
    logging.getLogger("django.request").addHandler(handler)
    try:
        answer = Client().get("/c/nothing", headers={"X-Request-ID": "abcdef0123456789"})
        assert answer["X-Request-ID"] == "abcdef0123456789"
        assert Client().get("/healthz", headers={"X-Request-ID": "no\tid"})["X-Request-ID"] not in {
            "",
            "no\tid",
        }
    finally:
        logging.getLogger("django.request").removeHandler(handler)
    assert "request='abcdef0123456789' event='Not Found: /c/…'" in lines[0]
