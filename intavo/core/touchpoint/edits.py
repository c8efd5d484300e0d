"""Two changes of a house style put together, by what is set in it."""

from typing import Any

from ..edits import put_together
from .look import Colours, HouseStyle
from .named import COLOUR_NAMES, LOOK_VALUES

_WORDS = {name: LOOK_VALUES[name] for name in ("font", "head_font", "corners")} | {"logo": "Logo"}


def houses_together(
    base: HouseStyle, ours: HouseStyle, theirs: HouseStyle
) -> tuple[HouseStyle, tuple[str, ...]]:
    """The style with what both changed since `base`, and in words what both changed differently: of that,
    ours.
    """
    both = put_together(_parts(base), _parts(ours), _parts(theirs))
    values = {name: both.parts[name] for name in _WORDS if name in both.parts}
    colours = {role: both.parts[role] for role in COLOUR_NAMES if role in both.parts}
    house = HouseStyle(colours=Colours(**colours), **values)
    return house, tuple((_WORDS | COLOUR_NAMES)[name] for name in both.clashes)


def _parts(house: HouseStyle) -> dict[str, Any]:
    return {name: getattr(house, name) for name in _WORDS} | dict(house.colours)
