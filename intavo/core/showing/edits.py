"""Two changes of what holds for a site put together, by what is said in it."""

from typing import Any

from ..edits import lists_together, put_together
from .siterules import PageGroup, SiteRules

_LISTS = ("search", "social", "search_media", "social_media", "give_way_to")
_WORDS = {
    "most_interruptions": "how often a visit is interrupted",
    "signed_in": "where somebody is signed in",
}


def rules_together(base: SiteRules, ours: SiteRules, theirs: SiteRules) -> tuple[SiteRules, tuple[str, ...]]:
    """The rules with what both changed since `base`, and in words what both changed differently: of that,
    ours. Of lists, what either put in is in, and what either took out is out.
    """
    both = put_together(_parts(base), _parts(ours), _parts(theirs))
    parts = dict(both.parts)
    values: dict[str, Any] = {name: parts.pop(name) for name in _WORDS if name in parts}
    values |= {name: lists_together(*(getattr(one, name) for one in (base, ours, theirs))) for name in _LISTS}
    rules = SiteRules(groups=tuple(parts.values()), **values)
    return rules, tuple(_WORDS.get(name, name) for name in both.clashes)


def _parts(rules: SiteRules) -> dict[str, Any]:
    groups: dict[str, PageGroup] = {f"the group “{one.name.casefold()}”": one for one in rules.groups}
    return {name: getattr(rules, name) for name in _WORDS} | groups
