"""What of a document the visitor's loader can draw by itself, and what needs the second file."""

from .document import Document
from .look import FullValues, HouseStyle, resolved

_STANCES = {"pop-up", "card"}
_MOST_STEPS = 2


def needs_more(document: Document, house: HouseStyle | None = None) -> bool:
    """Whether the loader alone cannot draw it: its stance, a part, a click, its steps, or its look."""
    look = resolved(document.look, document.stance, house)
    return (
        document.stance not in _STANCES
        or len(document.steps) > _MOST_STEPS
        or document.leaving.after is not None
        or document.guard.work
        or document.show.how_often.every == "moment"
        or document.after.file.asset is not None
        or _rich(look)
        or _rich(look.phone)
        or any(part.row is not None or not part.loads_alone() for part in document.parts() if not part.hidden)
    )


def _rich(values: FullValues) -> bool:
    """A look that needs more than colours and the system's own font."""
    plain = ("system", "sans")
    return (
        (values.font.source, values.font.name) != plain
        or (values.head_font.source, values.head_font.name) != plain
        or (values.button_font, values.button_size) != (values.font, values.size)
        or values.card_clear + values.button_clear > 0
        or values.background.asset is not None
        or values.backdrop.asset is not None
        or "grow" in {values.arrival, values.going}
        or values.cross.style != "sign"
        or values.cross.place != "end"
    )
