import ast
from pathlib import Path

import pytest

from intavo.core.deeds import DEEDS, deed_words

CODE = Path(__file__).parents[2] / "intavo"


def noted_verbs() -> set[str]:
    """Every text that is handed on as the verb of an entry of the log."""
    found: set[str] = set()
    for path in CODE.rglob("*.py"):
        calls = [node for node in ast.walk(ast.parse(path.read_text())) if isinstance(node, ast.Call)]
        for call in calls:
            name = getattr(call.func, "attr", getattr(call.func, "id", ""))
            if name in {"noted", "_set_state", "_reply_noted"}:
                texts = [
                    one
                    for argument in call.args
                    for one in ast.walk(argument)
                    if isinstance(one, ast.Constant)
                ]
                found |= {one.value for one in texts if isinstance(one.value, str)}
    return found


def test_everything_that_is_noted_has_its_sentence_and_no_sentence_is_left_over() -> None:
    assert noted_verbs() == set(DEEDS)


@pytest.mark.parametrize(
    ("verb", "about", "said"),
    [
        ("touchpoint turned on", {"name": "Tide table", "revision": 2}, "turned “Tide table” on, version 2"),
        ("touchpoint turned on", {"name": "Tide table", "revision": None}, "turned “Tide table” on"),
        ("touchpoint turned on", {"revision": 2}, "touchpoint turned on"),
        ("site added", {"name": "Shop", "hosts": ["a.example", "b.example"]}, "added the site Shop with a.example and b.example"),
        ("channels ordered", {"channels": ["ch_1"]}, "put the channels in another order"),
        ("reply changed", {"when": "after hours", "name": "", "language": "cy"},
         "changed what is told when it is “after hours” (language: cy)"),
        ("member left", {"member": "a@b.example"}, "left the business"),
        ("of another day", {"name": "x"}, "of another day"),
        ("touchpoint made", {"name": "{curly}"}, "made the touchpoint “{curly}”"),
    ],
)  # fmt: skip
def test_an_entry_is_a_sentence_with_the_names_that_it_has(
    verb: str, about: dict[str, object], said: str
) -> None:
    assert deed_words(verb, about) == said
