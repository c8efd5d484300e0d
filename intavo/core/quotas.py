"""What a business may have of each kind, and how it is said before it is met."""

from collections.abc import Mapping
from dataclasses import dataclass
from enum import StrEnum

_NEAR_TENTHS = 8
# What strangers send is taken for a while yet where the owner can add no more.
_GUESTS_TENTHS = 12
GB = 1024**3


class QuotaKind(StrEnum):
    """What is counted. Files are counted in bytes, the rest by how many there are."""

    FILES = "files"
    PEOPLE = "people"
    TOUCHPOINTS = "touchpoints"
    SITES = "sites"
    COPIES = "copies"
    IMPORTS = "imports"
    IMPORTS_AT_ONCE = "imports_at_once"


DEFAULTS: Mapping[QuotaKind, int] = {
    QuotaKind.FILES: 20 * GB,
    QuotaKind.PEOPLE: 1_000_000,
    QuotaKind.TOUCHPOINTS: 1_000,
    QuotaKind.SITES: 100,
    QuotaKind.COPIES: 10,
    QuotaKind.IMPORTS: 20,
    QuotaKind.IMPORTS_AT_ONCE: 2,
}
# What each is, where it is the only one and where there are more.
_WORDS = {
    QuotaKind.PEOPLE: ("person", "people"),
    QuotaKind.TOUCHPOINTS: ("touchpoint", "touchpoints"),
    QuotaKind.SITES: ("site", "sites"),
    QuotaKind.COPIES: ("copy", "copies"),
    QuotaKind.IMPORTS: ("file with people that waits", "files with people that wait"),
    QuotaKind.IMPORTS_AT_ONCE: ("file with people that is worked on", "files with people that are worked on"),
}
# What whoever meets it can do about it.
_WAY_OUT = {
    QuotaKind.FILES: "Throw away copies, pictures or videos that are not used any more",
    QuotaKind.PEOPLE: "Erase people whom you do not need any more",
    QuotaKind.TOUCHPOINTS: "Delete some that are not used any more",
    QuotaKind.SITES: "Remove one that is not yours any more",
    QuotaKind.COPIES: "Throw one away first",
    QuotaKind.IMPORTS: "Take them, or throw them away",
}


def limits(given: Mapping[str, int]) -> dict[QuotaKind, int]:
    """The most of each kind, with an operator's own in place of ours; 0 is no limit. Files are given in GB.

    Raises ValueError that names what is no kind, or no number of it.
    """
    for name, most in given.items():
        if name not in set(QuotaKind) or most < 0:
            raise ValueError(f"{name}={most}: known are {', '.join(QuotaKind)}, with a number from 0 on")
    mine = {QuotaKind(name): most for name, most in given.items()}
    if QuotaKind.FILES in mine:
        mine[QuotaKind.FILES] *= GB
    return {**DEFAULTS, **mine}


@dataclass(frozen=True, slots=True)
class Quota:
    """How much there is of a kind, and how much there may be; `most` is 0 where there is no limit."""

    kind: QuotaKind
    used: int
    most: int

    @property
    def near(self) -> bool:
        """Whether it is to be said before it is met: from four fifths on."""
        return bool(self.most) and self.used * 10 >= self.most * _NEAR_TENTHS

    @property
    def met(self) -> bool:
        """Whether there is no room left."""
        return not self.takes(1)

    def takes(self, more: int) -> bool:
        """Whether there is room for so much more."""
        return not self.most or self.used + more <= self.most

    def takes_from_guests(self, more: int) -> bool:
        """Whether there is room for so much more that a stranger sends."""
        return not self.most or (self.used + more) * 10 <= self.most * _GUESTS_TENTHS

    @property
    def words(self) -> str:
        """How much there is: "8.1 of 10 GB of files", "19 of 20 sites"."""
        if self.kind is QuotaKind.FILES:
            if not self.most:
                return f"{_size(self.used)} of files"
            return f"{_size(self.used)} of files, of {_size(self.most)}"
        one, several = _WORDS[self.kind]
        if not self.most:
            return f"{self.used:,} {one if self.used == 1 else several}"
        return f"{self.used:,} of {self.most:,} {one if self.most == 1 else several}"

    @property
    def refusal(self) -> str:
        """What is said where it is met."""
        if self.kind is QuotaKind.IMPORTS_AT_ONCE:
            both = "Another file is" if self.most == 1 else f"{self.most:,} other files are"
            return f"{both} being worked on; please wait until that is done."
        return f"There is no room for more: {self.words}. {_WAY_OUT[self.kind]}, or ask whoever runs Intavo."


def _size(size: int) -> str:
    if size >= GB:
        return f"{size / GB:.1f}".removesuffix(".0") + " GB"
    return f"{max(1, round(size / 1024**2)) if size else 0} MB"
