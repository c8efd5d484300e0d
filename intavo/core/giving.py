"""Whose a new piece of work is: rules in the owner's order, of which the first that fits decides."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass

from pydantic import BaseModel, ConfigDict, Field

from .edits import put_together
from .followup import Kind
from .names import ONE_OF_A_KIND
from .texts import Kept
from .touchpoint.patterns import normal_path
from .worklist import via_words


class GiveRule(BaseModel):
    """What is given to whom; what is not said fits everything.

    `member` is a member's id, or None for whoever at the counter has the least open. `page` is a path, with
    all that is below it where it ends with /*.
    """

    model_config = ConfigDict(frozen=True, extra="forbid")
    kind: Kind | None = None
    via: Kept | None = Field(None, min_length=1, max_length=60)
    touchpoint: int | None = Field(None, ge=1, le=2**53)
    tag: Kept | None = Field(None, min_length=1, max_length=60)
    page: Kept | None = Field(None, min_length=1, max_length=500)
    member: int | None = Field(None, ge=1, le=2**53)


@dataclass(frozen=True, slots=True)
class Came:
    """What came: its kind, how, through which touchpoint, from which page, and the tags of who it is from."""

    kind: Kind
    via: str
    touchpoint: int | None
    page: str
    tags: frozenset[str] = frozenset()


def fits(rule: GiveRule, came: Came) -> bool:
    """Whether a rule is about what came."""
    return (
        rule.kind in {None, came.kind}
        and rule.via in {None, came.via}
        and rule.touchpoint in {None, came.touchpoint}
        and (rule.tag is None or rule.tag in came.tags)
        and (rule.page is None or _on(rule.page, came.page))
    )


def _on(wanted: str, page: str) -> bool:
    path, here = normal_path(wanted.removesuffix("*")), normal_path(page)
    return here == path or (wanted.endswith("*") and here.startswith(f"{path.rstrip('/')}/"))


def given_to(
    rules: Sequence[GiveRule],
    came: Came,
    present: Iterable[int],
    open_work: Mapping[int, int],
    members: Iterable[int],
) -> int | None:
    """Whose it is: None for everybody's.

    A rule for somebody who is no member any more is passed over; of those at the counter (`present`) the one
    with the least in `open_work` gets it, of several the one who has been there longest.
    """
    there, known = sorted(present), set(members)
    for rule in rules:
        if not fits(rule, came):
            continue
        if rule.member is not None:
            if rule.member in known:
                return rule.member
            continue
        return min(there, key=lambda one: (open_work.get(one, 0), one), default=None)
    return None


def giving_together(
    base: tuple[GiveRule, ...], ours: tuple[GiveRule, ...], theirs: tuple[GiveRule, ...]
) -> tuple[tuple[GiveRule, ...], tuple[str, ...]]:
    """The rules of whoever changed them, and in words that both have: ours then. Their order decides whose
    something is, so rules of both are never put among each other.
    """
    both = put_together(*({"whose new work is": each} for each in (base, ours, theirs)))
    return both.parts["whose new work is"], both.clashes


def rule_words(rule: GiveRule, touchpoints: Mapping[int, str], members: Mapping[int, str]) -> str:
    """A rule as a sentence: "an inquiry from Boathouse question goes to Jory"."""
    said = ONE_OF_A_KIND[rule.kind] if rule.kind else "everything"
    if rule.touchpoint:
        said += f" from {touchpoints.get(rule.touchpoint, 'a touchpoint that is gone')}"
    if rule.via:
        said += f" {via_words(rule.via)}"
    if rule.page:
        said += f" on {rule.page}"
    if rule.tag:
        said += f" tagged “{rule.tag}”"
    whom = (
        members.get(rule.member, "somebody who has left")
        if rule.member
        else "whoever at the counter has the least open"
    )
    return f"{said} goes to {whom}"
