"""The catalogues of our words for visitors, in intavo/locale: brought up to the code, checked, and compiled.

`python -m scripts.words` takes new words in and old ones out, `--check` says if that is due, `--compile`
makes what the application reads. English is the key; what is translated is written into the .po files by
hand.
"""

import ast
import re
import sys
from collections.abc import Iterator
from io import BytesIO
from pathlib import Path

from babel import Locale
from babel.messages.catalog import Catalog
from babel.messages.mofile import write_mo
from babel.messages.pofile import read_po, write_po

from intavo.core.tongues import LOCALES, SPOKEN
from intavo.core.touchpoint import STARTERS, offered
from intavo.core.touchpoint.starters.spoken import read_words

from .cluster import ROOT

CODE = ROOT / "intavo"
_MARKED = {"Phrase", "say"}
# Who, when and with what: the same words are to make the same file.
_OF_THE_MOMENT = re.compile(
    rb'"(POT-Creation-Date|PO-Revision-Date|Generated-By|Project-Id|Report-Msgid|Last-Tr|Language-T)'
)
_IN_A_PAGE = re.compile(r'\{% say "([^"]+)"')


def words() -> dict[str, list[str]]:
    """Every word of ours that a visitor can be told, with the files that it stands in."""
    found: dict[str, list[str]] = {}
    for path in sorted(CODE.rglob("*.py")):
        for key in _in_code(path):
            found.setdefault(key, []).append(str(path.relative_to(ROOT)))
    for path in sorted(CODE.rglob("*.html")):
        for key in _IN_A_PAGE.findall(path.read_text()):
            found.setdefault(key, []).append(str(path.relative_to(ROOT)))
    for key in read_words(one.data for one in STARTERS):
        found.setdefault(key, []).append("intavo/core/touchpoint/starters")
    for key in read_words(one for kinds in offered().values() for one in kinds.values()):
        found.setdefault(key, []).append("intavo/core/touchpoint/parts")
    return found


def _in_code(path: Path) -> Iterator[str]:
    for node in ast.walk(ast.parse(path.read_text())):
        if not isinstance(node, ast.Call) or not node.args:
            continue
        name = node.func.id if isinstance(node.func, ast.Name) else getattr(node.func, "attr", "")
        first = node.args[0]
        if (
            name in _MARKED
            and isinstance(first, ast.Constant)
            and isinstance(first.value, str)
            and first.value
        ):
            yield first.value


def path_of(language: str) -> Path:
    """The catalogue of a language."""
    return LOCALES / language / "LC_MESSAGES" / "intavo.po"


def _empty(language: str) -> Catalog:
    name = Locale(language).english_name
    about = f"# What Intavo says to visitors, in {name}. Made up to the code by scripts/words.py."
    return Catalog(language, header_comment=about, charset="utf-8", fuzzy=False)


def catalogue(language: str) -> Catalog:
    """What is translated so far; empty where there is nothing yet."""
    path = path_of(language)
    if not path.exists():
        return _empty(language)
    with path.open("rb") as file:
        return read_po(file, language)


def brought_up(language: str) -> bytes:
    """The catalogue with every word of the code and no other, in order, as it is written."""
    before, after = catalogue(language), _empty(language)
    for key, places in sorted(words().items()):
        known = before.get(key)
        after.add(key, known.string if known else "", [(place, 0) for place in dict.fromkeys(places)])
    out = BytesIO()
    write_po(out, after, width=0, omit_header=False, include_lineno=False)
    return b"\n".join(line for line in out.getvalue().split(b"\n") if not _OF_THE_MOMENT.match(line))


def compile_all() -> None:
    """Make what the application reads of every catalogue."""
    for language in SPOKEN:
        if language == "en":
            continue
        with path_of(language).with_suffix(".mo").open("wb") as out:
            write_mo(out, catalogue(language))


def main(asked: list[str]) -> int:
    """Do what is asked; 1 where a catalogue is stale."""
    if "--compile" in asked:
        compile_all()
        return 0
    stale = []
    for language in (one for one in SPOKEN if one != "en"):
        path, text = path_of(language), brought_up(language)
        if path.exists() and path.read_bytes() == text:
            continue
        stale.append(language)
        if "--check" not in asked:
            path.parent.mkdir(parents=True, exist_ok=True)
            path.write_bytes(text)
    if "--check" in asked and stale:
        print(f"Catalogues are stale ({', '.join(stale)}): run python -m scripts.words")
        return 1
    return 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
