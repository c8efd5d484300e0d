"""What hours asks and tells the apps above it."""

from dataclasses import dataclass, field

from intavo.core.effects import Effect

from .models import HoursSet


@dataclass
class Followed:
    """Who follows a set of hours: whoever does writes down what it is called."""

    hours: HoursSet
    by: list[str] = field(default_factory=list)


hours_followed: Effect[Followed] = Effect("who follows a set of hours")
