"""Visits with what comes and goes in them: played by the rehearsal, and by the real script in a real browser.

Each file holds a list. `touchpoints` have rules as in a document, a stance, and the owner's order; `visit` is the
visitor as they come; `deeds` are what they do. `events` are [seconds, "shown" or "gone", touchpoint]. `browser`
says how a real browser is set up: touch, viewport, refused storage, a wrong clock (`skew_hours`), less motion,
only the keyboard, and which page deeds are done by reloading or going back.
"""

import json
from dataclasses import dataclass
from datetime import datetime
from pathlib import Path
from typing import Any
from zoneinfo import ZoneInfo

from pydantic import TypeAdapter

from intavo.core.hours import OpeningHours
from intavo.core.showing import Around, Compiled, SiteRules, TouchpointState, Visit, with_groups
from intavo.core.showing.deeds import Deed
from intavo.core.touchpoint import INTERRUPTING, Show, queue_of

ORIGIN = "http://otterwick.example"
LONDON = ZoneInfo("Europe/London")
HOURS = OpeningHours.model_validate(
    {
        "timezone": "Europe/London",
        "week": [{"day": day, "from": "09:00", "to": "17:30"} for day in ("mon", "tue", "wed", "thu", "fri")],
    }
)
_DEEDS: TypeAdapter[list[Deed]] = TypeAdapter(list[Deed])


@dataclass(frozen=True)
class Vector:
    """One visit, or several, of one visitor."""

    name: str
    data: dict[str, Any]

    @property
    def at(self) -> datetime:
        """When it begins."""
        return datetime.fromisoformat(self.data.get("at", "2026-11-24T14:05:00+00:00"))

    @property
    def touchpoints(self) -> list[Compiled]:
        """The touchpoints of the site, made ready."""
        rules = SiteRules.model_validate(self.data.get("rules", {}))
        hosts = frozenset({"otterwick.example"})
        around = Around(
            search=frozenset(rules.search),
            social=frozenset(rules.social),
            search_media=frozenset(rules.search_media),
            social_media=frozenset(rules.social_media),
            hosts=hosts,
            hours={None: HOURS},
            most_interruptions=rules.most_interruptions,
            gives_way=bool(rules.give_way_to),
        )
        shows = {one["id"]: Show.model_validate(one.get("show", {})) for one in self.data["touchpoints"]}
        return [
            Compiled(
                one["id"],
                TouchpointState(one.get("state", "live")),
                hosts,
                with_groups(shows[one["id"]], rules.by_name()),
                LONDON,
                order=order,
                interrupts=one.get("stance", "pop-up") in INTERRUPTING,
                queue=queue(one),
                around=around,
                mates=frozenset(
                    other
                    for other, show in shows.items()
                    if show.group and show.group == shows[one["id"]].group
                ),
                goes_after=one.get("goes_after"),
                joins=one.get("joins", False),
                gives=tuple(one.get("gives", ())),
            )
            for order, one in enumerate(self.data["touchpoints"])
        ]

    @property
    def visit(self) -> Visit:
        """The visitor as they come."""
        said = {"device": "desktop", **self.data.get("visit", {})}
        return Visit.model_validate({"page": {"url": ORIGIN}, **said})

    @property
    def deeds(self) -> list[Deed]:
        """What they do; a page's address may be written as its path."""
        deeds = [dict(one) for one in self.data["deeds"]]
        for one in deeds:
            if one["do"] == "page" and one["url"].startswith("/"):
                one["url"] = ORIGIN + one["url"]
        return _DEEDS.validate_python(deeds)

    @property
    def events(self) -> list[tuple[float, str, str]]:
        """What comes and goes."""
        return [(float(at), what, one) for at, what, one in self.data["events"]]


def queue(touchpoint: dict[str, Any]) -> str:
    """The queue that a touchpoint of a vector waits in."""
    return queue_of(touchpoint.get("stance", "pop-up"))


def vectors() -> list[Vector]:
    """All of them."""
    found = []
    for path in sorted(Path(__file__).parent.glob("*.json")):
        found += [Vector(f"{path.stem}: {one['name']}", one) for one in json.loads(path.read_text())]
    return found
