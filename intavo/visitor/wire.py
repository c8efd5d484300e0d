"""The wire: what goes between the visitor's script and the server, said once. The script's types are made of
it.

What is asked stands here as the models that read it, what is answered as the types of the dictionaries that
are written. Documents and ways to reach the business are written beforehand, once for many visitors, and put
in whole.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Annotated, Any, Literal, NotRequired

import orjson
from pydantic import GetCoreSchemaHandler, TypeAdapter
from pydantic_core import CoreSchema
from typing_extensions import TypedDict

from intavo.core.links import Way
from intavo.core.replies import Told
from intavo.core.showing import PlannedEntry, Visit
from intavo.core.touchpoint import SeenDocument, Watched
from intavo.core.touchpoint.look import Queue, Stance
from intavo.intake.body import Sent, Taken
from intavo.intake.guard import Work
from intavo.results.actions import SaidBeat
from intavo.talks.actions import Begun, SaidNow
from intavo.talks.saying import TalkBegun, TalkNow
from intavo.touchpoints.onsite import LiveTouchpoint, Wants

from .asking import Helped, Wanted


@dataclass(frozen=True, slots=True)
class WrittenAs:
    """Marks JSON that was written beforehand; what stands in it is of this type."""

    type_: Any

    def __get_pydantic_core_schema__(self, source: Any, handler: GetCoreSchemaHandler) -> CoreSchema:
        """As the type that stands in it."""
        return handler.generate_schema(self.type_)


class Entry(TypedDict):
    """A touchpoint of a plan.

    `needs_more`: it has something that the loader does not carry. `again`: it may come again on the same
    page, once closed. `moments` are alternatives, of which all parts must come; none: never by itself.
    `valid_until` in UTC.
    """

    id: str
    slug: str
    revision: int
    variant: str | None
    generation: int
    stance: Stance
    order: int
    queue: Queue
    needs_more: bool
    again: bool
    valid_until: str
    moments: list[list[Watched]]
    document: Annotated[orjson.Fragment, WrittenAs(SeenDocument)]


class HoursNow(TypedDict):
    """How the business is found now, until when (UTC), and what is said."""

    situation: str
    until: str | None
    says: Told | None


class Plan(TypedDict):
    """What may show on a page view. `now` in UTC; `give_way_to`: elements of the site's own that go first.

    `fixed`: the server's clock stands still, for a demonstration. `channels` are there where a touchpoint
    uses any.
    """

    now: str
    visit_minutes: int
    give_way_to: list[str]
    hours: HoursNow
    wants: NotRequired[Wants]
    fixed: NotRequired[Literal[True]]
    touchpoints: list[Entry]
    channels: NotRequired[dict[str, Annotated[orjson.Fragment, WrittenAs(Way)]]]


class SlotOffered(TypedDict):
    """A time for a call, with an offset; its day and time as the business writes them."""

    value: str
    day: str
    time: str


class DayOpen(TypedDict):
    """A day of the week drawn: the times, as they are written, and what it is called if it is odd."""

    day: str
    spans: list[str]
    label: str


class WeekDrawn(TypedDict):
    """Whether it is open, the seven days from today, and what is said of it."""

    open: bool
    days: list[DayOpen]
    says: str


class QuestionOffered(TypedDict):
    """A question of the business's, and its answer as HTML."""

    id: int
    group: str
    question: str
    answer: str


class Extras(TypedDict):
    """What some parts need besides their document; in a rehearsal what is told and given by sending as
    well.
    """

    slots: dict[str, list[SlotOffered]]
    hours: WeekDrawn | None
    questions: list[QuestionOffered]
    channels: NotRequired[dict[str, Way]]
    code: NotRequired[str | None]
    work: NotRequired[Work]
    says: NotRequired[Told | None]
    given: NotRequired[str | None]


class BeatsKept(TypedDict):
    """How many reports were kept, and how many refused."""

    kept: int
    refused: int


class FieldWrong(TypedDict):
    """What is wrong with a field."""

    field: str
    message: str


class Problem(TypedDict):
    """Why something was refused (RFC 9457); `errors` name the fields."""

    type: NotRequired[str]
    title: str
    status: int
    errors: NotRequired[list[FieldWrong]]


# By the end of their address under /e/<key>/: what is sent, and what is answered.
ASKED: Mapping[str, Any] = {
    "plan": Visit, "intake": Sent, "beats": list[SaidBeat], "more": Wanted, "helped": Helped, "talks": Begun,
    "messages": SaidNow,
}  # fmt: skip
ANSWERED: Mapping[str, Any] = {
    "plan": Plan, "intake": Taken, "beats": BeatsKept, "more": Extras, "talks": TalkBegun,
    "messages": TalkNow, "problem": Problem,
}  # fmt: skip
Mode = Literal["validation", "serialization"]
_IN: Mode = "validation"
_OUT: Mode = "serialization"


def wire_schema() -> dict[str, Any]:
    """JSON Schema (2020-12) of everything that goes over the wire, by address."""
    said = [(("asked", name), _IN, TypeAdapter(one)) for name, one in ASKED.items()]
    said += [(("answered", name), _OUT, TypeAdapter(one)) for name, one in ANSWERED.items()]
    places, schema = TypeAdapter.json_schemas(said)
    by_way: dict[str, dict[str, Any]] = {"asked": {}, "answered": {}}
    for ((way, name), _), place in places.items():
        by_way[way][name] = place
    schema["properties"] = {
        way: {"type": "object", "properties": by_way[way], "required": list(by_way[way])} for way in by_way
    }
    return schema | {"type": "object", "required": list(by_way)}


def entry_of(
    live: LiveTouchpoint, planned: PlannedEntry, valid_until: str, document: orjson.Fragment
) -> Entry:
    """A touchpoint as it stands in a plan."""
    return {
        "id": live.compiled.id, "slug": live.slug, "revision": live.revision, "variant": None,
        "generation": live.compiled.generation, "stance": live.stance, "order": live.compiled.order,
        "queue": live.queue, "needs_more": live.needs_more, "again": live.again, "valid_until": valid_until,
        "moments": live.moments(planned.moments), "document": document,
    }  # fmt: skip
