"""What follow-up asks the apps above it."""

from dataclasses import dataclass, field

from intavo.core.effects import Effect


@dataclass
class Away:
    """Services outside that do not answer just now, by their names."""

    business_id: int
    names: list[str] = field(default_factory=list)


@dataclass
class Aside:
    """How much came in that is not on the list, and that nobody has looked at."""

    business_id: int
    count: int = 0


services_away: Effect[Away] = Effect("which services do not answer")
came_aside: Effect[Aside] = Effect("how much lies beside the list")
