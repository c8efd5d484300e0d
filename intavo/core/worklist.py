"""The filter of the follow-up list: what is wanted, and the sentence that says it."""

from collections.abc import Mapping
from datetime import date
from typing import Literal

from pydantic import BaseModel, ConfigDict, Field

from .followup import Kind
from .names import ALL_OF_A_KIND, ASKED_FOR
from .texts import Kept

Wanted = Literal["open", "for-us", "for-them", "put-off", "finished"]


class ListFilter(BaseModel):
    """What the list shows; what is not said does not narrow it.

    `member` is a member's id, or 0 for what is nobody's; `touchpoint` a touchpoint's id, or 0 for what came
    by none; `via` how it came ("form", "page", "mail", "import", "hand", or the name of a service outside);
    `page` the path of the page it came from, with all below it where it ends with /*; `since` the local date
    from which it was opened; `untouched` for how many open days no member has done anything with them.
    """

    model_config = ConfigDict(frozen=True, extra="ignore")
    state: Wanted = "open"
    kind: Kind | None = None
    touchpoint: int | None = Field(None, ge=0, le=2**53)
    member: int | None = Field(None, ge=0, le=2**53)
    via: Kept | None = Field(None, min_length=1, max_length=60)
    site: int | None = Field(None, ge=1, le=2**53)
    page: Kept | None = Field(None, min_length=1, max_length=500)
    tag: Kept | None = Field(None, min_length=1, max_length=60)
    since: date | None = None
    untouched: int | None = Field(None, ge=1, le=60)
    q: Kept | None = Field(None, min_length=1, max_length=200)

    @property
    def narrows(self) -> bool:
        """Whether it shows less than everything that is open."""
        return self != ListFilter()


VIA = {
    "form": "by a form", "page": "by a conversation in the page", "mail": "by mail", "import": "by an import",
    "hand": "by hand",
}  # fmt: skip


def via_words(via: str) -> str:
    """How something came, as the sentence says it; a service outside by its name."""
    return VIA.get(via, f"by {via}")


def filter_words(
    wanted: ListFilter,
    touchpoints: Mapping[int, str],
    members: Mapping[int, str],
    sites: Mapping[int, str] | None = None,
) -> str:
    """The sentence of a filter: "inquiries still open from Boathouse question for Jory";
    names by their ids.
    """
    what = ALL_OF_A_KIND[wanted.kind] if wanted.kind else "everything"
    whence = "any touchpoint"
    if wanted.touchpoint is not None:
        whence = (
            touchpoints.get(wanted.touchpoint, "a touchpoint that is gone")
            if wanted.touchpoint
            else "no touchpoint"
        )
    whom = "anybody"
    if wanted.member is not None:
        whom = members.get(wanted.member, "somebody who has left") if wanted.member else "nobody yet"
    said = f"{what} {ASKED_FOR[wanted.state]} from {whence} for {whom}"
    if wanted.via:
        said += f", {via_words(wanted.via)}"
    if wanted.site:
        said += f", on {(sites or {}).get(wanted.site, 'a site that is gone')}"
    if wanted.page:
        said += f", on {wanted.page}"
    if wanted.tag:
        said += f", tagged “{wanted.tag}”"
    if wanted.since:
        said += f", since {wanted.since.isoformat()}"
    if wanted.untouched:
        said += f", touched by nobody for {wanted.untouched} open day{'' if wanted.untouched == 1 else 's'}"
    return f"{said}, with “{wanted.q}” in it" if wanted.q else said
