"""What hours asks and tells the apps above it."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from datetime import datetime

from intavo.core.effects import Effect
from intavo.core.hours import OpeningHours

from .models import HoursSet


@dataclass
class Followed:
    """Who follows a set of hours: whoever does writes down what it is called."""

    hours: HoursSet
    touchpoints: int = 0
    channels: int = 0
    by: list[str] = field(default_factory=list)


hours_followed: Effect[Followed] = Effect("who follows a set of hours")


@dataclass
class Column:
    """A column of the table of replies; whoever knows it gives it its name and the hours that it follows."""

    business_id: int
    id: str
    name: str = ""


column_asked: Effect[Column] = Effect("whose column of the table of replies it is")


@dataclass(frozen=True, slots=True)
class Departs:
    """What may have a column of its own in the table of replies."""

    id: str
    name: str
    kind: str
    hours: tuple[int | None, ...]
    # Whether "hidden" takes it from the page, or only says nothing.
    hides: bool = False


@dataclass
class Columns:
    """Everything that may have a column of its own, in the owner's order."""

    business_id: int
    found: list[Departs] = field(default_factory=list)


columns_asked: Effect[Columns] = Effect("what may have a column of its own")


@dataclass
class Promised:
    """How many open promises fall due between two instants."""

    business_id: int
    since: datetime
    until: datetime
    count: int = 0


@dataclass(frozen=True, slots=True)
class Moved:
    """A promise whose due time a change of hours moves: whose it is, and its times (aware)."""

    id: int
    name: str
    was: datetime
    now: datetime


@dataclass
class Moving:
    """A change of hours, before it is made: the sets as they are and as they will be, the main ones of a site
    first.

    `before` and `after` give a site's sets (None: of what came by none). With `apply` due times are moved,
    else only found.
    """

    business_id: int
    at: datetime
    before: Callable[[int | None], Mapping[int | None, OpeningHours]]
    after: Callable[[int | None], Mapping[int | None, OpeningHours]]
    apply: bool = False
    found: list[Moved] = field(default_factory=list)


due_times_moved: Effect[Moving] = Effect("which due times a change of hours moves")
promises_counted: Effect[Promised] = Effect("how many promises fall due")
