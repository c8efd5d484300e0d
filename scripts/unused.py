"""Names functions, classes and methods that nobody asks for, found by vulture: `python -m scripts.unused`.

What a framework calls by its name is passed over: what is registered by a decorator, and what stands in a
text, as middlewares stand in the settings.
"""

import re
import sys
from pathlib import Path

from vulture import Vulture

from .cluster import ROOT

PLACES = ("intavo", "demo", "standins", "scripts", "tests", "manage.py")
KINDS = {"function", "class", "method", "import"}
# Called by their names: by Django, ninja, http.server, pytest, and by what parses or serves for us.
BY_NAME = re.compile(
    r"Meta|send_messages|validate_response|Command|\w+Config|resolve_\w+|do_[A-Z]+|log_message|test_\w+|pytest_\w+|handle_\w+|process_\w+|"
    r"collect|parse_body|visit_\w+|__\w+__|auto_now|db_parameters|get_\w+|has_\w+|is_open_for_signup|step|ready|add_arguments|handle"
)


def unused() -> list[str]:
    """Where each stands, and its name."""
    found = Vulture(ignore_decorators=["@*"])
    found.scavenge([str(ROOT / place) for place in PLACES], exclude=["*/migrations/*", "*/node_modules/*"])
    texts = "\n".join(path.read_text() for place in PLACES[:3] for path in (ROOT / place).rglob("*.py"))
    named = set(re.findall(r"[\"'.](\w+)[\"']", texts))
    return [
        f"{Path(item.filename).relative_to(ROOT)}:{item.first_lineno} {item.typ} {item.name}"
        for item in found.get_unused_code(min_confidence=60)
        if item.typ in KINDS and not BY_NAME.fullmatch(item.name) and item.name not in named
    ]


def main() -> int:
    """Say each; 1 where there is one."""
    lines = unused()
    for line in lines:
        print(f"nobody asks for {line}")
    return bool(lines)


if __name__ == "__main__":
    sys.exit(main())
