"""The owner's own CSS: parsed, with nothing in it that reaches outside the touchpoint.

It is used inside a shadow root, so that its selectors meet nothing else of the page.
Source: CSS Syntax Level 3 by tinycss2; selectors by cssselect2.
"""

import cssselect2
import tinycss2

_AT_RULES = {"media", "supports", "keyframes"}
_OUTSIDE = ("url(", "image-set(", "expression(", "-moz-binding", "@import")


def checked_css(text: str) -> str:
    """The CSS as it was given; raises ValueError with the line for what is wrong in it."""
    for rule in tinycss2.parse_stylesheet(text, skip_comments=True, skip_whitespace=True):
        _check(rule)
    return text


def _check(rule: tinycss2.ast.Node) -> None:
    if rule.type == "error":
        raise ValueError(f"line {rule.source_line}: {rule.message}")
    if rule.type == "at-rule":
        if rule.lower_at_keyword not in _AT_RULES:
            raise ValueError(f"line {rule.source_line}: @{rule.at_keyword} cannot be used here")
        if rule.lower_at_keyword != "keyframes":
            for inner in tinycss2.parse_rule_list(
                rule.content or [], skip_comments=True, skip_whitespace=True
            ):
                _check(inner)
    else:
        check_selector(tinycss2.serialize(rule.prelude), rule.source_line)
    written = tinycss2.serialize(rule.content or []).casefold().replace("\\", "")
    reaching = next((name for name in _OUTSIDE if name in written), None)
    if reaching is not None:
        raise ValueError(
            f"line {rule.source_line}: {reaching.rstrip('(')} reaches outside and cannot be used here"
        )
    for found in tinycss2.parse_declaration_list(
        rule.content or [], skip_comments=True, skip_whitespace=True
    ):
        if found.type == "error" and rule.type != "at-rule":
            raise ValueError(f"line {found.source_line}: {found.message}")


def check_selector(selector: str, line: int | None = None) -> str:
    """A selector that parses, as it was given; raises ValueError with the reason,
    and the line if it has one.
    """
    where = "" if line is None else f"line {line}: "
    plain = selector.replace(":host", "*")
    if not selector.strip():
        raise ValueError(f"{where}a selector is missing")
    try:
        cssselect2.compile_selector_list(plain)
    except cssselect2.SelectorError:
        raise ValueError(f"{where}the selector “{selector.strip()}” cannot be read") from None
    return selector
