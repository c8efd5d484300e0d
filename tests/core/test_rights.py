"""Who may do what."""

import pytest

from intavo.core.rights import Right, Role, may


@pytest.mark.parametrize(
    ("role", "rights"),
    [
        (Role.OWNER, {Right.SEE, Right.FOLLOW_UP, Right.TOUCHPOINTS, Right.HOURS, Right.BUSINESS}),
        (Role.MANAGER, {Right.SEE, Right.FOLLOW_UP, Right.TOUCHPOINTS, Right.HOURS}),
        (Role.STAFF, {Right.SEE, Right.FOLLOW_UP, Right.TOUCHPOINTS}),
        (Role.VISITOR, {Right.VISIT}),
    ],
)
def test_each_role_has_its_rights_and_no_others(role: Role, rights: set[Right]) -> None:
    assert {right for right in Right if may(role, right)} == rights
