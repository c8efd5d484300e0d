"""How the code is written, where a machine can tell."""

import ast
import json
import re
from collections.abc import Iterator
from pathlib import Path

import intavo

ROOT = Path(intavo.__file__).parent
TESTS = Path(__file__).parent.parent
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


def silent_forms(text: str) -> Iterator[str]:
    """Forms of a component whose refusals stand nowhere on the screen, by their names."""
    for form in re.finditer(r"const (\{[^}]*\}|\w+) = use(?:Form|Guarded)\(\)", text):
        said = form[1]
        pairs = re.findall(r"(\w+)(?:: (\w+))?", said)
        name = (
            f"{said}.error"
            if said[0] != "{"
            else next((new or old for old, new in pairs if old == "error"), "")
        )
        if not name or not re.search(rf"\b{re.escape(name)}\b", text[text.index("<template>") :]):
            yield said


def test_no_form_is_refused_without_a_word() -> None:
    wrong = {
        path.name: silent
        for path in (ROOT.parent / "console/src").rglob("*.vue")
        if (silent := list(silent_forms(path.read_text())))
    }
    assert wrong == {}


def test_the_look_at_forms_sees_them() -> None:
    head = "const { error, run } = useForm()\nconst other = useForm()\nconst { run: go } = useForm()\n"
    shown = "<template>{{ error }} {{ other.error.value }}</template>"
    assert list(silent_forms(head + shown)) == ["{ run: go }"]
    assert list(silent_forms(head + "<template></template>")) == ["{ error, run }", "other", "{ run: go }"]


# What an entry of a timeline holds is said by its kind; how far a conversation is, is its player's own.
OF_NO_TYPE = {
    "CardEventOut.data",
    "EventOut.data",
    "TalkTurnIn.state",
    "TalkTurnIn.said",
    "TalkTurnOut.state",
}


def of_no_type(schema: object) -> bool:
    """Whether a schema says no more of something than that it is an object."""
    if isinstance(schema, list):
        return any(of_no_type(one) for one in schema)
    if not isinstance(schema, dict):
        return False
    bare = schema.get("type") == "object" and schema.get("additionalProperties") is True
    return (bare and "properties" not in schema) or any(of_no_type(one) for one in schema.values())


def test_the_api_says_what_documents_hold() -> None:
    schemas = json.loads((ROOT.parent / "docs/openapi.json").read_text())["components"]["schemas"]
    fields = {
        f"{name}.{field}": schema
        for name, whole in schemas.items()
        for field, schema in whole.get("properties", {}).items()
    }
    assert {place for place, schema in fields.items() if of_no_type(schema)} == OF_NO_TYPE
    assert fields["ChannelIn.document"]["$ref"] == "#/components/schemas/Channel"


def laid_out_by_hand(text: str) -> Iterator[int]:
    """Lines of calls and definitions that the formatter is kept from; tables of values may stand as they are."""
    lines = text.split("\n")
    for node in ast.walk(ast.parse(text)):
        if not isinstance(node, ast.stmt):
            continue
        if isinstance(node, ast.FunctionDef | ast.ClassDef):
            held = range(node.lineno, node.body[0].lineno)
        elif isinstance(
            getattr(node, "value", None), ast.Dict | ast.List | ast.Tuple | ast.Set | ast.DictComp | ast.BinOp
        ):
            continue
        else:
            held = range(node.end_lineno or node.lineno, (node.end_lineno or node.lineno) + 1)
        yield from (line for line in held if "# fmt: skip" in lines[line - 1])


def test_the_formatter_lays_out_calls_and_definitions() -> None:
    paths = [path for path in ROOT.rglob("*.py") if "migrations" not in path.parts]
    wrong = [
        f"{path.relative_to(ROOT)}:{line}" for path in paths for line in laid_out_by_hand(path.read_text())
    ]
    assert wrong == []


def test_the_look_at_layouts_sees_them() -> None:
    call, definition, table = (
        "f(\n  1,\n)  # fmt: skip",
        "def f(\n  a,\n):  # fmt: skip\n    pass",
        "A = {\n  1: 2,\n}  # fmt: skip",
    )
    assert [list(laid_out_by_hand(text)) for text in (call, definition, table)] == [[3], [3], []]


# Where tests may wait for a while, each with its reason; there are never more than five.
MAY_WAIT = {
    "tests/waiting.py": "the one loop that looks again and again",
    "tests/browser/test_vectors.py": "lets the browser go on while its clock is held",
    "tests/bench/run.py": "measures what a machine does by itself",
}


def test_no_test_waits_for_a_fixed_time() -> None:
    waits = re.compile(r"wait_for_timeout\(|time\.sleep\(|from time import sleep")
    paths = [
        path for path in TESTS.rglob("*.py") if path != Path(__file__) and "node_modules" not in path.parts
    ]
    found = {
        f"tests/{path.relative_to(TESTS).as_posix()}" for path in paths if waits.search(path.read_text())
    }
    assert found <= set(MAY_WAIT)
    assert len(MAY_WAIT) <= 5


def test_no_test_module_imports_another() -> None:
    imports = re.compile(r"^from (?:\.|tests\.\w+\.)(test_\w+) import", re.MULTILINE)
    found = {path.name: imports.findall(path.read_text()) for path in (TESTS / "browser").rglob("*.py")}
    assert {name: modules for name, modules in found.items() if modules} == {}


_TABLE = re.compile(r"\{((?:\s*(?:'[^'\n]+'|[\w-]+): (?:'[^'\n]*'|\"[^\"\n]*\"),?)+)\s*\}")
_ENTRY = re.compile(r"(?:'([^'\n]+)'|([\w-]+)): (?:'([^'\n]*)'|\"([^\"\n]*)\")")


def tables_of_the_core() -> Iterator[tuple[str, dict[str, str]]]:
    """Every table of fixed words in the core, by where it stands."""
    for path in (ROOT / "core").rglob("*.py"):
        for node in ast.walk(ast.parse(path.read_text())):
            if isinstance(node, ast.Dict):
                pairs = [
                    (key.value, value.value)
                    for key, value in zip(node.keys, node.values, strict=True)
                    if isinstance(key, ast.Constant) and isinstance(value, ast.Constant)
                ]
                yield (
                    f"{path.name}:{node.lineno}",
                    {
                        key: value
                        for key, value in pairs
                        if isinstance(key, str) and isinstance(value, str) and key != value
                    },
                )


def test_no_table_of_the_cores_words_is_typed_again_in_the_console() -> None:
    known = list(tables_of_the_core())
    again = []
    for path in (TESTS.parent / "console" / "src").rglob("*"):
        if path.suffix not in {".ts", ".vue"} or path.name == "schema.d.ts" or ".test." in path.name:
            continue
        for table in _TABLE.findall(path.read_text()):
            words = {(a or b, c or d) for a, b, c, d in _ENTRY.findall(table)}
            again += [
                f"{path.name} has {where}" for where, core in known if len(words & set(core.items())) >= 3
            ]
    assert again == []
