"""The words of an HTML mail, as plain text; what it quotes is marked as in plain mail."""

import re
from html.parser import HTMLParser

_BLOCKS = {
    "p", "div", "br", "tr", "li", "ul", "ol", "table", "h1", "h2", "h3", "h4", "h5", "h6", "hr", "blockquote",
    "pre", "section", "article", "header", "footer", "dd", "dt",
}  # fmt: skip
_PARAGRAPHS = {"p", "h1", "h2", "h3", "h4", "h5", "h6", "blockquote", "ul", "ol", "table"}
_UNSAID = {"script", "style", "head", "title", "template", "noscript", "object", "svg"}
_QUOTES = 20


class _Words(HTMLParser):
    def __init__(self) -> None:
        super().__init__(convert_charrefs=True)
        self.lines: list[str] = [""]
        self.depth = self.unsaid = 0
        self.link = ""

    def handle_starttag(self, tag: str, attrs: list[tuple[str, str | None]]) -> None:
        if tag in _UNSAID:
            self.unsaid += 1
        if tag in _BLOCKS:
            self._end_line(tag in _PARAGRAPHS)
        if tag == "blockquote":
            self.depth = min(self.depth + 1, _QUOTES)
            self._begin()
        elif tag == "li":
            self.lines[-1] += "- "
        elif tag == "img" and (alt := dict(attrs).get("alt")):
            self._say(alt)
        elif tag == "a":
            self.link = dict(attrs).get("href") or ""

    def handle_startendtag(self, tag: str, attrs: list[tuple[str, str | None]]) -> None:
        if tag not in _UNSAID:
            self.handle_starttag(tag, attrs)

    def handle_endtag(self, tag: str) -> None:
        if tag in _UNSAID:
            self.unsaid = max(0, self.unsaid - 1)
        if tag == "a":
            if self.link.startswith(("http://", "https://")) and self.link not in self.lines[-1]:
                self._say(f" ({self.link})")
            self.link = ""
        if tag == "blockquote":
            self._end_line(True)
            self.depth = max(0, self.depth - 1)
            self._begin()
        elif tag in _BLOCKS - {"br", "hr"}:
            self._end_line(tag in _PARAGRAPHS)

    def handle_data(self, data: str) -> None:
        if not self.unsaid:
            self._say(re.sub(r"[ \t\r\n\f]+", " ", data))

    def _say(self, words: str) -> None:
        if not self.lines[-1].lstrip("> ") or self.lines[-1].endswith(" "):
            words = words.lstrip(" ")
        self.lines[-1] += words

    def _end_line(self, paragraph: bool) -> None:
        if self.lines[-1].strip("> "):
            self.lines.append("")
            if paragraph:
                self.lines.append("")
            self._begin()
        elif paragraph and len(self.lines) > 1 and self.lines[-2].strip("> "):
            self.lines.append("")
            self._begin()

    def _begin(self) -> None:
        if not self.lines[-1].strip("> "):
            self.lines[-1] = "> " * self.depth


def words_of(html: str) -> str:
    """What a page of a mail says; nothing of it runs, and what is not shown is not said."""
    reader = _Words()
    reader.feed(html)
    reader.close()
    said = "\n".join(line.rstrip() for line in reader.lines)
    return re.sub(r"\n{3,}", "\n\n", said).strip("\n")
