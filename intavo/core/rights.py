"""Who may do what in a business."""

from enum import StrEnum


class Right(StrEnum):
    """One thing that can be allowed."""

    SEE = "see"
    FOLLOW_UP = "follow-up"
    TOUCHPOINTS = "touchpoints"
    BUSINESS = "business"
    VISIT = "visit"


class Role(StrEnum):
    """What somebody is to a business; a visitor acts only through what is on its site."""

    OWNER = "owner"
    STAFF = "staff"
    VISITOR = "visitor"


_RIGHTS: dict[Role, frozenset[Right]] = {
    Role.OWNER: frozenset({Right.SEE, Right.FOLLOW_UP, Right.TOUCHPOINTS, Right.BUSINESS}),
    Role.STAFF: frozenset({Right.SEE, Right.FOLLOW_UP, Right.TOUCHPOINTS}),
    Role.VISITOR: frozenset({Right.VISIT}),
}


def may(role: Role, right: Right) -> bool:
    """Whether a role has a right."""
    return right in _RIGHTS[role]
