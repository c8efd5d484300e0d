"""Two cards that are of one person: made one, and made two again, over values.

What came to the card after it was made one stays with it; everything that was the other's goes back.
"""

from dataclasses import dataclass, replace
from datetime import datetime
from typing import Literal


@dataclass(frozen=True, slots=True)
class AddressValue:
    """An address: its row's id, its kind, how it is matched, how it was typed."""

    id: int
    kind: str
    key: str
    shown: str


@dataclass(frozen=True, slots=True)
class TagValue:
    """A tag: its row's id, its words, and the touchpoint that gave it ("" for a member's own)."""

    id: int
    tag: str
    given_by: str = ""


@dataclass(frozen=True, slots=True)
class CardValue:
    """A person's card; `rows` are what else is theirs, by what it is and its row's id."""

    id: int
    name: str
    created_at: datetime
    addresses: frozenset[AddressValue] = frozenset()
    tags: frozenset[TagValue] = frozenset()
    rows: frozenset[tuple[str, int]] = frozenset()


@dataclass(frozen=True, slots=True)
class Merged:
    """One card made of two: what it is, what the other was, and what both had, of which one stays.

    `kept_name` is the kept card's name before. `double_addresses` and `double_tags` are the other's.
    """

    card: CardValue
    gone: CardValue
    kept_name: str
    kept_created_at: datetime
    double_addresses: frozenset[AddressValue]
    double_tags: frozenset[TagValue]

    @property
    def names_clash(self) -> bool:
        """Whether both have a name, and not the same."""
        return bool(self.kept_name and self.gone.name and self.kept_name != self.gone.name)


def merged(kept: CardValue, gone: CardValue, name: Literal["kept", "gone"] = "kept") -> Merged:
    """One card of two: everything of both; of two names the chosen one, and a name before none. Pure.

    Raises ValueError for one and the same card.
    """
    if kept.id == gone.id:
        raise ValueError("This is one card already.")
    known = {(one.kind, one.key) for one in kept.addresses}
    tagged = {one.tag for one in kept.tags}
    double_addresses = frozenset(one for one in gone.addresses if (one.kind, one.key) in known)
    double_tags = frozenset(one for one in gone.tags if one.tag in tagged)
    called = (kept.name or gone.name) if name == "kept" else (gone.name or kept.name)
    card = replace(
        kept,
        name=called,
        created_at=min(kept.created_at, gone.created_at),
        addresses=kept.addresses | (gone.addresses - double_addresses),
        tags=kept.tags | (gone.tags - double_tags),
        rows=kept.rows | gone.rows,
    )
    return Merged(card, gone, kept.name, kept.created_at, double_addresses, double_tags)


def split(merged: Merged, now: CardValue | None = None) -> tuple[CardValue, CardValue]:
    """The two cards again; `now` is the card as it has become since (None: as it was made). Pure.

    What was the other's goes back, if it is still there; a name that was changed since stays changed.
    """
    card, gone = now or merged.card, merged.gone
    back_addresses = (gone.addresses & card.addresses) | merged.double_addresses
    back_tags = (gone.tags & card.tags) | merged.double_tags
    kept = replace(
        card,
        name=merged.kept_name if card.name == merged.card.name else card.name,
        created_at=merged.kept_created_at,
        addresses=card.addresses - gone.addresses,
        tags=card.tags - gone.tags,
        rows=card.rows - gone.rows,
    )
    return kept, replace(gone, addresses=back_addresses, tags=back_tags, rows=gone.rows & card.rows)
