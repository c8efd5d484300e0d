"""The words of an HTML mail, as plain text; what it quotes is marked as in plain mail.

It is read in one pass whose time grows with its length and with nothing else, whatever a stranger has put
into it: the usual readers take minutes for half a megabyte of comments that are never closed.
"""

import re
from collections.abc import Iterator
from html import unescape

_BLOCKS = {
    "p", "div", "br", "tr", "li", "ul", "ol", "table", "h1", "h2", "h3", "h4", "h5", "h6", "hr", "blockquote",
    "pre", "section", "article", "header", "footer", "dd", "dt",
}  # fmt: skip
_PARAGRAPHS = {"p", "h1", "h2", "h3", "h4", "h5", "h6", "blockquote", "ul", "ol", "table"}
# What is not shown: the first as a whole up to its end, of the others what stands between their tags.
_RAW = {"script", "style", "title", "textarea"}
_UNSAID = {"head", "template", "noscript", "object", "svg"}
_QUOTES = 20
# A tag with quoted values, which may have a ">" in them; one that is longer ends with its first ">".
_TAG = re.compile(r"<(/?)([a-zA-Z][^\s/>]*)((?:[^>\"']|\"[^\"]*\"|'[^']*')*)>")
_BEGINS = re.compile(r"<(?=[a-zA-Z/!?])")
_NAME = re.compile(r"</?([a-zA-Z][^\s/>]{0,40})")
_LONGEST_TAG = 1_000
_VALUE = re.compile(r"\b(href|alt)\s*=\s*(?:\"([^\"]*)\"|'([^']*)'|([^\s>]+))", re.IGNORECASE)
_SPACE = re.compile(r"[ \t\r\n\f]+")


def _pieces(html: str) -> Iterator[tuple[str, str]]:
    """What stands in it in turn: ("", words), or the tag's name ("/" before it where it ends) and the
    whole tag.
    """
    lower = html.lower()
    at, closes = 0, -1
    while at < len(html):
        found = _BEGINS.search(html, at)
        if found is None:
            yield "", html[at:]
            return
        begins = found.start()
        if begins > at:
            yield "", html[at:begins]
        if closes < begins:
            closes = html.find(">", begins)
        after = html[begins + 1 : begins + 2]
        if html.startswith("<!--", begins):
            ends = html.find("-->", begins + 4)
            if ends < 0:
                return
            at = ends + 3
        elif closes < 0:
            return
        else:
            tag = _TAG.match(html, begins, begins + _LONGEST_TAG)
            whole = tag[0] if tag else html[begins : closes + 1]
            at = begins + len(whole)
            name = _NAME.match(whole)
            if name is None:
                continue
            called = name[1].lower()
            if called in _RAW and after != "/":
                at = lower.find(f"</{called}", at)
                if at < 0:
                    return
            elif called not in _RAW:
                yield ("/" if after == "/" else "") + called, whole[:_LONGEST_TAG]


class _Words:
    def __init__(self) -> None:
        self.lines: list[str] = []
        # The line that is being written: how deep it is quoted, its pieces, and how they end.
        self.line: list[str] = []
        self.depth = self.unsaid = 0
        self.spaced = True
        self.link, self.linked = "", 0

    def begins(self, tag: str, whole: str) -> None:
        if tag in _UNSAID and not whole.endswith("/>"):
            self.unsaid += 1
        if tag in _BLOCKS:
            self.end_line(tag in _PARAGRAPHS)
        if tag == "blockquote":
            self.depth = min(self.depth + 1, _QUOTES)
        elif tag == "li":
            self.put("- ")
        elif tag in {"img", "a"}:
            values = {name.lower(): unescape(a or b or c) for name, a, b, c in _VALUE.findall(whole)}
            if tag == "img":
                self.put(values.get("alt", ""))
            else:
                self.link, self.linked = values.get("href", ""), len(self.line)

    def ends(self, tag: str) -> None:
        if tag in _UNSAID:
            self.unsaid = max(0, self.unsaid - 1)
        if tag == "a":
            shown = "".join(self.line[self.linked :])
            if self.link.startswith(("http://", "https://")) and self.link not in shown:
                self.put(f" ({self.link})")
            self.link = ""
        if tag == "blockquote":
            self.end_line(False)
            self.depth = max(0, self.depth - 1)
            self.end_line(True)
        elif tag in _BLOCKS - {"br", "hr"}:
            self.end_line(tag in _PARAGRAPHS)

    def put(self, words: str) -> None:
        if self.unsaid:
            return
        if self.spaced:
            words = words.lstrip(" ")
        if words:
            self.line.append(words)
            self.spaced = words.endswith(" ")

    def end_line(self, paragraph: bool) -> None:
        if self.line:
            self.lines.append("> " * self.depth + "".join(self.line))
        if paragraph and self.lines and self.lines[-1].strip("> "):
            self.lines.append("> " * self.depth)
        self.line, self.spaced = [], True
        self.linked = 0


def words_of(html: str) -> str:
    """What a page of a mail says; nothing of it runs, and what is not shown is not said."""
    reader = _Words()
    for tag, whole in _pieces(html):
        if not tag:
            reader.put(_SPACE.sub(" ", unescape(whole)))
        elif tag.startswith("/"):
            reader.ends(tag[1:])
        else:
            reader.begins(tag, whole)
    reader.end_line(False)
    said = "\n".join(line.rstrip() for line in reader.lines)
    return re.sub(r"\n{3,}", "\n\n", said).strip("\n")
