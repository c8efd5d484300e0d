"""Every class that stands in the console's pages is one that its built style sheet knows."""

import re
from collections.abc import Iterator
from pathlib import Path

import tinycss2

ROOT = Path(__file__).parents[2]
SOURCE = ROOT / "console" / "src"
BUILT = ROOT / "console" / "dist" / "assets"
# Marks for whoever is inside of them, for the keyboard or for a test; nothing of theirs is styled.
MARKS = re.compile(r"^(?:group|peer)(?:/\w+)?$")

# Texts that something is compared with are no classes.
COMPARED = re.compile(r"[!=]==?\s*'[^']*'|'[^']*'\s*[!=]==?|\[[^\]]*\]\.includes\(")


def _known(rules: list[tinycss2.ast.Node]) -> Iterator[str]:
    """The classes that selectors name, in rules within rules too."""
    for rule in rules:
        tokens = [*(getattr(rule, "prelude", None) or []), *(getattr(rule, "content", None) or [])]
        yield from _in_tokens(tokens)


def _in_tokens(tokens: list[tinycss2.ast.Node]) -> Iterator[str]:
    for before, token in zip([None, *tokens], tokens, strict=False):
        if token.type == "ident" and before is not None and before == ".":
            yield token.value
        for inner in ("content", "arguments"):
            yield from _in_tokens(getattr(token, inner, None) or [])


def _said(text: str) -> Iterator[str]:
    """The classes of a page: as they stand, and those of what is worked out, where they stand as texts."""
    for whole in re.findall(r'(?<![:\w-])class="([^"]*)"', text):
        yield from whole.split()
    for code in re.findall(r':class="([^"]*)"', text):
        for piece in re.findall(r"'([^']*)'", COMPARED.sub("", code)):
            yield from piece.split()


def test_no_class_is_undefined() -> None:
    sheets = sorted(BUILT.glob("*.css"))
    known = {one for sheet in sheets for one in _known(tinycss2.parse_stylesheet(sheet.read_text()))}
    pages = {page: page.read_text() for page in sorted(SOURCE.rglob("*.vue"))}
    undefined = {
        f"{page.relative_to(SOURCE)}: {one}"
        for page, text in pages.items()
        for one in _said(text)
        if one not in known and not MARKS.match(one)
    }
    assert len(known) > 300
    assert undefined == set()
