"""What accounts tells the apps above it."""

from dataclasses import dataclass

from intavo.core.effects import Effect

from .actor import Actor
from .models import Business


@dataclass(frozen=True, slots=True)
class Leaving:
    """A member who is about to be gone, and who gets what is theirs (None: everybody)."""

    actor: Actor
    member_id: int
    heir_id: int | None


business_created: Effect[Business] = Effect("business created")
business_changed: Effect[int] = Effect("business changed (its id)")
member_leaves: Effect[Leaving] = Effect("a member is about to be gone")
