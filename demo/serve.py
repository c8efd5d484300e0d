"""Serves the demo business's web site: plain pages that carry Intavo's snippet, as any site would."""

import argparse
from http.server import ThreadingHTTPServer
from pathlib import Path
from string import Template

from demo.business import SITE_KEY
from intavo.standins.http import Handler

SITE = Path(__file__).parent / "site"
KINDS = {".css": "text/css", ".svg": "image/svg+xml", ".js": "text/javascript"}


def snippet(intavo: str) -> str:
    """The one line that the owner pasted."""
    return f'<script async src="{intavo}/e/{SITE_KEY}.js"></script>'


def page(path: str, intavo: str) -> bytes | None:
    """The page at a path, or None. A page's first line is its title, its second what it says in short."""
    name = path.strip("/").replace("/", "_") or "index"
    source = SITE / f"{name}.html"
    if not source.is_relative_to(SITE) or ".." in name or not source.exists():
        return None
    title, short, body = source.read_text().split("\n", 2)
    layout = Template((SITE / "_layout.html").read_text())
    here = f'href="/{path.strip("/").split("/")[0]}"'
    text = layout.safe_substitute(title=title, short=short, body=body, snippet=snippet(intavo))
    return text.replace(f"<a {here}", f'<a aria-current="page" {here}', 1).encode()


def handler(intavo: str) -> type[Handler]:
    """The site, with the snippet of an Intavo at an address."""

    class Site(Handler):
        def do_GET(self) -> None:  # noqa: N802  # http.server's name
            path = self.path.partition("?")[0]
            file = SITE / path.removeprefix("/files/")
            if path.startswith("/files/") and file.suffix in KINDS and file.parent == SITE and file.exists():
                self.say(200, KINDS[file.suffix], file.read_bytes())
                return
            found = page(path, intavo)
            missing = page("/missing", intavo) or b""
            self.say(200 if found else 404, "text/html; charset=utf-8", found or missing)

    return Site


def main() -> None:
    """Serve until stopped."""
    words = argparse.ArgumentParser(description=__doc__)
    words.add_argument("--port", type=int, required=True)
    words.add_argument("--intavo", required=True)
    said = words.parse_args()
    ThreadingHTTPServer(("127.0.0.1", said.port), handler(said.intavo)).serve_forever()


if __name__ == "__main__":
    main()
