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
