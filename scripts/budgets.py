"""Checks what visitors and owners have to load against its budget: gzipped, and the loader as browsers get it
too.
"""

import gzip
import re
import sys

import brotli

from .cluster import ROOT

LOADER, LOADER_SENT, CONSOLE = 12 * 1024, 11 * 1024, 118 * 1024


def _size(path: str) -> int:
    return len(gzip.compress((ROOT / path).read_bytes(), 9))


def console_first_load() -> int:
    """Scripts and styles that the console's page asks for before anything is shown, and its first place."""
    html = (ROOT / "console/dist/index.html").read_text()
    named = re.findall(r"/static/console/(assets/[^\"]+\.(?:js|css))", html)
    first = [
        path.relative_to(ROOT / "console/dist") for path in (ROOT / "console/dist/assets").glob("first-*.js")
    ]
    return sum(_size(f"console/dist/{path}") for path in {*named, *map(str, first)})


def main() -> int:
    """Print both sizes; 1 if one is over."""
    loader = "visitor-script/dist/loader.js"
    sizes = {
        "loader, gzip": (_size(loader), LOADER),
        "loader, as sent": (len(brotli.compress((ROOT / loader).read_bytes())), LOADER_SENT),
        "console, gzip": (console_first_load(), CONSOLE),
    }
    for name, (size, most) in sizes.items():
        print(f"{name}: {size / 1024:.1f} of {most / 1024:.0f} KiB{'' if size <= most else '  TOO LARGE'}")
    return int(any(size > most for size, most in sizes.values()))


if __name__ == "__main__":
    sys.exit(main())
