"""The house in order: what is said of the project in one place agrees with another."""

import ast
import re
import tomllib

from scripts.cluster import ROOT


def test_the_version_is_the_changelogs_newest() -> None:
    version = tomllib.loads((ROOT / "pyproject.toml").read_text())["project"]["version"]
    newest = re.search(r"^## (\S+)$", (ROOT / "CHANGELOG.md").read_text(), re.MULTILINE)
    assert newest is not None
    assert newest[1] == version


def test_what_is_held_fast_is_read_after_that() -> None:
    """A statement that holds a row and joins others to it shows those as they were before it waited."""
    for file in sorted((ROOT / "intavo").rglob("*.py")):
        for statement in ast.walk(ast.parse(file.read_text())):
            if isinstance(statement, ast.Assign | ast.Return | ast.Expr | ast.For):
                words = {one.attr for one in ast.walk(statement) if isinstance(one, ast.Attribute)}
                assert not {"select_for_update", "select_related"} <= words or file.name == "scope.py", (
                    f"{file.relative_to(ROOT)}:{statement.lineno} holds and joins at once: use held()"
                )


# What takes apart what strangers send, by the name it is called by, and where that may be: in the core, which says
# what it is; in a process of its own; or in a job.
TAKE_APART = {
    "read_mail",
    "read_card",
    "card_lines",
    "read_exceptions",
    "from_ical",
    "load_workbook",
    "ZipFile",
}
AND_JOBS = {
    "intavo/imports/reading.py",
    "intavo/imports/taking.py",
    "intavo/copies/reading.py",
    "intavo/copies/writing.py",
}


def test_nothing_that_a_stranger_sent_is_taken_apart_while_others_wait() -> None:
    """A function is given to `apart` by its name; whoever calls it does so on the spot."""
    for file in sorted((ROOT / "intavo").rglob("*.py")):
        name = str(file.relative_to(ROOT))
        if name.startswith("intavo/core/") or name in AND_JOBS:
            continue
        for call in ast.walk(ast.parse(file.read_text())):
            if isinstance(call, ast.Call):
                called = getattr(call.func, "id", getattr(call.func, "attr", ""))
                assert called not in TAKE_APART, f"{name}:{call.lineno}: apart({called}, seconds, …)"
