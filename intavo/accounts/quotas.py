"""How much a business has of each kind, held against what it may have."""

from collections.abc import Callable

from django.conf import settings

from intavo import keeping
from intavo.core.quotas import Quota, QuotaKind
from intavo.lately import Lately

from .actor import Actor, Refused

Counting = Callable[[int], int]
_counts: dict[QuotaKind, Counting] = {QuotaKind.FILES: keeping.used}
# What is shown may be a minute old; what is refused is counted anew.
_shown: Lately[int, list[Quota]] = Lately(1000, seconds=60)
# What comes and goes by itself is no matter of room.
_PASSING = frozenset({QuotaKind.IMPORTS_AT_ONCE})


def counts(kind: QuotaKind) -> Callable[[Counting], Counting]:
    """Marks what says how many of a kind a business has."""

    def marked(counting: Counting) -> Counting:
        _counts[kind] = counting
        return counting

    return marked


def quota(business_id: int, kind: QuotaKind) -> Quota:
    """How much a business has of a kind, now."""
    return Quota(kind, _counts[kind](business_id), settings.QUOTAS[kind])


def quotas(business_id: int) -> list[Quota]:
    """How much a business has of each kind; at most a minute old."""
    return _shown.get(
        business_id, lambda: [quota(business_id, kind) for kind in QuotaKind if kind not in _PASSING]
    )


def near(business_id: int) -> list[str]:
    """What a business has nearly all of that it may have, in words; at most a minute old."""
    return [one.words for one in quotas(business_id) if one.near]


def needs_room(actor: Actor, kind: QuotaKind, field: str, more: int = 1) -> None:
    """Refused, naming `field`, where there is no room for so much more. Files are counted in bytes."""
    asked = quota(actor.business_id, kind)
    if not asked.takes(more):
        raise Refused((field, asked.refusal))
