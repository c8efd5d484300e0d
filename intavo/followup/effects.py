"""What follow-up asks the apps above it."""

from dataclasses import dataclass, field

from intavo.core.effects import Effect


@dataclass
class Away:
    """Services outside that do not answer just now, by their names."""

    business_id: int
    names: list[str] = field(default_factory=list)


services_away: Effect[Away] = Effect("which services do not answer")
