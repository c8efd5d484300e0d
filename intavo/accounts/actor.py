"""Who acts: passed first to every action, which asks it for the right."""

from dataclasses import dataclass
from typing import Any

from intavo import clock
from intavo.core.rights import Right, Role, may

from .models import AuditEntry, Member


class NotAllowed(Exception):
    """The actor lacks the right; nothing was done."""

    def __init__(self, right: Right) -> None:
        super().__init__(f"Your role does not allow this ({right}). Ask the owner.")


class Refused(Exception):
    """What was asked cannot be done; pairs of a field's place and words that say why."""

    def __init__(self, *errors: tuple[str, str]) -> None:
        super().__init__("; ".join(f"{field}: {message}" for field, message in errors))
        self.errors = list(errors)


class Changed(Exception):
    """Somebody else has changed it since it was read; nothing was done."""


@dataclass(frozen=True, slots=True)
class Actor:
    """A member of one business, or (member None) a visitor of its site."""

    business_id: int
    role: Role
    member_id: int | None = None
    user_id: int | None = None
    # Whether they may see all people together, where their role does.
    everybody: bool = True

    def needs(self, right: Right) -> None:
        """The one permission check: raises NotAllowed without the right."""
        if not self.may(right):
            raise NotAllowed(right)

    def may(self, right: Right) -> bool:
        """Whether the actor has a right."""
        return may(self.role, right, self.everybody)

    def noted(self, verb: str, **about: Any) -> None:
        """Write what was done into the audit log, in the caller's transaction."""
        AuditEntry.objects.create(
            business_id=self.business_id, member_id=self.member_id, at=clock.now(), verb=verb, about=about
        )


def visitor_of(business_id: int) -> Actor:
    """The actor for what a visitor does on a business's site."""
    return Actor(business_id, Role.VISITOR)


def member_actor(member: Member) -> Actor:
    """The actor for a member."""
    return Actor(member.business_id, Role(member.role), member.pk, member.user_id, member.sees_everybody)
