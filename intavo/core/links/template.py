"""Message links of the owner's own: a template, made of one example link. Source: RFC 6570,
by uritemplate.
"""

import re
from dataclasses import dataclass
from urllib.parse import parse_qsl, quote, unquote, unquote_plus, urlsplit

import uritemplate

from ..addresses import bare, scheme_of

EXAMPLE_WORDS = "hello there"
_RUNS_SCRIPTS = {
    "javascript",
    "data",
    "vbscript",
    "livescript",
    "file",
    "blob",
    "about",
    "view-source",
    "filesystem",
}
_OPERATORS = {"", "?", "&", "/"}
_EXPRESSION = re.compile(r"\{([^{}]*)\}")
_FOR_WHOM = {
    "to",
    "user",
    "username",
    "handle",
    "name",
    "id",
    "u",
    "phone",
    "number",
    "recipient",
    "contact",
    "with",
}
_ACTS = {
    "send",
    "msg",
    "message",
    "messages",
    "chat",
    "to",
    "open",
    "share",
    "me",
    "call",
    "talk",
    "dm",
    "u",
    "p",
}


@dataclass(frozen=True, slots=True)
class LinkTemplate:
    """A template with {handle} and perhaps {text}, the handle that stood in the example, and whether it has
    {text}.
    """

    template: str
    handle: str
    takes_text: bool


def safe_scheme(address: str) -> str:
    """The scheme of an address, in lower case; ValueError where there is none, or one that runs a script."""
    refuse_scripts(address)
    scheme = scheme_of(address)
    if not scheme:
        raise ValueError(f"“{address[:60]}” is not a whole link; it begins with https:// or the like")
    return scheme


def refuse_scripts(text: str) -> None:
    """ValueError for what a browser would run, in any spelling."""
    if (scheme := scheme_of(text)) in _RUNS_SCRIPTS:
        raise ValueError(f"A link never begins with “{scheme}:”.")


def checked_template(template: str) -> str:
    """The template as it is. ValueError where it cannot be read, runs a script, or asks for anything but
    {handle} and {text} in plain, path or query places.
    """
    if bare(template) != template:
        raise ValueError("a link has no spaces and no unseen signs in it")
    before = template.partition("{")[0]
    scheme = safe_scheme(before if ":" in before else template)
    for inner in _EXPRESSION.findall(template):
        operator = inner[:1] if inner[:1] in "+#./;?&|=,!@" else ""
        if operator not in _OPERATORS or inner[len(operator) :] not in {"handle", "text"}:
            raise ValueError(
                f"“{{{inner}}}” is not known; a link has places for {{handle}} and {{text}} alone"
            )
    if re.search(r"[{}]", _EXPRESSION.sub("", template)):
        raise ValueError("a bracket of the link is not closed")
    if scheme in {"http", "https"} and not before.partition(":")[2].startswith("//"):
        raise ValueError("the handle cannot be what a link begins with")
    return template


def filled_template(template: str, handle: str, text: str) -> str:
    """The link itself; a text that is empty leaves no trace where the template allows that."""
    if text:
        return uritemplate.expand(template, handle=handle, text=text)
    return uritemplate.expand(template, handle=handle)


def template_from(example: str) -> LinkTemplate:
    """A template from one link in which the owner's own handle stands, and perhaps the words "hello there".

    The words are found in the path or the query, percent-encoded or not. ValueError for a link that has no
    place for a handle, or runs a script.
    """
    given = example.strip()
    if "{handle}" in given:
        checked_template(given)
        return LinkTemplate(given, "", "text}" in given)
    safe_scheme(given)
    given = given.replace(EXAMPLE_WORDS, quote(EXAMPLE_WORDS))
    if re.search(r"\s", given):
        raise ValueError(
            f"“{given[:60]}” has spaces in it, which no link has; keep the words as they are copied"
        )
    try:
        parts = urlsplit(given)
    except ValueError:
        raise ValueError(f"“{given[:60]}” is not a link") from None
    query = parse_qsl(parts.query, keep_blank_values=True)
    words = [name for name, value in query if _is_words(value)]
    others = [(name, value) for name, value in query if not _is_words(value)]
    segments = parts.path.split("/")
    segments = ["{text}" if _is_words(unquote_plus(one)) else _literal(one) for one in segments]
    handle = _handle_in_query(others, segments) or _handle_in_path(segments)
    if handle is None:
        raise ValueError("This link has no place for a name: paste one with your own name in it.")
    rest = "&".join(f"{_literal(quote(name))}={value}" for name, value in _named(others, handle))
    path, tail = "/".join(segments), _text_part(words[:1], bool(rest))
    start = f"{parts.scheme}://{parts.netloc}" if parts.netloc else f"{parts.scheme}:"
    made = f"{start}{path}{'?' if rest else ''}{rest}{tail}"
    return LinkTemplate(checked_template(made), handle[1], bool(words) or "{text}" in path)


def _is_words(value: str) -> bool:
    return " ".join(value.casefold().split()) == EXAMPLE_WORDS


def _literal(text: str) -> str:
    """A piece of a link in which a bracket is only a bracket."""
    return text.replace("{", "%7B").replace("}", "%7D")


def _handle_in_query(others: list[tuple[str, str]], segments: list[str]) -> tuple[str, str] | None:
    named = next(((name, value) for name, value in others if name.casefold() in _FOR_WHOM and value), None)
    if named is not None:
        return named
    path = [one for one in segments if one and one != "{text}"]
    only = [one for one in others if one[1]]
    return only[0] if len(only) == 1 and (not path or path[-1].casefold() in _ACTS) else None


def _handle_in_path(segments: list[str]) -> tuple[str, str] | None:
    """The last piece of the path is the handle; an @ before it stays where it is."""
    places = [at for at, one in enumerate(segments) if one and one != "{text}"]
    if not places or (len(places) == 1 and segments[places[0]].casefold() in _ACTS):
        return None
    last = segments[places[-1]]
    at = "@" if last.startswith("@") else "+" if last.startswith("+") else ""
    segments[places[-1]] = f"{at}{{handle}}"
    return "", unquote(last.removeprefix(at))


def _named(others: list[tuple[str, str]], handle: tuple[str, str]) -> list[tuple[str, str]]:
    return [
        (name, "{handle}" if (name, value) == handle else _literal(quote(value, safe="@:+,")))
        for name, value in others
    ]


def _text_part(names: list[str], follows: bool) -> str:
    if not names:
        return ""
    name = names[0]
    if name == "text":
        return "{&text}" if follows else "{?text}"
    return f"{'&' if follows else '?'}{_literal(quote(name))}={{text}}"
