"""What an owner can add in the editor, in the language of their visitors and the money of the business's
country.
"""

from dataclasses import dataclass
from typing import Any

from pydantic import TypeAdapter

from ..places import currency_of
from ..tongues import Phrase, Tongue, say
from .document import Purpose
from .parts import Part, offered
from .starters.spoken import said_in
from .turning import following, thanking

_PARTS: TypeAdapter[list[Part]] = TypeAdapter(list[Part])
_OFFERED: TypeAdapter[dict[str, dict[str, Part]]] = TypeAdapter(dict[str, dict[str, Part]])


@dataclass(frozen=True, slots=True)
class Addable:
    """Parts by group and name; what a step that comes next begins with; what stands on one that thanks; and
    the first words of what is added inside of a part.

    Every part has the id "p", and whoever adds it gives it one of its own.
    """

    parts: dict[str, dict[str, Part]]
    following: list[Part]
    thanks: list[Part]
    words: dict[str, str]


_WORDS = {
    "choice": Phrase("Another one"), "link": Phrase("Another link"), "reply": Phrase("Another reply"),
    "yes": Phrase("Yes, please"), "then": Phrase("And then?"), "greeting": Phrase("Can we help?"),
}  # fmt: skip


def addable(purpose: Purpose, tongue: Tongue) -> Addable:
    """What can be added to a touchpoint of this purpose, in its tongue."""
    groups = {
        group: {name: _part(values, tongue) for name, values in kinds.items()}
        for group, kinds in offered().items()
    }
    return Addable(
        _OFFERED.validate_python(groups),
        _PARTS.validate_python([_part(one, tongue) for one in following()]),
        _PARTS.validate_python([_part(one, tongue) for one in thanking(purpose)]),
        {name: say(phrase.key, tongue) for name, phrase in _WORDS.items()},
    )


def _part(values: dict[str, Any], tongue: Tongue) -> dict[str, Any]:
    part: dict[str, Any] = said_in(values, tongue) | {"id": "p"}
    if "currency" in part:
        part["currency"] = currency_of(tongue.region) or part["currency"]
    return part
