"""Who may do what."""

import pytest

from intavo.core.rights import Right, Role, may


@pytest.mark.parametrize(
    ("role", "rights"),
    [
        (
            Role.OWNER,
            {Right.SEE, Right.FOLLOW_UP, Right.EVERYBODY, Right.TOUCHPOINTS, Right.HOURS, Right.BUSINESS},
        ),
        (Role.MANAGER, {Right.SEE, Right.FOLLOW_UP, Right.EVERYBODY, Right.TOUCHPOINTS, Right.HOURS}),
        (Role.STAFF, {Right.SEE, Right.FOLLOW_UP, Right.EVERYBODY, Right.TOUCHPOINTS}),
        (Role.VISITOR, {Right.VISIT}),
    ],
)
def test_each_role_has_its_rights_and_no_others(role: Role, rights: set[Right]) -> None:
    assert {right for right in Right if may(role, right)} == rights


def test_all_people_together_are_seen_by_whom_an_owner_lets_and_by_every_owner() -> None:
    lets = {role: may(role, Right.EVERYBODY, everybody=False) for role in Role}
    assert lets == {Role.OWNER: True, Role.MANAGER: False, Role.STAFF: False, Role.VISITOR: False}
    assert may(Role.STAFF, Right.FOLLOW_UP, everybody=False)
