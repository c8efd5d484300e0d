"""Who may do what in a business."""

from enum import StrEnum


class Right(StrEnum):
    """One thing that can be allowed."""

    SEE = "see"
    FOLLOW_UP = "follow-up"
    TOUCHPOINTS = "touchpoints"
    HOURS = "hours"
    BUSINESS = "business"
    VISIT = "visit"


class Role(StrEnum):
    """What somebody is to a business; a visitor acts only through what is on its site."""

    OWNER = "owner"
    MANAGER = "manager"
    STAFF = "staff"
    VISITOR = "visitor"


_RIGHTS: dict[Role, frozenset[Right]] = {
    Role.OWNER: frozenset({Right.SEE, Right.FOLLOW_UP, Right.TOUCHPOINTS, Right.HOURS, Right.BUSINESS}),
    Role.MANAGER: frozenset({Right.SEE, Right.FOLLOW_UP, Right.TOUCHPOINTS, Right.HOURS}),
    Role.STAFF: frozenset({Right.SEE, Right.FOLLOW_UP, Right.TOUCHPOINTS}),
    Role.VISITOR: frozenset({Right.VISIT}),
}


# What a member can be.
MEMBERS = (Role.OWNER, Role.MANAGER, Role.STAFF)


def rights_of(role: Role) -> list[Right]:
    """What a role may do, in the order in which it is written here."""
    return [right for right in Right if may(role, right)]


def may(role: Role, right: Right) -> bool:
    """Whether a role has a right."""
    return right in _RIGHTS[role]
