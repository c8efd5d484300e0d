"""Serves the demo business's web site: plain pages that carry Intavo's snippet, as any site would."""

import argparse
from http.server import ThreadingHTTPServer
from pathlib import Path
from string import Template

from demo.business import SITE_SLUG, Names
from standins.http import Handler

SITE = Path(__file__).parent / "site"
KINDS = {".css": "text/css", ".svg": "image/svg+xml", ".js": "text/javascript"}


def names_of(host: str) -> Names:
    """Whose site is asked for, by the host: otterwick.localhost, or otterwick-<label>.localhost."""
    slug = host.partition(":")[0].partition(".")[0]
    return Names(slug.removeprefix(f"{SITE_SLUG}-") if slug.startswith(f"{SITE_SLUG}-") else "")


def snippet(intavo: str, names: Names) -> str:
    """The one line that the owner pasted."""
    return f'<script async src="{intavo}/e/{names.site_key}.js"></script>'


def page(path: str, intavo: str, names: Names) -> bytes | None:
    """The page at a path, or None. A page's first line is its title, its second what it says in short."""
    name = path.strip("/").replace("/", "_") or "index"
    source = SITE / f"{name}.html"
    if not source.is_relative_to(SITE) or ".." in name or not source.exists():
        return None
    title, short, body = source.read_text().split("\n", 2)
    layout = Template((SITE / "_layout.html").read_text())
    here = f'href="/{path.strip("/").split("/")[0]}"'
    text = layout.safe_substitute(title=title, short=short, body=body, snippet=snippet(intavo, names))
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
            names = names_of(self.headers.get("Host", ""))
            text = page(path, intavo, names)
            missing = page("/missing", intavo, names) or b""
            self.say(200 if text else 404, "text/html; charset=utf-8", text or missing)

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
