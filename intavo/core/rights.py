"""Who may do what in a business."""

from enum import StrEnum


class Right(StrEnum):
    """One thing that can be allowed."""

    SEE = "see"
    FOLLOW_UP = "follow-up"
    EVERYBODY = "everybody"
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


# What whoever works the list may.
_WORKS = frozenset({Right.SEE, Right.FOLLOW_UP, Right.EVERYBODY, Right.TOUCHPOINTS})
_RIGHTS: dict[Role, frozenset[Right]] = {
    Role.OWNER: _WORKS | {Right.HOURS, Right.BUSINESS},
    Role.MANAGER: _WORKS | {Right.HOURS},
    Role.STAFF: _WORKS,
    Role.VISITOR: frozenset({Right.VISIT}),
}


# What a member can be.
MEMBERS = (Role.OWNER, Role.MANAGER, Role.STAFF)


def rights_of(role: Role) -> list[Right]:
    """What a role may do, in the order in which it is written here; who sees everybody is said of each
    member.
    """
    return [right for right in Right if may(role, right) and right is not Right.EVERYBODY]


def may(role: Role, right: Right, everybody: bool = True) -> bool:
    """Whether a role has a right. Without `everybody` the list is worked one by one: the people are not seen
    together, taken out or brought in; that holds for no owner.
    """
    if right is Right.EVERYBODY and not everybody and role is not Role.OWNER:
        return False
    return right in _RIGHTS[role]
