"""A button that the owner's table of replies hides: its own column says so for the situation that holds."""

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import datetime

from ..hours import AnyHours
from ..presence import Presence, changes_at, next_turn, somebody_free
from ..replies import Cell, Reply, Situation, choose, situation


@dataclass(frozen=True)
class Hides:
    """What hiding is worked out from: the cells of the table, the touchpoint's column, its hours and who is
    there.
    """

    table: Mapping[Cell, Reply]
    column: str
    business_language: str
    hours: AnyHours
    members: tuple[Presence, ...]
    # What the touchpoint or its site says that it speaks, as for what it says; "": nothing.
    speaks: str = ""

    def now(self, at: datetime, language: str) -> Situation | None:
        """The situation for which its own cell hides it, if that holds; what is inherited hides nothing."""
        found = situation(self.hours, at, somebody_free(self.members, at))
        chosen = choose(self.table, found, language, self.business_language, self.column, self.speaks)
        return found if chosen.reply.hidden and chosen.cell.channel == self.column else None

    def changes(self, at: datetime) -> datetime | None:
        """When the situation changes next; None if it never does by itself."""
        return min(
            (one for one in (next_turn(self.hours, at), changes_at(self.members, at)) if one is not None),
            default=None,
        )


def hidden_cells(table: Mapping[Cell, Reply], column: str) -> bool:
    """Whether a column hides anything at all: most do not, and need not be asked."""
    return any(reply.hidden and cell.channel == column for cell, reply in table.items())
