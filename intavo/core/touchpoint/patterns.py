"""Which pages: patterns over paths and addresses, the owner's own groups of pages,
and how they are compared.
"""

import re
from collections.abc import Mapping
from functools import lru_cache
from typing import Any, Literal, Self
from urllib.parse import unquote, urlsplit

import re2
from pydantic import Field, field_validator, model_validator

from ..addresses import begins_with_host
from ..hosts import host_of
from .base import Model

How = Literal["exact", "below", "contains", "glob", "regex", "group"]
_OPTIONS = re2.Options()
_OPTIONS.case_sensitive = False
_OPTIONS.log_errors = False
_OPTIONS.max_mem = 1 << 20


@lru_cache(maxsize=4096)
def normal_path(address: str) -> str:
    """A page's path as it is compared: decoded, case-folded, without query, fragment and last slash.

    Takes a whole address, a path, or a path without its first slash.
    """
    try:
        path = urlsplit(address if "://" in address else f"//x/{address.lstrip('/')}").path
    except ValueError:
        path = "/"
    return f"/{unquote(path).strip('/')}".casefold()


@lru_cache(maxsize=4096)
def normal_address(address: str) -> str:
    """The path with its query, compared like `normal_path`; without a query it is the path alone."""
    try:
        query = urlsplit(address if "://" in address else f"//x/{address.lstrip('/')}").query
    except ValueError:
        query = ""
    return f"{normal_path(address)}?{unquote(query).casefold()}" if query else normal_path(address)


@lru_cache(maxsize=4096)
def bare_address(url: str) -> str:
    """A whole address as it is compared: host, path and query, without scheme and fragment; "" for none."""
    host = host_of(url)
    if host is None:
        return ""
    address = normal_address(url)
    return host if address == "/" else f"{host}{address}"


@lru_cache(maxsize=2048)
def expression(text: str) -> Any:
    """A regular expression that any part of a text may match, upper and lower case alike.

    Raises ValueError for one that the engine, which never takes longer than the text is long, cannot read.
    Source: google-re2.
    """
    try:
        return re2.compile(text, _OPTIONS)
    except re2.error as error:
        said = (
            error.args[0].decode(errors="replace") if isinstance(error.args[0], bytes) else str(error.args[0])
        )
        raise ValueError(f"this regular expression cannot be read: {said}") from None


@lru_cache(maxsize=2048)
def glob(text: str) -> Any:
    """A pattern in which * stands for anything but a slash, ** for anything, and ? for one letter."""
    pieces = {"**": ".*", "*": "[^/]*", "?": "[^/]"}
    parts = re.split(r"(\*\*|\*|\?)", text.casefold())
    return expression(f"^{''.join(pieces.get(part, re.escape(part)) for part in parts)}$")


class TextPattern(Model):
    """A text to hold against another: the same, contained in it, with * and ?, or a regular expression."""

    how: Literal["exact", "contains", "glob", "regex"] = "contains"
    text: str = Field(min_length=1, max_length=500)

    @model_validator(mode="after")
    def _can_be_read(self) -> Self:
        if self.how == "regex":
            expression(self.text)
        return self

    def matches(self, text: str) -> bool:
        """Whether a text matches, upper and lower case alike."""
        if self.how == "regex":
            return expression(self.text).search(text) is not None
        if self.how == "glob":
            return glob(self.text).search(text.casefold()) is not None
        wanted, given = self.text.casefold(), text.casefold()
        return wanted == given if self.how == "exact" else wanted in given

    def say(self) -> str:
        """The pattern for people."""
        return f"“{self.text}”" if self.how in {"exact", "glob"} else f"“…{self.text}…”"


class PagePattern(Model):
    """Which pages: one exactly, one and everything below it, or those whose path matches.

    `query` holds it against path and query together. A group stands for the patterns that the owner gave that
    name.
    """

    kind: How
    path: str = Field(min_length=1, max_length=500)
    query: bool = False

    @model_validator(mode="before")
    @classmethod
    def _normalised(cls, data: Any) -> Any:
        if (
            isinstance(data, dict)
            and isinstance(data.get("path"), str)
            and data.get("kind") in ("exact", "below")
        ):
            written = _without_host(data["path"].strip())
            data = (
                {**data, "path": normal_address(written) if data.get("query") else normal_path(written)}
                if written and not any(mark.isspace() for mark in written)
                else data
            )
        return data

    @field_validator("path")
    @classmethod
    def _checked(cls, value: str, info: Any) -> str:
        kind = info.data.get("kind")
        if kind in {"exact", "below"} and any(mark.isspace() for mark in value):
            raise ValueError("a page's path has no spaces; write it like /trips")
        if kind == "regex":
            expression(value)
        return value.strip() if kind != "regex" else value

    def matches(self, path: str, address: str | None = None) -> bool:
        """Whether a path from `normal_path` (or, with `query`, an address from `normal_address`) is meant."""
        given = (address or path) if self.query else path
        if self.kind == "exact":
            return given == self.path
        if self.kind == "below":
            return given == self.path or self.path == "/" or given.startswith(f"{self.path}/")
        if self.kind == "contains":
            return self.path.casefold() in given
        if self.kind == "glob":
            return glob(self.path).search(given) is not None
        return self.kind == "regex" and expression(self.path).search(given) is not None

    def say(self) -> str:
        """The pattern as it is written for people."""
        if self.kind == "contains":
            return f"pages with “{self.path}”"
        if self.kind == "group":
            return f"the pages “{self.path}”"
        return f"{self.path} and below" if self.kind == "below" and self.path != "/" else self.path


_SCHEME = re.compile(r"^https?://", re.IGNORECASE)


def _without_host(written: str) -> str:
    """A page as it is typed, less the host that it was typed with; "otterwick.example" alone is the front
    page.
    """
    left = _SCHEME.sub("", written)
    host = begins_with_host(left)
    return (left[len(host) :] or "/") if host else written


Groups = Mapping[str, tuple[PagePattern, ...]]


def expanded(patterns: tuple[PagePattern, ...], groups: Groups) -> tuple[PagePattern, ...]:
    """The patterns with every group replaced by what it stands for; an unknown one stands for nothing."""
    if not any(one.kind == "group" for one in patterns):
        return patterns
    return tuple(
        inner
        for one in patterns
        for inner in (groups.get(one.path.casefold(), (one,)) if one.kind == "group" else (one,))
    )
