"""How the code is written, where a machine can tell."""

import ast
from collections.abc import Iterator
from pathlib import Path

import intavo

ROOT = Path(intavo.__file__).parent
# What says nothing of what it holds.
EMPTY = {"found", "told", "one", "made"}


def empty_names(tree: ast.AST) -> Iterator[tuple[int, str]]:
    """Parameters and results without a telling name, with their lines."""
    for node in ast.walk(tree):
        if isinstance(node, ast.FunctionDef):
            arguments = [*node.args.posonlyargs, *node.args.args, *node.args.kwonlyargs]
            yield from ((each.lineno, each.arg) for each in arguments if each.arg in EMPTY)
        if isinstance(node, ast.Return) and isinstance(node.value, ast.Name) and node.value.id in EMPTY:
            yield node.lineno, node.value.id


def test_parameters_and_results_say_what_they_hold() -> None:
    paths = [path for path in ROOT.rglob("*.py") if "migrations" not in path.parts]
    assert len(paths) > 300
    wrong = [
        f"{path.relative_to(ROOT)}:{line} {name}"
        for path in paths
        for line, name in empty_names(ast.parse(path.read_text()))
    ]
    assert wrong == []


def test_the_look_at_names_sees_them() -> None:
    seen = empty_names(ast.parse("def f(one: int, *, told: int) -> int:\n    found = 1\n    return found"))
    assert sorted(name for _, name in seen) == ["found", "one", "told"]
