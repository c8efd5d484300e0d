"""Hours that several tests speak of."""

from datetime import datetime
from zoneinfo import ZoneInfo

from intavo.core.hours import OpeningHours

LONDON = ZoneInfo("Europe/London")
WEEK = [{"day": day, "from": "09:00", "to": "17:30"} for day in ("mon", "tue", "wed", "thu", "fri")]
BOATHOUSE = OpeningHours.model_validate(
    {
        "timezone": "Europe/London",
        "week": [
            *WEEK,
            {"day": "fri", "from": "20:00", "to": "00:30"},
            {"day": "sat", "from": "08:00", "to": "19:00"},
        ],
        "exceptions": [
            {
                "first": "2026-12-24",
                "last": "2026-12-26",
                "label": "Christmas",
                "holiday": True,
                "stretches": [],
            },
            {
                "first": "2026-12-31",
                "last": "2026-12-31",
                "label": "New Year’s Eve",
                "holiday": False,
                "stretches": [{"from": "09:00", "to": "13:00"}],
            },
        ],
    }
)
NEVER = OpeningHours.model_validate({"timezone": "Europe/London", "week": []})
ALWAYS = OpeningHours.model_validate(
    {
        "timezone": "Europe/London",
        "week": [
            {"day": d, "from": "00:00", "to": "24:00"}
            for d in ("mon", "tue", "wed", "thu", "fri", "sat", "sun")
        ],
    }
)


def at(text: str, zone: str = "Europe/London", fold: int = 0) -> datetime:
    """A wall-clock time in a zone."""
    return datetime.fromisoformat(text).replace(tzinfo=ZoneInfo(zone), fold=fold)
