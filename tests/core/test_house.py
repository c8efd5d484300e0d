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


def _by_id_alone(function: ast.AST) -> list[ast.Call]:
    """Where rows are looked for among all businesses' by ids that were read out of something written down."""
    bound = {
        target.id: one.value
        for one in ast.walk(function)
        if isinstance(one, ast.Assign)
        for target in one.targets
        if isinstance(target, ast.Name)
    }

    def written(value: ast.expr) -> bool:
        inner = bound.get(value.id, value) if isinstance(value, ast.Name) else value
        return any(
            (isinstance(one, ast.Subscript) and not isinstance(one.slice, ast.Slice))
            or (isinstance(one, ast.Call) and getattr(one.func, "attr", "") == "get")
            for one in ast.walk(inner)
        )

    looks = []
    for call in ast.walk(function):
        if not isinstance(call, ast.Call) or getattr(call.func, "attr", "") not in {
            "get",
            "filter",
            "exclude",
        }:
            continue
        chain = [one for one in ast.walk(call.func) if isinstance(one, ast.Attribute)]
        everybodys = any(one.attr in {"objects", "_default_manager"} for one in chain)
        by = [one for one in call.keywords if one.arg in {"pk", "id", "pk__in", "id__in"}]
        others = len(call.keywords) > len(by) or any(
            one.keywords for one in ast.walk(call.func) if isinstance(one, ast.Call)
        )
        if everybodys and not others and any(written(one.value) for one in by):
            looks.append(call)
    return looks


def test_an_id_that_was_written_down_finds_nothing_of_another_business() -> None:
    """What a copy brings in may name any id: beside it stands whose row it has to be."""
    for file in sorted((ROOT / "intavo").rglob("*.py")):
        if "migrations" in file.parts:
            continue
        for function in ast.walk(ast.parse(file.read_text())):
            if isinstance(function, ast.FunctionDef):
                for call in _by_id_alone(function):
                    raise AssertionError(f"{file.relative_to(ROOT)}:{call.lineno}: and of which business?")


def test_that_look_is_seen() -> None:
    alone = "def one():\n    ids = [pk for row in rows for pk in row.added['ids']]\n    A.objects.filter(pk__in=ids)"
    assert _by_id_alone(ast.parse(alone))
    assert not _by_id_alone(ast.parse(alone.replace("(pk__in", "(business_id=1, pk__in")))
